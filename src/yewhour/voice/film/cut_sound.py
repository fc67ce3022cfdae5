"""The sound of what is kept: the camera's, or one recorded apart, its clock brought to the camera's.

What is slower in the picture is not in the sound: its quiet goes on, backwards and forwards, so that nothing
of it jumps and no tone of the room changes.
"""

from collections import deque
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path

import av
import numpy as np

from yewhour.core.film.cut_list import Piece
from yewhour.voice.film.alignment import Alignment
from yewhour.voice.film.film_file import BLOCK, RATE
from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.spoken_track import spoken_stream

FADE_S = 0.012  # at both edges of a cut
KEPT = 30 * RATE  # samples of a quiet, that it goes on with
LEAST_DRIFT = 1e-7  # of two clocks, that is taken out
Progress = Callable[[float], None]  # told the share that is done; what it raises stops the work


def cut_sound(
    path: Path, pieces: Sequence[Piece], lies: Alignment | None, progress: Progress
) -> Iterator[Samples]:
    """The samples of each piece, exactly as many as it is long; silence where the file has none.

    pieces: seconds of the camera's file. lies: where the sound lies beside it; None for its own.
    """
    with av.open(str(path)) as file:
        if not file.streams.audio:
            return
        stream = spoken_stream(file)
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
    blocks: Iterable[Samples], begins: int, pieces: Sequence[Piece], progress: Progress
) -> Iterator[Samples]:
    """What of blocks lies in each piece, faded where it does not go on; silence where there is nothing.
    begins: the sample of the recording that the first block begins at."""
    source = _Sought(blocks, begins)
    for number, piece in enumerate(pieces):
        start, end = round(piece.start_s * RATE), round(piece.end_s * RATE)
        more = round(piece.long_s * RATE) - round((piece.end_s - piece.start_s) * RATE)
        before, after = (pieces[number - 1 : number] if number else ()), pieces[number + 1 : number + 2]
        begun = any(one.end_s == piece.start_s and one.slow == 1 for one in before)
        goes_on = more > 0 or any(one.start_s == piece.end_s for one in after)
        fade = max(1, min(round(FADE_S * RATE), (end - start) // 2))
        edges = (start if not begun else start - fade, end if not goes_on else end + fade)
        last, count = deque[Samples](), 0  # what it goes on with: no more of a quiet than that is kept
        for here, part in source.between(start, end):
            if more > 0:
                last.append(part)
                count += len(part)
            while last and count - len(last[0]) >= KEPT:
                count -= len(last.popleft())
            yield _faded(part, here, edges, fade)
        if more > 0:
            yield from _going_on(np.concatenate(last), more, fade)
        progress((number + 1) / len(pieces))


class _Sought:
    """Blocks that follow one another from a sample on, looked through once."""

    def __init__(self, blocks: Iterable[Samples], begins: int) -> None:
        self._blocks, self._at = iter(blocks), begins
        self._block: Samples | None = np.zeros(0, np.float32)

    def between(self, start: int, end: int) -> Iterator[tuple[int, Samples]]:
        """What lies from one sample to another, each part with where it begins."""
        here = start
        while here < end:
            while self._block is not None and self._at + len(self._block) <= here:
                self._at += len(self._block)
                self._block = next(self._blocks, None)
            if self._block is None or self._at > here:  # before the sound begins, or after it ended
                until = min(end, here + BLOCK, end if self._block is None else self._at)
                part = np.zeros(until - here, np.float32)
            else:
                part = self._block[here - self._at : end - self._at].copy()
            yield here, part
            here += len(part)


def _going_on(quiet: Samples, more: int, fade: int) -> Iterator[Samples]:
    """So many samples after a quiet stretch: the same backwards, and forwards again, faded at the end."""
    there_and_back = np.concatenate([quiet[::-1], quiet])
    for begin in range(0, more, len(there_and_back)):
        part: Samples = there_and_back[: more - begin].copy()
        yield _faded(part, begin, (-fade, more), fade)


def _faded(part: Samples, here: int, edges: tuple[int, int], fade: int) -> Samples:
    """A part of a piece, softer towards both edges."""
    start, end = edges
    if here < start + fade or here + len(part) > end - fade:
        places = np.arange(here, here + len(part))
        part *= np.clip(np.minimum(places - start, end - 1 - places) / fade, 0, 1).astype(np.float32)
    return part
