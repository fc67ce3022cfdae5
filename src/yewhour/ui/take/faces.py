"""The faces of the take station: the side, the breath, the class going by. They show what they are given."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPainterPath, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QSizePolicy, QWidget

from yewhour.core.shelf.thumbnail import Thumbnail, strokes_of
from yewhour.core.take.moment import Moment
from yewhour.core.take.take import Take
from yewhour.ui.kit.theme import Theme, font, side_colour
from yewhour.ui.kit.thumbnail import paint_thumbnail


class Face(QWidget):
    """Something painted in the colours of now."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme

    def set_theme(self, theme: Theme) -> None:
        """Other colours."""
        self.theme = theme
        self.update()


class SideBand(Face):
    """One edge of the screen: a needle to that edge with its letter and its word, or nothing.

    at: the edge it is on. On that edge is what the teacher's own body does on that side.
    """

    def __init__(self, theme: Theme, at: str) -> None:
        super().__init__(theme)
        self.at = at
        self.side = ""
        self.coming = False
        self.setFixedWidth(132)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Expanding)

    def show_side(self, side: str, coming: bool = False) -> None:
        """The side that is said: "right", "left" or none; coming: it is next, not now."""
        if (side, coming) != (self.side, self.coming):
            self.side, self.coming = side, coming
            self.setAccessibleName(f"{side}{', next' if coming else ''}" if side else "no side")
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self.side:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        colour = side_colour(self.theme, self.side)
        box = QRectF(self.rect()).adjusted(0, 8, 0, -8)
        stem, tip = (box.left(), box.right() - 4) if self.at == "right" else (box.right(), box.left() + 4)
        needle = QPainterPath(QPointF(stem, box.top()))
        needle.quadTo(QPointF(tip, box.top() + box.height() * 0.12), QPointF(tip, box.center().y()))
        needle.quadTo(QPointF(tip, box.bottom() - box.height() * 0.12), QPointF(stem, box.bottom()))
        needle.closeSubpath()
        painter.setPen(QPen(colour, 4, Qt.PenStyle.DashLine if self.coming else Qt.PenStyle.SolidLine))
        painter.setBrush(Qt.BrushStyle.NoBrush if self.coming else colour)
        painter.drawPath(needle)
        painter.setPen(colour if self.coming else QColor(self.theme.paper))
        painter.setFont(font(76, bold=True))
        middle = box.center().y()
        painter.drawText(
            QRectF(box.left(), middle - 80, box.width(), 110),
            Qt.AlignmentFlag.AlignCenter,
            self.side[0].upper(),
        )
        painter.setFont(font(19, bold=True))
        painter.drawText(
            QRectF(box.left(), middle + 30, box.width(), 34), Qt.AlignmentFlag.AlignCenter, self.side.upper()
        )


def fullness(here: Moment) -> float:
    """How full of breath somebody is at a moment, 0 to 1; 0 where no breath is told."""
    if here.span is None:
        return 0.0
    eased = here.phase * here.phase * (3 - 2 * here.phase)  # a breath begins and ends softly
    return {"inhale": eased, "full": 1.0, "exhale": 1.0 - eased, "empty": 0.0}[here.span.phase]


