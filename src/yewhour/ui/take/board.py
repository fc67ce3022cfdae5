"""The board of the take station: where everything stands on it, and in which size and colour."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from yewhour.ui.kit.theme import (
    DARK,
    DIM,
    LIGHT,
    Theme,
    font,
    scale,
)
from yewhour.ui.take.faces import (
    Face,
    GoingBy,
    LineFace,
    Pacer,
    SideBand,
)
from yewhour.ui.take.figures import FigureFace

USUAL = (1120, 700)  # pixels that the sizes below are meant for, at the usual text size
LEAST, SMALL = 0.4, 14.0  # the share of its size that large type may come down to; points of small type


class TakeBoard(QWidget):
    """Each thing has a place of its own, so that nothing jumps."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = self._given = theme
        self._standing = False  # the whole screen shows that nothing goes on
        self._light = 0  # lighter or darker than the window, round and round
        self.setObjectName("page")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._build()

    def _build(self) -> None:
        self.going = GoingBy(self.theme)
        self.bands = {"left": SideBand(self.theme, "left"), "right": SideBand(self.theme, "right")}
        self.name, self.clock = LineFace(self.theme, 34.0), QLabel()
        self.line, self.following = LineFace(self.theme, 56.0), LineFace(self.theme, 24.0, soft=True)
        self.pacer = Pacer(self.theme)
        self.figure, self.next_figure = FigureFace(self.theme), FigureFace(self.theme, small=True)
        self.phase, self.count, self.left_s, self.coming, self.late, self.hints = (QLabel() for _ in range(6))
        for one in (self.phase, self.count, self.left_s, self.coming, self.late, self.hints, self.clock):
            one.setTextFormat(Qt.TextFormat.PlainText)
        self.clock.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.left_s.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.coming.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        self.coming.setWordWrap(True)
        self.count.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.hints.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        for one in (self.late, self.hints):
            one.setWordWrap(True)
        for face in (
            self.pacer,
            self.figure,
            self.next_figure,
        ):  # a gap stays where they were
            kept = face.sizePolicy()
            kept.setRetainSizeWhenHidden(True)
            face.setSizePolicy(kept)
        top = QHBoxLayout()
        top.addWidget(self.name, 1)
        top.addWidget(self.clock)
        breath = QGridLayout()
        breath.addWidget(self.phase, 0, 0)
        breath.addWidget(self.count, 0, 1)
        breath.addWidget(self.pacer, 1, 0, 1, 2)
        breath.setColumnStretch(0, 1)
        breath.setRowStretch(1, 1)
        breath.setVerticalSpacing(0)
        change = QVBoxLayout()
        change.addStretch(1)
        left = QHBoxLayout()
        left.addWidget(self.next_figure, 2)
        left.addWidget(self.left_s, 3)
        change.addLayout(left)
        change.addWidget(self.coming)
        below = QHBoxLayout()
        below.setSpacing(36)
        below.addLayout(breath, 4)
        below.addWidget(self.figure, 3)
        below.addLayout(change, 4)
        middle = QVBoxLayout()
        middle.setSpacing(6)
        middle.addLayout(top, 3)
        middle.addWidget(self.line, 10)
        middle.addWidget(self.following, 5)
        middle.addLayout(below, 10)
        across = QHBoxLayout()
        across.setSpacing(18)
        across.addWidget(self.bands["left"])
        across.addLayout(middle, 1)
        across.addWidget(self.bands["right"])
        foot = QVBoxLayout()  # what is told has a line of its own: no hint cuts it
        foot.setSpacing(2)
        foot.addWidget(self.late)
        foot.addWidget(self.hints)
        main = QVBoxLayout()
        main.setContentsMargins(0, 14, 14, 10)
        main.addLayout(across, 1)
        main.addLayout(foot)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(10)
        whole.addWidget(self.going)
        whole.addLayout(main, 1)
        self.set_theme(self.theme)

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self._given = theme
        shades = (LIGHT, DARK, DIM) if theme is LIGHT else (DARK, DIM, LIGHT)
        self.theme = theme = shades[self._light]
        if self._standing:
            self.theme = theme = standing_still(theme)
        self.setStyleSheet(f"#page {{ background: {theme.paper}; }}")
        for face in self.findChildren(Face):
            face.set_theme(theme)
        self._size()

    def _size(self) -> None:
        """Every word as large as it is meant to be, or as there is room for on this screen."""
        theme = self.theme
        room = min(1.0, self.width() / (USUAL[0] * scale()), self.height() / (USUAL[1] * scale()))
        for one, size, colour in (
            (self.clock, 26.0, theme.ink), (self.phase, 38.0, theme.ink), (self.count, 38.0, theme.ink),
            (self.left_s, 84.0, theme.ink), (self.coming, 24.0, theme.soft), (self.late, 24.0, theme.ink),
            (self.hints, 20.0, theme.soft),
        ):  # fmt: skip
            size *= max(LEAST, room) if size > SMALL else 1.0
            one.setFont(font(size, bold=size > 25))
            one.setStyleSheet(f"color: {colour}; font-size: {font(size).pointSizeF():.1f}pt;")
        self.left_s.setFixedHeight(round(self.left_s.fontMetrics().height() * 0.95))
        self.coming.setFixedHeight(self.coming.fontMetrics().height() * 3)
        self.clock.setMinimumWidth(self.clock.fontMetrics().horizontalAdvance("0:00:00 to go"))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._size()

    def stand_out(self, standing: bool) -> None:
        """The whole screen in the colour of standing still, or not."""
        if standing != self._standing:
            self._standing = standing
            for face in (self.pacer, self.figure, self.next_figure):
                face.setVisible(not standing)
            self.set_theme(self._given)

    def next_light(self) -> None:
        """From light to dark to what a dark room can bear, and round again."""
        self._light = (self._light + 1) % 3
        self.set_theme(self._given)


def standing_still(theme: Theme) -> Theme:
    """A theme in which nobody takes a class that stands still for one that goes on: the bark, all over."""
    ground = {LIGHT: theme.bark, DARK: "#4a3a29", DIM: "#2e2419"}[theme]
    ink = theme.paper if theme is LIGHT else theme.ink
    return theme._replace(
        paper=ground, ground=ground, ink=ink, soft=ink, line=ink, right=ink, left=ink, both=ink
    )


def put(label: QLabel, text: str) -> None:
    """Sets a label's words where they are others."""
    if label.text() != text:
        label.setText(text)
