"""What is told in a sentence: each marked word opens, below it, what it can be."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLayout, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from yewhour.ui.kit.controls.chips import Chips
from yewhour.ui.kit.controls.sentence import Sentence, SentencePart
from yewhour.ui.kit.theme import Theme, scale


class EditableSentence(QWidget):
    """The sentence with its panels. name: what a screen reader calls it. area: scrolls to what is opened."""

    def __init__(
        self, name: str, parts: Sequence[str | SentencePart], theme: Theme, area: QScrollArea
    ) -> None:
        super().__init__()
        self.area = area
        self.sentence = Sentence(name, parts, theme)
        self.sentence.opened.connect(self.open)
        self.panels: dict[str, QWidget] = {}
        self.opened = ""
        self._first: dict[str, QWidget] = {}
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 0, 0, 0)
        self._layout.addWidget(self.sentence)
        self._layout.addSpacing(round(6 * scale()))
        self._soon = QTimer(self)  # what was opened has its size then
        self._soon.setSingleShot(True)
        self._soon.setInterval(30)
        self._soon.timeout.connect(self._into_view)

    def panel(self, key: str, first: QWidget, *contents: QWidget | QLayout) -> None:
        """What a word of the sentence opens; the focus goes to `first`."""
        panel = QFrame()
        panel.setObjectName("card")
        layout = QVBoxLayout(panel)
        layout.setContentsMargins(14, 10, 14, 12)
        for one in contents:
            if isinstance(one, QWidget):
                layout.addWidget(one)
            else:
                layout.addLayout(one)
        panel.hide()
        self.panels[key], self._first[key] = panel, first
        self._layout.addWidget(panel)

    def open(self, key: str) -> None:
        """Shows what a word can be, and goes there; the open one again closes it."""
        if key == self.opened:
            self.close_panel()
            return
        self._show(key)
        self._soon.start()
        first = self._first[key]
        if isinstance(first, Chips):
            first.focus()
        else:
            first.setFocus(Qt.FocusReason.TabFocusReason)
            if isinstance(first, QLineEdit):
                first.selectAll()

    def close_panel(self) -> None:
        """Back to the sentence."""
        was = self.opened
        self._show("")
        if was:
            self.to_word(was)

    def to_word(self, key: str) -> None:
        """The focus to a word, or to the one that is open."""
        self.sentence.words[self.opened or key].setFocus(Qt.FocusReason.TabFocusReason)

    def _show(self, key: str) -> None:
        self.opened = key
        for name, panel in self.panels.items():
            panel.setVisible(name == key)
        self.sentence.show_open(key)

    def _into_view(self) -> None:
        if self.opened:
            self.area.ensureWidgetVisible(self.panels[self.opened])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        keys = (Qt.Key.Key_Escape, Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if event.key() in keys and self.opened:
            self.close_panel()
        else:
            super().keyPressEvent(event)
