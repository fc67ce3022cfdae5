"""Stems side by side on one clock, time running down: what both pictures of a recording are painted on."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter
from PySide6.QtWidgets import QWidget

from yewhour.core.shelf.thumbnail import reach_of
from yewhour.core.timing.layout import Segment
from yewhour.ui.kit.theme import Theme, font, scale, side_colour
from yewhour.ui.kit.thumbnail import needle

HEAD, FOOT = 30.0, 30.0  # pixels above and below the stems, at the usual text size
LEAST_S = 60.0  # that the whole height stands for


class Stems(QWidget):
    """The clock and the brush. reach: of the width, that the strongest needle takes."""

    def __init__(self, theme: Theme, reach: float) -> None:
        super().__init__()
        self.theme = theme
        self._reach = reach
        self.setMouseTracking(True)
        self.setMinimumWidth(round(250 * scale()))

    def set_theme(self, theme: Theme) -> None:
        """Other colours."""
        self.theme = theme
        self.update()

    def long_s(self) -> float:
        """Seconds that the whole height stands for."""
        return LEAST_S

    def y_of(self, at_s: float) -> float:
        """Where a second lies."""
        return HEAD * scale() + (self.height() - (HEAD + FOOT) * scale()) * at_s / self.long_s()

    def second_at(self, y: float) -> float:
        """Which second lies at a height."""
        room = max(1.0, self.height() - (HEAD + FOOT) * scale())
        return (y - HEAD * scale()) / room * self.long_s()

    def paint_words(self, painter: QPainter, x: float, above: str, below: str) -> None:
        """What a stem is, above it, and how long it is, below."""
        wide = self.width() / 2
        painter.setPen(QColor(self.theme.soft))
        painter.setFont(font(11.0))
        middle = Qt.AlignmentFlag.AlignCenter
        painter.drawText(QRectF(x - wide / 2, 0, wide, HEAD * scale()), middle, above)
        painter.setPen(QColor(self.theme.ink))
        painter.setFont(font(12.0, bold=True))
        foot = self.height() - FOOT * scale()
        painter.drawText(QRectF(x - wide / 2, foot, wide, FOOT * scale()), middle, below)

    def paint_needle(
        self, painter: QPainter, segment: Segment, x: float, start_s: float, end_s: float
    ) -> None:
        """A segment on a stem; nothing for ways and talk."""
        if segment.behaviour.bare or segment.use.setup_for:
            return
        reach = reach_of(segment.use.movement.effort) * self._reach * self.width()
        side = segment.side if segment.side in ("left", "right") else "both"
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(side_colour(self.theme, side))
        top, foot = self.y_of(start_s), self.y_of(end_s)
        for sign in (-1, 1) if side == "both" else (-1,) if side == "left" else (1,):
            painter.drawPath(needle(x, x + sign * reach, top, max(top + 1.6, foot - 0.4)))

    def paint_stem(self, painter: QPainter, x: float, start_s: float, end_s: float) -> None:
        """A piece of a stem, with the pen there is."""
        painter.drawLine(QPointF(x, self.y_of(start_s)), QPointF(x, self.y_of(end_s)))
