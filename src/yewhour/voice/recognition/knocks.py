"""Two knocks on the floor, or two claps, heard by a microphone: an act for hands that are busy.

A knock is a jump of loudness that is over at once, which no syllable is: 15 dB within two frames, 12 dB down
again in 70 ms. Two of them count where they come 0.12 to 0.55 s apart, alike in loudness, and nothing else
sounds for the better part of a second before and after. In doubt nothing is heard: three claps, a foot that
is set down, or a knock into a sentence are none. How many are heard and how many are invented is counted by
`python -m tools.knocks`.
"""

from collections import deque

import numpy as np

from yewhour.voice.sound.shipped_voice import Samples

FRAME_S = 0.01
RISE_DB, RISEN_FRAMES = 15.0, 2  # of an onset, over the loudest of the frames before it
FALL_DB, FALLEN_FRAMES = 12.0, 7  # after which a knock is over
OVER_DB = 13.0  # of a knock over what is in the room
ALIKE_DB = 10.0
APART_S = (0.12, 0.55)
QUIET_S = 0.7  # before the first and after the second
QUIET_DB = 10.0  # how far what sounds there stays below the softer knock
FLOOR_DB = -80.0  # of a microphone that hears nothing
RING_FRAMES = 14  # that a knock may ring on


class KnockListener:
    """Hears blocks of sound, at a rate in Hz, one after the other."""

    def __init__(self, rate: int) -> None:
        self.rate = rate
        self._frame = round(FRAME_S * rate)
        self._rest, self._last = np.zeros(0, np.float32), np.float32(0.0)
        before = round(QUIET_S / FRAME_S)
        self._span = 2 * before + round(APART_S[1] / FRAME_S) + RING_FRAMES
        self._levels: deque[float] = deque(maxlen=self._span)
        self._heard = 0  # frames
        self._taken = -1  # the frame of the last knock that was part of a pair

    def hear(self, block: Samples) -> list[float]:
        """The seconds, since the first sample, of every second knock known by now: some 0.8 s later."""
        if not len(block):
            return []
        bright = np.diff(block, prepend=self._last)  # a foot that is set down is dull
        self._last = block[-1]
        sound = np.concatenate([self._rest, bright])
        count = len(sound) // self._frame
        self._rest = sound[count * self._frame :]
        found = []
        for frame in sound[: count * self._frame].reshape(count, self._frame):
            level = 10.0 * np.log10(float(np.mean(frame.astype(np.float64) ** 2)) + 1e-12)
            self._levels.append(max(FLOOR_DB, level))
            self._heard += 1
            second = self._pair()
            if second is not None:
                found.append(second * FRAME_S)
        return found

    def _pair(self) -> int | None:
        """The frame of the second knock of a pair whose quiet afterwards has just been full."""
        levels = np.array(self._levels)
        quiet = round(QUIET_S / FRAME_S)
        if len(levels) < self._span:
            return None
        second = len(levels) - quiet - RING_FRAMES
        if not _knocks(levels, second):
            return None
        least, most = (round(one / FRAME_S) for one in APART_S)
        first = next((at for at in range(second - most, second - least + 1) if _knocks(levels, at)), None)
        frame = self._heard - len(levels) + second
        if first is None or frame <= self._taken:
            return None
        softer = min(levels[first : first + 3].max(), levels[second : second + 3].max())
        alike = abs(levels[first : first + 3].max() - levels[second : second + 3].max()) <= ALIKE_DB
        around = (
            levels[max(0, first - quiet) : first - 1],
            levels[first + RING_FRAMES : second - 1],
            levels[second + RING_FRAMES :],
        )
        calm = all(part.size == 0 or part.max() <= softer - QUIET_DB for part in around)
        above = softer - float(np.median(levels)) >= OVER_DB
        if not (alike and calm and above):
            return None
        self._taken = frame
        return frame


def _knocks(levels: np.ndarray, at: int) -> bool:
    """Whether a knock begins in a frame: up at once, and soon over."""
    if at < RISEN_FRAMES + 1 or at + FALLEN_FRAMES + 3 > len(levels):
        return False
    peak = levels[at : at + 3].max()
    rises = levels[at] - levels[at - RISEN_FRAMES - 1 : at - 1].max() >= RISE_DB
    falls = levels[at + FALLEN_FRAMES : at + FALLEN_FRAMES + 3].max() <= peak - FALL_DB
    return bool(rises and levels[at] >= levels[at - 1] and falls)


CLAP_RISE_DB, CLAP_OVER_DB = 18.0, 8.0  # of a clap, over what was just before, and over what is loud
LOUD_PERCENT = 99.0  # of what is heard, that is softer than what is loud


def claps_in(sound: Samples, rate: int) -> list[float]:
    """The seconds of single claps in a sound: up at once, soon over, and far above what is usual in it."""
    frame = round(FRAME_S * rate)
    bright = np.diff(sound, prepend=np.float32(0))
    count = len(bright) // frame
    power = (bright[: count * frame].reshape(count, frame).astype(np.float64) ** 2).mean(axis=1)
    levels = np.maximum(FLOOR_DB, 10 * np.log10(power + 1e-12))
    if not count:
        return []
    loud, loudest = float(np.percentile(levels, LOUD_PERCENT)), float(levels.max())
    found: list[float] = []
    for at in np.flatnonzero(levels > max(loud + CLAP_OVER_DB, loudest - ALIKE_DB)):
        rises = levels[at] - levels[max(0, at - RISEN_FRAMES - 1) : max(1, at - 1)].max() >= CLAP_RISE_DB
        if rises and _knocks(levels, int(at)) and (not found or at * FRAME_S - found[-1] > APART_S[1]):
            found.append(float(at * FRAME_S))
    return found
