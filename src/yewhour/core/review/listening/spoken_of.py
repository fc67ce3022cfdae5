"""What movements are spoken of with: their lines, the telling of each, and where they are done."""

from collections.abc import Iterator, Mapping

from yewhour.core.library.movement import Movement
from yewhour.core.library.position import base_of
from yewhour.core.sides import fill, unmarked

# What the words of a line tell of its movement: placing most, thoughts least.
TELLING: Mapping[str, float] = {
    "place": 3.0, "first": 2.5, "again": 2.5, "call": 2.0, "flow": 2.0, "align": 1.0, "check": 0.7,
    "leave": 0.6, "keep": 0.5, "deepen": 0.5, "choice": 0.5,
}  # fmt: skip
PLACES = 2.0  # what the words of a line tell that brings one into its movement, at least


def can_be_heard(movement: Movement) -> bool:
    """Whether it is something that bodies do."""
    return not movement.behaviour.framing and bool(movement.start) and movement.kind != "setup"


def texts(movement: Movement) -> Iterator[tuple[str, str]]:
    """(purpose, line) of all that is said of it."""
    for purpose, lines in movement.lines.items():
        for wordings in lines:
            yield purpose, wordings[0]
    if movement.card is not None:
        yield from movement.card.lines()


def placing(movement: Movement) -> Iterator[str]:
    """The lines of its own that bring one into a movement."""
    for purpose, text in texts(movement):
        if TELLING.get(purpose, 0.0) >= PLACES:
            yield unmarked(text)


def places(movement: Movement) -> list[str]:
    """Where it is done, for the right side."""
    return [*sided(movement.start).split(" or "), sided(movement.end or movement.start).split(" or ")[0]]


def bases_of(movement: Movement) -> frozenset[str]:
    """The bases it is done on, both sides of one that is lain on."""
    bases = {base_of(place.strip()) for place in places(movement)}
    return frozenset(bases | ({"on-right", "on-left"} if bases & {"on-right", "on-left"} else set()))


def sided(place: str) -> str:
    """A position for the right side."""
    return fill(place, "right")
