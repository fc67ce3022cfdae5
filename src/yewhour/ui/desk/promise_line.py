"""The line a promise is typed in, the same wherever it stands: what is understood of it is said below it."""

from __future__ import annotations

from PySide6.QtCore import QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from yewhour.core.promise.wishes import ReadPromise
from yewhour.ui.desk.understood import Understood
from yewhour.ui.kit.controls.controls import button
from yewhour.ui.kit.controls.field_keys import with_field_keys

PROMISE = "25-minute gentle hatha for the lock-keepers, evening, about hips, mind knees, a block at hand"


class PromiseLine(QWidget):
    """The line. promised: a class is to be drafted of it. typed: what is understood of this is asked for."""

    promised = Signal(str)
    typed = Signal(str)

    def __init__(self, prompt: str = PROMISE) -> None:
        super().__init__()
        self.field = with_field_keys(QLineEdit())
        self.field.setObjectName("finder")
        self.field.setPlaceholderText(prompt)
        self.field.setAccessibleName("The promise, in a sentence; Enter drafts the class")
        self.field.returnPressed.connect(self._promise)
        self.understood = Understood()
        self.understood.answered.connect(self._answer)
        self._soon = QTimer(self)  # what is understood is said when the typing rests
        self._soon.setSingleShot(True)
        self._soon.setInterval(250)
        self._soon.timeout.connect(self._read)
        self.field.textChanged.connect(lambda _: self._soon.start())
        line = QHBoxLayout()
        line.addWidget(self.field, 1)
        line.addWidget(button("Draft it", self._promise, "A class that keeps the promise (Enter).", "accent"))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(line)
        layout.addWidget(self.understood)

    def put(self, read: ReadPromise | None) -> None:
        """Says what is understood of what is typed."""
        self.understood.put(read)

    def _promise(self) -> None:
        """A class from what was typed; the example where nothing was."""
        self.promised.emit(self.field.text().strip() or PROMISE)

    def _read(self) -> None:
        text = self.field.text().strip()
        if text:
            self.typed.emit(text)
        else:
            self.understood.put(None)

    def _answer(self, asked: str, words: str) -> None:
        """What was asked about is said otherwise."""
        text = self.field.text()
        after = text.replace(asked, words, 1) if asked else text.rstrip(" ,.") + words
        self.field.setText(" ".join(after.replace("mind mind", "mind").replace("no no ", "no ").split()))
        self.field.setFocus()
        self._read()
