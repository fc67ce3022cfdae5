"""Positions of the body, and the ways between them: their words and their seconds.

A position is a base and, where it matters for what follows, a form: `seated crossed`, `split right low`. A
need may leave the form open: `seated` is met by any seat. A position without a form is needed as it is:
`wide` is not met with one foot turned out.
"""

import math
import re
from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from heapq import heappop, heappush
from itertools import count

import msgspec

from yewhour.core.library.movement import Wordings
from yewhour.core.problem import Problem
from yewhour.core.sides import (
    SIDE_TOKENS,
    Side,
    fill,
    tokens,
)

START = "start"  # where a class begins: nowhere yet
LISTENING_S = 5.0  # what each further change costs who has to listen: fewer changes before quicker ones


class PositionChange(msgspec.Struct, frozen=True, gc=False):
    """One change of position: what is said, its usual seconds, and the least that a careful body needs.

    breath: in a flow it takes a breath of its own; otherwise the movement it leads to says it. otherwise:
    other words for the same, of which a class has one.
    """

    start: str
    end: str
    usual_s: float
    least_s: float
    say: Wordings = ()
    breath: bool = False
    otherwise: tuple[Wordings, ...] = ()


class Way(msgspec.Struct, frozen=True, gc=False):
    """The quickest way from one position to another: its changes in order, and where it ends."""

    changes: tuple[PositionChange, ...] = ()
    end: str = ""

    @property
    def usual_s(self) -> float:
        """Seconds it usually takes."""
        return sum(change.usual_s for change in self.changes)

    @property
    def least_s(self) -> float:
        """Seconds that a careful body needs."""
        return sum(change.least_s for change in self.changes)


class PositionGraph:
    """Every position there is, and the quickest way between any two; a way that was found is remembered."""

    def __init__(
        self,
        places: Sequence[str],
        changes: Sequence[PositionChange],
        floor: frozenset[str] = frozenset(),
        facing_down: frozenset[str] = frozenset(),
    ) -> None:
        self.places = tuple(places)
        self.names = tuple(dict.fromkeys(base_of(place) for place in places))
        self.floor = floor
        self.facing_down = facing_down
        self._from: dict[str, list[PositionChange]] = {}
        for change in changes:
            self._from.setdefault(change.start, []).append(change)
        self._formless = frozenset(self.places) & frozenset(self.names)
        self._met: dict[tuple[str, str], bool] = {}
        self._known: dict[tuple[str, str], Way | None] = {}
        self._usual: dict[str, str] = {}
        self._seconds: dict[tuple[str, str], float] = {}
        self._avoiding: dict[tuple[frozenset[str], str], PositionGraph] = {}
        self._else: PositionGraph | None = None  # the ways there are where none keeps away

    def meets(self, here: str, need: str) -> bool:
        """Whether being there is enough for who needs that; a need may name several positions."""
        key = here, need
        known = self._met.get(key)
        if known is None:
            known = not need or any(
                here == one or (one not in self._formless and here.startswith(one + " "))
                for one in need.split(" or ")
            )
            self._met[key] = known
        return known

    def reaches(self, here: str, need: str) -> bool:
        """Whether there is a way at all."""
        return self.meets(here, need) or self._quickest(here, need) is not None

    def usual(self, need: str) -> str:
        """The first position that meets a need: the one meant where nothing else is known."""
        found = self._usual.get(need)
        if found is None:
            first = need.split(" or ")[0]
            found = next((place for place in self.places if self.meets(place, first)), first)
            self._usual[need] = found
        return found

    def way(self, here: str, need: str) -> Way:
        """The quickest way from a position to one that meets a need; nothing where it is met already.

        Raises Problem when there is none.
        """
        if not here or self.meets(here, need):
            return Way((), here or self.usual(need))
        key = here, need
        if key not in self._known:
            found = self._quickest(here, need)
            if found is None and self._else is not None:  # which may keep away from others itself
                with suppress(Problem):
                    found = self._else.way(here, need)
            self._known[key] = found
        found = self._known[key]
        if found is None:
            raise Problem(f"There is no way from {here} to {need}.", "positions", "Add a way between them.")
        return found

    def seconds(self, here: str, need: str) -> float:
        """The usual seconds of a way, or infinity where there is none; remembered."""
        key = here, need
        known = self._seconds.get(key)
        if known is None:
            try:
                known = self.way(here, need).usual_s
            except Problem:
                known = math.inf
            self._seconds[key] = known
        return known

    def avoiding(self, places: frozenset[str], unsaid: str = "") -> "PositionGraph":
        """The same positions, whose ways keep away from some of them wherever there is another way.

        unsaid: a pattern of what their words should not say either, "" for nothing.
        """
        known = self._avoiding.get((places, unsaid))
        if known is None:
            changes = [
                _without_words(one, unsaid)
                for own in self._from.values()
                for one in own
                if not places & {one.start, one.end} and not _says(one.say, unsaid)
            ]
            known = PositionGraph(self.places, changes, self.floor, self.facing_down)
            known._else = self
            self._avoiding[places, unsaid] = known
        return known

    def between(self, start: str, end: str) -> float:
        """The usual seconds from one position to another; "" is anywhere and costs nothing."""
        return self.way(self.usual(start), end).usual_s if start and end else 0.0

    def _quickest(self, here: str, need: str) -> Way | None:
        order = count(1)  # of two ways as quick, the one that was found first
        heap: list[tuple[float, int, str, tuple[PositionChange, ...]]] = [(0.0, 0, here, ())]
        done = set()
        while heap:
            seconds, _, place, path = heappop(heap)
            if self.meets(place, need):
                return Way(path, place)
            if place in done:
                continue
            done.add(place)
            for change in self._from.get(place, ()):
                if change.end not in done:
                    more = seconds + change.usual_s + LISTENING_S
                    heappush(heap, (more, next(order), change.end, (*path, change)))
        return None


