"""The rest of a class fitted anew from a moment on: the end is kept, and each second side gets what the
first side really took.

A little is given or taken by the last stillness alone, so that nothing else changes under the teacher's feet.
Beyond that, the tables that fit built from the end answer "from here, with so much left"; only what is left
of the part that is under way is worked out anew.
"""

from collections.abc import Sequence

import msgspec

from yewhour.core.take.take import Retimed, Retiming, Take
from yewhour.core.timing.doses import AmountRange
from yewhour.core.timing.fit_model import remaining_model
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.layout import Segment, closing_pause, lay_out
from yewhour.core.timing.numbers import PAUSE, SlackTime, Stretch
from yewhour.core.timing.step_use import (
    RoundGroup,
    RoundGroups,
    StepUse,
    uses_with_rounds,
)

GIVES = 4  # the last stillness gives or takes one part in so many before anything else does


class RemainingClass(msgspec.Struct, frozen=True):
    """What is still to be fitted: its uses, the rounds it may have, its numbers, and where it starts.

    happened: the segments before it. given: the first sides that are done, by the key of their second.
    """

    happened: tuple[Segment, ...]
    first: int
    start: int
    uses: tuple[StepUse, ...]
    groups: RoundGroups
    given: dict[str, Segment]
    parts: tuple[Stretch, ...]


def remaining_class(take: Take, happened: Sequence[Segment], first: int, at: int) -> RemainingClass:
    """What is left of a take from one of its uses on.

    happened: the segments before that, the one that is on among them, each as long as it is to be. at: the
    moment; a stillness that takes what is left, and is on, may still give or take.
    """
    solved, happened = take.solved, list(happened)
    start = happened[-1].end if happened else take.start
    slack_least = 0
    if happened and is_slack(take, happened[-1]) and happened[-1].end != at:  # not ended just now
        slack = happened.pop()
        start, first = slack.start, take.place(slack)
        slack_least = max(1, at - start)
    groups = _groups(take, solved.uses[first : first + 1])
    given = _given(take, happened, first)
    node = solved.uses[first].node if first < len(solved.uses) else -1
    uses = tuple(_as_given(use, given) for use in solved.uses[first:] if _there(use, groups))
    here = [use for use in uses if use.node == node]
    over = bool(happened) and happened[-1].is_closing_pause  # nothing comes after that
    parts = () if over else remaining_model(here, solved.model, groups, solved.needs, slack_least)
    return RemainingClass(tuple(happened), first, start, uses, groups, given, parts)


def refitted(take: Take, happened: Sequence[Segment], first: int, at: int) -> Take:
    """The take with the rest fitted into what is left (see `rest_of`).

    Where the end can't be kept, the nearest that can be had is taken.
    """
    solved, rest = take.solved, remaining_class(take, happened, first, at)
    left = max(0, take.target - rest.start)
    choice = _as_it_was(take, rest, left)
    if choice is None:
        fit = solved.fit.onward(rest.parts)
        choice = fit.at(fit.nearest(left))
    titles = [section.title for section in solved.plan.sections]
    uses = uses_with_rounds(rest.uses, choice.rounds, rest.groups)
    school = solved.prepared.school
    laid = list(lay_out(uses, choice, solved.model.slack_key, titles, school, rest.start))
    if not uses and choice.amounts.get(PAUSE):
        laid = [closing_pause(rest.happened[-1], choice.amounts[PAUSE])]
    changed = msgspec.structs.replace(take, segments=(*rest.happened, *laid), now=at)
    retiming = Retimed(at, _late(take, rest), tuple(_changes(take, changed, at)))
    if not retiming.changes and not retiming.late:
        return changed
    return msgspec.structs.replace(changed, retimed=(*take.retimed, retiming))


def _as_it_was(take: Take, rest: RemainingClass, left: int) -> FittedNumbers | None:
    """Everything as it was, the last stillness taking the difference; None where that is too much for it."""
    slack = next((one for part in rest.parts for one in part.numbers if isinstance(one, SlackTime)), None)
    if slack is None or not take.rest:
        return None
    amounts, rounds = dict[str, int](), dict[str, int]()
    for one in take.segments:
        use = one.use
        if use.unit and use.number != slack.key:
            amounts[use.number] = (one.length - take.paused_in(one) - use.fixed) // use.unit
        for key, number in use.within:
            rounds[key] = max(rounds.get(key, 0), number)
    rounds.update(take.forced)
    uses = uses_with_rounds(rest.uses, rounds, rest.groups)
    amounts |= {
        use.number: use.span.preferred for use in uses if use.span and use.span.least == use.span.most
    }
    asked = [use for use in uses if use.key in take.kept and use.key not in rest.given]  # on the way to it
    amounts |= {use.number: use.step.amount for use in asked if use.step.amount is not None}
    if any(use.unit and use.number not in amounts and use.number != slack.key for use in uses):
        return None
    given = left - sum(
        use.fixed + (0 if use.number == slack.key else use.unit * amounts.get(use.number, 0)) for use in uses
    )
    low, high = take.rest - take.rest // GIVES, take.rest + take.rest // GIVES
    if not max(slack.least, low) <= given <= min(slack.most, high):
        return None
    return FittedNumbers({**amounts, slack.key: given}, rounds, 0.0, left)


