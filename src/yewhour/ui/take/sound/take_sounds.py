"""The sounds of a take: what is in the teacher's ear, what is recorded of her, what is heard of her words."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from yewhour.content.terms import load_voice
from yewhour.core.take.line_following import SAID_ACTS
from yewhour.core.take.take import Take
from yewhour.state.settings import read_settings
from yewhour.state.takes.take_sounds import sound_from, sounds_in
from yewhour.ui.take.take_runner import TakeRunner

TRIAL_MS, TRIAL_S = 200, 2.0
LEVELS = 12
ASKED = ((False, False), (True, False), (False, True), (True, True))  # aloud, by knocks
QUIET = 0.004  # the highest sample of a microphone that hears nothing


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
        self.knocks = False  # whether two knocks stand still, or go on
        self.knocked: Any = None  # while they are listened for
        self._prompted: Take | None = None
        self._trial: Any = None  # what was heard in a trial, its microphone, and what plays it back
        self._tried: Any = None
        self._played: Any = None
        self._trials = 0
        self._trying = QTimer(self)
        self._trying.setInterval(TRIAL_MS)
        self._trying.timeout.connect(self._try)
        runner.begun.connect(self._begin)
        runner.over.connect(self._end)

    def turned_on(self) -> list[str]:
        """What is heard, recorded and listened for, in words; nothing for what is off."""
        ear = self.prompter.choice.about if self.prompter is not None and self.prompter.choice.parts else ""
        said = f"asked aloud behind “{self.runner.call}”" if self.runner.call else ""
        knocks = "two knocks stand still" if self.knocks else ""
        return [one for one in (ear, "the sound is recorded" if self.records else "", said, knocks) if one]

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

    def next_call(self) -> None:
        """What is done without a hand: what she asks for aloud behind the call word, what two knocks ask for,
        both, or nothing."""
        aloud, knocks = ASKED[(ASKED.index((bool(self.runner.call), self.knocks)) + 1) % len(ASKED)]
        if (aloud or knocks) and not self._has_microphone():
            self.runner.call, self.knocks = "", False
            self.message.emit("There is no microphone, so nothing can be asked for.")
            return
        self.runner.call, self.knocks = read_settings().take_call if aloud else "", knocks
        said = f"Say “{self.runner.call}”, and then: {', '.join(SAID_ACTS)}." if aloud else ""
        knocked = "Two knocks on the floor, or two claps, stand still or go on." if knocks else ""
        self.message.emit(" ".join(filter(None, (said, knocked))) or "Nothing is listened for.")
        if self.runner.state == "on":
            self._end_listening()
            self.listen()

    def _has_microphone(self) -> bool:
        if self.device == "fed":
            return True
        # Devices, which a take without sound does not need.
        from yewhour.voice.devices.recorder import Microphone, Trial

        tried = Microphone(Trial(), lambda words: None, self.device)
        there = tried.open
        tried.close()
        return there

    # --- of her -------------------------------------------------------------------------------------------

    def record_or_not(self) -> None:
        """Whether sound is recorded in the next take; where it is, two seconds are tried, and heard again."""
        self._end_trial()
        if self.records:
            self.records = False
            self.message.emit("No sound is recorded.")
            return
        # Codecs and devices, which a take without sound does not need.
        from yewhour.voice.devices.recorder import Microphone, Trial

        self._trial = Trial()
        self._tried = Microphone(self._trial, lambda words: None, self.device)
        self.records = self._tried.open
        if self.records:
            self.message.emit("The sound is recorded beside the take. Say something…")
            self._trying.start()
        else:
            self._end_trial()
            self.message.emit("There is no microphone, so no sound will be recorded.")

    def _try(self) -> None:
        """How loud she is just now; after two seconds, what was heard, played back."""
        trial = self._trial
        self._trials += 1
        if trial is None or (trial.length_s < TRIAL_S and self._trials * TRIAL_MS < 3000 * TRIAL_S):
            bars = min(LEVELS, round(LEVELS * min(1.0, 2 * trial.level))) if trial is not None else 0
            self.message.emit(f"Your microphone  {'▮' * bars}{'▯' * (LEVELS - bars)}")
            return
        sound, highest = trial.sound, trial.highest
        self._end_trial()
        if highest < QUIET:
            self.message.emit("Your microphone hears nothing so far. It is recorded all the same.")
            return
        self.message.emit("Your microphone hears you; this is how. The sound is recorded beside the take.")
        # Devices, which a take without sound does not need.
        from yewhour.voice.devices.monitor import MonitorDevice, MonitorMix

        ear = MonitorMix(trial.rate)
        self._played = MonitorDevice(ear, lambda words: None, self.device)
        ear.at_once(sound)
        QTimer.singleShot(round(1000 * len(sound) / trial.rate) + 300, self, self._end_played)

    def _end_trial(self) -> None:
        self._trying.stop()
        self._trials = 0
        tried, self._tried, self._trial = self._tried, None, None
        if tried is not None:
            tried.close()

    def _end_played(self) -> None:
        if self._played is not None:
            self._played.close()
            self._played = None

    def _begin(self, folder: Path) -> None:
        self._end_trial()
        self.listen()
        if self.records or sounds_in(folder):  # a take that goes on is recorded as it was
            # Codecs and devices, which a take without sound does not need.
            from yewhour.voice.devices.recorder import Microphone, SoundFile

            message = self.message.emit
            sound = SoundFile(sound_from(folder, self.runner.now_s), message)
            self.microphone = Microphone(sound, message, self.device)

    def listen(self) -> None:
        """Listens to her, where her voice leads or something may be asked for."""
        if self.knocks and self.knocked is None and self.runner.take is not None:
            # Devices, which a take without sound does not need.
            from yewhour.ui.take.sound.knock_follower import KnockFollower

            self.knocked = KnockFollower(self.message.emit, self.device)
            self.knocked.heard.connect(self.runner.stand_or_go)
        take = self.runner.take
        wanted = self.runner.leading.leads == "voice" or self.runner.call
        if not wanted or self.follower is not None or take is None:
            return
        # The recogniser, half a second to load, which a take led otherwise does not need.
        from yewhour.ui.take.sound.voice_follower import VoiceFollower

        begun_s = self.runner.now_s
        self.follower = VoiceFollower(take, self.runner.jobs, self.device, self.runner.call)
        self.follower.message.connect(self.message)
        self.follower.heard.connect(
            lambda number, words: self.runner.hear(
                number, [(word, start + begun_s, end + begun_s) for word, start, end in words]
            )
        )

    def _end_listening(self) -> None:
        if self.follower is not None:
            self.follower.stop()
            self.follower = None
        if self.knocked is not None:
            self.knocked.stop()
            self.knocked = None

    def _end(self) -> None:
        self._end_listening()
        if self.microphone is not None:
            self.microphone.close()
            self.microphone = None

    def close(self) -> None:
        """When the window closes."""
        self._end()
        self._end_trial()
        self._end_played()
        if self.prompter is not None:
            self.prompter.close()
