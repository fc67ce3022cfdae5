"""How the sprig is painted. What is where comes from the scene; nothing is worked out here."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPen

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.ui.kit.theme import (
    cut_to,
    font,
    metrics,
    side_colour,
)
from yewhour.ui.sprig.gestures import Gestures
from yewhour.ui.sprig.picture import strips
from yewhour.ui.sprig.picture.gesture_painter import (
    CENTRE,
    LEFT,
    MIDDLE,
    RIGHT,
    Brush,
    GesturePainter,
)
from yewhour.ui.sprig.picture.hit_map import HitMap
from yewhour.ui.sprig.picture.needles import Needle
from yewhour.ui.sprig.picture.scene import Scene, beside

UNDER = (150.0, 112.0)  # pixels, wide and high, of the figure beside the pointer


class SprigPainter:
    """Paints one frame."""

    def __init__(
        self, painter: QPainter, scene: Scene, hits: HitMap, gestures: Gestures, focused: bool
    ) -> None:
        self.brush = Brush(painter, scene.theme)
        self.painter, self.theme, self.unit = painter, scene.theme, self.brush.unit
        self.scene, self.hits, self.gestures, self.focused = scene, hits, gestures, focused
        self.stem_x, self.sections = scene.stem_x, scene.sections()
        view = scene.viewport
        low, high = view.top - 4, view.top + view.room + 4
        zero, tick = view.y_at(0.0), view.px_per_s / TICKS_PER_S
        spans = (
            (needle, zero + needle.segment.start * tick, zero + needle.segment.end * tick)
            for needle in scene.needles
        )
        self.seen = [(needle, top, bottom) for needle, top, bottom in spans if bottom >= low and top <= high]

    def paint(self) -> None:
        """Everything, from the back to the front."""
        painter, scene = self.painter, self.scene
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self._all(), QColor(self.theme.ground))
        timed = scene.session.shown
        if timed is None:
            self._paint_nothing()
        else:
            painter.save()
            painter.setClipRect(
                QRectF(0, scene.viewport.top - 8, scene.width, scene.viewport.room + 20 * self.unit)
            )
            self._paint_chosen()
            self._paint_sections()
            self._paint_clock()
            self._paint_stem(timed.length_s)
            room = scene.needle_room
            for needle, top, bottom in self.seen:
                self._paint_needle(needle, top, bottom, room)
            self._paint_names()
            for needle, top, _ in self.seen:
                if needle.whorl or needle.aril or needle.knot or needle.segment.id in scene.flags:
                    self._paint_marks(needle, top)
            painter.restore()
            strips.paint_sides(painter, timed, self.stem_x, self.theme)
            if scene.strips_room:
                strips.paint(painter, timed, scene.viewport, scene.width - strips.room(), self.theme)
            GesturePainter(self.brush, scene, self.hits, self.gestures).paint(timed.length_s)
            self._paint_under()
        if self.focused:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(self.theme.focus), 2))
            painter.drawRoundedRect(self._all().adjusted(2, 2, -2, -2), 6, 6)

    def _all(self) -> QRectF:
        return QRectF(0, 0, self.scene.width, self.scene.height)

    def _paint_under(self) -> None:
        """The figure of the needle beneath the pointer, beside the pointer."""
        needle, scene = self.gestures.under, self.scene
        if needle is None or self.gestures.held or needle.segment.behaviour.is_talk:
            return
        # Nothing is under the pointer when the window comes on screen.
        from yewhour.ui.kit.figure_view import paint_figure, portrait_of

        segment = needle.segment
        one = portrait_of(segment.use.movement, segment.side, segment.use.start)
        if one is None:
            return
        wide, high = UNDER[0] * self.unit, UNDER[1] * self.unit
        left = self.gestures.pointer.x() + 30
        if left + wide > scene.width - 8:
            left = self.gestures.pointer.x() - 30 - wide
        top = min(max(8.0, self.gestures.pointer.y() - high - 12), scene.height - high - 8)
        box = QRectF(max(8.0, left), top, wide, high)
        self.painter.setPen(QPen(QColor(self.theme.line), 1))
        self.painter.setBrush(QColor(self.theme.paper))
        self.painter.drawRoundedRect(box, 8, 8)
        paint_figure(self.painter, box.adjusted(8, 8, -8, -6), one, self.theme, segment.side)

    def _paint_nothing(self) -> None:
        """A bare stem, and what to do next."""
        scene, painter = self.scene, self.painter
        middle = scene.height / 2
        painter.setPen(
            QPen(QColor(self.theme.bark), 4 * self.unit, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
        )
        x = scene.width / 2
        painter.drawLine(QPointF(x, 40 * self.unit), QPointF(x, middle - 60 * self.unit))
        if scene.session.plan is None or scene.session.busy:
            return
        words = "No movements yet"
        hint = "Find the first one at the right: type part of its name and press Enter."
        if scene.session.trouble:
            words, hint = "This class can't be made", str(scene.session.trouble)
        box = QRectF(30, middle - 46 * self.unit, scene.width - 60, 40 * self.unit)
        self.brush.text(box, words, self.theme.ink, 16, CENTRE, title=True)
        box = QRectF(40, middle, scene.width - 80, 120 * self.unit)
        align = (
            Qt.AlignmentFlag.AlignHCenter
            | Qt.AlignmentFlag.AlignTop
            | Qt.AlignmentFlag(Qt.TextFlag.TextWordWrap)
        )
        self.brush.text(box, hint, self.theme.soft, 11, align)

    def _paint_clock(self) -> None:
        """The time down the left edge, in steps that leave room to read."""
        scene = self.scene
        reach = scene.viewport
        steps = (5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200)
        every = next((step for step in steps if step * reach.px_per_s >= 30 * self.unit), 7200)
        mark = max(0, int(reach.time_at(reach.top - 8) // every) * every)
        timed = scene.session.shown
        end_s = min(timed.length_s if timed else 0.0, reach.time_at(reach.top + reach.room + 10))
        while mark <= end_s:
            y = scene.y_at(mark)
            box = QRectF(10, y - 10 * self.unit, 42 * self.unit, 20 * self.unit)
            self.brush.text(box, show_length(mark), self.theme.soft, 9.8, LEFT | MIDDLE)
            mark += every

    def _paint_sections(self) -> None:
        """A line where each section begins, with its title at the right."""
        for one in self.sections:
            self.painter.setPen(QPen(QColor(self.theme.line), 1))
            self.painter.drawLine(QPointF(52 * self.unit, one.y), QPointF(self.scene.right - 6, one.y))
            if one.box is not None:
                chosen = self.scene.session.section == one.number
                colour = self.theme.ink if chosen else self.theme.soft
                self.brush.text(
                    one.box, one.title, colour, 9.8, RIGHT | Qt.AlignmentFlag.AlignTop, italic=True
                )

    def _paint_chosen(self) -> None:
        painter = self.painter
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self.theme.chosen))
        right = self.scene.right - 6
        for needle, top, bottom in self.seen:
            if needle.segment.id in self.scene.chosen:
                box = QRectF(52 * self.unit, top - 1, right - 52 * self.unit, max(5.0, bottom - top + 2))
                painter.drawRoundedRect(box, 5, 5)
                if needle.segment.id == self.scene.session.selected:  # where the hand is, told by shape too
                    painter.setBrush(QColor(self.theme.accent))
                    painter.drawRoundedRect(QRectF(52 * self.unit, box.top(), 4, box.height()), 2, 2)
                    painter.setBrush(QColor(self.theme.chosen))

    def _paint_stem(self, length_s: float) -> None:
        scene = self.scene
        self.painter.setPen(
            QPen(QColor(self.theme.bark), 4 * self.unit, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
        )
        bottom = min(scene.y_at(length_s) + 12 * self.unit, scene.height)
        self.painter.drawLine(QPointF(self.stem_x, scene.y_at(0)), QPointF(self.stem_x, bottom))

    def _paint_needle(self, needle: Needle, top: float, bottom: float, room: float) -> None:
        if needle.head:
            self._paint_head(needle, bottom, room)
        if not needle.sides:
            return
        painter = self.painter
        gap = min(1.0, (bottom - top) * 0.15)
        colour = side_colour(self.theme, needle.segment.side)
        painter.setBrush(colour)
        painter.setPen(Qt.PenStyle.NoPen)
        if needle.meant:  # a difference that is meant is drawn with a dashed edge
            pale = QColor(colour)
            pale.setAlpha(150)
            painter.setBrush(pale)
            painter.setPen(QPen(colour, 1.6, Qt.PenStyle.DashLine))
        for side in needle.sides:
            sign = -1 if side == "left" else 1
            painter.drawPath(self._leaf(top + gap, bottom - gap, sign * room * needle.reach))
        self._paint_notches(needle, top, bottom, room * needle.reach)

    def _paint_head(self, needle: Needle, bottom: float, room: float) -> None:
        """Teaching: a paler head before the needle, widening to it."""
        segment = needle.segment
        top = bottom - segment.amount * segment.use.unit / TICKS_PER_S * self.scene.viewport.px_per_s
        colour = QColor(side_colour(self.theme, needle.head[0] if len(needle.head) == 1 else "both"))
        colour.setAlpha(95)
        self.painter.setBrush(colour)
        self.painter.setPen(Qt.PenStyle.NoPen)
        for side in needle.head:
            reach = (-1 if side == "left" else 1) * room * needle.reach * 0.6
            path = QPainterPath(QPointF(self.stem_x, top))
            path.cubicTo(
                QPointF(self.stem_x + reach * 0.25, top + (bottom - top) * 0.3),
                QPointF(self.stem_x + reach * 0.9, bottom - (bottom - top) * 0.25),
                QPointF(self.stem_x + reach, bottom),
            )
            path.lineTo(QPointF(self.stem_x, bottom))
            path.closeSubpath()
            self.painter.drawPath(path)

    def _leaf(self, top: float, bottom: float, reach: float) -> QPainterPath:
        """One needle: square at the stem, drawn out to a point that hangs a little."""
        x, middle = self.stem_x, (top + bottom) / 2
        path = QPainterPath(QPointF(x, top))
        tip = QPointF(x + reach, middle + (bottom - top) * 0.12)
        path.cubicTo(QPointF(x + reach * 0.55, top), QPointF(x + reach * 0.85, top), tip)
        path.cubicTo(QPointF(x + reach * 0.85, bottom), QPointF(x + reach * 0.55, bottom), QPointF(x, bottom))
        path.closeSubpath()
        return path

    def _paint_notches(self, needle: Needle, top: float, bottom: float, reach: float) -> None:
        """A fine line across for each breath or repetition, and, seen closely, for each phase."""
        segment = needle.segment
        amount = segment.amount
        if not segment.behaviour.notched or bottom - top < 7:
            return
        if not segment.behaviour.is_phase and (amount < 2 or (bottom - top) / amount < 3.5):
            return
        pale = QColor(self.theme.ground)
        pale.setAlpha(130)
        self.painter.setPen(QPen(pale, 1))
        close = (
            segment.spans and reach > 66 * self.unit and (bottom - top) / len(segment.spans) > 26 * self.unit
        )
        if close:
            for span in segment.spans:
                y = self.scene.y_at(span.start / TICKS_PER_S)
                self._notch(needle, y, reach * (0.62 if span.phase in ("inhale", "exhale") else 0.35))
                box = QRectF(self.stem_x + 10, y, reach, min(26.0 * self.unit, bottom - y))
                if needle.sides == ("left",):
                    box.moveRight(self.stem_x - 10)
                align = (RIGHT if needle.sides == ("left",) else LEFT) | MIDDLE
                self.brush.text(box, span.phase, self.theme.ground, 8, align)
                self.painter.setPen(QPen(pale, 1))
            return
        for number in range(1, amount):
            self._notch(needle, top + (bottom - top) * number / amount, reach * 0.55)

    def _notch(self, needle: Needle, y: float, reach: float) -> None:
        for side in needle.sides:
            sign = -1 if side == "left" else 1
            self.painter.drawLine(QPointF(self.stem_x + sign * 5, y), QPointF(self.stem_x + sign * reach, y))

    def _paint_names(self) -> None:
        """The names of the needles, as far as there is room."""
        scene, painter = self.scene, self.painter
        painter.setFont(font(9.8))
        measures = metrics(9.8)
        ink, soft = QColor(self.theme.ink), QColor(self.theme.soft)
        boxes = [one.box for one in self.sections if one.box is not None]
        for one in scene.names():
            near = [box.left() - 6 * self.unit for box in boxes if beside(one.middle, box)]
            room = min([scene.right - 12, *near]) - one.start
            if one.side == "left":
                room = one.start - 42 * self.unit  # behind the clock
            if room < 44 * self.unit:
                continue
            name, wide = _fitting(one.label, one.needle.segment.use.movement.aliases, room)
            painter.setPen(ink if one.needle.sides else soft)
            left = one.start - wide if one.side == "left" else one.start
            baseline = one.middle + (measures.ascent() - measures.descent()) / 2
            painter.drawText(QPointF(left, baseline), name)

    def _paint_marks(self, needle: Needle, top: float) -> None:
        """Aril, knot, whorl, and the flag of what was noticed."""
        painter, unit = self.painter, self.unit
        centre = QPointF(self.stem_x, top)
        if needle.whorl:
            painter.setPen(QPen(QColor(self.theme.bark), 1.6 * unit))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for sign in (-1, 1):
                box = QRectF(self.stem_x - 9 * unit, top - 5 * unit, 18 * unit, 10 * unit)
                painter.drawArc(box, (20 if sign > 0 else 200) * 16, 140 * 16)
        if needle.aril:
            painter.setPen(QPen(QColor(self.theme.ground), 1.5))
            painter.setBrush(QColor(self.theme.aril))
            painter.drawEllipse(centre, 4.6 * unit, 4.6 * unit)
        if needle.knot:
            painter.setPen(QPen(QColor(self.theme.bark), 2.4 * unit))
            painter.setBrush(QColor(self.theme.ground))
            middle = (top + self.scene.span(needle)[1]) / 2
            painter.drawEllipse(QPointF(self.stem_x, middle), 5 * unit, 4 * unit)
            painter.drawLine(QPointF(self.stem_x - 2 * unit, middle), QPointF(self.stem_x + 2 * unit, middle))
        severity = self.scene.flags.get(needle.segment.id)
        if severity:
            painter.setPen(QPen(QColor(self.theme.trouble), 1.8))
            painter.setBrush(QColor(self.theme.trouble if severity == "wrong" else self.theme.ground))
            x, y, half = 58 * unit, top + 6 * unit, 4.5 * unit
            flag = QPainterPath(QPointF(x, y - half))
            for point in ((x + half, y), (x, y + half), (x - half, y)):
                flag.lineTo(*point)
            flag.closeSubpath()
            painter.drawPath(flag)


def _fitting(label: str, others: Sequence[str], room: float) -> tuple[str, float]:
    """A name that fits into so many pixels, and how wide it is: the label itself, else the longest of the
    other names of its movement that fits, else the label cut."""
    names = [one[:1].upper() + one[1:] for one in sorted(others, key=len, reverse=True)]
    found = (cut_to(one, 9.8, room) for one in (label, *names))
    whole = next((cut for cut, one in zip(found, (label, *names), strict=True) if cut[0] == one), None)
    return whole or cut_to(label, 9.8, room)
