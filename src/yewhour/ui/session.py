"""The class that is open in a window: its plan, its tables, and the class made from them.

The core (and with it NumPy) is imported when the first class is opened, so that the window can be on
screen before it.
"""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from yewhour.core.problem import CannotFit, Problem

if TYPE_CHECKING:
    from yewhour.core.made import Made, Maker, Words


class Session(QObject):
    """Holds one class. `made_changed` when it was re-timed, `selected_changed` when another segment is."""

    made_changed = Signal()
    selected_changed = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.words: Words | None = None
        self.troubles: list[Problem] = []  # what was wrong with the teacher's own movements
        self.path: Path | None = None
        self.maker: Maker | None = None
        self.made: Made | None = None
        self.selected = ""
        self.refusal = ""  # why the class can't follow the length last asked for

    def open(self, path: Path) -> None:
        """Opens a class file at its target length. Raises Problem and keeps the class before if it can't."""
        from yewhour.core.cuts import with_given_pace
        from yewhour.core.made import Maker
        from yewhour.store.classfile import read_plan
        from yewhour.store.words import load_words

        if self.words is None:
            self.words, self.troubles = load_words()
        plan = read_plan(path)
        maker = Maker(plan, self.words)
        refusal = ""
        try:
            made = with_given_pace(maker, maker.promised_s).make(maker.promised_s)
        except CannotFit as problem:
            refusal = str(problem)
            made = maker.make(maker.nearest_s(maker.promised_s))
        self.path, self.maker, self.made, self.refusal, self.selected = path, maker, made, refusal, ""
        self.made_changed.emit()

    def set_length(self, length_s: float) -> None:
        """Re-times the class; where it can't follow, it goes as far as it can and `refusal` says why."""
        from yewhour.core.cuts import with_given_pace

        if self.maker is None:
            return
        self.refusal = ""
        try:
            self.made = with_given_pace(self.maker, length_s).make(length_s)
        except CannotFit as problem:
            self.refusal = str(problem)
            nearest = self.maker.nearest_s(length_s)
            if self.made is not None and nearest != self.made.length_s:
                self.made = self.maker.make(nearest)
        except Problem as problem:
            self.refusal = str(problem)
        self.made_changed.emit()

    def select(self, segment: str) -> None:
        """Selects a segment by its id."""
        if segment != self.selected:
            self.selected = segment
            self.selected_changed.emit(segment)
