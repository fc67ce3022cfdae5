"""Tables: the least cost for each duration, in ticks. What NumPy is for; nothing else imports it.

A step is a min-plus convolution of the table behind it with its few options. Without the slack the
durations lie on a coarse grid (all of them whole breaths, say), and a table holds only the points of that
grid. Tables are in single precision.
"""

from math import gcd

import msgspec
import numpy as np

from yewhour.core.timing.numbers import ChosenNumber

Costs = np.ndarray[tuple[int], np.dtype[np.float64]]
Points = np.ndarray[tuple[int], np.dtype[np.float32]]
Spans = np.ndarray[tuple[int], np.dtype[np.int64]]


class CostTable(msgspec.Struct):
    """Least cost for `low + index * grid` ticks; inf where that duration can't be had."""

    low: int
    grid: int
    costs: Points

    def at(self, length: int) -> float:
        """Least cost of a duration in ticks."""
        index, off = divmod(length - self.low, self.grid)
        return float(self.costs[index]) if not off and 0 <= index < len(self.costs) else float("inf")

    def on(self, grid: int) -> "CostTable":
        """The same table on a finer grid."""
        if grid == self.grid:
            return self
        if len(self.costs) <= 1:
            return CostTable(self.low, grid, self.costs)
        finer = np.full((len(self.costs) - 1) * (self.grid // grid) + 1, np.inf, np.float32)
        finer[:: self.grid // grid] = self.costs
        return CostTable(self.low, grid, finer)

    def moved(self, ticks: int, cost: float = 0.0) -> "CostTable":
        """The table of something that takes so long and costs so much before it."""
        return CostTable(self.low + ticks, self.grid, self.costs + np.float32(cost) if cost else self.costs)

    def points(self) -> Spans:
        """The durations that can be had, in ticks."""
        return self.low + np.flatnonzero(np.isfinite(self.costs)) * self.grid


EMPTY = CostTable(0, 1, np.zeros(1, np.float32))


class TableLink(msgspec.Struct):
    """A number and the table of everything behind it, from which its choice for any duration is read."""

    number: ChosenNumber
    spans: tuple[int, ...]
    behind: CostTable

    def pick(self, length: int) -> int:
        """The option that costs least with what is behind it; the first of equals, options being in order."""
        table, best, least = self.behind, 0, float("inf")
        points, left = len(table.costs), length - table.low
        for number, (span, cost) in enumerate(zip(self.spans, self.number.costs, strict=True)):
            at, off = divmod(left - span, table.grid)
            if off == 0 and 0 <= at < points and cost < least:
                total = cost + table.costs.item(at)
                if total < least:
                    best, least = number, total
        return best


def convolved(number: ChosenNumber, table: CostTable, limit: int) -> tuple[CostTable, TableLink]:
    """The least cost over a number's options, each moving the table behind it by its duration.

    Nothing is worked out beyond `limit` ticks.
    """
    spans = np.asarray(number.options, np.int64) * number.unit
    costs = np.asarray(number.costs, np.float64)
    low = int(spans.min())
    grid = gcd(*(int(span) - low for span in spans)) or 1
    table = table.on(gcd(table.grid, grid) if len(table.costs) > 1 else grid)
    moves = (spans - low) // table.grid
    low += table.low
    points = len(table.costs)
    size = min(points + int(moves.max()), max(0, (limit - low) // table.grid + 1))
    result = np.full(size, np.inf, np.float32)
    moved = np.empty(points, np.float32)
    for move, cost in zip(moves.tolist(), costs.astype(np.float32), strict=True):
        here = result[move : move + points]
        np.add(table.costs[: len(here)], cost, out=moved[: len(here)])
        np.minimum(here, moved[: len(here)], out=here)
    return CostTable(low, table.grid, result), TableLink(number, tuple(spans.tolist()), table)


def least_of(tables: list[CostTable]) -> CostTable:
    """The pointwise minimum, on a grid that all of them lie on."""
    if len(tables) == 1:
        return tables[0]
    low = min(table.low for table in tables)
    grids = [table.grid for table in tables if len(table.costs) > 1]
    grid = gcd(*grids, *(table.low - low for table in tables)) or 1
    tables = [table.on(grid) for table in tables]
    high = max(table.low + (len(table.costs) - 1) * grid for table in tables)
    costs = np.full((high - low) // grid + 1, np.inf, np.float32)
    for table in tables:
        at = (table.low - low) // grid
        here = costs[at : at + len(table.costs)]
        np.minimum(here, table.costs, out=here)
    return CostTable(low, grid, costs)
