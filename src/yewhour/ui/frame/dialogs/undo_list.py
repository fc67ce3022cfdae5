"""What was done: every state the class went through, to go to any of them at once."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog, QListWidget, QVBoxLayout

from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import button, label, row
from yewhour.ui.kit.theme import scale

FIRST = "As it was before all of this"


class UndoList(QDialog):
    """The states, the latest first, each by the act that led to it. The class goes along with the choice."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setWindowTitle("What was done")
        self.resize(round(460 * min(1.4, scale())), round(520 * min(1.2, scale())))
        ahead = session.past.redo_titles
        self.here = self.began = len(ahead)
        self.list = QListWidget()
        self.list.setAccessibleName("What was done, the latest first")
        self.list.addItems([*reversed(ahead), *session.past.undo_titles, FIRST])
        self.list.setCurrentRow(self.here)
        self.list.currentRowChanged.connect(self.go)
        self.list.itemActivated.connect(lambda _: self.accept())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 14, 18, 14)
        layout.setSpacing(10)
        layout.addWidget(
            label("The class as it was after each of these: it goes there as you choose.", "soft")
        )
        layout.addWidget(self.list, 1)
        layout.addLayout(
            row(button("Stay here", self.accept, name="accent"), button("As I came", self.reject))
        )

    def go(self, number: int) -> None:
        """The class as it was after this act; further up is later."""
        back = number - self.here
        self.here = number
        if back > 0:
            self.session.undo(back)
        elif back < 0:
            self.session.redo(-back)

    def reject(self) -> None:
        """Back to where it was when this was opened."""
        self.go(self.began)
        super().reject()
