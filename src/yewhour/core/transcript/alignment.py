"""The words of a script found among words that were heard: the two in their order, at the least cost.

Every word of the script is weighed by how rare it is. A run of words in a row is worth more than the same
words scattered, so that a line is found whole or not at all.
"""

from collections import Counter
from collections.abc import Sequence

import numpy as np
from rapidfuzz import fuzz, process

LEAST_WORTH = 0.1  # of a word that stands everywhere
BEGINS = 0.06  # what it costs to begin a run
SKIPS = 0.05  # and to leave out a word within one, on either side
ALIKE = 78  # of 100: words that a machine may have heard wrongly
FAR_S, FAR = 30.0, 0.7  # so far from where it is expected, a word is worth so much less
_RUN, _START, _SKIP_HEARD, _SKIP_SAID = range(4)


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
    rows, columns = len(script), len(heard)
    alike = _alike(script, heard)
    said_words, heard_words = _numbers(script), _numbers(heard)
    worths = worth(script)
    times = np.asarray(heard_s, np.float32) if heard_s is not None else None
    paths = np.zeros((rows, columns), np.uint8)
    nothing = np.full(columns, -np.inf, np.float32)
    best, match, earlier = np.zeros(columns, np.float32), nothing, nothing
    for row in range(rows):
        similar = alike[said_words[row]][heard_words]
        value = worths[row] * similar
        if times is not None and expected_s is not None:
            value = value * (1 - FAR * np.minimum(1, np.abs(times - expected_s[row]) / FAR_S))
        ways = np.stack(
            (_after(match), _after(best, 0.0) - BEGINS, _after(match, by=2) - SKIPS, _after(earlier) - SKIPS)
        )
        way = ways.argmax(0)
        here = np.where(similar > 0, value + ways.max(0), -np.inf).astype(np.float32)
        top = np.maximum(best, here)
        total = np.maximum.accumulate(top)
        came = np.where(total == best, 1, 2)
        came[(total == here) & (total > best)] = 0
        paths[row] = way + 4 * came
        best, earlier, match = total, match, here
    return _traced(paths, alike, said_words, heard_words)


def _after(row: np.ndarray, first: float = -np.inf, by: int = 1) -> np.ndarray:
    """A row moved on, so that each place has what was `by` before it."""
    return np.concatenate([np.full(min(by, len(row)), first, np.float32), row[:-by]])


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
