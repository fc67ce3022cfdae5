"""The knocks: two on the floor, or two claps, heard while a take goes on."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QObject, Signal

from yewhour.voice.devices.recorder import Microphone
from yewhour.voice.recognition.knocks import KnockListener
from yewhour.voice.sound.shipped_voice import Samples

RATE = 16000


class KnockFollower(QObject):
    """Listens to a microphone, or to what it is fed. heard: two knocks, in the thread of its receiver."""

    heard = Signal()

    def __init__(self, on_message: Callable[[str], object], device: str = "") -> None:
        super().__init__()
        self.rate = RATE
        self._listener = KnockListener(RATE)
        self.microphone = Microphone(self, on_message, device) if device != "fed" else None

    def add(self, block: Samples) -> None:
        """Sound at `rate`, the next after what came before; from the device's thread."""
        for _ in self._listener.hear(block):
            self.heard.emit()

    def close(self) -> None:
        """There is no more. The microphone calls this too."""

    def stop(self) -> None:
        """Lets go of the microphone."""
        if self.microphone is not None:
            self.microphone.close()
