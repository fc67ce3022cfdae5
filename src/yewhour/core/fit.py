"""Fit: the whole numbers that give a class exactly its length at the least departure from preferred.

Every part of the class gets a table "least cost for each duration from here to the end", in ticks.
A step is a min-plus convolution of the table behind it with its few options; a group with several
possible numbers of rounds is the pointwise minimum over them. Built from the end backwards, so one
pass answers every length, and every "from this part, with so much left".

The cost of a number n is weight * ((n - preferred) / preferred)^2. One stillness or closing pause
(the slack) may take any number of ticks, so that what no whole breath can fill is still filled.
"""

from collections.abc import Sequence

import msgspec
import numpy as np

from yewhour.core.lengths import LONGEST_S, seconds, show_length, ticks
from yewhour.core.problem import CannotFit

Costs = np.ndarray[tuple[int], np.dtype[np.float64]]
Kept = np.ndarray[tuple[int], np.dtype[np.float32]]
Spans = np.ndarray[tuple[int], np.dtype[np.int64]]
LONGEST = ticks(LONGEST_S)


class Var(msgspec.Struct, frozen=True):
    """One whole number to choose: ticks per unit, the options in order, and their costs.

    A slack var's options are every tick from the first to the last, its unit is 1.
    """

    key: str
    unit: int
    options: tuple[int, ...] | range
    costs: tuple[float, ...] | Costs
    slack: bool = False


class Way(msgspec.Struct, frozen=True):
    """One way to do a part: so many rounds of its groups, what they cost, fixed ticks, and its vars.

    given: amounts that leave no choice; their ticks are in `fixed`.
    """

    rounds: tuple[tuple[str, int], ...]
    cost: float
    fixed: int
    vars: tuple[Var, ...]
    given: tuple[tuple[str, int], ...] = ()


Part = tuple[Way, ...]


class Choice(msgspec.Struct, frozen=True):
    """The numbers chosen: amounts by step (the slack's in ticks), rounds by group, and the cost."""

    amounts: dict[str, int]
    rounds: dict[str, int]
    cost: float
    length: int


class _Table(msgspec.Struct):
    """Least cost for `low + index` ticks; inf where that duration can't be had."""

    low: int
    costs: Costs


class _Link(msgspec.Struct):
    """A var and the table of everything behind it, from which its choice for any duration is read.

    The tables are worked out in double precision and kept in single, so that long classes stay small;
    a choice is thus within about 1e-6 of the least cost.
    """

    var: Var
    spans: Spans
    costs: Costs
    low: int
    behind: Kept


def option_costs(options: Sequence[int], preferred: int, weight: float) -> tuple[float, ...]:
    """weight * ((n - preferred) / preferred)^2 for each option; preferred 0 is measured in ones."""
    scale = max(1, preferred)
    return tuple(weight * ((n - preferred) / scale) ** 2 for n in options)


