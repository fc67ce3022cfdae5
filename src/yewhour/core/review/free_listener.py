"""What was taught in a recording, in whatever words, without a plan: movements, one after another.

What is heard speaks for a movement by its names, the words of its lines and card (those that place it most),
and descriptions (data/described.toml) on the base the body is on. What may follow what comes from the ways
between positions; how long, from doses. The best of all paths of movements over the recording, with other
talk between them, is found by a semi-Markov search.

The weights were set on seven classes written as teachers speak (tests/core/transcript/spoken): of their 170
movements, each side by itself, 147 are found within 25 s, 20 of 172 that are told are wrong, and about nine
in ten sides right. At first sight of five of them, before the descriptions were widened by them, it was 53 of
111; names alone give about one in seven.
"""

import math
import re
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from yewhour.core.library.movement import Movement
from yewhour.core.library.position import PositionGraph
from yewhour.core.review.described import DescriptionIndex
from yewhour.core.review.heard_bases import BaseListener
from yewhour.core.review.other_words import PhraseIndex
from yewhour.core.review.without_plan import sentences
from yewhour.core.sides import fill, unmarked
from yewhour.core.teaching_data import TeachingData
from yewhour.core.transcript.free_speech import PLAIN, features, stem
from yewhour.core.transcript.mentions import MentionIndex
from yewhour.core.transcript.transcript import SpeechStretch, Transcript, plain_words

BIN_S = 2.0
SHORTEST, LONGEST = 3, 130  # bins of one movement, both sides
OWN, ELSEWHERE, GROUND = 0.25, 0.75, 40.0  # of a movement's words that are its own, and anybody's
MOST_WEIGHT, HEARD = 2.5, 0.8  # what a word speaks for at most; how far words that are close are one
NAMED, DESCRIBED = 12.0, 12.0  # evidence of a name, and of a description
PHRASED, OFF = 1.0, 0.2  # evidence of a phrase that is near; what is left of it on another base
OFF_BASE = 1.5  # what a sentence on another base costs
TELLS_BASE = 0.6  # what a phrase that is near tells of the base its movement is on
BEGUN, WAY_S, AGAIN = (
    7.0,
    0.2,
    3.0,
)  # what it costs to begin a movement, a second of the way, and the same one
SILENT, WITHIN, BESIDE = 2.0, 1.0, 0.1  # beginning where nobody speaks, or goes on to; a bin of other talk
SPREAD = 0.7  # of lengths against the usual (log-normal)
LOST_WAY_S = 15.0  # the longest way that is thought of; and where none is known
SURE, LIKELY = 20.0, 10.0  # evidence of a movement
TELLS_OF_IT = 0.5  # evidence of a bin that is of it
BREATH_S, TOLD_S = 6.5, 12.0  # of a breath of hers, and what it takes to bring one into a movement
LONGEST_S = 400.0
WORD = re.compile(r"[a-z']+")
OTHER = {"right": "left", "left": "right"}
NEAR, SAID_SIDE, SIDE_ITSELF = (
    3,
    0.5,
    3.0,
)  # words behind a side that go with it; what "right" and "right side" tell
# What the words of a line tell of its movement: placing most, thoughts least.
TELLING: Mapping[str, float] = {
    "place": 3.0, "first": 2.5, "again": 2.5, "call": 2.0, "flow": 2.0, "align": 1.0, "check": 0.7,
    "leave": 0.6, "keep": 0.5, "deepen": 0.5, "choice": 0.5,
}  # fmt: skip
TELLS, NAMES, PLACING = 0.35, 2.0, 3.0  # any other line; names; how others say it
Floats = NDArray[np.float32]


class HeardMovement(msgspec.Struct, frozen=True):
    """A movement as it was heard: from a second to another. sure: 0 to 1. last_s: when something was last
    said that is of it."""

    movement: str
    start_s: float
    end_s: float
    sure: float
    last_s: float


