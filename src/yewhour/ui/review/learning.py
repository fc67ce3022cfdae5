"""What her recordings taught: her seconds beside the usual, taken one by one or all, and given back."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QDialog, QHBoxLayout, QVBoxLayout, QWidget

from yewhour.content.terms import load_terms_file
from yewhour.core.library.movement import Library
from yewhour.core.plan.own_shares import WHATS, What, own_share
from yewhour.core.plan.plan import Brief
from yewhour.core.review.learning import SLIGHT, LearntShare
from yewhour.state.takes.learnt_seconds import ALL
from yewhour.ui.kit.controls.controls import (
    button,
    label,
    page,
    row,
)
from yewhour.ui.kit.theme import scale

MOST_KINDS = 8
APART_S = 0.5
APART = 0.08  # a kind stands apart from all of them by that
ANEW = 0.02  # by which a share has to differ from what the class has, to be worth taking
DELIVERIES = {
    "instruct": "Instructions", "count": "Counting", "calm": "Calm talk", "rest": "Words into a rest",
}  # fmt: skip


def said_of(one: LearntShare) -> str:
    """One thing that was learnt, in a sentence."""
    percent = round(abs(one.ratio - 1) * 100)
    how = "as long as usual" if one.slight else f"{percent} % {'longer' if one.ratio > 1 else 'shorter'}"
    if one.what == "voice":
        slow = f"{percent} % {'slower' if one.ratio > 1 else 'faster'}"
        how = "as fast as usual" if one.slight else f"{slow} than usual"
    what = WHATS[one.what]
    return f"{what[0].upper()}{what[1:]}: {how}"


def seen_of(one: LearntShare) -> str:
    """How often it was seen, and how much it varied."""
    recordings = "1 recording" if one.recordings == 1 else f"{one.recordings} recordings"
    return f"Seen {one.count} times in {recordings}; half of them between {one.low:g} and {one.high:g} times."


def kind_of(one: LearntShare, library: Library) -> str:
    """A kind by itself: what it is, her seconds and the usual ones, how often."""
    name = shown_kind(one.what, one.which, library)
    if one.what == "voice":
        return f"{name}: {one.ratio:g} times as long as usual ({_times(one.count)})"
    return f"{name}: you take {one.hers_s:g} s, usual are {one.usual_s:g} s ({_times(one.count)})"


def _times(count: int) -> str:
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def shown_kind(what: What, which: str, library: Library) -> str:
    """A kind in a teacher's words: a way by where the body is before and after, a movement by its name."""
    if what == "ways":
        here, _, there = which.partition(" to ")
        start, end = _where(here), _where(there)
        return f"Within {end}" if here == there else f"From {start} to {end}"
    if what == "voice":
        return DELIVERIES.get(which, which)
    return library[which].name if which in library else which


def _felt(kind: LearntShare, whole: LearntShare) -> bool:
    """Whether a kind's own seconds are felt, beside those that all of it gives."""
    least_s = APART_S if kind.what in ("ways", "teaching") else 0.0
    return abs(kind.hers_s - kind.usual_s * whole.ratio) >= least_s


def anew(one: LearntShare, brief: Brief, whole: LearntShare | None = None) -> bool:
    """Whether taking it changes the class; of a kind, beside all of it."""
    there = brief.own.get(one.key)
    if there is None:
        there = whole.ratio if whole is not None else own_share(brief.own, one.what)
    return abs(one.ratio - there) >= (ANEW if brief.own else SLIGHT)


class Learning(QDialog):
    """The dialog. taken: what is taken into the class, and the styles whose new classes begin with it."""

    taken = Signal(list, list)
    given_back = Signal()

    def __init__(self, found: Sequence[LearntShare], brief: Brief, kept: bool, library: Library) -> None:
        super().__init__()
        self.found, self.style_ = list(found), brief.style
        self.library = library
        self.setWindowTitle("Your own seconds")
        self.resize(round(720 * min(1.4, scale())), round(560 * min(1.3, scale())))
        area, inside = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(20, 16, 20, 16)
        layout.setSpacing(10)
        layout.addWidget(label("Your own seconds", "heading"))
        layout.addWidget(
            label(
                "As your recordings show them. What you take changes this class; Undo gives it back.", "soft"
            )
        )
        self.boxes: list[tuple[QCheckBox, LearntShare]] = []
        for one in self.found:
            self._box(said_of(one), one, anew(one, brief))
            inside.addWidget(self.boxes[-1][0])
            inside.addLayout(_step_in(label(seen_of(one), "soft")))
            for kind in self._kinds(one):
                self._box(kind_of(kind, library), kind, anew(kind, brief, one))
                inside.addLayout(_step_in(self.boxes[-1][0]))
        if not self.found:
            inside.addWidget(label("Nothing yet: three uses of a thing in one recording are needed."))
        inside.addStretch(1)
        layout.addWidget(area, 1)
        self.always = QCheckBox(f"New {brief.style} classes begin with them too")
        self.always.setChecked(kept)
        self.every = QCheckBox("New classes of every other style too")
        self.every.setEnabled(kept)
        self.always.toggled.connect(self.every.setEnabled)
        layout.addLayout(row(self.always, self.every))
        self.take_button = button("Take them", self.take, "Into this class; Undo gives it back.", "accent")
        self.take_button.setEnabled(any(box.isEnabled() for box, _ in self.boxes))
        parts = [self.take_button]
        if kept:
            parts.append(button("New classes as usual again", self._give_back))
        layout.addLayout(row(*parts, button("Not now", self.reject)))

    def _kinds(self, one: LearntShare) -> Iterator[LearntShare]:
        """The kinds of it that stand apart from all of it, the furthest first."""
        apart = [kind for kind in one.kinds if abs(kind.ratio / one.ratio - 1) >= APART and _felt(kind, one)]
        yield from apart[:MOST_KINDS]

    def _box(self, words: str, one: LearntShare, worth: bool) -> None:
        box = QCheckBox(words.replace("&", "&&"))
        box.setChecked(worth)
        box.setEnabled(worth)
        self.boxes.append((box, one))

    def take(self) -> None:
        """Takes what is ticked."""
        wanted = ((self.always, self.style_), (self.every, ALL))
        styles = [style for box, style in wanted if box.isEnabled() and box.isChecked()]
        self.taken.emit([one for box, one in self.boxes if box.isChecked()], styles)
        self.accept()

    def _give_back(self) -> None:
        self.given_back.emit()
        self.accept()


def _step_in(widget: QWidget) -> QHBoxLayout:
    """A line that belongs to the one above."""
    inner = QHBoxLayout()
    inner.setContentsMargins(round(28 * scale()), 0, 0, 0)
    inner.addWidget(widget)
    return inner


def _where(base: str) -> str:
    side = base.removeprefix("on-")
    words = load_terms_file().positions.get("on-{side}" if side != base else base, base)
    return words.replace("{side}", f"the {side}")
