"""Export: which ways to write the class, what each will look like, and where it goes."""

from __future__ import annotations

import contextlib
import threading
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
from yewhour.ui.kit.theme import scale
from yewhour.voice.sound.neural_voice import installed
from yewhour.voice.sound.sound_file import write_sound

# The class as sound, which takes seconds and not moments: its file ending, and what it is for.
SOUNDS = {
    "sound": (".flac", "spoken, for the ear alone (FLAC)"),
    "sound-mp3": (".mp3", "spoken, for phones (MP3)"),
}
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


DRAWN = ("pdf", "cards", "cards-picture")  # shown as pages


class Exporting(QDialog):
    """The dialog. `written` tells the paths when they are there."""

    written = Signal(list)
    _progressed = Signal(int, str)
    _ended = Signal(list, object)
    _drawn = Signal(str, object)

    def __init__(self, timed: TimedClass, stem: str, folder: Path) -> None:
        super().__init__()
        self.timed = timed
        self.formats = FORMATS
        self.setWindowTitle("Export the script")
        self.resize(round(980 * min(1.4, scale())), round(640 * min(1.3, scale())))
        self._stopping = threading.Event()
        self._thread: threading.Thread | None = None
        self.asking: ChooseFile | None = None
        self.list = QListWidget()
        self.list.setAccessibleName("Ways to write it")
        self.list.setFixedWidth(round(370 * scale()))
        ways = {key: form.about for key, form in FORMATS.items()}
        ways |= {key: about for key, (_, about) in SOUNDS.items()}
        for key, about in ways.items():
            item = QListWidgetItem(f"{about[0].upper()}{about[1:]}")
            item.setData(Qt.ItemDataRole.UserRole, key)
            item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable)
            item.setCheckState(Qt.CheckState.Checked if key == "text" else Qt.CheckState.Unchecked)
            self.list.addItem(item)
        self.preview = Preview()
        self._pages: dict[str, bytes] = {}  # of what is drawn, once it was written
        self._drawn.connect(self._show_pages)
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
        self._progressed.connect(self._show_progress)
        self._ended.connect(self._end)
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
        return SOUNDS[key][0] if key in SOUNDS else self.formats[key].suffix

    def _show(self, number: int) -> None:
        if self._key() in DRAWN:
            self.preview.show_text(b"Drawing the pages\xe2\x80\xa6")
            threading.Thread(target=self._draw, args=(self._key(),), daemon=True).start()
        elif self._key() in SOUNDS:
            self.preview.show_text(self._about_sound().encode())
        else:
            self.preview.show_text(self.formats[self._key()].write(self.timed))

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

    def _draw(self, key: str) -> None:
        """Writes the pages, off the interface thread: a second, with the first one's fonts."""
        try:
            content = self._pages.get(key) or self.formats[key].write(self.timed)
        except Exception as error:  # a fault of one format must not end the thread without a word
            content = f"The pages could not be drawn: {error!r}.".encode()
        with contextlib.suppress(RuntimeError):  # the dialog is gone
            self._drawn.emit(key, content)

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
        if self._thread is not None or not todo:
            return
        self._stopping.clear()
        self.bar.setRange(0, len(todo))
        self.bar.setVisible(True)
        self.write_button.setEnabled(False)
        self.stop_button.setText("Stop")
        self._thread = threading.Thread(target=self._write, args=(todo,), daemon=True)
        self._thread.start()

    def _write(self, todo: list[tuple[str, Path]]) -> None:
        done: list[Path] = []
        problem: Problem | None = None
        for number, (key, path) in enumerate(todo):
            if self._stopping.is_set():
                problem = Problem(f"Stopped; {len(done)} of {len(todo)} are written.")
                break
            self._progressed.emit(number, path.name)
            try:
                if key in SOUNDS:
                    self._speak(path, number)
                else:
                    write_whole(path, self.formats[key].write(self.timed))
            except Problem as error:
                problem = error
                break
            except Exception as error:  # a fault of one format must not leave the dialog waiting for good
                what = f"{path.name} could not be written: {error!r}."
                problem = Problem(what, do="Untick it; please send the class to the makers of this program.")
                break
            done.append(path)
        with contextlib.suppress(RuntimeError):  # the dialog is gone
            self._ended.emit(done, problem)

    def _speak(self, path: Path, number: int) -> None:
        """Writes the class as sound. Raises Problem when it is stopped."""

        def progress(share: float) -> None:
            if self._stopping.is_set():
                raise Problem(f"Stopped; {path.name} is not written.")
            self._progressed.emit(number, f"{path.name}, {share * 100:.0f} %")

        slower = {str(name): value for name, value in load_voice().slower.items()}
        write_sound(self.timed, path, voice_named(), SPOKEN, slower, progress)

    def _show_progress(self, number: int, name: str) -> None:
        self.bar.setValue(number)
        self.names.setText(f"Writing {name}…")

    def _end(self, done: list[Path], problem: Problem | None) -> None:
        self._thread = None
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
        if self._thread is not None:
            self._stopping.set()
        else:
            self.reject()
