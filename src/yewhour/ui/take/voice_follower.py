"""The follower: hears the teacher say her lines, and tells the words a moment after she has said them."""

from __future__ import annotations

import queue
import threading
from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, Signal

from yewhour.core.take.take import Take
from yewhour.voice.devices.recorder import Microphone
from yewhour.voice.recognition.recogniser import RATE, LineRecogniser, RecognisedWord
from yewhour.voice.sound.shipped_voice import Samples


class VoiceFollower(QObject):
    """Listens to a microphone, or to what it is fed. heard: a stretch of speech, by its number."""

    heard = Signal(int, list)
    message = Signal(str)

    def __init__(self, take: Take, device: str = "") -> None:
        super().__init__()
        self.rate = RATE
        self._blocks: queue.Queue[Samples | None] = queue.Queue()
        self._lines = [cue.text for cue in take.cues]
        self._thread = threading.Thread(target=self._listen, name="follower", daemon=True)
        self._thread.start()
        self.microphone: Any = None
        if device != "fed":
            self.microphone = Microphone(self, self.message.emit, device)

    def add(self, block: Samples) -> None:
        """Sound at `rate`, the next after what came before."""
        self._blocks.put(block)

    def wait(self) -> None:
        """Until all that was given is heard."""
        self._blocks.join()

    def close(self) -> None:
        """Ends it. The microphone calls this too."""
        if self._thread.is_alive():
            self._blocks.put(None)
            self._thread.join(timeout=5)

    def stop(self) -> None:
        """Lets go of the microphone and ends."""
        if self.microphone is not None:
            self.microphone.close()
        self.close()

    def _listen(self) -> None:
        listener = LineRecogniser(self._lines)
        emit: Callable[[int, list[RecognisedWord]], None] = self.heard.emit
        while True:
            block = self._blocks.get()
            for stretch in listener.hear(block) if block is not None else ():
                emit(stretch.number, stretch.words)
            self._blocks.task_done()
            if block is None:
                return
