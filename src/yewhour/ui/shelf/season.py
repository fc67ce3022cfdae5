"""The season: weeks side by side, with what they worked and opened, as a picture read at a glance."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import date

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QHelpEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QGridLayout, QToolTip, QWidget

from yewhour.content.terms import load_terms_file
from yewhour.core.lengths import show_length
from yewhour.core.shelf.records import monday_of
from yewhour.core.shelf.weeks import Month, Week
from yewhour.ui.kit.controls.controls import label
from yewhour.ui.kit.theme import (
    Theme,
    font,
    metrics,
    scale,
    side_colour,
)
from yewhour.ui.shelf.leaves import half, leaf, upright

NAMES, HEAD, ROW, STRIP = 132.0, 28.0, 17.0, 31.0  # pixels at the usual text size
FULL_S = 900.0  # of an area in a week: a leaf as large as there is room
STRIPS = {
    "minutes": "minutes, by style", "effort": "effort", "sides": "left and right",
    "positions": "standing to lying", "movements": "new, and again",
}  # fmt: skip


class Season(QWidget):
    """The picture. Above: each area as a leaf a week, its upper half filled as it was worked, its lower half
    drawn as it was opened. Below: minutes by style, effort, sides, positions, movements new and again."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.weeks: Sequence[Week] = ()
        self.areas: Mapping[str, str] = {}
        self.marked: frozenset[str] = frozenset()
        self.setMouseTracking(True)
        self.setAccessibleName("The season: weeks from left to right, areas from top to bottom")

    def show_weeks(self, weeks: Sequence[Week], areas: Mapping[str, str], marked: frozenset[str]) -> None:
        """Weeks from the first to the last; areas with their names; those of which something was noticed."""
        self.weeks, self.areas, self.marked = weeks, areas, marked
        self.setMinimumHeight(round((HEAD + len(areas) * ROW + len(STRIPS) * STRIP + 16) * scale()))
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self.theme = theme
        self.update()

    @property
    def _column(self) -> float:
        return (self.width() - NAMES * scale() - 12) / max(1, len(self.weeks))

    def _x(self, number: int) -> float:
        return NAMES * scale() + (number + 0.5) * self._column

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ToolTip and isinstance(event, QHelpEvent):
            QToolTip.showText(event.globalPos(), self.told_at(event.pos()), self)
            return True
        return super().event(event)

    def told_at(self, at: QPoint) -> str:
        """What a place of the picture says, in words."""
        number = int((at.x() - NAMES * scale()) / max(1.0, self._column))
        row = int((at.y() - HEAD * scale()) / (ROW * scale()))
        if not 0 <= number < len(self.weeks) or at.x() < NAMES * scale():
            return ""
        week = self.weeks[number]
        day = date.fromordinal(monday_of(week.number))
        head = f"Week of {day.day} {day:%B}"
        if not 0 <= row < len(self.areas):
            classes = [f"{one.shelved.sheet.title} ({one.shelved.sheet.kind})" for one in week.given]
            return f"{head}: {', '.join(classes) or 'nothing'}"
        area = list(self.areas)[row]
        worked, opened = week.works.get(area, 0.0) / 60, week.opens.get(area, 0.0) / 60
        return f"{head}, {self.areas[area]}: {worked:.0f} min worked, {opened:.0f} min opened"

    # --- painting ---------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(self.theme.paper))
        if not self.weeks:
            return
        self._paint_months(painter)
        for row, (area, name) in enumerate(self.areas.items()):
            self._paint_area(painter, row, area, name)
        top = (HEAD + len(self.areas) * ROW + 10) * scale()
        for number, (strip, name) in enumerate(STRIPS.items()):
            box = QRectF(0, top + number * STRIP * scale(), self.width(), STRIP * scale())
            self._name(painter, box, name, False)
            getattr(self, f"_paint_{strip}")(painter, box)

    def _name(self, painter: QPainter, box: QRectF, words: str, bold: bool) -> None:
        painter.setPen(QColor(self.theme.ink if bold else self.theme.soft))
        painter.setFont(font(9.5, bold=bold))
        room = QRectF(12, box.top(), NAMES * scale() - 24, box.height())
        painter.drawText(room, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, words)

    def _paint_months(self, painter: QPainter) -> None:
        """The months, and a pale stripe for the week that is on."""
        size, last = scale(), len(self.weeks) - 1
        box = QRectF(self._x(last) - self._column / 2, 0, self._column, self.height())
        painter.fillRect(box, QColor(self.theme.chosen))
        at = QPointF(24 * size, 14 * size)
        self._paint_leaf(painter, at, FULL_S / 2, FULL_S / 2)
        painter.setFont(font(8.5))
        painter.setPen(QColor(self.theme.soft))
        painter.drawText(QPointF(44 * size, 12 * size), "worked")
        painter.drawText(QPointF(44 * size, 23 * size), "opened")
        painter.setFont(font(9.5))
        before = 0
        for number, week in enumerate(self.weeks):
            day = date.fromordinal(monday_of(week.number) + 3)
            if (
                day.month != before
                and self._x(number) + metrics(9.5).horizontalAdvance("Month") < self.width()
            ):
                painter.drawText(QPointF(self._x(number) - self._column / 2, 18 * size), f"{day:%b}")
            before = day.month

    def _paint_area(self, painter: QPainter, row: int, area: str, name: str) -> None:
        size = scale()
        box = QRectF(0, (HEAD + row * ROW) * size, self.width(), ROW * size)
        self._name(painter, box, name, area in self.marked)
        painter.setPen(QPen(QColor(self.theme.line), 1))
        painter.drawLine(
            QPointF(NAMES * size, box.center().y()), QPointF(self.width() - 12, box.center().y())
        )
        painter.setPen(Qt.PenStyle.NoPen)
        for number, week in enumerate(self.weeks):
            at = QPointF(self._x(number), box.center().y())
            self._paint_leaf(painter, at, week.works.get(area, 0.0), week.opens.get(area, 0.0))

    def _paint_leaf(self, painter: QPainter, at: QPointF, worked_s: float, opened_s: float) -> None:
        """One leaf: worked above the line and filled, opened below it and open."""
        room, high = min(self._column * 0.46, 18 * scale()), 0.62 * ROW * scale()
        ink = side_colour(self.theme, "both")
        painter.setPen(QPen(ink, 1.1))
        painter.setBrush(ink)
        painter.drawPath(half(at, room * _share(worked_s), -high * _share(worked_s)))
        painter.setBrush(QColor(self.theme.paper))
        painter.drawPath(half(at, room * _share(opened_s), high * _share(opened_s)))
        painter.setPen(Qt.PenStyle.NoPen)

    def _paint_minutes(self, painter: QPainter, box: QRectF) -> None:
        most_s = max((week.length_s for week in self.weeks), default=0.0) or 1.0
        styles = sorted({style for week in self.weeks for style in week.styles})
        room = box.height() - 16 * scale()
        for number, week in enumerate(self.weeks):
            foot = box.bottom() - 4
            for style, each_s in sorted(week.styles.items()):
                high = room * each_s / most_s
                shade = QColor(self.theme.bark)
                shade.setAlphaF(0.35 + 0.6 * styles.index(style) / max(1, len(styles)))
                painter.fillRect(
                    QRectF(self._x(number) - 5 * scale(), foot - high, 10 * scale(), high - 1), shade
                )
                foot -= high
            if week.length_s:
                self._number(painter, number, foot - 2, f"{week.length_s / 60:.0f}")

    def _number(self, painter: QPainter, number: int, foot: float, words: str) -> None:
        painter.setPen(QColor(self.theme.soft))
        painter.setFont(font(8))
        room = QRectF(self._x(number) - self._column, foot - 12 * scale(), 2 * self._column, 12 * scale())
        painter.drawText(room, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom, words)
        painter.setPen(Qt.PenStyle.NoPen)

    def _paint_effort(self, painter: QPainter, box: QRectF) -> None:
        """As on the sprig: the more intense, the further a needle reaches; here, up."""
        painter.setBrush(QColor(self.theme.right))
        painter.setPen(Qt.PenStyle.NoPen)
        for number, week in enumerate(self.weeks):
            if week.length_s:
                high = (box.height() - 10 * scale()) * min(1.0, week.strong / 3.5)
                painter.drawPath(upright(QPointF(self._x(number), box.bottom() - 4), high, 4.5 * scale()))

    def _paint_sides(self, painter: QPainter, box: QRectF) -> None:
        most_s = max((max(week.sides) for week in self.weeks), default=0.0) or 1.0
        room = min(self._column / 2 - 2, 15 * scale())
        for number, week in enumerate(self.weeks):
            for sign, side, each_s in ((1, "right", week.sides[0]), (-1, "left", week.sides[1])):
                painter.setBrush(side_colour(self.theme, side))
                at = QPointF(self._x(number) + sign, box.center().y() + 4)
                painter.drawPath(leaf(at, sign * room * each_s / most_s, 6 * scale()))
        painter.setPen(QColor(self.theme.soft))
        painter.setFont(font(8))
        painter.drawText(QPointF(self._x(0) - self._column / 2, box.top() + 11 * scale()), "L  R")
        painter.setPen(Qt.PenStyle.NoPen)

    def _paint_positions(self, painter: QPainter, box: QRectF) -> None:
        """A stem in four parts, from the feet at the top to lying at its foot; each as long as it was."""
        shades = [QColor(self.theme.ink) for _ in load_terms_file().position_groups]
        for place, shade in enumerate(shades):
            shade.setAlphaF(0.85 - 0.23 * place)
        for number, week in enumerate(self.weeks):
            parts = [
                sum(week.bases.get(base, 0.0) for base in bases)
                for bases in load_terms_file().position_groups.values()
            ]
            total, y = sum(parts) or 1.0, box.top() + 5
            for shade, each_s in zip(shades, parts, strict=True):
                high = (box.height() - 10) * each_s / total
                painter.fillRect(
                    QRectF(self._x(number) - 4 * scale(), y, 8 * scale(), max(0.0, high - 1)), shade
                )
                y += high

    def _paint_movements(self, painter: QPainter, box: QRectF) -> None:
        """How many were new, above how many came again."""
        for number, week in enumerate(self.weeks):
            if week.given:
                painter.setPen(QColor(self.theme.ink))
                painter.setFont(font(9, bold=True))
                upper = QRectF(self._x(number) - 20 * scale(), box.top() + 2, 40 * scale(), 14 * scale())
                painter.drawText(upper, Qt.AlignmentFlag.AlignCenter, f"+{len(week.new)}")
                painter.setPen(QColor(self.theme.soft))
                painter.setFont(font(8.5))
                under = upper.translated(0, 13 * scale())
                painter.drawText(under, Qt.AlignmentFlag.AlignCenter, f"{len(week.repeated)}")
        painter.setPen(Qt.PenStyle.NoPen)


def _share(each_s: float) -> float:
    return float(min(1.0, (each_s / FULL_S) ** 0.5)) if each_s > 0 else 0.0


MONTH_HEADINGS = ("", "recordings", "promised", "recorded", "within 10 s", "learnt (1 is as usual)")


def months_table(months: Sequence[Month], learnt_of: Callable[[str], str]) -> QWidget:
    """What was promised and recorded, a row a month."""
    rows = [MONTH_HEADINGS]
    for month in months:
        promised, recorded = show_length(month.promised_s), show_length(round(month.length_s))
        near = f"{month.near} of {month.takes}"
        rows.append((month.name, str(month.takes), promised, recorded, near, learnt_of(month.name)))
    grid, box = QGridLayout(), QWidget()
    for at, row in enumerate(rows):
        for column, words in enumerate(row):
            grid.addWidget(label(words, "" if at else "soft"), at, column)
    box.setLayout(grid)
    return box
