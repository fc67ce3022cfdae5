"""Before there is anything to look back at: the takes of a class, each a row, and other recordings of it."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import msgspec
from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.state.takes.finished_takes import FinishedTake, finished_takes, keep_take, name_take
from yewhour.ui.kit.controls.controls import button, emptied, label, row
from yewhour.ui.kit.controls.field_keys import with_field_keys
from yewhour.ui.kit.theme import scale

NAME_WIDE = 190
MOST = 5
SOME = "Look at a take of this class, or at any recording of it: captions, sound or a video."
NONE = "There is no take of this class yet. Captions, sound or a video of it will do."


def called(taken: FinishedTake) -> str:
    """A take by its name, or by when it was."""
    when = taken.when.strftime("%d %B, %H:%M").lstrip("0")
    return f"{taken.name}, {when}" if taken.name else f"The take of {when}"


class ReviewBeginning(QWidget):
    """The rows. taken: a take is to be looked at. wanted: another recording is. troubled: a Problem."""

    taken = Signal(object)
    wanted = Signal()
    troubled = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.takes: list[FinishedTake] = []
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(0, 0, 0, 0)
        self.rows.setSpacing(10)
        self._title = ""
        self.show_takes("")

    def show_takes(self, title: str) -> None:
        """The takes of a class by its title."""
        self._title = title
        emptied(self.rows)
        self.takes = finished_takes(title) if title else []
        self.rows.addWidget(label(SOME if self.takes else NONE, "soft"))
        presses: list[QPushButton] = []
        for one in self.takes[:MOST]:
            look = partial(self.taken.emit, one)
            presses.append(button(called(one), look, name="small" if presses else "accent"))
            self.rows.addLayout(self._row(one, presses[-1]))
        name = "small" if presses else "accent"
        self.open_button = button("Captions or a recording…", self.wanted.emit, name=name)
        self.first = presses[0] if presses else self.open_button  # what is wanted most
        self.rows.addLayout(row(self.open_button))
        self.rows.addStretch(1)

    def _row(self, taken: FinishedTake, press: QPushButton) -> QHBoxLayout:
        """A take: what looks at it, how long it is, its name, and what throws it away or gets it back."""
        parts = [show_length(round(taken.length_s))]
        parts += ["with sound"] if taken.sound else []
        parts += [] if taken.keeper else ["thrown away"]
        name = with_field_keys(QLineEdit(taken.name))
        name.setPlaceholderText("Name it")
        name.setAccessibleName(f"Name of {called(taken)}")
        name.setMaxLength(40)
        name.setFixedWidth(round(NAME_WIDE * scale()))

        def rename() -> None:
            words = name.text().strip()
            self._try(lambda: name_take(taken.folder, words))
            press.setText(called(msgspec.structs.replace(taken, name=words)))

        def keep() -> None:
            self._try(lambda: keep_take(taken.folder, not taken.keeper))
            self.show_takes(self._title)

        name.editingFinished.connect(rename)
        words = "Throw it away" if taken.keeper else "Get it back"
        tip = "It stays where it is, and teaches nothing." if taken.keeper else "It teaches again."
        return row(press, label(", ".join(parts), "soft"), name, button(words, keep, tip))

    def _try(self, act: Callable[[], object]) -> None:
        try:
            act()
        except Problem as problem:
            self.troubled.emit(problem)
