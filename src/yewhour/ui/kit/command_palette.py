"""Everything that can be done, with its keys: type part of it and press Enter, and it is done."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QKeyEvent
from PySide6.QtWidgets import QDialog, QLineEdit, QTreeWidget, QTreeWidgetItem, QVBoxLayout

from yewhour.ui.kit.commands import COMMANDS
from yewhour.ui.kit.controls.controls import label
from yewhour.ui.kit.theme import scale

HELP = (
    "Enter does it. On the sprig: up and down choose, left goes out to the pair or part, right goes in, "
    "Shift takes more."
)


class CommandPalette(QDialog):
    """The sheet of all deeds, and the way to any of them by name."""

    def __init__(self, actions: dict[str, QAction]) -> None:
        super().__init__()
        self.actions_by_name = actions
        self.setWindowTitle("Everything you can do")
        self.resize(round(760 * min(1.4, scale())), round(640 * min(1.2, scale())))
        self.field = QLineEdit()
        self.field.setObjectName("finder")
        self.field.setPlaceholderText("What would you like to do?")
        self.field.setAccessibleName("What would you like to do?")
        self.list = QTreeWidget()
        self.list.setAccessibleName("Everything you can do")
        self.list.setColumnCount(3)
        self.list.setHeaderHidden(True)
        self.list.setRootIsDecorated(False)
        self.list.setColumnWidth(0, round(230 * scale()))
        self.list.setColumnWidth(1, round(150 * scale()))
        layout = QVBoxLayout(self)
        layout.addWidget(self.field)
        layout.addWidget(self.list, 1)
        layout.addWidget(label(HELP, "soft"))
        self.field.textChanged.connect(self.fill)
        self.field.returnPressed.connect(self.do)
        self.list.itemActivated.connect(lambda *_: self.do())
        self.fill()

    def fill(self) -> None:
        """Lists the deeds that have all the words typed."""
        words = self.field.text().lower().split()
        self.list.clear()
        for command in COMMANDS:
            text = f"{command.menu} {command.title} {command.about}".lower()
            if all(word in text for word in words):
                item = QTreeWidgetItem(
                    [command.title.replace("…", ""), "  or  ".join(command.keys[:2]), command.about]
                )
                item.setData(0, Qt.ItemDataRole.UserRole, command.name)
                self.list.addTopLevelItem(item)
        first = self.list.topLevelItem(0)
        if first is not None:
            self.list.setCurrentItem(first)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up) and self.field.hasFocus():
            by = 1 if event.key() == Qt.Key.Key_Down else -1
            row = self.list.currentIndex().row() + by
            item = self.list.topLevelItem(max(0, min(self.list.topLevelItemCount() - 1, row)))
            if item is not None:
                self.list.setCurrentItem(item)
        else:
            super().keyPressEvent(event)

    def do(self) -> None:
        """Does the one that is current."""
        item = self.list.currentItem()
        if item is None:
            return
        action = self.actions_by_name[item.data(0, Qt.ItemDataRole.UserRole)]
        self.accept()
        action.trigger()
