"""A sentence in large type, whose words that can be changed are marked.

Each is a button: pressed, it opens its choices below. What is no word to change is plain text between them.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFont, QFontMetrics, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QLabel, QSizePolicy, QVBoxLayout, QWidget

from yewhour.ui.kit.controls.controls import Press, Wrapping, plain_tip
from yewhour.ui.kit.theme import Theme, font, scale

SIZE, MOST = 17.0, 1.35  # points; and how much larger it gets at most, as it is large already
SentencePart = tuple[str, str, str]  # key, what it is for a reader, what stands behind it


def large(bold: bool = False) -> QFont:
    """The font of the sentence."""
    return font(SIZE * min(MOST, scale()) / scale(), bold)


class SentenceWord(Press):
    """One word, or a few, that can be changed. What stands behind it belongs to the sentence."""

    def __init__(self, key: str, prompt: str, tail: str, theme: Theme) -> None:
        super().__init__("")
        self.key, self.prompt, self.tail, self.theme = key, prompt, tail, theme
        self.setObjectName("word")
        self.setCheckable(True)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def put(self, words: str) -> None:
        """Says other words."""
        if words != self.text():
            self.setText(words)
            self.updateGeometry()
        self.setAccessibleName(f"{self.prompt}: {words}")
        self.setToolTip(plain_tip(words))

    def sizeHint(self) -> QSize:
        measures = _measures()
        width = measures.horizontalAdvance(self.text()) + _plain().horizontalAdvance(self.tail)
        return QSize(width + round(8 * scale()), measures.height() + round(8 * scale()))

    def minimumSizeHint(self) -> QSize:
        return QSize(60, self.sizeHint().height())  # a long word is cut where there is no room

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        edge = 4 * scale()
        tail = _plain().horizontalAdvance(self.tail)
        room = QRectF(self.rect()).adjusted(1, 1, -1 - tail, -1)
        if self.isChecked() or self.underMouse():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(self.theme.chosen))
            painter.drawRoundedRect(room, edge, edge)
        painter.setFont(large(True))
        painter.setPen(QColor(self.theme.accent))
        shown = _measures().elidedText(self.text(), Qt.TextElideMode.ElideRight, round(room.width() - edge))
        painter.drawText(room.adjusted(edge, 0, 0, -2), Qt.AlignmentFlag.AlignVCenter, shown)
        painter.setPen(QPen(QColor(self.theme.accent), 1.5 * scale(), Qt.PenStyle.DotLine))
        foot = room.bottom() - 3 * scale()
        painter.drawLine(QPointF(room.left() + edge, foot), QPointF(room.right() - edge / 2, foot))
        if self.hasFocus():
            painter.setPen(QPen(QColor(self.theme.focus), 2 * scale()))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(room, edge, edge)
        painter.setFont(large())
        painter.setPen(QColor(self.theme.ink))
        behind = QRectF(self.rect()).adjusted(self.width() - tail - 1, 1, 0, -3)
        painter.drawText(behind, Qt.AlignmentFlag.AlignVCenter, self.tail)


def _measures() -> QFontMetrics:
    return QFontMetrics(large(True))


def _plain() -> QFontMetrics:
    return QFontMetrics(large())


class Sentence(QWidget):
    """The words in a paragraph. `opened` tells the key of the word whose choices are wanted, "" for none."""

    opened = Signal(str)

    def __init__(self, name: str, parts: Sequence[str | SentencePart], theme: Theme) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.words: dict[str, SentenceWord] = {}
        self.labels: list[QLabel] = []
        layout = Wrapping(round(4 * scale()))
        for part in parts:
            if isinstance(part, str):
                for piece in part.split():
                    plain = QLabel(piece)
                    plain.setTextFormat(Qt.TextFormat.PlainText)
                    plain.setFont(large())
                    self.labels.append(plain)
                    layout.addWidget(plain)
                continue
            key, prompt, tail = part
            word = SentenceWord(key, prompt, tail, theme)
            word.clicked.connect(lambda _=False, key=key: self.opened.emit(key))
            self.words[key] = word
            layout.addWidget(word)
        self.parts = tuple(parts)
        inside = QVBoxLayout(self)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.addLayout(layout)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours and sizes."""
        for word in self.words.values():
            word.theme = theme
            word.updateGeometry()
        for plain in self.labels:
            plain.setFont(large())

    def put(self, words: Mapping[str, str]) -> None:
        """Says these words, by their key."""
        for key, said in words.items():
            self.words[key].put(said)
        whole = [part if isinstance(part, str) else words.get(part[0], "") + part[2] for part in self.parts]
        self.setAccessibleDescription(" ".join(whole))

    def show_open(self, key: str) -> None:
        """Marks the word whose choices are shown."""
        for name, word in self.words.items():
            word.setChecked(name == key)
            word.update()
