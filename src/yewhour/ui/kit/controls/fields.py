"""Fields that the pages are made of: a prompt with what answers it, and numbers."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDoubleSpinBox, QLayout, QWidget

from yewhour.ui.kit.controls.controls import (
    calm,
    label,
    row,
    wrapped,
)
from yewhour.ui.kit.theme import scale


def prompted(prompt: str, *widgets: QWidget, stretch: int = -1) -> QLayout:
    """A prompt and what answers it; `stretch`: the widget that takes the room."""
    words = label(prompt, "prompt")
    words.setFixedWidth(round(104 * scale()))
    words.setContentsMargins(0, round(6 * scale()), 0, 0)
    if stretch < 0 and len(widgets) > 1:
        return wrapped(words, *widgets)
    line = row(words, *widgets, stretch=False)
    line.setAlignment(words, Qt.AlignmentFlag.AlignTop)
    line.setStretch(max(stretch, 0) + 1, 1)
    return line


def spin_box(low: float, high: float, step: float, decimals: int, suffix: str, name: str) -> QDoubleSpinBox:
    """A number that is put in when it is whole, not letter by letter."""
    box = QDoubleSpinBox()
    box.setRange(low, high)
    box.setSingleStep(step)
    box.setDecimals(decimals)
    box.setSuffix(suffix)
    box.setAccessibleName(name)
    box.setKeyboardTracking(False)
    box.lineEdit().setTextMargins(round(6 * scale()), 0, 0, 0)
    calm(box)
    return box
