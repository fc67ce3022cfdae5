import sys

from PySide6.QtGui import QFont


def test_a_call_into_qt_gives_back_every_reference_to_none():
    font = QFont()
    before = sys.getrefcount(None)
    for _ in range(1000):
        font.setItalic(True)
    assert abs(sys.getrefcount(None) - before) < 100
