"""Ways: what goes between two uses, so that each starts where and on the breath it should, in its own time.

Between two different postures there is always a set-up: coming out of the one, the way across, and teaching
the other. It lasts as long as moving and saying take; the first time a movement comes, teaching it is a whole
number of seconds of its own, which fit may change. Inside a flow the breath itself moves the body; a set-up
there takes a missing phase, or the breath of a step between two positions that no movement says.

What a use follows may depend on how many rounds the group before it has; its way is then long enough for
any of them, so that the seconds of a way never depend on numbers that are still to be chosen.
"""

import math
from collections.abc import Iterator, Sequence
from typing import Protocol

import msgspec

from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.library.position import (
    START,
    PositionGraph,
    Way,
    base_of,
    side_of,
)
from yewhour.core.pace import (
    Phase,
    breath_ticks,
    opposite,
    phase_ticks,
)
from yewhour.core.plan.own_shares import OwnShares, own_share, way_kind
from yewhour.core.plan.school import School
from yewhour.core.props import stays
from yewhour.core.timing.doses import AmountRange
from yewhour.core.timing.step_use import RoundGroups, StepUse, is_certain
from yewhour.core.timing.unfold import UnfoldedClass


class SayingTime(Protocol):
    """How long what must be said takes, in ticks: between two uses, and within a talk or a set-up."""

    def saying(self, before: StepUse | None, use: StepUse) -> int:
        """Ticks between two uses; 0 for nothing."""
        ...

    def speaking(self, use: StepUse) -> int:
        """Ticks of a talk, or of a set-up of the plan's own."""
        ...


LEAST_SETUP = ticks(2.0)
SWITCH = ticks(3.0)
PUT_AWAY = ticks(4.0)  # of one prop
TEACH_WEIGHT = 0.6


def with_transitions(
    unfolded: UnfoldedClass,
    positions: PositionGraph,
    saying: SayingTime,
    school: School,
    level: str,
    own: OwnShares,
) -> tuple[StepUse, ...]:
    """The uses with their set-ups between them; talk and the plan's own set-ups timed by what they say."""
    uses = with_positions(unfolded.uses, positions)
    teaching = TeachingTime(school, level, own)
    result: list[StepUse] = []
    for index, use in enumerate(uses):
        setups = [
            _between(before, use, positions, saying, teaching)
            for before in _before(uses, index, unfolded.groups)
        ]
        longest = max((setup for setup in setups if setup is not None), key=lambda s: s.fixed, default=None)
        if longest is not None:
            result.append(longest)
        result.append(_timed(use, saying))
    return tuple(result)


def with_positions(uses: Sequence[StepUse], positions: PositionGraph) -> list[StepUse]:
    """The uses with the positions they are begun and left in, and each second side marked where it starts.

    What a movement leaves open it takes as it finds it.
    """
    here = START
    result: list[StepUse] = []
    sides: dict[str, bool] = {}  # pair -> whether its second side was announced
    for use in uses:
        start = positions.way(here, use.start).end if use.start else here
        end = start if not use.end or positions.meets(start, use.end) else positions.usual(use.end)
        stayed = here if use.step.or_stay and result else ""
        here = stayed or end
        sided = use.pair and use.side in ("left", "right")
        switch = bool(sided and use.second and sides.get(use.pair) is False)
        if sided and result and not use.flow and result[-1].movement.id == use.movement.id:
            switch = result[-1].side != use.side  # the next round begins on the first side again
        if sided:
            sides[use.pair] = use.second
        result.append(msgspec.structs.replace(use, start=start, end=end, switch=switch, stayed=stayed))
    return result


def way_between(before: StepUse | None, need: str, positions: PositionGraph) -> Way:
    """The way from a turn to what is needed next; by way of those who stayed, where not all went on to it."""
    if before is None or not before.stayed:
        return positions.way(before.end if before else START, need)
    back = positions.way(before.end, before.stayed)
    on = positions.way(back.end, need)
    return Way((*back.changes, *on.changes), on.end)


