"""The fit model of a class: its uses gathered into the whole numbers that may change, a stretch a part."""

from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.lengths import LONGEST_S, TICKS_PER_S, ticks
from yewhour.core.pace import breath_ticks
from yewhour.core.problem import Problem
from yewhour.core.timing.doses import amount_range, amounts_of
from yewhour.core.timing.numbers import (
    PAUSE,
    ChosenNumber,
    RoundsChoice,
    SlackTime,
    Stretch,
    least_ticks,
    option_costs,
)
from yewhour.core.timing.step_use import RoundGroups, StepUse

PAUSE_MOST = ticks(15.0)
PAUSE_WEIGHT = 4.0
LONGEST = ticks(LONGEST_S)
MOST_WORK = 3_000_000_000  # options times points of a table, on the finest grid; some five seconds

Needs = Mapping[str, int]  # use -> ticks that what must be said inside it takes; those that have any


class FitModel(msgspec.Struct, frozen=True):
    """What fit needs of a class. `slack_key` is the number that takes what no whole breath can."""

    parts: tuple[Stretch, ...]
    slack_key: str


def build_model(uses: Sequence[StepUse], nodes: int, groups: RoundGroups, needs: Needs) -> FitModel:
    """The model of uses with their ways: a part for each of so many top-level nodes."""
    slack_key = _slack(uses)
    by_node: list[list[StepUse]] = [[] for _ in range(nodes)]
    for use in uses:
        by_node[use.node].append(use)
    gatherer = _Gatherer(slack_key, groups, needs)
    parts = [gatherer.stretch(part, 0) for part in by_node]
    _check_work(parts)
    if slack_key == PAUSE:
        parts.append(Stretch(0, (SlackTime(PAUSE, 0, 0, PAUSE_MOST, PAUSE_WEIGHT),)))
    return FitModel(tuple(parts), slack_key)


def remaining_model(
    uses: Sequence[StepUse], model: FitModel, groups: RoundGroups, needs: Needs, slack_least: int = 0
) -> tuple[Stretch, ...]:
    """The parts of a model from within a part on: of what is left of that part, and of all behind it.

    uses: those of the part that are still to come; none when only a closing pause is. groups: with the
    rounds they may still have. slack_least: ticks that the slack has taken already, when it is under way.
    """
    stretch = _Gatherer(model.slack_key, groups, needs).stretch(uses, 0)
    node = uses[0].node if uses else len(model.parts) - 1
    if not uses and model.slack_key == PAUSE:
        stretch = model.parts[-1]
    if slack_least:
        numbers = tuple(
            msgspec.structs.replace(one, least=min(max(one.least, slack_least), one.most))
            if isinstance(one, SlackTime) else one
            for one in stretch.numbers
        )  # fmt: skip
        stretch = msgspec.structs.replace(stretch, numbers=numbers)
    return (stretch, *model.parts[node + 1 :])


def _check_work(parts: Sequence[Stretch]) -> None:
    """Raises Problem for more choices than tables can weigh in a few seconds."""
    width, work = 0, 0
    for part in reversed(parts):
        spread, more = _work(part, width)
        width, work = min(width + spread, LONGEST), work + more
    if work > MOST_WORK:
        raise Problem(
            "There is more to choose from in this class than can be weighed in a few seconds.",
            "the numbers that may change",
            "Keep some of them as they are (L), or give them a smaller most.",
        )


def _work(stretch: Stretch, width: int) -> tuple[int, int]:
    """(ticks between the shortest and the longest, steps of work) of a stretch before a table so wide."""
    spread = work = 0
    for number in reversed(stretch.numbers):
        behind = min(width + spread, LONGEST)
        if isinstance(number, RoundsChoice):
            inner = [_work(one, behind) for _, _, one in number.options]
            work += sum(more for _, more in inner)
            shortest = min(least_ticks(one) for _, _, one in number.options)
            spread += max(
                least_ticks(one) + wide - shortest
                for (_, _, one), (wide, _) in zip(number.options, inner, strict=True)
            )
        elif isinstance(number, ChosenNumber):
            spread += (number.options[-1] - number.options[0]) * number.unit
            work += len(number.options) * min(width + spread, LONGEST)
    return spread, work


