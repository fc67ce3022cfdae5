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
    made = row(words, *widgets, stretch=False)
    made.setAlignment(words, Qt.AlignmentFlag.AlignTop)
    made.setStretch(max(stretch, 0) + 1, 1)
    return made


def spin_box(low: float, high: float, step: float, decimals: int, suffix: str, name: str) -> QDoubleSpinBox:
    """A number that is put in when it is whole, not letter by letter."""
    made = QDoubleSpinBox()
    made.setRange(low, high)
    made.setSingleStep(step)
    made.setDecimals(decimals)
    made.setSuffix(suffix)
    made.setAccessibleName(name)
    made.setKeyboardTracking(False)
    made.lineEdit().setTextMargins(round(6 * scale()), 0, 0, 0)
    calm(made)
    return made
