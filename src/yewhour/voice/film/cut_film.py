"""The film: what is kept of a camera's file, frame by frame, its sound even in loudness, with its chapters.

Every frame of what is kept is encoded anew, so that a cut falls on its frame; the sound is cut with a short
fade. The camera's file is only read.
"""

import tempfile
from collections.abc import Callable, Iterable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec
import numpy as np

from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.files.atomic_files import written_aside
from yewhour.voice.film.film_file import BLOCK, RATE, FilmText, StoredSound, cannot, kind_of, write_film
from yewhour.voice.film.laid_over import Over
from yewhour.voice.sound.shipped_voice import Samples

FADE_S = 0.012  # of the sound, at both edges of a cut
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
        raise cannot(error, path, "read", "Name the camera's file: a video.") from error


def camera_size(path: Path) -> tuple[int, int]:
    """How wide and high the picture of a camera's file is, upright. Raises Problem where there is none."""
    try:
        with av.open(str(path)) as file:
            frame = next(file.decode(file.streams.video[0]), None) if file.streams.video else None
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, path, "read", "Name the camera's file: a video.") from error
    if frame is None:
        raise Problem("There is no picture in this file.", str(path), "Name the camera's file.")
    seen = upright(frame)
    return seen.width, seen.height


def cut_film(
    camera: Path,
    out: Path,
    pieces: Sequence[Range],
    text: FilmText,
    over: Over | None = None,
    progress: Progress = lambda share: None,
) -> WrittenFilm:
    """Writes what is kept of a camera's file, whole or not at all. Raises Problem where that can't be.

    over: what lies over the picture at a second of the film.
    """
    kind = kind_of(out)
    if not pieces:
        raise Problem(
            "Nothing of this recording would be left.", str(camera), "Look at the cuts with --list."
        )
    if out.exists() and out.samefile(camera):
        raise Problem("This is the camera's file; it is not written over.", str(out), "Name another file.")
    long_s, count = sum(end - start for start, end in pieces), 0
    try:
        with tempfile.TemporaryFile() as kept, written_aside(out) as part, av.open(str(camera)) as source:
            sound = StoredSound(_cut_sound(camera, pieces, lambda share: progress(0.15 * share)), kept)
            picture = source.streams.video[0]
            picture.thread_type = "AUTO"
            seen = ((at_s, upright(frame)) for at_s, frame in _kept_frames(source, picture, pieces))
            rate = picture.average_rate or Fraction(25)
            for at_s in write_film(part, kind, seen, rate, sound, text, over):
                count += 1
                progress(0.15 + 0.84 * at_s / long_s)
            if not count:
                raise Problem(
                    "No picture lies in what is kept.", str(camera), "Look at the cuts with --list."
                )
            progress(1.0)
            return WrittenFilm(round(long_s, 3), count, round(sound.by_db, 2))
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, out, "written", "Choose another place, or another recording.") from error


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


def upright(frame: av.VideoFrame) -> av.VideoFrame:
    """A frame as it is to be seen, where the camera was held on its side, in even numbers of pixels."""
    if not getattr(frame, "rotation", 0) % 360:
        return frame.reformat(format="yuv420p") if frame.format.name != "yuv420p" else frame
    pixels = frame.to_ndarray(format="rgb24")
    turned = np.ascontiguousarray(np.rot90(pixels, frame.rotation // 90), np.uint8)
    return av.VideoFrame.from_ndarray(turned, format="rgb24").reformat(format="yuv420p")