def is_slack(take: Take, segment: Segment) -> bool:
    """Whether a segment takes what is left, and its length was not set by hand."""
    if segment.id in take.kept or segment.use.setup_for:
        return False
    return segment.is_closing_pause or segment.use.number == take.solved.model.slack_key


def _groups(take: Take, present: Sequence[StepUse]) -> RoundGroups:
    """The groups with the rounds they may still have: none that are done, and those that were asked for."""
    groups = dict(take.solved.unfolded.groups)
    for key, times in take.forced.items():
        if key in groups:
            groups[key] = RoundGroup(key, groups[key].node, times, (times,), groups[key].by)
    for use in present:
        for key, round_ in use.within:
            group = groups[key]
            options = tuple(n for n in group.options if n >= round_) or (round_,)
            times = group.times if group.times in options else min(options)
            groups[key] = RoundGroup(key, group.node, times, options, group.by)
    return groups


def _there(use: StepUse, groups: RoundGroups) -> bool:
    return all(round_ <= groups[key].most for key, round_ in use.within)


# --- the second side ------------------------------------------------------------------------------------


def _given(take: Take, happened: Sequence[Segment], first: int) -> dict[str, Segment]:
    """The first sides that are done, by the key of the use that is their second side."""
    partners = take.course.partners
    found: dict[str, Segment] = {}
    for segment in happened:
        second = partners.get(segment.use.key)
        if second is not None and take.course.places[second] >= first and not segment.attempt:
            found[second] = segment
    return {key: msgspec.structs.replace(one, end=one.start + take.took(one)) for key, one in found.items()}


def _as_given(use: StepUse, given: dict[str, Segment]) -> StepUse:
    """A second side that lasts as long as its first side took, with as many of its unit, and the difference
    that was declared; where the first was slower, so is the second."""
    first = given.get(use.key)
    if first is None:
        return use
    if not use.unit:  # a turn that was hurried over takes its own time again
        least = 0 if use.behaviour.is_phase else use.fixed
        return msgspec.structs.replace(use, fixed=max(least, first.length))
    more = use.step.second.more if use.step.second is not None else 0
    amount = max(1, first.amount + more)
    length = max(1, first.length + more * use.unit)
    each = max(1, length // amount)
    return msgspec.structs.replace(
        use,
        number=f"{use.key} as on the first side",
        unit=each,
        fixed=length - amount * each,
        span=AmountRange(amount, amount, amount, 1, 1.0),
    )


# --- what it changed ------------------------------------------------------------------------------------


def _late(take: Take, rest: RemainingClass) -> int:
    """Ticks the class would run over, were the rest as it was and the second sides as their first."""
    places, given = take.course.places, rest.given
    was = [one for one in take.segments if places.get(one.use.key, rest.first) >= rest.first]
    was = [one for one in was if not one.attempt]
    ahead = sum(given[one.use.key].length if one.use.key in given else one.length for one in was)
    return rest.start + ahead + _more_rounds(take, was) - take.target


def _more_rounds(take: Take, ahead: Sequence[Segment]) -> int:
    """Ticks of the rounds that were asked for and are not in the class as it was; less for fewer."""
    total = 0
    for key, times in take.forced.items():
        mine = [one for one in ahead if any(name == key for name, _ in one.use.within)]
        if mine:
            rounds = {dict(one.use.within)[key]: 0 for one in take.segments if key in dict(one.use.within)}
            for one in take.segments:
                if (number := dict(one.use.within).get(key)) is not None:
                    rounds[number] += one.length
            total += (times - len(rounds)) * max(rounds.values())
    return total


def _changes(before: Take, after: Take, at: int) -> list[Retiming]:
    """The numbers that are others than they were, of what is still to come or on."""
    was = {segment.id: segment for segment in before.segments}
    found: list[Retiming] = []
    groups: dict[str, tuple[int, int]] = {}
    for segment in after.segments:
        old = was.get(segment.id)
        if segment.end < at or old is None or segment.attempt:
            continue
        (unit, then), (_, now) = _number(old), _number(segment)
        if then != now:
            found.append(Retiming(segment.id, segment.name, then, now, unit))
        if segment.use.within and segment.use.rounds != old.use.rounds:
            groups[segment.use.within[-1][0]] = (old.use.rounds, segment.use.rounds)
    found += [Retiming(key, "Rounds", then, now, "rounds") for key, (then, now) in groups.items()]
    gone = was.keys() - {segment.id for segment in after.segments}
    pause = was.get(PAUSE)
    if PAUSE in gone and pause is not None:
        found.append(Retiming(PAUSE, pause.name, round(pause.length / 10), 0, "seconds"))
    return found


def _number(segment: Segment) -> tuple[str, int]:
    """What a segment is counted in, and how many it has."""
    unit = segment.behaviour.unit
    if unit in ("", "seconds") or not segment.amount:
        return "seconds", round(segment.length / 10)
    return unit, segment.amount