class TeachingTime(msgspec.Struct, frozen=True):
    """How long a class teaches what is new in it, and moves. own: her own shares of that."""

    school: School
    level: str
    own: OwnShares = {}

    def seconds(self, use: StepUse) -> float:
        """Seconds from the call of a movement to being settled in it, the first time it comes."""
        movement = use.movement
        usual = movement.teach or use.behaviour.teach_s
        factor = self.school.teaching * (1.3 if self.level in ("gentle", "beginners") else 1.0)
        factor *= own_share(self.own, "teaching", movement.id)
        return max(usual * factor, movement.moving_s)

    def moving(self, start: str, end: str) -> float:
        """How much longer than usual it takes from one position to the next."""
        return self.school.moving * own_share(self.own, "ways", way_kind(start, end))


def _before(uses: Sequence[StepUse], index: int, groups: RoundGroups) -> Iterator[StepUse | None]:
    """Every use that this one may follow, whatever the rounds; None for the start of the class."""
    use = uses[index]
    between: dict[
        tuple[tuple[str, int], ...], StepUse
    ] = {}  # what may be absent, one for each round it is in
    for at in range(index - 1, -1, -1):
        one = uses[at]
        if one.within in between:  # what is nearer is there whenever this is
            continue
        if not any(is_certain(later, one, groups) for later in between.values()):
            yield one
            if is_certain(one, use, groups):
                return
        between[one.within] = one
    yield None


def flows_on(before: StepUse | None, use: StepUse) -> bool:
    """Whether two uses follow each other breath by breath."""
    flowing = before is not None and bool(use.flow) and before.flow == use.flow
    return flowing and "phase" in (use.kind, before.kind if before else "")


def needs_own_breath(before: StepUse, use: StepUse, positions: PositionGraph) -> bool:
    """Whether a flow takes a breath of its own to get to the next use: its line does not say how."""
    return bool(positions.way(before.end, use.needed).changes) and not flow_words(before, use)


def flow_words(before: StepUse, use: StepUse) -> Wordings:
    """The words that a use of a flow is entered with from there; none with the other foot in front."""
    sides = {side_of(before.end), side_of(use.needed)} - {""}
    return () if len(sides) > 1 else use.movement.flow_from.get(base_of(before.end), ())


def is_too_far(before: StepUse, use: StepUse, positions: PositionGraph) -> bool:
    """Whether the body can't get to the next use of a flow in a breath: it is then taken across in words."""
    way = positions.way(before.end, use.start)
    return len(way.changes) > 1 and ticks(way.least_s) > breath_ticks(use.pace)


def props_put_away(before: StepUse | None, use: StepUse) -> tuple[str, ...]:
    """The props that were in use, are not any more, and are not put away by the words of what is left."""
    if use.behaviour.framing or before is None or use.movement.id == before.movement.id:
        return ()
    own = before.step.lines.get("exit")
    exits = own if own is not None else [line[0] for line in before.movement.said("exit")]
    said = " ".join(exits).lower()
    left = {prop_noun(prop) for prop in use.movement.props}
    return tuple(
        prop
        for prop in before.movement.props
        if not stays(prop) and prop_noun(prop) not in left and prop_noun(prop) not in said
        and "aside" not in said
    )  # fmt: skip


def takes_props_again(before: StepUse | None, use: StepUse) -> bool:
    """Whether the other side needs a prop that was put away for what came between."""
    if not use.second or before is None or before.behaviour.framing:
        return False
    in_use = {prop_noun(prop) for prop in before.movement.props}
    return any(not stays(prop) and prop_noun(prop) not in in_use for prop in use.movement.props)


def prop_noun(prop: str) -> str:
    """What a prop is called by, however many there are: `block` of two blocks."""
    return prop.split()[-1].rstrip("s")


def same_posture(before: StepUse | None, use: StepUse) -> bool:
    """Whether a use goes on with what was there before."""
    return before is not None and before.movement.id == use.movement.id and before.side == use.side


