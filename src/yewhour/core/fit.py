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
Picks = np.ndarray[tuple[int], np.dtype[np.uint16]]
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
    """What var was chosen for each duration of the table it made, as an index into its options."""

    var: Var
    low: int
    picks: Picks


_NONE = np.iinfo(np.uint16).max


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
                pick = int(link.picks[left - link.low])
                amount = link.var.options[pick]
                amounts[link.var.key] = amount
                left -= amount * link.var.unit
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
    if low + len(costs) > LONGEST + 1:
        costs = costs[: max(0, LONGEST + 1 - low)]
    return _Table(low, costs + way.cost if way.cost else costs), links[::-1]


def _convolve(var: Var, table: _Table) -> tuple[_Table, _Link]:
    if var.slack:
        return _convolve_slack(var, table)
    spans = [amount * var.unit for amount in var.options]
    low, reach = min(spans), max(spans) - min(spans)
    size = min(len(table.costs) + reach, max(1, LONGEST + 1 - table.low - low))
    costs = np.full(size, np.inf)
    picks = np.full(size, _NONE, np.uint16)
    for pick in sorted(range(len(spans)), key=lambda index: (var.costs[index], index)):
        at = spans[pick] - low
        part = table.costs[: size - at] + var.costs[pick]
        better = part < costs[at : at + len(part)]
        np.copyto(costs[at : at + len(part)], part, where=better)
        np.copyto(picks[at : at + len(part)], pick, where=better)
    return _Table(table.low + low, costs), _Link(var, table.low + low, picks)


def _convolve_slack(var: Var, table: _Table) -> tuple[_Table, _Link]:
    """As above, for options that are every tick: one pass per duration that the table can have."""
    options = np.asarray(var.costs, np.float64)
    low = table.low + var.options[0]
    costs = np.full(len(table.costs) + len(options) - 1, np.inf)
    picks = np.full(len(costs), _NONE, np.uint16)
    indices = np.arange(len(options), dtype=np.uint16)
    finite = np.flatnonzero(np.isfinite(table.costs))
    for at in finite:
        part = options + table.costs[at]
        here = slice(int(at), int(at) + len(options))
        better = part < costs[here]
        np.copyto(costs[here], part, where=better)
        np.copyto(picks[here], indices, where=better)
    return _Table(low, costs), _Link(var, low, picks)


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
