"""What a take can't keep, and the least painful that could be done about it."""

from collections.abc import Iterator

import msgspec

from yewhour.core.edits.cuts import KEPT_ROLES, name_of
from yewhour.core.lengths import seconds, show_length
from yewhour.core.take.apply_marks import apply_mark
from yewhour.core.take.marks import Mark
from yewhour.core.take.refit import is_slack
from yewhour.core.take.take import Take

MOST = 3


class TakeRemedy(msgspec.Struct, frozen=True):
    """Something that could be done: in words, the second at which the class then ends, and its mark."""

    title: str
    end_s: float
    mark: Mark | None = None


class UnmetPromise(msgspec.Struct, frozen=True):
    """Something that is not as it should be: `end` or `sides`, in words, and what could be done."""

    code: str
    message: str
    end_s: float
    segment: str = ""
    choices: tuple[TakeRemedy, ...] = ()


def unmet_promises(take: Take) -> list[UnmetPromise]:
    """What can't be kept, as things are."""
    found = []
    if take.end != take.target and take.state != "ended":
        late = seconds(abs(take.end - take.target))
        how = "late" if take.end > take.target else "early"
        message = f"The class ends {late:g} s {how}, at {show_length(seconds(take.end), True)}."
        found.append(UnmetPromise("end", message, seconds(take.end), "", tuple(take_remedies(take))))
    return found + list(_uneven(take))


def take_remedies(take: Take) -> list[TakeRemedy]:
    """What could be left out so that the end is kept, or comes nearer; what misses it least first."""
    if take.end <= take.target:
        return []
    index = take.index_at(take.now)
    here = take.segments[index].use.node if index is not None else len(take.solved.unfolded.nodes)
    tried: list[TakeRemedy] = []
    for number, (section, node) in enumerate(take.solved.unfolded.nodes):
        if number <= here or take.solved.plan.sections[section].role in KEPT_ROLES:
            continue
        mine = [one for one in take.segments if one.use.node == number]
        if not mine or {mark for one in mine for mark in one.use.movement.marks} & {
            "final rest",
            "returning",
        }:
            continue
        mark = Mark(seconds(take.now), "skip", segment=node.id)
        after = apply_mark(take, mark)
        if after.end < take.end:
            tried.append(TakeRemedy(f"Leave out {name_of(node, take.solved)}", seconds(after.end), mark))
    loss = {choice.title: abs(choice.end_s - seconds(take.target)) for choice in tried}
    found = sorted(tried, key=lambda choice: loss[choice.title])[:MOST]
    rest = next((one for one in reversed(take.segments) if is_slack(take, one)), None)
    over = take.end - take.target
    if rest is not None and rest.behaviour.is_rest and rest.length > 2 * over and rest.end > take.now:
        shorter = show_length(seconds(rest.length - over))
        mark = Mark(seconds(take.now), "fewer", segment=rest.id)
        after = apply_mark(take, mark)
        if after.end < take.end:
            found.append(TakeRemedy(f"{rest.name} of {shorter}, under its least", seconds(after.end), mark))
    return [*found, TakeRemedy("Let it run over", seconds(take.end))]


def _uneven(take: Take) -> Iterator[UnmetPromise]:
    """Second sides that did not get what their first side had."""
    done = {one.use.key: one for one in take.segments if not one.attempt}
    for first, second in take.course.partners.items():
        one, two = done.get(first), done.get(second)
        if one is not None and two is None and second in take.course.places and one.end <= take.now:
            message = f"{one.name}: it was left out on the second side."
            yield UnmetPromise("sides", message, seconds(take.end), one.id)
        if one is None or two is None or one.use.step.second is not None:
            continue
        longer = take.took(one) - take.took(two)
        if longer:
            side = "first" if longer > 0 else "second"
            message = f"{one.name}: the {side} side is {abs(seconds(longer)):g} s longer."
            yield UnmetPromise("sides", message, seconds(take.end), two.id)
