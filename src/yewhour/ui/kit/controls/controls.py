"""Controls that the pages are made of: headings, chips, steppers, rows of buttons."""

from __future__ import annotations

from collections.abc import Callable
from html import escape

from PySide6.QtCore import QEvent, QObject, QPoint, QRect, QSize, Qt, Signal
from PySide6.QtGui import QFontMetrics, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QLayout,
    QLayoutItem,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from yewhour.ui.kit.theme import scale


def label(words: str, name: str = "") -> QLabel:
    """A line of text; `name` is how the style knows it (heading, prompt, soft, big, reading)."""
    text = QLabel(words)
    text.setObjectName(name)
    text.setWordWrap(True)
    text.setTextFormat(Qt.TextFormat.PlainText)
    return text


ARROWS = (Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Right)


def plain_tip(words: str) -> str:
    """A tool tip that shows words as they are: Qt takes some for rich text."""
    return f"<qt>{escape(words)}</qt>" if "<" in words else words


class Press(QPushButton):
    """A button that Enter presses too, wherever it stands. Arrows go on from it only by themselves."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        elif event.key() in ARROWS and event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier:
            event.ignore()  # Alt and an arrow is something else
        else:
            super().keyPressEvent(event)


def button(words: str, do: Callable[[], object], about: str = "", name: str = "small") -> QPushButton:
    """A button that does something."""
    press = Press(words.replace("&", "&&"))
    press.setObjectName(name)
    press.setAutoDefault(False)
    press.clicked.connect(lambda: do())
    if about:
        press.setToolTip(plain_tip(about))
        press.setAccessibleDescription(about)
    return press


def row(*widgets: QWidget, stretch: bool = True) -> QHBoxLayout:
    """Widgets side by side."""
    layout = QHBoxLayout()
    layout.setContentsMargins(0, 0, 0, 0)
    layout.setSpacing(8)
    for widget in widgets:
        layout.addWidget(widget)
    if stretch:
        layout.addStretch(1)
    return layout


class _Calm(QObject):
    """Keeps a value from being turned by the wheel that only meant to move the page."""

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Wheel and isinstance(watched, QWidget) and not watched.hasFocus():
            event.ignore()
            return True
        return False


_CALM = _Calm()


def calm(widget: QWidget) -> None:
    """The wheel changes this only while it has the focus."""
    widget.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
    widget.installEventFilter(_CALM)


def quiet(words: str) -> QLabel:
    """A few quieter words, on one line."""
    text = label(words, "soft")
    text.setWordWrap(False)
    return text


def wrapped(*widgets: QWidget) -> QLayout:
    """Widgets side by side, in as many lines as they need."""
    layout = Wrapping(8)
    for widget in widgets:
        layout.addWidget(widget)
    return layout


def page() -> tuple[QScrollArea, QVBoxLayout]:
    """A page that scrolls when it has to, and the layout to fill it by."""
    area = QScrollArea()
    area.setObjectName("page")
    area.setWidgetResizable(True)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    inside = QWidget()
    layout = QVBoxLayout(inside)
    layout.setContentsMargins(20, 14, 20, 20)
    layout.setSpacing(8)
    area.setWidget(inside)
    return area, layout


def emptied(layout: QLayout) -> None:
    """Takes everything out of a layout."""
    while (item := layout.takeAt(0)) is not None:
        widget, inner = item.widget(), item.layout()
        if widget is not None:
            widget.hide()
            widget.deleteLater()
        elif inner is not None:
            emptied(inner)


SMALLEST = 0.7  # of its size, before a line is cut
STEPS = 8  # from the whole size to the smallest


class OneLine(QLabel):
    """Words on one line, smaller where there is little room, then without their last sentences, and cut with
    dots where there is none; all of them in its tip."""

    def __init__(self) -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)

    def minimumSizeHint(self) -> QSize:
        return QSize(60, super().minimumSizeHint().height())

    def sizeHint(self) -> QSize:
        return QSize(super().sizeHint().width() + 4, super().sizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(self.palette().color(self.foregroundRole()))
        text, smaller = self.text(), self.font()
        whole_pt = smaller.pointSizeF()
        smaller.setPointSizeF(whole_pt * SMALLEST)
        while QFontMetrics(smaller).horizontalAdvance(text) > self.width() and ". " in text:
            text = text[: text.rindex(". ") + 1]
        sizes = [whole_pt * (1 - step / STEPS * (1 - SMALLEST)) for step in range(STEPS)]
        painter.setFont(smaller)
        for size_pt in sizes:  # a letter's width is no even share of its size
            smaller.setPointSizeF(size_pt)
            if QFontMetrics(smaller).horizontalAdvance(text) <= self.width():
                painter.setFont(smaller)
                break
        shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, self.width())
        self.setToolTip(plain_tip(self.text()) if shown != self.text() else "")
        painter.drawText(self.rect(), self.alignment(), shown)


class Wrapping(QLayout):
    """Widgets in lines, as words in a paragraph."""

    def __init__(self, gap: int = 6) -> None:
        super().__init__()
        self._gap = gap
        self._items: list[QLayoutItem] = []

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._arrange(QRect(0, 0, width, 0), False)

    def setGeometry(self, box: QRect) -> None:
        super().setGeometry(box)
        self._arrange(box, True)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        widest = max((item.minimumSize().width() for item in self._items), default=0)
        return QSize(widest, max((item.sizeHint().height() for item in self._items), default=0))

    def _arrange(self, box: QRect, really: bool) -> int:
        """Lines of items, each in the middle of its line; the height they take."""
        y, line, used = box.y(), list[tuple[QLayoutItem, QSize]](), 0

        def put() -> int:
            tallest = max((size.height() for _, size in line), default=0)
            x = box.x()
            for item, size in line if really else ():
                item.setGeometry(QRect(QPoint(x, y + (tallest - size.height()) // 2), size))
                x += size.width() + self._gap
            return tallest

        for item in self._items:
            size = item.sizeHint()
            size.setWidth(min(size.width(), max(40, box.width())))
            if line and used + size.width() > box.width():
                y += put() + self._gap
                line, used = [], 0
            line.append((item, size))
            used += size.width() + self._gap
        return y + put() - box.y()


class Stepper(QWidget):
    """A number between a minus and a plus, large enough to hit from a mat."""

    less = Signal()
    more = Signal()

    def __init__(self, name: str) -> None:
        super().__init__()
        self.words = label("", "big")
        self.words.setWordWrap(False)
        self.words.setAlignment(Qt.AlignmentFlag.AlignCenter)
        side = round(36 * scale())
        self.minus, self.plus = Press("−"), Press("+")
        for press, sign, message in ((self.minus, self.less, "fewer"), (self.plus, self.more, "more")):
            press.setObjectName("small")
            press.setFixedSize(side, side)
            press.setAccessibleName(f"{name}: one {message}")
            press.clicked.connect(sign)
        layout = row(self.minus, self.words, self.plus)
        self.setLayout(layout)

    def show_words(self, words: str) -> None:
        """The number and what it counts."""
        self.words.setText(words)


def card(severity: str = "") -> tuple[QFrame, QVBoxLayout]:
    """A small framed note."""
    frame = QFrame()
    frame.setObjectName("card")
    frame.setProperty("severity", severity)
    layout = QVBoxLayout(frame)
    layout.setContentsMargins(12, 8, 12, 8)
    layout.setSpacing(5)
    return frame, layout
