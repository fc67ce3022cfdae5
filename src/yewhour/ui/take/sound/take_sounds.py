"""The sounds of a take: what is in the teacher's ear, what is recorded of her, what is heard of her words."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, Signal

from yewhour.content.terms import load_voice
from yewhour.core.take.take import Take
from yewhour.state.takes.take_sounds import sound_from, sounds_in
from yewhour.ui.take.take_runner import TakeRunner


class TakeSounds(QObject):
    """Each is made when it is first wanted; none of them stops a take.

    message: something to be read in the foot. device: that is played on and recorded from, "" for the usual.
    """

    message = Signal(str)

    def __init__(self, runner: TakeRunner) -> None:
        super().__init__()
        self.runner = runner
        self.device = ""
        self.records = False
        self.prompter: Any = None
        self.microphone: Any = None  # while sound is recorded
        self.follower: Any = None  # while her voice leads
        self._prompted: Take | None = None
        runner.begun.connect(self._begin)
        runner.over.connect(self._end)

    # --- in her ear ---------------------------------------------------------------------------------------

    def next_in_ear(self) -> None:
        """Something else in the ear."""
        if self.prompter is None:
            # The voice and its device, 100 ms to import, which a take without them does not need.
            from yewhour.ui.take.sound.ear_prompter import EarPrompter

            slower = {str(name): value for name, value in load_voice().slower.items()}
            self.prompter = EarPrompter(slower, self.runner.jobs, self.device)
            self.prompter.message.connect(self.message)
        self.prompter.next_choice(self.runner.take, self._now())

    def sign(self) -> None:
        """A tone in her ear, where there is one: something was done as she asked."""
        if self.prompter is not None:
            self.prompter.sign()

    def show_take(self, take: Take) -> None:
        """The class goes otherwise."""
        if self.prompter is not None and take is not self._prompted:
            self.prompter.show_take(take, self._now())
        self._prompted = take

    def follow(self, at: float) -> None:
        """The take is at a moment, in ticks."""
        if self.prompter is not None:
            self.prompter.follow(at, self.runner.standing or self.runner.state != "on")

    def _now(self) -> int:
        here = self.runner.here()
        return int(here.at) if here is not None else 0

    # --- of her -------------------------------------------------------------------------------------------

    def record_or_not(self) -> None:
        """Whether sound is recorded in the next take."""
        self.records = not self.records
        self.message.emit(
            "The sound is recorded beside the take." if self.records else "No sound is recorded."
        )

    def _begin(self, folder: Path) -> None:
        self.listen()
        if self.records or sounds_in(folder):  # a take that goes on is recorded as it was
            # Codecs and devices, which a take without sound does not need.
            from yewhour.voice.devices.recorder import Microphone, SoundFile

            message = self.message.emit
            sound = SoundFile(sound_from(folder, self.runner.now_s), message)
            self.microphone = Microphone(sound, message, self.device)

    def listen(self) -> None:
        """Listens to her, where her voice leads."""
        take = self.runner.take
        if self.runner.leading.leads != "voice" or self.follower is not None or take is None:
            return
        # The recogniser, half a second to load, which a take led otherwise does not need.
        from yewhour.ui.take.sound.voice_follower import VoiceFollower

        begun_s = self.runner.now_s
        self.follower = VoiceFollower(take, self.runner.jobs, self.device)
        self.follower.message.connect(self.message)
        self.follower.heard.connect(
            lambda number, words: self.runner.hear(
                number, [(word, start + begun_s, end + begun_s) for word, start, end in words]
            )
        )

    def _end(self) -> None:
        if self.follower is not None:
            self.follower.stop()
            self.follower = None
        if self.microphone is not None:
            self.microphone.close()
            self.microphone = None

    def close(self) -> None:
        """When the window closes."""
        self._end()
        if self.prompter is not None:
            self.prompter.close()
