"""The base the body is on all through a recording: by what words tell of it, before and after."""

from collections.abc import Mapping, Sequence
from itertools import product

import numpy as np
from numpy.typing import NDArray

from yewhour.core.library.position import PositionGraph, base_of
from yewhour.core.review.listening.described import WordsOfBase, in_plain, patterns
from yewhour.core.review.listening.path import LOST_WAY_S
from yewhour.core.transcript.transcript import SpeechStretch

CHANGED, WAY_S = 4.0, 0.12  # what a change of base costs, and each second of the way
TOLD, EARLIER = 1.5, 0.4  # what words tell; and of those that are not the last of their sentence
PLAINLY = 5.0  # what tells more than that is an instruction, wherever it stands in its sentence
UNSAID = 2.0  # what a change costs besides where nothing is said of one
Floats = NDArray[np.float32]


class BaseListener:
    """Knows what is said on which base, and which bases follow each other. turned: words after which one
    lies on the other side. places: positions of movements."""

    def __init__(
        self,
        words: Sequence[WordsOfBase],
        turned: Sequence[str],
        places: Sequence[str],
        positions: PositionGraph,
    ) -> None:
        self.names = tuple(dict.fromkeys(base_of(place) for place in places))
        self.place: Mapping[str, int] = {name: number for number, name in enumerate(self.names)}
        self._words = [
            (one.tells, [self.place[on] for on in one.on if on in self.place], patterns(one.say))
            for one in words
        ]
        self._turned = patterns(turned)
        self._change = np.full((len(self.names), len(self.names)), -CHANGED - WAY_S * LOST_WAY_S, np.float32)
        for start, end in product(dict.fromkeys(places), repeat=2):
            one, two = (self.place[base_of(place)] for place in (start, end))
            cost = CHANGED + WAY_S * min(LOST_WAY_S, positions.seconds(start, end))
            self._change[one, two] = max(self._change[one, two], -cost)
        np.fill_diagonal(self._change, 0.0)
        self._unsaid = np.where(np.eye(len(self.names)) > 0, 0.0, self._change - UNSAID).astype(np.float32)

    def told(self, said: Sequence[SpeechStretch]) -> Floats:
        """What the words of each sentence tell of each base: (sentences, bases)."""
        found = np.zeros((len(said), len(self.names)), np.float32)
        for row, talk in enumerate(said):
            plain = in_plain(talk.text)
            ends = [
                (match.end(), tells, on)
                for tells, on, words in self._words
                for match in words.finditer(plain)
            ]
            last = max((end for end, _, _ in ends), default=0)
            for end, tells, on in ends:
                weight = TOLD * (tells if end >= last - 12 or tells > PLAINLY else tells * EARLIER)
                found[row, on] = np.maximum(found[row, on], weight)
        return found

    def likely(self, said: Sequence[SpeechStretch], told: Floats) -> Floats:
        """How likely each base is at each sentence, all of them taken together: (sentences, bases)."""
        ahead, behind = np.zeros_like(told), np.zeros_like(told)
        changes = [self._into(talk, bool(row.any())) for talk, row in zip(said, told, strict=True)]
        for row in range(1, len(told)):
            ahead[row] = _either(ahead[row - 1] + told[row - 1], changes[row])
            behind[-row - 1] = _either(behind[-row] + told[-row], changes[-row].T)
        whole = ahead + behind + told
        share = np.exp(whole - whole.max(axis=1, keepdims=True))
        return np.asarray(share / share.sum(axis=1, keepdims=True), np.float32)

    def _into(self, talk: SpeechStretch, told: bool) -> Floats:
        """What a change into each base costs as something is said. told: some of it is of bases."""
        if not told:
            return self._unsaid
        if not {"on-right", "on-left"} <= {*self.names} or not self._turned.search(in_plain(talk.text)):
            return self._change
        right, left = self.place["on-right"], self.place["on-left"]
        change = self._change.copy()
        change[[right, left], [right, left]], change[[right, left], [left, right]] = -CHANGED, 0.0
        return change


def _either(told: Floats, change: Floats) -> Floats:
    """What is told once any of the changes may have happened, as the log of a sum."""
    whole = told[:, None] + change
    most = whole.max(axis=0)
    return np.asarray(most + np.log(np.exp(whole - most).sum(axis=0)), np.float32)