def _between(
    before: StepUse | None,
    use: StepUse,
    positions: PositionGraph,
    saying: SayingTime,
    teaching: TeachingTime,
) -> StepUse | None:
    if before is not None and flows_on(before, use) and not is_too_far(before, use, positions):
        return _breath_between(before, use, positions)
    here = before.end if before is not None else START
    way = way_between(before, use.start, positions)
    least = ticks(max(way.least_s, use.movement.moving_s if not use.seen else 0.0))
    least += PUT_AWAY * len(props_put_away(before, use))
    usual = ticks(max(way.usual_s, use.movement.moving_s))
    said = saying.saying(before, use)
    moving = teaching.moving(here, use.start)
    if use.behaviour.framing:
        # Its own moving is in its own segment.
        length = max(round(max(ticks(way.usual_s), said) * moving), said) if way.changes or said else 0
        return _setup(here, use, length, None) if length else None
    if same_posture(before, use) and not way.changes:
        return None
    fixed = max(round(max(least, SWITCH if use.switch else LEAST_SETUP, said) * moving), said)
    usual = round(usual * moving)
    if use.step.teach is not None:
        return _setup(here, use, max(fixed, usual + ticks(use.step.teach)), None)
    if use.seen or use.second:
        return _setup(here, use, max(fixed, usual), None)
    wanted = math.ceil((usual - fixed) / TICKS_PER_S + teaching.seconds(use))
    if wanted <= 0:
        return _setup(here, use, fixed, None)
    span = AmountRange(0, wanted, wanted + max(5, wanted // 2), 1, TEACH_WEIGHT)
    setup = _setup(here, use, fixed, None)
    return msgspec.structs.replace(setup, unit=TICKS_PER_S, span=span, number=setup.key)


def _breath_between(before: StepUse, use: StepUse, positions: PositionGraph) -> StepUse | None:
    here, missing = before.end, _missing_phase(before, use)
    inhale, full, exhale, empty = phase_ticks(use.pace)
    if missing is None and needs_own_breath(before, use, positions):
        # In on the one, out on the other: the step between takes a whole breath, so that the two still meet.
        return _setup(here, use, breath_ticks(use.pace), opposite(_leaves_on(before) or "exhale"))
    if missing is None:
        return None
    return _setup(here, use, inhale + full if missing == "inhale" else exhale + empty, missing)


def _setup(here: str, use: StepUse, length: int, phase: Phase | None) -> StepUse:
    """A set-up belongs to no side: the two sides of a pair are equal in what is done on them."""
    step = msgspec.structs.replace(use.step, phase=phase)
    return msgspec.structs.replace(
        use,
        key=f"{use.key}/into",
        start=here,
        end=use.start,
        step=step,
        kind="setup",
        unit=0,
        fixed=length,
        pair="",
        taught=0,
        setup_for=use.key,
    )


def _timed(use: StepUse, saying: SayingTime) -> StepUse:
    """Talk and set-ups of the plan itself last as long as their lines take, and as moving takes."""
    if not use.behaviour.framing:
        return use
    return msgspec.structs.replace(use, fixed=max(ticks(use.movement.moving_s), saying.speaking(use)))


def _leaves_on(use: StepUse) -> Phase | None:
    """The phase a use ends with."""
    if use.behaviour.is_phase:
        return "exhale" if use.taught else use.step.phase
    if use.behaviour.is_hold and use.movement.enter:
        return opposite(use.movement.enter)
    return None


def _enters_on(use: StepUse) -> Phase | None:
    if use.behaviour.is_phase:
        return "inhale" if use.taught else use.step.phase
    return use.movement.enter if use.behaviour.is_hold else None


def _missing_phase(before: StepUse, use: StepUse) -> Phase | None:
    left, entered = _leaves_on(before), _enters_on(use)
    return opposite(left) if left is not None and left == entered else None
