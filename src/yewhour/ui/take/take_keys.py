"""What the keys do in a take: those it comes with, and those that were taught, as of a clicker or a pedal."""

from typing import NamedTuple

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QKeySequence

from yewhour.state.settings import change_settings, read_settings


class TakeCommand(NamedTuple):
    """What can be done in a take: its name in code, in words, and its keys."""

    name: str
    title: str
    keys: tuple[str, ...]


COMMANDS = (
    TakeCommand("stand", "start, stand still, go on", ("Space", "Return")),
    TakeCommand("next", "go on now", ("Right", "PgDown")),
    TakeCommand("again", "one more", ("Up", "PgUp")),
    TakeCommand("fewer", "one fewer", ("Down",)),
    TakeCommand("back", "back to its start", ("Left", "Backspace")),
    TakeCommand("skip", "leave it out", ("Del",)),
    TakeCommand("note", "note the moment", ("N",)),
    TakeCommand("voice", "a voice or signs in your ear", ("V",)),
    TakeCommand("microphone", "record the sound too", ("M",)),
    TakeCommand("waits", "the clock leads, I do, my voice does", ("L",)),
    TakeCommand("call", "do what I ask for aloud, or by two knocks", ("A",)),
    TakeCommand("rehearse", "rehearse, or a take", ("R",)),
    TakeCommand("speed", "half, double, or usual speed", ("S",)),
    TakeCommand("only", "all of it, or only some", ("O",)),
    TakeCommand("darker", "light, dark, darker", ("D",)),
    TakeCommand("teach", "teach a key", ("K",)),
    TakeCommand("leave", "stop, leave", ("Esc",)),
)
TITLES = {command.name: command.title for command in COMMANDS}
SHIPPED = {key: command.name for command in COMMANDS for key in command.keys}


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
        self.taught = dict(read_settings().take_keys)

    def command(self, key: str) -> str:
        """What a key does; "" for nothing."""
        return self.taught.get(key, SHIPPED.get(key, ""))

    def teach(self, key: str, command: str) -> None:
        """Lets a key do something from now on, in later takes too."""
        self.taught[key] = command
        if SHIPPED.get(key) == command:
            del self.taught[key]
        change_settings(take_keys=self.taught)
