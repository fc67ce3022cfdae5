"""The clerk: everything about files that asks the teacher something, through dialogs."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from yewhour.core.plan.outline_read import read_outline
from yewhour.core.plan.outline_write import write_outline
from yewhour.core.plan.plan import Brief, Plan, Section
from yewhour.core.problem import Problem
from yewhour.store.atomic import write_whole
from yewhour.store.keeping import Kept
from yewhour.store.naming import stem_for
from yewhour.ui.desk.files import Files
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.shell import Shell
from yewhour.ui.frame.wanted import Wanted

OUTLINES = (".txt", ".outline", ".md")
CLASSES = (".yewhour",)


class Clerk:
    """Opens, saves and exports for one window."""

    def __init__(self, window: Shell, session: Session, files: Files) -> None:
        self.window = window
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

    def open_class(self) -> None:
        """Asks for a class and opens it."""
        self._ask_and_open("Open a class", CLASSES + OUTLINES)

    def open_outline(self) -> None:
        """Asks for an outline and makes a class of it."""
        self._ask_and_open("From an outline", OUTLINES)

    def paste_outline(self, text: str) -> None:
        """Makes a class of the lines of an outline."""
        words = self.session.words
        try:
            if not text.strip():
                raise Problem("There is no text on the clipboard.", do="Copy the lines of a class first.")
            plan = read_outline(text, words.library, "clipboard", words.known)
        except Problem as problem:
            self.window.tell(problem)
            return
        self.files.begin(plan)

    def _ask_and_open(self, title: str, suffixes: tuple[str, ...]) -> None:
        self._ask(Wanted(title, "Open", suffixes), "", self.open_file)

    def _ask(self, wanted: Wanted, name: str, do: Callable[[Path], object]) -> None:
        """Asks where, and does something with the path that is chosen."""
        dialog = self.window.later.Where(wanted, self._folder(), name)
        dialog.chosen.connect(do)
        self.window.keep_open(dialog)

    def _folder(self) -> Path:
        path = self.session.path
        return Path.home() if path is None or self.files.is_demo(path) else path.parent

    def new_class(self) -> None:
        """An empty class, in its first part; the promise comes first."""
        self.files.begin(Plan(brief=Brief(), sections=(Section(title="Practice"),)))
        self.window.to_promise()

    def bring_back(self, kept: Kept) -> None:
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
        self.window.another_wanted.emit(self.window.dark)

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
            Wanted("Save the class", "Save", CLASSES, save=True), f"{self._stem()}.yewhour", self.save_to
        )

    def save_to(self, path: Path) -> bool:
        """Saves to a path, whole or not at all; says why when it can't."""
        try:
            self.files.save(path)
        except Problem as problem:
            self.window.tell(problem)
            return False
        return True

    def save_outline(self) -> None:
        """Asks where, and writes the class as an outline."""
        if self.session.plan is None:
            return
        wanted = Wanted("Save as an outline", "Save", OUTLINES, save=True)
        self._ask(wanted, f"{self._stem()}.txt", self._write_outline)

    def _write_outline(self, path: Path) -> None:
        if self.session.plan is None:
            return
        try:
            write_whole(path, write_outline(self.session.plan, self.session.words.library).encode())
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
        dialog = self.window.later.Versions(session, self.window.theme)
        dialog.brought.connect(lambda plan, when: session.do(f"Go on from {when}", plan))
        self.window.keep_open(dialog)

    def export_script(self) -> None:
        """The export dialog."""
        if self.session.made is None:
            self.window.tell(Problem("There is no class to export yet.", do="Add a movement first."))
            return
        dialog = self.window.rarely.Exporting(self.session.made, self._stem(), self._folder())
        dialog.written.connect(self._tell_written)
        self.window.keep_open(dialog)

    def _tell_written(self, paths: list[Path]) -> None:
        if paths:
            more = f" and {len(paths) - 1} more" if len(paths) > 1 else ""
            self.window.say(f"Written: {paths[0]}{more}")
