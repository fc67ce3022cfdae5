"""The recording beside its film: what is cut out is a gap on the stem, with edges to be pulled."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QHelpEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QToolTip

from yewhour.core.film.cut_files import told_slower
from yewhour.core.film.cut_list import TOLD, CutList, Slower
from yewhour.core.lengths import seconds, show_length
from yewhour.core.timed_class import TimedClass
from yewhour.ui.kit.controls.controls import plain_tip
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.review.stems import LEAST_S, Stems

STEMS = (0.27, 0.75)  # where they stand, as shares of the width
REACH = 0.15
NEAR = 6.0  # pixels from an edge that is taken hold of
DRAWN = 4.0  # pixels that a press has to be drawn to cut something out


class Edge(NamedTuple):
    """An edge of a cut: which cut, and whether it is its first."""

    cut: int
    first: bool


class FilmSprigs(Stems):
    """chosen: a cut was pressed, by its number. pulled: an edge was drawn to another second. drawn: from one
    second to another something is to be cut out. pointed: a second of the recording was pressed."""

    chosen = Signal(int)
    pulled = Signal(int, bool, float)
    drawn = Signal(float, float)
    pointed = Signal(float)

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme, REACH)
        self.cuts: CutList | None = None
        self.there: TimedClass | None = None  # the class in the film
        self.cut = -1
        self.at_s: float | None = None  # of the recording
        self._held: Edge | None = None
        self._from_s: float | None = None
        self._now_s = 0.0
        self.setAccessibleName("The recording, and the film of it")

    def show_film(self, cuts: CutList, there: TimedClass) -> None:
        """Other cuts, and the class in the film that they make."""
        self.cuts, self.there = cuts, there
        self.update()

    def choose(self, cut: int) -> None:
        """Marks a cut; -1 for none."""
        self.cut = cut
        self.update()

    def point_at(self, at_s: float | None) -> None:
        """Marks a second of the recording."""
        self.at_s = at_s
        self.update()

    # --- places ---------------------------------------------------------------------------------------------

    def long_s(self) -> float:
        """Of the recording, or of the film where that is longer."""
        return max(LEAST_S, self.cuts.length_s, self.cuts.film_s) if self.cuts is not None else LEAST_S

    def _inside(self, y: float) -> float:
        """The second at a height, of the recording."""
        return min(self.long_s(), max(0.0, self.second_at(y)))

    def edge_at(self, x: float, y: float) -> Edge | None:
        """The edge that can be taken hold of at a point."""
        if self.cuts is None or x > self.width() / 2:
            return None
        edges = [
            (abs(self.y_of(at_s) - y), Edge(number, first))
            for number, one in enumerate(self.cuts.cuts)
            for first, at_s in ((True, one.start_s), (False, one.end_s))
            if 0 < at_s < self.cuts.length_s
        ]
        far, edge = min(edges, default=(NEAR + 1, None))
        return edge if far <= NEAR * scale() else None

    def cut_at(self, x: float, y: float) -> int:
        """The cut at a point, or what is slower there; -1 for none."""
        if self.cuts is None or x > self.width() / 2:
            return -1
        at_s = self.second_at(y)
        found = (n for n, one in enumerate(self.cuts.changes) if one.start_s <= at_s <= one.end_s)
        return next(found, -1)

    # --- painting -------------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(self.theme.ground))
        if self.cuts is None or self.there is None:
            return
        left, right = (share * self.width() for share in STEMS)
        self.paint_words(painter, left, "recorded", show_length(round(self.cuts.length_s)))
        self.paint_words(painter, right, "the film", show_length(round(self.cuts.film_s)))
        painter.setPen(Qt.PenStyle.NoPen)
        film_s = 0.0
        for piece in self.cuts.played:
            there = (film_s, film_s + piece.long_s)
            self._ribbon(painter, (left, right), piece[:2], there, slower=piece.slow != 1)
            film_s = there[1]
        painter.setPen(QPen(QColor(self.theme.bark), 2.4 * scale()))
        for start_s, end_s in self.cuts.pieces:
            self.paint_stem(painter, left, start_s, end_s)
        self.paint_stem(painter, right, 0, self.cuts.film_s)
        for segment in self.there.segments:
            start_s, end_s = seconds(segment.start), seconds(segment.end)
            self.paint_needle(painter, segment, right, start_s, end_s)
            here = self.cuts.in_recording(start_s)
            self.paint_needle(painter, segment, left, here, max(here, self.cuts.in_recording(end_s)))
        for number, one in enumerate(self.cuts.cuts):
            self._gap(painter, left, one.start_s, one.end_s, number == self.cut)
        for number, slow in enumerate(self.cuts.slower, len(self.cuts.cuts)):
            if number == self.cut:
                self._chosen_slower(painter, left, slow.start_s, slow.end_s)
        self._marks(painter, left)

    def _marks(self, painter: QPainter, left: float) -> None:
        half = 26 * scale()
        painter.setPen(QPen(QColor(self.theme.aril), 2 * scale()))
        if self.at_s is not None:
            y = self.y_of(self.at_s)
            painter.drawLine(QPointF(left - half, y), QPointF(left + half, y))
        if self._from_s is not None:
            box = QRectF(left - half, self.y_of(self._from_s), 2 * half, 0)
            box.setBottom(self.y_of(self._now_s))
            colour = QColor(self.theme.aril)
            colour.setAlpha(70)
            painter.fillRect(box.normalized(), colour)
        elif self._held is not None:
            y = self.y_of(self._now_s)
            painter.drawLine(QPointF(0, y), QPointF(self.width() / 2, y))

    def _ribbon(
        self,
        painter: QPainter,
        stems: tuple[float, float],
        here: tuple[float, float],
        there: tuple[float, float],
        slower: bool = False,
    ) -> None:
        """Where a piece of the recording lies in the film; what is slower there opens towards it."""
        colour = QColor(self.theme.edge if slower else self.theme.line)
        colour.setAlpha(90)
        painter.setBrush(colour)
        corners = [
            QPointF(stems[0], self.y_of(here[0])), QPointF(stems[1], self.y_of(there[0])),
            QPointF(stems[1], self.y_of(there[1])), QPointF(stems[0], self.y_of(here[1])),
        ]  # fmt: skip
        painter.drawPolygon(QPolygonF(corners))

    def _gap(self, painter: QPainter, left: float, start_s: float, end_s: float, chosen: bool) -> None:
        """What is cut out: nothing of the stem, between two edges to be pulled."""
        colour = QColor(self.theme.focus if chosen else self.theme.edge)
        top, foot = self.y_of(start_s), self.y_of(end_s)
        whole_s = self.cuts.length_s if self.cuts is not None else end_s
        half = REACH * self.width() + (6 if chosen else 2) * scale()
        ground = QColor(self.theme.chosen if chosen else self.theme.ground)
        painter.fillRect(QRectF(left - half, top, 2 * half, foot - top), ground)
        painter.setPen(QPen(colour, (3 if chosen else 1.6) * scale()))
        for y, at_s in ((top, start_s), (foot, end_s)):
            if 0 < at_s < whole_s:
                painter.drawLine(QPointF(left - half, y), QPointF(left + half, y))
        painter.setPen(Qt.PenStyle.NoPen)

    def _chosen_slower(self, painter: QPainter, left: float, start_s: float, end_s: float) -> None:
        half = REACH * self.width() + 6 * scale()
        painter.setPen(QPen(QColor(self.theme.focus), 3 * scale()))
        for y in (self.y_of(start_s), self.y_of(end_s)):
            painter.drawLine(QPointF(left - half, y), QPointF(left + half, y))
        painter.setPen(Qt.PenStyle.NoPen)

    # --- the hand -------------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if event.button() != Qt.MouseButton.LeftButton or self.cuts is None:
            return
        at_s = self._now_s = self._inside(at.y())
        if at.x() > self.width() / 2:
            self.pointed.emit(self.cuts.in_recording(min(at_s, self.cuts.film_s)))
            return
        self._held = self.edge_at(at.x(), at.y())
        if self._held is not None:
            self.chosen.emit(self._held.cut)
        elif (cut := self.cut_at(at.x(), at.y())) >= 0:
            self.chosen.emit(cut)
        else:
            self._from_s = at_s
            self.pointed.emit(at_s)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._held is not None or self._from_s is not None:
            self._now_s = self._inside(at.y())
            self.update()
            return
        over = self.edge_at(at.x(), at.y()) is not None
        self.setCursor(Qt.CursorShape.SizeVerCursor if over else Qt.CursorShape.ArrowCursor)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, begun_s, self._held, self._from_s = self._held, self._from_s, None, None
        if held is not None:
            self.pulled.emit(held.cut, held.first, self._now_s)
        elif begun_s is not None and abs(self.y_of(begun_s) - self.y_of(self._now_s)) >= DRAWN * scale():
            self.drawn.emit(*sorted((begun_s, self._now_s)))
        self.update()

    def event(self, event: object) -> bool:
        if isinstance(event, QHelpEvent) and self.cuts is not None:
            number = self.cut_at(event.pos().x(), event.pos().y())
            if number >= 0:
                QToolTip.showText(event.globalPos(), plain_tip(told_cut(self.cuts, number)), self)
            return True
        return super().event(event)  # type: ignore[arg-type]


def told_cut(cuts: CutList, number: int) -> str:
    """A cut in words, or what is slower: how long, why, and from when to when."""
    one = cuts.changes[number]
    start, end = (show_length(round(at_s)) for at_s in (one.start_s, one.end_s))
    if isinstance(one, Slower):
        return f"{told_slower(one)}, from {start} to {end}"
    return f"{show_length(round(one.end_s - one.start_s))} {TOLD[one.why]}, from {start} to {end}"
