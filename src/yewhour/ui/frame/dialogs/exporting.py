"""Export: which ways to write the class, what each will look like, and where it goes."""

from __future__ import annotations

from functools import cached_property
from pathlib import Path

from PySide6.QtCore import Qt, QUrl, Signal
from PySide6.QtGui import QDesktopServices
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QProgressBar,
    QVBoxLayout,
)

from yewhour.background.jobs import Job
from yewhour.content.terms import load_voice
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import write_whole
from yewhour.render.formats import FORMATS
from yewhour.render.script_pdf import unprintable_message
from yewhour.state.paths import installed_voice
from yewhour.state.voices import voice_named
from yewhour.ui.frame.dialogs.choose_file import ChooseFile
from yewhour.ui.frame.dialogs.file_request import FileRequest
from yewhour.ui.frame.dialogs.preview import Preview
from yewhour.ui.kit.controls.controls import button, label, row
from yewhour.ui.kit.jobs import Jobs
from yewhour.ui.kit.theme import scale
from yewhour.voice.sound.neural_voice import installed
from yewhour.voice.sound.sound_file import write_sound

# The class as sound, which takes seconds and not moments: its file ending, and what it is for.
SOUNDS = {
    "sound": (".flac", "spoken, for the ear alone (FLAC)"),
    "sound-mp3": (".mp3", "spoken, for phones (MP3)"),
}
FILM = {"film": (".figures.mp4", "a film of its figures, spoken, to practise from (MP4)")}
LONGER = {**SOUNDS, **FILM}
SPOKEN = frozenset({"lines", "bells"})


def _there(path: Path) -> bool:
    """Whether a file is there; one whose name no disk can hold is not."""
    try:
        return path.exists()
    except OSError:
        return False


def _haste() -> str:
    if installed(installed_voice()):
        return "The neural voice speaks it; that takes some five seconds for each minute, the first time."
    return "It takes about a second for each minute."


PAGES, WRITING = "export pages", "export"
DRAWN = ("pdf", "cards", "cards-picture", "film")  # shown as pages


