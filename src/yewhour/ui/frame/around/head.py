"""The head of the window: what is promised, the way to each station, and the export."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

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
        words = QVBoxLayout()
        words.setSpacing(2)
        words.addWidget(self.title)
        words.addWidget(self.promise)
        head = QHBoxLayout(self)
        head.setContentsMargins(18, 6, 18, 8)
        head.setSpacing(6)
        head.addLayout(words, 1)
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
        """Puts on the colours; the words of the export only where there is room."""
        side = round(18 * look.scale())
        self.export.setIconSize(QSize(side, side))
        self.export.setIcon(look.icon("export", theme.on_accent))
        self.export.setText(EXPORT if roomy else "")
