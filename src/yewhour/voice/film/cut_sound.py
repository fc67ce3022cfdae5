"""The sound of what is kept: the camera's, or one recorded apart, its clock brought to the camera's."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path

import av
import numpy as np

from yewhour.core.take.cutting import Range
from yewhour.voice.film.alignment import Alignment
from yewhour.voice.film.film_file import BLOCK, RATE
from yewhour.voice.sound.shipped_voice import Samples

FADE_S = 0.012  # at both edges of a cut
LEAST_DRIFT = 1e-7  # of two clocks, that is taken out
Progress = Callable[[float], None]  # told the share that is done; what it raises stops the work


def cut_sound(
    path: Path, pieces: Sequence[Range], lies: Alignment | None, progress: Progress
) -> Iterator[Samples]:
    """The samples of each piece, exactly as many as it is long; silence where the file has none.

    pieces: seconds of the camera's file. lies: where the sound lies beside it; None for its own.
    """
    with av.open(str(path)) as file:
        if not file.streams.audio:
            return
        stream = file.streams.audio[0]
        resampler = av.AudioResampler("flt", "mono", RATE)
        blocks: Iterable[Samples] = (
            np.asarray(part.to_ndarray(), np.float32).reshape(-1)
            for frame in file.decode(stream) for part in resampler.resample(frame)
        )  # fmt: skip
        begins_s = float((stream.start_time or 0) * stream.time_base) if stream.time_base else 0.0
        if lies is not None:
            begins_s = lies.offset_s + begins_s * lies.rate
            if abs(lies.rate - 1) > LEAST_DRIFT:
                blocks = stretched(blocks, lies.rate)
        yield from _pieces_of(blocks, round(begins_s * RATE), pieces, progress)


def stretched(blocks: Iterable[Samples], rate: float) -> Iterator[Samples]:
    """Blocks that last so many times as long, by cubics through the samples."""
    kept: Samples = np.zeros(1, np.float32)  # from one sample before the next that is needed
    first, done = -1, 0  # the sample that it begins with; what was given
    for block in blocks:
        kept = np.concatenate([kept, block])
        end = int((first + len(kept) - 3) * rate)  # two samples beyond are needed
        if end <= done:
            continue
        at = np.arange(done, end) / rate
        whole = np.floor(at).astype(np.int64)
        t = (at - whole).astype(np.float32)
        before, this, after, beyond = (kept[whole - first + step] for step in (-1, 0, 1, 2))
        yield this + 0.5 * t * (
            after - before
            + t * (2 * before - 5 * this + 4 * after - beyond + t * (3 * (this - after) + beyond - before))
        )  # fmt: skip
        done = end
        gone = max(0, int(done / rate) - 1 - first)
        kept, first = kept[gone:], first + gone


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
