"""Fit: the whole numbers that give a class exactly its length at the least departure from preferred.

Every part of the class gets a table "least cost for each duration from here to the end", in ticks. A step
is a min-plus convolution of the table behind it with its few options; a group with several possible numbers
of rounds is the pointwise minimum over them, each with the table of what is inside it. Built from the end
backwards, so one pass answers every length, and every "from this part, with so much left".

The cost of a number n is weight * ((n - preferred) / preferred)^2. One stillness or closing pause (the
slack) may take any number of ticks, so that what no whole breath can fill is still filled. It is kept out
of the tables and chosen when a length is asked for.

The numbers chosen add up exactly, and cost at most about a millionth more than the least there is.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec
import numpy as np

from yewhour.core.lengths import (
    LONGEST_S,
    TICKS_PER_S,
    seconds,
    show_length,
    ticks,
)
from yewhour.core.problem import CannotFit
from yewhour.core.timing.cost_table import (
    EMPTY,
    Costs,
    CostTable,
    TableLink,
    convolved,
    least_of,
)
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.numbers import (
    ChosenNumber,
    RoundsChoice,
    SlackTime,
    Stretch,
    least_ticks,
)

LONGEST = ticks(LONGEST_S)
BLOCK = 8  # parts


class _Fork(msgspec.Struct):
    """The options of a group, each with its table and its chain."""

    repeat: RoundsChoice
    tables: list[CostTable]
    chains: list[_Chain]


_Chain = list[TableLink | _Fork]


class _Solved(msgspec.Struct):
    """One part: its table, and the chain its numbers are read from."""

    table: CostTable
    chain: _Chain


class Fit:
    """The solved tables of one plan, ready to answer any length.

    keep: every table is kept, and another length, or a length from a later part on, is a look-up. When
    not, one table in BLOCK is kept and the others are worked out again where they are needed: a fraction
    of the memory, for a program that asks for one length. known: a fit that ends in the parts of this one
    but the first, and keeps its tables: they are used again. Raises CannotFit when the class is longer
    than four hours however it is taken.
    """

    def __init__(self, parts: Sequence[Stretch], keep: bool = True, known: Fit | None = None) -> None:
        self.parts = tuple(parts)
        self._slack, self._slack_part = _slack_of(self.parts)
        self._slack_low = self._slack.least if self._slack else 0
        self._slack_costs = slack_costs(self._slack)
        self._after: dict[int, CostTable] = {len(self.parts): EMPTY}
        self._solved: dict[int, _Solved] = {}
        # A table need not go beyond what the least of the parts before it leaves of four hours.
        shortest = [least_ticks(part) for part in self.parts]
        self._limits = [LONGEST - sum(shortest[:index]) for index in range(len(self.parts))]
        table = EMPTY
        for index in reversed(range(len(self.parts))):
            if known is not None and index:
                solved = known._part(index + len(known.parts) - len(self.parts))
            else:
                solved = self._solve(index, table)
            table = solved.table
            if not np.isfinite(table.costs).any():
                raise CannotFit("This class is longer than four hours.", LONGEST_S, LONGEST_S, "Shorten it.")
            if keep:
                self._solved[index] = solved
            if keep or index % BLOCK == 0:
                self._after[index] = table
        self.shortest, self.longest = self._bounds(0)

    def onward(self, parts: Sequence[Stretch]) -> Fit:
        """The fit of a class from within one of its parts on: what is left of it, and those behind it."""
        return Fit(parts, known=self)

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

    def at(self, length: int, part: int = 0) -> FittedNumbers:
        """The choice for parts `part` to the end lasting exactly `length` ticks.

        Raises CannotFit with the shortest and the longest possible, and the nearest lengths if the
        one asked for lies between them.
        """
        cost, slack = self._with_slack(length, part)
        if not np.isfinite(cost):
            raise self._refusal(length, part)
        found = FittedNumbers({}, {}, 0.0, length)
        exact, left = 0.0, length
        if self._slack is not None and self._slack_part >= part:
            found.amounts[self._slack.key] = slack
            exact += float(self._slack_costs[slack - self._slack_low])
            left -= slack
        for index in range(part, len(self.parts)):
            more, left = _read(self.parts[index], self._part(index).chain, left, found)
            exact += more
        return msgspec.structs.replace(found, cost=exact)

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
        points, (low, high) = self._after[part].points(), self._reach(part)
        return int(points[0]) + low, min(int(points[-1]) + high, LONGEST)

    def _neighbours(self, length: int, part: int) -> tuple[int | None, int | None]:
        """The nearest possible lengths below and above one that is not."""
        points, (low, high) = self._after[part].points(), self._reach(part)
        below = points[points + low < length]
        above = points[points + high > length]
        under = min(int(below[-1]) + high, length) if len(below) else None
        over = max(int(above[0]) + low, length) if len(above) else None
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

    # --- solving ----------------------------------------------------------------------------------------

    def _part(self, index: int) -> _Solved:
        """One part as it was solved, or solved again with the rest of its block."""
        if index not in self._solved:
            end = min(index // BLOCK * BLOCK + BLOCK, len(self.parts))
            table = self._after[end]
            self._solved = {}
            for again in reversed(range(index, end)):
                self._solved[again] = self._solve(again, table)
                table = self._solved[again].table
        return self._solved[index]

    def _solve(self, index: int, table: CostTable) -> _Solved:
        return _Solved(*_prepended(self.parts[index], table, self._limits[index]))


def _prepended(stretch: Stretch, table: CostTable, limit: int) -> tuple[CostTable, _Chain]:
    """The table of a stretch followed by what `table` describes, and its chain, the first number first."""
    chain: _Chain = []
    for number in reversed(stretch.numbers):
        if isinstance(number, RoundsChoice):
            tables, chains = [], []
            for _, cost, inner in number.options:
                found, links = _prepended(inner, table, limit)
                tables.append(found.moved(0, cost))
                chains.append(links)
            chain.append(_Fork(number, tables, chains))
            table = least_of(tables)
        elif isinstance(number, ChosenNumber):
            table, link = convolved(number, table, limit)
            chain.append(link)
    return table.moved(stretch.fixed), chain[::-1]


def _read(stretch: Stretch, chain: _Chain, left: int, into: FittedNumbers) -> tuple[float, int]:
    """Puts the numbers of a stretch and all behind it lasting `left` ticks into a choice.

    Gives what they cost, and the ticks that are left for what is behind.
    """
    into.amounts.update(stretch.given)
    cost = 0.0
    left -= stretch.fixed
    for link in chain:
        if isinstance(link, TableLink):
            pick = link.pick(left)
            into.amounts[link.number.key] = link.number.options[pick]
            cost += float(link.number.costs[pick])
            left -= link.spans[pick]
        else:
            costs = [table.at(left) for table in link.tables]
            best = costs.index(min(costs))
            rounds, own, inner = link.repeat.options[best]
            into.rounds[link.repeat.key] = rounds
            more, left = _read(inner, link.chains[best], left, into)
            cost += own + more
    return cost, left


def _slack_of(parts: Sequence[Stretch]) -> tuple[SlackTime | None, int]:
    """The slack of a class and the part it is in."""
    for index, part in enumerate(parts):
        for number in part.numbers:
            if isinstance(number, SlackTime):
                return number, index
    return None, -1


def slack_costs(slack: SlackTime | None) -> Costs:
    """What each number of ticks from the least to the most costs."""
    if slack is None:
        return np.zeros(1, np.float64)
    numbers = np.arange(slack.least, slack.most + 1, dtype=np.float64)
    scale = max(slack.preferred, 10 * TICKS_PER_S)
    costs: Costs = slack.weight * ((numbers - slack.preferred) / scale) ** 2
    return costs
