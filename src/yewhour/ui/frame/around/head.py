"""The head of the window: what is promised, the way to each station, and the export."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QPushButton, QWidget

from yewhour.ui.kit import theme as look
from yewhour.ui.kit.controls.controls import OneLine, button

EXPORT = "Export the script"


class Head(QWidget):
    """Title and promise at the left, stations (title and tip of each) at the right.

    wanted: the station of this number was pressed.
    """

    wanted = Signal(int)

    def __init__(self, stations: Sequence[tuple[str, str]]) -> None:
        super().__init__()
        self.title = OneLine()
        self.title.setObjectName("title")
        self.promise = OneLine()
        self.promise.setObjectName("promise")
        self.words = QBoxLayout(QBoxLayout.Direction.TopToBottom)
        self.words.setSpacing(2)
        self.words.addWidget(self.title, 1)
        self.words.addWidget(self.promise, 1)
        self.whole = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        self.whole.setContentsMargins(18, 6, 18, 8)
        self.whole.setSpacing(6)
        self.whole.addLayout(self.words, 1)
        head = QHBoxLayout()
        head.setSpacing(6)
        self.whole.addLayout(head)
        self.stations: list[QPushButton] = []
        for number, (title, tip) in enumerate(stations):
            press = button(title, partial(self.wanted.emit, number), tip, "station")
            press.setCheckable(True)
            self.stations.append(press)
            head.addWidget(press, 0, Qt.AlignmentFlag.AlignVCenter)
        head.addSpacing(10)
        self.export = QPushButton(EXPORT)
        self.export.setObjectName("accent")
        self.export.setAutoDefault(False)
        self.export.setAccessibleName(EXPORT)
        head.addWidget(self.export, 0, Qt.AlignmentFlag.AlignVCenter)

    def mark(self, here: int, able: Sequence[bool]) -> None:
        """Shows at which station the teacher is, -1 for none, and which can be gone to."""
        for number, press in enumerate(self.stations):
            press.setChecked(number == here)
            press.setEnabled(able[number])

    def dress(self, theme: look.Theme, roomy: bool) -> None:
        """Puts on the colours. Where there is little room the stations are below the title."""
        one, two = QBoxLayout.Direction.LeftToRight, QBoxLayout.Direction.TopToBottom
        self.whole.setDirection(one if roomy else two)
        self.words.setDirection(two if roomy else one)
        self.words.setSpacing(2 if roomy else 24)
        side = round(18 * look.scale())
        self.export.setIconSize(QSize(side, side))
        self.export.setIcon(look.icon("export", theme.on_accent))
        self.export.setText(EXPORT if roomy else "")
