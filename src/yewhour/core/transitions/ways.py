"""Ways: what goes between two turns, so that each starts where and on the breath it should, in its own time.

Between two different postures there is always a set-up: coming out of the one, the way across, and teaching
the other. It lasts as long as moving and saying take; the first time a movement comes, teaching it is a whole
number of seconds of its own, which fit may change. Inside a flow the breath itself moves the body; a set-up
there takes a missing phase, or the breath of a step between two positions that no movement says.

What a turn follows may depend on how many rounds the group before it has; its way is then long enough for
any of them, so that the seconds of a way never depend on numbers that are still to be chosen.
"""

import math
from collections.abc import Iterator, Sequence
from typing import Protocol

import msgspec

from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.library.movement import Kind, Wordings
from yewhour.core.library.position import (
    START,
    PositionGraph,
    Way,
    base_of,
    meets,
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
from yewhour.core.timing.doses import AmountRange
from yewhour.core.timing.step_use import RoundGroups, StepUse, is_certain
from yewhour.core.timing.unfold import UnfoldedClass


class SayingTime(Protocol):
    """How long what must be said takes, in ticks: between two turns, and within a talk or a set-up."""

    def saying(self, before: StepUse | None, turn: StepUse) -> int:
        """Ticks between two turns; 0 for nothing."""
        ...

    def speaking(self, turn: StepUse) -> int:
        """Ticks of a talk, or of a set-up of the plan's own."""
        ...


LEAST_SETUP = ticks(2.0)
SWITCH = ticks(3.0)
PUT_AWAY = ticks(4.0)  # of one prop
# Seconds from the call to being settled, the first time (measured figures: median 9-21).
TEACH_S: dict[Kind, int] = {
    "hold": 10, "clock": 16, "reps": 10, "pulses": 6, "counted": 8, "cycles": 10, "rapid": 10,
    "stillness": 14,
}  # fmt: skip
TEACH_WEIGHT = 0.6
FURNITURE = ("chair", "wall")  # stays where it is


def with_transitions(
    unfolded: UnfoldedClass,
    positions: PositionGraph,
    saying: SayingTime,
    school: School,
    level: str,
    own: OwnShares,
) -> tuple[StepUse, ...]:
    """The turns with their set-ups between them; talk and the plan's own set-ups timed by what they say."""
    turns = with_positions(unfolded.turns, positions)
    teaching = TeachingTime(school, level, own)
    result: list[StepUse] = []
    for index, turn in enumerate(turns):
        setups = [
            _between(before, turn, positions, saying, teaching)
            for before in _before(turns, index, unfolded.groups)
        ]
        longest = max((setup for setup in setups if setup is not None), key=lambda s: s.fixed, default=None)
        if longest is not None:
            result.append(longest)
        result.append(_timed(turn, saying))
    return tuple(result)


def with_positions(turns: Sequence[StepUse], positions: PositionGraph) -> list[StepUse]:
    """The turns with the positions they are begun and left in, and each second side marked where it starts.

    What a movement leaves open it takes as it finds it.
    """
    here = START
    result: list[StepUse] = []
    sides: dict[str, bool] = {}  # pair -> whether its second side was announced
    for turn in turns:
        start = positions.way(here, turn.start).end if turn.start else here
        end = start if not turn.end or meets(start, turn.end) else positions.usual(turn.end)
        stayed = here if turn.step.or_stay and result else ""
        here = stayed or end
        sided = turn.pair and turn.side in ("left", "right")
        switch = bool(sided and turn.second and sides.get(turn.pair) is False)
        if sided and result and not turn.flow and result[-1].movement.id == turn.movement.id:
            switch = result[-1].side != turn.side  # the next round begins on the first side again
        if sided:
            sides[turn.pair] = turn.second
        result.append(msgspec.structs.replace(turn, start=start, end=end, switch=switch, stayed=stayed))
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

    def seconds(self, turn: StepUse) -> float:
        """Seconds from the call of a movement to being settled in it, the first time it comes."""
        movement = turn.movement
        usual = movement.teach or TEACH_S.get(turn.kind, 0)
        factor = self.school.teaching * (1.3 if self.level in ("gentle", "beginners") else 1.0)
        factor *= own_share(self.own, "teaching", movement.id)
        return max(usual * factor, movement.moving_s)

    def moving(self, start: str, end: str) -> float:
        """How much longer than usual it takes from one position to the next."""
        return self.school.moving * own_share(self.own, "ways", way_kind(start, end))


def _before(turns: Sequence[StepUse], index: int, groups: RoundGroups) -> Iterator[StepUse | None]:
    """Every turn that this one may follow, whatever the rounds; None for the start of the class."""
    turn = turns[index]
    between: dict[
        tuple[tuple[str, int], ...], StepUse
    ] = {}  # what may be absent, one for each round it is in
    for at in range(index - 1, -1, -1):
        one = turns[at]
        if one.within in between:  # what is nearer is there whenever this is
            continue
        if not any(is_certain(later, one, groups) for later in between.values()):
            yield one
            if is_certain(one, turn, groups):
                return
        between[one.within] = one
    yield None


def flows_on(before: StepUse | None, turn: StepUse) -> bool:
    """Whether two turns follow each other breath by breath."""
    flowing = before is not None and bool(turn.flow) and before.flow == turn.flow
    return flowing and "phase" in (turn.kind, before.kind if before else "")


def needs_own_breath(before: StepUse, turn: StepUse, positions: PositionGraph) -> bool:
    """Whether a flow takes a breath of its own to get to the next turn: its line does not say how."""
    return bool(positions.way(before.end, turn.needed).changes) and not flow_words(before, turn)


def flow_words(before: StepUse, turn: StepUse) -> Wordings:
    """The words that a turn of a flow is entered with from there; none with the other foot in front."""
    sides = {side_of(before.end), side_of(turn.needed)} - {""}
    return () if len(sides) > 1 else turn.movement.flow_from.get(base_of(before.end), ())


def is_too_far(before: StepUse, turn: StepUse, positions: PositionGraph) -> bool:
    """Whether the body can't get to the next turn of a flow in a breath: it is then taken across in words."""
    way = positions.way(before.end, turn.start)
    return len(way.changes) > 1 and ticks(way.least_s) > breath_ticks(turn.pace)


def props_put_away(before: StepUse | None, turn: StepUse) -> tuple[str, ...]:
    """The props that were in use, are not any more, and are not put away by the words of what is left."""
    if turn.kind in ("talk", "setup") or before is None or turn.movement.id == before.movement.id:
        return ()
    own = before.step.lines.get("exit")
    exits = own if own is not None else [line[0] for line in before.movement.said("exit")]
    said = " ".join(exits).lower()
    left = {prop_noun(prop) for prop in turn.movement.props}
    return tuple(
        prop
        for prop in before.movement.props
        if prop not in FURNITURE and prop_noun(prop) not in left and prop_noun(prop) not in said
        and "aside" not in said
    )  # fmt: skip


def takes_props_again(before: StepUse | None, turn: StepUse) -> bool:
    """Whether the other side needs a prop that was put away for what came between."""
    if not turn.second or before is None or before.kind in ("talk", "setup"):
        return False
    in_use = {prop_noun(prop) for prop in before.movement.props}
    return any(prop not in FURNITURE and prop_noun(prop) not in in_use for prop in turn.movement.props)


def prop_noun(prop: str) -> str:
    """What a prop is called by, however many there are: `block` of two blocks."""
    return prop.split()[-1].rstrip("s")


def same_posture(before: StepUse | None, turn: StepUse) -> bool:
    """Whether a turn goes on with what was there before."""
    return before is not None and before.movement.id == turn.movement.id and before.side == turn.side


def _between(
    before: StepUse | None,
    turn: StepUse,
    positions: PositionGraph,
    saying: SayingTime,
    teaching: TeachingTime,
) -> StepUse | None:
    if before is not None and flows_on(before, turn) and not is_too_far(before, turn, positions):
        return _breath_between(before, turn, positions)
    here = before.end if before is not None else START
    way = way_between(before, turn.start, positions)
    least = ticks(max(way.least_s, turn.movement.moving_s if not turn.seen else 0.0))
    least += PUT_AWAY * len(props_put_away(before, turn))
    usual = ticks(max(way.usual_s, turn.movement.moving_s))
    said = saying.saying(before, turn)
    moving = teaching.moving(here, turn.start)
    if turn.kind in ("talk", "setup"):
        # Its own moving is in its own segment.
        length = max(round(max(ticks(way.usual_s), said) * moving), said) if way.changes or said else 0
        return _setup(here, turn, length, None) if length else None
    if same_posture(before, turn) and not way.changes:
        return None
    fixed = max(round(max(least, SWITCH if turn.switch else LEAST_SETUP, said) * moving), said)
    usual = round(usual * moving)
    if turn.step.teach is not None:
        return _setup(here, turn, max(fixed, usual + ticks(turn.step.teach)), None)
    if turn.seen or turn.second:
        return _setup(here, turn, max(fixed, usual), None)
    wanted = math.ceil((usual - fixed) / TICKS_PER_S + teaching.seconds(turn))
    if wanted <= 0:
        return _setup(here, turn, fixed, None)
    span = AmountRange(0, wanted, wanted + max(5, wanted // 2), 1, TEACH_WEIGHT)
    setup = _setup(here, turn, fixed, None)
    return msgspec.structs.replace(setup, unit=TICKS_PER_S, span=span, number=setup.key)


def _breath_between(before: StepUse, turn: StepUse, positions: PositionGraph) -> StepUse | None:
    here, missing = before.end, _missing_phase(before, turn)
    inhale, full, exhale, empty = phase_ticks(turn.pace)
    if missing is None and needs_own_breath(before, turn, positions):
        # In on the one, out on the other: the step between takes a whole breath, so that the two still meet.
        return _setup(here, turn, breath_ticks(turn.pace), opposite(_leaves_on(before) or "exhale"))
    if missing is None:
        return None
    return _setup(here, turn, inhale + full if missing == "inhale" else exhale + empty, missing)


def _setup(here: str, turn: StepUse, length: int, phase: Phase | None) -> StepUse:
    """A set-up belongs to no side: the two sides of a pair are equal in what is done on them."""
    step = msgspec.structs.replace(turn.step, phase=phase)
    return msgspec.structs.replace(
        turn,
        key=f"{turn.key}/into",
        start=here,
        end=turn.start,
        step=step,
        kind="setup",
        unit=0,
        fixed=length,
        pair="",
        taught=0,
        setup_for=turn.key,
    )


def _timed(turn: StepUse, saying: SayingTime) -> StepUse:
    """Talk and set-ups of the plan itself last as long as their lines take, and as moving takes."""
    if turn.kind not in ("talk", "setup"):
        return turn
    return msgspec.structs.replace(turn, fixed=max(ticks(turn.movement.moving_s), saying.speaking(turn)))


def _leaves_on(turn: StepUse) -> Phase | None:
    """The phase a turn ends with."""
    if turn.kind == "phase":
        return "exhale" if turn.taught else turn.step.phase
    if turn.kind == "hold" and turn.movement.enter:
        return opposite(turn.movement.enter)
    return None


def _enters_on(turn: StepUse) -> Phase | None:
    if turn.kind == "phase":
        return "inhale" if turn.taught else turn.step.phase
    return turn.movement.enter if turn.kind == "hold" else None


def _missing_phase(before: StepUse, turn: StepUse) -> Phase | None:
    left, entered = _leaves_on(before), _enters_on(turn)
    return opposite(left) if left is not None and left == entered else None
