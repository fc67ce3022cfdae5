"""A choice: the numbers that fit found."""

import msgspec


class FittedNumbers(msgspec.Struct, frozen=True):
    """The numbers chosen: amounts by step (the slack's in ticks), rounds by group, and the cost."""

    amounts: dict[str, int]
    rounds: dict[str, int]
    cost: float
    length: int
