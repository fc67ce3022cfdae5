"""The scene: what the sprig shows of a class, and where it is. It knows no widget, no hand and no paint."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QRectF

from yewhour.core.lengths import TICKS_PER_S
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme, cut_to, metrics, scale
from yewhour.ui.sprig.picture import strips
from yewhour.ui.sprig.picture.needles import Needle, needles
from yewhour.ui.sprig.picture.viewport import Viewport

SECTION_ROOM = 104.0  # pixels at the right edge for the titles of sections


class SectionLine(NamedTuple):
    """Where a section begins: its number, its height, its title as far as there is room, and its box."""

    number: int
    y: float
    title: str
    box: QRectF | None


class NeedleName(NamedTuple):
    """Where the name of a needle goes: its side, where it begins (or ends, on the left), its middle."""

    needle: Needle
    label: str
    side: str
    start: float
    middle: float


class Scene:
    """The session's class as needles on a stem, in so many pixels."""

    def __init__(self, session: Session, theme: Theme) -> None:
        self.session, self.theme = session, theme
        self.width, self.height = 560.0, 600.0
        self.viewport = Viewport()
        self.needles: list[Needle] = []
        self.chosen: frozenset[str] = frozenset()  # ids of the segments that are chosen
        self.flags: dict[str, str] = {}  # segment -> the worst severity noticed there
        self.axis_s = 0.0  # the length of the class that the scale is made for

    def refresh(self) -> None:
        """Takes the class as it is shown now."""
        timed = self.session.shown
        self.needles = needles(timed) if timed else []
        self.flags = {}
        for finding in reversed(timed.findings if timed else ()):
            if finding.severity != "note":
                self.flags[finding.segment] = finding.severity
        self.mark_chosen()

    def mark_chosen(self) -> None:
        """Takes what is chosen as it is now."""
        self.chosen = frozenset(segment.id for segment in self.session.segments_of(self.session.picked))
        if not self.chosen and self.session.selected:
            self.chosen = frozenset((self.session.selected,))

    def fit(self, least_s: float = 0.0) -> None:
        """Makes the scale fit the class, of so many seconds at least, and the room there is."""
        timed = self.session.shown
        self.axis_s = max(timed.length_s if timed else 60.0, least_s)
        self.viewport.fit(26 * scale(), self.height - 90 * scale(), self.axis_s)

    # --- geometry ----------------------------------------------------------------------------------------

    @property
    def strips_room(self) -> float:
        """Pixels for the curves; none where there is no room for them."""
        return strips.room() + 10 * scale() if self.width > 500 * scale() else 0.0

    @property
    def section_room(self) -> float:
        """Pixels for the titles of sections; none where large type leaves no room for them."""
        return SECTION_ROOM * scale() if self.width / scale() > 400 else 0.0

    @property
    def right(self) -> float:
        """Where the curves begin."""
        return self.width - self.strips_room

    @property
    def stem_x(self) -> float:
        """Where the stem is."""
        return self.right * 0.5 + 12 * scale()

    @property
    def needle_room(self) -> float:
        """Pixels that the longest needle has to one side; labels get what is left."""
        return max(self.stem_x * 0.22, min(self.stem_x - 166 * scale(), self.stem_x * 0.5))

    def y_at(self, time_s: float) -> float:
        """Where a time is, in pixels from the top."""
        return self.viewport.y_at(time_s)

    def time_at(self, y: float) -> float:
        """The time at a height."""
        return self.viewport.time_at(y)

    def span(self, needle: Needle) -> tuple[float, float]:
        """Top and bottom of a needle in pixels."""
        return (
            self.y_at(needle.segment.start / TICKS_PER_S),
            self.y_at(needle.segment.end / TICKS_PER_S),
        )

    def names(self) -> list[NeedleName]:
        """Names beyond the needles' tips, on the needle's own side, where none is over another."""
        unit, view, room = scale(), self.viewport, self.needle_room
        half = metrics(9.8).height() * 0.42
        free = {"left": -100.0, "right": -100.0}
        found: list[NeedleName] = []
        for needle in self.needles:
            top, bottom = self.span(needle)
            label = needle.label or (needle.segment.name if bottom - top > 40 * unit else "")
            if not label or bottom < view.top - 4 or top > view.top + view.room + 4:
                continue
            side = "left" if needle.sides == ("left",) else "right"
            middle = (max(top, view.top) + min(bottom, view.top + view.room)) / 2
            if middle - half < free[side]:
                continue
            reach = room * needle.reach * (1.0 if needle.sides else 0.6 if needle.head else 0.0) + 8 * unit
            start = self.stem_x - reach if side == "left" else self.stem_x + reach
            found.append(NeedleName(needle, label, side, start, middle))
            free[side] = middle + half
        return found

    def sections(self) -> list[SectionLine]:
        """Where each section begins, with its title below its line where there is room for it; above it
        where a name is in the way, and none is there."""
        unit, right = scale(), self.right - 6
        names = [one for one in self.names() if one.side == "right"]
        ends = [one.start + metrics(9.8).horizontalAdvance(one.label) for one in names]
        found: list[SectionLine] = []
        last_y, index = -100.0, -1
        for needle in self.needles:
            if needle.segment.use.section == index:
                continue
            index = needle.segment.use.section
            y = self.y_at(needle.segment.start / TICKS_PER_S)
            title, box = "", None
            if self.section_room and y - last_y > 15 * unit:
                title, wide = cut_to(needle.segment.section, 9.8, (right - self.stem_x) * 0.6)
                box = QRectF(right - wide - 6, y + 1, wide + 6, 18 * unit)
                near = [
                    one.middle for one, end in zip(names, ends, strict=True) if end > box.left() - 6 * unit
                ]
                above = box.translated(0, -19 * unit)
                below, over = (any(beside(one, place) for one in near) for place in (box, above))
                if below and not over and above.top() > max(self.viewport.top, last_y + 18 * unit):
                    box = above
                last_y = y
            found.append(SectionLine(index, y, title, box))
        return found


def beside(middle: float, box: QRectF) -> bool:
    """Whether a name at a height stands in the same row as a box."""
    return -2 < (middle - box.top()) / scale() < 22
