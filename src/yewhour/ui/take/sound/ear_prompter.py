"""The prompter: a voice, or signs, in the teacher's ear, a little ahead of what she says."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QObject, Signal

from yewhour.background.jobs import Job
from yewhour.core.problem import Problem
from yewhour.core.take.take import Take
from yewhour.state.voices import voice_named
from yewhour.ui.kit.jobs import Jobs
from yewhour.voice.devices.monitor import MonitorDevice, MonitorMix, PlacedSound
from yewhour.voice.sound.mix import ClassMix, her_voice
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.signs import confirmed
from yewhour.voice.sound.sound_events import sound_events
from yewhour.voice.sound.voices import SpeakingVoice

SPEAKING = "ear"
LEAD_S = 1.2  # before the moment a line is to be said
EVERY = 12  # lines spoken between two times that they are placed
SLOW_S = 1.0  # after that it is said how far the speaking is


class PrompterChoice(NamedTuple):
    """What may be in the ear: its parts (see `cast`), and what it is called."""

    parts: frozenset[str]
    about: str


CHOICES = (
    PrompterChoice(frozenset(), "nothing in your ear"),
    PrompterChoice(frozenset({"lines"}), "every line in your ear"),
    PrompterChoice(frozenset({"sides"}), "names and sides in your ear"),
    PrompterChoice(frozenset({"sides", "counts"}), "names, sides and counts in your ear"),
    PrompterChoice(frozenset({"tones", "breath", "bells"}), "bells and tones in your ear"),
)


class EarPrompter(QObject):
    """Keeps an ear in step with a take. message: something to be read in the foot."""

    message = Signal(str)

    def __init__(self, slower: dict[str, float], jobs: Jobs, device: str = "") -> None:
        super().__init__()
        self.choice = CHOICES[0]
        self.slower, self.jobs = slower, jobs
        self.voice = self._best()
        self.ear = MonitorMix(self.voice.rate)
        self._name = device
        self._device: MonitorDevice | None = None

    def next_choice(self, take: Take | None, at: int) -> None:
        """The next of the choices, round and round."""
        choice = CHOICES[(CHOICES.index(self.choice) + 1) % len(CHOICES)]
        if choice.parts and (self._device is None or not self._device.open):
            self._device = MonitorDevice(self.ear, self.message.emit, self._name)
            if not self._device.open:
                return
        self.choice = choice
        self.message.emit(f"{choice.about[0].upper()}{choice.about[1:]}.")
        if take is not None:
            self.show_take(take, at)

    def show_take(self, take: Take, at: int) -> None:
        """Another class, or the same otherwise: its lines are spoken on a thread, the next first."""
        if not self.choice.parts:
            self.jobs.cancel(SPEAKING)
            self.ear.place(())
            return
        parts = self.choice.parts
        self.jobs.run(
            SPEAKING, lambda job: self._speak(take, at, parts, job), doing="Speaking the lines for your ear",
            lost="The take goes on; V turns the ear on again.", progress=self.message.emit, owner=self,
            failed=lambda problem: self.message.emit(str(problem)),
        )  # fmt: skip

    def _speak(self, take: Take, at: int, parts: frozenset[str], job: Job) -> None:
        heard = [one for one in sound_events(take.segments, take.cues, parts) if one.at + one.room >= at]
        brief = take.solved.plan.brief
        mix = ClassMix(heard, take.end, self.voice, brief.voice_rate, her_voice(self.slower, brief.own))
        lead = round(LEAD_S * mix.rate)
        placed: list[PlacedSound] = []
        slow = False
        try:
            for number, one in enumerate(heard):
                job.check()
                early = lead if one.kind == "line" else 0
                placed.append(PlacedSound(max(0, mix.sample_of(one.at) - early), mix.sound_of(one)))
                if number % EVERY == 0:  # what comes next can be heard while the rest is spoken
                    self.ear.place(sorted(placed, key=lambda one: one.at))
                    if slow or job.took_s > SLOW_S:
                        slow = True
                        done = 100 * number // len(heard)
                        job.progress(f"The lines are being spoken for your ear: {done} %. V stops it.")
        except Problem as problem:
            job.progress(f"{problem} The voice that ships speaks instead.")
            self.voice = shipped_voice()
            self._speak(take, at, parts, job)
            return
        job.check()
        self.ear.place(sorted(placed, key=lambda one: one.at))
        if slow:
            job.progress("Your ear is ready.")

    def _best(self) -> SpeakingVoice:
        """The best voice there is; a broken one is told of, and the one that ships speaks."""
        try:
            return voice_named()
        except Problem as problem:
            self.message.emit(str(problem))
            return shipped_voice()

    def sign(self) -> None:
        """A short tone, now."""
        if self.choice.parts and self._device is not None and self._device.open:
            self.ear.at_once(confirmed(self.ear.rate))

    def follow(self, at: float, still: bool) -> None:
        """The take is at a moment, in ticks; or it stands still."""
        if still:
            self.ear.stand_still()
        elif self.choice.parts:
            self.ear.follow(round(at * self.ear.rate / 10))

    def close(self) -> None:
        """Lets go of the device."""
        self.jobs.cancel(SPEAKING)
        if self._device is not None:
            self._device.close()
