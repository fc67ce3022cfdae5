"""What single words, and two that are close together, tell of each movement: the more the fewer have them."""

from collections import Counter, defaultdict
from collections.abc import Callable, Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from yewhour.core.library.movement import Movement
from yewhour.core.review.listening.path import BIN_S
from yewhour.core.review.listening.sides import OTHER
from yewhour.core.review.listening.spoken_of import TELLING, texts
from yewhour.core.sides import unmarked
from yewhour.core.transcript.free_speech import PLAIN, features
from yewhour.core.transcript.transcript import HeardWord, plain_words

OWN, ELSEWHERE, GROUND = 0.25, 0.75, 40.0  # of a movement's words that are its own, and anybody's
MOST_WEIGHT, HEARD = 2.5, 0.8  # what a word speaks for at most; how far words that are close are one
TELLS, NAMES, PLACING = 0.35, 2.0, 3.0  # any line that doesn't place it; names; how others say it
Floats = NDArray[np.float32]


class WordIndex:
    """The words of movements. phrases: how others teach them. stem: makes words of one meaning the same."""

    def __init__(
        self, movements: Sequence[Movement], phrases: Mapping[str, Sequence[str]], stem: Callable[[str], str]
    ) -> None:
        self._stem = stem
        self._spoken = [self._words_of(one, phrases.get(one.id, ())) for one in movements]
        self._totals = np.array([sum(one.values()) for one in self._spoken], np.float32)
        self._whole: dict[str, float] = defaultdict(float)
        self._who: dict[str, list[int]] = defaultdict(list)  # the movements that have it, by their places
        for place, spoken in enumerate(self._spoken):
            for word, tells in spoken.items():
                self._whole[word] += tells
                self._who[word].append(place)
        self._all = sum(self._whole.values())
        self._shares: dict[str, Floats] = {}

    def told(self, words: Sequence[HeardWord], size: int) -> Floats:
        """What the words heard in each bin tell of each movement: (movements, bins)."""
        scores = np.zeros((len(self._spoken), size), np.float32)
        plain = [
            (self._stem(word.text), min(size - 1, int(word.start_s / BIN_S)))
            for word in words if word.text not in OTHER
        ]  # fmt: skip
        heard = [(word, plain[at][1]) for at, word in features([word for word, _ in plain])]
        ground = Counter(word for word, _ in heard)
        weights: dict[str, Floats] = {}
        for word, at in heard:
            if word not in self._whole:
                continue
            if word not in weights:
                base = (self._whole[word] + 0.5 * ground[word] + 1) / (self._all + 0.5 * len(heard))
                own = self._share(word)
                weight = np.minimum(MOST_WEIGHT, np.log(OWN * own / base + ELSEWHERE))
                weights[word] = (HEARD * weight).astype(np.float32)
            scores[:, at] += weights[word]
        return scores

    def _share(self, word: str) -> Floats:
        """How much of what is said of each movement a word is."""
        if word not in self._shares:
            told = np.zeros(len(self._spoken))
            for place in self._who[word]:
                told[place] = self._spoken[place][word]
            self._shares[word] = told / (self._totals + GROUND)
        return self._shares[word]

    def _words_of(self, movement: Movement, phrases: Sequence[str]) -> dict[str, float]:
        """How much each word, and each two close together, tell of a movement."""
        count: dict[str, float] = defaultdict(float)
        told = [(PLACING, text) for text in phrases]
        told += [(TELLING.get(purpose, TELLS), unmarked(text)) for purpose, text in texts(movement)]
        for tells, text in told:
            words = [self._stem(word) for word in plain_words(text) if word not in OTHER]
            for _, word in features(words):
                count[word] += tells
        for name in (movement.name, *movement.aliases, movement.traditional):
            for word in plain_words(name):
                if word not in PLAIN:
                    count[self._stem(word)] += NAMES
        return count
