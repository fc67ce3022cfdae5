"""The whole numbers of a class: what fit may choose, as a nest of stretches.

A stretch is a run of numbers with the ticks that don't change. A group whose rounds may vary is one number
in it, with a stretch of its own for each number of rounds: so groups beside each other are chosen one by
one, and groups in groups as deep as they go, without trying their combinations.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

PAUSE = "closing pause"  # the slack of a class that ends without a stillness


class ChosenNumber(msgspec.Struct, frozen=True):
    """One whole number to choose: ticks per unit, the options in order, and their costs."""

    key: str
    unit: int
    options: tuple[int, ...]
    costs: tuple[float, ...]


class SlackTime(msgspec.Struct, frozen=True):
    """What takes what no whole number can: any ticks from least to most. A class has one at most."""

    key: str
    least: int
    preferred: int
    most: int
    weight: float


class RoundsChoice(msgspec.Struct, frozen=True):
    """So many rounds of a group: (rounds, cost, stretch) of each option, the nearest to preferred first."""

    key: str
    options: tuple[tuple[int, float, Stretch], ...]


class Stretch(msgspec.Struct, frozen=True):
    """Fixed ticks, and the numbers to choose in them, in order.

    given: amounts that leave no choice; their ticks are in `fixed`.
    """

    fixed: int = 0
    numbers: tuple[ChosenNumber | SlackTime | RoundsChoice, ...] = ()
    given: tuple[tuple[str, int], ...] = ()


def option_costs(options: Sequence[int], preferred: int, weight: float) -> tuple[float, ...]:
    """weight * ((n - preferred) / preferred)^2 for each option; preferred 0 is measured in ones."""
    scale = max(1, preferred)
    return tuple(weight * ((n - preferred) / scale) ** 2 for n in options)


def least_ticks(stretch: Stretch) -> int:
    """The shortest a stretch can be."""
    total = stretch.fixed
    for number in stretch.numbers:
        if isinstance(number, RoundsChoice):
            total += min(least_ticks(inner) for _, _, inner in number.options)
        elif isinstance(number, ChosenNumber):
            total += min(number.options[0], number.options[-1]) * number.unit
        else:
            total += number.least
    return total
