"""Circles with objects of Qt in them are taken away on the interface's thread, and on no other."""

import gc
import threading
import weakref

from PySide6.QtCore import QObject

from yewhour.ui.frame.garbage import GarbageTimer


class Circle(QObject):
    """An object that holds itself."""

    def __init__(self):
        super().__init__()
        self.own = self


def test_a_circle_waits_for_the_interface_and_then_goes(qtbot):
    timer = GarbageTimer()
    try:
        assert not gc.isenabled()
        gone = weakref.ref(Circle())
        made = [[] for _ in range(5)]

        def busy():
            for _ in range(20_000):  # far more than Python would look after
                made[0] = [made[0][:0]]

        beside = threading.Thread(target=busy)
        beside.start()
        beside.join()
        assert gone() is not None
        keep = [[number] for number in range(5000)]
        qtbot.waitUntil(lambda: gone() is None, timeout=20_000)
        assert len(keep) == 5000
    finally:
        timer.stop()
