"""What the sprig shows for each segment: which needles, and how far across they reach."""

from __future__ import annotations

from typing import NamedTuple

from yewhour.core.shelf.thumbnail import reach_of
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment


class Needle(NamedTuple):
    """One segment on the sprig. `reach` is the share of the room across (0-1), by effort."""

    segment: Segment
    sides: tuple[str, ...]  # "left", "right"; none for bare stem
    reach: float
    label: str
    aril: bool  # the side changes here
    whorl: int = 0  # the round that starts here, 0 for none
    meant: bool = False  # a difference of the second side that was declared
    knot: bool = False  # locked
    head: tuple[str, ...] = ()  # the sides of the movement that is taught here, none where nothing is new


def needles(timed: TimedClass) -> list[Needle]:
    """The needles of a class in order; set-ups and talk are bare stem."""
    result: list[Needle] = []
    last_side = last_pair = ""
    labelled = ""
    rounds: tuple[int, str] = (0, "")
    last_of = {segment.use.pair: index for index, segment in enumerate(timed.segments)}
    for index, segment in enumerate(timed.segments):
        bare = segment.behaviour.bare
        sides: tuple[str, ...] = ()
        if not bare:
            sides = (segment.side,) if segment.side in ("left", "right") else ("left", "right")
        one_sided = not bare and segment.side in ("left", "right")
        pair = segment.use.pair
        aril = one_sided and bool(last_side) and segment.side != last_side
        if one_sided:
            last_side, last_pair = segment.side, pair
        elif not bare and not (last_pair and last_of[last_pair] > index):
            last_side = last_pair = ""  # work on both sides in between: nothing to change from
        name = segment.use.flow or segment.id
        label = "" if segment.behaviour.is_setup or labelled == name else _label(segment)
        if not segment.behaviour.is_setup:
            labelled = name
        reach = reach_of(segment.use.movement.effort)
        step, use = segment.use.step, segment.use
        whorl = use.round if (use.round, _group(segment)) != rounds and use.round else 0
        rounds = (use.round, _group(segment))
        meant = use.second and step.second is not None
        knot = step.locked and not use.second and use.round <= 1 and not segment.behaviour.is_setup
        head = _taught(timed, index)
        result.append(Needle(segment, sides, reach, label, aril, whorl, meant, knot, head))
    return result


def _taught(timed: TimedClass, index: int) -> tuple[str, ...]:
    """The sides of the movement that a set-up teaches: its needle has a paler head."""
    segment = timed.segments[index]
    if not (segment.use.setup_for and segment.amount and index + 1 < len(timed.segments)):
        return ()
    after = timed.segments[index + 1]
    if after.behaviour.bare:
        return ()
    return (after.side,) if after.side in ("left", "right") else ("left", "right")


def _label(segment: Segment) -> str:
    if segment.behaviour.is_phase:
        return f"{segment.name}, in {'rounds' if segment.use.rounds > 1 else 'a flow'}"
    return segment.name


def _group(segment: Segment) -> str:
    """What tells one group of rounds from another: its flow, or the node at the top that it is in."""
    return segment.use.flow or f"{segment.use.section}/{segment.use.node}" if segment.use.round else ""
