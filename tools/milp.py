"""The fit model given to `scipy.optimize.milp`, to hold the tables against: in tests and benchmarks only."""

from collections.abc import Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_matrix

from yewhour.core.fit import Part, Var


def optimum(parts: Sequence[Part], length: int) -> float | None:
    """Least cost of the parts lasting exactly `length` ticks, None when they can't.

    A var of a part with one way is one integer n and one cost c, with c at least every line through two
    neighbouring options (its costs are convex, so c is exact at whole numbers): far fewer unknowns than
    one for each option. A part with several ways has a binary for each, and its vars one for each option.
    """
    model = _Rows()
    for part in parts:
        if len(part) == 1:
            model.total += part[0].fixed
            model.cost += part[0].cost
            for var in part[0].vars:
                model.convex(var)
        else:
            model.ways(part)
    return model.solve(length)


class _Rows:
    """The unknowns and rows of one problem."""

    def __init__(self) -> None:
        self.total, self.cost = 0, 0.0
        self.costs: list[float] = []
        self.ticks: list[float] = []
        self.whole: list[int] = []
        self.bounds: list[tuple[float, float]] = []
        self.rows: list[tuple[list[int], list[float], float, float]] = []

    def unknown(self, cost: float, ticks: float, whole: int, low: float, high: float) -> int:
        self.costs.append(cost)
        self.ticks.append(ticks)
        self.whole.append(whole)
        self.bounds.append((low, high))
        return len(self.costs) - 1

    def convex(self, var: Var) -> None:
        # Options in steps of `by` are counted in steps.
        options, costs = list(var.options), [float(cost) for cost in var.costs]
        by = options[1] - options[0]
        number = self.unknown(0.0, by * var.unit, 1, 0, len(options) - 1)
        self.total += options[0] * var.unit
        cost = self.unknown(1.0, 0.0, 0, 0, np.inf)
        stride = max(1, len(options) // 400) if var.slack else 1
        for at in range(0, len(options) - 1, stride):
            slope = costs[at + 1] - costs[at]
            self.rows.append(([cost, number], [1.0, -slope], costs[at] - slope * at, np.inf))

    def ways(self, part: Part) -> None:
        chosen = []
        for way in part:
            choice = self.unknown(way.cost, way.fixed, 1, 0, 1)
            chosen.append(choice)
            for var in way.vars:
                options = [
                    self.unknown(float(cost), amount * var.unit, 1, 0, 1)
                    for amount, cost in zip(var.options, var.costs, strict=True)
                ]
                self.rows.append(([*options, choice], [1.0] * len(options) + [-1.0], 0.0, 0.0))
        self.rows.append((chosen, [1.0] * len(chosen), 1.0, 1.0))

    def solve(self, length: int) -> float | None:
        left = float(length - self.total)
        if not self.costs:
            return self.cost if left == 0 else None
        rows = [*self.rows, (list(range(len(self.ticks))), self.ticks, left, left)]
        columns = [column for row in rows for column in row[0]]
        values = [value for row in rows for value in row[1]]
        starts = np.cumsum([0] + [len(row[0]) for row in rows])
        matrix = csr_matrix((values, columns, starts), shape=(len(rows), len(self.costs)))
        found = milp(
            np.array(self.costs),
            constraints=LinearConstraint(matrix, [row[2] for row in rows], [row[3] for row in rows]),
            integrality=np.array(self.whole),
            bounds=Bounds([low for low, _ in self.bounds], [high for _, high in self.bounds]),
            options={"mip_rel_gap": 0.0},
        )
        return float(found.fun) + self.cost if found.success else None
