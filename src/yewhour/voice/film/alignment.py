"""Where a sound of its own lies beside a camera's file: found by what both heard, to the millisecond.

How suddenly it gets louder, hundred times a second, is compared first over the whole of both, then in windows
all along, and in each of those the sound itself. A line through what the windows say gives where it begins,
and how much faster one clock runs than the other. A clap in both decides by itself; words do as well.
"""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import av
import msgspec
import numpy as np
import numpy.typing as npt

from yewhour.core.problem import Problem
from yewhour.voice.film.film_file import cannot
from yewhour.voice.recognition.knocks import claps_in
from yewhour.voice.sound.spoken_track import spoken_stream

Levels = npt.NDArray[np.float32]

RATE = 8000  # of what is compared
FRAME = RATE // 100
WINDOW_S, FAR_S = 40.0, 2.0  # a window, and how far from where it should be it is looked for
FINE_S, FINE_FAR_S, FINE_SURE = 6.0, 0.04, 6.0  # of the sound itself
LEAST_S = 5.0
COARSE = 30_000  # frames of the first comparison: clocks go apart over more
SURE = 9.0  # of the highest over the usual spread of a comparison
WINDOWS = 24
MOST_DRIFT = 0.002  # of two clocks
NEAR_S = 0.02  # to the line, of a window that is believed
CLAPPED_S = 600.0  # from the beginning of a file, in which the clap is looked for


class Alignment(msgspec.Struct, frozen=True):
    """A sound beside a camera's file: which of the camera's seconds it begins at, below nought where it began
    earlier, and how many of the camera's seconds one of its own lasts."""

    offset_s: float
    rate: float = 1.0


def align(camera: Path, sound: Path) -> Alignment:
    """Where a sound lies beside a camera's file. Raises Problem where that can't be told."""
    with _listened(camera) as heard, _listened(sound) as own:
        if min(len(heard[0]), len(own[0])) < LEAST_S * 100:
            raise Problem(
                "There is too little sound to find where it belongs.", str(sound), "Name the whole of it."
            )
        coarse_s = _coarse(heard[0], own[0])
        if coarse_s is None:
            raise Problem(
                "This sound was not found in the camera's: they seem to be of different times.",
                str(sound), "Name the sound of this take, or leave it out.",
            )  # fmt: skip
        found = list(_windows(heard, own, coarse_s))
    fine = [(at_s, fine_s) for at_s, _, fine_s in found if fine_s is not None]
    return _line_through(fine if len(fine) > 2 else [(at_s, rough_s) for at_s, rough_s, _ in found], coarse_s)


def clap_in(camera: Path) -> float | None:
    """The second of a clap near the beginning of a camera's file; None where none stands out, or nothing is
    heard in it."""
    try:
        with _listened(camera, CLAPPED_S) as (_, wave):
            found = claps_in(wave.astype(np.float32) / np.float32(32768), RATE)
    except Problem:
        return None
    return found[0] if found else None


@contextmanager
def _listened(path: Path, up_to_s: float = float("inf")) -> Iterator[tuple[Levels, npt.NDArray[np.int16]]]:
    """How suddenly a file gets louder, hundred times a second, and the sound itself, on the disk."""
    try:
        with tempfile.TemporaryFile() as disk:
            samples = 0
            with av.open(str(path)) as file:
                if not file.streams.audio:
                    raise Problem("There is no sound in this file.", str(path), "Name one with sound.")
                stream = spoken_stream(file)
                begins_s = float((stream.start_time or 0) * stream.time_base) if stream.time_base else 0.0
                disk.write(bytes(2 * max(0, round(begins_s * RATE))))
                resampler = av.AudioResampler("s16", "mono", RATE)
                for frame in file.decode(stream):
                    for part in resampler.resample(frame):
                        block = part.to_ndarray().reshape(-1)
                        samples += len(block)
                        disk.write(block.astype(np.int16).tobytes())
                    if samples > up_to_s * RATE:
                        break
            disk.flush()
            wave = np.memmap(disk, np.int16, "r") if disk.tell() else np.zeros(0, np.int16)
            yield _onsets(wave), wave
            del wave
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, path, "aligned", "Name a file with sound.") from error


