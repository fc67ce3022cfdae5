"""What a file will look like: text in type of one width, a PDF as its pages."""

from __future__ import annotations

from typing import Any

import pypdfium2
from PySide6.QtCore import Qt
from PySide6.QtGui import QFont, QImage, QPixmap
from PySide6.QtWidgets import QLabel, QPlainTextEdit, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from yewhour.ui.kit.controls.controls import emptied
from yewhour.ui.kit.theme import fixed_font, scale

MOST_SHOWN = 30_000  # characters
MOST_PAGES = 30


class Preview(QStackedWidget):
    """Shows the content of a file that is not written yet."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("What will be written")
        self.text = QPlainTextEdit()
        self.text.setReadOnly(True)
        self.text.setAccessibleName("What will be written")
        self.text.setObjectName("fixed")
        self.text.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        type_ = QFont(fixed_font())
        type_.setPointSizeF(10 * scale())
        self.text.setFont(type_)
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setAccessibleName("The pages that will be written")
        inside = QWidget()
        self.pages = QVBoxLayout(inside)
        self.pages.setSpacing(round(10 * scale()))
        self.area.setWidget(inside)
        self.addWidget(self.text)
        self.addWidget(self.area)

    def show_text(self, content: bytes) -> None:
        """Text, as it will stand in the file; long text is cut."""
        shown = content.decode(errors="replace")
        cut = "\n…" if len(shown) > MOST_SHOWN else ""
        self.text.setPlainText(shown[:MOST_SHOWN] + cut)
        self.setCurrentWidget(self.text)

    def show_pages(self, content: bytes) -> None:
        """The pages of a PDF, or a picture, each as wide as there is room for."""
        emptied(self.pages)
        width = max(240, self.width() - round(50 * scale()))
        if not content.startswith(b"%PDF"):
            self._show_picture(QPixmap.fromImage(QImage.fromData(content)), width)
            return
        document = pypdfium2.PdfDocument(content)
        for number in range(min(len(document), MOST_PAGES)):
            page = document[number]
            bitmap = page.render(scale=width * self.devicePixelRatio() / page.get_width(), rev_byteorder=True)
            image = _image(bitmap)
            image.setDevicePixelRatio(self.devicePixelRatio())
            shown = QLabel()
            shown.setAlignment(Qt.AlignmentFlag.AlignHCenter)
            shown.setPixmap(QPixmap.fromImage(image))
            shown.setAccessibleName(f"Page {number + 1} of {len(document)}")
            self.pages.addWidget(shown)
        document.close()
        self._from_the_top()

    def _show_picture(self, picture: QPixmap, width: int) -> None:
        sharp = round(width * self.devicePixelRatio())
        picture = picture.scaledToWidth(sharp, Qt.TransformationMode.SmoothTransformation)
        picture.setDevicePixelRatio(self.devicePixelRatio())
        shown = QLabel()
        shown.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        shown.setPixmap(picture)
        shown.setAccessibleName("The picture")
        self.pages.addWidget(shown)
        self._from_the_top()

    def _from_the_top(self) -> None:
        self.area.verticalScrollBar().setValue(0)
        self.setCurrentWidget(self.area)


def _image(bitmap: Any) -> QImage:
    """A bitmap of the renderer as an image of its own."""
    kind = {3: QImage.Format.Format_RGB888, 4: QImage.Format.Format_RGBX8888}[bitmap.n_channels]
    return QImage(bytes(bitmap.buffer), bitmap.width, bitmap.height, bitmap.stride, kind).copy()
