"""Two sprigs on one clock: the class as it was planned and as it was, the time between them as a ribbon."""

from __future__ import annotations

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QColor, QHelpEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QToolTip

from yewhour.core.lengths import show_length
from yewhour.core.review.review import ActualSegment, Review
from yewhour.ui.kit.controls.controls import plain_tip
from yewhour.ui.kit.theme import (
    Theme,
    scale,
)
from yewhour.ui.review.stems import LEAST_S, Stems

STEMS = (0.25, 0.75)  # where they stand, as shares of the width
REACH = 0.17  # of the width that the strongest needle takes
NEAR = 5.0  # pixels from an edge that is taken hold of
SURE, LIKELY = 0.8, 0.5  # of a segment, as far as was heard
LONGER_S, LONGER = 3.0, 0.12  # more than planned, that is shown


class TwoSprigs(Stems):
    """chosen: a segment's id was pressed. moved: an edge was drawn to another second."""

    chosen = Signal(str)
    moved = Signal(str, float)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, REACH)
        self.back: Review | None = None
        self.segment = ""
        self.at_s: float | None = None  # what is being played
        self._held: ActualSegment | None = None
        self._held_s = 0.0
        self.setAccessibleName("The class as it was planned, and as it was")

    def show_back(self, back: Review | None) -> None:
        """Another recording."""
        self.back = back
        self.update()

    def choose(self, segment: str) -> None:
        """Marks a segment."""
        if segment != self.segment:
            self.segment = segment
            self.update()

    def play_at(self, at_s: float | None) -> None:
        """Marks the moment that is played."""
        self.at_s = at_s
        self.update()

    # --- places -------------------------------------------------------------------------------------------

    def long_s(self) -> float:
        """Of the longer of both."""
        back = self.back
        return max(LEAST_S, back.target_s, back.length_s) if back is not None else LEAST_S

    def went_at(self, x: float, y: float) -> ActualSegment | None:
        """The segment at a point: by its plan at the left, by how it went at the right."""
        at_s = self.second_at(y)
        for one in self.back.segments if self.back is not None else ():
            start_s, end_s = one.start_s, one.end_s
            if x < self.width() / 2:
                if one.planned_start_s is None or one.planned_end_s is None:
                    continue
                start_s, end_s = one.planned_start_s, one.planned_end_s
            if start_s <= at_s < end_s:
                return one
        return None

    def _edge_at(self, x: float, y: float) -> ActualSegment | None:
        """The segment whose start can be taken hold of at a point."""
        if self.back is None or x < self.width() / 2:
            return None
        near = min(self.back.segments[1:], key=lambda one: abs(self.y_of(one.start_s) - y), default=None)
        return near if near is not None and abs(self.y_of(near.start_s) - y) <= NEAR * scale() else None

    # --- painting -----------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(self.theme.ground))
        if self.back is None:
            return
        left, right = (share * self.width() for share in STEMS)
        self.paint_words(painter, left, "planned", show_length(round(self.back.target_s)))
        self.paint_words(painter, right, "as it was", show_length(round(self.back.length_s)))
        for one in self.back.segments:
            self._ribbon(painter, one, left, right)
        for x, end_s in ((left, self.back.target_s), (right, self.back.length_s)):
            painter.setPen(QPen(QColor(self.theme.line if x == right else self.theme.bark), 2 * scale()))
            self.paint_stem(painter, x, 0, end_s)
        for one in self.back.segments:
            painter.setPen(self._as_sure(one.sure))
            self.paint_stem(painter, right, one.start_s, one.end_s)
        for one in self.back.segments:
            if one.planned_start_s is not None and one.planned_end_s is not None:
                self.paint_needle(painter, one.segment, left, one.planned_start_s, one.planned_end_s)
            self.paint_needle(painter, one.segment, right, one.start_s, one.end_s)
        painter.setPen(QPen(QColor(self.theme.aril), 2 * scale()))
        if self._held is not None:
            y = self.y_of(self._held_s)
            painter.drawLine(QPointF(self.width() / 2, y), QPointF(self.width(), y))
        if self.at_s is not None:
            y = self.y_of(self.at_s)
            painter.drawLine(QPointF(right - 20 * scale(), y), QPointF(right + 20 * scale(), y))

    def _as_sure(self, sure: float) -> QPen:
        """How the stem is drawn where something was heard: whole, paler where it is likely, or in dots."""
        colour = QColor(self.theme.bark)
        colour.setAlphaF(1.0 if sure >= SURE else 0.55)
        pen = QPen(colour, (3 if sure >= SURE else 2) * scale())
        if sure < LIKELY:
            pen.setStyle(Qt.PenStyle.DotLine)
        return pen

    def _ribbon(self, painter: QPainter, one: ActualSegment, left: float, right: float) -> None:
        if one.planned_start_s is None or one.planned_end_s is None:
            return
        more = abs(one.longer_s) > max(LONGER_S, LONGER * (one.planned_end_s - one.planned_start_s))
        colour = QColor(self.theme.aril if more and one.longer_s > 0 else self.theme.left)
        if more:
            colour.setAlpha(95)
        else:
            colour = QColor(self.theme.line)
            colour.setAlpha(90)
        if one.segment.id == self.segment:
            colour = QColor(self.theme.focus)
            colour.setAlpha(130)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour)
        gap = 0.6
        painter.drawPolygon(
            QPolygonF(
                [
                    QPointF(left, self.y_of(one.planned_start_s)),
                    QPointF(right, self.y_of(one.start_s)),
                    QPointF(right, max(self.y_of(one.start_s), self.y_of(one.end_s) - gap)),
                    QPointF(left, max(self.y_of(one.planned_start_s), self.y_of(one.planned_end_s) - gap)),
                ]
            )
        )

    # --- the hand -----------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        edge = self._edge_at(at.x(), at.y())
        if edge is not None and event.button() == Qt.MouseButton.LeftButton:
            self._held, self._held_s = edge, edge.start_s
            self.chosen.emit(edge.segment.id)
        elif (one := self.went_at(at.x(), at.y())) is not None:
            self.chosen.emit(one.segment.id)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._held is not None:
            self._held_s = min(max(0.0, self.second_at(at.y())), self.long_s())
            self.update()
            return
        edge = self._edge_at(at.x(), at.y())
        self.setCursor(Qt.CursorShape.SizeVerCursor if edge is not None else Qt.CursorShape.ArrowCursor)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, self._held = self._held, None
        if held is not None and abs(self._held_s - held.start_s) > 0.2:
            self.moved.emit(held.segment.id, round(self._held_s, 1))
        self.update()

    def event(self, event: object) -> bool:
        if isinstance(event, QHelpEvent):
            one = self.went_at(event.pos().x(), event.pos().y())
            if one is not None:
                QToolTip.showText(event.globalPos(), plain_tip(told_of(one)), self)
            return True
        return super().event(event)  # type: ignore[arg-type]


def told_of(one: ActualSegment) -> str:
    """A segment in words: what it is, how long it was to be, and how long it was."""
    side = f", {one.segment.side}" if one.segment.side in ("left", "right") else ""
    if one.planned_start_s is None or one.planned_end_s is None:
        return f"{one.segment.name}{side}: only tried"
    planned = show_length(round(one.planned_end_s - one.planned_start_s))
    real = show_length(round(one.end_s - one.start_s))
    sure = "" if one.sure >= SURE else ", as far as was heard" if one.sure >= LIKELY else ", but hardly heard"
    return f"{one.segment.name}{side}: {real}, {planned} planned{sure}"
