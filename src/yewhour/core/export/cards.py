"""A class as cards: what comes, when, how much and on which side, to be seen beside the mat."""

from collections.abc import Sequence

import msgspec

from yewhour.core.export.reading import blocks
from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.movement import Movement
from yewhour.core.timed_class import TimedClass


class Card(msgspec.Struct, frozen=True):
    """A movement of a class.

    times: when it begins, on each of its sides; none within a flow. position: the one it is done in.
    """

    section: str
    name: str
    dose: str
    times: tuple[str, ...]
    sides: tuple[str, ...]
    movement: Movement
    position: str


def cards(timed: TimedClass) -> list[Card]:
    """The cards of a class, in order.

    The two sides of a movement that follow each other are one; of a flow there is its first round, with the
    number of them beside its beginning.
    """
    found: list[Card] = []
    last, flow = "", ""  # the step, and the flow, of the card before
    for segment, _ in blocks(timed):
        use = segment.use
        if segment.behaviour.is_talk or (use.flow and use.round > 1):
            continue
        sides: tuple[str, ...] = (segment.side,) if segment.side in ("right", "left") else ()
        time = show_length(seconds(segment.start))
        before = found[-1] if found else None
        other = before is not None and use.step.id == last and sides and before.sides
        if before is not None and other and not use.flow and sides[0] not in before.sides:
            both = {"times": (*before.times, time), "sides": (*before.sides, *sides)}
            found[-1] = msgspec.structs.replace(before, **both)
            continue
        if before is not None and use.flow and use.flow == flow and before.movement.id == use.movement.id:
            continue  # it stays there
        begins = use.flow != flow
        rounds = f"{use.rounds} round{'' if use.rounds == 1 else 's'}" if begins else ""
        dose = rounds if use.flow else segment.dose
        times = (time,) if begins or not use.flow else ()
        name = use.movement.name if use.flow else segment.name
        found.append(
            Card(
                segment.section,
                name,
                dose,
                times,
                sides,
                use.movement,
                use.end if use.flow else use.start,
            )
        )
        last, flow = use.step.id, use.flow
    return found


def in_parts(found: Sequence[Card]) -> list[tuple[str, list[Card]]]:
    """The cards by the parts of the class, in order."""
    parts: list[tuple[str, list[Card]]] = []
    for card in found:
        if not parts or parts[-1][0] != card.section:
            parts.append((card.section, []))
        parts[-1][1].append(card)
    return parts
