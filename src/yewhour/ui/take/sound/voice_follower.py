"""The follower: hears the teacher say her lines, and tells the words a moment after she has said them."""

from __future__ import annotations

import queue
from typing import Any

from PySide6.QtCore import QObject, Signal

from yewhour.background.jobs import Job
from yewhour.core.take.line_following import SAID_ACTS
from yewhour.core.take.take import Take
from yewhour.ui.kit.jobs import Jobs
from yewhour.voice.devices.recorder import Microphone
from yewhour.voice.recognition.recogniser import RATE, LineRecogniser
from yewhour.voice.sound.shipped_voice import Samples

LISTENING = "voice follower"
LOST = "The clock leads on; the key for who leads turns the hearing on again."


class VoiceFollower(QObject):
    """Listens to a microphone, or to what it is fed. heard: a stretch of speech, by its number. call: words
    behind which something may be asked for."""

    heard = Signal(int, list)
    message = Signal(str)

    def __init__(self, take: Take, jobs: Jobs, device: str = "", call: str = "") -> None:
        super().__init__()
        self.rate = RATE
        self._blocks: queue.Queue[Samples | None] = queue.Queue()
        self._lines, self._call = [cue.text for cue in take.cues], call
        self.jobs = jobs
        jobs.run(
            LISTENING, self._listen, doing="Hearing your voice", lost=LOST,
            failed=lambda problem: self.message.emit(str(problem)),
            progress=lambda heard: self.heard.emit(*heard),
            faulted=lambda fault: self.message.emit(str(fault)), owner=self,
        )  # fmt: skip
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
        self._blocks.put(None)

    def stop(self) -> None:
        """Lets go of the microphone and ends."""
        if self.microphone is not None:
            self.microphone.close()
        self.close()

    def _listen(self, job: Job) -> None:
        listener = LineRecogniser(self._lines, call=self._call, acts=tuple(SAID_ACTS))
        while True:
            block = self._blocks.get()
            try:
                for stretch in listener.hear(block) if block is not None else ():
                    job.progress((stretch.number, stretch.words))
            finally:
                self._blocks.task_done()
            if block is None:
                return
