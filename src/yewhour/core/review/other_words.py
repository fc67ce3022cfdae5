"""Movements in other words: how near what is said is to one of the ways in which each of them is taught.

Every movement has phrases (data/heard_in_other_words.toml, and the lines of its card that place it). A phrase is
near where most of what is rare in it is said within a window of words, in any order. What is heard of a movement
at a time is its nearest phrase, counted once.
"""

import math
from collections import Counter
from collections.abc import Callable, Mapping, Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from yewhour.core.transcript.transcript import HeardWord

WINDOW, STEP = 22, 3  # words that are heard together, and from one window to the next
APART_S = 9.0  # of silence that no window goes over
PAIR = 0.5  # what two words that stand together tell, against each of them
PAIR_WITHIN = 3  # words
LEAST = 0.33  # of a phrase, to be near at all
STRONGEST = 15.0  # evidence of the nearest
COMMON = frozenset((
    "the", "a", "an", "and", "of", "to", "your", "you", "it", "is", "that", "this", "with", "for", "be", "or",
    "as", "if", "so", "then", "let", "them", "they", "there", "we", "i", "me", "my", "our", "do", "just", "are",
    "what", "when", "by", "its", "it's", "you're", "i'm", "we're", "at", "till", "until", "them", "have", "can",
    "right", "left", "their", "than", "but", "will", "she", "he", "his", "her", "has", "had", "was", "would",
    "like", "now", "here", "where", "maybe", "get", "got", "go", "take", "make",
))  # fmt: skip
Floats = NDArray[np.float32]


class NearPhrase(msgspec.Struct, frozen=True):
    """A movement that something said is near to: its place among the movements, the second, the evidence."""

    place: int
    at_s: float
    evidence: float


class PhraseIndex:
    """The phrases of movements, ready to be compared with what is heard.

    phrases: those of each movement, by its place. stem: what makes words that mean one thing the same.
    """

    def __init__(self, phrases: Sequence[Sequence[str]], stem: Callable[[str], str]) -> None:
        self._stem, self._count = stem, len(phrases)
        bags: list[tuple[int, frozenset[str]]] = []
        for place, texts in enumerate(phrases):
            bags += [(place, bag) for bag in (self._bag(text.split()) for text in texts) if len(bag) > 2]
        spread: Counter[str] = Counter()
        for place in range(len(phrases)):
            spread.update(frozenset().union(*(bag for one, bag in bags if one == place), frozenset()))
        self._words = {word: number for number, word in enumerate(spread)}
        self._rare = {
            word: (PAIR if " " in word else 1.0) * math.log(1 + self._count / (count + 1.0))
            for word, count in spread.items()
        }
        self._single = np.array([" " not in word for word in self._words])
        matrix = np.zeros((len(self._words), len(bags)), np.float32)
        for column, (_, bag) in enumerate(bags):
            for word in bag:
                matrix[self._words[word], column] = self._rare[word]
        self._alone = matrix * self._single[:, None]
        self._pairs = matrix - self._alone
        self._whole = self._alone.sum(axis=0)
        self._owner = np.array([place for place, _ in bags])

    def near(self, words: Sequence[HeardWord]) -> list[NearPhrase]:
        """What is near, each where it is nearest."""
        starts = list(_windows(words))
        if not starts:
            return []
        heard = np.zeros((len(starts), len(self._words)), np.float32)
        for row, (first, last) in enumerate(starts):
            for word in self._bag([one.text for one in words[first:last]]):
                if word in self._words:
                    heard[row, self._words[word]] = 1.0
        alone = heard @ self._alone
        cover = alone / self._whole
        shared = alone + heard @ self._pairs
        near = np.maximum(0.0, (cover - LEAST) / (1 - LEAST)) * np.minimum(shared, STRONGEST)
        best = np.zeros((len(starts), self._count), np.float32)
        np.maximum.at(best.T, self._owner, near.T)
        best *= best / np.maximum(1e-6, _highest_around(best.max(axis=1)))[:, None]
        found = []
        for place in np.nonzero(best.max(axis=0))[0]:
            row, column = best[:, place], 0
            while column < len(row):
                if row[column] <= 0:
                    column += 1
                    continue
                end = column
                while end < len(row) and row[end] > 0 and end - column < WINDOW // STEP:
                    end += 1
                peak = column + int(row[column:end].argmax())
                top = [n for n in range(column, end) if row[n] >= row[peak] - 1e-6]
                at = words[starts[top[-1]][0]].start_s
                found.append(NearPhrase(int(place), at, float(row[peak])))
                column = end
        return found

    def _bag(self, words: Sequence[str]) -> frozenset[str]:
        plain = [self._stem(word) for word in (one.strip(".,;:!?").lower() for one in words) if word not in COMMON]
        pairs = {
            f"{min(one, two)} {max(one, two)}"
            for at, one in enumerate(plain)
            for two in plain[at + 1 : at + 1 + PAIR_WITHIN]
        }
        return frozenset(plain) | pairs


def _highest_around(values: Floats) -> Floats:
    """The highest of each value and those of the windows that share most of its words."""
    reach = WINDOW // STEP // 2
    padded = np.pad(values, reach)
    return np.max([padded[at : at + len(values)] for at in range(2 * reach + 1)], axis=0)


def _windows(words: Sequence[HeardWord]) -> list[tuple[int, int]]:
    """(first, behind the last) of each window."""
    found, at = [], 0
    while at < len(words):
        end = at + 1
        while end < min(len(words), at + WINDOW) and words[end].start_s - words[end - 1].end_s <= APART_S:
            end += 1
        found.append((at, end))
        at = min(at + STEP, end) if end - at >= STEP else end
    return found
