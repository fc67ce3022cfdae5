"""Ctrl with plus and minus on the layouts there are, and from wherever one is."""

import pytest
from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtTest import QTest

from yewhour.ui.kit import theme as look
from yewhour.ui.kit.plus_key import plus_command

KEY, CTRL, SHIFT = Qt.Key, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier
KEYPAD, NONE = Qt.KeyboardModifier.KeypadModifier, Qt.KeyboardModifier.NoModifier


@pytest.mark.parametrize(
    ("key", "held", "code", "command"),
    [
        (KEY.Key_Equal, CTRL, 21, "closer"),  # plus above =
        (KEY.Key_Plus, CTRL | SHIFT, 21, "larger_text"),
        (KEY.Key_Minus, CTRL, 20, "further"),
        (KEY.Key_Underscore, CTRL | SHIFT, 20, "smaller_text"),
        (KEY.Key_Plus, CTRL, 35, "closer"),  # plus on a key of its own, below *
        (KEY.Key_Asterisk, CTRL | SHIFT, 35, "larger_text"),
        (KEY.Key_Minus, CTRL, 61, "further"),
        (KEY.Key_Plus, CTRL | SHIFT, 10, "closer"),  # plus on the 1
        (KEY.Key_Plus, CTRL | KEYPAD, 86, "closer"),
        (KEY.Key_Plus, CTRL | SHIFT | KEYPAD, 86, "larger_text"),
        (KEY.Key_Plus, NONE, 35, ""),
        (KEY.Key_Plus, CTRL | Qt.KeyboardModifier.AltModifier, 35, ""),
        (KEY.Key_E, CTRL, 26, ""),
        (KEY.Key_Asterisk, CTRL, 51, ""),
    ],
)
def test_the_stroke_counts(key, held, code, command):
    assert plus_command(QKeyEvent(QEvent.Type.KeyPress, key, held, code, 0, 0)) == command


def test_text_grows_and_shrinks_from_the_sprig_and_from_a_field(desk):
    for place in (desk.window.sprig, desk.window.finder.field):
        place.setFocus()
        QTest.keyClick(place, KEY.Key_Plus, CTRL | SHIFT)
        desk.settle()
        assert look.scale() > 1
        QTest.keyClick(place, KEY.Key_Underscore, CTRL | SHIFT)
        desk.settle()
        assert look.scale() == 1
        before = desk.window.sprig.scene.y_at(600)
        QTest.keyClick(place, KEY.Key_Equal, CTRL)
        assert desk.window.sprig.scene.y_at(600) != before
        QTest.keyClick(place, KEY.Key_Minus, CTRL)
        assert desk.window.sprig.scene.y_at(600) == pytest.approx(before)
