"""A class that was taught in other words than its script's: when each movement was, and how sure that is.

What a movement is spoken of with is its names and every line of its card; each word that is heard, and
each two close together, speak for the movements that have them, the more the fewer have them. What may come
when is known from the plan: one movement after another, each about as long as it was planned, some left out,
and other talk between them. The best of all ways to lay the plan over the recording is found by a search
over stretches.
"""

import math
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray

from yewhour.core.lengths import seconds
from yewhour.core.library.movement import Movement
from yewhour.core.sides import unmarked
from yewhour.core.timing.layout import Segment
from yewhour.core.transcript.transcript import HeardWord, Transcript

BIN_S = 2.0
ELSEWHERE = 0.85  # of a movement's words that are anybody's
MOST_WEIGHT, NAMED = 3.0, 5.0  # of a word that speaks for a movement; of its whole name
SIDE = 0.7  # what a side that is named speaks for it
SPREAD = 0.5  # of lengths against the planned, as a share (log-normal)
SHORTEST, LONGEST = 0.3, 2.6  # of the planned length
SKIPPED = 7.0  # what it costs to leave a movement out
BESIDE = 0.12  # what a bin of other talk costs
SURE, LIKELY = 6.0, 2.5  # evidence of a stretch
OF_THIS = 0.09  # evidence a word, from which on a recording is of this class
SCRIPTED = 2.4  # so much more for the share of its lines that was said
UNSPOKEN = 2.0  # what it costs to begin something where nobody begins to speak
PAIRED = 2  # words of which two close together count as one thing more
NAME_TIMES = 6  # a name counts as so many words
PLACED = 3  # a line that says how one gets there counts as so many
PLACING = ("way", "place", "placings", "choice", "first", "again", "leave")
Floats = NDArray[np.float32]


class FreeStretch(msgspec.Struct, frozen=True):
    """A piece of a class as it was taught: the ids of its segments, when, and how sure that is (0 to 1).
    start_s is None for what was left out."""

    segments: tuple[str, ...]
    start_s: float | None
    end_s: float | None
    sure: float


class FreeAlignment(msgspec.Struct, frozen=True):
    """A class over a recording. gain: evidence a word that it is this class; another's is about a third."""

    stretches: tuple[FreeStretch, ...]
    gain: float

    def of_this(self, said: float) -> bool:
        """Whether the recording is of this class, as far as words tell. said: the share of the script's lines
        that were said as they are; where some were, a script is spoken, and another one's is much alike.
        """
        return self.gain >= OF_THIS + SCRIPTED * said


class _Unit(msgspec.Struct):
    """A movement with its way, on one side; or a flow; or a piece of talk."""

    key: str
    segments: list[Segment]

    @property
    def length_s(self) -> float:
        return seconds(self.segments[-1].end - self.segments[0].start)

    @property
    def main(self) -> Segment:
        return next((one for one in self.segments if not one.use.setup_for), self.segments[-1])


def aligned_freely(segments: Sequence[Segment], hearing: Transcript) -> FreeAlignment | None:
    """The best way to lay a class over what was heard; None where there is too little to go by."""
    units = _units(segments)
    if len(units) < 3 or len(hearing.words) < 10 * len(units) ** 0.5:
        return None
    size = max(1, math.ceil(hearing.length_s / BIN_S))
    scores = _scores(units, hearing.words, size)
    begun = _beginnings(hearing, size)
    path, total = _best(units, scores, begun)
    other = _best(units[::-1], scores[::-1], begun)[1]  # the plan the wrong way round: what chance gives
    sums = np.concatenate([np.zeros((len(units), 1), np.float32), np.cumsum(scores, axis=1)], axis=1)
    stretches = []
    for number, unit in enumerate(units):
        ids = tuple(one.id for one in unit.segments)
        span = path.get(number)
        if span is None:
            stretches.append(FreeStretch(ids, None, None, 0.4))
            continue
        evidence = float(sums[number, span[1]] - sums[number, span[0]])
        sure = 0.8 if evidence >= SURE else 0.6 if evidence >= LIKELY else 0.3
        stretches.append(FreeStretch(ids, span[0] * BIN_S, min(span[1] * BIN_S, hearing.length_s), sure))
    return FreeAlignment(tuple(stretches), round((total - other) / len(hearing.words), 3))


