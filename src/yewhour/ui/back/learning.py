"""What her recordings taught: her seconds beside the usual, taken one by one or all, and given back."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QDialog, QVBoxLayout

from yewhour.core.back.learn import WHATS, Learnt
from yewhour.store.learning import ALL
from yewhour.ui.kit.controls import button, label, page, row
from yewhour.ui.kit.theme import scale

MOST_KINDS = 4
# Where the body is, for each base of data/positions.toml.
POSTURES = {
    "start": "the start", "standing": "standing", "wide": "a wide stance", "split": "one foot forward",
    "folded": "a standing fold", "squat": "a squat", "kneeling": "kneeling", "four-point": "hands and knees",
    "plank": "a plank", "inverted": "hips high", "seated": "sitting", "supine": "lying on the back",
    "prone": "lying on the front", "on-right": "lying on the right side", "on-left": "lying on the left side",
    "shoulders": "standing on the shoulders", "chair": "the chair", "wall": "the wall",
}  # fmt: skip


def said_of(one: Learnt) -> str:
    """One thing that was learnt, in a sentence."""
    percent = round(abs(one.ratio - 1) * 100)
    how = "as long as planned" if one.slight else f"{percent} % {'longer' if one.ratio > 1 else 'shorter'}"
    if one.what == "voice":
        slow = f"{percent} % {'slower' if one.ratio > 1 else 'faster'}"
        how = "as fast as planned" if one.slight else f"{slow} than planned"
    what = WHATS[one.what]
    return f"{what[0].upper()}{what[1:]}: {how}"


def seen_of(one: Learnt) -> str:
    """How often it was seen, and how much it varied."""
    recordings = "1 recording" if one.recordings == 1 else f"{one.recordings} recordings"
    return f"Seen {one.count} times in {recordings}; half of them between {one.low:g} and {one.high:g} times."


def kinds_of(one: Learnt) -> list[str]:
    """Single kinds of it that differ most."""
    return [
        f"{_kind(one, kind)}: you take {hers:g} s, planned are {planned:g} s ({_times(count)})"
        for kind, planned, hers, count in one.kinds[:MOST_KINDS]
        if abs(hers - planned) >= 0.5
    ]


def _times(count: int) -> str:
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def _kind(one: Learnt, kind: str) -> str:
    """What it is in a teacher's words: a way by where the body is before and after."""
    if one.what != "ways":
        return kind
    here, _, there = kind.partition(" to ")
    start, end = POSTURES.get(here, here), POSTURES.get(there, there)
    return f"Within {end}" if here == there else f"From {start} to {end}"


class Learning(QDialog):
    """The dialog. taken: what is taken into the class, and the styles whose new classes begin with it."""

    taken = Signal(list, list)
    given_back = Signal()

    def __init__(self, found: Sequence[Learnt], style: str, kept: bool) -> None:
        super().__init__()
        self.found, self.style_ = list(found), style
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
        self.boxes: list[tuple[QCheckBox, Learnt]] = []
        for one in self.found:
            box = QCheckBox(said_of(one).replace("&", "&&"))
            box.setChecked(not one.slight)
            box.setEnabled(not one.slight)
            self.boxes.append((box, one))
            inside.addWidget(box)
            for words in (seen_of(one), *kinds_of(one)):
                made = label(words, "soft")
                made.setContentsMargins(round(28 * scale()), 0, 0, 0)
                inside.addWidget(made)
        if not self.found:
            inside.addWidget(label("Nothing yet: three uses of a thing in one recording are needed."))
        inside.addStretch(1)
        layout.addWidget(area, 1)
        self.always = QCheckBox(f"New {style} classes begin with them too")
        self.always.setChecked(kept)
        self.every = QCheckBox("New classes of every other style too")
        self.every.setEnabled(kept)
        self.always.toggled.connect(self.every.setEnabled)
        layout.addLayout(row(self.always, self.every))
        self.take_button = button("Take them", self.take, "Into this class; Undo gives it back.", "accent")
        self.take_button.setEnabled(any(not one.slight for one in self.found))
        parts = [self.take_button]
        if kept:
            parts.append(button("New classes as usual again", self._give_back))
        layout.addLayout(row(*parts, button("Not now", self.reject)))

    def take(self) -> None:
        """Takes what is ticked."""
        wanted = ((self.always, self.style_), (self.every, ALL))
        styles = [style for box, style in wanted if box.isEnabled() and box.isChecked()]
        self.taken.emit([one for box, one in self.boxes if box.isChecked()], styles)
        self.accept()

    def _give_back(self) -> None:
        self.given_back.emit()
        self.accept()
