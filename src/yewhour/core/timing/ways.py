"""Ways: what goes between two turns, so that each starts where and on the breath it should.

Between two different postures there is always a set-up, as long as the longer of moving and saying.
Inside a flow the breath itself moves the body; a set-up there only takes a missing phase.

What a turn follows may depend on how many rounds the group before it has; its way is then long enough for
any of them, so that the seconds of a way never depend on numbers that are still to be chosen.
"""

from collections.abc import Callable, Iterator, Sequence

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.plan.pace import Phase, opposite, phase_ticks
from yewhour.core.plan.position import Positions
from yewhour.core.timing.turn import Groups, Turn, certain
from yewhour.core.timing.unfold import Unfolded

Saying = Callable[[Turn], int]  # ticks of what must be said while moving into a turn
LEAST_SETUP = ticks(2.0)
SWITCH = ticks(3.0)


def with_ways(unfolded: Unfolded, positions: Positions, saying: Saying) -> tuple[Turn, ...]:
    """The turns with their set-ups between them; talk and the plan's own set-ups timed by what they say."""
    result: list[Turn] = []
    turns = unfolded.turns
    for index, turn in enumerate(turns):
        setups = [
            _between(before, turn, positions, saying) for before in _before(turns, index, unfolded.groups)
        ]
        longest = max((setup for setup in setups if setup is not None), key=lambda s: s.fixed, default=None)
        if longest is not None:
            result.append(longest)
        result.append(_timed(turn, saying))
    return tuple(_equal_sides(result))


def _before(turns: Sequence[Turn], index: int, groups: Groups) -> Iterator[Turn | None]:
    """Every turn that this one may follow, whatever the rounds; None for the start of the class."""
    turn = turns[index]
    between: dict[tuple[tuple[str, int], ...], Turn] = {}  # what may be absent, one for each round it is in
    for at in range(index - 1, -1, -1):
        one = turns[at]
        if one.within in between:  # what is nearer is there whenever this is
            continue
        if not any(certain(later, one, groups) for later in between.values()):
            yield one
            if certain(one, turn, groups):
                return
        between[one.within] = one
    yield None


def _between(before: Turn | None, turn: Turn, positions: Positions, saying: Saying) -> Turn | None:
    if turn.flow and before is not None and before.flow == turn.flow and "phase" in (before.kind, turn.kind):
        missing = _missing_phase(before, turn)
        if missing is None:
            return None
        inhale, full, exhale, empty = phase_ticks(turn.pace)
        length = inhale + full if missing == "inhale" else exhale + empty
        return _setup(turn, length, turn.pair, missing)
    place = before.end if before is not None else ""
    moving = max(ticks(positions.between(place, turn.start)), ticks(turn.movement.moving_s))
    if turn.kind in ("talk", "setup"):
        return _setup(turn, moving, "", None) if moving else None
    switch = before is not None and turn.second and not before.second
    new_posture = before is None or before.movement.id != turn.movement.id or before.side != turn.side
    if not new_posture and not moving:
        return None
    least = SWITCH if switch else LEAST_SETUP
    turn = msgspec.structs.replace(turn, switch=switch)
    length = max(moving, least, saying(turn))
    # The way into a pair, and across to its second side, belong to neither side.
    inside = before is not None and before.pair == turn.pair and before.second == turn.second
    return _setup(turn, length, turn.pair if inside else "", None)


def _setup(turn: Turn, length: int, pair: str, phase: Phase | None) -> Turn:
    step = msgspec.structs.replace(turn.step, phase=phase)
    return msgspec.structs.replace(
        turn,
        key=f"{turn.key}/into",
        step=step,
        kind="setup",
        unit=0,
        fixed=length,
        pair=pair,
        taught=0,
        setup_for=turn.key,
    )


def _timed(turn: Turn, saying: Saying) -> Turn:
    """Talk and set-ups of the plan itself last as long as their lines take, and as moving takes."""
    if turn.kind not in ("talk", "setup"):
        return turn
    return msgspec.structs.replace(turn, fixed=max(ticks(turn.movement.moving_s), saying(turn)))


def _leaves_on(turn: Turn) -> Phase | None:
    """The phase a turn ends with."""
    if turn.kind == "phase":
        return "exhale" if turn.taught else turn.step.phase
    if turn.kind == "hold" and turn.movement.enter:
        return opposite(turn.movement.enter)
    return None


def _enters_on(turn: Turn) -> Phase | None:
    if turn.kind == "phase":
        return "inhale" if turn.taught else turn.step.phase
    return turn.movement.enter if turn.kind == "hold" else None


def _missing_phase(before: Turn, turn: Turn) -> Phase | None:
    left, entered = _leaves_on(before), _enters_on(turn)
    return opposite(left) if left is not None and left == entered else None


def _equal_sides(turns: list[Turn]) -> Iterator[Turn]:
    """Set-ups inside a pair last as long on one side as on the other: the longer of the two."""
    longest: dict[tuple[str, str, int], int] = {}
    for turn in turns:
        if turn.setup_for and turn.pair:
            place = _place(turn)
            longest[place] = max(longest.get(place, 0), turn.fixed)
    for turn in turns:
        if turn.setup_for and turn.pair:
            turn = msgspec.structs.replace(turn, fixed=longest[_place(turn)])
        yield turn


def _place(turn: Turn) -> tuple[str, str, int]:
    """What a set-up and its partner on the other side share; rounds that alternate sides are one."""
    return turn.pair, turn.number, 0 if "+" in turn.pair else turn.round
