"""The picture of the film at a moment, with what lies over it, as it will be seen."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from yewhour.ui.kit.film.painter import FilmPainter, lay_on
from yewhour.ui.kit.theme import Theme, font
from yewhour.voice.film.preview import SmallPicture

WIDE, HIGH = 560, 315


class FilmPicture(QWidget):
    """One picture, in the middle of what room there is."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.image: QImage | None = None
        self.words = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(150)
        self.setAccessibleName("The picture there")

    def sizeHint(self) -> QSize:
        return QSize(WIDE, HIGH)

    def say(self, words: str) -> None:
        """Words in place of a picture."""
        self.image, self.words = None, words
        self.update()

    def show_picture(self, one: SmallPicture, painter: FilmPainter | None, at_s: float) -> None:
        """A picture of the camera's, and what lies over it at a second of the film."""
        image = QImage(one.pixels, one.wide, one.high, 3 * one.wide, QImage.Format.Format_RGB888).copy()
        if painter is not None:
            lay_on(image, painter(at_s))
        self.image = image
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if self.image is None:
            painter.setPen(QColor(self.theme.soft))
            painter.setFont(font(11.0))
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            painter.drawText(QRectF(self.rect()), flags, self.words)
            return
        size = QSize(self.image.size()).scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
        left, top = (self.width() - size.width()) / 2, (self.height() - size.height()) / 2
        painter.drawImage(QRectF(left, top, size.width(), size.height()), self.image)
