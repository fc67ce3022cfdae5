"""The film: what is kept of a camera's file, frame by frame, its sound even in loudness, with its chapters.

Every frame of what is kept is encoded anew, so that a cut falls on its frame; the sound is cut with a short
fade. The camera's file is only read.
"""

import tempfile
from collections.abc import Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec
import numpy as np

from yewhour.core.film.cut_list import Piece, Slower, played
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.files.atomic_files import written_aside
from yewhour.voice.film.alignment import Alignment
from yewhour.voice.film.cut_sound import Progress, cut_sound
from yewhour.voice.film.film_file import FilmText, StoredSound, cannot, kind_of, write_film
from yewhour.voice.film.laid_over import Over

OwnSound = tuple[Path, Alignment]  # recorded beside the camera, and where it lies


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
    own_sound: OwnSound | None = None,
    slower: Sequence[Slower] = (),
) -> WrittenFilm:
    """Writes what is kept of a camera's file, whole or not at all. Raises Problem where that can't be.

    over: what lies over the picture at a second of the film. own_sound: what is heard in place of the
    camera's sound. slower: what of it lasts longer.
    """
    kind = kind_of(out)
    if not pieces:
        raise Problem(
            "Nothing of this recording would be left.", str(camera), "Look at the cuts with --list."
        )
    if out.exists() and out.samefile(camera):
        raise Problem("This is the camera's file; it is not written over.", str(out), "Name another file.")
    shown = played(pieces, slower)
    long_s, count = sum(piece.long_s for piece in shown), 0
    try:
        with tempfile.TemporaryFile() as kept, written_aside(out) as part, av.open(str(camera)) as source:
            path, lies = own_sound if own_sound is not None else (camera, None)
            sound = StoredSound(cut_sound(path, shown, lies, lambda share: progress(0.15 * share)), kept)
            picture = source.streams.video[0]
            picture.thread_type = "AUTO"
            seen = ((at_s, upright(frame)) for at_s, frame in _kept_frames(source, picture, shown))
            rate = picture.average_rate or Fraction(25)
            for at_s in write_film(part, kind, seen, rate, sound, text, long_s, over):
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


def _kept_frames(source: Any, picture: Any, pieces: Sequence[Piece]) -> Iterator[tuple[float, av.VideoFrame]]:
    """The frames of what is kept, each with its second of the film."""
    before_s, left = 0.0, list(pieces)
    for frame in source.decode(picture):
        if frame.time is None:
            continue
        while left and frame.time >= left[0].end_s:
            before_s += left[0].long_s
            del left[0]
        if not left:
            return
        if frame.time >= left[0].start_s:
            yield before_s + (frame.time - left[0].start_s) * left[0].slow, frame


def upright(frame: av.VideoFrame) -> av.VideoFrame:
    """A frame as it is to be seen, where the camera was held on its side, in even numbers of pixels."""
    if not getattr(frame, "rotation", 0) % 360:
        return frame.reformat(format="yuv420p") if frame.format.name != "yuv420p" else frame
    pixels = frame.to_ndarray(format="rgb24")
    turned = np.ascontiguousarray(np.rot90(pixels, frame.rotation // 90), np.uint8)
    return av.VideoFrame.from_ndarray(turned, format="rgb24").reformat(format="yuv420p")
