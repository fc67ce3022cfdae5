"""A class as it really went, as a timed class, so that everything that writes classes can write it."""

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.review.review import Review
from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import PhaseSpan, Segment
from yewhour.core.transcript.line_matches import LineMatch, Remark

UNSURE = " (?)"  # behind words that were planned, where others were heard, and not surely
LEAST_TICKS = 5


def actual_class(back: Review, written: bool) -> TimedClass:
    """The class with its real times, and the lines that were said.

    written: what was heard is words that somebody wrote, and not what a recogniser made of sound that knows
    the script alone; then they stand where she said it otherwise.
    """
    segments = tuple(
        _segment(one.segment, ticks(one.start_s), ticks(one.end_s))
        for one in back.segments
        if one.start_s < back.length_s or not one.start_s
    )
    said = [_cue(line, written) for line in back.lines if line.said_s is not None]
    said += [_extra(one, back) for one in back.extra if written]
    there = {one.id for one in segments}
    last = segments[-1].id if segments else ""
    said = [cue if cue.segment in there else msgspec.structs.replace(cue, segment=last) for cue in said]
    said.sort(key=lambda cue: cue.start)
    return msgspec.structs.replace(
        back.timed, length=ticks(back.length_s), segments=segments, cues=tuple(said), dropped=(), findings=()
    )


def _segment(segment: Segment, start: int, end: int) -> Segment:
    """A segment from one tick to another, its phases drawn out or in with it."""
    was, now = max(1, segment.length), end - start

    def moved(tick: int) -> int:
        return start + (tick - segment.start) * now // was

    spans = tuple(
        PhaseSpan(span.phase, moved(span.start), moved(span.end), span.beat) for span in segment.spans
    )
    return msgspec.structs.replace(segment, start=start, end=end, spans=spans)


def _cue(line: LineMatch, written: bool) -> Cue:
    assert line.said_s is not None
    start = ticks(line.said_s)
    text = line.cue.text
    if line.how == "reworded":
        text = f"{line.words[:1].upper()}{line.words[1:]}." if written else text + UNSURE
    end = max(start + LEAST_TICKS, ticks(line.end_s))
    return msgspec.structs.replace(line.cue, start=start, end=end, text=text)


def _extra(extra: Remark, back: Review) -> Cue:
    start = ticks(extra.start_s)
    on = [one.segment.id for one in back.segments if one.start_s <= extra.start_s]
    first = back.segments[0].segment.id if back.segments else ""
    text = extra.again or f"{extra.text[:1].upper()}{extra.text[1:]}."
    return Cue(
        start,
        max(start + LEAST_TICKS, ticks(extra.end_s)),
        text,
        "say",
        "both",
        on[-1] if on else first,
        False,
    )
