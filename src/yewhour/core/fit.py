"""Fit: the whole numbers that give a class exactly its length at the least departure from preferred.

Every part of the class gets a table "least cost for each duration from here to the end", in ticks.
A step is a min-plus convolution of the table behind it with its few options; a group with several
possible numbers of rounds is the pointwise minimum over them. Built from the end backwards, so one
pass answers every length, and every "from this part, with so much left".

The cost of a number n is weight * ((n - preferred) / preferred)^2. One stillness or closing pause
(the slack) may take any number of ticks, so that what no whole breath can fill is still filled. It is
kept out of the tables and chosen when a length is asked for; without it the durations lie on a coarse
grid (all of them whole breaths, say), and a table holds only the points of that grid.

Tables are in single precision; the numbers chosen add up exactly, and cost at most about a millionth
more than the least there is.
"""

from collections.abc import Sequence
from math import gcd

import msgspec
import numpy as np

from yewhour.core.choice import Choice
from yewhour.core.lengths import LONGEST_S, seconds, show_length, ticks
from yewhour.core.problem import CannotFit

Costs = np.ndarray[tuple[int], np.dtype[np.float64]]
Points = np.ndarray[tuple[int], np.dtype[np.float32]]
Spans = np.ndarray[tuple[int], np.dtype[np.int64]]
LONGEST = ticks(LONGEST_S)
BLOCK = 8  # parts


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


