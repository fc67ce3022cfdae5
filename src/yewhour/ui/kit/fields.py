"""Fields that the pages are made of: a prompt with what answers it, and numbers."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QDoubleSpinBox, QLayout, QLineEdit, QWidget

from yewhour.ui.kit.controls import calm, label, row, wrapped
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
    calm(made)
    return made


class FieldKeys(QObject):
    """Leaves to the window the keys that a field does not need: Ctrl+E, and undo where nothing was typed."""

    def eventFilter(self, field: QObject, event: QEvent) -> bool:
        if event.type() != QEvent.Type.ShortcutOverride or not isinstance(field, QLineEdit):
            return False
        assert isinstance(event, QKeyEvent)
        control = event.modifiers() == Qt.KeyboardModifier.ControlModifier
        again = event.key() == Qt.Key.Key_Y
        idle = (event.key() == Qt.Key.Key_Z and not field.isUndoAvailable()) or (
            again and not field.isRedoAvailable()
        )
        if control and (idle or event.key() in (Qt.Key.Key_E, Qt.Key.Key_K, Qt.Key.Key_D)):
            event.ignore()
            return True
        return False


def with_field_keys(field: QLineEdit) -> QLineEdit:
    """The field, leaving to the window what it does not need."""
    field.installEventFilter(FieldKeys(field))
    return field
