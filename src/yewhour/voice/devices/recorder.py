"""The sound of a take, recorded beside its marks: block by block, the first sample at the start."""

from __future__ import annotations

import os
import queue
from collections.abc import Callable, Generator
from pathlib import Path
from typing import Any, Protocol

import av
import miniaudio
import numpy as np

from yewhour.background.jobs import Fault, Runner
from yewhour.voice.sound.shipped_voice import Samples

RATE = 48000
LOST = "The take goes on; what was recorded before is there."
BLOCK_S = 1
TRIAL_S = 2.0


class SoundSink(Protocol):
    """What sound can be given to."""

    rate: int

    def add(self, block: Samples) -> None:
        """The next samples."""
        ...

    def close(self) -> None:
        """There are no more."""
        ...


class SoundFile:
    """A sound file that is being written; what was written is there whatever happens next.

    on_message: called once, from any thread, when the disk does not take any more; what comes after that is
    lost, and nothing else is.
    """

    def __init__(self, path: Path, on_message: Callable[[str], object], rate: int = RATE) -> None:
        self.path, self.on_message, self.rate = path, on_message, rate
        self.samples = 0
        self._blocks: queue.Queue[Samples | None] = queue.Queue()
        self._writer = Runner(on_fault=self._broke_off)
        self._writer.run("sound", lambda job: self._write(), doing="Recording the sound", lost=LOST)

    def add(self, block: Samples) -> None:
        """Sound to be written; returns at once."""
        self._blocks.put(block)

    def close(self) -> None:
        """Waits until all is written."""
        self._blocks.put(None)
        self._writer.finish(timeout_s=60.0)

    def _write(self) -> None:
        try:
            self._encode()
        except (OSError, av.error.FFmpegError) as error:
            reason = getattr(error, "strerror", None) or str(error)
            self.on_message(f"The sound can't be recorded any more: {reason.lower()}. The take goes on.")
            self._let_go()

    def _broke_off(self, fault: Fault) -> None:
        self.on_message(str(fault))
        self._let_go()

    def _let_go(self) -> None:
        """Takes what still comes, and forgets it."""
        while self._blocks.get() is not None:
            pass

    def _encode(self) -> None:
        with self.path.open("wb") as disk, av.open(disk, "w", format="flac") as file:
            stream = file.add_stream("flac", rate=self.rate, layout="mono")
            assert isinstance(stream, av.AudioStream)
            resampler = av.AudioResampler(stream.format, "mono", self.rate)
            waiting = np.zeros(0, np.float32)
            while (block := self._blocks.get()) is not None:
                waiting = np.concatenate([waiting, block])
                if len(waiting) >= BLOCK_S * self.rate:
                    self._put(waiting, file, stream, resampler)
                    waiting = waiting[:0]
                    disk.flush()
                    os.fdatasync(disk.fileno())
            self._put(waiting, file, stream, resampler)
            file.mux(stream.encode(None))

    def _put(self, block: Samples, file: Any, stream: av.AudioStream, resampler: av.AudioResampler) -> None:
        if len(block):
            frame = av.AudioFrame.from_ndarray(block.reshape(1, -1), format="flt", layout="mono")
            frame.sample_rate, frame.pts = self.rate, self.samples
            self.samples += len(block)
            for part in resampler.resample(frame):
                file.mux(stream.encode(part))


class Trial:
    """Two seconds of a microphone, kept to be heard again. A `SoundSink`."""

    def __init__(self, rate: int = RATE) -> None:
        self.rate = rate
        self.blocks: list[Samples] = []

    def add(self, block: Samples) -> None:
        """The next samples."""
        if self.length_s < TRIAL_S:
            self.blocks.append(block)

    def close(self) -> None:
        """There are no more."""

    @property
    def length_s(self) -> float:
        """How long it is by now."""
        return sum(map(len, self.blocks)) / self.rate

    @property
    def level(self) -> float:
        """The highest of the last block, 0 to 1."""
        return float(np.abs(self.blocks[-1]).max()) if self.blocks else 0.0

    @property
    def highest(self) -> float:
        """The highest of all of it."""
        return max((float(np.abs(one).max()) for one in self.blocks), default=0.0)

    @property
    def sound(self) -> Samples:
        """All of it."""
        return np.concatenate([*self.blocks, np.zeros(0, np.float32)])


class Microphone:
    """The microphone, given to a file or a listener. on_message: what goes wrong; the take goes on."""

    def __init__(self, file: SoundSink, on_message: Callable[[str], object], name: str = "") -> None:
        self.file = file
        self._device: Any = None
        null = name == "null"
        backends = [one for one in miniaudio.Backend if (one == miniaudio.Backend.NULL) == null]
        try:
            self._device = miniaudio.CaptureDevice(
                input_format=miniaudio.SampleFormat.FLOAT32, nchannels=1, sample_rate=file.rate,
                buffersize_msec=100, backends=backends, app_name="Yew Hour",
            )  # fmt: skip
            self._device.start(self._blocks())
        except miniaudio.MiniaudioError:
            self._device = None
            on_message("There is no microphone, so nothing is heard. The take goes on without.")

    @property
    def open(self) -> bool:
        """Whether there is one."""
        return self._device is not None

    def _blocks(self) -> Generator[None, bytes, None]:
        generator = self._endless()
        next(generator)
        return generator

    def _endless(self) -> Generator[None, bytes, None]:
        while True:
            content = yield
            self.file.add(np.frombuffer(content, np.float32).copy())

    def close(self) -> None:
        """Lets go of it, and waits until all is written."""
        if self._device is not None:
            self._device.close()
            self._device = None
        self.file.close()
