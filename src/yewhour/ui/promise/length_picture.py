"""How long the class can be, as a line: the shortest, by itself, the longest, and what is promised."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yewhour.core.lengths import show_length
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme, font, scale


class LengthPicture(QWidget):
    """From the shortest the class can be to the longest, with what it would be by itself, and the promise."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.theme = theme
        self.setFixedHeight(round(64 * scale()))
        self.setAccessibleName("How long the class can be")

    def sizeHint(self) -> QSize:
        return QSize(300, round(64 * scale()))

    def paintEvent(self, event: QPaintEvent) -> None:
        can = self.session.lengths
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if can is None:
            painter.setFont(font(10))
            painter.setPen(QColor(self.theme.soft))
            words = "How long it can be shows here when it has movements."
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignVCenter, words)
            return
        low, high, asked = can.shortest_s, can.longest_s, can.promised_s
        first, last = min(low, asked), max(high, asked)
        left, right, y = 30.0, self.width() - 40.0, self.height() / 2
        pixels = (right - left) / max(1.0, last - first)

        def x(time_s: float) -> float:
            return left + (time_s - first) * pixels

        painter.setPen(QPen(QColor(self.theme.both), 8, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawLine(round(x(low)), round(y), round(x(high)), round(y))
        painter.setFont(font(9.8))
        painter.setPen(QColor(self.theme.soft))
        marks = [(low, "shortest"), (can.preferred_s, "by itself"), (high, "longest")]
        free = -100.0
        for time_s, name in marks:
            words = f"{name} {show_length(time_s)}"
            wide = painter.fontMetrics().horizontalAdvance(words)
            at = min(max(x(time_s) - wide / 2, free + 8, 0.0), self.width() - wide)
            painter.drawText(QRectF(at, y + 8, wide + 4, 20 * scale()), Qt.AlignmentFlag.AlignLeft, words)
            free = at + wide
        possible = low <= asked <= high
        painter.setPen(QPen(QColor(self.theme.paper), 2))
        painter.setBrush(QColor(self.theme.accent if possible else self.theme.trouble))
        painter.drawEllipse(QRectF(x(asked) - 8, y - 8, 16, 16))
        painter.setFont(font(10, bold=True))
        painter.setPen(QColor(self.theme.ink if possible else self.theme.trouble))
        words = show_length(asked)
        wide = painter.fontMetrics().horizontalAdvance(words)
        at = min(max(x(asked) - wide / 2, 0.0), self.width() - wide)
        painter.drawText(
            QRectF(at, y - 30 * scale(), wide + 4, 20 * scale()), Qt.AlignmentFlag.AlignLeft, words
        )
