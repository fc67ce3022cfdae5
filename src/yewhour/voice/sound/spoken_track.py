"""Which of several tracks of sound her voice is on: cameras keep one for each microphone.

Speech comes and goes, and a room does not: it is heard on the track whose loud moments stand out most from
its quiet ones, at three places of the file.
"""

from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from typing import Any

import av
import numpy as np
import numpy.typing as npt

RATE, FRAME = 8_000, 400  # what is listened to, and a twentieth of a second of it
PLACES, LISTENED_S = (0.1, 0.4, 0.7), 20.0
SILENT_DB = -60.0  # a track that is never louder is empty
CLEARER_DB = 3.0  # that a later track has to be clearer by than an earlier one
NAMES = ("first", "second", "third", "fourth", "fifth", "sixth")


def spoken_stream(file: Any) -> Any:
    """The track of sound that she is heard on, of an opened file that has one at least."""
    streams = file.streams.audio
    return streams[spoken_track(Path(file.name))] if len(streams) > 1 else streams[0]


def spoken_track(path: Path) -> int:
    """The number of the track of a file that she is heard on, from 0. Raises what PyAV raises."""
    seen = path.stat()
    return _spoken(str(path), seen.st_size, seen.st_mtime_ns)


def told_track(path: Path) -> str:
    """What is said of a file with several tracks of sound; "" where there is one at most, or none is read."""
    try:
        with av.open(str(path)) as file:
            count = len(file.streams.audio)
        number = spoken_track(path) if count > 1 else 0
    except (OSError, av.error.FFmpegError):
        return ""
    name = NAMES[number] if number < len(NAMES) else f"{number + 1}th"
    return f"It has {count} tracks of sound; she is heard best on the {name}." if count > 1 else ""


@lru_cache(maxsize=8)
def _spoken(path: str, size: int, changed_ns: int) -> int:
    with av.open(path) as file:
        clear = [_clearness(_levels(file, number)) for number in range(len(file.streams.audio))]
    best = 0
    for number, one in enumerate(clear):
        if one > clear[best] + CLEARER_DB:
            best = number
    return best


def _levels(file: Any, number: int) -> npt.NDArray[np.float32]:
    """How loud a track is, twenty times a second, in dB below the loudest there can be."""
    stream, found = file.streams.audio[number], list[npt.NDArray[np.float32]]()
    for place in PLACES:
        parts, count = list[npt.NDArray[np.float32]](), 0
        resampler = av.AudioResampler("flt", "mono", RATE)
        with suppress(av.error.FFmpegError):  # what is broken there is listened to elsewhere
            file.seek(round(place * (file.duration or 0)), backward=True)
            for frame in file.decode(stream):
                for one in resampler.resample(frame):
                    parts.append(np.asarray(one.to_ndarray(), np.float32).reshape(-1))
                    count += len(parts[-1])
                if count > LISTENED_S * RATE:
                    break
        wave = np.concatenate([*parts, np.zeros(0, np.float32)])
        rows = wave[: len(wave) // FRAME * FRAME].reshape(-1, FRAME)
        found.append(10 * np.log10(np.square(rows).mean(axis=1) + 1e-10))
    return np.concatenate(found)


def _clearness(levels: npt.NDArray[np.float32]) -> float:
    """By how many dB what is loud on a track stands out from what is quiet; below nought for silence."""
    if not len(levels):
        return -1.0
    quiet, loud = np.percentile(levels, (20, 90))
    return float(loud - max(quiet, SILENT_DB)) if loud > SILENT_DB else -1.0
