"""Our own small dialogs: one that tells something, and one that asks for a line."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QLineEdit, QVBoxLayout, QWidget

from yewhour.ui.kit.controls.controls import button, label, row
from yewhour.ui.kit.theme import scale


class Telling(QDialog):
    """Paragraphs under a heading, the first in larger type."""

    def __init__(self, heading: str, paragraphs: Sequence[str]) -> None:
        super().__init__()
        self.setWindowTitle(heading)
        self.setFixedWidth(round(520 * min(1.5, scale())))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(24, 20, 24, 18)
        layout.setSpacing(12)
        layout.addWidget(label(heading, "heading"))
        for number, words in enumerate(paragraphs):
            layout.addWidget(label(words, "" if number else "reading"))
        layout.addLayout(row(button("Close", self.accept, name="accent")))
        self.resize(self.width(), layout.totalHeightForWidth(self.width()))


class Asking(QDialog):
    """Asks for a line; `about` says, of what is typed, what it means, below the field as it is typed."""

    def __init__(self, over: QWidget, heading: str, about: Callable[[str], str], put_in: str) -> None:
        super().__init__(over)
        self.setWindowTitle(heading)
        self.setFixedWidth(round(620 * min(1.5, scale())))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(24, 20, 24, 18)
        layout.setSpacing(10)
        layout.addWidget(label(heading, "heading"))
        self.field = QLineEdit()
        self.field.setAccessibleName(heading)
        self.message = label(about(""), "soft")
        self.field.textChanged.connect(lambda text: self.message.setText(about(text)))
        layout.addWidget(self.field)
        layout.addWidget(self.message)
        go = button(put_in, self.accept, name="accent")
        go.setDefault(True)
        layout.addLayout(row(go, button("Not now", self.reject)))
        self.field.setFocus(Qt.FocusReason.TabFocusReason)
        self.resize(self.width(), layout.totalHeightForWidth(self.width()))

    def text(self) -> str:
        """What was typed."""
        return self.field.text()
