"""Flow: the lines of the phases of a flow, each before the breath it is for."""

from collections.abc import Iterator

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.library.position import base_of
from yewhour.core.pace import opposite
from yewhour.core.script.cue import LEAD, Candidate
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.ways import (
    flow_words,
    flows_on,
    needs_own_breath,
    same_posture,
)
from yewhour.core.wording.phrasing import (
    Phrasing,
    filled_line,
    from_tier,
    lines_of,
    on_breath,
    pick_line,
    variants,
)
from yewhour.core.wording.speech import GAP

HELD = ticks(1.5)  # a hold of the breath that is worth a word


def flow_line(
    phrasing: Phrasing, index: int, segment: Segment, before: StepUse | None, called: bool
) -> Iterator[Candidate]:
    """The line of one phase or inner hold; `called`: its movement was called on the way in."""
    use = segment.use
    tier = 0 if use.taught else min(1, max(phrasing.tier(use), use.round - 1, int(called)))
    # The next phase's line may start a lead before it; this one is over by then.
    end_by = segment.end - LEAD // 2 - GAP if segment.behaviour.is_phase else segment.end
    wordings = from_tier(tier, _line(phrasing, use, before))
    earliest, aim = max(0, segment.start - LEAD), max(0, segment.start - LEAD // 2)
    yield Candidate("flow", index, segment.side, wordings, earliest, segment.start, end_by, aim)
    yield from _held_breath(phrasing, index, segment)
    if before is not None and use.switch and use.flow == before.flow:
        # In a flow the sided movements name their side anyway, so this one is spare.
        side = filled_line(pick_line(phrasing.wording.side, use), use)
        start, end = max(0, segment.start - ticks(4.0)), segment.start - LEAD // 2 - GAP
        aim = max(start, end - phrasing.duration(side[-1], "side"))
        yield Candidate("side", index, use.side, side[::-1], start, end, end, aim, spare=True)


def _held_breath(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """That the breath is held, where a phase of the flow has a hold long enough to say so."""
    if not segment.behaviour.is_phase:
        return
    for span in segment.spans:
        if span.phase in ("full", "empty") and span.end - span.start >= HELD:
            lines = phrasing.wording.hold_full if span.phase == "full" else phrasing.wording.hold_empty
            words = filled_line(variants(lines, index), segment.use)
            yield Candidate(
                "breath",
                index,
                segment.side,
                words,
                span.start - LEAD,
                span.start + GAP,
                span.end,
                span.start - GAP,
            )


def linking_line(phrasing: Phrasing, index: int, segment: Segment, before: StepUse) -> Candidate:
    """The line of a phase that no movement has: the step to the next position, or the breath alone."""
    use, phase = segment.use, segment.use.step.phase or "inhale"
    if needs_own_breath(before, use, phrasing.positions):
        words = _way(phrasing, before, use)
        whole = len({span.phase for span in segment.spans if span.phase in ("inhale", "exhale")}) > 1
        wordings = on_breath(words, opposite(phase), phase) if whole else on_breath(words, phase)
        tier = int(not use.taught and use.round > 1)
    else:
        wordings, tier = filled_line(pick_line(phrasing.wording.missing_phase, use), use, breath=phase), 0
    start = segment.start
    return Candidate(
        "way", index, segment.side, from_tier(max(0, tier), wordings), max(0, start - LEAD),
        start + GAP, segment.end, max(0, start - LEAD // 2),
    )  # fmt: skip


def _line(phrasing: Phrasing, use: StepUse, before: StepUse | None) -> Wordings:
    """The line of a movement in a flow, from where the body is."""
    breath = str(use.step.phase or use.movement.enter or "")
    lines = lines_of(use, "flow") or lines_of(use, "call")
    if before is not None and same_posture(before, use):
        return filled_line(pick_line(phrasing.wording.stay_breath, use), use, breath=breath)
    if before is not None and flows_on(before, use) and before.end != use.needed:
        words = flow_words(before, use)
        if words == ("way",):
            return on_breath(_way(phrasing, before, use), breath)
        if words and words != ("flow",):
            return filled_line(words, use, breath=breath)
    there = use.movement.flow_from.get(base_of(use.needed), ())
    if there and not (before is not None and flows_on(before, use)):  # a way has brought one there already
        return filled_line(there, use, breath=breath)
    if not lines_of(use, "flow"):
        return on_breath(filled_line(lines[0], use), breath) if breath else filled_line(lines[0], use)
    return filled_line(lines[0], use, breath=breath)


def _way(phrasing: Phrasing, before: StepUse, use: StepUse) -> Wordings:
    """The words of a way taken within a flow: of its changes, the first in every wording."""
    changes = phrasing.positions.way(before.end, use.needed).changes
    full = " ".join(change.say[0] for change in changes)
    return (full, " ".join(change.say[-2] for change in changes), " ".join(c.say[-1] for c in changes))