class Fit:
    """The solved tables of one plan, ready to answer any length.

    Raises CannotFit when the class is longer than four hours however it is taken.
    """

    def __init__(self, parts: Sequence[Part]) -> None:
        self.parts = tuple(parts)
        table = _Table(0, np.zeros(1))
        self._chains: list[list[list[_Link]]] = []
        self._tables: list[list[_Table]] = []
        self._after: list[_Table] = [table]
        for part in reversed(self.parts):
            made = [_prepend(way, table) for way in part]
            self._chains.append([links for _, links in made])
            self._tables.append([result for result, _ in made])
            table = _least([result for result, _ in made])
            if not len(table.costs):
                raise CannotFit("This class is longer than four hours.", LONGEST_S, LONGEST_S, "Shorten it.")
            self._after.append(table)
        self._chains.reverse()
        self._tables.reverse()
        self._after.reverse()
        finite = np.flatnonzero(np.isfinite(self._after[0].costs))
        if not len(finite):
            raise CannotFit(
                "Two locks or limits of this class contradict each other.", 0.0, 0.0, "Unlock a step."
            )
        self.shortest = self._after[0].low + int(finite[0])
        self.longest = self._after[0].low + int(finite[-1])

    @property
    def preferred(self) -> int:
        """Ticks of the class when everything has what it prefers (the first of the cheapest)."""
        table = self._after[0]
        return table.low + int(np.argmin(table.costs))

    def nearest(self, length: int) -> int:
        """The possible length nearest to one asked for, in ticks; the shorter of two."""
        table = self._after[0]
        finite = np.flatnonzero(np.isfinite(table.costs)) + table.low
        return int(finite[np.argmin(np.abs(finite - length))])

    def cost(self, length: int, part: int = 0) -> float:
        """Least cost of parts `part` to the end lasting `length` ticks; inf when they can't."""
        return _at(self._after[part], length)

    def at(self, length: int, part: int = 0) -> Choice:
        """The choice for parts `part` to the end lasting exactly `length` ticks.

        Raises CannotFit with the shortest and the longest possible, and the nearest lengths if the
        one asked for lies between them.
        """
        amounts: dict[str, int] = {}
        rounds: dict[str, int] = {}
        cost = self.cost(length, part)
        if not np.isfinite(cost):
            raise self._refusal(length, part)
        left = length
        for index in range(part, len(self.parts)):
            best = min(range(len(self._tables[index])), key=lambda way: _at(self._tables[index][way], left))
            way = self.parts[index][best]
            rounds.update(way.rounds)
            amounts.update(way.given)
            left -= way.fixed
            for link in self._chains[index][best]:
                pick = _pick(link, left)
                amounts[link.var.key] = link.var.options[pick]
                left -= int(link.spans[pick])
        return Choice(amounts, rounds, cost, length)

    def _refusal(self, length: int, part: int) -> CannotFit:
        table = self._after[part]
        finite = np.flatnonzero(np.isfinite(table.costs)) + table.low
        shortest, longest = seconds(int(finite[0])), seconds(int(finite[-1]))
        asked = show_length(seconds(length), tenths=length % 10 != 0)
        what = (
            f"This class can't last {asked}: the shortest it can be is {show_length(shortest, True)}, "
            f"the longest {show_length(longest, True)}."
        )
        if shortest < seconds(length) < longest:
            below = show_length(seconds(int(finite[finite < length][-1])), True)
            above = show_length(seconds(int(finite[finite > length][0])), True)
            return CannotFit(
                what, shortest, longest, f"The nearest lengths it can have are {below} and {above}."
            )
        return CannotFit(
            what, shortest, longest, "Ask for a length between them, or add, drop or unlock a step."
        )


def _at(table: _Table, length: int) -> float:
    index = length - table.low
    return float(table.costs[index]) if 0 <= index < len(table.costs) else float("inf")


def _prepend(way: Way, table: _Table) -> tuple[_Table, list[_Link]]:
    """The table of this way followed by what `table` describes, and its links, first var first."""
    links: list[_Link] = []
    for var in reversed(way.vars):
        table, link = _convolve(var, table)
        links.append(link)
    low, costs = table.low + way.fixed, table.costs
    costs = costs[: max(0, LONGEST + 1 - low)]
    return _Table(low, costs + way.cost if way.cost else costs), links[::-1]


def _convolve(var: Var, table: _Table) -> tuple[_Table, _Link]:
    """The least cost over a var's options, each moving the table behind it by its duration."""
    spans = np.asarray(var.options, np.int64) * var.unit
    costs = np.asarray(var.costs, np.float64)
    link = _Link(var, spans, costs, table.low, table.costs.astype(np.float32))
    low = int(spans.min())
    result = np.full(len(table.costs) + int(spans.max()) - low, np.inf)
    if var.slack:
        _spread(result, table.costs, costs)
    else:
        moved = np.empty(len(table.costs))
        for span, cost in zip(spans - low, costs, strict=True):
            here = result[span : span + len(moved)]
            np.add(table.costs, cost, out=moved)
            np.minimum(here, moved, out=here)
    low += table.low
    return _Table(low, result[: max(0, LONGEST + 1 - low)]), link


def _spread(result: Costs, table: Costs, options: Costs) -> None:
    """As above, for options that are every tick: one pass for each of whichever are fewer."""
    finite = np.flatnonzero(np.isfinite(table))
    if len(finite) <= len(options):
        for at in finite:
            here = result[at : at + len(options)]
            np.minimum(here, options + table[at], out=here)
    else:
        for at, cost in enumerate(options):
            here = result[at : at + len(table)]
            np.minimum(here, table + cost, out=here)


def _pick(link: _Link, length: int) -> int:
    """The option that costs least with what is behind it; the first of equals, options being in order."""
    at = length - link.low - link.spans
    inside = (at >= 0) & (at < len(link.behind))
    sums = np.where(inside, link.costs + link.behind[np.where(inside, at, 0)], np.inf)
    return int(np.argmin(sums))


def _least(tables: list[_Table]) -> _Table:
    """The pointwise minimum."""
    if len(tables) == 1:
        return tables[0]
    low = min(table.low for table in tables)
    high = max(table.low + len(table.costs) for table in tables)
    costs = np.full(high - low, np.inf)
    for table in tables:
        here = costs[table.low - low : table.low - low + len(table.costs)]
        np.minimum(here, table.costs, out=here)
    return _Table(low, costs)
