"""The sprig: the whole class as a yew sprig. Time runs down the stem, with a length handle at its tip.

Work on the left is a needle to the left, on the right a needle to the right, on both sides a pair;
stillness is bare stem; a red aril marks each change of side. Drag the tip, and the class follows.
"""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.ui.needles import Needle, needles
from yewhour.ui.session import Session
from yewhour.ui.theme import Theme, font, scale, side_colour

STEP_S = 5.0  # the handle moves in steps of this
MINUTE_S = 60.0
SECTION_ROOM = 112.0  # pixels at the right edge for the titles of sections


class Sprig(QWidget):
    """Shows the session's class; asks for a new length while its tip is dragged."""

    length_asked = Signal(float)  # seconds
    chosen = Signal(str)  # a segment's id

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.theme = theme
        self._needles: list[Needle] = []
        self._axis_s = 60.0
        self._drag_offset: float | None = None
        self._hovering = False
        self.setObjectName("sprig")
        self.setAccessibleName("Sprig: the class from top to bottom")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding)
        session.made_changed.connect(self.refresh)
        session.selected_changed.connect(lambda _: self.update())

    def sizeHint(self) -> QSize:
        return QSize(round(460 * min(scale(), 1.25)), 600)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.theme = theme
        self.update()

    def refresh(self) -> None:
        """Takes the class as it is now."""
        made = self.session.made
        self._needles = needles(made) if made else []
        if made:
            if self._drag_offset is None:
                self._axis_s = made.length_s
            else:  # the scale holds still under the hand, until the tip would leave the window
                self._axis_s = max(self._axis_s, made.length_s)
            self.setAccessibleDescription(
                f"{len(self._needles)} segments in {show_length(made.length_s)}. "
                "Plus and minus change the length by a minute, up and down choose a segment."
            )
        self.update()

    # --- geometry ----------------------------------------------------------------------------------------

    @property
    def _top(self) -> float:
        return 26 * scale()

    @property
    def _bottom(self) -> float:
        return self.height() - 64 * scale()

    @property
    def _stem_x(self) -> float:
        return (self.width() - self._section_room) * 0.5 + 26 * scale()

    @property
    def _section_room(self) -> float:
        """Pixels for the titles of sections; none where large type leaves no room for them."""
        return SECTION_ROOM * scale() if self.width() / scale() > 400 else 0.0

    @property
    def _needle_room(self) -> float:
        """Pixels that the longest needle has to one side; labels get what is left."""
        return max(28.0, min(self._stem_x - 124 * scale(), self._stem_x * 0.5))

    def y_at(self, time_s: float) -> float:
        """Where a time is, in pixels from the top."""
        return self._top + (self._bottom - self._top) * time_s / self._axis_s

    def time_at(self, y: float) -> float:
        """The time at a height."""
        return (y - self._top) / max(1.0, self._bottom - self._top) * self._axis_s

    def handle_rect(self) -> QRectF:
        """The length handle at the tip of the stem."""
        made = self.session.made
        y = self.y_at(made.length_s if made else self._axis_s)
        width, height = 116 * scale(), 38 * scale()
        return QRectF(self._stem_x - width / 2, y + 8 * scale(), width, height)

    def segment_at(self, y: float) -> str:
        """The id of the segment at a height, "" when there is none."""
        at = self.time_at(y) * TICKS_PER_S
        for needle in self._needles:
            if needle.segment.start <= at < needle.segment.end:
                return needle.segment.id
        return ""

    # --- hands ---------------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton or self.session.made is None:
            return
        at = event.position()
        if self.handle_rect().adjusted(-8, -12, 8, 8).contains(at):
            self._drag_offset = at.y() - self.y_at(self.session.made.length_s)
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        else:
            self.chosen.emit(self.segment_at(at.y()))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._drag_offset is None:
            hovering = self.handle_rect().contains(at)
            self.setCursor(Qt.CursorShape.OpenHandCursor if hovering else Qt.CursorShape.ArrowCursor)
            if hovering != self._hovering:
                self._hovering = hovering
                self.update()
            return
        asked = round(self.time_at(at.y() - self._drag_offset) / STEP_S) * STEP_S
        self.length_asked.emit(max(STEP_S, asked))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._drag_offset is not None:
            self._drag_offset = None
            self.setCursor(Qt.CursorShape.ArrowCursor)
            self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
            return
        shown = [needle.segment.id for needle in self._needles if needle.segment.kind != "setup"]
        if not shown:
            return
        here = shown.index(self.session.selected) if self.session.selected in shown else -1 if step > 0 else 0
        self.chosen.emit(shown[max(0, min(len(shown) - 1, here + step))])

    # --- painting ------------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(self.theme.ground))
        if self.session.made is None:
            return
        self._paint_clock(painter)
        self._paint_chosen(painter)
        self._paint_stem(painter)
        room = self._needle_room
        for needle in self._needles:
            self._paint_needle(painter, needle, room)
        self._paint_labels(painter, room)
        for needle in self._needles:
            if needle.aril:
                self._paint_aril(painter, needle)
        self._paint_sides(painter)
        self._paint_handle(painter)
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(self.theme.accent), 2))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(2, 2, -2, -2), 6, 6)

    def _paint_clock(self, painter: QPainter) -> None:
        """Minutes down the left edge, and a line with the title of each section."""
        painter.setFont(font(8.5))
        most = max(3, (self._bottom - self._top) / (34 * scale()))
        minutes = next(step for step in (1, 2, 5, 10, 15, 30, 60, 120) if self._axis_s / 60 / step <= most)
        mark = 0
        while mark * 60 < self._axis_s:
            y = self.y_at(mark * 60)
            painter.setPen(QColor(self.theme.soft))
            painter.drawText(
                QRectF(8, y - 10 * scale(), 40 * scale(), 20 * scale()),
                Qt.AlignmentFlag.AlignVCenter,
                f"{mark}:00",
            )
            mark += minutes
        painter.setFont(font(8.5, italic=True))
        section, last_y = "", -100.0
        self._titles: list[float] = []
        for needle in self._needles:
            if needle.segment.section == section:
                continue
            section = needle.segment.section
            y = self.y_at(needle.segment.start / TICKS_PER_S)
            painter.setPen(QPen(QColor(self.theme.line), 1))
            painter.drawLine(QPointF(48 * scale(), y), QPointF(self.width() - 10, y))
            if self._section_room and y - last_y > 14 * scale():
                painter.setPen(QColor(self.theme.soft))
                wide = SECTION_ROOM * scale()
                name = painter.fontMetrics().elidedText(section, Qt.TextElideMode.ElideRight, round(wide))
                box = QRectF(self.width() - wide - 10, y + 1, wide, 18 * scale())
                painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop, name)
                last_y = y
                self._titles.append(y)

    def _paint_chosen(self, painter: QPainter) -> None:
        for needle in self._needles:
            if needle.segment.id == self.session.selected:
                top, bottom = self._span(needle)
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(QColor(self.theme.chosen))
                box = QRectF(46 * scale(), top - 2, self.width() - 54 * scale(), max(6.0, bottom - top + 4))
                painter.drawRoundedRect(box, 5, 5)

    def _paint_stem(self, painter: QPainter) -> None:
        length_s = self.session.made.length_s if self.session.made else 0.0
        top, bottom = (
            QPointF(self._stem_x, self._top),
            QPointF(self._stem_x, self.y_at(length_s) + 10 * scale()),
        )
        painter.setPen(
            QPen(QColor(self.theme.bark), 4 * scale(), Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
        )
        painter.drawLine(top, bottom)

    def _span(self, needle: Needle) -> tuple[float, float]:
        segment = needle.segment
        return self.y_at(segment.start / TICKS_PER_S), self.y_at(segment.end / TICKS_PER_S)

    def _paint_needle(self, painter: QPainter, needle: Needle, room: float) -> None:
        top, bottom = self._span(needle)
        if not needle.sides:
            return
        gap = min(1.0, (bottom - top) * 0.15)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(side_colour(self.theme, needle.segment.side))
        for side in needle.sides:
            sign = -1 if side == "left" else 1
            painter.drawPath(self._leaf(top + gap, bottom - gap, sign * room * needle.reach))
        self._paint_notches(painter, needle, top, bottom, room * needle.reach)

    def _leaf(self, top: float, bottom: float, reach: float) -> QPainterPath:
        """One needle: square at the stem, drawn out to a point that hangs a little."""
        x, middle = self._stem_x, (top + bottom) / 2
        path = QPainterPath(QPointF(x, top))
        path.cubicTo(
            QPointF(x + reach * 0.55, top),
            QPointF(x + reach * 0.85, top),
            QPointF(x + reach, middle + (bottom - top) * 0.12),
        )
        path.cubicTo(QPointF(x + reach * 0.85, bottom), QPointF(x + reach * 0.55, bottom), QPointF(x, bottom))
        path.closeSubpath()
        return path

    def _paint_notches(
        self, painter: QPainter, needle: Needle, top: float, bottom: float, reach: float
    ) -> None:
        """A fine line across for each breath or repetition, where there is room to see one."""
        amount = needle.segment.amount
        if (
            needle.segment.kind not in ("hold", "reps", "cycles")
            or amount < 2
            or (bottom - top) / amount < 3.5
        ):
            return
        pale = QColor(self.theme.ground)
        pale.setAlpha(110)
        painter.setPen(QPen(pale, 1))
        for number in range(1, amount):
            y = top + (bottom - top) * number / amount
            for side in needle.sides:
                sign = -1 if side == "left" else 1
                painter.drawLine(
                    QPointF(self._stem_x + sign * 5, y), QPointF(self._stem_x + sign * reach * 0.55, y)
                )

    def _paint_labels(self, painter: QPainter, room: float) -> None:
        """Names beyond the needles' tips, on the needle's own side, wherever one fits."""
        painter.setFont(font(8.5))
        metrics = QFontMetricsF(painter.font())
        free = {"left": -100.0, "right": -100.0}
        for needle in self._needles:
            top, bottom = self._span(needle)
            side = "left" if needle.sides == ("left",) else "right"
            middle = (top + bottom) / 2
            if not needle.label or middle - metrics.height() * 0.42 < free[side]:
                continue
            reach = room * needle.reach if needle.sides else 0.0
            painter.setPen(QColor(self.theme.ink if needle.sides else self.theme.soft))
            start = self._stem_x + reach + 8 * scale()
            near_title = any(-10 * scale() < middle - y < 26 * scale() for y in self._titles)
            limit = self.width() - 12 - start - (self._section_room if near_title else 0)
            if side == "left":
                limit = self._stem_x - reach - 8 * scale() - 50 * scale()
                start = 50 * scale()
            if limit < 44 * scale():
                continue
            name = metrics.elidedText(needle.label, Qt.TextElideMode.ElideRight, limit)
            box = QRectF(start, middle - metrics.height() / 2, limit, metrics.height())
            where = Qt.AlignmentFlag.AlignRight if side == "left" else Qt.AlignmentFlag.AlignLeft
            painter.drawText(box, where | Qt.AlignmentFlag.AlignVCenter, name)
            free[side] = middle + metrics.height() * 0.42

    def _paint_aril(self, painter: QPainter, needle: Needle) -> None:
        y = self._span(needle)[0]
        painter.setPen(QPen(QColor(self.theme.ground), 1.5))
        painter.setBrush(QColor(self.theme.aril))
        painter.drawEllipse(QPointF(self._stem_x, y), 4.6 * scale(), 4.6 * scale())

    def _paint_sides(self, painter: QPainter) -> None:
        """The letters of the sides over the stem."""
        painter.setFont(font(9, bold=True))
        for side, sign in (("left", -1), ("right", 1)):
            painter.setPen(side_colour(self.theme, side))
            box = QRectF(self._stem_x + sign * 34 * scale() - 30 * scale(), 2, 60 * scale(), 20 * scale())
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, side)

    def _paint_handle(self, painter: QPainter) -> None:
        box = self.handle_rect()
        held = self._drag_offset is not None
        painter.setPen(QPen(QColor(self.theme.aril if self.session.refusal else self.theme.accent), 2))
        painter.setBrush(QColor(self.theme.accent if held or self._hovering else self.theme.paper))
        painter.drawRoundedRect(box, box.height() / 2, box.height() / 2)
        painter.setPen(QColor(self.theme.on_accent if held or self._hovering else self.theme.ink))
        painter.setFont(font(15, bold=True))
        length_s = self.session.made.length_s if self.session.made else 0.0
        painter.drawText(
            box.adjusted(0, 0, -20 * scale(), 0), Qt.AlignmentFlag.AlignCenter, show_length(length_s)
        )
        x, y = box.right() - 24 * scale(), box.center().y()
        painter.setPen(QPen(painter.pen().color(), 1.8, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        for sign in (-1, 1):  # a small double arrow: up and down
            tip = QPointF(x, y + sign * 9 * scale())
            for across in (-4, 4):
                painter.drawLine(tip, QPointF(x + across * scale(), y + sign * 5 * scale()))
        painter.drawLine(QPointF(x, y - 8 * scale()), QPointF(x, y + 8 * scale()))
