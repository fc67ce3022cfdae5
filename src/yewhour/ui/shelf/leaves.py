"""The leaves of the season: outlines on a stem, to one side or upright."""

from PySide6.QtCore import QPointF
from PySide6.QtGui import QPainterPath


def half(middle: QPointF, reach: float, high: float) -> QPainterPath:
    """Half a leaf that lies on a line: so far to both sides, and so high (less than 0: up)."""
    path = QPainterPath(middle - QPointF(reach, 0))
    if reach:
        path.quadTo(middle + QPointF(0, 2 * high), middle + QPointF(reach, 0))
        path.closeSubpath()
    return path


def leaf(stem: QPointF, reach: float, half: float) -> QPainterPath:
    """A leaf from a stem, so many pixels to the right (less than 0: to the left)."""
    path = QPainterPath(stem)
    high = min(half, abs(reach) * 0.8)
    path.quadTo(stem + QPointF(reach * 0.5, -high), stem + QPointF(reach, 0))
    path.quadTo(stem + QPointF(reach * 0.5, high), stem)
    return path


def upright(foot: QPointF, high: float, half: float) -> QPainterPath:
    """A leaf that stands, so high, and half so wide."""
    path = QPainterPath(foot)
    path.quadTo(foot + QPointF(-2 * half, -high / 2), foot + QPointF(0, -high))
    path.quadTo(foot + QPointF(2 * half, -high / 2), foot)
    return path
