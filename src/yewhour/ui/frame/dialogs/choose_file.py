"""Where: which file to open, where to save, or which folder; a path may be typed too."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from functools import partial
from pathlib import Path

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QDialog, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from yewhour.state.settings import recent_classes
from yewhour.ui.frame.dialogs.file_request import FileRequest
from yewhour.ui.kit.controls.controls import button, label, wrapped
from yewhour.ui.kit.controls.controls import row as in_row
from yewhour.ui.kit.controls.fields import prompted
from yewhour.ui.kit.theme import scale

MOST_PLACES = 6


class ChooseFile(QDialog):
    """The dialog. `chosen` tells the path."""

    chosen = Signal(object)

    def __init__(self, wanted: FileRequest, folder: Path, name: str = "") -> None:
        super().__init__()
        self.wanted = wanted
        self.folder = folder
        self._asked = ""  # the file that is there already, and may be written over when it is asked again
        self.setWindowTitle(wanted.title)
        self.resize(round(680 * min(1.4, scale())), round(560 * min(1.3, scale())))
        self.path = QLineEdit()
        self.path.setAccessibleName("Folder")
        self.path.returnPressed.connect(self._typed)
        self.list = QListWidget()
        self.list.setAccessibleName("Folders and files" if not wanted.folder else "Folders")
        self.list.itemActivated.connect(self._activated)
        self.list.currentItemChanged.connect(self._picked)
        self.list.installEventFilter(self)
        self.name = QLineEdit(name)
        self.name.setAccessibleName("Name")
        self.name.returnPressed.connect(self.go)
        self.name.textEdited.connect(lambda _: self._tell(""))
        self.message = label("", "fault")
        self.go_button = button(wanted.go, self.go, name="accent")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(20, 16, 20, 16)
        layout.setSpacing(10)
        layout.addWidget(label(wanted.title, "heading"))
        layout.addLayout(prompted("In", self.path))
        layout.addLayout(wrapped(*self._places()))
        layout.addWidget(self.list, 1)
        if wanted.save:
            layout.addLayout(prompted("Name", self.name))
        layout.addWidget(self.message)
        layout.addLayout(in_row(self.go_button, button("Not now", self.reject)))
        self.enter(folder)
        if wanted.save:
            self.name.setFocus(Qt.FocusReason.TabFocusReason)
            self.name.setSelection(0, len(Path(name).stem))
        else:
            self.list.setFocus(Qt.FocusReason.TabFocusReason)

    def _places(self) -> Sequence[QWidget]:
        """Buttons for the folder above, home, and where classes were lately."""
        home = Path.home()
        known = dict.fromkeys(
            folder
            for folder in (home, home / "Documents", *(path.parent for path in recent_classes()))
            if folder.is_dir()
        )
        presses = [button("Up", lambda: self.enter(self.folder.parent), "The folder above (Backspace).")]
        for folder in list(known)[:MOST_PLACES]:
            words = "Home" if folder == home else folder.name or str(folder)
            presses.append(button(words, partial(self.enter, folder), str(folder)))
        return presses

    # --- going about ----------------------------------------------------------------------------------------

    def enter(self, folder: Path) -> None:
        """Shows what is in a folder; says so when it can't be read, and stays where it was."""
        try:
            found = sorted(folder.iterdir(), key=lambda path: path.name.casefold())
            folders = [path for path in found if path.is_dir() and not path.name.startswith(".")]
            files = [path for path in found if self._fits(path)]
        except OSError as error:
            self._tell(f"{folder} can't be read: {(error.strerror or str(error)).lower()}.")
            if self.list.count() or folder == folder.parent:
                self.path.setText(str(self.folder))
                return
            self.enter(folder.parent)
            return
        came_from = self.folder
        self.folder = folder
        self._tell("")
        self.path.setText(str(folder))
        self.list.clear()
        for path in folders:
            self._row(f"{path.name} /", path)
        for path in files:
            when = datetime.fromtimestamp(path.stat().st_mtime)
            self._row(f"{path.name}    {when:%d %B %Y, %H:%M}", path)
        names = [self._at(number) for number in range(self.list.count())]
        self.list.setCurrentRow(names.index(came_from) if came_from in names else 0)

    def _fits(self, path: Path) -> bool:
        """Whether a file is shown."""
        shown = not self.wanted.folder and path.suffix.lower() in self.wanted.suffixes
        return shown and not path.name.startswith(".") and path.is_file()

    def _row(self, words: str, path: Path) -> None:
        item = QListWidgetItem(words)
        item.setData(Qt.ItemDataRole.UserRole, path)
        self.list.addItem(item)

    def _at(self, number: int) -> Path:
        path: Path = self.list.item(number).data(Qt.ItemDataRole.UserRole)
        return path

    def _picked(self, item: QListWidgetItem | None) -> None:
        """A file that is pointed at gives its name to what is saved."""
        path = item.data(Qt.ItemDataRole.UserRole) if item is not None else None
        if self.wanted.save and self.list.hasFocus() and path is not None and path.is_file():
            self.name.setText(path.name)
            self._tell("")

    def _activated(self, item: QListWidgetItem) -> None:
        path = item.data(Qt.ItemDataRole.UserRole)
        if path.is_dir():
            self.enter(path)
        else:
            self.go()

    def _typed(self) -> None:
        """A folder typed is gone into; a file typed is the one that is meant."""
        path = self.folder / Path(self.path.text().strip()).expanduser()
        if path.is_dir():
            self.enter(path)
        elif self.wanted.folder or not path.parent.is_dir():
            self._tell(f"There is no folder {path}.")
        elif self.wanted.save or path.is_file():
            self.enter(path.parent)
            self._take(path)
        else:
            self._tell(f"There is no file {path}.")

    # --- choosing -------------------------------------------------------------------------------------------

    def go(self) -> None:
        """Takes what is typed, named or pointed at; a folder that is pointed at is gone into."""
        typed = self.path.text().strip()
        if typed and self.folder / Path(typed).expanduser() != self.folder:
            self._typed()
            return
        item = self.list.currentItem()
        path = item.data(Qt.ItemDataRole.UserRole) if item is not None else None
        if self.wanted.folder:
            self._take(self.folder)
        elif self.wanted.save:
            name = self.name.text().strip()
            if name:
                self._take(self.folder / Path(name).expanduser())
            else:
                self._tell("Give it a name.")
        elif path is None:
            self._tell("There is nothing here to open: go to another folder.")
        elif path.is_dir():
            self.enter(path)
        else:
            self._take(path)

    def _take(self, path: Path) -> None:
        if self.wanted.save:
            if path.suffix.lower() not in self.wanted.suffixes:
                path = path.with_name(path.name + self.wanted.suffixes[0])
            if not path.parent.is_dir():
                self._tell(f"There is no folder {path.parent}.")
                return
            if path.exists() and self._asked != str(path):
                self._tell(f"{path.name} is there already. {self.wanted.go} again to write over it.")
                self._asked = str(path)
                return
        self.accept()
        self.chosen.emit(path)

    def _tell(self, words: str) -> None:
        self._asked = ""
        self.message.setText(words)
        self.message.setVisible(bool(words))

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """On the list Backspace goes up, and what a path begins with goes where paths are typed."""
        if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.KeyPress:
            return False
        if event.key() == Qt.Key.Key_Backspace:
            self.enter(self.folder.parent)
            return True
        if event.text() in ("/", "~", "."):
            self.path.setText(event.text())
            self.path.setFocus(Qt.FocusReason.ShortcutFocusReason)
            self.path.end(False)
            return True
        return False
