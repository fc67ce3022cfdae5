"""The scene: what the sprig shows and where it is. The hands are in `sprig`, the painting in `paint`."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.sprig.picture import strips
from yewhour.ui.sprig.picture.drop_places import DropPlace
from yewhour.ui.sprig.picture.needles import Needle, needles
from yewhour.ui.sprig.picture.viewport import Viewport

SECTION_ROOM = 104.0  # pixels at the right edge for the titles of sections


class Scene(QWidget):
    """The session's class as needles on a stem, and what the hand is doing to it."""

    section_chosen = Signal(int)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.theme = theme
        self.reach = Viewport()
        self.needles: list[Needle] = []
        self.chosen: frozenset[str] = frozenset()  # ids of the segments that are chosen
        self.flags: dict[str, str] = {}  # segment -> the worst severity noticed there
        self.held = ""  # what the hand has: "length", "pull", "move" or nothing
        self.hovering = ""  # "length" or "pull"
        self.under: Needle | None = None  # beneath the pointer
        self.slot: DropPlace | None = None
        self.sprig_actions = QPointF()
        self.pulled = 0
        self.titles: list[tuple[QRectF, int]] = []  # where each section's title is
        self.axis_s = 0.0  # the class that the scale is made for
        self.setObjectName("sprig")
        self.setAccessibleName("Sprig: the class from top to bottom")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        session.made_changed.connect(self.refresh)
        session.selected_changed.connect(self._show_chosen)

    def sizeHint(self) -> QSize:
        return QSize(round(560 * min(scale(), 1.25)), 600)

    def minimumSizeHint(self) -> QSize:
        return QSize(300, 300)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.theme = theme
        self.fit()
        self.update()

    def refresh(self) -> None:
        """Takes the class as it is shown now."""
        timed = self.session.shown
        self.needles = needles(timed) if timed else []
        self.flags = {}
        for finding in reversed(timed.findings if timed else ()):
            if finding.severity != "note":
                self.flags[finding.segment] = finding.severity
        self.fit()
        self._mark_chosen()
        self.update()

    def fit(self) -> None:
        """Makes the scale fit the class, and the room there is."""
        timed = self.session.shown
        length_s = timed.length_s if timed else 60.0
        if self.held in ("length", "pull"):  # the scale holds still under the hand
            length_s = max(length_s, self.axis_s)
        self.axis_s = length_s
        self.reach.fit(26 * scale(), self.height() - 90 * scale(), length_s)

    def _mark_chosen(self) -> None:
        self.chosen = frozenset(segment.id for segment in self.session.segments_of(self.session.picked))
        if not self.chosen and self.session.selected:
            self.chosen = frozenset((self.session.selected,))

    def _show_chosen(self, segment: str) -> None:
        self._mark_chosen()
        found = self.session.segment(segment)
        if found is not None and not self.held:
            self.reach.show(found.start / TICKS_PER_S, found.end / TICKS_PER_S)
            side = f", {found.side}" if found.side in ("left", "right") else ""
            self.setAccessibleDescription(
                f"{found.name}{side}, {found.dose}, at {show_length(found.start / TICKS_PER_S)}"
            )
        self.update()

    # --- geometry ----------------------------------------------------------------------------------------

    @property
    def strips_room(self) -> float:
        """Pixels for the curves; none where there is no room for them."""
        return strips.room() + 10 * scale() if self.width() > 500 * scale() else 0.0

    @property
    def section_room(self) -> float:
        """Pixels for the titles of sections; none where large type leaves no room for them."""
        return SECTION_ROOM * scale() if self.width() / scale() > 400 else 0.0

    @property
    def stem_x(self) -> float:
        """Where the stem is."""
        return (self.width() - self.strips_room) * 0.5 + 12 * scale()

    @property
    def needle_room(self) -> float:
        """Pixels that the longest needle has to one side; labels get what is left."""
        return max(self.stem_x * 0.22, min(self.stem_x - 166 * scale(), self.stem_x * 0.5))

    def y_at(self, time_s: float) -> float:
        """Where a time is, in pixels from the top."""
        return self.reach.y_at(time_s)

    def time_at(self, y: float) -> float:
        """The time at a height."""
        return self.reach.time_at(y)

    def span(self, needle: Needle) -> tuple[float, float]:
        """Top and bottom of a needle in pixels."""
        return (
            self.y_at(needle.segment.start / TICKS_PER_S),
            self.y_at(needle.segment.end / TICKS_PER_S),
        )

    def handle_rect(self) -> QRectF:
        """The length handle at the tip of the stem, or at the foot when the tip is out of view."""
        timed = self.session.shown
        y = min(self.y_at(timed.length_s if timed else 60.0), self.reach.top + self.reach.room) + 12 * scale()
        width, height = 116 * scale(), 38 * scale()
        return QRectF(self.stem_x - width / 2, y, width, height)

    def needle_at(self, y: float) -> Needle | None:
        """The needle at a height."""
        at = self.time_at(y) * TICKS_PER_S
        return next((n for n in self.needles if n.segment.start <= at < n.segment.end), None)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()
