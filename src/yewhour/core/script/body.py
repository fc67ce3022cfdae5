"""Body: what may be said while a segment lasts: alignment, company, options."""

from collections.abc import Iterator

from yewhour.core.script.choice import choice
from yewhour.core.script.cue import GAP, Candidate
from yewhour.core.script.manner import Manner, filled, from_tier, lines_of
from yewhour.core.timing.layout import Segment


def body(manner: Manner, index: int, segment: Segment) -> Iterator[Candidate]:
    """The lines of one segment that may be anywhere in it."""
    turn = segment.turn
    if segment.kind == "phase" and not turn.taught:
        return
    tier = manner.tier(turn)
    low, high = segment.start + GAP, segment.end - GAP
    if segment.kind == "hold" and segment.amount >= 3:
        high = segment.end - turn.unit  # the last breath is for the last breath's own lines
    middle = (low + high) // 2
    purposes = ("rest",) if segment.kind == "stillness" else ("align", "stay")
    lines = [(purpose, line) for purpose in purposes for line in lines_of(turn, purpose)]
    if tier and len(lines) > 1:  # start elsewhere in the list than the time before
        first = max(1, turn.round - 1) % len(lines)
        lines = lines[first:] + lines[:first]
    if (
        tier == 0
        and turn.step.offer
        and turn.step.take == "base"
        and (ways := choice(manner, index, segment))
    ):
        early = min(high, segment.start + segment.length // 3)  # a choice comes in the first third
        yield Candidate("option", index, segment.side, ways, low, early, high, low, True, 1)
    for number, (purpose, line) in enumerate(lines):
        wordings = from_tier(tier, filled(line, turn))
        yield Candidate(purpose, index, segment.side, wordings, low, high, high, middle, True, -number)
