"""Simulated takes: a teacher who drifts, stops, holds longer and goes on early; and what must hold then."""

from functools import reduce
from operator import or_
from random import Random

from yewhour.core.lengths import seconds
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.take.apply_marks import apply_mark_numbers
from yewhour.core.take.marks import Mark
from yewhour.core.take.refit import remaining_class
from yewhour.core.take.take import Take, begin
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.numbers import (
    ChosenNumber,
    RoundsChoice,
    SlackTime,
    Stretch,
)

DRIFT_S = 90.0  # late in all, at most


def simulated(solved: SolvedPlan, timed: TimedClass, dice: Random) -> tuple[Take, list[str]]:
    """A take of a class with random drift, and everything that is wrong with it."""
    take = apply_mark_numbers(begin(solved, timed), Mark(0.0, "start"))
    wrong: list[str] = []
    at_s, drift_s = 0.0, 0.0
    while True:
        at_s += dice.uniform(5, 120)
        if at_s * 10 >= take.end - 10:
            break
        do = dice.choice(("pause", "pause", "again", "again", "fewer", "next"))
        before, marks = take, [Mark(round(at_s, 1), do)]
        if do == "pause":
            stop_s = dice.uniform(1, 15)
            at_s += stop_s
            marks.append(Mark(round(at_s, 1), "resume"))
        for mark in marks:
            take = apply_mark_numbers(take, mark)
        drift_s += max(0.0, seconds(take.retimed[-1].late) if take.retimed != before.retimed else 0.0)
        wrong += _broken_locks(before, take)
        if drift_s > DRIFT_S:
            break
    return take, wrong + _wrong(take)


def _broken_locks(before: Take, after: Take) -> list[str]:
    """Locked numbers that a re-timing changed; what she does to the one that is on is hers."""
    steps = {one.use.step.id for one in after.segments if one.use.key in after.kept}
    hers = after.kept | {one.id for one in after.segments if one.use.step.id in steps}
    ahead = [one for one in before.segments if one.start > after.now and one.id not in hers]
    was = {one.id: one.amount for one in ahead if one.use.step.locked}
    partners = set(after.course.partners.values())
    return [
        f"{one.id} was locked at {was[one.id]} and has {one.amount}"
        for one in after.segments
        if one.id in was and one.id not in partners and one.amount != was[one.id]
    ]


def _wrong(take: Take) -> list[str]:
    """Second sides that are not as their first, and rests under their least."""
    wrong = []
    done = {one.use.key: one for one in take.segments}
    ways = {one.use.setup_for: one.start for one in take.segments if one.use.setup_for}
    for first, second in take.course.partners.items():
        one, two = done.get(first), done.get(second)
        if one is None or two is None or one.use.step.second:
            continue
        if min(two.start, ways.get(second, two.start)) < take.now:
            continue  # what she did on the second side herself, or on the way to it, is hers
        apart = take.took(one) - two.length
        if one.end <= take.now and (apart or one.amount != two.amount):
            wrong.append(f"{one.id}: the second side is {seconds(apart)} s shorter, {two.dose}")
    for one in take.segments:
        least = one.use.step.least
        if one.kind == "stillness" and least is not None and one.start > take.now and one.length < least * 10:
            wrong.append(f"{one.id}: {seconds(one.length)} s, under its least")
    return wrong


def misses(take: Take) -> bool:
    """Whether the end is missed by more than half a second."""
    return abs(take.end - take.target) > 5


def could(take: Take) -> bool:
    """Whether the rest can keep the end to half a second, by adding up every number it may have.

    Not by the tables that fit uses: a set of sums, a bit a tick.
    """
    here = take.index_at(take.now)
    if here is None:
        return False
    happened = take.segments[: here + 1]
    rest = remaining_class(take, happened, take.place(happened[-1]) + 1, take.now)
    left = take.target - rest.start
    if left < 0:
        return False
    sums, low, high = 1, 0, 0
    for part in rest.parts:
        sums = _added(part, sums, left)
        for number in part.numbers:
            if isinstance(number, SlackTime):
                low, high = number.least, number.most
    first, last = max(0, left - high - 5), left - low + 5
    return last >= first and (sums >> first) & ((1 << (last - first + 1)) - 1) != 0


def _added(stretch: Stretch, sums: int, most: int) -> int:
    """The sums there can be with a stretch added; those beyond `most` ticks are left out."""
    sums <<= stretch.fixed
    for number in stretch.numbers:
        if isinstance(number, ChosenNumber):
            sums = reduce(or_, (sums << option * number.unit for option in number.options))
        elif isinstance(number, RoundsChoice):
            sums = reduce(or_, (_added(inner, sums, most) for _, _, inner in number.options))
        sums &= (1 << (most + 6)) - 1
    return sums
