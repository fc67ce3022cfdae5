"""What the keys do in a take: those it comes with, and those that were taught, as of a clicker or a pedal."""

from typing import NamedTuple

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QKeySequence

from yewhour.store.habits import change_habits, read_habits


class TakeDeed(NamedTuple):
    """What can be done in a take: its name in code, in words, and its keys."""

    name: str
    title: str
    keys: tuple[str, ...]


DEEDS = (
    TakeDeed("stand", "start, stand still, go on", ("Space", "Return")),
    TakeDeed("next", "go on now", ("Right", "PgDown")),
    TakeDeed("again", "one more", ("Up", "PgUp")),
    TakeDeed("fewer", "one fewer", ("Down",)),
    TakeDeed("back", "back to its start", ("Left", "Backspace")),
    TakeDeed("skip", "leave it out", ("Del",)),
    TakeDeed("note", "note the moment", ("N",)),
    TakeDeed("voice", "a voice or signs in your ear", ("V",)),
    TakeDeed("microphone", "record the sound too", ("M",)),
    TakeDeed("waits", "the clock leads, I do, my voice does", ("L",)),
    TakeDeed("rehearse", "rehearse, or a take", ("R",)),
    TakeDeed("speed", "half, double, or usual speed", ("S",)),
    TakeDeed("only", "all of it, or only some", ("O",)),
    TakeDeed("darker", "light, dark, darker", ("D",)),
    TakeDeed("teach", "teach a key", ("K",)),
    TakeDeed("leave", "stop, leave", ("Esc",)),
)
TITLES = {deed.name: deed.title for deed in DEEDS}
SHIPPED = {key: deed.name for deed in DEEDS for key in deed.keys}


def key_name(event: QKeyEvent) -> str:
    """What a key is called, whatever is held with it; "" for one that is only held."""
    if event.key() in (Qt.Key.Key_Shift, Qt.Key.Key_Control, Qt.Key.Key_Alt, Qt.Key.Key_Meta, 0):
        return ""
    if event.key() == Qt.Key.Key_Enter:
        return "Return"
    return QKeySequence(event.key()).toString()


class TakeKeys:
    """Keys and what they do. A taught key wins over one it came with."""

    def __init__(self) -> None:
        self.taught = dict(read_habits().take_keys)

    def deed(self, key: str) -> str:
        """What a key does; "" for nothing."""
        return self.taught.get(key, SHIPPED.get(key, ""))

    def teach(self, key: str, deed: str) -> None:
        """Lets a key do something from now on, in later takes too."""
        self.taught[key] = deed
        if SHIPPED.get(key) == deed:
            del self.taught[key]
        change_habits(take_keys=self.taught)
