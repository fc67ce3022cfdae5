"""The side a movement is done on, by what is heard of it."""

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from yewhour.core.library.movement import Library, Movement
from yewhour.core.library.position import base_of
from yewhour.core.review.listening.spoken_of import PLACES, TELLING, texts
from yewhour.core.review.without_plan import SWITCH

OTHER = {"right": "left", "left": "right"}
TURN = re.compile(
    rf"{SWITCH.pattern}|\b(?:other (?:leg|arm|one|hand|foot|knee|way)|swap|"
    r"(?:change|switch) (?:it |them )?over|(?:and|now) change|through the (?:middle|cent(?:re|er))|"
    r"(?:and|then|now|lets|ok|okay|to) switch|switch it (?:up|round|around)|"
    r"(?:change|switch) (?:your|the) (?:sides|legs|feet|arms|hands|knees)|"
    r"same (?:thing|again|idea|story) (?:over )?(?:here|there|on this)|"
    r"(?:the|and|now the) (?:left|right) one)\b"
)
SIDE_S = 8.0  # of the first side at least
LAIN, SURELY_LAIN = ("on-{side}", "on-{other}"), 0.5  # positions on a side; how likely it is which
NEAR = 3  # words behind a side that go with it
BEGINS = ("start with the", "begin with the", "starting with the", "beginning with the", "start with your")
SAID, ITSELF = 0.5, 3.0  # what "right" tells, and "right side first"
STEPPED = 6.0  # what a foot that steps back tells of where the other one is in front
_LEGS = frozenset(("foot", "leg", "toes"))
_BODY = _LEGS | {"knee", "heel", "thigh", "hip", "arm", "hand", "shin", "edge"}  # "back knee": no way back
_ENDS_IT = frozenset((*OTHER, "forward", "forwards", "through", "up", "between"))
_PLAIN = frozenset(
    ("the", "to", "and", "of", "your", "a", "it", "is", "with", "them", "that", "this", "so", "then")
)
_BESIDE = frozenset(("behind", "front", "outside", "inside"))
_SIDED = frozenset(("right", "left", "{side}", "{other}"))
Floats = NDArray[np.float32]


class SideListener:
    """Knows what each movement sends where. phrases: how others teach them, for the right side."""

    def __init__(self, library: Library, phrases: Mapping[str, Sequence[str]]) -> None:
        self._library, self._phrases = library, phrases
        self._known: dict[str, Counter[str]] = {}
        self._in_step = {name for name, one in library.items() if base_of(one.start) in ("split", "wide")}

    def side_of(self, movement: str, words: Sequence[str]) -> str:
        """The side a movement is done on, by what is heard of it: "left foot back" is of the right one where
        its own lines send the other foot back. "" where nothing tells."""
        if movement not in self._known:
            phrases = self._phrases.get(movement, ())
            self._known[movement] = _told_of_sides(self._library[movement], phrases)
        known, sum_right = self._known[movement], 0.0
        for at, word in enumerate(words):
            if word in OTHER:
                told = SAID + sum(known[one] for one in _around(words, at))
                if movement in self._in_step and _steps_back(words, at):
                    told = -STEPPED
                told += ITSELF * (words[at + 1 : at + 3] == ["side", "first"] or _begins(words, at))
                sum_right += told if word == "right" else -told
        return "" if sum_right == 0 else "right" if sum_right > 0 else "left"


def _begins(words: Sequence[str], at: int) -> bool:
    """Whether a side is told as the one to begin with: "start with the right", "right one first"."""
    told = " ".join(words[max(0, at - 3) : at])
    return told.endswith(BEGINS) or words[at + 1 : at + 3] == ["one", "first"]


def _steps_back(words: Sequence[str], at: int) -> bool:
    """Whether a side is of a leg that goes back: "right foot way back", "step back with the left foot"."""
    if not _LEGS.intersection(words[at + 1 : at + 2]):
        return False
    for near in range(at + 2, min(at + 6, len(words))):
        if words[near] in _ENDS_IT:
            break
        if words[near] in ("back", "backwards") and not _BODY.intersection(words[near + 1 : near + 2]):
            return True
    return list(words[max(0, at - 3) : at - 1]) == ["back", "with"]


def lain(
    movement: Movement, bases: Sequence[tuple[float, Floats]], place: Mapping[str, int]
) -> tuple[tuple[float, str], ...]:
    """The sides a movement that is done lying on one is done on, each from a second on.

    bases: how likely each base is from a second on. place: of bases there.
    """
    own = next((one for one in map(base_of, movement.start.split(" or ")) if one in LAIN), "")
    found: list[tuple[float, str]] = []
    for at_s, likely in bases if own else ():
        right, left = (float(likely[place[f"on-{side}"]]) for side in OTHER)
        if max(right, left) > SURELY_LAIN:
            lying = "right" if right > left else "left"
            side = lying if own == "on-{side}" else OTHER[lying]
            if not found or found[-1][1] != side:
                found.append((at_s, side))
    return tuple(found)


def _around(words: Sequence[str], at: int) -> Iterator[str]:
    """What goes with a side: the words close behind it, and the two before it as one, with a mark. What is
    behind the other hand is no leg that is behind: "right foot over behind the left wrist"."""
    for near in range(at + 1, min(at + 1 + NEAR, len(words))):
        if words[near] in _PLAIN:
            continue
        if words[near] not in _BESIDE or not _SIDED.intersection(words[near + 1 : near + 4]):
            yield words[near]
    yield "<" + " ".join(words[max(0, at - 2) : at])


def _told_of_sides(movement: Movement, phrases: Sequence[str]) -> Counter[str]:
    """What goes with a side in its lines, and in its phrases: how much more it is of its own side than of the
    other. Where one foot is before the other, the one in front is its own; lying on a side, that which is on
    top."""
    count: Counter[str] = Counter()
    if base_of(movement.start) in ("split", "wide"):
        count.update({"forward": 2, "front": 2, "back": -2, "behind": -2})
    if base_of(movement.start) == "on-{other}":
        count.update({"<onto your": -4, "<on your": -4, "<to the": -4, "<onto the": -4})
    told = [(purpose, text.lower()) for purpose, text in texts(movement)]
    told += [
        ("place", re.sub(r"\bleft\b", "{other}", re.sub(r"\bright\b", "{side}", one))) for one in phrases
    ]
    for purpose, text in told:
        if TELLING.get(purpose, 0.0) >= PLACES or purpose == "way":
            words = re.findall(r"\{[a-z]+\}|[a-z']+", text)
            for at, word in enumerate(words):
                if word in ("{side}", "{other}"):
                    for one in _around(words, at):
                        count[one] += 1 if word == "{side}" else -1
    return count
