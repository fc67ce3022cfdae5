"""A class as cards: what comes, when, how much and on which side, to be seen beside the mat."""

from collections.abc import Sequence

import msgspec

from yewhour.core.export.reading import blocks
from yewhour.core.lengths import seconds, show_length
from yewhour.core.made import Made
from yewhour.core.plan.movement import Movement


class Card(msgspec.Struct, frozen=True):
    """A movement of a class. times: when it begins, on each of its sides. position: the one it is done in."""

    section: str
    name: str
    dose: str
    times: tuple[str, ...]
    sides: tuple[str, ...]
    movement: Movement
    position: str


def cards(made: Made) -> list[Card]:
    """The cards of a class, in order: the two sides of a movement that follow each other are one, as are the
    rounds of a flow."""
    found: list[Card] = []
    last = ("", "")  # the flow, and the step, of the card before
    for segment, _ in blocks(made):
        turn = segment.turn
        if segment.kind == "talk":
            continue
        key = (turn.flow or "", "" if turn.flow else turn.step.id)
        sides = (segment.side,) if segment.side in ("right", "left") else ()
        time = show_length(seconds(segment.start))
        if found and turn.flow and last[0] == turn.flow:
            continue  # the breaths of a flow, and its rounds
        if (
            found
            and not turn.flow
            and last == key
            and sides
            and found[-1].sides
            and sides[0] not in found[-1].sides
        ):
            before = found[-1]
            found[-1] = msgspec.structs.replace(
                before, times=(*before.times, time), sides=(*before.sides, *sides)
            )
            continue
        rounds = f"{turn.rounds} round{'' if turn.rounds == 1 else 's'}"
        found.append(
            Card(
                segment.section,
                segment.name,
                rounds if turn.flow else segment.dose,
                (time,),
                sides,
                turn.movement,
                turn.start,
            )
        )
        last = key
    return found


def in_parts(found: Sequence[Card]) -> list[tuple[str, list[Card]]]:
    """The cards by the parts of the class, in order."""
    parts: list[tuple[str, list[Card]]] = []
    for card in found:
        if not parts or parts[-1][0] != card.section:
            parts.append((card.section, []))
        parts[-1][1].append(card)
    return parts