class Exporting(QDialog):
    """The dialog. `written` tells the paths when they are there."""

    written = Signal(list)

    def __init__(self, timed: TimedClass, stem: str, folder: Path, jobs: Jobs) -> None:
        super().__init__()
        self.timed, self.jobs = timed, jobs
        self.formats = FORMATS
        self.setWindowTitle("Export the script")
        self.resize(round(980 * min(1.4, scale())), round(640 * min(1.3, scale())))
        self._done: list[Path] = []  # what was written this time
        self.asking: ChooseFile | None = None
        self.list = QListWidget()
        self.list.setAccessibleName("Ways to write it")
        self.list.setFixedWidth(round(370 * scale()))
        ways = {key: form.about for key, form in FORMATS.items()}
        ways |= {key: about for key, (_, about) in LONGER.items()}
        for key, about in ways.items():
            item = QListWidgetItem(f"{about[0].upper()}{about[1:]}")
            item.setData(Qt.ItemDataRole.UserRole, key)
            item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable)
            item.setCheckState(Qt.CheckState.Checked if key == "text" else Qt.CheckState.Unchecked)
            self.list.addItem(item)
        self.preview = Preview()
        self._pages: dict[str, bytes] = {}  # of what is drawn, once it was written
        self.name = QLineEdit(stem)
        self.name.setAccessibleName("Name")
        self.folder = QLineEdit(str(folder))
        self.folder.setAccessibleName("Folder")
        self.names = label("", "soft")
        self.bar = QProgressBar()
        self.bar.setVisible(False)
        self.bar.setTextVisible(False)
        self.write_button = button("Write", self.write, "Writes what is ticked.", "accent")
        self.write_button.setDefault(True)
        self.folder_button = button("Open the folder", self.open_folder, "Shows what was written.", "accent")
        self.folder_button.hide()
        self.stop_button = button("Close", self.stop)
        middle = QHBoxLayout()
        middle.addWidget(self.list)
        middle.addWidget(self.preview, 1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 14, 18, 14)
        layout.setSpacing(10)
        layout.addWidget(
            label("Tick the ways you want; the one that is chosen is shown as it will be.", "soft")
        )
        layout.addLayout(middle, 1)
        layout.addLayout(row(label("Name", "prompt"), self.name, label("in", "prompt"), self.folder,
                             button("Other folder", self._choose_folder), stretch=False))  # fmt: skip
        layout.addWidget(self.names)
        layout.addWidget(self.bar)
        layout.addLayout(row(self.write_button, self.folder_button, self.stop_button))
        self.list.currentRowChanged.connect(self._show)
        self.list.itemChanged.connect(lambda _: self._again())
        for field in (self.name, self.folder):
            field.textChanged.connect(lambda _: self._again())
        self.list.setCurrentRow(0)
        self._show_names()

    def chosen(self) -> list[str]:
        """The ways that are ticked."""
        items = (self.list.item(number) for number in range(self.list.count()))
        return [
            item.data(Qt.ItemDataRole.UserRole)
            for item in items
            if item.checkState() == Qt.CheckState.Checked
        ]

    def paths(self) -> list[tuple[str, Path]]:
        """Each way that is ticked and the file it goes to."""
        folder, stem = Path(self.folder.text()).expanduser(), self.name.text().strip() or "script"
        return [(key, folder / f"{stem}{self._suffix(key)}") for key in self.chosen()]

    def _suffix(self, key: str) -> str:
        return LONGER[key][0] if key in LONGER else self.formats[key].suffix

    def _show(self, number: int) -> None:
        if self._key() in DRAWN:
            self.preview.show_text(b"Drawing the pages\xe2\x80\xa6")
            key = self._key()
            self.jobs.run(
                PAGES, lambda job: self._pages.get(key) or self._drawn(key),
                lambda content: self._show_pages(key, content), doing="Drawing the pages",
                lost="The class is as it was; other formats can be written.", owner=self,
                failed=lambda problem: self._show_pages(key, str(problem).encode()),
                faulted=lambda fault: self._show_pages(key, str(fault).encode()),
            )  # fmt: skip
        elif self._key() in SOUNDS:
            self.preview.show_text(self._about_sound().encode())
        else:
            self.preview.show_text(self.formats[self._key()].write(self.timed))

    def _drawn(self, key: str) -> bytes:
        """What is shown of a way as pages; of a film one picture, from its middle."""
        if key not in FILM:
            return self.formats[key].write(self.timed)
        # Codecs, which an export of something else does not need.
        from yewhour.ui.kit.film.class_film import sample

        return sample(self.timed, self.timed.length_s / 2)

    def _about_sound(self) -> str:
        """What the sound will be like, as it can't be seen."""
        timed = self.timed
        return (
            f"{show_length(timed.length_s)} of sound, as long as the class to the sample.\n\n"
            f"{len(timed.cues)} lines, each at its moment, at your pace of speech.\n"
            "A low bell for each section.\n\n"
            "Even in loudness (-16 LUFS).\n"
            "Title and chapters are in the file.\n\n"
            f"{_haste()}"
        )

    @cached_property
    def _unprinted(self) -> str:
        """What the PDF has no sign for; found once, as it may take loading the fonts."""
        return unprintable_message(self.timed)

    def _key(self) -> str:
        """The way that is shown."""
        item = self.list.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else ""

    def _show_pages(self, key: str, content: bytes) -> None:
        if self._key() != key:
            return
        if content.startswith((b"%PDF", b"\x89PNG")):
            self._pages[key] = content
            self.preview.show_pages(content)
        else:
            self.preview.show_text(content)
        self._show_names()

    def _show_names(self) -> None:
        names = [path.name for _, path in self.paths()]
        there = [path.name for _, path in self.paths() if _there(path)]
        words = f"Writes {', '.join(names)}." if names else "Nothing is ticked."
        if there:
            words += f" Already there, and written anew: {', '.join(there)}."
        if "pdf" in self.chosen() or self._key() == "pdf":
            words += f" {self._unprinted}"
        self.names.setText(words.strip())
        self.write_button.setEnabled(bool(names))

    def _choose_folder(self) -> None:
        asking = ChooseFile(
            FileRequest("Where to", "This folder", folder=True), Path(self.folder.text()).expanduser()
        )
        asking.setParent(self, Qt.WindowType.Dialog)
        asking.setModal(True)
        asking.chosen.connect(lambda folder: self.folder.setText(str(folder)))
        self.asking = asking
        asking.show()

    # --- writing, off the interface thread -----------------------------------------------------------------

    def write(self) -> None:
        """Writes what is ticked, each file whole or not at all."""
        todo = self.paths()
        if self.busy or not todo:
            return
        self.bar.setRange(0, len(todo))
        self.bar.setVisible(True)
        self.write_button.setEnabled(False)
        self.stop_button.setText("Stop")
        self._done = []
        self.jobs.run(
            WRITING, lambda job: self._write(todo, job), lambda nothing: self._end(None), doing="Exporting",
            lost="Files that were named as written are whole; the class is as it was.", owner=self,
            failed=self._end, faulted=lambda fault: self._end(Problem(str(fault))),
            progress=lambda far: self._show_progress(*far),
        )  # fmt: skip

    @property
    def busy(self) -> bool:
        """Whether something is being written."""
        return self.jobs.busy(WRITING)

    def _write(self, todo: list[tuple[str, Path]], job: Job) -> None:
        """On a thread of its own. Raises Problem for what can't be written; what was done before stays."""
        for number, (key, path) in enumerate(todo):
            job.progress((number, path.name))
            job.doing = f"Writing {path.name}"
            if key in LONGER:
                self._speak(key, path, number, job)
            else:
                write_whole(path, self.formats[key].write(self.timed))
            self._done.append(path)

    def _speak(self, key: str, path: Path, number: int, job: Job) -> None:
        """Writes the class as sound, or as a film."""

        def progress(share: float) -> None:
            job.progress((number, f"{path.name}, {share * 100:.0f} %"))

        if key in FILM:
            # Codecs, which an export of something else does not need.
            from yewhour.ui.kit.film.class_film import film_of_class

            film_of_class(self.timed, path, voice_named(), progress)
            return
        slower = {str(name): value for name, value in load_voice().slower.items()}
        write_sound(self.timed, path, voice_named(), SPOKEN, slower, progress)

    def _show_progress(self, number: int, name: str) -> None:
        self.bar.setValue(number)
        self.names.setText(f"Writing {name}…")

    def _end(self, problem: Problem | None) -> None:
        done = self._done
        self.bar.setVisible(False)
        self.stop_button.setText("Close")
        self.write_button.setEnabled(True)
        self.written.emit(done)
        if problem is not None:
            self.names.setText(str(problem))
        elif done:
            self.names.setText(f"Written: {', '.join(str(path) for path in done)}")
            self.write_button.hide()
            self.folder_button.show()
            self.stop_button.setFocus(Qt.FocusReason.TabFocusReason)

    def open_folder(self) -> None:
        """Shows the folder in the desktop's own way."""
        folder = str(Path(self.folder.text()).expanduser())
        if not QDesktopServices.openUrl(QUrl.fromLocalFile(folder)):
            self.names.setText(f"Nothing on this desktop opens folders. It is at {folder}")

    def _again(self) -> None:
        """Something else is to be written."""
        self._show_names()
        self.folder_button.hide()
        self.write_button.show()

    def stop(self) -> None:
        """Stops writing, or closes when nothing is being written."""
        if self.busy:
            self.jobs.cancel(WRITING)
            self._end(Problem(f"Stopped; {len(self._done)} of {len(self.paths())} are written."))
        else:
            self.reject()
