"""Circles of objects are thrown away on the interface's thread alone.

Python looks for circles on whatever thread happens to make an object. Where that is a thread beside the
interface, and there is an object of Qt in a circle, Qt takes it away holding a lock of its own while it
waits for Python, and the interface holds Python while it waits for that lock: both wait for ever. So looking
is off, and done here.
"""

import gc

from PySide6.QtCore import QObject, QTimer

EVERY_MS = 500


def collect_here() -> None:
    """Looks for circles as far as Python would: the young often, the old seldom. On the calling thread."""
    young, middle, old = gc.get_count()
    most_young, most_middle, most_old = gc.get_threshold()
    if middle > most_middle:
        gc.collect(2 if old > most_old else 1)
    elif young > most_young:
        gc.collect(0)


class GarbageTimer(QTimer):
    """Looks for circles now and then, while events are handled. Made and started on the interface's
    thread."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        gc.disable()
        self.setInterval(EVERY_MS)
        self.timeout.connect(collect_here)
        self.start()
