"""What is said from a moment of a take on, made from the numbers it has now; what was said stays said."""

import msgspec

from yewhour.core.script.candidates import candidate_lines
from yewhour.core.script.own_lines import with_own_lines
from yewhour.core.script.placement import place_cues
from yewhour.core.take.take import Take


def with_new_lines(take: Take) -> Take:
    """The take with its lines true of its numbers again: those from where they are not, written anew."""
    at, solved = take.unsaid, take.solved
    if at is None:
        return take
    ids = {segment.id for segment in take.segments}
    said = tuple(cue for cue in take.cues if cue.start < at and cue.segment in ids)
    candidates, _ = with_own_lines(
        candidate_lines(take.segments, solved.entries), take.segments, solved.plan.edits
    )
    cues, _ = place_cues(
        candidates, take.segments, solved.entries.phrasing.duration, solved.prepared.school.talk, said, at
    )
    return msgspec.structs.replace(take, cues=cues, unsaid=None)
