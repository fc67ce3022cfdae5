"""What was taught in a recording, in whatever words, without a plan: movements, one after another.

What is heard speaks for a movement by phrases that are near to what is said, by names, by single words and by
descriptions, on the base the body is likely to be on. The best of all paths over the recording is found, and
found once more with what is to be expected from it: what was done on one side comes again on the other.

The weights were set on the recordings in tests/core/transcript/spoken; how much of them is found, and how
much was at first sight, stands in docs/design.md.
"""

import math
import re
from collections.abc import Iterator, Mapping, Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from yewhour.core.review.listening.bases import BaseListener
from yewhour.core.review.listening.described import DescriptionIndex, in_plain
from yewhour.core.review.listening.path import BIN_S, SHORTEST, PathFinder, Stretch
from yewhour.core.review.listening.phrases import PhraseIndex, against_each_other
from yewhour.core.review.listening.sides import OTHER, SIDE_S, TURN, SideListener, lain
from yewhour.core.review.listening.spoken_of import bases_of, can_be_heard, places, placing
from yewhour.core.review.listening.words import WordIndex
from yewhour.core.review.without_plan import sentences
from yewhour.core.teaching_data import TeachingData
from yewhour.core.transcript.free_speech import stem
from yewhour.core.transcript.mentions import Mention, MentionIndex
from yewhour.core.transcript.transcript import SpeechStretch, Transcript, plain_words

NAMED, WHOLE_NAME, DESCRIBED = (
    12.0,
    16.0,
    10.0,
)  # evidence of a name, of one of several words, of a description
PHRASED, OFF = 0.9, 0.1  # evidence of a phrase that is near; what is left of it on another base
OFF_BASE = 0.6  # what a sentence on another base costs
TELLS_BASE, NAMES_BASE = 0.25, 5.0  # what phrases that are near and names tell of the base
NEAREST = 8.0  # a phrase tells of its base no more than that: "soles together" is said sitting, too
SILENT, WITHIN = 3.0, 1.0  # what it costs to begin where nobody speaks, or somebody goes on to
SURE, LIKELY = 20.0, 10.0  # evidence of a movement
TELLS_OF_IT = 0.5  # evidence of a bin that is of it
CHAIN, ENTERED = 9, 30  # movements that come again on the other side; words that tell which side something is
EXPECTED, EXPECTED_S = 5.0, 16.0  # evidence of what is expected; how far from when it is
UNHEARD = 0.4  # what is left of what tells of a movement whose prop nobody has named
_LAIN, TURNED = ("on-right", "on-left"), 0.5  # bases on a side; how likely one is where one is turned
ELSEWHERE, NAMED_ELSEWHERE = 0.1, 0.5  # what is left of a description, and of a name, on another base
PLACE = 0.5  # what is left of what tells of a movement that others begin at
OPTION = 0.4  # what is left of something that one may do
MAY_BE = re.compile(
    r"^(?:and |but |so |then |or )*(?:if|or|maybe|perhaps|unless|you (?:can|could|might|may))\b"
)
Floats = NDArray[np.float32]


class HeardMovement(msgspec.Struct, frozen=True):
    """A movement as it was heard: from a second to another. sure: 0 to 1. last_s: when something was last
    said that is of it. lain: the side it is done on, from each second, where one lies on a side."""

    movement: str
    start_s: float
    end_s: float
    sure: float
    last_s: float
    lain: tuple[tuple[float, str], ...] = ()


class _Evidence(msgspec.Struct, frozen=True):
    """What a recording tells: of each movement in each bin, and which bases are likely at each sentence."""

    said: list[SpeechStretch]
    bases: Floats
    scores: Floats
    told: list[tuple[str, float, float]]


