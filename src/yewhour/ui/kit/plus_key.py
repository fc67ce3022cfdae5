"""Ctrl with the plus or minus key, with Shift or without, on every layout.

Where plus is on a shifted key, Ctrl+Shift++ and Ctrl++ are one stroke to Qt, which then does neither. Here
the stroke counts: the key that bears plus, without Shift or with it.
"""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

DIGITS = range(10, 20)  # where the row of digits sends from, by the code of an X server's key
_KEY = Qt.Key


def plus_command(event: QKeyEvent) -> str:
    """The name of the deed that a stroke of plus or minus is for, or ""."""
    held = event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
    shift = Qt.KeyboardModifier.ShiftModifier
    if held & ~shift != Qt.KeyboardModifier.ControlModifier:
        return ""
    key = _KEY(event.key())
    shifted = bool(held & shift)
    if shifted and event.nativeScanCode() in DIGITS:
        shifted = False  # plus is only there with Shift, on a digit
    if key == _KEY.Key_Plus or (key == _KEY.Key_Equal and not shifted):
        return "larger_text" if shifted else "closer"
    if shifted and key in (_KEY.Key_Equal, _KEY.Key_Asterisk):
        return "larger_text"
    if key == _KEY.Key_Minus or (shifted and key == _KEY.Key_Underscore):
        return "smaller_text" if shifted else "further"
    return ""