def _slack(uses: Sequence[StepUse]) -> str:
    """The last stillness that is done once, outside rounds, and not locked, or else the closing pause."""
    counts: dict[str, int] = {}
    for use in uses:
        if not use.setup_for:
            counts[use.number] = counts.get(use.number, 0) + 1
    for use in reversed(uses):
        alone = counts.get(use.number) == 1 and not use.within and not use.step.locked
        if use.kind == "stillness" and alone and not use.setup_for:
            return use.number
    return PAUSE


class _Gatherer:
    """Gathers uses into stretches. A number that comes several times is one, its ticks added up."""

    def __init__(self, slack_key: str, groups: RoundGroups, needs: Needs) -> None:
        self.slack_key = slack_key
        self.groups = groups
        self.needs = needs

    def stretch(self, uses: Sequence[StepUse], depth: int) -> Stretch:
        """The stretch of uses that are all there; groups further in than `depth` may still vary."""
        numbers: list[ChosenNumber | SlackTime | RoundsChoice] = []
        given: list[tuple[str, int]] = []
        fixed = 0
        for (kind, key), mine in self._by_number(uses, depth).items():
            if kind == "group":
                numbers.append(self._repeat(key, mine))
                continue
            fixed += sum(use.fixed for use in mine)
            number = self._number(mine)
            if isinstance(number, ChosenNumber) and len(number.options) == 1:
                given.append((key, number.options[0]))
                fixed += number.unit * number.options[0]
            elif number is not None:
                numbers.append(number)
        return Stretch(fixed, tuple(numbers), tuple(given))

    def _by_number(self, uses: Sequence[StepUse], depth: int) -> dict[tuple[str, str], list[StepUse]]:
        """The uses of each number, and those of each group that may vary, in the order they first come."""
        found: dict[tuple[str, str], list[StepUse]] = {}
        for use in uses:
            group = next((key for key, _ in use.within[depth:] if len(self.groups[key].options) > 1), "")
            place = ("group", group) if group else ("number", use.number if use.unit else "")
            found.setdefault(place, []).append(use)
        return found

    def _repeat(self, key: str, uses: Sequence[StepUse]) -> RoundsChoice:
        group = self.groups[key]
        depth = next(at for at, (name, _) in enumerate(uses[0].within) if name == key)
        options = []
        for rounds in sorted(group.options, key=lambda n: abs(n - group.times)):
            there = [use for use in uses if use.within[depth][1] <= rounds]
            (cost,) = option_costs((rounds,), group.times, 1.0)
            options.append((rounds, cost, self.stretch(there, depth + 1)))
        return RoundsChoice(key, tuple(options))

    def _number(self, uses: Sequence[StepUse]) -> ChosenNumber | SlackTime | None:
        first, unit = uses[0], sum(use.unit for use in uses)
        if not unit:
            return None
        span = first.span or amount_range(
            first.step, first.movement, first.kind, breath_ticks(first.pace) / TICKS_PER_S
        )
        if first.number == self.slack_key:
            second = TICKS_PER_S
            return SlackTime(first.number, span.least * second, span.preferred * second, span.most * second,
                         span.weight)  # fmt: skip
        options = amounts_of(span, max(self._least(use) for use in uses))
        return ChosenNumber(first.number, unit, options, option_costs(options, span.preferred, span.weight))

    def _least(self, use: StepUse) -> int:
        """The fewest of its unit that leave room for what must be said, and that last at all."""
        needed = -(-(self.needs.get(use.key, 0) - use.fixed) // use.unit)
        return max(needed, -use.fixed // use.unit + 1 if use.fixed < 0 else 0)
