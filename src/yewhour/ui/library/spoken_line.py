"""A line of a movement, as it sounds on a side."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QLabel

from yewhour.ui.kit.theme import scale


class SpokenLine(QLabel):
    """A line as it sounds on one side, with a mark in the side's colour."""

    def __init__(self, colour: QColor) -> None:
        super().__init__()
        self.colour = colour
        self.setObjectName("line-words")
        self.setWordWrap(True)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.setContentsMargins(round(10 * scale()), 0, 0, 0)

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.fillRect(0, 2, round(3 * scale()), self.height() - 4, self.colour)
