"""The ear: sounds played at their moments while a take goes on, on whatever device there is, or on none.

Where the sounds are is told in samples since the start of the take. The device asks for block after block;
what begins in a block is mixed into it at its sample, so that nothing depends on when somebody looks.
"""

from __future__ import annotations

import threading
import time
from bisect import bisect_left
from collections.abc import Callable, Generator, Sequence
from typing import Any, NamedTuple

import miniaudio
import numpy as np

from yewhour.voice.sound.shipped_voice import Samples

DRIFT_S = 0.02  # between the device's clock and the take's; beyond that the take's wins
BUFFER_MS = 40


class PlacedSound(NamedTuple):
    """A sound and the sample of the take it begins at."""

    at: int
    sound: Samples


class MonitorMix:
    """Mixes what is to be heard; the device's thread asks it for blocks.

    clock: seconds, by which it is told how much of the last block is over.
    """

    def __init__(self, rate: int, clock: Callable[[], float] = time.monotonic) -> None:
        self.rate = rate
        self.clock = clock
        self._asked_s = clock()  # when the last block was asked for
        self._asked = 0  # and its first sample
        self.played = 0  # samples that were given to the device
        self._offset = 0  # of the take against those
        self._reached = 0  # samples of the take that have had their turn: nothing begins twice
        self._placed: list[PlacedSound] = []
        self._sounding: list[tuple[Samples, int]] = []  # what is on, and how much of it is over
        self._now: list[tuple[Samples, int]] = []  # the same, of what belongs to no moment of the take
        self._still = True
        self._lock = threading.Lock()

    def place(self, placed: Sequence[PlacedSound]) -> None:
        """What is to be heard from now on, in the order of time; what is on goes on."""
        with self._lock:
            self._placed = list(placed)

    def follow(self, at: int) -> None:
        """The take is at a sample; called many times a second."""
        with self._lock:
            over = round((self.clock() - self._asked_s) * self.rate)
            drift = at - (self._asked + over + self._offset)
            if self._still or abs(drift) > self.rate:  # from another place on
                self._reached = at
            if self._still or abs(drift) > DRIFT_S * self.rate:
                self._offset += drift
            self._still = False

    def stand_still(self) -> None:
        """Nothing begins, and what is on breaks off, until the take is followed again."""
        with self._lock:
            self._still = True
            self._sounding = []

    def at_once(self, sound: Samples) -> None:
        """Something to be heard now, whether the take goes on or stands still."""
        with self._lock:
            self._now.append((sound, 0))

    def block(self, count: int) -> Samples:
        """The next samples for the device."""
        out = np.zeros(count, np.float32)
        with self._lock:
            start = self.played + self._offset
            self._asked_s, self._asked = self.clock(), self.played
            self.played += count
            now = [(sound, gone, _mixed(out, sound, gone)) for sound, gone in self._now]
            self._now = [(sound, after) for sound, _, after in now if after < len(sound)]
            if self._still:
                return out
            first = bisect_left(self._placed, self._reached, key=lambda one: one.at)
            self._reached = max(self._reached, start + count)
            last = bisect_left(self._placed, start + count, key=lambda one: one.at)
            begun = [(one.sound, min(0, start - one.at)) for one in self._placed[first:last]]
            self._sounding = [
                (sound, gone + count)
                for sound, gone in self._sounding + begun
                if _mixed(out, sound, gone) < len(sound)
            ]
        return np.clip(out, -1.0, 1.0)


def _mixed(out: Samples, sound: Samples, gone: int) -> int:
    """Adds a sound, of which so many samples are over (less than none: to come); how far it is after that."""
    here = max(0, -gone)
    part = sound[max(0, gone) : gone + len(out)]
    out[here : here + len(part)] += part
    return gone + len(out)


class MonitorDevice:
    """A device that an ear is played on. told: what goes wrong, in words; the take goes on without."""

    def __init__(self, ear: MonitorMix, on_message: Callable[[str], object], name: str = "") -> None:
        self.ear = ear
        self.on_message = on_message
        self._device: Any = None
        try:
            self._device = self._opened(name)
            self._device.start(self._blocks())
        except miniaudio.MiniaudioError:
            self._device = None
            on_message("There is no sound device, so nothing can be heard. The take goes on without.")

    @property
    def open(self) -> bool:
        """Whether there is a device."""
        return self._device is not None

    def _opened(self, name: str) -> Any:
        options: dict[str, Any] = {
            "output_format": miniaudio.SampleFormat.FLOAT32, "nchannels": 1, "sample_rate": self.ear.rate,
            "buffersize_msec": BUFFER_MS, "app_name": "Yew Hour",
        }  # fmt: skip
        if name == "null":
            return miniaudio.PlaybackDevice(backends=[miniaudio.Backend.NULL], **options)
        real = [one for one in miniaudio.Backend if one != miniaudio.Backend.NULL]
        return miniaudio.PlaybackDevice(backends=real, **options)

    def _blocks(self) -> Generator[bytes, int, None]:
        generator = self._endless()
        next(generator)
        return generator

    def _endless(self) -> Generator[bytes, int, None]:
        count = yield b""
        while True:
            count = yield self.ear.block(count).tobytes()

    def close(self) -> None:
        """Lets go of it."""
        if self._device is not None:
            self._device.close()
            self._device = None
