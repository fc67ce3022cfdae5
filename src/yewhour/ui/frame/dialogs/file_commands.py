"""Everything about files that asks the teacher something, through dialogs."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from yewhour.background.jobs import Job
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.plan.plan import Brief, Plan, Section
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole
from yewhour.files.file_names import stem_for
from yewhour.files.late import late
from yewhour.files.program import command
from yewhour.state.classes.unsaved_work import UnsavedWork
from yewhour.state.paths import learnt_file
from yewhour.state.settings import recent_classes
from yewhour.state.takes.recording_kinds import CAMERAS, CAPTIONS, SOUNDS
from yewhour.ui.desk.class_files import ChangedOutside, ClassFiles
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.dialogs.file_request import FileRequest
from yewhour.ui.frame.host import Host
from yewhour.ui.frame.pages import Pages

if TYPE_CHECKING:
    from yewhour.core.review.bring_in import BroughtClass
    from yewhour.state.takes import learnt_seconds, recordings
else:
    learnt_seconds = late("yewhour.state.takes.learnt_seconds")  # likewise
    recordings = late("yewhour.state.takes.recordings")  # NumPy, with the words that are compared


OUTLINES = (".txt", ".outline", ".md")
CLASSES = (".yewhour",)
MOST_NOTES = 9  # of what was not understood in a recording, that are shown at once


class FileCommands:
    """Opens, saves and exports for one window."""

    def __init__(self, window: Host, session: Session, files: ClassFiles, pages: Pages) -> None:
        self.window, self.pages = window, pages
        self.session = session
        self.files = files

    # --- opening ---------------------------------------------------------------------------------

    def open_file(self, path: Path) -> bool:
        """Opens a class or an outline; says why when it can't, and keeps the one before."""
        try:
            self.files.open(path)
        except Problem as problem:
            self.window.tell(problem)
            return False
        return True

    def take_dropped(self, names: Sequence[str]) -> None:
        """What was dropped on the window: a class is opened, a recording of the open class looked back at."""
        if not names:
            what = "Only files of this computer can be dropped here."
            self.window.tell(Problem(what, do="Save it first, then drop it."))
            return
        path = Path(names[0])
        if path.suffix.lower() in (*SOUNDS, ".srt", ".vtt") and self.session.timed is not None:
            self.window.go_to("to_back")
            self.pages.review().look_at_file(path)
        else:
            self.open_file(path)

    def open_class(self) -> None:
        """Asks for a class and opens it."""
        self._ask_and_open("Open a class", CLASSES + OUTLINES)

    def open_outline(self) -> None:
        """Asks for an outline and makes a class of it."""
        self._ask_and_open("From an outline", OUTLINES)

    def paste_outline(self, text: str) -> None:
        """Makes a class of the lines of an outline."""
        words = self.session.teaching_data
        try:
            if not text.strip():
                raise Problem("There is no text on the clipboard.", do="Copy the lines of a class first.")
            plan = read_outline(text, words.library, "clipboard", words.known)
        except Problem as problem:
            self.window.tell(problem)
            return
        self.files.begin(plan)

    def _ask_and_open(self, title: str, suffixes: tuple[str, ...]) -> None:
        self._ask(FileRequest(title, "Open", suffixes), "", self.open_file)

    def _ask(self, wanted: FileRequest, name: str, do: Callable[[Path], object]) -> None:
        """Asks where, and does something with the path that is chosen."""
        dialog = self.pages.later.ChooseFile(wanted, self._folder(), name)
        dialog.chosen.connect(do)
        self.window.keep_open(dialog)

    def _folder(self) -> Path:
        """Where to begin: beside the class that is open, or where her classes were lately, or at home."""
        path = self.session.path
        lately = [] if path is None or self.files.is_demo(path) else [path]
        lately += [one for one in recent_classes() if not self.files.is_demo(one)]
        return next((one.parent for one in lately if one.parent.is_dir()), Path.home())

    def choose_recording(self) -> None:
        """Asks for captions or a recording of the class that is open, and looks back at it."""
        look = self.pages.review().look_at_file
        self._ask(FileRequest("Captions or a recording", "Look back", (*CAPTIONS, *SOUNDS)), "", look)

    def choose_camera(self, look: Callable[[Path], object]) -> None:
        """Asks for the camera's file of a take that was looked back at."""
        self._ask(FileRequest("The camera's file", "Make its film", CAMERAS), "", look)

    def choose_place_of_film(self, name: str, write: Callable[[Path], object]) -> None:
        """Asks where a film is to be written."""
        self._ask(FileRequest("Write the film", "Write", (".mp4", ".mkv", ".webm"), save=True), name, write)

    def choose_folder_as_it_was(self) -> None:
        """Asks where the class as it was is to be written."""
        write = self.pages.review().write_into
        self._ask(FileRequest("Write it as it was", "Write here", folder=True), "", write)

    def open_to_record(self, path: Path) -> None:
        """Opens a class and goes to its take."""
        if self.open_file(path):
            self.window.go_to("to_take")

    def choose_folder_of_weeks(self) -> None:
        """Asks where what goes out is to be written."""
        write = self.pages.shelf().write_into
        self._ask(FileRequest("Write out what goes out", "Write here", folder=True), "", write)

    def choose_folder_to_take_in(self) -> None:
        """Asks which folder's classes are to be put onto the shelf."""
        adopt = self.pages.shelf().making.adopt
        self._ask(FileRequest("Classes for the shelf", "Put them on it", folder=True), "", adopt)

    def find_shelved(self, name: str) -> None:
        """Asks where the file of a class of the shelf is now."""
        find = partial(self.pages.shelving().found_at, name)
        self._ask(FileRequest("Where is it now?", "This one", CLASSES), "", find)

    def begin_from_shelf(self, plan: Plan, said: str) -> None:
        """A class made from one on the shelf, in no file yet."""
        self.files.begin(plan)
        self.window.say(said)

    def change_from_shelf(self, plan: Plan, said: str) -> None:
        """The class that was just opened from the shelf, changed; undo takes it back."""
        self.session.do("Name another class at its end", plan)
        self.window.say(f"It says: {said} Save it with Ctrl+S.")

    def bring_in(self) -> None:
        """Asks for a recording's captions, and makes a draft of a class of them."""
        self._ask(FileRequest("Captions of a recording", "Bring in", CAPTIONS), "", self.bring_in_file)

    def bring_in_file(self, path: Path) -> None:
        """A draft of a class from a recording's captions; worked out beside the window."""
        words = self.session.teaching_data

        def work(job: Job) -> tuple[BroughtClass, Plan]:
            brought = recordings.brought_from(recordings.captions_in(path), words, path.stem)
            return brought, read_outline(brought.outline, words.library, str(path))

        self.window.say(f"Listening to {path.name}…")
        self.session.jobs.run(
            "bring in", work, lambda made: self._brought_in(path, *made), doing="Bringing in a recording",
            lost="Nothing was changed.", failed=self.window.tell, owner=self.session,
        )  # fmt: skip

    def _brought_in(self, path: Path, brought: BroughtClass, plan: Plan) -> None:
        self.files.begin(plan)
        self.window.say(f"{len(brought.items)} movements were brought in. {brought.told}".rstrip())
        notes = [row.removeprefix("// ") for row in brought.outline.splitlines() if row.startswith("// ")]
        if notes:
            more = len(notes) - MOST_NOTES
            rest = (
                [f"And {more} more: `{command()} bring-in {path.name}` writes all of them."]
                if more > 0
                else []
            )
            about = "What is said here may be of movements that are not in the class yet."
            telling = self.pages.later.Telling("Not understood", [about, *notes[:MOST_NOTES], *rest])
            self.window.keep_open(telling)

    def new_class(self) -> None:
        """An empty class, in its first part; the promise comes first."""
        plan = Plan(brief=Brief(), sections=(Section(title="Practice"),))
        if learnt_file().is_file():
            plan = learnt_seconds.as_hers(plan)
        self.files.begin(plan)
        self.window.go_to("to_promise")

    def bring_back(self, kept: UnsavedWork) -> None:
        """Goes on with work that was not saved."""
        try:
            self.files.bring_back(kept)
        except Problem as problem:
            self.window.tell(problem)

    def show_start(self) -> None:
        """The first page; what is open is kept."""
        self.files.keep()
        self.window.show_first_page()

    def new_window(self) -> None:
        """Another window, on the first page."""
        self.window.open_another()

    # --- saving ----------------------------------------------------------------------------------

    def save_class(self) -> None:
        """Saves where the class came from; a new one, or a demo class, is saved somewhere else."""
        if self.session.plan is None:
            return
        if self.files.needs_name:
            self.save_class_as()
        elif self.session.path is not None:
            self.save_to(self.session.path)

    def save_class_as(self) -> None:
        """Asks where, and saves."""
        if self.session.plan is None:
            return
        self._ask(
            FileRequest("Save the class", "Save", CLASSES, save=True), f"{self._stem()}.yewhour", self.save_to
        )

    def save_to(self, path: Path) -> bool:
        """Saves to a path, whole or not at all; says why when it can't."""
        try:
            self.files.save(path)
        except ChangedOutside as problem:
            self.window.tell(problem)
            self.show_versions()
            return False
        except Problem as problem:
            self.window.tell(problem)
            return False
        return True

    def save_outline(self) -> None:
        """Asks where, and writes the class as an outline."""
        if self.session.plan is None:
            return
        wanted = FileRequest("Save as an outline", "Save", OUTLINES, save=True)
        self._ask(wanted, f"{self._stem()}.txt", self._write_outline)

    def _write_outline(self, path: Path) -> None:
        if self.session.plan is None:
            return
        try:
            words = self.session.teaching_data
            write_whole(path, write_outline(self.session.plan, words.library, words.blocks).encode())
        except Problem as problem:
            self.window.tell(problem)
        else:
            self.window.say(f"Written: {path}")

    def _stem(self) -> str:
        path, plan = self.session.path, self.session.plan
        return path.stem if path is not None else stem_for(plan.brief.title) if plan is not None else "class"

    # --- versions and exports --------------------------------------------------------------------

    def show_versions(self) -> None:
        """The saved states of this class."""
        session = self.session
        if session.plan is None:
            return
        dialog = self.pages.later.Revisions(session, self.window.theme)
        dialog.brought.connect(lambda plan, title: session.do(title, plan))
        self.window.keep_open(dialog)

    def export_script(self) -> None:
        """The export dialog."""
        if self.session.timed is None:
            self.window.tell(Problem("There is no class to export yet.", do="Add a movement first."))
            return
        dialog = self.pages.rarely.Exporting(
            self.session.timed, self._stem(), self._folder(), self.session.jobs
        )
        dialog.written.connect(self._tell_written)
        self.window.keep_open(dialog)

    def _tell_written(self, paths: list[Path]) -> None:
        if paths:
            more = f" and {len(paths) - 1} more" if len(paths) > 1 else ""
            self.window.say(f"Written: {paths[0]}{more}")
