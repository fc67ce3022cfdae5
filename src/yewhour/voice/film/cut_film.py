"""The film: what is kept of a camera's file, frame by frame, its sound even in loudness, with its chapters.

Every frame of what is kept is encoded anew (H.264 and AAC in an .mp4), so that a cut falls on its frame; the
sound is cut with a short fade. The camera's file is only read.
"""

import tempfile
from collections.abc import Callable, Iterable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import IO, Any

import av
import msgspec
import numpy as np

from yewhour.core.export.chapters import Chapter
from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.files.atomic_files import written_aside
from yewhour.voice.sound.loudness import LoudnessMeter, frames, gain_db, levelled
from yewhour.voice.sound.shipped_voice import Samples

RATE = 48_000
CLOCK = 90_000  # ticks a second of the film's frames
FADE_S = 0.012  # of the sound, at both edges of a cut
SCALE = 16384
BLOCK = 1 << 16
Progress = Callable[[float], None]


class WrittenFilm(msgspec.Struct, frozen=True):
    """What was written: its length in seconds, its frames, and what its loudness was mended by, in dB."""

    length_s: float
    frames: int
    by_db: float


def camera_length_s(path: Path) -> float:
    """How long a camera's file is. Raises Problem for one that can't be read, or has no picture."""
    try:
        with av.open(str(path)) as file:
            if not file.streams.video:
                raise Problem("There is no picture in this file.", str(path), "Name the camera's file.")
            if file.duration is None:
                raise Problem("How long this file is can't be told.", str(path), "Is it still being written?")
            return float(file.duration / av.time_base)
    except (OSError, av.error.FFmpegError) as error:
        raise _cannot(error, path, "read", "Name the camera's file: a video.") from error


def cut_film(
    camera: Path,
    out: Path,
    pieces: Sequence[Range],
    title: str,
    chapters: Sequence[Chapter],
    progress: Progress = lambda share: None,
) -> WrittenFilm:
    """Writes what is kept of a camera's file, whole or not at all. Raises Problem where that can't be."""
    if out.suffix.lower() != ".mp4":
        raise Problem(f"A film can't end in {out.suffix!r}.", str(out), "Name it .mp4.")
    if not pieces:
        raise Problem(
            "Nothing of this recording would be left.", str(camera), "Look at the cuts with --list."
        )
    if out.exists() and out.samefile(camera):
        raise Problem("This is the camera's file; it is not written over.", str(out), "Name another file.")
    try:
        with tempfile.TemporaryFile() as kept, written_aside(out) as part:
            sound = _KeptSound(camera, pieces, kept, lambda share: progress(0.15 * share))
            written = _write(camera, part, pieces, sound, title, chapters, progress)
            progress(1.0)
            return written
    except (OSError, av.error.FFmpegError) as error:
        raise _cannot(error, out, "written", "Choose another place, or another recording.") from error


def _cannot(error: Exception, path: Path, what: str, do: str) -> Problem:
    reason = (getattr(error, "strerror", None) or str(error)).lower()
    return Problem(f"The film can't be {what}: {reason}.", str(path), do)


class _KeptSound:
    """The sound of what is kept, on the disk: read once, cut and faded. by_db: what makes it as loud as it
    should be."""

    def __init__(self, camera: Path, pieces: Sequence[Range], file: IO[bytes], progress: Progress) -> None:
        self._file = file
        self.samples = 0
        meter = LoudnessMeter(RATE)
        for block in meter.heard(_cut_sound(camera, pieces, progress)):
            self.samples += len(block)
            file.write((np.clip(block, -1.9, 1.9) * SCALE).round().astype(np.int16).tobytes())
        self.by_db = gain_db(meter.loud) if self.samples else 0.0

    def blocks(self) -> Iterator[Samples]:
        """All of it, in blocks."""
        self._file.seek(0)
        while content := self._file.read(2 * BLOCK):
            yield np.frombuffer(content, np.int16).astype(np.float32) / np.float32(SCALE)


def _cut_sound(camera: Path, pieces: Sequence[Range], progress: Progress) -> Iterator[Samples]:
    """The samples of each piece, exactly as many as it is long; silence where the file has none."""
    with av.open(str(camera)) as file:
        if not file.streams.audio:
            return
        stream = file.streams.audio[0]
        resampler = av.AudioResampler("flt", "mono", RATE)
        blocks = (
            np.asarray(part.to_ndarray(), np.float32).reshape(-1)
            for frame in file.decode(stream) for part in resampler.resample(frame)
        )  # fmt: skip
        begins = round(float((stream.start_time or 0) * stream.time_base) * RATE) if stream.time_base else 0
        yield from _pieces_of(blocks, begins, pieces, progress)


