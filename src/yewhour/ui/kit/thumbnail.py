"""A twig: a class as a few strokes on a stem."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPen

from yewhour.core.shelf.thumbnail import Thumbnail
from yewhour.ui.kit.theme import Theme, scale, side_colour


def paint_thumbnail(painter: QPainter, box: QRectF, twig: Thumbnail, theme: Theme) -> None:
    """As on the sprig: time runs down, and what is done on the left is to the left."""
    middle = box.center().x()
    painter.setPen(QPen(QColor(theme.bark), 1.6 * scale()))
    painter.drawLine(QPointF(middle, box.top()), QPointF(middle, box.bottom()))
    painter.setPen(Qt.PenStyle.NoPen)
    for start, end, side, reach in twig.strokes:
        painter.setBrush(side_colour(theme, side))
        top = box.top() + start * box.height()
        foot = max(top + 1.6, box.top() + end * box.height() - 0.4)
        for sign in (-1, 1) if side == "both" else (-1,) if side == "left" else (1,):
            tip = middle + sign * reach * box.width() / 2
            painter.drawPath(needle(middle, tip, top, foot))


def needle(stem: float, tip: float, top: float, foot: float) -> QPainterPath:
    """The outline of a needle from a stem to its tip."""
    path = QPainterPath(QPointF(stem, top))
    path.quadTo(QPointF(tip, top), QPointF(tip, (top + foot) / 2))
    path.quadTo(QPointF(tip, foot), QPointF(stem, foot))
    return path
