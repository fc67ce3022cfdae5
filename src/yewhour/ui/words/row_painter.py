"""How a row of the script is painted: the clock, the stem with the side, the line, and its seconds."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen
from PySide6.QtWidgets import QStyle, QStyleOptionViewItem

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.ui.kit.theme import (
    Theme,
    font,
    metrics,
    scale,
    side_colour,
    wrapped_height,
)
from yewhour.ui.words.rows import QUIET_S, ScriptRow

SIZE = 11.5
NARROW = 500.0  # pixels of a list, at the usual text size, that has no room for the purposes
ASIDE = 118.0  # pixels at the right, for purpose and seconds


class RowPaint:
    """Measures and paints rows. `typing`: the row being edited and the seconds it takes now."""

    def __init__(self, theme: Theme) -> None:
        self.theme = theme
        self.typing: tuple[ScriptRow, float] | None = None

    @property
    def _text_x(self) -> float:
        return 108 * scale()

    def height(self, row: ScriptRow, width: int) -> float:
        """Pixels of a row in a list so wide."""
        return self._head(row) + self._line_height(row, width) + self._quiet(row)

    def text_box(self, row: ScriptRow, box: QRectF) -> QRectF:
        """Where the line stands in its row."""
        height = box.height() - self._head(row) - self._quiet(row)
        room = box.width() - self._text_x - self._aside(row, box.width())
        return QRectF(box.left() + self._text_x, box.top() + self._head(row), room, height)

    def _aside(self, row: ScriptRow, width: float) -> float:
        """Pixels for purpose and seconds; where the list is narrow, for the seconds alone."""
        if row.finding is not None:
            return 24 * scale()
        return (ASIDE if width > NARROW * scale() else 84) * scale()

    def _head(self, row: ScriptRow) -> float:
        return ((32 if row.section else 0) + (26 if row.heading else 0)) * scale()

    def _quiet(self, row: ScriptRow) -> float:
        """Silence takes room too, up to a line or so."""
        return min(28.0, 2 + row.quiet_s * 1.2) * scale() if row.quiet_s < QUIET_S else 26 * scale()

    def _line_height(self, row: ScriptRow, width: int) -> float:
        return wrapped_height(row.text, SIZE, width - self._text_x - self._aside(row, width)) + 6 * scale()

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, row: ScriptRow) -> None:
        """One row."""
        box = QRectF(option.rect)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        text = self.text_box(row, box)
        line = QRectF(box.left(), text.top(), box.width(), text.height())
        if option.state & QStyle.StateFlag.State_Selected:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(self.theme.chosen))
            painter.drawRoundedRect(line.adjusted(6, 0, -6, 0), 6, 6)
        self._paint_stem(painter, row, box, line)
        self._paint_head(painter, row, box)
        self._paint_line(painter, row, text)
        if row.finding is None:
            self._paint_aside(painter, row, line)
        if row.quiet_s >= QUIET_S:
            under = QRectF(self._text_x, line.bottom() + 2, box.width(), 20 * scale())
            words = f"{row.quiet_s:.0f} s of quiet"
            self._words(painter, words, self.theme.soft, 9.8, under, italic=True)
        painter.restore()

    def _words(
        self,
        painter: QPainter,
        words: str,
        colour: str,
        size: float,
        box: QRectF,
        align: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignVCenter,
        **look: bool,
    ) -> None:
        painter.setFont(font(size, **look))
        painter.setPen(QColor(colour))
        painter.drawText(box, align, words)

    def _paint_stem(self, painter: QPainter, row: ScriptRow, box: QRectF, line: QRectF) -> None:
        x = 78 * scale()
        painter.setPen(QPen(QColor(self.theme.line), 3 * scale()))
        painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
        y = line.top() + metrics(SIZE).height() / 2 + 1
        if row.finding is not None:
            half = 6 * scale()
            painter.setPen(QPen(QColor(self.theme.trouble), 2))
            wrong = row.finding.severity == "wrong"
            painter.setBrush(QColor(self.theme.trouble if wrong else self.theme.paper))
            painter.drawPolygon(
                [QPointF(x, y - half), QPointF(x + half, y), QPointF(x, y + half), QPointF(x - half, y)]
            )
            return
        if row.cue is None:
            painter.setPen(QPen(QColor(self.theme.soft), 1.6))
            painter.setBrush(QColor(self.theme.paper))
            painter.drawEllipse(QPointF(x, y), 4 * scale(), 4 * scale())
            return
        colour, reach = side_colour(self.theme, row.side), 11 * scale()
        painter.setPen(QPen(colour, 5 * scale(), Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        left = x - reach if row.side != "right" else x
        right = x + reach if row.side != "left" else x
        painter.drawLine(QPointF(left, y), QPointF(right, y))
        if row.side in ("left", "right"):
            at = x - 24 * scale() if row.side == "left" else x + 14 * scale()
            where = QRectF(at, y - 9 * scale(), 11 * scale(), 18 * scale())
            self._words(
                painter,
                row.side[0].upper(),
                colour.name(),
                9.8,
                where,
                Qt.AlignmentFlag.AlignCenter,
                bold=True,
            )

    def _paint_head(self, painter: QPainter, row: ScriptRow, box: QRectF) -> None:
        top, wide = box.top(), box.width() - self._text_x - 16
        if row.section:
            where = QRectF(self._text_x, top, wide, 32 * scale())
            self._words(painter, row.section, self.theme.ink, 12.5, where, title=True)
            top += 32 * scale()
        if row.heading:
            colour = side_colour(self.theme, row.segment.side).name()
            self._words(
                painter,
                row.heading,
                colour,
                9.8,
                QRectF(self._text_x, top + 2, wide, 24 * scale()),
                bold=True,
            )

    def _paint_line(self, painter: QPainter, row: ScriptRow, text: QRectF) -> None:
        clock = QRectF(4 * scale(), text.top() + 2, 44 * scale(), metrics(SIZE).height())
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        if row.finding is None and row.muted is None:
            self._words(painter, show_length(row.at / TICKS_PER_S), self.theme.soft, 9.8, clock, right)
        quiet = row.left is not None or row.muted is not None
        colour = self.theme.trouble if row.finding else self.theme.soft if quiet else self.theme.ink
        wrap = Qt.AlignmentFlag(Qt.TextFlag.TextWordWrap)
        self._words(painter, row.text, colour, SIZE, text.adjusted(0, 2, 0, 40), wrap, italic=quiet)

    def _paint_room(self, painter: QPainter, box: QRectF, share: float) -> None:
        """The room there is for a line, and how much of it the words take."""
        wide, y = 56 * scale(), box.center().y()
        start = box.right() - wide
        for end, colour, thick in ((1.0, self.theme.line, 2.0), (min(1.0, share), self.theme.soft, 4.0)):
            painter.setPen(
                QPen(QColor(colour), thick * scale(), Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
            )
            painter.drawLine(QPointF(start, y), QPointF(start + wide * end, y))

    def _paint_aside(self, painter: QPainter, row: ScriptRow, line: QRectF) -> None:
        """How much of its room the line takes; in seconds where that matters just now."""
        takes, over = row.takes_s, row.takes_s > row.room_s + 0.05
        words = f"{takes:.1f} of {row.room_s:.1f} s"
        if row.left is not None:
            words, over = "no room", False
        elif row.muted is not None:
            words, over = "unsaid", False
        if self.typing is not None and self.typing[0] is row:
            takes = self.typing[1]
            over = row.cue is not None and takes > row.room_s + 0.05
            words = f"{takes:.1f} of {row.room_s:.1f} s" if row.cue else f"{takes:.1f} s"
        wide = self._aside(row, line.width())
        box = QRectF(line.right() - wide + 6, line.top() + 2, wide - 18, metrics(SIZE).height())
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        shown = row.left is not None or row.muted is not None or over or self.typing is not None
        if line.width() > NARROW * scale():
            own = "yours" if row.cue is not None and row.cue.own else ""
            left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
            self._words(painter, own, self.theme.accent, 9.8, box, left, italic=True)
        if not shown:  # the room as a line, and how much of it the words need
            self._paint_room(painter, box, takes / max(0.1, row.room_s))
            return
        colour = self.theme.trouble if over else self.theme.soft
        self._words(painter, words, colour, 9.8, box, right, bold=over)
