"""What is painted of the boards: a board with its days, and a class as a little sprig with its words."""

from __future__ import annotations

from datetime import date
from functools import lru_cache
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import (
    QColor,
    QPainter,
    QPen,
    QPixmap,
    QPixmapCache,
)

from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import (
    DAYS,
    WEEKDAYS,
    monday_of,
    week_of,
)
from yewhour.core.shelf.weekly_notes import record_by, shown_day
from yewhour.ui.kit.theme import (
    Theme,
    cut_to,
    font,
    metrics,
    scale,
)
from yewhour.ui.kit.thumbnail import paint_thumbnail
from yewhour.ui.shelf.board import (
    MARGIN,
    Spot,
    WeekBoard,
    tall,
)

BOARD, TWIG = 5.0, 46.0  # how thick a board is, and how wide a sprig
SIZES = (10.0, 9.0)  # points: of a title, and of what stands below it
BOLD = 1.12  # bold words are so much wider
_UNDER = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignBottom
_OVER = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop


class BoardPainter(NamedTuple):
    """Paints one row. width, day_wide: pixels. over: the day something is held over, if any. ratio: device
    pixels a pixel. focused: whether the boards have the keys."""

    theme: Theme
    today: int
    width: float
    day_wide: float
    ratio: float
    over: int | None
    focused: bool

    def board(self, painter: QPainter, board: WeekBoard) -> None:
        """A board with its title and, where it is a week, its days."""
        theme, size, floor = self.theme, scale(), board.floor
        left, right = MARGIN * size, self.width - 8
        if self.over is not None:
            day = (self.over - 1) % DAYS
            box = QRectF(left + day * self.day_wide, board.top + 6, self.day_wide, floor - board.top - 6)
            painter.fillRect(box, QColor(theme.chosen))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(theme.bark))
        painter.drawRoundedRect(QRectF(left - 6, floor, right - left + 6, BOARD * size), 2, 2)
        now = board.week is not None and board.week == week_of(self.today)
        painter.setPen(QColor(theme.ink))
        painter.setFont(font(12.5 if now else 11, title=True))
        painter.drawText(QRectF(14, floor - 34 * size, left - 24, 30 * size), _UNDER, board.title)
        painter.setPen(QColor(theme.soft))
        painter.setFont(font(SIZES[1]))
        painter.drawText(QRectF(14, floor - 4 * size, left - 24, 20 * size), _OVER, board.under)
        if board.week is not None:
            self._paint_days(painter, board)

    def _paint_days(self, painter: QPainter, board: WeekBoard) -> None:
        """The days, above their place; today is told apart."""
        assert board.week is not None
        size = scale()
        for day, name in enumerate(WEEKDAYS):
            number = monday_of(board.week) + day
            today = number == self.today
            painter.setPen(QColor(self.theme.ink if today else self.theme.soft))
            painter.setFont(font(SIZES[1], bold=today))
            words = f"{name[:2]} {date.fromordinal(number).day}" + (", today" if today else "")
            x = MARGIN * size + (day + 0.5) * self.day_wide
            box = QRectF(x - self.day_wide / 2, board.top + 4, self.day_wide, 16 * size)
            if metrics(SIZES[1]).horizontalAdvance(words) * BOLD > self.day_wide:
                words = f"{date.fromordinal(number).day}"
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, words)

    def spot(self, painter: QPainter, spot: Spot, floor: float, chosen_box: QRectF | None) -> None:
        """A class on its board. chosen_box: what lies behind it, where it is chosen."""
        theme, size, sheet = self.theme, scale(), spot.shelved.sheet
        if chosen_box is not None:
            box = chosen_box.adjusted(2, 16 * size, -2, 0)
            painter.setPen(QPen(QColor(theme.focus if self.focused else theme.edge), 2))
            painter.setBrush(QColor(theme.chosen))
            painter.drawRoundedRect(box, 6, 6)
        picture = self._picture(sheet)
        ratio = picture.devicePixelRatio()
        at = QPointF(spot.x - picture.width() / ratio / 2, floor - picture.height() / ratio)
        painter.setOpacity(0.45 if spot.state in ("planned", "late") else 1.0)
        painter.drawPixmap(at, picture)
        painter.setOpacity(1.0)
        room = spot.width - 6
        painter.setPen(QColor(theme.ink))
        painter.setFont(font(SIZES[0]))
        box = QRectF(spot.x - room / 2, floor + 8 * size, room, metrics(SIZES[0]).height() + 1)
        for number, words in enumerate(_two_lines(sheet.title, room)):
            painter.drawText(box.translated(0, number * box.height()), Qt.AlignmentFlag.AlignCenter, words)
            under = box.translated(0, (number + 1) * box.height())
        late = spot.state == "late"
        painter.setPen(QColor(theme.trouble if late else theme.soft))
        painter.setFont(font(SIZES[1], bold=late))
        for number, words in enumerate(self._lines(spot)):
            box = under.translated(0, number * under.height())
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, cut_to(words, SIZES[1], room)[0])

    def _lines(self, spot: Spot) -> tuple[str, ...]:
        length = said_length(spot.shelved.sheet.length_s)
        at = f"{length}, at {spot.outing.at}" if spot.outing is not None and spot.outing.at else length
        return (at, how_far(spot, self.today))

    def _picture(self, sheet: ClassSheet) -> QPixmap:
        """A class as a sprig; painted once."""
        ratio, high, wide = self.ratio, tall(sheet.length_s, scale()), TWIG * scale()
        key = f"{hash(sheet.strokes)}/{high:.1f}/{ratio}/{self.theme.ground}"
        picture = QPixmap()
        if not QPixmapCache.find(key, picture):
            picture = QPixmap(round(wide * ratio), round(high * ratio))
            picture.setDevicePixelRatio(ratio)
            picture.fill(Qt.GlobalColor.transparent)
            painter = QPainter(picture)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            paint_thumbnail(painter, QRectF(0, 0, wide, high), sheet.twig, self.theme)
            painter.end()
            QPixmapCache.insert(key, picture)
        return picture


def said_length(length_s: float) -> str:
    """A length beside a time of day, so that they are not taken for each other."""
    return f"{round(length_s / 60)} min" if length_s >= 90 else f"{round(length_s)} s"


@lru_cache(2000)
def _lines_of(title: str, room: int, size: float) -> tuple[str, ...]:
    words = title.split()
    for at in range(len(words), 0, -1):
        first, rest = " ".join(words[:at]), " ".join(words[at:])
        if metrics(SIZES[0]).horizontalAdvance(first) <= room:
            return (first, cut_to(rest, SIZES[0], room)[0]) if rest else (first,)
    return (cut_to(title, SIZES[0], room)[0],)


def _two_lines(title: str, room: float) -> tuple[str, ...]:
    """A title in two lines at most; remembered."""
    return _lines_of(title, int(room), scale())


def how_far(spot: Spot, today: int) -> str:
    """How far a class is, in a few words."""
    if spot.outing is None:
        return "recorded" if spot.state == "recorded" else "not recorded"
    if spot.state in ("planned", "late"):
        by = shown_day(record_by(spot.outing), today).replace(" week", "")
        return f"record by {by}" if spot.state == "planned" else "not recorded"
    return "recorded" if spot.state == "recorded" else "out"
