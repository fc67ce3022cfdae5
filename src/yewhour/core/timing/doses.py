"""Doses: what kind of step something is, how long one of its whole numbers takes, and which it may have."""

import msgspec

from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.library.kinds import BEHAVIOURS, DONE, Kind
from yewhour.core.library.movement import Movement
from yewhour.core.pace import Pace, breath_ticks
from yewhour.core.plan.nodes import Rounds, Step
from yewhour.core.plan.school import School
from yewhour.core.problem import Problem

MOST_OPTIONS = 250  # of one number; a wider range is taken in larger steps
MOST_ROUNDS = 60  # numbers of rounds that a group is tried with


class AmountRange(msgspec.Struct, frozen=True, gc=False):
    """The whole numbers a step may have, and how unwilling it is to leave the preferred one."""

    least: int
    preferred: int
    most: int
    by: int
    weight: float


def kind_of(step: Step, movement: Movement, school: School) -> Kind:
    """The kind of step: its movement's, unless it is a phase of a flow, done otherwise here, or by the clock.

    Raises Problem for what has no repetition to repeat.
    """
    if step.phase:
        return "phase"
    kind = DONE.get(step.done or "", movement.kind)
    how = BEHAVIOURS[kind]
    if how.is_reps and not movement.rhythm and not movement.stages:
        raise Problem(
            f"{movement.name} has no repetition, so it can't be repeated.",
            movement.name,
            "Hold it, or choose a movement that goes there and back.",
        )
    by_clock = step.clock if step.clock is not None else how.is_hold and school.holds == "clock"
    return "clock" if by_clock and how.by_clock_too else kind


def unit_ticks(kind: Kind, movement: Movement, pace: Pace, count_s: float) -> int:
    """Ticks one whole number of a step takes: a breath, a repetition, a cycle, a count, a second."""
    counts = 1.0
    match BEHAVIOURS[kind].lasts:
        case "breath":
            return breath_ticks(pace)
        case "second":
            return TICKS_PER_S
        case "rhythm":
            rhythms = movement.stages or (movement.rhythm,)
            counts = sum(counts for rhythm in rhythms for _, counts in rhythm)
        case "phase" | "lines":
            return 0
    return max(1, round(counts * count_s * TICKS_PER_S))


def amount_range(step: Step, movement: Movement, kind: Kind, breath_s: float = 7.5) -> AmountRange:
    """What fit may choose from; a locked step has one number only.

    Breaths are breaths in every style. Held by the clock they are taken in steps of 5 s: a movement's own
    dose at 8 breaths a minute, a step's at its pace, unless it is by the clock itself and means seconds.
    """
    how = BEHAVIOURS[kind]
    hold_by_clock = how.is_clock and movement.behaviour.is_hold
    if hold_by_clock and step.clock is None:
        step = _in_seconds(step, breath_s)
    own = kind == movement.kind or how.is_phase or hold_by_clock
    by = max(movement.by if own else 1, how.by)
    least, preferred, most = movement.dose if own or how.stage is None else how.stage
    if hold_by_clock:
        least, preferred, most = (int(breaths * 7.5 // 5) * 5 for breaths in movement.dose)
    alternating = movement.sides == "alternating" and how.repeated
    if alternating or step.halves:
        by = by if by % 2 == 0 else by * 2
    if step.amount is not None:
        # From side to side there is always an even number: one more where an odd one was asked for.
        preferred = step.amount + (step.amount % 2 if alternating else 0)
        least, most = min(least, preferred), max(most, preferred)
    # The step's own least and most are stronger than the movement's: what is beyond them comes to them.
    least = step.least if step.least is not None else min(least, step.most or least)
    most = step.most if step.most is not None else max(most, least)
    preferred = min(max(preferred, least), most)
    weight = step.weight if step.weight is not None else movement.weight
    if step.locked:
        least = most = preferred
    return AmountRange(least, preferred, most, by, weight)


def _in_seconds(step: Step, breath_s: float) -> Step:
    """A step given in breaths, in seconds."""

    def seconds(breaths: int | None) -> int | None:
        return None if breaths is None else max(5, round(breaths * breath_s / 5) * 5)

    return msgspec.structs.replace(
        step, amount=seconds(step.amount), least=seconds(step.least), most=seconds(step.most)
    )


def amounts_of(span: AmountRange, least: int) -> tuple[int, ...]:
    """The numbers a step may have: from the preferred one in its steps, and no fewer than `least`.

    When what must be said needs more than the most, that need wins; a lock is never broken.
    """
    if span.least == span.most:
        return (span.preferred,)
    low = max(span.least, least, 1)
    first = low + (span.preferred - low) % span.by
    numbers = range(first, span.most + 1, span.by)
    if not numbers:
        return (max(1, -(-low // span.by) * span.by),)
    if len(numbers) > MOST_OPTIONS:  # every so many of them, the preferred one among them
        stride = -(-len(numbers) // MOST_OPTIONS) * span.by
        numbers = range(first + (span.preferred - first) % stride, span.most + 1, stride)
    return tuple(numbers)


def round_options(group: Rounds, alternate: bool) -> tuple[int, ...]:
    """The numbers of rounds a group may have. Raises Problem for an odd number that changes sides."""
    by = 2 if alternate else 1
    least, most = group.least or group.times, group.most or group.times
    if alternate and group.times % 2:
        raise Problem(
            f"Rounds that change sides need an even number, not {group.times}.",
            f"group {group.id}",
            "Use one more or one fewer, so that both sides lead equally often.",
        )
    if group.locked:
        return (group.times,)
    by *= max(1, -(-(most - least) // (by * MOST_ROUNDS)))  # a wide range is taken in larger steps
    return tuple(range(group.times - (group.times - least) // by * by, most + 1, by))