class FreeListener:
    """Knows what every movement of a library is spoken of with. Make one for each library: a second."""

    def __init__(
        self,
        teaching_data: TeachingData,
        names: MentionIndex,
        descriptions: DescriptionIndex,
        phrases: Mapping[str, Sequence[str]],
    ) -> None:
        self.names, self.descriptions, self._told_as = names, descriptions, phrases
        self.movements = [one for one in teaching_data.library.values() if _can_be_heard(one)]
        self._place = {one.id: number for number, one in enumerate(self.movements)}
        self._spoken = [self._words_of(one) for one in self.movements]
        self._totals = np.array([sum(one.values()) for one in self._spoken], np.float32)
        self._whole: dict[str, float] = defaultdict(float)
        for spoken in self._spoken:
            for word, tells in spoken.items():
                self._whole[word] += tells
        self._all = sum(self._whole.values())
        self._sided: dict[str, Counter[str]] = {}
        self._shares: dict[str, Floats] = {}
        places = [*filter(None, (place for one in self.movements for place in _places(one)))]
        self.bases = BaseListener(descriptions.bases, places, teaching_data.positions)
        self._bases = np.array(
            [[base in _bases_of(one) for base in self.bases.names] for one in self.movements], np.float32
        )
        self._phrases = PhraseIndex(
            [[*phrases.get(one.id, ()), *_placing(one)] for one in self.movements], self._stem
        )
        self._change = np.ascontiguousarray(_changes(self.movements, teaching_data.positions).T)
        usual = np.array([_usual_s(one) for one in self.movements]) / BIN_S
        lengths = np.arange(SHORTEST, LONGEST)
        self._lengths = lengths
        self._fits = (-(np.log(lengths[:, None] / usual[None, :]) ** 2) / (2 * SPREAD**2)).astype(np.float32)

    def heard(self, hearing: Transcript) -> list[HeardMovement]:
        """The movements of a recording, in order."""
        said = sentences(hearing.talks)
        size = max(1, math.ceil(hearing.length_s / BIN_S))
        if not said or not self.movements:
            return []
        starts = np.array([talk.start_s for talk in said])
        near = self._phrases.near(hearing.words)
        at = {id(one): max(0, int(starts.searchsorted(one.at_s, "right")) - 1) for one in near}
        bases = self._likely_bases(said, [(one.place, at[id(one)], one.evidence) for one in near])
        on_it = bases @ self._bases.T  # how likely each movement's base is at each sentence
        told = [*self._told(hearing, said, bases)]
        scores = self._by_words(hearing, size)
        self._off_base(scores, said, on_it)
        for one in near:
            weight = one.evidence * (OFF + (1 - OFF) * float(on_it[at[id(one)], one.place]))
            scores[one.place, min(size - 1, int(one.at_s / BIN_S))] += PHRASED * weight
        for movement, at_s, weight in told:
            if movement in self._place:
                scores[self._place[movement], min(size - 1, int(at_s / BIN_S))] += weight
        cost = np.full(size + 1, SILENT, np.float32)
        for talks, of_them in ((said, WITHIN), (hearing.talks, 0.0)):
            for talk in talks:
                cost[min(size, int(talk.start_s / BIN_S))] = of_them
        sums = np.concatenate([np.zeros((1, len(self.movements)), np.float32), np.cumsum(scores.T, axis=0)])
        found: list[HeardMovement] = []
        for place, start, end in self._best(sums, cost):
            evidence = float(sums[end, place] - sums[start, place])
            sure = 0.9 if evidence >= SURE else 0.7 if evidence >= LIKELY else 0.4
            until_s = min(hearing.length_s, end * BIN_S)
            one, from_s = self.movements[place].id, start * BIN_S
            named = [at_s for named, at_s, _ in told if named == one and from_s <= at_s < until_s]
            if named:  # not before what is said together with its name: that may be the end of another
                begun = [talk.start_s for talk in hearing.talks if from_s <= talk.start_s <= named[0]]
                from_s = begun[-1] if begun else named[0] if not found else from_s
            spoke = np.nonzero(scores[place, start:end] > TELLS_OF_IT)[0]
            last_s = (start + int(spoke[-1])) * BIN_S if len(spoke) else from_s
            found.append(HeardMovement(one, from_s, until_s, sure, last_s))
        return found

    def side_of(self, movement: str, words: Sequence[str]) -> str:
        """The side a movement is done on, by what is heard of it: "left foot back" is of the right one where
        its own lines send the other foot back. "" where nothing tells."""
        if movement not in self._sided:
            self._sided[movement] = _told_of_sides(self.names.library[movement])
        known, sum_right = self._sided[movement], 0.0
        for at, word in enumerate(words):
            if word in OTHER:
                told = SAID_SIDE + sum(known[one] for one in _around(words, at))
                told += SIDE_ITSELF * (words[at + 1 : at + 3] == ["side", "first"])
                sum_right += told if word == "right" else -told
        return "" if sum_right == 0 else "right" if sum_right > 0 else "left"

    # --- words ----------------------------------------------------------------------------------------------

    def _stem(self, word: str) -> str:
        return stem(self.descriptions.alike.get(word, word))

    def _words_of(self, movement: Movement) -> dict[str, float]:
        """How much each word, and each two close together, tell of a movement."""
        count: dict[str, float] = defaultdict(float)
        told = [(PLACING, text) for text in self._told_as.get(movement.id, ())]
        told += [(TELLING.get(purpose, TELLS), unmarked(text)) for purpose, text in _texts(movement)]
        for tells, text in told:
            words = [self._stem(word) for word in WORD.findall(text.lower()) if word not in OTHER]
            for _, word in features(words):
                count[word] += tells
        for name in (movement.name, *movement.aliases, movement.traditional):
            for word in WORD.findall(name.lower()):
                if word not in PLAIN:
                    count[self._stem(word)] += NAMES
        return count

    # --- what is heard of what ----------------------------------------------------------------------------

    def _by_words(self, hearing: Transcript, size: int) -> Floats:
        """What the words heard in each bin tell of each movement: (movements, bins)."""
        scores = np.zeros((len(self.movements), size), np.float32)
        plain = [
            (self._stem(word.text), min(size - 1, int(word.start_s / BIN_S)))
            for word in hearing.words if word.text not in OTHER
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
            told = np.array([one.get(word, 0.0) for one in self._spoken])
            self._shares[word] = told / (self._totals + GROUND)
        return self._shares[word]

    def _likely_bases(self, said: Sequence[SpeechStretch], near: Sequence[tuple[int, int, float]]) -> Floats:
        """How likely each base is at each sentence. near: movements by place, at sentences, with evidence."""
        told, by_phrase = self.bases.told(said), np.zeros((len(said), len(self.bases.names)), np.float32)
        for place, row, evidence in near:
            by_phrase[row] = np.maximum(by_phrase[row], evidence * self._bases[place])
        return self.bases.likely(told + TELLS_BASE * by_phrase)

    def _off_base(self, scores: Floats, said: Sequence[SpeechStretch], on_it: Floats) -> None:
        """Takes from what is done elsewhere than the body is, where somebody speaks."""
        for row, talk in enumerate(said):
            at = min(scores.shape[1] - 1, int(talk.start_s / BIN_S))
            scores[:, at] -= OFF_BASE * (1 - on_it[row])

    def _told(
        self, hearing: Transcript, said: Sequence[SpeechStretch], bases: Floats
    ) -> Iterator[tuple[str, float, float]]:
        """(movement, second, evidence) of names and descriptions."""
        for named in self.names.mentions(hearing.words, sentence_ends(said)):
            for movement in ("cat", "cow") if named.movement == "cat-cow" else (named.movement,):
                yield movement, named.start_s, NAMED
        for one in self.descriptions.described(said):
            on = [self.bases.place[base] for base in one.on if base in self.bases.place]
            likely = float(bases[one.sentence, on].sum()) if on else 1.0
            for movement in ("cat", "cow") if one.movement == "cat-cow" else (one.movement,):
                yield movement, said[one.sentence].start_s, DESCRIBED * likely

    # --- the best path ------------------------------------------------------------------------------------

    def _best(self, sums: Floats, cost: Floats) -> list[tuple[int, int, int]]:
        """(movement, first bin, last bin) along the best path. sums: evidence up to each bin, (bins + 1,
        movements). cost: of beginning in each bin."""
        size, count = len(sums) - 1, sums.shape[1]
        ended = np.full((size + 1, count), -np.inf, np.float32)  # the best that ends with a movement at a bin
        since = np.zeros((size + 1, count), np.int32)
        begun = np.full((size + 1, count), -np.inf, np.float32)  # the best that begins one there
        came = np.full((size + 1, count), -1, np.int32)  # from which; -1: from other talk
        beside = np.zeros(size + 1, np.float32)  # the best that ends with other talk
        spoke = np.full(size + 1, -1, np.int32)  # the movement other talk began behind; -1: it goes on
        begun[0] = -BEGUN
        every = np.arange(count)
        for at in range(1, size + 1):
            starts = at - self._lengths[: max(0, at - SHORTEST + 1)]
            if len(starts):
                value = begun[starts] + sums[at] - sums[starts] + self._fits[: len(starts)]
                longest = value.argmax(axis=0)
                ended[at], since[at] = value[longest, every], starts[longest]
            last = int(ended[at].argmax())
            goes_on = beside[at - 1] - BESIDE
            beside[at] = max(goes_on, ended[at, last])
            spoke[at] = last if ended[at, last] > goes_on else -1
            onward = ended[at] - self._change  # (to, from)
            best = onward.argmax(axis=1)
            behind, anew = onward[every, best], beside[at] - BEGUN - WAY_S * 8
            begun[at] = np.maximum(behind, anew) - cost[at]
            came[at] = np.where(behind > anew, best, -1)
        found, at, movement = [], size, -1
        while at > 0:
            if movement < 0:
                movement = int(spoke[at])
                at -= movement < 0
                continue
            start = int(since[at, movement])
            found.append((movement, start, at))
            at, movement = start, int(came[start, movement]) if start else -1
        return found[::-1]


def sentence_ends(said: Sequence[SpeechStretch]) -> set[int]:
    """The words that follow a full stop, counted as the words of a hearing are."""
    found, at = set[int](), 0
    for talk in said:
        at += len(plain_words(talk.text))
        if talk.text.rstrip()[-1:] in ".!?":
            found.add(at)
    return found


def _can_be_heard(movement: Movement) -> bool:
    return not movement.behaviour.framing and bool(movement.start) and movement.kind != "setup"


def _texts(movement: Movement) -> Iterator[tuple[str, str]]:
    for purpose, lines in movement.lines.items():
        for wordings in lines:
            yield purpose, wordings[0]
    if movement.card is not None:
        yield from movement.card.lines()


def _around(words: Sequence[str], at: int) -> Iterator[str]:
    """What goes with a side: the words close behind it, and the two before it as one, with a mark."""
    yield from words[at + 1 : at + 1 + NEAR]
    yield "<" + " ".join(words[max(0, at - 2) : at])


def _told_of_sides(movement: Movement) -> Counter[str]:
    """What goes with a side in its lines: how much more it is of its own side than of the other. Where one
    foot is before the other, the one in front is its own; lying on a side, that which is on top."""
    count: Counter[str] = Counter()
    if _base(movement.start) in ("split", "wide"):
        count.update({"forward": 2, "front": 2, "back": -2, "behind": -2})
    if _base(movement.start) == "on-{other}":
        count.update({"<onto your": -4, "<on your": -4, "<to the": -4, "<onto the": -4})
    for purpose, text in _texts(movement):
        if TELLING.get(purpose, 0.0) >= 2.0 or purpose == "way":
            words = re.findall(r"\{[a-z]+\}|[a-z']+", text.lower())
            for at, word in enumerate(words):
                if word in ("{side}", "{other}"):
                    for one in _around(words, at):
                        count[one] += 1 if word == "{side}" else -1
    return count


def _placing(movement: Movement) -> Iterator[str]:
    """The lines of its own that bring one into a movement."""
    for purpose, text in _texts(movement):
        if TELLING.get(purpose, 0.0) >= 2.0:
            yield unmarked(text)


def _places(movement: Movement) -> list[str]:
    """Where it is done, for the right side."""
    return [*_sided(movement.start).split(" or "), _sided(movement.end or movement.start).split(" or ")[0]]


def _bases_of(movement: Movement) -> frozenset[str]:
    bases = {_base(place) for place in _places(movement)}
    return frozenset(bases | ({"on-right", "on-left"} if bases & {"on-right", "on-left"} else set()))


def _base(place: str) -> str:
    return place.strip().partition(" ")[0]


def _sided(place: str) -> str:
    return fill(place, "right")


def _changes(movements: Sequence[Movement], positions: PositionGraph) -> Floats:
    """What it costs to go from each movement to each other one."""
    ends = [_sided(one.end or one.start).split(" or ")[0] for one in movements]
    starts = [_sided(one.start) for one in movements]
    known = {
        way: min(LOST_WAY_S, positions.seconds(*way))
        for way in ((end, start) for end in {*ends} for start in {*starts})
    }
    ways = np.array([[known[end, start] for start in starts] for end in ends], np.float32)
    return np.asarray(BEGUN + WAY_S * ways + AGAIN * np.eye(len(movements)), np.float32)


def _usual_s(movement: Movement) -> float:
    """How long a movement is taught for, both sides where it has two."""
    _, usual, _ = movement.dose
    if movement.kind == "hold":
        doing = usual * BREATH_S
    elif movement.behaviour.is_clock:
        doing = float(usual)
    else:
        doing = usual * max(2.0, 0.9 * sum(counts for _, counts in movement.rhythm))
    sides = 2 if movement.sides == "one" else 1
    return min(LONGEST_S, max(16.0, sides * doing + TOLD_S))
