"""The class that is open in a window: its plan, its tables, and the class made from them.

The core (and with it NumPy) is imported when the first class is opened, so that the window can be on
screen before it.
"""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from PySide6.QtCore import QObject, Signal

from yewhour.core.problem import CannotFit, Problem

if TYPE_CHECKING:
    from yewhour.core.edit import Edit
    from yewhour.core.made import Made, Maker, Words
    from yewhour.core.plan import Plan


class Offer(NamedTuple):
    """Something that would help: what it is called, its edits, and the length the class then has."""

    title: str
    edits: tuple[Edit, ...]
    length_s: float


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
        self.asked_s = 0.0  # the length last asked for
        self.changed = False  # whether there is anything to save
        self._past: list[tuple[str, Plan, float]] = []
        self._future: list[tuple[str, Plan, float]] = []

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
        self.asked_s, self.changed = maker.promised_s, False
        self._past, self._future = [], []
        self.made_changed.emit()

    def set_length(self, length_s: float) -> None:
        """Re-times the class; where it can't follow, it goes as far as it can and `refusal` says why."""
        from yewhour.core.cuts import with_given_pace

        if self.maker is None:
            return
        self.refusal, self.asked_s = "", length_s
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

    # --- mending, and taking it back -------------------------------------------------------------------

    def offer(self) -> Offer | None:
        """What would help most just now: a remedy for a length that was refused, or a finding's fix."""
        from yewhour.core.report import remedies

        if self.maker is None or self.made is None:
            return None
        if self.refusal:
            for remedy in remedies(self.maker, self.asked_s, 1):
                return Offer(remedy.title, remedy.edits, remedy.gives_s)
            return None
        for finding in self.made.findings:
            if finding.edit is not None:
                return Offer(finding.edit.title, (finding.edit,), self.made.length_s)
        return None

    def take(self, offer: Offer) -> None:
        """Does what was offered. Raises Problem, and changes nothing, when it can't be done."""
        from yewhour.core.edit import apply_all

        if self.maker is not None:
            self._put(offer.title, apply_all(self.maker.plan, offer.edits), offer.length_s)

    @property
    def undo_title(self) -> str:
        """What would be undone, or ""."""
        return self._past[-1][0] if self._past else ""

    @property
    def redo_title(self) -> str:
        """What would be done again, or ""."""
        return self._future[-1][0] if self._future else ""

    def undo(self) -> None:
        """Takes the last change back."""
        self._step(self._past, self._future)

    def redo(self) -> None:
        """Does it again."""
        self._step(self._future, self._past)

    def _step(self, source: list[tuple[str, Plan, float]], other: list[tuple[str, Plan, float]]) -> None:
        if source and self.maker is not None and self.made is not None:
            title, plan, length_s = source.pop()
            other.append((title, self.maker.plan, self.made.length_s))
            self._set(plan, length_s)

    def _put(self, title: str, plan: Plan, length_s: float) -> None:
        assert self.maker is not None
        assert self.made is not None
        self._past.append((title, self.maker.plan, self.made.length_s))
        try:
            self._set(plan, length_s)
        except Problem:
            self._past.pop()
            raise
        self._future.clear()

    def _set(self, plan: Plan, length_s: float) -> None:
        from yewhour.core.made import Maker

        assert self.words is not None
        self.maker = Maker(plan, self.words)
        self.changed = True
        self.set_length(length_s)

    def save(self, path: Path) -> None:
        """Writes the class; raises Problem when it can't be written."""
        from yewhour.store.classfile import write_plan

        if self.maker is not None:
            write_plan(self.maker.plan, path)
            self.path, self.changed = path, False

    def keep_unsaved(self) -> Path | None:
        """Keeps changes that were not saved in the teacher's own folder; the path, or None for none."""
        from yewhour.store.paths import kept_classes

        if not self.changed or self.maker is None:
            return None
        folder = kept_classes()
        folder.mkdir(parents=True, exist_ok=True)
        path = folder / (self.path.name if self.path else "class.yewhour")
        self.save(path)
        return path

    def select(self, segment: str) -> None:
        """Selects a segment by its id."""
        if segment != self.selected:
            self.selected = segment
            self.selected_changed.emit(segment)
