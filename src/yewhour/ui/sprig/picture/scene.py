"""The scene: what the sprig shows of a class, and where it is. It knows no widget, no hand and no paint."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QRectF

from yewhour.core.lengths import TICKS_PER_S
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme, cut_to, scale
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

    def sections(self) -> list[SectionLine]:
        """Where each section begins, with its title where there is room for it."""
        unit, right = scale(), self.right - 6
        found: list[SectionLine] = []
        last_y, index = -100.0, -1
        for needle in self.needles:
            if needle.segment.use.section == index:
                continue
            index = needle.segment.use.section
            y = self.y_at(needle.segment.start / TICKS_PER_S)
            name, box = "", None
            if self.section_room and y - last_y > 15 * unit:
                name, wide = cut_to(needle.segment.section, 9.8, (right - self.stem_x) * 0.6)
                box = QRectF(right - wide - 6, y + 1, wide + 6, 18 * unit)
                last_y = y
            found.append(SectionLine(index, y, name, box))
        return found
