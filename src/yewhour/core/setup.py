"""Set-ups: what goes between two turns, so that each starts where and on the breath it should.

Between two different postures there is always a set-up, as long as the longer of moving and saying.
Inside a flow the breath itself moves the body; a set-up there only takes a missing phase.
"""

from collections.abc import Callable, Sequence

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.pace import Phase, opposite, phase_ticks
from yewhour.core.position import Positions
from yewhour.core.unfold import Turn

Saying = Callable[[Turn], int]  # ticks of what must be said while moving into a turn
LEAST_SETUP = ticks(2.0)
SWITCH = ticks(3.0)


def with_setups(
    turns: Sequence[Turn], before: Turn | None, positions: Positions, saying: Saying
) -> list[Turn]:
    """The turns with their set-ups; `before` is the turn they follow, None at the start of a class."""
    result: list[Turn] = []
    for turn in turns:
        setup = _between(before, turn, positions, saying)
        if setup is not None:
            result.append(setup)
        result.append(turn)
        before = turn
    return _equal_sides(result)


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


def _equal_sides(turns: list[Turn]) -> list[Turn]:
    """Set-ups inside a pair last as long on one side as on the other: the longer of the two."""
    longest: dict[tuple[str, str, int], int] = {}
    for turn in turns:
        if turn.setup_for and turn.pair:
            place = (turn.pair, turn.step.id, _round_in(turn))
            longest[place] = max(longest.get(place, 0), turn.fixed)
    return [
        msgspec.structs.replace(turn, fixed=longest[turn.pair, turn.step.id, _round_in(turn)])
        if turn.setup_for and turn.pair
        else turn
        for turn in turns
    ]


def _round_in(turn: Turn) -> int:
    """The round as both sides of a pair know it: rounds that alternate sides are one."""
    return 0 if "+" in turn.pair else turn.round
