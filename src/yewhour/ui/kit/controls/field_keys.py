"""The keys of a field: what it needs is its own, the rest is the window's."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit


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
        if control and (idle or event.key() in (Qt.Key.Key_E, Qt.Key.Key_K, Qt.Key.Key_D, Qt.Key.Key_Home)):
            event.ignore()
            return True
        return False


def with_field_keys(field: QLineEdit) -> QLineEdit:
    """The field, leaving to the window what it does not need."""
    field.installEventFilter(FieldKeys(field))
    return field