class _Table(msgspec.Struct):
    """Least cost for `low + index * grid` ticks; inf where that duration can't be had."""

    low: int
    grid: int
    costs: Points

    def at(self, length: int) -> float:
        """Least cost of a duration in ticks."""
        index, off = divmod(length - self.low, self.grid)
        return float(self.costs[index]) if not off and 0 <= index < len(self.costs) else float("inf")

    def on(self, grid: int) -> "_Table":
        """The same table on a finer grid."""
        if grid == self.grid:
            return self
        finer = np.full((len(self.costs) - 1) * (self.grid // grid) + 1, np.inf, np.float32)
        finer[:: self.grid // grid] = self.costs
        return _Table(self.low, grid, finer)

    def moved(self, ticks: int, cost: float) -> "_Table":
        """The table of something that takes so long and costs so much before it."""
        return _Table(self.low + ticks, self.grid, self.costs + np.float32(cost) if cost else self.costs)


class _Link(msgspec.Struct):
    """A var and the table of everything behind it, from which its choice for any duration is read."""

    var: Var
    spans: tuple[int, ...]
    behind: _Table


def option_costs(options: Sequence[int], preferred: int, weight: float) -> tuple[float, ...]:
    """weight * ((n - preferred) / preferred)^2 for each option; preferred 0 is measured in ones."""
    scale = max(1, preferred)
    return tuple(weight * ((n - preferred) / scale) ** 2 for n in options)


class _Solved(msgspec.Struct):
    """One part: the table and the links of each of its ways."""

    tables: list[_Table]
    chains: list[list[_Link]]


class Fit:
    """The solved tables of one plan, ready to answer any length.

    keep: every table is kept, and another length, or a length from a later part on, is a look-up. When
    not, one table in BLOCK is kept and the others are worked out again where they are needed: a fraction
    of the memory, for a program that asks for one length. Raises CannotFit when the class is longer than
    four hours however it is taken.
    """

    def __init__(self, parts: Sequence[Part], keep: bool = True) -> None:
        self.parts = tuple(parts)
        self._slack: Var | None = None
        self._slack_part = -1
        self._after: dict[int, _Table] = {len(self.parts): _Table(0, 1, np.zeros(1, np.float32))}
        self._solved: dict[int, _Solved] = {}
        # A table need not go beyond what the least of the parts before it leaves of four hours.
        least = [min((_least_ticks(way) for way in part), default=0) for part in self.parts]
        self._limits = [LONGEST - sum(least[:index]) for index in range(len(self.parts))]
        table = self._after[len(self.parts)]
        for index in reversed(range(len(self.parts))):
            solved = self._solve(index, table)
            table = _least(solved.tables)
            if not len(table.costs):
                raise CannotFit("This class is longer than four hours.", LONGEST_S, LONGEST_S, "Shorten it.")
            if keep:
                self._solved[index] = solved
            if keep or index % BLOCK == 0:
                self._after[index] = table
        self._slack_costs = np.asarray(self._slack.costs if self._slack else [0.0], np.float64)
        self._slack_low = self._slack.options[0] if self._slack else 0
        self.shortest, self.longest = self._bounds(0)

    # --- questions ------------------------------------------------------------------------------------

    @property
    def preferred(self) -> int:
        """Ticks of the class when everything has what it prefers (the first of the cheapest)."""
        table = self._after[0]
        slack = self._slack_low + int(np.argmin(self._slack_costs))
        return table.low + int(np.argmin(table.costs)) * table.grid + slack

    def nearest(self, length: int) -> int:
        """The possible length nearest to one asked for, in ticks; the shorter of two."""
        if np.isfinite(self.cost(length)):
            return length
        below, above = self._neighbours(length, 0)
        choices = [one for one in (below, above) if one is not None]
        return min(choices, key=lambda one: (abs(one - length), one))

    def cost(self, length: int, part: int = 0) -> float:
        """Least cost of parts `part` to the end lasting `length` ticks; inf when they can't."""
        return self._with_slack(length, part)[0]

    def at(self, length: int, part: int = 0) -> Choice:
        """The choice for parts `part` to the end lasting exactly `length` ticks.

        Raises CannotFit with the shortest and the longest possible, and the nearest lengths if the
        one asked for lies between them.
        """
        cost, slack = self._with_slack(length, part)
        if not np.isfinite(cost):
            raise self._refusal(length, part)
        amounts: dict[str, int] = {}
        rounds: dict[str, int] = {}
        exact, left = 0.0, length
        if self._slack is not None and self._slack_part >= part:
            amounts[self._slack.key] = slack
            exact += float(self._slack_costs[slack - self._slack_low])
            left -= slack
        for index in range(part, len(self.parts)):
            solved = self._part(index)
            costs = [table.at(left) for table in solved.tables]
            best = costs.index(min(costs))
            way = self.parts[index][best]
            rounds.update(way.rounds)
            amounts.update(way.given)
            exact += way.cost
            left -= way.fixed
            for link in solved.chains[best]:
                pick = _pick(link, left)
                amounts[link.var.key] = link.var.options[pick]
                exact += float(link.var.costs[pick])
                left -= link.spans[pick]
        return Choice(amounts, rounds, exact, length)

    # --- the slack --------------------------------------------------------------------------------------

    def _with_slack(self, length: int, part: int) -> tuple[float, int]:
        """(least cost, ticks of slack) of parts `part` to the end lasting `length`."""
        table = self._after[part]
        if self._slack is None or self._slack_part < part:
            return table.at(length), 0
        # Only those ticks of slack count that leave a point of the grid.
        first = (length - table.low - self._slack_low) % table.grid
        slack = self._slack_low + np.arange(first, len(self._slack_costs), table.grid)
        at = (length - table.low - slack) // table.grid
        inside = (at >= 0) & (at < len(table.costs))
        if not inside.any():
            return float("inf"), 0
        slack, at = slack[inside], at[inside]
        sums = self._slack_costs[slack - self._slack_low] + table.costs[at]
        best = int(np.argmin(sums))
        return float(sums[best]), int(slack[best])

    def _reach(self, part: int) -> tuple[int, int]:
        """The least and the most slack there is from a part on."""
        if self._slack is None or self._slack_part < part:
            return 0, 0
        return self._slack_low, self._slack_low + len(self._slack_costs) - 1

    def _bounds(self, part: int) -> tuple[int, int]:
        """The shortest and the longest of parts `part` to the end."""
        points, (least, most) = self._points(part), self._reach(part)
        return int(points[0]) + least, min(int(points[-1]) + most, LONGEST)

    def _points(self, part: int) -> Spans:
        """The durations a table has, in ticks."""
        table = self._after[part]
        return table.low + np.flatnonzero(np.isfinite(table.costs)) * table.grid

    def _neighbours(self, length: int, part: int) -> tuple[int | None, int | None]:
        """The nearest possible lengths below and above one that is not."""
        points, (least, most) = self._points(part), self._reach(part)
        below = points[points + least < length]
        above = points[points + most > length]
        under = min(int(below[-1]) + most, length) if len(below) else None
        over = max(int(above[0]) + least, length) if len(above) else None
        return under, over

    def _refusal(self, length: int, part: int) -> CannotFit:
        low, high = self._bounds(part)
        shortest, longest = seconds(low), seconds(high)
        asked = show_length(seconds(length), tenths=length % 10 != 0)
        what = (
            f"This class can't last {asked}: the shortest it can be is {show_length(shortest, True)}, "
            f"the longest {show_length(longest, True)}."
        )
        below, above = self._neighbours(length, part)
        if low < length < high and below is not None and above is not None:
            near = f"{show_length(seconds(below), True)} and {show_length(seconds(above), True)}"
            return CannotFit(what, shortest, longest, f"The nearest lengths it can have are {near}.")
        return CannotFit(
            what, shortest, longest, "Ask for a length between them, or add, drop or unlock a step."
        )

    # --- the tables -------------------------------------------------------------------------------------

    def _part(self, index: int) -> _Solved:
        """One part as it was solved, or solved again with the rest of its block."""
        if index not in self._solved:
            end = min(index // BLOCK * BLOCK + BLOCK, len(self.parts))
            table = self._after[end]
            self._solved = {}
            for again in reversed(range(index, end)):
                self._solved[again] = self._solve(again, table)
                table = _least(self._solved[again].tables)
        return self._solved[index]

    def _solve(self, index: int, table: _Table) -> _Solved:
        made = [self._prepend(way, table, index) for way in self.parts[index]]
        return _Solved([result for result, _ in made], [links for _, links in made])

    def _prepend(self, way: Way, table: _Table, part: int) -> tuple[_Table, list[_Link]]:
        """The table of this way followed by what `table` describes, and its links, first var first."""
        links: list[_Link] = []
        for var in reversed(way.vars):
            if var.slack:
                self._slack, self._slack_part = var, part
                continue
            table, link = _convolve(var, table, self._limits[part])
            links.append(link)
        return table.moved(way.fixed, way.cost), links[::-1]


def _convolve(var: Var, table: _Table, limit: int) -> tuple[_Table, _Link]:
    """The least cost over a var's options, each moving the table behind it by its duration."""
    spans = np.asarray(var.options, np.int64) * var.unit
    costs = np.asarray(var.costs, np.float64)
    low = int(spans.min())
    if len(table.costs) > 1:
        table = table.on(gcd(table.grid, _step(spans)))
    else:
        table = _Table(table.low, _step(spans), table.costs)
    moves = (spans - low) // table.grid
    low += table.low
    points = len(table.costs)
    # Nothing is worked out beyond the limit.
    result = np.full(
        min(points + int(moves.max()), max(0, (limit - low) // table.grid + 1)), np.inf, np.float32
    )
    moved = np.empty(points, np.float32)
    for move, cost in zip(moves.tolist(), costs.astype(np.float32), strict=True):
        here = result[move : move + points]
        np.add(table.costs[: len(here)], cost, out=moved[: len(here)])
        np.minimum(here, moved[: len(here)], out=here)
    return _Table(low, table.grid, result), _Link(var, tuple(spans.tolist()), table)


def _least_ticks(way: Way) -> int:
    """The shortest a way can be."""
    return way.fixed + sum(min(var.options[0], var.options[-1]) * var.unit for var in way.vars)


def _step(spans: Spans) -> int:
    """The greatest step that every difference between durations is a multiple of."""
    return gcd(*(int(span) - int(spans.min()) for span in spans)) or 1


def _pick(link: _Link, length: int) -> int:
    """The option that costs least with what is behind it; the first of equals, options being in order."""
    table, best, least = link.behind, 0, float("inf")
    points, left = len(table.costs), length - table.low
    for number, (span, cost) in enumerate(zip(link.spans, link.var.costs, strict=True)):
        at, off = divmod(left - span, table.grid)
        if off == 0 and 0 <= at < points and cost < least:
            total = cost + table.costs.item(at)
            if total < least:
                best, least = number, total
    return best


def _least(tables: list[_Table]) -> _Table:
    """The pointwise minimum, on a grid that all of them lie on."""
    if len(tables) == 1:
        return tables[0]
    low = min(table.low for table in tables)
    grid = (
        gcd(*(table.grid for table in tables if len(table.costs) > 1), *(table.low - low for table in tables))
        or 1
    )
    tables = [
        table.on(grid) if len(table.costs) > 1 else _Table(table.low, grid, table.costs) for table in tables
    ]
    high = max(table.low + (len(table.costs) - 1) * grid for table in tables)
    costs = np.full((high - low) // grid + 1, np.inf, np.float32)
    for table in tables:
        at = (table.low - low) // grid
        here = costs[at : at + len(table.costs)]
        np.minimum(here, table.costs, out=here)
    return _Table(low, grid, costs)
