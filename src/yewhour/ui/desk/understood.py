"""What was understood of a promise, under the line it is typed in: before anything is kept."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QVBoxLayout, QWidget

from yewhour.core.promise.wishes import CLEARED, ReadPromise, Wish, sentence, told
from yewhour.ui.kit.controls.controls import button, card, emptied, label, wrapped

MOST = 5  # wishes that are shown one by one


class Understood(QWidget):
    """The sentence of a promise as it was read; below it what is kept otherwise, or not, and what asks
    back."""

    answered = Signal(str, str)  # (words that were asked about, what they are replaced by; "": what is added)

    def __init__(self) -> None:
        super().__init__()
        self.body = QVBoxLayout(self)
        self.body.setContentsMargins(2, 0, 2, 0)
        self.body.setSpacing(4)
        self.setAccessibleName("What was understood")

    def put(self, read: ReadPromise | None) -> None:
        """Shows what was read; nothing for None."""
        emptied(self.body)
        if read is None:
            return
        if words := sentence(read.wishes):
            self.body.addWidget(label(words, "reading"))
        asked = [wish for wish in read.wishes if wish.asks]
        for wish in asked[:1]:
            self._ask(wish)
        doubtful = [one for one in read.wishes if not one.asks and (one.state != "kept" or one.reason)]
        for wish in doubtful[:MOST]:
            words = told(wish)
            self.body.addWidget(label(f"{words[:1].upper()}{words[1:]}"))
        if len(doubtful) > MOST:
            self.body.addWidget(label(f"and {len(doubtful) - MOST} more", "soft"))

    def _ask(self, wish: Wish) -> None:
        """A question, with what the words could mean to choose from."""
        frame, layout = card("look")
        if wish.waits:
            layout.addWidget(label(f"\u201c{wish.text}\u201d: has a doctor said yes?", "prompt"))
            why = f"{wish.reason[:1].upper()}{wish.reason[1:]}. Nothing is drafted before."
            layout.addWidget(label(why, "soft"))
            yes = button("A doctor or midwife has said yes", partial(self.answered.emit, "", f", {CLEARED}"))
            layout.addLayout(wrapped(yes))
            self.body.addWidget(frame)
            return
        layout.addWidget(label(f"What does \u201c{wish.text}\u201d ask for?", "prompt"))
        layout.addWidget(label(f"{wish.reason} Nothing is drafted until that is clear.", "soft"))
        choices = [
            button(one[:1].upper() + one[1:], partial(self.answered.emit, wish.text, one))
            for one in wish.could
        ]
        layout.addLayout(wrapped(*choices))
        self.body.addWidget(frame)
