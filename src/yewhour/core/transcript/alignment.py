"""The words of a script found among words that were heard: the two in their order, at the least cost.

Every word of the script is weighed by how rare it is. A run of words in a row is worth more than the same
words scattered, so that a line is found whole or not at all.
"""

from collections import Counter
from collections.abc import Sequence

import numpy as np
import numpy.typing as npt
from rapidfuzz import fuzz, process

LEAST_WORTH = 0.1  # of a word that stands everywhere
BEGINS = 0.06  # what it costs to begin a run
SKIPS = 0.05  # and to leave out a word within one, on either side
ALIKE = 78  # of 100: words that a machine may have heard wrongly
FAR_S, FAR = 30.0, 0.7  # so far from where it is expected, a word is worth so much less
_RUN, _START, _SKIP_HEARD, _SKIP_SAID = range(4)
Places = npt.NDArray[np.intp]
NOWHERE: Places = np.zeros(0, np.intp)


def worth(script: Sequence[str]) -> np.ndarray:
    """What each word of a script is worth, from LEAST_WORTH to 1."""
    often = Counter(script)
    return np.array([max(LEAST_WORTH, often[word] ** -0.5) for word in script], np.float32)


def aligned(
    script: Sequence[str],
    heard: Sequence[str],
    expected_s: Sequence[float] | None = None,
    heard_s: Sequence[float] | None = None,
) -> list[tuple[int, int, float]]:
    """(place in the script, place in what was heard, how alike) of the words found, both in order.

    expected_s and heard_s: seconds of the words; what is far from where it is expected counts less.
    """
    if not script or not heard:
        return []
    alike = _alike(script, heard)
    said_words, heard_words = _numbers(script), _numbers(heard)
    worths = worth(script)
    times = np.asarray(heard_s, np.float32) if heard_s is not None else None
    spots = [
        np.flatnonzero(likeness[heard_words]) for likeness in alike
    ]  # where each word may have been heard
    likes = [likeness[heard_words[at]] for likeness, at in zip(alike, spots, strict=True)]
    columns = len(heard)
    paths = np.full((len(script), columns), 4, np.uint8)
    # Two places more in front, so that what was before a word is there for the first ones too.
    best = np.zeros(columns + 2, np.float32)
    match, earlier, spare = (np.full(columns + 2, -np.inf, np.float32) for _ in range(3))
    held: list[Places] = [NOWHERE, NOWHERE, NOWHERE]  # the places of the three that are not -inf
    ways = np.empty((4, columns), np.float32)
    for row, word in enumerate(said_words):
        at = spots[word]
        value = worths[row] * likes[word]
        if times is not None and expected_s is not None:
            value = value * (1 - FAR * np.minimum(1, np.abs(times[at] - expected_s[row]) / FAR_S))
        before, here_at, way = at + 1, at + 2, ways[:, : len(at)]
        way[0] = match[before]
        way[1] = best[before] - BEGINS
        way[2] = match[at] - SKIPS
        way[3] = earlier[before] - SKIPS
        here = value + way.max(0)
        total = best.copy()
        total[here_at] = np.maximum(total[here_at], here)
        total = np.maximum.accumulate(total)
        was, now = best[here_at], total[here_at]
        came = np.where(now == was, 1, 2)
        came[(now == here) & (here > was)] = 0
        paths[row, total[2:] != best[2:]] = 8
        paths[row, at] = way.argmax(0) + 4 * came
        spare[held[2]] = -np.inf
        spare[here_at] = here
        best, match, earlier, spare = total, spare, match, earlier
        held = [here_at, held[0], held[1]]
    return _traced(paths, alike, said_words, heard_words)


def _numbers(words: Sequence[str]) -> np.ndarray:
    known = {word: number for number, word in enumerate(dict.fromkeys(words))}
    return np.array([known[word] for word in words])


def _alike(script: Sequence[str], heard: Sequence[str]) -> np.ndarray:
    """How alike each word of one is to each of the other: 1 the same, 0 another."""
    one, two = list(dict.fromkeys(script)), list(dict.fromkeys(heard))
    found = process.cdist(one, two, scorer=fuzz.ratio, score_cutoff=ALIKE, dtype=np.float32) / 100
    long = (
        np.array([len(word) > 3 for word in one])[:, None]
        & np.array([len(word) > 3 for word in two])[None, :]
    )
    return np.where(found >= 0.999, 1.0, np.where(long, found * 0.7, 0.0)).astype(np.float32)


def _traced(
    paths: np.ndarray, alike: np.ndarray, said: np.ndarray, heard: np.ndarray
) -> list[tuple[int, int, float]]:
    """The way back through what was best."""
    found = []
    row, column = paths.shape[0] - 1, paths.shape[1] - 1
    matching = False
    while row >= 0 and column >= 0:
        way, came = int(paths[row, column]) % 4, int(paths[row, column]) // 4
        if not matching and came:
            row, column = (row - 1, column) if came == 1 else (row, column - 1)
            continue
        found.append((row, column, float(alike[said[row], heard[column]])))
        if way == _SKIP_SAID:
            row -= 1
        elif way == _SKIP_HEARD:
            column -= 1
        matching = way != _START
        row, column = row - 1, column - 1
    return found[::-1]