class Pacer(Face):
    """The breath as one needle: it fills from the stem as the breath comes in, and empties as it goes out.

    A full hold is a filled needle whose rim runs out; an empty hold the same of an empty one. Where no breath
    is told, a line along it shows how much of the movement is gone.
    """

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.moment: Moment | None = None
        self.setMinimumHeight(96)
        self.setAccessibleName("Breath")

    def show_moment(self, here: Moment) -> None:
        """Another moment."""
        self.moment = here
        self.update()

    def needle(self) -> QPainterPath:
        """Its outline, the stem at the left."""
        box = QRectF(self.rect()).adjusted(6, 8, -6, -8)
        middle = box.center().y()
        path = QPainterPath(QPointF(box.left(), middle - box.height() * 0.16))
        path.cubicTo(
            QPointF(box.left() + box.width() * 0.25, box.top()),
            QPointF(box.right() - box.width() * 0.2, box.top()),
            QPointF(box.right(), middle),
        )
        path.cubicTo(
            QPointF(box.right() - box.width() * 0.2, box.bottom()),
            QPointF(box.left() + box.width() * 0.25, box.bottom()),
            QPointF(box.left(), middle + box.height() * 0.16),
        )
        path.closeSubpath()
        return path

    def filled(self) -> float:
        """How full it is, 0 to 1."""
        return fullness(self.moment) if self.moment is not None else 0.0

    def paintEvent(self, event: QPaintEvent) -> None:
        here = self.moment
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        needle = self.needle()
        side = here.segment.side if here is not None and here.segment is not None else "both"
        colour = side_colour(self.theme, side)
        breathing = here is not None and here.span is not None
        painter.setPen(Qt.PenStyle.NoPen)
        box = needle.boundingRect()
        if breathing:
            painter.save()
            painter.setClipRect(QRectF(box.left(), box.top(), box.width() * self.filled(), box.height()))
            painter.setBrush(colour)
            painter.drawPath(needle)
            painter.restore()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        holds = (
            breathing and here is not None and here.span is not None and here.span.phase in ("full", "empty")
        )
        rim = QColor(self.theme.aril) if holds else colour if breathing else QColor(self.theme.line)
        painter.setPen(QPen(rim, 7 if holds else 3))
        painter.drawPath(needle)
        if here is not None and here.segment is not None and not breathing:
            gone = 1.0 - here.left / max(1, here.segment.length)
            middle = box.center().y()
            painter.setPen(QPen(QColor(self.theme.bark), 5, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(
                QPointF(box.left() + 4, middle), QPointF(box.left() + 4 + (box.width() - 12) * gone, middle)
            )


class GoingBy(Face):
    """The whole class as a small sprig, and the moment moving down it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__(theme)
        self.setFixedWidth(112)
        self.setAccessibleName("The class, and where it is")
        self._take: Take | None = None
        self._picture: QPixmap | None = None
        self._y = -1.0

    def show_take(self, take: Take) -> None:
        """Another class, or the same as it goes otherwise."""
        self._take, self._picture = take, None
        self.update()

    def set_theme(self, theme: Theme) -> None:
        self._picture = None
        super().set_theme(theme)

    def show_at(self, at: float) -> None:
        """The moment, in ticks."""
        y = round(self._y_of(at), 1)
        if y != self._y:
            old, self._y = self._y, y
            for one in (old, y):
                self.update(0, int(one) - 12, self.width(), 24)

    def resizeEvent(self, event: object) -> None:
        self._picture = None

    def _box(self) -> QRectF:
        return QRectF(16, 26, self.width() - 32, self.height() - 52)

    def _y_of(self, at: float) -> float:
        take, box = self._take, self._box()
        if take is None:
            return box.top()
        length = max(1, max(take.end, take.target) - take.start)
        return box.top() + box.height() * min(1.0, max(0.0, (at - take.start) / length))

    def paintEvent(self, event: QPaintEvent) -> None:
        take = self._take
        if take is None:
            return
        if self._picture is None:
            self._picture = self._painted(take)
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.drawPixmap(0, 0, self._picture)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self.theme.aril))
        painter.drawRoundedRect(QRectF(6, self._y - 2, self.width() - 12, 4), 2, 2)
        painter.drawEllipse(QPointF(8, self._y), 7, 7)

    def _painted(self, take: Take) -> QPixmap:
        ratio = self.devicePixelRatioF()
        picture = QPixmap(self.size() * ratio)
        picture.setDevicePixelRatio(ratio)
        picture.fill(QColor(self.theme.ground))
        painter = QPainter(picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        end = max(take.end, take.target)
        strokes = strokes_of(take.segments, take.start, end)
        paint_thumbnail(painter, self._box(), Thumbnail("", 0.0, "", strokes), self.theme)
        y = self._y_of(take.target)
        painter.setPen(QPen(QColor(self.theme.soft), 2))
        painter.drawLine(QPointF(24, y), QPointF(self.width() - 24, y))
        painter.end()
        return picture


WRAPPED = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag(Qt.TextFlag.TextWordWrap)
SIZES = (
    56.0,
    50.0,
    46.0,
    42.0,
    38.0,
    34.0,
    30.0,
    26.0,
    24.0,
    22.0,
    20.0,
    18.0,
    15.0,
    13.0,
    11.0,
    9.0,
)  # points


class LineFace(Face):
    """Words as large as their room lets them be."""

    def __init__(self, theme: Theme, largest: float, soft: bool = False) -> None:
        super().__init__(theme)
        self.largest, self.soft, self.text = largest, soft, ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def say(self, text: str) -> None:
        """Other words."""
        if text != self.text:
            self.text = text
            self.setAccessibleName(text)
            self.update()

    def _points(self) -> float:
        """The size at which the words have room."""
        box = self.rect()
        for size in (one for one in SIZES if one <= self.largest):
            metrics = QFontMetricsF(font(size, bold=not self.soft))
            if metrics.boundingRect(QRectF(box), WRAPPED, self.text).height() <= box.height():
                return size
        return SIZES[-1]

    def pixels(self) -> float:
        """How high a line of the words is."""
        return QFontMetricsF(font(self._points(), bold=not self.soft)).height()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setFont(font(self._points(), bold=not self.soft))
        painter.setPen(QColor(self.theme.soft if self.soft else self.theme.ink))
        painter.drawText(QRectF(self.rect()), WRAPPED, self.text)
