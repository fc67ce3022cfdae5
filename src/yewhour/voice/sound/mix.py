"""The sound of a class, every line at its moment to the sample, made block by block."""

from collections.abc import Iterator, Mapping, Sequence

import numpy as np

from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.plan.own_shares import OwnShares, own_share
from yewhour.voice.sound import signs
from yewhour.voice.sound.shipped_voice import FASTEST, WORDS_PER_MIN, Samples
from yewhour.voice.sound.sound_events import SoundEvent
from yewhour.voice.sound.voices import SpeakingVoice

BLOCK_S = 5


def her_voice(slower: Mapping[str, float], own: OwnShares) -> dict[str, float]:
    """How much slower each way of speaking is than the voice, at her own seconds."""
    return {name: value * own_share(own, "voice", name) for name, value in slower.items()}


class ClassMix:
    """What is heard of a class of so many ticks.

    voice_rate: the teacher's against the voice. slower: how much slower than instructing each way of
    speaking is. A line that would not be over before the next is spoken faster, as far as can be
    understood; `hurried` are those, in the order of time.
    """

    def __init__(
        self,
        heard: Sequence[SoundEvent],
        length: int,
        voice: SpeakingVoice,
        voice_rate: float,
        slower: dict[str, float],
    ) -> None:
        self.heard = list(heard)
        self.voice = voice
        self.rate = voice.rate
        self.samples = self.sample_of(length)
        self._hurried: dict[int, SoundEvent] = {}
        self._voice_rate = voice_rate
        self._slower = slower
        self._bell = signs.bell(self.rate)

    @property
    def hurried(self) -> list[SoundEvent]:
        """The lines that were spoken faster to fit."""
        return [self._hurried[at] for at in sorted(self._hurried)]

    def sample_of(self, tick: int) -> int:
        """The sample that a tick is at, exactly: there is a whole number of them in a tick."""
        return tick * self.rate // TICKS_PER_S

    def sound_of(self, one: SoundEvent) -> Samples:
        """One thing as it sounds."""
        if one.kind == "line":
            return self._line(one)
        if one.kind == "bell":
            return self._bell
        if one.kind in signs.SIDE_HZ:
            return signs.side(one.kind, self.rate)
        return signs.breath(one.kind, one.room / TICKS_PER_S, self.rate)

    def _line(self, one: SoundEvent) -> Samples:
        speed = WORDS_PER_MIN * self._voice_rate / self._slower.get(one.slower, 1.0)
        said, room = self.voice.say(one.text, speed), self.sample_of(one.room)
        if len(said) <= room:
            return said
        self._hurried[one.at] = one
        for _ in range(4):
            speed *= 1.02 * len(said) / room
            said = self.voice.say(one.text, speed)
            if len(said) <= room or speed >= FASTEST:
                break
        return said

    def blocks(self) -> Iterator[Samples]:
        """The whole of it from the first sample to the last, in blocks."""
        size = BLOCK_S * self.rate
        carried = np.zeros(0, np.float32)
        waiting = iter(self.heard)
        coming = next(waiting, None)
        for start in range(0, self.samples, size):
            end = min(start + size, self.samples)
            block = np.zeros(max(end - start, len(carried)), np.float32)
            block[: len(carried)] += carried
            while coming is not None and self.sample_of(coming.at) < end:
                sound, at = self.sound_of(coming), self.sample_of(coming.at) - start
                if at + len(sound) > len(block):
                    block = np.concatenate([block, np.zeros(at + len(sound) - len(block), np.float32)])
                block[at : at + len(sound)] += sound
                coming = next(waiting, None)
            carried = block[end - start :]
            yield block[: end - start]
