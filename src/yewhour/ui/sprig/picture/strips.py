"""The quiet curves beside the sprig: effort, breath, and talk against silence, on the same clock."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen, QPolygonF

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.side_totals import side_totals
from yewhour.ui.kit.theme import (
    Theme,
    font,
    scale,
    side_colour,
)
from yewhour.ui.sprig.picture.viewport import Viewport

STRIPS = {  # and what each shows, for whoever rests the pointer on it
    "effort": "Effort: the wider, the harder it is there.",
    "breath": "Breath: further right is quicker, further left is slower.",
    "talk": "Talk: where it is filled you speak, where it is empty it is quiet.",
}
WIDE = 42.0  # pixels of one strip, its gap included


def room() -> float:
    """Pixels all the strips take."""
    return WIDE * len(STRIPS) * scale()


def paint(painter: QPainter, timed: TimedClass, reach: Viewport, left: float, theme: Theme) -> None:
    """Paints the strips from `left` on."""
    wide = WIDE * scale()
    painter.setFont(font(9.8))
    for number, name in enumerate(STRIPS):
        painter.setPen(QColor(theme.soft))
        box = QRectF(left + number * wide - 4, 2, wide, 20 * scale())
        painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, name)
    bottom = reach.top + reach.room
    painter.save()
    painter.setClipRect(QRectF(left - 2, reach.top - 1, room() + 4, reach.room + 2))
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    painter.setPen(Qt.PenStyle.NoPen)
    inner = wide - 10 * scale()
    quiet = QColor(theme.both)
    quiet.setAlpha(120)
    painter.setBrush(quiet)
    first, last = reach.time_at(reach.top) * TICKS_PER_S, reach.time_at(bottom) * TICKS_PER_S
    zero, tick = reach.y_at(0.0), reach.px_per_s / TICKS_PER_S
    bars = []
    for segment in timed.segments:
        if segment.end >= first and segment.start <= last and not segment.behaviour.bare:
            across = max(1.0, inner * segment.use.movement.effort / 5)
            bars.append(QRectF(left, zero + segment.start * tick, across, max(1.0, segment.length * tick)))
    painter.drawRects(bars)
    _breath(painter, timed, reach, left + wide, inner, theme)
    spoken = QColor(theme.soft)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(spoken)
    x = left + 2 * wide
    painter.drawRects(
        [
            QRectF(x, zero + cue.start * tick, inner * 0.6, max(0.6, (cue.end - cue.start) * tick))
            for cue in timed.cues
            if cue.end >= first and cue.start <= last
        ]
    )
    painter.restore()


def _breath(
    painter: QPainter, timed: TimedClass, reach: Viewport, left: float, wide: float, theme: Theme
) -> None:
    """Breaths a minute as a line, from the slowest at the left to the quickest at the right."""
    rates = [segment.use.pace.breaths_per_min for segment in timed.segments]
    low, high = min(rates), max(rates)
    span = high - low or 1.0
    line, before, x = QPolygonF(), -1.0, left
    for segment, rate in zip(timed.segments, rates, strict=True):
        if rate != before:  # a straight run needs two points only
            if before >= 0:
                line.append(QPointF(x, reach.y_at(segment.start / TICKS_PER_S)))
            x = left + wide * (0.15 + 0.7 * (rate - low) / span) if high > low else left + wide / 2
            line.append(QPointF(x, reach.y_at(segment.start / TICKS_PER_S)))
            before = rate
    line.append(QPointF(x, reach.y_at(timed.length_s)))
    painter.setPen(QPen(QColor(theme.soft), 1.4))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPolyline(line)


def paint_sides(painter: QPainter, timed: TimedClass, stem_x: float, theme: Theme) -> None:
    """The names of the sides over the stem, with the time each has had."""
    totals = side_totals(timed.segments)
    done = {"left": totals.left / TICKS_PER_S, "right": totals.right / TICKS_PER_S}
    for side, sign in (("left", -1), ("right", 1)):
        painter.setFont(font(9.8, bold=True))
        painter.setPen(side_colour(theme, side))
        words = f"{side} {show_length(done[side])}" if totals.any else side
        wide = 96 * scale()
        x = stem_x - wide - 8 * scale() if sign < 0 else stem_x + 8 * scale()
        where = Qt.AlignmentFlag.AlignRight if sign < 0 else Qt.AlignmentFlag.AlignLeft
        painter.drawText(QRectF(x, 2, wide, 20 * scale()), where | Qt.AlignmentFlag.AlignVCenter, words)
