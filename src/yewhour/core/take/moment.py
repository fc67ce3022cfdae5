"""Where a take, or a class, is at a moment: what is on, what is said, how the breath goes, how late it is."""

from bisect import bisect_right
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.script.cue import Cue
from yewhour.core.take.cutting import begin_of
from yewhour.core.take.take import Take
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import PhaseSpan, Segment

Pauses = Mapping[str, tuple[tuple[int, int], ...]]  # by segment: when and how long it stood still


class Moment(msgspec.Struct, frozen=True):
    """A take at a moment, in ticks.

    segment: what is on, None after the end. coming: the segment of the next movement. left: until what is on
    changes. span: the breath phase, and `phase` how much of it is gone (0 to 1). number: which of its breaths
    or repetitions is on, from 1; of: how many there are. side: of what is on, and of what goes from side to
    side that of the present stroke. line: what is being said of it, or was last; following: what is said
    next. late: how much the class runs over, standing still included.
    """

    at: float
    segment: Segment | None
    coming: Segment | None
    left: float
    span: PhaseSpan | None
    phase: float
    number: int
    of: int
    side: str
    line: Cue | None
    following: Cue | None
    late: float


def moment(take: Take, at: float) -> Moment:
    """Where a take is at a moment of the recording."""
    still = at - take.paused if take.paused is not None and at > take.paused else 0
    late = take.end + (0 if take.camera_stopped else still) - take.target
    return _moment(take.segments, take.cues, take.pauses, at - still, late)


def class_moment(timed: TimedClass, at: float) -> Moment:
    """Where a class is at a moment, in ticks, that goes as it was made."""
    return _moment(timed.segments, timed.cues, {}, at, 0)


def gone_there(here: Moment, segment: Segment) -> float:
    """How far somebody has gone into a movement, 0 to 1.

    There on its first phase, back on the next that is no hold, and through a hold where one is.
    """
    work = [span for span in segment.spans if span.beat not in ("full", "empty")]
    if here.span is None or not work:
        return 0.0
    begun = [span for span in work if span.start <= here.span.start]
    now = begun[-1] if begun else work[0]
    there = now.beat == work[0].beat
    if here.span is not now:
        return 1.0 if there else 0.0
    eased = here.phase * here.phase * (3 - 2 * here.phase)  # a movement begins and ends softly
    return eased if there else 1.0 - eased


def _moment(
    segments: Sequence[Segment], cues: Sequence[Cue], pauses: Pauses, now: float, late: float
) -> Moment:
    said = bisect_right(cues, now, key=lambda cue: cue.start)
    line = cues[said - 1] if said else None
    following = cues[said] if said < len(cues) else None
    if not segments or now >= segments[-1].end:
        return Moment(now, None, None, 0, None, 0.0, 0, 0, "both", line, None, late)
    index = max(0, bisect_right(segments, now, key=lambda segment: segment.start) - 1)
    segment = segments[index]
    coming = next((one for one in segments[index + 1 :] if not one.use.setup_for), None)
    span = next((one for one in segment.spans if one.start <= now < one.end), None)
    phase = (now - span.start) / (span.end - span.start) if span else 0.0
    number, of = _number(pauses.get(segment.id, ()), segment, now)
    begun = segments[begin_of(segments, index)].start
    if line is not None and line.start < begun and line.segment != segment.id:
        line = None  # it was of what is over
    side, left = _side(segment, number), segment.end - now
    return Moment(now, segment, coming, left, span, phase, number, of, side, line, following, late)


def _side(segment: Segment, number: int) -> str:
    """The side that is on just now: of what alternates, the one it begins with and then the other."""
    if segment.side != "alternating" or segment.use.lead not in ("left", "right"):
        return segment.side
    other = "left" if segment.use.lead == "right" else "right"
    return segment.use.lead if number % 2 or not number else other


def _number(pauses: Sequence[tuple[int, int]], segment: Segment, now: float) -> tuple[int, int]:
    """Which of a segment's units is on, and how many there are; noughts for what is not counted."""
    unit = segment.behaviour.unit
    if unit in ("", "seconds") or not segment.amount or not segment.use.unit:
        return 0, 0
    still = sum(min(length, max(0, now - at)) for at, length in pauses)
    gone = max(0, now - segment.start - still)
    each = max(1, (segment.length - sum(length for _, length in pauses)) // segment.amount)
    return min(segment.amount, int(gone // each) + 1), segment.amount
