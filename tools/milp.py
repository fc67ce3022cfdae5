"""The fit model given to `scipy.optimize.milp`, to hold the tables against: in tests and benchmarks only."""

from collections.abc import Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_matrix

from yewhour.core.timing.fit import slack_costs
from yewhour.core.timing.numbers import (
    ChosenNumber,
    RoundsChoice,
    SlackTime,
    Stretch,
)


def optimum(parts: Sequence[Stretch], length: int) -> float | None:
    """Least cost of the parts lasting exactly `length` ticks, None when they can't.

    A number that is there whatever the rounds is one integer n and one cost c, with c at least every line
    through two neighbouring options (its costs are convex, so c is exact at whole numbers): far fewer
    unknowns than one for each option. A group has a binary for each number of rounds, and what is inside it
    one for each option.
    """
    model = _Rows()
    for part in parts:
        model.stretch(part)
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

    def stretch(self, stretch: Stretch) -> None:
        self.total += stretch.fixed
        for number in stretch.numbers:
            if isinstance(number, RoundsChoice):
                self.repeat(number, None)
            elif isinstance(number, SlackTime):
                options = tuple(range(number.least, number.most + 1))
                costs = tuple(slack_costs(number).tolist())
                self.convex(ChosenNumber(number.key, 1, options, costs), max(1, len(options) // 400))
            else:
                self.convex(number, 1)

    def convex(self, number: ChosenNumber, stride: int) -> None:
        # Options in steps of `by` are counted in steps.
        options, costs = number.options, number.costs
        by = options[1] - options[0]
        steps = self.unknown(0.0, by * number.unit, 1, 0, len(options) - 1)
        self.total += options[0] * number.unit
        cost = self.unknown(1.0, 0.0, 0, 0, np.inf)
        for at in range(0, len(options) - 1, stride):
            slope = costs[at + 1] - costs[at]
            self.rows.append(([cost, steps], [1.0, -slope], costs[at] - slope * at, np.inf))

    def repeat(self, group: RoundsChoice, outer: int | None) -> None:
        """One of a group's options, where the option it stands in is taken itself."""
        chosen = []
        for _, cost, inner in group.options:
            choice = self.unknown(cost, inner.fixed, 1, 0, 1)
            chosen.append(choice)
            for number in inner.numbers:
                if isinstance(number, RoundsChoice):
                    self.repeat(number, choice)
                    continue
                options = [
                    self.unknown(cost, amount * number.unit, 1, 0, 1)
                    for amount, cost in zip(number.options, number.costs, strict=True)
                ]
                self.rows.append(([*options, choice], [1.0] * len(options) + [-1.0], 0.0, 0.0))
        if outer is None:
            self.rows.append((chosen, [1.0] * len(chosen), 1.0, 1.0))
        else:
            self.rows.append(([*chosen, outer], [1.0] * len(chosen) + [-1.0], 0.0, 0.0))

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