def _units(segments: Sequence[Segment]) -> list[_Unit]:
    found: list[_Unit] = []
    for one in segments:
        key = one.use.flow or one.use.setup_for or one.use.key
        if found and found[-1].key == key:
            found[-1].segments.append(one)
        else:
            found.append(_Unit(key, [one]))
    return found


# --- what is said of what -------------------------------------------------------------------------------

_WORD = re.compile(r"[a-z']+")
_ENDINGS = ("ings", "ing", "ers", "ed", "es", "er", "ly", "s")


@lru_cache(maxsize=20_000)
def stem(word: str) -> str:
    """A word without its ending, roughly: what is lifted, lifts and lifting are one."""
    for ending in _ENDINGS:
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            return word[: -len(ending)]
    return word


def stems(text: str) -> list[str]:
    """The stems of the words of a text."""
    return [stem(word) for word in _WORD.findall(text.lower())]


def features(words: Sequence[str]) -> Iterator[tuple[int, str]]:
    """Words, and words close together as a pair, each with the place it is at."""
    for at, word in enumerate(words):
        yield at, word
        if word in PLAIN:
            continue
        following = [other for other in words[at + 1 : at + 4] if other not in PLAIN][:PAIRED]
        for other in following:
            yield at, f"{word} {other}"


def _texts(movement: Movement) -> Iterator[tuple[int, str]]:
    """All that a movement is spoken of with, its names apart, and how often it counts: who teaches in other
    words still has to say where hands and feet go."""
    for lines in movement.lines.values():
        for wordings in lines:
            yield from ((1, text) for text in wordings)
    if movement.card is not None:
        for name, value in msgspec.to_builtins(movement.card).items():
            texts = (value,) if isinstance(value, str) else () if isinstance(value, dict) else value
            for text in texts:  # a way of placing is several sentences
                told = (text,) if isinstance(text, str) else text
                yield from ((PLACED if name in PLACING else 1, one) for one in told)


def _names(movement: Movement) -> Iterator[str]:
    yield from (movement.name, *movement.aliases, movement.traditional)


def _spoken(unit: _Unit) -> Counter[str]:
    """How often each word stands in what a unit is spoken of with."""
    count: Counter[str] = Counter()
    for movement in {one.use.movement.id: one.use.movement for one in unit.segments}.values():
        for times, text in _texts(movement):
            words = [word for word in stems(unmarked(text)) if word not in SIDES]
            for _, word in features(words):
                count[word] += times
        for name in _names(movement):
            for word in stems(name):
                count[word] += NAME_TIMES
    return count


SIDES = ("right", "left")
PLAIN = frozenset((
    "the", "a", "an", "and", "of", "to", "your", "you", "it", "is", "in", "on", "at", "that", "this", "with",
    "for", "up", "down", "be", "or", "as", "if", "so", "then", "let", "them", "they", "there", "we", "i",
    "me", "my", "our", "one", "not", "no", "do", "don't", "just", "all", "out", "from", "into", "what",
    "when", "by", "are",
))  # fmt: skip


def _scores(units: Sequence[_Unit], words: Sequence[HeardWord], size: int) -> Floats:
    """What is heard in each bin speaks for each unit: (units, bins)."""
    spoken = [_spoken(unit) for unit in units]
    totals = [max(1, sum(one.values())) for one in spoken]
    whole = sum(spoken, Counter[str]())
    all_words = sum(whole.values()) + 1
    said = [(stem(word.text), min(size - 1, int(word.start_s / BIN_S))) for word in words]
    plain = [(word, at) for word, at in said if word not in SIDES]
    heard = [(word, plain[n][1]) for n, word in features([word for word, _ in plain])]
    heard += [(word, at) for word, at in said if word in SIDES]
    ground = Counter(word for word, _ in heard)
    scores = np.zeros((len(units), size), np.float32)
    weights: dict[str, Floats] = {}
    for word, at in heard:
        if word in SIDES:
            scores[:, at] += _of_side(units, word)
            continue
        if word not in weights:
            base = (whole[word] + ground[word] + 1) / (all_words + len(heard) + 1)
            weights[word] = np.array([
                min(MOST_WEIGHT, math.log((1 - ELSEWHERE) * one[word] / total / base + ELSEWHERE))
                for one, total in zip(spoken, totals, strict=True)
            ], np.float32)  # fmt: skip
        scores[:, at] += weights[word]
    for number, unit in enumerate(units):
        for at in _named(unit, said):
            scores[number, at] += NAMED
    return scores


