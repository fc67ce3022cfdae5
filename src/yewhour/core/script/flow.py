"""Flow: the lines of the phases of a flow, each before the breath it is for."""

from collections.abc import Iterator, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.script.cue import GAP, LEAD, Candidate
from yewhour.core.script.manner import Manner, filled, from_tier, pick
from yewhour.core.timing.layout import Segment


def flowing(
    manner: Manner, index: int, segments: Sequence[Segment], called: bool
) -> Iterator[Candidate]:  # fmt: skip
    """The line of one phase or inner hold; `called`: its movement was called on the way in."""
    segment = segments[index]
    turn = segment.turn
    breath = str(turn.step.phase or turn.movement.enter or "")
    lines = turn.movement.said("flow") or turn.movement.said("call")
    tier = 0 if turn.taught else max(manner.tier(turn), min(turn.round - 1, 2), int(called))
    # The next phase's line may start a lead before it; this one is over by then.
    end_by = segment.end - LEAD // 2 - GAP if segment.kind == "phase" else segment.end
    for line in lines[:1]:
        wordings = from_tier(tier, filled(line, turn, breath=breath))
        earliest, aim = max(0, segment.start - LEAD), max(0, segment.start - LEAD // 2)
        yield Candidate("flow", index, segment.side, wordings, earliest, segment.start, end_by, aim)
    before = segments[index - 1].turn if index else None
    if before is not None and turn.second != before.second and turn.flow == before.flow:
        # In a flow the sided movements name their side anyway, so this one is spare.
        side = filled(pick(manner.wording.side, turn), turn, turn.lead)
        start, end = max(0, segment.start - ticks(4.0)), segment.start - LEAD // 2 - GAP
        aim = max(start, end - manner.duration(side[-1], "side"))
        yield Candidate("side", index, turn.lead, side[::-1], start, end, end, aim, spare=True)