def _pieces_of(
    blocks: Iterable[Samples], begins: int, pieces: Sequence[Range], progress: Progress
) -> Iterator[Samples]:
    """What of blocks lies in each piece, faded at its edges; silence where there is nothing. begins: the
    sample of the recording that the first block begins at."""
    spans = [(round(start * RATE), round(end * RATE)) for start, end in pieces]
    source, at = iter(blocks), begins
    block: Samples | None = np.zeros(0, np.float32)
    for number, (start, end) in enumerate(spans):
        here = start
        while here < end:
            while block is not None and at + len(block) <= here:
                at += len(block)
                block = next(source, None)
            if block is None or at >= end:  # before the sound begins, or after it ended
                until = end if block is None else min(end, at)
                yield np.zeros(min(BLOCK, until - here), np.float32)
                here += min(BLOCK, until - here)
                continue
            if at > here:
                yield np.zeros(at - here, np.float32)
                here = at
            part = block[here - at : end - at].copy()
            yield _faded(part, here, start, end)
            here += len(part)
        progress((number + 1) / len(spans))


def _faded(part: Samples, here: int, start: int, end: int) -> Samples:
    """A part of a piece, softer towards the edges of the piece."""
    fade = max(1, min(round(FADE_S * RATE), (end - start) // 2))
    if here < start + fade or here + len(part) > end - fade:
        places = np.arange(here, here + len(part))
        part *= np.clip(np.minimum(places - start, end - 1 - places) / fade, 0, 1).astype(np.float32)
    return part


def _write(
    camera: Path,
    part: Path,
    pieces: Sequence[Range],
    sound: _KeptSound,
    title: str,
    chapters: Sequence[Chapter],
    progress: Progress,
) -> WrittenFilm:
    long_s = sum(end - start for start, end in pieces)
    count = 0
    with av.open(str(camera)) as source, av.open(str(part), "w", format="mp4") as film:
        picture = source.streams.video[0]
        picture.thread_type = "AUTO"
        film.metadata["title"] = title
        film.set_chapters(_marks(chapters))
        stream: Any = None
        voice: Any = None
        heard: Iterator[tuple[float, Any]] = iter(())
        for at_s, frame in _kept_frames(source, picture, pieces):
            upright = _upright(frame)
            if stream is None:
                stream, voice = _streams(film, upright, picture, bool(sound.samples))
                heard = _encoded_sound(sound, voice) if voice is not None else iter(())
            upright.pts, upright.time_base = round(at_s * CLOCK), Fraction(1, CLOCK)
            upright.pict_type = 0
            film.mux(stream.encode(upright))
            count += 1
            for until_s, packets in heard:  # sound up to where the picture is
                film.mux(packets)
                if until_s >= at_s:
                    break
            progress(0.15 + 0.84 * at_s / long_s)
        if stream is None:
            raise Problem("No picture lies in what is kept.", str(camera), "Look at the cuts with --list.")
        for _, packets in heard:
            film.mux(packets)
        film.mux(stream.encode(None))
    return WrittenFilm(round(long_s, 3), count, round(sound.by_db, 2))


def _streams(film: Any, frame: av.VideoFrame, picture: Any, heard: bool) -> tuple[Any, Any]:
    stream = film.add_stream("libx264", rate=picture.average_rate or 25)
    stream.width, stream.height = frame.width - frame.width % 2, frame.height - frame.height % 2
    stream.pix_fmt = "yuv420p"
    stream.options = {"preset": "veryfast", "crf": "20"}
    stream.codec_context.time_base = Fraction(1, CLOCK)
    return stream, film.add_stream("aac", rate=RATE, layout="mono", bit_rate=128_000) if heard else None


def _kept_frames(source: Any, picture: Any, pieces: Sequence[Range]) -> Iterator[tuple[float, av.VideoFrame]]:
    """The frames of what is kept, each with its second of the film."""
    before_s, left = 0.0, list(pieces)
    for frame in source.decode(picture):
        if frame.time is None:
            continue
        while left and frame.time >= left[0][1]:
            before_s += left[0][1] - left[0][0]
            del left[0]
        if not left:
            return
        if frame.time >= left[0][0]:
            yield before_s + frame.time - left[0][0], frame


def _upright(frame: av.VideoFrame) -> av.VideoFrame:
    """A frame as it is to be seen, where the camera was held on its side."""
    if not getattr(frame, "rotation", 0) % 360:
        return frame.reformat(format="yuv420p") if frame.format.name != "yuv420p" else frame
    pixels = frame.to_ndarray(format="rgb24")
    turned = np.ascontiguousarray(np.rot90(pixels, frame.rotation // 90), np.uint8)
    return av.VideoFrame.from_ndarray(turned, format="rgb24").reformat(format="yuv420p")


def _encoded_sound(sound: _KeptSound, voice: Any) -> Iterator[tuple[float, Any]]:
    """Packets of the sound, each with the second of the film up to which they go."""
    resampler = av.AudioResampler(
        voice.format, "mono", RATE, frame_size=voice.codec_context.frame_size or 1024
    )
    done = 0
    for frame in frames(levelled(sound.blocks(), RATE, sound.by_db), RATE):
        done += frame.samples
        yield done / RATE, [packet for part in resampler.resample(frame) for packet in voice.encode(part)]
    last = [packet for part in resampler.resample(None) for packet in voice.encode(part)]
    yield done / RATE, [*last, *voice.encode(None)]


def _marks(chapters: Sequence[Chapter]) -> list[Any]:
    return [
        {"id": number, "start": one.start, "end": one.end, "time_base": Fraction(1, TICKS_PER_S),
         "metadata": {"title": one.title}}
        for number, one in enumerate(chapters)
    ]  # fmt: skip