def _of_side(units: Sequence[_Unit], side: str) -> Floats:
    """What a side that was named says: for what is on it, against what is on the other."""
    return np.array(
        [0 if unit.main.side not in SIDES else SIDE if unit.main.side == side else -SIDE for unit in units],
        np.float32,
    )


def _named(unit: _Unit, heard: Sequence[tuple[str, int]]) -> Iterator[int]:
    """The bins in which the whole name of a unit's movement is said, of more than one word."""
    names = {tuple(stems(name)) for name in _names(unit.main.use.movement)}
    for name in names:
        if len(name) < 2:
            continue
        for at in range(len(heard) - len(name) + 1):
            if all(heard[at + n][0] == word for n, word in enumerate(name)):
                yield heard[at][1]


# --- the best way ---------------------------------------------------------------------------------------


def _beginnings(hearing: Transcript, size: int) -> Floats:
    """What it costs to begin in each bin: nothing where somebody begins to speak, something in a silence."""
    cost = np.full(size + 1, UNSPOKEN, np.float32)
    starts = [one.start_s for one in hearing.talks] or [word.start_s for word in hearing.words]
    for start_s in starts:
        cost[min(size, int(start_s / BIN_S))] = 0.0
    return cost


def _best(units: Sequence[_Unit], scores: Floats, begun: Floats) -> tuple[dict[int, tuple[int, int]], float]:
    """The stretches of bins that units are laid over, by their number, and what speaks for all of it."""
    count, size = scores.shape
    sums = np.concatenate([np.zeros((count, 1), np.float32), np.cumsum(scores, axis=1)], axis=1)
    bins = np.arange(size + 1, dtype=np.float32)
    here = (-BESIDE * bins).astype(np.float32)  # nothing laid yet: other talk up to each bin
    came_from = np.zeros((count, size + 1), np.int32)  # the bin a unit was begun at, -1 for left out
    beside = np.zeros((count + 1, size + 1), np.int32)  # the bin up to which it was not other talk
    beside[0] = 0
    for number, unit in enumerate(units):
        planned = max(1.0, unit.length_s / BIN_S)
        lengths = range(max(1, int(SHORTEST * planned)), min(size, math.ceil(LONGEST * planned)) + 1)
        best = np.full(size + 1, -np.inf, np.float32)
        start = np.full(size + 1, -1, np.int32)
        for length in lengths:
            prior = -(math.log(length / planned) ** 2) / (2 * SPREAD**2)
            first = here[: size + 1 - length] - begun[: size + 1 - length]
            value = first + sums[number, length:] - sums[number, : size + 1 - length] + prior
            better = value > best[length:]
            best[length:][better] = value[better]
            start[length:][better] = np.nonzero(better)[0].astype(np.int32)
        skipped = here - SKIPPED
        out = skipped > best
        best[out], start[out] = skipped[out], -1
        came_from[number] = start
        here, beside[number + 1] = _with_other_talk(best)
    return _traced(came_from, beside, count, size), float(here[size])


def _with_other_talk(best: Floats) -> tuple[Floats, NDArray[np.int32]]:
    """The same where other talk may follow, and from which bin on it does."""
    bins = np.arange(len(best), dtype=np.float32)
    shifted = best + BESIDE * bins
    highest = np.maximum.accumulate(shifted)
    since = np.where(shifted == highest, np.arange(len(best)), 0)
    return (highest - BESIDE * bins).astype(np.float32), np.maximum.accumulate(since).astype(np.int32)


def _traced(
    came_from: NDArray[np.int32], beside: NDArray[np.int32], count: int, size: int
) -> dict[int, tuple[int, int]]:
    found: dict[int, tuple[int, int]] = {}
    at = size
    for number in range(count - 1, -1, -1):
        end = int(beside[number + 1, at])
        start = int(came_from[number, end])
        if start >= 0:
            found[number] = (start, end)
            at = start
        else:
            at = end
    return found