def _onsets(wave: npt.NDArray[np.int16]) -> Levels:
    """How many decibels louder each hundredth is than the one before, and never less than none."""
    levels = np.zeros(len(wave) // FRAME, np.float32)
    if not len(levels):
        return levels
    for at in range(0, len(levels), 6000):  # a minute of it at once
        part = wave[at * FRAME : (at + 6000) * FRAME].astype(np.float32)
        part = part[: len(part) // FRAME * FRAME].reshape(-1, FRAME)
        levels[at : at + len(part)] = 10 * np.log10((part * part).mean(axis=1) + 20.0)
    found = np.clip(np.diff(levels, prepend=levels[:1]), 0, 25)
    return np.asarray(found - found.mean(), np.float32)


def _correlated(long: Levels, short: Levels) -> Levels:
    """How alike a short one is to each stretch of a long one; the first value is for both beginning together
    at `1 - len(short)`."""
    size = 1 << (len(long) + len(short) - 1).bit_length()
    product = np.fft.rfft(long, size) * np.conj(np.fft.rfft(short, size))
    return np.asarray(np.roll(np.fft.irfft(product, size), len(short) - 1)[: len(long) + len(short) - 1])


def _best(alike: Levels) -> tuple[int, float]:
    """Where it is most alike, and how far that stands out."""
    at = int(np.argmax(alike))
    return at, float(
        (alike[at] - np.median(alike)) / (1.4826 * np.median(np.abs(alike - np.median(alike))) + 1e-9)
    )


def _coarse(heard: Levels, own: Levels) -> float | None:
    """Roughly where a sound begins, by its window that tells most; None where none does."""
    best: tuple[float, float] | None = None
    size = min(len(own), COARSE)
    for start in range(0, max(1, len(own) - size // 2), max(size, len(own) // 6)):
        window = own[start : start + size]
        at, clear = _best(_correlated(heard, window))
        if best is None or clear > best[0]:
            best = clear, (at - (len(window) - 1) - start) / 100
    return best[1] if best is not None and best[0] > SURE else None


def _windows(
    heard: tuple[Levels, npt.NDArray[np.int16]], own: tuple[Levels, npt.NDArray[np.int16]], coarse_s: float
) -> Iterator[tuple[float, float, float | None]]:
    """(second of the sound, the camera's second less that, the same by the sound itself) all along."""
    size, far = round(WINDOW_S * 100), round(FAR_S * 100)
    size = min(size, len(own[0]))
    for start in np.linspace(0, max(0, len(own[0]) - size), WINDOWS).astype(int):
        begin = round(start + coarse_s * 100) - far
        around = heard[0][max(0, begin) : max(0, begin) + size + 2 * far]
        window = own[0][start : start + size]
        if len(around) < size:
            continue
        at, clear = _best(_correlated(around, window))
        if clear > SURE:
            rough_s = (max(0, begin) + at - (len(window) - 1) - start) / 100
            loud_s = _loudest(own[1], start / 100, size / 100)
            yield loud_s, rough_s, _fine(heard[1], own[1], loud_s, rough_s)


def _loudest(own: npt.NDArray[np.int16], from_s: float, long_s: float) -> float:
    """The middle of the loudest stretch that a fine comparison takes, in a window of a sound."""
    part = own[round(from_s * RATE) : round((from_s + long_s) * RATE)].astype(np.float32)
    seconds = np.square(part[: len(part) // RATE * RATE]).reshape(-1, RATE).sum(axis=1)
    if len(seconds) <= FINE_S:
        return from_s + long_s / 2
    sums = np.convolve(seconds, np.ones(int(FINE_S)), "valid")
    return from_s + float(np.argmax(sums)) + FINE_S / 2


def _fine(
    heard: npt.NDArray[np.int16], own: npt.NDArray[np.int16], middle_s: float, rough_s: float
) -> float | None:
    """The same to a sample of what is compared, by the sound itself; None where it tells nothing."""
    half, far = round(FINE_S * RATE / 2), round(FINE_FAR_S * RATE)
    middle = round(middle_s * RATE)
    start = max(0, middle - half)
    short = own[start : middle + half].astype(np.float32)
    begin = start + round(rough_s * RATE) - far
    if begin < 0 or begin + len(short) + 2 * far > len(heard):
        return None
    long = heard[begin : begin + len(short) + 2 * far].astype(np.float32)
    alike = np.abs(_correlated(np.diff(long), np.diff(short)))[len(short) - 2 : len(short) - 2 + 2 * far + 1]
    at, clear = _best(alike)
    return (begin + at - start) / RATE if clear > FINE_SURE else None


def _line_through(found: list[tuple[float, float]], coarse_s: float) -> Alignment:
    """The line that most of the windows lie on."""
    if len(found) < 2:
        return Alignment(found[0][1] if found else coarse_s)
    at, offset = np.array(found).T
    first, second = np.triu_indices(len(at), 1)
    apart = at[second] - at[first]
    slopes = (offset[second] - offset[first])[apart > WINDOW_S] / apart[apart > WINDOW_S]
    slope = float(np.median(slopes)) if len(slopes) else 0.0
    slope = slope if abs(slope) <= MOST_DRIFT else 0.0
    begin = float(np.median(offset - slope * at))
    near = np.abs(offset - slope * at - begin) < NEAR_S
    if len(slopes) and near.sum() >= 3 and np.ptp(at[near]) > WINDOW_S:
        slope, begin = (float(one) for one in np.polyfit(at[near], offset[near], 1))
    return Alignment(begin, 1.0 + slope)
