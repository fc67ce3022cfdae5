"""Looking into a camera's file: one picture of it, or a few seconds over a cut as the film will have them."""

from collections.abc import Sequence
from pathlib import Path
from typing import Any, NamedTuple

import av
import numpy as np

from yewhour.core.film.cut_list import played
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.voice.film.alignment import Alignment
from yewhour.voice.film.cut_film import OwnSound, upright
from yewhour.voice.film.cut_sound import cut_sound
from yewhour.voice.film.film_file import RATE, cannot
from yewhour.voice.sound.shipped_voice import Samples

STEP_S = 0.1  # from picture to picture
EARLIER_S = 0.5  # before what is wanted, that sound is decoded from


class SmallPicture(NamedTuple):
    """A picture to be shown: its size, and red, green and blue of each pixel, row by row."""

    wide: int
    high: int
    pixels: bytes


class Preview(NamedTuple):
    """What is seen, each with its second, and heard, at 48 kHz."""

    pictures: list[tuple[float, SmallPicture]]
    sound: Samples


def still(camera: Path, at_s: float, wide: int) -> SmallPicture:
    """The picture at a second of a camera's file, as wide as wanted. Raises Problem where there is none."""
    found = _pictures(camera, [(at_s, at_s + STEP_S / 2)], wide)
    if not found:
        raise Problem("There is no picture there.", str(camera), "Choose another moment.")
    return found[0][1]


def preview(camera: Path, pieces: Sequence[Range], wide: int, own_sound: OwnSound | None = None) -> Preview:
    """Short pieces of a camera's file, as they follow each other in the film. Raises Problem."""
    path, lies = own_sound if own_sound is not None else (camera, None)
    return Preview(_pictures(camera, pieces, wide), _sound(path, pieces, lies))


def _pictures(camera: Path, pieces: Sequence[Range], wide: int) -> list[tuple[float, SmallPicture]]:
    found: list[tuple[float, SmallPicture]] = []
    try:
        with av.open(str(camera)) as file:
            if not file.streams.video:
                raise Problem("There is no picture in this file.", str(camera), "Name the camera's file.")
            stream: Any = file.streams.video[0]
            stream.thread_type = "AUTO"
            before_s = 0.0
            for start_s, end_s in pieces:
                file.seek(round(max(0.0, start_s) / stream.time_base), stream=stream)
                found += _piece(file, stream, start_s, end_s, before_s, wide)
                before_s += end_s - start_s
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, camera, "shown", "Name the camera's file: a video.") from error
    return found


def _piece(
    file: Any, stream: Any, start_s: float, end_s: float, before_s: float, wide: int
) -> list[tuple[float, SmallPicture]]:
    """A picture for each tenth of a second of a piece, the one that is seen then."""
    found: list[tuple[float, SmallPicture]] = []
    last: av.VideoFrame | None = None
    wanted_s = start_s
    for frame in file.decode(stream):
        while frame.time is not None and frame.time > wanted_s and wanted_s < end_s:
            found.append((before_s + wanted_s - start_s, _small(last or frame, wide)))
            wanted_s += STEP_S
        if wanted_s >= end_s:
            return found
        last = frame
    while last is not None and wanted_s < end_s:  # the file ends here
        found.append((before_s + wanted_s - start_s, _small(last, wide)))
        wanted_s += STEP_S
    return found


def _small(frame: av.VideoFrame, wide: int) -> SmallPicture:
    seen = upright(frame)
    wide = min(wide, seen.width)
    high = max(2, round(seen.height * wide / seen.width))
    pixels = seen.reformat(width=wide, height=high, format="rgb24").to_ndarray()
    return SmallPicture(wide, high, pixels.tobytes())


def _sound(path: Path, pieces: Sequence[Range], lies: Alignment | None) -> Samples:
    """What is heard in the pieces; nothing where there is no sound."""
    try:
        blocks = list(cut_sound(path, played(pieces, ()), lies, lambda share: None))
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, path, "heard", "Name the camera's file: a video.") from error
    return np.concatenate([*blocks, np.zeros(0, np.float32)])


__all__ = ["RATE", "Preview", "SmallPicture", "preview", "still"]
