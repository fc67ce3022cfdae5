"""The boards, painted: classes as little sprigs that stand on the days they go out."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPixmap,
    QPixmapCache,
    QResizeEvent,
)
from PySide6.QtWidgets import QAbstractScrollArea, QApplication, QFrame

from yewhour.core.shelf.records import (
    DAYS,
    monday_of,
)
from yewhour.core.shelf.weekly_notes import shown_day
from yewhour.ui.kit.theme import (
    Theme,
    font,
    scale,
)
from yewhour.ui.shelf.board import (
    MARGIN,
    ShelfBoards,
    Spot,
)
from yewhour.ui.shelf.board_painter import BoardPainter, how_far

CACHED_KB = 60_000
MOST_NEW, MOST_PAINTED = 1, 80  # boards painted for the first time in a frame; kept painted


class Boards(QAbstractScrollArea):
    """Shows boards. chosen: another class is. wanted: it is to be opened. moved: a class was let go over a
    day (the spot, the day). shifted: it is to go out so many days later. dropped: it is not to go out."""

    chosen = Signal()
    wanted = Signal()
    moved = Signal(object, int)
    shifted = Signal(int)
    dropped = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.shelves = ShelfBoards([], [], 0.0)
        self.today = 1
        self.spot = -1
        self._held: tuple[int, QPoint] | None = None
        self._over: tuple[int, int] | None = None  # board, day, while a class is dragged
        self._new = 0  # boards painted for the first time in this frame
        self._painted: dict[int, QPixmap] = {}
        self._tops: list[float] = []
        self._rows: list[int] = []  # the board of each spot, to find those in view
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setAccessibleName("The shelf")
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.viewport().setMouseTracking(True)
        QPixmapCache.setCacheLimit(max(QPixmapCache.cacheLimit(), CACHED_KB))

    def show_shelves(self, shelves: ShelfBoards, today: int) -> None:
        """Other boards; the class that was chosen stays so where it still stands."""
        before = self.current
        self.shelves, self.today = shelves, today
        self._rows = [spot.board for spot in shelves.spots]
        self._tops = [board.top for board in shelves.boards]
        self.spot = -1
        if before is not None:
            same = (n for n, spot in enumerate(shelves.spots) if _alike(spot, before))
            self.spot = next(same, -1)
        self._fit()
        self.setAccessibleDescription(self._told())

    @property
    def current(self) -> Spot | None:
        """What is chosen."""
        return self.shelves.spots[self.spot] if 0 <= self.spot < len(self.shelves.spots) else None

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self.theme = theme
        self._fit()

    def choose(self, number: int) -> None:
        """Chooses a spot, and brings it into view."""
        if not 0 <= number < len(self.shelves.spots):
            return
        self.spot = number
        board, bar = self.shelves.boards[self.shelves.spots[number].board], self.verticalScrollBar()
        if board.top < bar.value():
            bar.setValue(round(board.top))
        elif board.foot > bar.value() + self.viewport().height():
            bar.setValue(round(board.foot) - self.viewport().height())
        self.viewport().update()
        self.setAccessibleDescription(self._told())
        self.chosen.emit()

    def choose_class(self, name: str, day: int = 0) -> None:
        """Chooses a class, where it goes out on a day if that is given."""
        spots = self.shelves.spots
        mine = [n for n, spot in enumerate(spots) if spot.shelved.id == name]
        on = [n for n in mine if (out := spots[n].outing) is not None and out.day == day]
        if mine:
            self.choose((on or mine)[0])

    def _told(self) -> str:
        spot = self.current
        if spot is None:
            return ""
        when = f", {shown_day(spot.outing.day, self.today)}" if spot.outing is not None else ""
        return f"{spot.shelved.sheet.title}{when}, {how_far(spot, self.today)}"

    # --- geometry ---------------------------------------------------------------------------------------

    def _board_at(self, y: float) -> int:
        """The board at a height of the page: the first above it, the last below."""
        return max(0, bisect_right(self._tops, y) - 1)

    def _fit(self) -> None:
        self._painted.clear()
        bar = self.verticalScrollBar()
        bar.setRange(0, max(0, round(self.shelves.height) - self.viewport().height()))
        bar.setPageStep(max(1, self.viewport().height()))
        bar.setSingleStep(round(66 * scale()))
        self.viewport().update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _box(self, spot: Spot) -> QRectF:
        """Where a class stands, its words included."""
        board = self.shelves.boards[spot.board]
        return QRectF(spot.x - spot.width / 2, board.top + 4, spot.width, board.foot - board.top - 6)

    def _in_view(self) -> Iterator[tuple[int, Spot]]:
        first, last = self._boards_in_view()
        for number in range(bisect_left(self._rows, first), bisect_left(self._rows, last)):
            yield number, self.shelves.spots[number]

    def _boards_in_view(self) -> tuple[int, int]:
        shift = self.verticalScrollBar().value()
        last = self._board_at(shift + self.viewport().height()) + 1
        return self._board_at(shift), min(last, len(self.shelves.boards))

    def spot_at(self, at: QPoint) -> int:
        """The spot under a point of the view, -1 for none."""
        point = QPointF(at.x(), at.y() + self.verticalScrollBar().value())
        return next((n for n, spot in self._in_view() if self._box(spot).contains(point)), -1)

    def day_at(self, at: QPoint) -> tuple[int, int] | None:
        """The board and the day under a point of the view, where there is a week."""
        if not self.shelves.boards:
            return None
        number = self._board_at(at.y() + self.verticalScrollBar().value())
        week = self.shelves.boards[number].week
        across = (at.x() - MARGIN * scale()) / max(1.0, self._day_wide)
        if week is None or not 0 <= across < DAYS:
            return None
        return number, monday_of(week) + int(across)

    @property
    def _day_wide(self) -> float:
        return (self.viewport().width() - MARGIN * scale()) / DAYS

    # --- the hand ---------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        number = self.spot_at(event.position().toPoint())
        self._held = (number, event.position().toPoint()) if number >= 0 else None
        if number >= 0:
            self.choose(number)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position().toPoint()
        if self._held is None:
            self.viewport().setCursor(
                Qt.CursorShape.PointingHandCursor if self.spot_at(at) >= 0 else Qt.CursorShape.ArrowCursor
            )
            return
        if (at - self._held[1]).manhattanLength() < QApplication.startDragDistance() and self._over is None:
            return
        self._over = self.day_at(at)
        bar, edge = self.verticalScrollBar(), round(30 * scale())
        if at.y() < edge or at.y() > self.viewport().height() - edge:
            bar.setValue(bar.value() + (edge if at.y() > edge else -edge))
        self.viewport().update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, over, self._held, self._over = self._held, self._over, None, None
        self.viewport().update()
        if held is not None and over is not None:
            self.moved.emit(self.shelves.spots[held[0]], over[1])

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self.spot_at(event.position().toPoint()) >= 0:
            self.wanted.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, alt = Qt.Key(event.key()), bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}
        rows = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}
        if key == Qt.Key.Key_Escape and self._held is not None:
            self._held = self._over = None
            self.viewport().update()
        elif alt and (key in steps or key in rows):
            self.shifted.emit(steps[key] if key in steps else DAYS * rows[key])
        elif key in steps:
            self.choose(max(0, self.spot + steps[key]) if self.spot >= 0 else 0)
        elif key in rows:
            self.choose(self._beside(rows[key]))
        elif key in (Qt.Key.Key_Home, Qt.Key.Key_End):
            self.choose(0 if key == Qt.Key.Key_Home else len(self.shelves.spots) - 1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.wanted.emit()
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.dropped.emit()
        else:
            super().keyPressEvent(event)

    def _beside(self, way: int) -> int:
        """The spot nearest above or below the one that is chosen."""
        here = self.current
        if here is None:
            return 0
        rows = sorted({row for row in self._rows if (row - here.board) * way > 0}, key=lambda row: row * way)
        if not rows:
            return self.spot
        there = [n for n, spot in enumerate(self.shelves.spots) if spot.board == rows[0]]
        return min(there, key=lambda n: abs(self.shelves.spots[n].x - here.x))

    # --- painting ---------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self.viewport())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.viewport().rect(), QColor(self.theme.paper))
        shift, self._new = self.verticalScrollBar().value(), 0
        painter.translate(0, -shift)
        for number in range(*self._boards_in_view()):
            self._paint_row(painter, number)
        if self._new > MOST_NEW:
            QTimer.singleShot(0, self.viewport(), self.viewport().update)
        if not self.shelves.spots:
            painter.setPen(QColor(self.theme.soft))
            painter.setFont(font(11))
            words = "Nothing here. A class stands here as soon as it is saved."
            painter.drawText(QPointF(MARGIN * scale(), 40 * scale()), words)

    def _paint_row(self, painter: QPainter, number: int) -> None:
        """A board and what stands on it: as it was painted before, unless something there is chosen."""
        board, here = self.shelves.boards[number], self.current
        busy = (here is not None and here.board == number) or (self._over or (-1,))[0] == number
        if busy:
            self._paint_all(painter, number)
            return
        known = self._painted.get(number)
        if known is None:
            self._new += 1
            if self._new > MOST_NEW:
                self._paint(number).board(painter, board)
                return
            ratio = self.devicePixelRatioF()
            high = board.foot - board.top
            known = QPixmap(round(self.viewport().width() * ratio), round(high * ratio))
            known.setDevicePixelRatio(ratio)
            known.fill(QColor(self.theme.paper))
            inner = QPainter(known)
            inner.setRenderHint(QPainter.RenderHint.Antialiasing)
            inner.translate(0, -board.top)
            self._paint_all(inner, number)
            inner.end()
            while len(self._painted) >= MOST_PAINTED:
                del self._painted[next(iter(self._painted))]
            self._painted[number] = known
        painter.drawPixmap(QPointF(0, board.top), known)

    def _paint(self, number: int) -> BoardPainter:
        over = self._over[1] if self._over is not None and self._over[0] == number else None
        width, ratio = float(self.viewport().width()), self.devicePixelRatioF()
        return BoardPainter(self.theme, self.today, width, self._day_wide, ratio, over, self.hasFocus())

    def _paint_all(self, painter: QPainter, number: int) -> None:
        board = self.shelves.boards[number]
        paint = self._paint(number)
        paint.board(painter, board)
        first, last = bisect_left(self._rows, number), bisect_left(self._rows, number + 1)
        for place in range(first, last):
            spot = self.shelves.spots[place]
            paint.spot(painter, spot, board.floor, self._box(spot) if place == self.spot else None)


def _alike(spot: Spot, before: Spot) -> bool:
    """Whether it is the same class, on the same outing if it had one."""
    if spot.shelved.id != before.shelved.id:
        return False
    return (spot.outing.id if spot.outing else "") == (before.outing.id if before.outing else "")
