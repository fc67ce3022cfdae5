"""Choose: the best set of lines for one stretch of time, by priority, and proved to be the best.

The lines keep their order. Each may be left out or said in one of its wordings; a line is worth the
square of its rank, so that one that explains comes before two that keep company, and a little less for
each wording on the way from full to bare. The search keeps, line by line, every way that no other way
beats in time, in words spent and in worth at once; what is left at the end is the optimum.
"""

from collections.abc import Callable, Sequence
from functools import cache
from typing import NamedTuple

Earliest = Callable[[int, int, int], int | None]  # (from, latest start, length) -> start


class LineRequest(NamedTuple):
    """A line that may be said: ticks it may start from and must end by, (length, worth) of each wording."""

    earliest: int
    latest: int
    end_by: int
    wordings: tuple[tuple[int, float], ...]


class LineChoice(NamedTuple):
    """Some of the lines said: when the next could start, ticks spoken, worth, each wording (-1: none)."""

    free: int
    spoken: int
    worth: float
    said: tuple[int, ...]


class SpacingRule(NamedTuple):
    """Ticks that may be spoken; the least silence between two lines, and from one's start to the next's."""

    budget: int
    gap: int
    apart: int


def best_lines(wishes: Sequence[LineRequest], rule: SpacingRule, earliest: Earliest) -> tuple[int, ...]:
    """For each line the number of its wording, or -1 for left out: the greatest worth that the rule allows.

    `earliest` finds the first free start for a length.
    """
    earliest = cache(earliest)
    full = _extended(LineChoice(0, 0, 0.0, ()), wishes, rule, earliest)
    if full is not None:
        return full.said
    options = [_sensible(wish) for wish in wishes]
    # What can still be gained after each line, and what saying each as full as it fits gains at least.
    most = [
        max((wish.wordings[n][1] for n in some), default=0.0)
        for wish, some in zip(wishes, options, strict=True)
    ]
    to_come = [sum(most[at + 1 :]) for at in range(len(most))]
    floor = _simple(wishes, options, rule, earliest)
    ways = [LineChoice(0, 0, 0.0, ())]
    for wish, some, ahead in zip(wishes, options, to_come, strict=True):
        needed = floor - ahead - 1e-6
        grown = [
            LineChoice(way.free, way.spoken, way.worth, (*way.said, -1))
            for way in ways
            if way.worth >= needed
        ]
        for way in ways:
            for number in some:
                if way.worth + wish.wordings[number][1] >= needed:
                    more = _with(way, wish, number, rule, earliest)
                    if more is not None:
                        grown.append(more)
        ways = _unbeaten(grown)
    return max(ways, key=lambda way: (way.worth, -way.spoken, way.said)).said


def _sensible(wish: LineRequest) -> list[int]:
    """The wordings of a line that no shorter one is worth as much as."""
    shorter_first = sorted(
        range(len(wish.wordings)), key=lambda n: (wish.wordings[n][0], -wish.wordings[n][1])
    )
    kept: list[int] = []
    for number in shorter_first:
        if not kept or wish.wordings[number][1] > wish.wordings[kept[-1]][1]:
            kept.append(number)
    return kept


def _simple(
    wishes: Sequence[LineRequest], options: Sequence[Sequence[int]], rule: SpacingRule, earliest: Earliest
) -> float:
    """The worth of saying each line in turn in the fullest wording that fits."""
    way = LineChoice(0, 0, 0.0, ())
    for wish, some in zip(wishes, options, strict=True):
        fitting = (_with(way, wish, number, rule, earliest) for number in reversed(some))
        way = next((more for more in fitting if more is not None), way)
    return way.worth


def _extended(
    way: LineChoice, wishes: Sequence[LineRequest], rule: SpacingRule, earliest: Earliest
) -> LineChoice | None:
    """Every line in its first wording, if that can be: nothing is worth more."""
    for wish in wishes:
        more = _with(way, wish, 0, rule, earliest) if wish.wordings else None
        if more is None or wish.wordings[0][1] < max(worth for _, worth in wish.wordings):
            return None
        way = more
    return way


def _with(
    way: LineChoice, wish: LineRequest, number: int, rule: SpacingRule, earliest: Earliest
) -> LineChoice | None:
    length, worth = wish.wordings[number]
    if way.spoken + length > rule.budget:
        return None
    start = earliest(max(way.free, wish.earliest), min(wish.latest, wish.end_by - length), length)
    if start is None:
        return None
    free = start + max(length + rule.gap, rule.apart)
    return LineChoice(free, way.spoken + length, way.worth + worth, (*way.said, number))


def _unbeaten(ways: list[LineChoice]) -> list[LineChoice]:
    """The ways that no other beats in time, in words spent and in worth at once."""
    kept: list[LineChoice] = []
    bounds: list[tuple[int, int]] = []
    for way in sorted(ways, key=lambda way: (-way.worth, way.free, way.spoken)):
        free, spoken = way.free, way.spoken
        for other_free, other_spoken in bounds:
            if other_free <= free and other_spoken <= spoken:
                break
        else:
            kept.append(way)
            bounds.append((free, spoken))
    return kept
