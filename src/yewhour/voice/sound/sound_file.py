"""A class as a sound file: every line at its moment, even in loudness, with its chapters in its tags."""

import tempfile
from collections.abc import Callable, Iterable, Iterator
from fractions import Fraction
from pathlib import Path
from typing import IO, Any, NamedTuple

import av
import msgspec
import numpy as np

from yewhour.core.export.chapters import Chapter, chapters
from yewhour.core.lengths import TICKS_PER_S, seconds
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import written_aside
from yewhour.voice.sound.loudness import (
    HEADROOM_DB,
    PEAK,
    LoudnessMeter,
    frames,
    gain_db,
    levelled,
    measured,
)
from yewhour.voice.sound.mix import ClassMix, her_voice
from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.sound_events import sound_events
from yewhour.voice.sound.voices import SpeakingVoice

CLOSE_DB = 0.05  # as near as a file has to be to what it should be
HEARD = 0.55  # of what it is made louder by; the limiter takes the rest
CODEC_DB = 0.25  # by which a codec may raise a peak
LIMITED = 0.8  # of a first gain, the limiter takes the rest
TRIES = 4
BLOCK = 1 << 16  # samples that are read at once
SCALE = 16384  # of a sample as it is kept on the disk: there is room for twice the highest
Progress = Callable[[float], None]  # told the share that is done; what it raises stops the work


class SoundKind(NamedTuple):
    """A kind of sound file: what it is made with, and at which rate where it can't have any."""

    codec: str
    format: str
    rate: int = 0
    bits: int = 0


KINDS = {
    ".wav": SoundKind("pcm_s16le", "wav"),
    ".flac": SoundKind("flac", "flac"),
    ".ogg": SoundKind("libopus", "ogg", 48000, 64_000),
    ".opus": SoundKind("libopus", "ogg", 48000, 64_000),
    ".mp3": SoundKind("libmp3lame", "mp3", 0, 96_000),
    ".m4a": SoundKind("aac", "ipod", 0, 96_000),
}


class WrittenSound(msgspec.Struct, frozen=True):
    """What was written: loudness in LUFS and highest true peak in dB, both of the file as it is heard, and
    the moments and words of lines that were spoken faster."""

    length_s: float
    samples: int
    rate: int
    loudness: float
    peak: float
    hurried: tuple[tuple[float, str], ...]


def write_sound(
    timed: TimedClass,
    path: Path,
    voice: SpeakingVoice,
    parts: Iterable[str],
    slower: dict[str, float],
    progress: Progress = lambda share: None,
) -> WrittenSound:
    """Writes a class as sound, whole or not at all, and says what it is like.

    parts: of `cast.PARTS`. slower: how much slower each way of speaking is. Raises Problem for a kind of
    file, or a place, that can't be written.
    """
    kind = KINDS.get(path.suffix.lower())
    if kind is None:
        raise Problem(
            f"A sound file can't end in {path.suffix!r}.", str(path), f"Use one of: {', '.join(KINDS)}."
        )
    if not path.parent.is_dir():
        raise Problem(
            "The sound can't be written: there is no such folder.", str(path), "Choose another place."
        )
    brief = timed.plan.brief
    heard, slower = sound_events(timed.segments, timed.cues, parts), her_voice(slower, brief.own)
    mix = ClassMix(heard, timed.length, voice, brief.voice_rate, slower)
    with tempfile.TemporaryFile() as file:
        spoken = _SpokenOnce(mix, file)
        by_db = _gain(spoken, progress)
        samples, meter = _write(spoken, by_db, kind, path, timed, progress)
    hurried = tuple((one.at / TICKS_PER_S, one.text) for one in mix.hurried)
    return WrittenSound(
        timed.length_s, samples, mix.rate, round(meter.loud, 1), round(meter.peak, 1), hurried
    )


class _SpokenOnce:
    """A mix that is gone through several times, and spoken the first time only: then it is on the disk."""

    def __init__(self, mix: ClassMix, file: IO[bytes]) -> None:
        self.rate, self.samples = mix.rate, mix.samples
        self._mix, self._file, self._whole = mix, file, False

    def blocks(self) -> Iterator[Samples]:
        """All of it, in blocks."""
        if self._whole:
            self._file.seek(0)
            while content := self._file.read(2 * BLOCK):
                yield np.frombuffer(content, np.int16).astype(np.float32) / np.float32(SCALE)
            return
        for block in self._mix.blocks():
            self._file.write((np.clip(block, -1.9, 1.9) * SCALE).round().astype(np.int16).tobytes())
            yield block
        self._whole = True


