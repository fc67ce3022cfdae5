"""The figures of the take station: the present one moves with the breath, the next one waits smaller."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from yewhour.core.take.moment import Moment, gone_there
from yewhour.core.timing.layout import Segment
from yewhour.ui.kit.figure_view import (
    FigurePicture,
    moving_of,
    paint_figure,
    portrait_of,
)
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.take.faces import Face

WIDE, HIGH = 250, 190  # pixels of the present one; the next is half as large
OTHER = {"left": "right", "right": "left"}


class FigureFace(Face):
    """One figure. small: it is the next one."""

    def __init__(self, theme: Theme, small: bool = False) -> None:
        super().__init__(theme)
        self.small = small
        self.one: FigurePicture | None = None
        self.side = "both"
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("The next posture" if small else "The posture")

    def sizeHint(self) -> QSize:
        size = (0.55 if self.small else 1.0) * scale()
        return QSize(round(WIDE * size), round(HIGH * size))

    def minimumSizeHint(self) -> QSize:
        return QSize(round(self.sizeHint().width() * 0.6), 40)

    def show_moment(self, here: Moment | None, mirror: bool = False) -> None:
        """Where the take is; None for nowhere. mirror: the teacher's own body does the other side."""
        segment = here.segment if here is not None else None
        if here is not None and segment is not None and (self.small or segment.use.setup_for):
            segment = here.coming  # on the way, where it goes to is what she needs to see
            if self.small and here.segment is not None and here.segment.use.setup_for:
                segment = None  # it is shown already, large
        if here is None or segment is None or segment.behaviour.is_talk:
            self._put(None, "both")
            return
        side = segment.side if segment.side in OTHER else "both"
        body = OTHER[side] if mirror and side in OTHER else side
        self._put(self._drawn(here, segment, body), side)

    def _drawn(self, here: Moment, segment: Segment, body: str) -> FigurePicture | None:
        movement, position = segment.use.movement, segment.use.start
        states = () if self.small else moving_of(movement, body, position)
        if len(states) > 1 and segment is not here.segment:
            return states[0]  # it begins there
        if len(states) < 2 or here.span is None:
            return portrait_of(movement, body, position)
        return states[round(gone_there(here, segment) * (len(states) - 1))]

    def _put(self, one: FigurePicture | None, side: str) -> None:
        if one is not self.one or side != self.side:
            self.one, self.side = one, side
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.one is not None:
            box = QRectF(self.rect()).adjusted(4, 4, -4, -6)
            paint_figure(QPainter(self), box, self.one, self.theme, self.side, letter=False)
