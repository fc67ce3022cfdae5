"""Movements in other words: how near what is said is to one of the ways in which each of them is taught.

Every movement has phrases (data/heard_in_other_words.toml, and the lines of its card that place it). A phrase
is near where most of what is rare in it is said within a window of words, in any order. What is heard of a
movement at a time is its nearest phrase, counted once.
"""

import math
from collections import Counter
from collections.abc import Callable, Sequence
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from yewhour.core.transcript.transcript import HeardWord

WINDOW, STEP = 20, 3  # words that are heard together, and from one window to the next
APART_S = 9.0  # of silence that no window goes over
PAIR = 0.5  # what two words that stand together tell, against each of them
PAIR_WITHIN = 3  # words
LEAST = 0.25  # of a phrase, to be near at all
STRONGEST = 15.0  # evidence of the nearest
CHANCE = 0.12  # of what is shared, by words that stand in a window before the phrase
AHEAD, MOST_AHEAD = 0.5, 4.0  # what being nearer than any other tells besides
NUMBER = 0.8  # what a number tells at most: teachers count everywhere
# Fewer than are plain elsewhere: "up", "out" and "over" tell where something goes.
COMMON = frozenset((
    "the", "a", "an", "and", "of", "to", "your", "you", "it", "is", "that", "this", "with", "for", "be", "or",
    "as", "if", "so", "then", "let", "them", "they", "there", "we", "i", "me", "my", "our", "do", "just",
    "are", "what", "when", "by", "its", "youre", "im", "at", "till", "until", "have", "can",
    "right", "left", "their", "than", "but", "will", "she", "he", "his", "her", "has", "had", "was", "would",
    "like", "now", "here", "where", "maybe", "get", "got", "go", "take", "make",
))  # fmt: skip
NUMBERS = frozenset(("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "twelve"))
Floats = NDArray[np.float32]


class NearPhrase(msgspec.Struct, frozen=True):
    """A movement that something said is near to: its place among the movements, the second, the evidence."""

    place: int
    at_s: float
    evidence: float


class Compared(NamedTuple):
    """Words, their stems, and the windows of them (first, behind the last); how near each phrase is in each
    window, and how near each movement's nearest: (windows, phrases), (windows, movements)."""

    words: Sequence[HeardWord]
    stems: Sequence[str]
    windows: Sequence[tuple[int, int]]
    near: Floats
    best: Floats

    @property
    def begin_s(self) -> NDArray[np.float64]:
        """The second each window begins at."""
        return np.array([self.words[first].start_s for first, _ in self.windows])


class PhraseIndex:
    """The phrases of movements, ready to be compared with what is heard.

    phrases: those of each movement, by its place. stem: what makes words that mean one thing the same.
    """

    def __init__(self, phrases: Sequence[Sequence[str]], stem: Callable[[str], str]) -> None:
        self._stem, self._count = stem, len(phrases)
        bags: list[tuple[int, frozenset[str]]] = []
        for place, texts in enumerate(phrases):
            bags += [(place, bag) for bag in (self._bag(text.split()) for text in texts) if len(bag) > 2]
        having = {(word, place) for place, bag in bags for word in bag}
        spread = Counter(word for word, _ in having)
        rare = {
            word: (PAIR if " " in word else 1.0) * math.log(1 + self._count / (count + 1.0))
            for word, count in spread.items()
        }
        rare |= dict.fromkeys(NUMBERS & {*rare}, NUMBER)
        self._owner = np.array([place for place, _ in bags])
        self._whole = np.array(
            [sum(rare[word] for word in bag if " " not in word) for _, bag in bags], np.float32
        )
        found: dict[str, list[int]] = {}
        for number, (_, bag) in enumerate(bags):
            for word in bag:
                found.setdefault(word, []).append(number)
        self._phrases = {word: np.array(numbers, np.int32) for word, numbers in found.items()}
        self._bags = [bag for _, bag in bags]
        # Phrases of one movement stand together: where each one's begin.
        self._first = np.searchsorted(self._owner, np.arange(self._count + 1))
        self._rare = rare

    def compared(self, words: Sequence[HeardWord]) -> Compared:
        """What is heard, a window of words after another, with all phrases."""
        windows = list(_windows(words))
        near = np.zeros((len(windows), len(self._whole)), np.float32)
        for row, (first, last) in enumerate(windows):
            bag = self._bag([one.text for one in words[first:last]])
            alone = self._shared([word for word in bag if " " not in word])
            shared = alone + self._shared([word for word in bag if " " in word])
            cover = alone / self._whole
            near[row] = np.maximum(0.0, (cover - LEAST) / (1 - LEAST)) * np.minimum(shared, STRONGEST)
        best = np.zeros((len(windows), self._count), np.float32)
        np.maximum.at(best.T, self._owner, near.T)
        return Compared(words, [self._stem(one.text) for one in words], windows, near, best)

    def nearest(self, compared: Compared, best: Floats) -> list[NearPhrase]:
        """What is near, each where it is nearest. best: how near each movement is in each window."""
        found = []
        for place in np.nonzero(best.max(axis=0, initial=0.0))[0]:
            row, at = best[:, place].tolist(), 0
            while at < len(row):
                if row[at] <= 0:
                    at += 1
                    continue
                end = at
                while end < len(row) and row[end] > 0 and end - at < WINDOW // STEP:
                    end += 1
                peak = max(row[at:end])
                last = max(number for number in range(at, end) if row[number] >= peak - 1e-6)
                found.append(NearPhrase(int(place), self._begins_s(compared, last, int(place)), peak))
                at = end
        return found

    def _begins_s(self, compared: Compared, row: int, place: int) -> float:
        """The second at which words of the nearest phrase begin in a window; a word before them is chance."""
        first, last = self._first[place], self._first[place + 1]
        bag = self._bags[first + int(compared.near[row, first:last].argmax())]
        window = range(*compared.windows[row])
        told = [self._rare[word] if (word := compared.stems[at]) in bag else 0.0 for at in window]
        least, sum_told = CHANCE * sum(told), 0.0
        for at, tells in zip(window, told, strict=True):
            sum_told += tells
            if sum_told > least:
                return compared.words[at].start_s
        return compared.words[window[0]].start_s

    def _shared(self, words: Sequence[str]) -> Floats:
        """What is rare in some words, summed up for each phrase that has them."""
        known = [word for word in words if word in self._phrases]
        if not known:
            return np.zeros(len(self._whole), np.float32)
        numbers = np.concatenate([self._phrases[word] for word in known])
        counts = [len(self._phrases[word]) for word in known]
        weights = np.repeat([self._rare[word] for word in known], counts)
        return np.bincount(numbers, weights, len(self._whole)).astype(np.float32)

    def _bag(self, words: Sequence[str]) -> frozenset[str]:
        bare = (one.strip(".,;:!?").lower() for one in words)
        plain = [self._stem(word) for word in bare if word not in COMMON]
        pairs = {
            f"{min(one, two)} {max(one, two)}"
            for at, one in enumerate(plain)
            for two in plain[at + 1 : at + 1 + PAIR_WITHIN]
        }
        return frozenset(plain) | pairs


def against_each_other(best: Floats) -> Floats:
    """How near each movement is, less where another one is nearer in much the same words."""
    shared = best * best / np.maximum(1e-6, _highest_around(best.max(axis=1)))[:, None]
    two = np.sort(best, axis=1)[:, -2:]
    ahead = np.minimum(MOST_AHEAD, AHEAD * (two[:, 1] - two[:, 0]))
    shared[np.arange(len(best)), best.argmax(axis=1)] += ahead
    return np.asarray(shared, np.float32)


def _highest_around(values: Floats) -> Floats:
    """The highest of each value and those of the windows that share most of its words."""
    reach = WINDOW // STEP // 2
    padded = np.pad(values, reach)
    around = [padded[at : at + len(values)] for at in range(2 * reach + 1)]
    return np.asarray(np.max(around, axis=0), np.float32)


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
