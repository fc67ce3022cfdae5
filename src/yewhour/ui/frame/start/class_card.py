"""A card for a class: its twig, its title, and what it is."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen

from yewhour.core.lengths import show_length
from yewhour.core.shelf.thumbnail import Thumbnail
from yewhour.ui.kit.controls.controls import Press
from yewhour.ui.kit.theme import (
    Theme,
    font,
    metrics,
    scale,
)
from yewhour.ui.kit.thumbnail import paint_thumbnail

TALL, TWIG = 96.0, 64.0  # pixels: of the card, and across its twig


class ClassCard(Press):
    """Opens a class when it is pressed."""

    def __init__(self, twig: Thumbnail, theme: Theme) -> None:
        super().__init__("")
        self.twig, self.theme = twig, theme
        self.setObjectName("card")
        self.setAccessibleName(f"{twig.title}, {show_length(twig.length_s)}, {twig.about}")
        self.setFixedHeight(round(TALL * scale()))

    def sizeHint(self) -> QSize:
        return QSize(round(300 * scale()), round(TALL * scale()))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        lit = self.underMouse() or self.hasFocus()
        box = QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5)
        edge = self.theme.focus if self.hasFocus() else self.theme.accent if lit else self.theme.edge
        painter.setPen(QPen(QColor(edge), 2 if self.hasFocus() else 1))
        painter.setBrush(QColor(self.theme.chosen if self.hasFocus() else self.theme.paper))
        painter.drawRoundedRect(box, 8, 8)
        twig_box = QRectF(box.left() + 8 * scale(), box.top() + 7, TWIG * scale(), box.height() - 14)
        paint_thumbnail(painter, twig_box, self.twig, self.theme)
        left = box.left() + (TWIG + 22) * scale()
        room = QRectF(left, box.top() + 20 * scale(), box.right() - left - 10, metrics(12.5).height() + 4)
        painter.setPen(QColor(self.theme.ink))
        painter.setFont(font(12.5, title=True))
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, self.twig.title)
        painter.setPen(QColor(self.theme.soft))
        painter.setFont(font(10))
        under = room.translated(0, room.height() + 4 * scale())
        words = f"{show_length(self.twig.length_s)} · {self.twig.about}"
        shown = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, round(under.width()))
        painter.drawText(under, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, shown)