class FreeListener:
    """Knows what every movement of a library is spoken of with. Make one for each library: a second or two.

    phrases: how others teach each movement, by its id.
    """

    def __init__(
        self,
        teaching_data: TeachingData,
        names: MentionIndex,
        descriptions: DescriptionIndex,
        phrases: Mapping[str, Sequence[str]],
    ) -> None:
        self.names, self.descriptions = names, descriptions
        self.movements = [one for one in teaching_data.library.values() if can_be_heard(one)]
        self.sides = SideListener(teaching_data.library, phrases)
        where = [*filter(None, (place for one in self.movements for place in places(one)))]
        self.bases = BaseListener(descriptions.bases, descriptions.turned, where, teaching_data.positions)
        self._place = {one.id: number for number, one in enumerate(self.movements)}
        self._bases = np.array(
            [[base in bases_of(one) for base in self.bases.names] for one in self.movements], np.float32
        )
        self._words = WordIndex(self.movements, phrases, self._stem)
        self._phrases = PhraseIndex(
            [[*phrases.get(one.id, ()), *placing(one)] for one in self.movements], self._stem
        )
        self._paths = PathFinder(self.movements, teaching_data.positions)

    def heard(self, hearing: Transcript) -> list[HeardMovement]:
        """The movements of a recording, in order."""
        said = sentences(hearing.talks)
        if not said or not self.movements:
            return []
        evidence = self._evidence(hearing, said)
        cost = _costs(hearing, said, evidence.scores.shape[1])
        self._expected(evidence, self._paths.best(evidence.scores, cost), hearing)
        found: list[HeardMovement] = []
        for stretch in self._paths.best(evidence.scores, cost):
            found.append(self._movement(stretch, evidence, hearing, first=not found))
        return found

    def _movement(
        self, stretch: Stretch, evidence: _Evidence, hearing: Transcript, first: bool
    ) -> HeardMovement:
        """What was heard along a stretch of the path. first: nothing was before it."""
        place, start, end = stretch
        movement, from_s = self.movements[place], start * BIN_S
        until_s = min(hearing.length_s, end * BIN_S)
        whole = float(evidence.scores[place, start:end].sum())
        sure = 0.9 if whole >= SURE else 0.7 if whole >= LIKELY else 0.4
        named = [at_s for one, at_s, _ in evidence.told if one == movement.id and from_s <= at_s < until_s]
        spoke = (start + np.nonzero(evidence.scores[place, start:end] > TELLS_OF_IT)[0]) * BIN_S
        last_s = float(spoke[-1]) if len(spoke) else from_s
        if named:  # not before what is said together with its name: that may be the end of another
            begun = [talk.start_s for talk in hearing.talks if from_s <= talk.start_s <= named[0]]
            from_s = begun[-1] if begun else named[0] if first else from_s
        elif len(spoke):  # what is said before anything is said of it is other talk
            begun = [talk.start_s for talk in hearing.talks if talk.start_s < spoke[0] + BIN_S]
            from_s = max([from_s, *begun])
        during = [
            (talk.start_s, likely)
            for talk, likely in zip(evidence.said, evidence.bases, strict=True)
            if from_s <= talk.start_s < until_s
        ]
        return HeardMovement(
            movement.id, from_s, until_s, sure, last_s, lain(movement, during, self.bases.place)
        )

    def _stem(self, word: str) -> str:
        return stem(self.descriptions.alike.get(word, word))

    # --- what is heard of what ----------------------------------------------------------------------------

    def _evidence(self, hearing: Transcript, said: list[SpeechStretch]) -> _Evidence:
        size = math.ceil(hearing.length_s / BIN_S) + SHORTEST  # the last words may begin something
        starts = np.array([talk.start_s for talk in said])
        named = self.names.mentions(hearing.words, sentence_ends(said))
        compared = self._phrases.compared(hearing.words)
        rows = np.maximum(0, starts.searchsorted(compared.begin_s, "right") - 1)
        bases = self._likely_bases(said, named, rows, against_each_other(compared.best))
        on_it = bases @ self._bases.T  # how likely each movement's base is at each sentence
        meant = [OPTION if MAY_BE.search(talk.text.lower()) else 1.0 for talk in said]
        scores = self._words.told(hearing.words, size)
        for row, talk in enumerate(said):  # what is done elsewhere than the body is
            scores[:, min(size - 1, int(talk.start_s / BIN_S))] -= OFF_BASE * (1 - on_it[row])
        on_base = against_each_other(compared.best * (OFF + (1 - OFF) * on_it[rows]))
        for near in self._phrases.nearest(compared, on_base):
            row = max(0, int(starts.searchsorted(near.at_s, "right")) - 1)
            scores[near.place, min(size - 1, int(near.at_s / BIN_S))] += PHRASED * meant[row] * near.evidence
        told = [*self._told(said, named, bases, meant)]
        for movement, at_s, weight in told:
            if movement in self._place:
                share = PLACE if movement in self.descriptions.places else 1.0
                scores[self._place[movement], min(size - 1, int(at_s / BIN_S))] += share * weight
        scores[np.ix_(self._unheard(hearing), range(size))] *= UNHEARD
        return _Evidence(said, bases, scores, told)

    def _unheard(self, hearing: Transcript) -> list[int]:
        """The movements that need something nobody speaks of all through a recording."""
        heard = {word for one in hearing.words for word in plain_words(one.text)}
        known = self.descriptions.props
        without = {prop for prop, words in known.items() if not heard.intersection(words)}
        return [place for place, one in enumerate(self.movements) if without.intersection(one.props)]

    def _likely_bases(
        self, said: Sequence[SpeechStretch], named: Sequence[Mention], rows: NDArray[np.int64], near: Floats
    ) -> Floats:
        """How likely each base is at each sentence. near: how near movements are in windows of words that
        begin in rows of sentences."""
        told, by_phrase = self.bases.told(said), np.zeros((len(said), len(self.bases.names)), np.float32)
        for row, values in zip(rows, near, strict=True):
            by_base = (values[:, None] * self._bases).max(axis=0)
            by_phrase[row] = np.maximum(by_phrase[row], np.minimum(by_base, NEAREST))
        for one in named:
            row = max((n for n, talk in enumerate(said) if talk.start_s <= one.start_s), default=0)
            for movement in _movements_of(one.movement):
                if movement in self._place:
                    told[row] = np.maximum(told[row], NAMES_BASE * self._bases[self._place[movement]])
        return self.bases.likely(said, told + TELLS_BASE * by_phrase)

    def _told(
        self, said: Sequence[SpeechStretch], named: Sequence[Mention], bases: Floats, meant: Sequence[float]
    ) -> Iterator[tuple[str, float, float]]:
        """(movement, second, evidence) of names and descriptions."""
        starts = np.array([talk.start_s for talk in said])

        def there(movement: str, row: int, least: float) -> float:
            """How surely the body is where a movement is done, from `least` to 1."""
            if movement not in self._place:
                return 1.0
            return least + (1 - least) * float(bases[row] @ self._bases[self._place[movement]])

        for mention in named:
            row = max(0, int(starts.searchsorted(mention.start_s, "right")) - 1)
            whole = WHOLE_NAME if mention.size > 1 else NAMED
            for movement in _movements_of(mention.movement):
                yield movement, mention.start_s, whole * there(movement, row, NAMED_ELSEWHERE)
        for one in self.descriptions.described(said):
            on = [self.bases.place[base] for base in one.on if base in self.bases.place]
            for movement in _movements_of(one.movement):
                likely = (
                    float(bases[one.sentence, on].sum()) if on else there(movement, one.sentence, ELSEWHERE)
                )
                yield movement, starts[one.sentence], DESCRIBED * likely * meant[one.sentence]

    # --- what is to be expected -----------------------------------------------------------------------------

    def _expected(self, evidence: _Evidence, path: Sequence[Stretch], hearing: Transcript) -> None:
        """Adds what is to be expected: the same again where somebody changes sides; and where something is
        done again on the other side, or one lies on the other, what came after it, about as long after."""
        scores, said = evidence.scores, evidence.said

        def expect(place: int, at_s: float) -> None:
            for talk in said:
                near = max(0.0, 1 - abs(talk.start_s - at_s) / EXPECTED_S)
                scores[place, min(scores.shape[1] - 1, int(talk.start_s / BIN_S))] += EXPECTED * near

        for since_s, turned_s in self._turned_over(evidence):
            for place, start, _ in path:
                if since_s <= start * BIN_S < turned_s and bases_of(self.movements[place]).intersection(
                    _LAIN
                ):
                    expect(place, turned_s + start * BIN_S - since_s)
        turns = [talk.start_s for talk in said if TURN.search(in_plain(talk.text))]
        named = [(talk.start_s, _first_side(talk)) for talk in said]
        sides = [self._side_at(hearing, stretch) for stretch in path]
        for first, (place, start, end) in enumerate(path):
            if self.movements[place].sides == "one":
                until_s = end * BIN_S + EXPECTED_S
                other = OTHER.get(sides[first], "")
                turned = sorted({*turns, *(at_s for at_s, side in named if other and side == other)})
                turned = [at_s for at_s in turned if start * BIN_S + SIDE_S <= at_s <= until_s]
                for at in [int(at_s / BIN_S) for at_s in turned[:1]]:
                    if scores[:, at : at + SHORTEST].sum(axis=1).max() < LIKELY:  # nothing else is told there
                        scores[place, at] += EXPECTED
            again = next(
                (
                    later
                    for later in range(first + 2, min(len(path), first + CHAIN))
                    if path[later].place == place and sides[first] and sides[later] == OTHER[sides[first]]
                ),
                first + 1,
            )
            for one in path[first + 1 : again]:
                expect(one.place, (path[again].start + one.start - start) * BIN_S)

    def _turned_over(self, evidence: _Evidence) -> list[tuple[float, float]]:
        """Where somebody who lies on one side turns onto the other: the seconds since which, and at which."""
        found, lying, since_s = list[tuple[float, float]](), "", 0.0
        for talk, likely in zip(evidence.said, evidence.bases, strict=True):
            known = [one for one in _LAIN if one in self.bases.place]
            now = next((one for one in known if likely[self.bases.place[one]] > TURNED), "")
            if lying and now and now != lying:
                found.append((since_s, talk.start_s))
            if now != lying:
                lying, since_s = now, talk.start_s
        return found

    def _side_at(self, hearing: Transcript, stretch: Stretch) -> str:
        movement = self.movements[stretch.place]
        if movement.sides != "one":
            return ""
        told = [word.text for word in hearing.words if stretch.start * BIN_S - 0.1 <= word.start_s][:ENTERED]
        return self.sides.side_of(movement.id, told)


def _first_side(talk: SpeechStretch) -> str:
    """The side that a sentence names first, "" if it names none."""
    return next((word for word in plain_words(talk.text) if word in OTHER), "")


def sentence_ends(said: Sequence[SpeechStretch]) -> set[int]:
    """The words that follow a full stop, counted as the words of a hearing are."""
    found, at = set[int](), 0
    for talk in said:
        at += len(plain_words(talk.text))
        if talk.text.rstrip()[-1:] in ".!?":
            found.add(at)
    return found


def _movements_of(named: str) -> tuple[str, ...]:
    """The movements that are named by an id: a block's too where it is cat and cow."""
    return ("cat", "cow") if named == "cat-cow" else (named,)


def _costs(hearing: Transcript, said: Sequence[SpeechStretch], size: int) -> Floats:
    """What it costs to begin in each bin: nothing where somebody begins to speak, something in a silence."""
    cost = np.full(size + 1, SILENT, np.float32)
    for talks, of_them in ((said, WITHIN), (hearing.talks, 0.0)):
        for talk in talks:
            cost[min(size, int(talk.start_s / BIN_S))] = of_them
    return cost
