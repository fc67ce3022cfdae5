"""A recording played from a second on, on whatever device there is."""

from __future__ import annotations

import threading
from collections.abc import Callable, Generator
from pathlib import Path
from typing import Any

import av
import miniaudio
import numpy as np

from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.spoken_track import spoken_stream

RATE = 44100
BUFFER_MS = 100


class Player:
    """Plays one thing at a time. told: what goes wrong, in words. name: "null" for the silent device."""

    def __init__(self, on_message: Callable[[str], object], name: str = "") -> None:
        self.on_message = on_message
        self._name = name
        self._device: Any = None
        self._samples = 0
        self._from_s = 0.0
        self._lock = threading.Lock()

    @property
    def playing(self) -> bool:
        """Whether something is played."""
        return self._device is not None

    @property
    def at_s(self) -> float:
        """The second of the recording that is played."""
        return self._from_s + self._samples / RATE

    def play(self, path: Path, at_s: float) -> None:
        """Plays a recording from a second on, in place of what was played before."""
        self.stop()
        self._from_s, self._samples = max(0.0, at_s), 0
        null = self._name == "null"
        backends = [one for one in miniaudio.Backend if (one == miniaudio.Backend.NULL) == null]
        try:
            blocks = _decoded(path, self._from_s)
            first = next(blocks, np.zeros(0, np.float32))
        except (OSError, av.error.FFmpegError, IndexError, ValueError) as error:
            self.on_message(f"{path.name} can't be played: {getattr(error, 'strerror', None) or error}.")
            return
        try:
            device = miniaudio.PlaybackDevice(
                output_format=miniaudio.SampleFormat.FLOAT32, nchannels=1, sample_rate=RATE,
                buffersize_msec=BUFFER_MS, backends=backends, app_name="Yew Hour",
            )  # fmt: skip
            device.start(self._feed(first, blocks))
            self._device = device
        except miniaudio.MiniaudioError:
            self.on_message("There is no sound device, so nothing can be played.")

    def stop(self) -> None:
        """Is quiet."""
        device, self._device = self._device, None
        if device is not None:
            device.close()

    def _feed(self, first: Samples, blocks: Generator[Samples, None, None]) -> Generator[bytes, int, None]:
        generator = self._endless(first, blocks)
        next(generator)
        return generator

    def _endless(
        self, waiting: Samples, blocks: Generator[Samples, None, None]
    ) -> Generator[bytes, int, None]:
        count = yield b""
        while True:
            while len(waiting) < count:
                block = next(blocks, None)
                if block is None:
                    waiting = np.concatenate([waiting, np.zeros(count - len(waiting), np.float32)])
                else:
                    waiting = np.concatenate([waiting, block])
            out, waiting = waiting[:count], waiting[count:]
            self._samples += count
            count = yield out.tobytes()


def _decoded(path: Path, at_s: float) -> Generator[Samples, None, None]:
    """The sound of a file from a second on, at RATE, in one channel."""
    with av.open(str(path)) as file:
        stream = spoken_stream(file)
        assert stream.time_base is not None
        file.seek(round(at_s / float(stream.time_base)), stream=stream)
        resampler = av.AudioResampler("flt", "mono", RATE)
        for frame in file.decode(stream):
            if frame.time is not None and frame.time + frame.samples / max(1, frame.sample_rate) < at_s:
                continue
            for part in resampler.resample(frame):
                yield np.asarray(part.to_ndarray(), np.float32).reshape(-1)
