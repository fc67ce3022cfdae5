"""The brush of a film: words on plates, a needle that lies, a breath that opens."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPainterPath, QPen

from yewhour.ui.kit.theme import BODY, TITLE, Theme, side_colour

PLATE = 232  # of 255 that a plate covers


class Brush:
    """Words in the colours of a theme. plates: what they stand on, for pictures of any kind beneath."""

    def __init__(self, theme: Theme, plates: bool) -> None:
        self.theme, self.plates = theme, plates

    def plate(self, painter: QPainter, box: QRectF) -> None:
        """What words stand on."""
        if not self.plates:
            return
        colour = QColor(self.theme.paper)
        colour.setAlpha(PLATE)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour)
        painter.drawRoundedRect(box, 12, 12)

    def fitted(self, words: str, size: float, room: float, title: bool = False) -> tuple[QFont, float]:
        """The type that words fit so much room in, and how wide they are then."""
        chosen = type_of(size, title)
        wide = QFontMetricsF(chosen).horizontalAdvance(words)
        if wide > room:
            chosen = type_of(size * room / wide, title)
            wide = QFontMetricsF(chosen).horizontalAdvance(words)
        return chosen, wide

    def words(
        self,
        painter: QPainter,
        words: str,
        box: QRectF,
        size: float,
        title: bool = False,
        bold: bool = False,
        soft: bool = False,
        align: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignLeft,
        colour: str = "",
    ) -> None:
        """Words in one line, smaller where there is no room. colour: a side, or \"paper\"."""
        chosen = self.fitted(words, size, box.width(), title)[0]
        if bold:
            chosen.setWeight(QFont.Weight.DemiBold)
        painter.setFont(chosen)
        painter.setPen(QColor(self.theme.soft if soft else self.theme.ink))
        if colour:
            painter.setPen(QColor(self.theme.paper) if colour == "paper" else side_colour(self.theme, colour))
        painter.drawText(box, align | Qt.AlignmentFlag.AlignVCenter, words)


def lying_needle(box: QRectF) -> QPainterPath:
    """A needle that lies in a box, its tip to the right."""
    path = QPainterPath(QPointF(box.left(), box.center().y()))
    path.quadTo(QPointF(box.left() + box.width() * 0.12, box.top()), QPointF(box.center().x(), box.top()))
    path.quadTo(QPointF(box.right() - box.width() * 0.1, box.top()), QPointF(box.right(), box.center().y()))
    path.quadTo(
        QPointF(box.right() - box.width() * 0.1, box.bottom()), QPointF(box.center().x(), box.bottom())
    )
    path.quadTo(QPointF(box.left() + box.width() * 0.12, box.bottom()), QPointF(box.left(), box.center().y()))
    return path


def paint_breath(painter: QPainter, box: QRectF, full: float, theme: Theme) -> None:
    """A twig that opens: three pairs of needles, close to the stem when empty, spread out when full."""
    middle, long = box.center().x(), box.height() * 0.52
    painter.setPen(QPen(QColor(theme.bark), 2.4, c=Qt.PenCapStyle.RoundCap))
    painter.drawLine(QPointF(middle, box.top() + box.height() * 0.3), QPointF(middle, box.bottom()))
    painter.setPen(Qt.PenStyle.NoPen)
    for row in range(3):
        foot = box.bottom() - box.height() * (0.06 + 0.27 * row)
        for sign in (-1, 1):
            painter.save()
            painter.translate(middle, foot)
            painter.rotate(sign * (8 + 60 * full))
            shape = QPainterPath(QPointF(0, 0))
            shape.quadTo(QPointF(7, -long * 0.55), QPointF(0, -long))
            shape.quadTo(QPointF(-7, -long * 0.55), QPointF(0, 0))
            painter.fillPath(shape, side_colour(theme, "both"))
            painter.restore()


def type_of(size: float, title: bool) -> QFont:
    """Type of so many pixels."""
    chosen = QFont(TITLE if title else BODY)
    chosen.setPixelSize(max(6, round(size)))
    return chosen
