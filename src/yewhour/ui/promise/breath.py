"""One breath as a small living picture, the pace tapped along, and the voice's rate read aloud."""

from __future__ import annotations

import time
from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QColor, QHideEvent, QPainter, QPainterPath, QPaintEvent, QPen, QShowEvent
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from yewhour.core.pace import tapped_rate
from yewhour.core.problem import Problem
from yewhour.core.wording.speech import read_rate
from yewhour.ui.kit.controls.controls import label, row
from yewhour.ui.kit.theme import Theme, font, scale

FRAME_MS = 40
TAPPING_S = 30.0
PHASE_NAMES = ("in", "hold", "out", "hold")
PARAGRAPH = (
    "Stand with your feet under your hips, and let your arms hang. Breathe in, and lift both arms as high "
    "as they will go. Breathe out, and bring them down again. Once more: in, and up; out, and down. "
    "Now step your right foot back, bend your left knee, and rest your hands on your thigh. "
    "Stay here for three breaths."
)


class BreathPicture(QWidget):
    """A hill that is one breath: up the inhale, along the hold, down the exhale; a dot goes over it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.rate_bpm = 8.0
        self.ratio = (4.0, 0.0, 4.0, 0.0)
        self._started = time.monotonic()
        self._timer = QTimer(self)
        self._timer.setInterval(FRAME_MS)
        self._timer.timeout.connect(self.update)
        self.setFixedHeight(round(92 * scale()))
        self.setAccessibleName("One breath")

    def sizeHint(self) -> QSize:
        return QSize(300, round(92 * scale()))

    def set_pace(self, rate_bpm: float, ratio: tuple[float, float, float, float]) -> None:
        """Breathes at another pace."""
        self.rate_bpm, self.ratio = rate_bpm, ratio
        lengths = [
            f"{seconds:.1f} s {name}"
            for name, seconds in zip(PHASE_NAMES, self._seconds(), strict=True)
            if seconds
        ]
        self.setAccessibleDescription(", ".join(lengths))
        self.update()

    def _seconds(self) -> list[float]:
        whole = 60.0 / self.rate_bpm
        return [whole * share / sum(self.ratio) for share in self.ratio]

    def showEvent(self, event: QShowEvent) -> None:
        self._timer.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._timer.stop()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        low, high = self.height() - 26 * scale(), 14.0
        wide, seconds = self.width() - 20.0, self._seconds()
        whole = sum(seconds)
        x, up, path = 10.0, False, QPainterPath(QPointF(10.0, low))
        painter.setFont(font(9.8))
        painter.setPen(QColor(self.theme.soft))
        for number, (name, length) in enumerate(zip(PHASE_NAMES, seconds, strict=True)):
            end = x + wide * length / whole
            if number % 2 == 0:
                up = number == 0
                to = high if up else low
                path.cubicTo(
                    QPointF((x + end) / 2, path.currentPosition().y()),
                    QPointF((x + end) / 2, to),
                    QPointF(end, to),
                )
            else:
                path.lineTo(end, path.currentPosition().y())
            if length:
                box = QRectF(x, low + 4, end - x, 20 * scale())
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, f"{name} {length:.1f}")
            x = end
        painter.setPen(QPen(QColor(self.theme.both), 3))
        painter.drawPath(path)
        at = ((time.monotonic() - self._started) % whole) / whole
        point = self._point(path, 10.0 + wide * at)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self.theme.aril))
        painter.drawEllipse(point, 6 * scale(), 6 * scale())

    @staticmethod
    def _point(path: QPainterPath, x: float) -> QPointF:
        """The point of the hill at an x; the hill never goes back."""
        low, high = 0.0, 1.0
        for _ in range(18):
            middle = (low + high) / 2
            low, high = (middle, high) if path.pointAtPercent(middle).x() < x else (low, middle)
        return path.pointAtPercent(low)


class TapAlong(QWidget):
    """A button to be tapped at the start of each inhale; after half a minute, the pace is taken from it."""

    taken = Signal(float)  # breaths a minute

    def __init__(self) -> None:
        super().__init__()
        self.taps_s: list[float] = []
        self.now = time.monotonic
        self.tap_button = QPushButton("Tap each inhale")
        self.tap_button.setObjectName("small")
        self.tap_button.setToolTip("Tap, or press Space, at the start of each inhale for half a minute.")
        self.tap_button.pressed.connect(self.tap)
        self.said = label("Breathe as in class, and tap at the start of each inhale.", "soft")
        self._end = QTimer(self)
        self._end.setSingleShot(True)
        self._end.timeout.connect(self.take)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(row(self.tap_button))
        layout.addWidget(self.said)

    def tap(self) -> None:
        """One inhale begins."""
        if not self.taps_s:
            self._end.start(round(TAPPING_S * 1000))
        self.taps_s.append(self.now())
        if self.taps_s[-1] - self.taps_s[0] >= TAPPING_S:
            self.take()
            return
        left = TAPPING_S - (self.taps_s[-1] - self.taps_s[0])
        words = f"{len(self.taps_s)} inhales, {left:.0f} s to go"
        if len(self.taps_s) > 3:
            try:
                words += f": about {tapped_rate(self.taps_s):g} a minute"
            except Problem:
                words += ": that is quicker than anybody breathes"
        self.said.setText(words)

    def take(self) -> None:
        """Takes the pace from the taps so far."""
        taps, self.taps_s = self.taps_s, []
        self._end.stop()
        try:
            rate = tapped_rate(taps)
        except Problem as problem:
            self.said.setText(str(problem))
            return
        self.said.setText(f"{rate:g} breaths a minute, from {len(taps)} inhales.")
        self.taken.emit(rate)


class ReadAloud(QWidget):
    """A paragraph to read aloud; the time it takes gives the teacher's rate."""

    taken = Signal(float)

    def __init__(self, seconds_of: Callable[[str], float]) -> None:
        super().__init__()
        self.seconds_of = seconds_of
        self.now = time.monotonic
        self._started = 0.0
        self.paragraph = label(PARAGRAPH, "reading")
        self.paragraph.setVisible(False)
        self.press_button = QPushButton("Read a paragraph aloud")
        self.press_button.setObjectName("small")
        self.press_button.setToolTip(
            "Press, read it as you would in class, and press again when you are done."
        )
        self.press_button.clicked.connect(self.press)
        self.said = label("", "soft")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(row(self.press_button))
        layout.addWidget(self.paragraph)
        layout.addWidget(self.said)

    def press(self) -> None:
        """Shows the paragraph and starts; pressed again, takes the rate."""
        if not self.paragraph.isVisible():
            self.paragraph.setVisible(True)
            self._started = self.now()
            self.press_button.setText("Done reading")
            self.said.setText("Read it now, as you would in class.")
            return
        self.paragraph.setVisible(False)
        self.press_button.setText("Read a paragraph aloud")
        try:
            rate = read_rate(self.seconds_of(PARAGRAPH), self.now() - self._started)
        except Problem as problem:
            self.said.setText(str(problem))
            return
        self.said.setText(f"Your voice is {rate:g} times the usual one.")
        self.taken.emit(rate)
