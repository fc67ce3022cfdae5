"""The script beside the sprig: one row a line, on the same clock, with the silences between them."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRectF,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import QColor, QPainter, QPen
from PySide6.QtWidgets import QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem

from yewhour.core.lengths import TICKS_PER_S, seconds, show_length
from yewhour.ui.session import Session
from yewhour.ui.theme import Theme, font, metrics, scale, side_colour

if TYPE_CHECKING:
    from yewhour.core.cue import Cue
    from yewhour.core.layout import Segment

QUIET_S = 8.0  # a silence this long is shown as one
Index = QModelIndex | QPersistentModelIndex


class Row:
    """One row: a cue, the heading above it when it opens a movement, and the silence after it."""

    __slots__ = ("cue", "heading", "quiet_s", "section", "segment")

    def __init__(self, segment: Segment, cue: Cue, heading: str, section: str, quiet_s: float) -> None:
        self.segment = segment
        self.cue = cue
        self.heading = heading
        self.section = section
        self.quiet_s = quiet_s

    def said(self) -> str:
        """The row as a screen reader says it."""
        side = f", {self.cue.side}" if self.cue.side in ("left", "right") else ""
        return f"{show_length(seconds(self.cue.start))}{side}: {self.cue.text}"


class ScriptModel(QAbstractListModel):
    """The rows of the session's class."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.rows: list[Row] = []
        session.made_changed.connect(self.refresh)

    def refresh(self) -> None:
        """Takes the class as it is now."""
        self.beginResetModel()
        self.rows = list(self._rows())
        self.endResetModel()

    def _rows(self) -> Any:
        made = self.session.made
        if made is None:
            return
        segments = {segment.id: segment for segment in made.segments}
        section = heading = ""
        for cue, after in zip(made.cues, [*made.cues[1:], None], strict=True):
            segment = segments[cue.segment]
            shown = segments.get(segment.turn.setup_for, segment)
            key = shown.turn.flow or shown.id
            new = _heading(shown) if key != heading else ""
            title = shown.section if shown.section != section else ""
            heading, section = key, shown.section
            quiet = seconds((after.start if after else made.length) - cue.end)
            yield Row(shown, cue, new, title, quiet)

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        row = self.rows[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return row.cue.text
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return row.said()
        if role == Qt.ItemDataRole.UserRole:
            return row
        return None

    def row_of(self, segment: str) -> int:
        """The first row of a segment, -1 when nothing is said in it."""
        for number, row in enumerate(self.rows):
            if row.segment.id == segment or row.cue.segment == segment:
                return number
        return -1


def _heading(segment: Segment) -> str:
    if segment.turn.flow:
        return f"{segment.name} and on, {segment.turn.rounds} rounds"
    return f"{segment.name} · {segment.dose}"


class RowPainter(QStyledItemDelegate):
    """Paints a row: the clock, the stem with the side the line is for, the line."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme

    @property
    def _text_x(self) -> float:
        return 114 * scale()

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        row: Row = index.data(Qt.ItemDataRole.UserRole)
        width = option.widget.viewport().width() if isinstance(option.widget, QListView) else 500
        height = self._head(row) + self._line_height(row, width) + self._quiet(row)
        return QSize(width, round(height))

    def _head(self, row: Row) -> float:
        return ((30 if row.section else 0) + (26 if row.heading else 0)) * scale()

    def _quiet(self, row: Row) -> float:
        """Silence takes room too, up to a line or so."""
        return min(30.0, 2 + row.quiet_s * 1.2) * scale() if row.quiet_s < QUIET_S else 26 * scale()

    def _line_height(self, row: Row, width: int) -> float:
        measures, room = metrics(11.5), width - self._text_x - 24 * scale()
        if len(row.cue.text) * measures.maxWidth() < room or measures.horizontalAdvance(row.cue.text) < room:
            return measures.height() + 5 * scale()
        box = measures.boundingRect(QRectF(0, 0, room, 10_000), Qt.TextFlag.TextWordWrap, row.cue.text)
        return box.height() + 5 * scale()

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        row: Row = index.data(Qt.ItemDataRole.UserRole)
        box = QRectF(option.rect)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        state = option.state
        head = self._head(row)
        line = QRectF(box.left(), box.top() + head, box.width(), box.height() - head - self._quiet(row))
        if state & QStyle.StateFlag.State_Selected:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(self.theme.chosen))
            painter.drawRoundedRect(line.adjusted(6, 0, -6, 0), 6, 6)
        self._paint_stem(painter, row, box, line)
        self._paint_head(painter, row, box)
        self._paint_line(painter, row, line)
        if row.quiet_s >= QUIET_S:
            painter.setFont(font(8.5, italic=True))
            painter.setPen(QColor(self.theme.soft))
            at = QRectF(self._text_x, line.bottom() + 3, box.width(), 20 * scale())
            painter.drawText(at, Qt.AlignmentFlag.AlignVCenter, f"{row.quiet_s:.0f} s of quiet")
        painter.restore()

    def _paint_stem(self, painter: QPainter, row: Row, box: QRectF, line: QRectF) -> None:
        x = 82 * scale()
        painter.setPen(QPen(QColor(self.theme.line), 3 * scale()))
        painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
        side = row.cue.side
        colour = side_colour(self.theme, side)
        y = line.top() + metrics(11.5).height() / 2 + 1
        painter.setPen(QPen(colour, 5 * scale(), Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        reach = 11 * scale()
        left = x - reach if side != "right" else x
        right = x + reach if side != "left" else x
        painter.drawLine(QPointF(left, y), QPointF(right, y))
        if side in ("left", "right"):
            painter.setFont(font(9, bold=True))
            painter.setPen(colour)
            at = x - 24 * scale() if side == "left" else x + 14 * scale()
            painter.drawText(
                QRectF(at, y - 9 * scale(), 11 * scale(), 18 * scale()),
                Qt.AlignmentFlag.AlignCenter,
                side[0].upper(),
            )

    def _paint_head(self, painter: QPainter, row: Row, box: QRectF) -> None:
        top = box.top()
        if row.section:
            painter.setFont(font(12, title=True))
            painter.setPen(QColor(self.theme.ink))
            where = QRectF(self._text_x, top, box.width() - self._text_x, 30 * scale())
            painter.drawText(where, Qt.AlignmentFlag.AlignVCenter, row.section)
            top += 30 * scale()
        if row.heading:
            painter.setFont(font(9.5, bold=True))
            painter.setPen(side_colour(self.theme, row.segment.side))
            side = f" · {row.segment.side}" if row.segment.side in ("left", "right") else ""
            where = QRectF(self._text_x, top + 2, box.width() - self._text_x - 16, 24 * scale())
            painter.drawText(where, Qt.AlignmentFlag.AlignVCenter, row.heading + side)

    def _paint_line(self, painter: QPainter, row: Row, line: QRectF) -> None:
        painter.setFont(font(9.5))
        painter.setPen(QColor(self.theme.soft))
        clock = QRectF(10 * scale(), line.top() + 2, 46 * scale(), metrics(11.5).height())
        painter.drawText(
            clock,
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
            show_length(row.cue.start / TICKS_PER_S),
        )
        painter.setFont(font(11.5))
        painter.setPen(QColor(self.theme.ink))
        where = line.adjusted(self._text_x, 2, -24 * scale(), 40)
        painter.drawText(where, Qt.TextFlag.TextWordWrap, row.cue.text)


class Script(QListView):
    """The list of lines. Choosing a line chooses its segment, and the other way round."""

    chosen = Signal(str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.lines = ScriptModel(session)
        self.painter_of_rows = RowPainter(theme)
        self._following = False
        self.setObjectName("script")
        self.setAccessibleName("Script: the lines to speak")
        self.setModel(self.lines)
        self.setItemDelegate(self.painter_of_rows)
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setUniformItemSizes(False)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.selectionModel().currentChanged.connect(self._line_chosen)
        session.selected_changed.connect(self.show_segment)
        session.made_changed.connect(lambda: self.show_segment(session.selected))

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.painter_of_rows.theme = theme
        self.scheduleDelayedItemsLayout()
        self.viewport().update()

    def show_segment(self, segment: str) -> None:
        """Brings a segment's first line into view, unless one of its lines is current already."""
        current = self.currentIndex()
        if current.isValid() and self.lines.rows[current.row()].segment.id == segment:
            return
        row = self.lines.row_of(segment) if segment else -1
        if row < 0:
            return
        self._following = True
        index = self.lines.index(row)
        self.setCurrentIndex(index)
        self.scrollTo(index, QListView.ScrollHint.PositionAtCenter)
        self._following = False

    def _line_chosen(self, index: QModelIndex) -> None:
        if index.isValid() and not self._following:
            self.chosen.emit(self.lines.rows[index.row()].segment.id)