def _gain(mix: _SpokenOnce, progress: Progress) -> float:
    """What makes the whole as loud as it should be, nearly: the limiter takes some of it."""
    loud = LoudnessMeter(mix.rate).listen(_told(mix, progress, 0.0, 0.5)).loud
    return gain_db(loud) / (1.0 if gain_db(loud) <= 0 else LIMITED)


def _told(mix: _SpokenOnce, progress: Progress, first: float, last: float) -> Iterator[Samples]:
    done = 0
    for block in mix.blocks():
        yield block
        done += len(block)
        progress(first + (last - first) * done / max(1, mix.samples))


def _write(
    mix: _SpokenOnce, by_db: float, kind: SoundKind, path: Path, timed: TimedClass, progress: Progress
) -> tuple[int, LoudnessMeter]:
    """Writes beside the place and moves it there when it is whole; gives the samples written, and what the
    file sounds like. A codec that changes that is met by so much, and once more."""
    try:
        with written_aside(path) as part:
            headroom_db = HEADROOM_DB + (CODEC_DB if kind.bits else 0.0)
            for left in reversed(range(TRIES)):
                begun, done = (0.5 + 0.5 * (TRIES - left - more) / TRIES for more in (1, 0))
                level = levelled(_told(mix, progress, begun, done), mix.rate, by_db, headroom_db)
                samples = _encode(level, mix, kind, str(part), timed)
                meter = measured(str(part))
                off_db, over_db = gain_db(meter.loud), meter.peak - PEAK
                if not left or (abs(off_db) <= CLOSE_DB and over_db <= 0):
                    break
                by_db, headroom_db = by_db + off_db / HEARD, headroom_db + max(0.0, over_db + 0.1)
            progress(1.0)
    except (OSError, av.error.FFmpegError) as error:
        raise _cannot(error, path) from error
    return samples, meter


def _encode(
    blocks: Iterable[Samples], mix: _SpokenOnce, kind: SoundKind, name: str, timed: TimedClass
) -> int:
    written = 0
    with av.open(name, "w", format=kind.format) as file:
        stream = file.add_stream(kind.codec, rate=kind.rate or mix.rate, layout="mono")
        assert isinstance(stream, av.AudioStream)
        if kind.bits:
            stream.bit_rate = kind.bits
        found = chapters(timed)
        file.metadata.update(_tags(timed, found))
        if kind.format in ("mp3", "ipod"):
            file.set_chapters(_marks(found))
        resampler = av.AudioResampler(stream.format, "mono", kind.rate or mix.rate)
        for frame in frames(blocks, mix.rate):
            written += frame.samples
            for part in resampler.resample(frame):
                file.mux(stream.encode(part))
        for part in resampler.resample(None):
            file.mux(stream.encode(part))
        file.mux(stream.encode(None))
    return written


def _tags(timed: TimedClass, found: list[Chapter]) -> dict[str, str]:
    """Title and chapters; the latter also as tags, for files that have no chapters of their own."""
    brief = timed.plan.brief
    tags = {"title": brief.title, "comment": "Work without pain, and stop if it hurts or you feel dizzy."}
    for number, chapter in enumerate(found, 1):
        at = seconds(chapter.start)
        clock = f"{int(at // 3600):02}:{int(at % 3600 // 60):02}:{at % 60:06.3f}"
        tags[f"CHAPTER{number:03}"], tags[f"CHAPTER{number:03}NAME"] = clock, chapter.title
    return tags


def _marks(found: list[Chapter]) -> list[Any]:
    return [
        {
            "id": number, "start": one.start, "end": one.end, "time_base": Fraction(1, TICKS_PER_S),
            "metadata": {"title": one.title},
        }
        for number, one in enumerate(found)
    ]  # fmt: skip


def _cannot(error: Exception, path: Path) -> Problem:
    reason = (getattr(error, "strerror", None) or str(error)).lower()
    return Problem(f"The sound can't be written: {reason}.", str(path), "Choose another place.")