def _says(words: Wordings, unsaid: str) -> bool:
    return bool(unsaid) and any(re.search(unsaid, text, re.IGNORECASE) for text in words)


def _without_words(change: PositionChange, unsaid: str) -> PositionChange:
    """A change without those of its other words that say what they should not."""
    if not any(_says(words, unsaid) for words in change.otherwise):
        return change
    kept = tuple(words for words in change.otherwise if not _says(words, unsaid))
    return msgspec.structs.replace(change, otherwise=kept)


def base_of(place: str) -> str:
    """The base of a position: `split` of `split right low`."""
    return place.partition(" ")[0]


def side_of(place: str) -> str:
    """The foot in front or the side lain on: `right` of `split right high`; nothing where there is none."""
    return next((word for word in place.replace("-", " ").split() if word in ("left", "right")), "")


def places_of(bases: Mapping[str, Sequence[str]]) -> tuple[str, ...]:
    """The positions of bases with their forms; a sided form is two."""
    found = [f"{base} {form}".strip() for base, forms in bases.items() for form in forms]
    return tuple(dict.fromkeys(fill(place, side) for place in found for side in _sides_of(place)))


def needs_of(places: Sequence[str]) -> tuple[str, ...]:
    """All that a movement may need: every position, and every one with less said of it."""
    words = [place.split() for place in places]
    return tuple(dict.fromkeys(" ".join(one[:n]) for one in words for n in range(1, len(one) + 1)))


def changes_of(
    start: str,
    end: str,
    seconds: tuple[float, float],
    say: Wordings,
    breath: bool,
    places: Sequence[str],
    apart: Sequence[str] = (),
    otherwise: tuple[Wordings, ...] = (),
) -> Iterator[PositionChange]:
    """One way as it is written, on both sides where it is sided, from every form where it says `*`.

    apart: forms that are left only by ways of their own.

    Raises Problem for a position that is not there.
    """
    for side in _sides_of(" ".join((start, end, *say))):
        first, last = fill(start, side), fill(end, side)
        said, *others = (tuple(fill(text, side) for text in one) for one in (say, *otherwise))
        firsts = [first]
        if first.endswith(" *"):
            firsts = [
                place for place in places if base_of(place) == first[:-2] and place not in (last, *apart)
            ]
        for one in (*firsts, last):
            if one not in places and one != START:
                raise Problem(f"{one!r} is not a position.")
        for one in firsts:
            yield PositionChange(one, last, seconds[0], seconds[1], said, breath, tuple(others))


def _sides_of(text: str) -> tuple[Side, ...]:
    return ("right", "left") if SIDE_TOKENS & tokens(text) else ("both",)
