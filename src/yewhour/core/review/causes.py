"""Why a recording is longer or shorter than its class: what happened, at which moment, the gravest first.

Each line that was surely heard tells how late the class was just then. Where that changes at once something
happened between two lines; where it changes evenly all along, it went slower or quicker throughout.
"""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Literal

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.timing.layout import Segment
from yewhour.core.transcript.line_matches import TRUSTED, LineMatch, Remark

STEP_S = 4.0  # so much at once is something that happened; less is a breath more or a slower word
STRAY_S = 1.2  # a change that belongs to the one beside it
PACE = 0.012  # so much slower or quicker all along
ALIKE = 0.35  # of the middle, that a quarter of all pairs may tell at least
SPAN_S = (45.0, 240.0)  # between the lines by which the pace is told
LEAST_PAIRS = 20
TOUCH = 0.5  # of what was gained that has to be other words, for these to be why
WHOLE_S = 3.0  # by which what was left out and what is lost may differ
STILL = 0.4  # of a quiet stretch that is held or rested in
Kind = Literal["missing", "left-out", "shorter", "between", "stopped", "longer", "pace"]


class Cause(msgspec.Struct, frozen=True):
    """Something that happened. at_s: in the recording; seconds: gained, less than none for lost; for `pace`
    over the whole. segment: what was on, or the first of what is not there; until: the last of that."""

    kind: Kind
    at_s: float
    seconds: float
    segment: str = ""
    until: str = ""
    share: float = 0.0  # of the pace


class _Point(msgspec.Struct, frozen=True):
    """A line that was surely heard: its place among all lines, when it was planned, and when it was said."""

    number: int
    planned_s: float
    said_s: float
    end_s: float


def causes(
    segments: Sequence[Segment], lines: Sequence[LineMatch], extra: Sequence[Remark], length_s: float
) -> list[Cause]:
    """What happened in a recording, by seconds, the gravest first; nothing where too little was heard."""
    points = [
        _Point(number, seconds(line.cue.start), line.said_s, max(line.end_s, line.said_s))
        for number, line in enumerate(lines)
        if line.said_s is not None and line.sure >= TRUSTED
    ]
    if len(points) < LEAST_PAIRS:
        return []
    pace = _pace(points)
    found = [*_steps(segments, lines, extra, points, pace)]
    if pace:
        gone_s = points[-1].planned_s - points[0].planned_s
        found.append(Cause("pace", points[0].said_s, round(pace * gone_s, 1), share=round(pace, 3)))
    return sorted(found, key=lambda one: -abs(one.seconds))


def _pace(points: Sequence[_Point]) -> float:
    """The share by which it went slower all along: the middle of what pairs of lines tell; 0 for none."""
    slopes: list[float] = []
    for number, one in enumerate(points):
        for two in points[number + 1 :]:
            apart_s = two.planned_s - one.planned_s
            if apart_s > SPAN_S[1]:
                break
            if apart_s >= SPAN_S[0]:
                slopes.append((two.said_s - one.said_s) / apart_s - 1)
    if len(slopes) < LEAST_PAIRS:
        return 0.0
    slopes.sort()
    middle, low, high = (slopes[round(share * (len(slopes) - 1))] for share in (0.5, 0.25, 0.75))
    # Half of all pairs agree that it is slower, or that it is quicker, and by much the same.
    steady = low * high > 0 and min(abs(low), abs(high)) >= ALIKE * abs(middle)
    return middle if abs(middle) >= PACE and steady else 0.0


def _steps(
    segments: Sequence[Segment],
    lines: Sequence[LineMatch],
    extra: Sequence[Remark],
    points: Sequence[_Point],
    pace: float,
) -> Iterator[Cause]:
    """The moments at which time was lost or gained at once."""
    changes = [
        (two.said_s - one.said_s) - (two.planned_s - one.planned_s) * (1 + pace)
        for one, two in pairwise(points)
    ]
    number = 0
    while number < len(changes):
        if abs(changes[number]) < STRAY_S:
            number += 1
            continue
        first, last, total = number, number, changes[number]
        while last + 1 < len(changes) and changes[last + 1] * total > 0 and abs(changes[last + 1]) >= STRAY_S:
            last += 1
            total += changes[last]
        after = changes[last + 1] if last + 1 < len(changes) else 0.0
        if after * total < 0 and abs(after) >= abs(total) / 2:  # one line was only heard late
            number = last + 2 if abs(total + after) < STEP_S else last + 1
            total += after
            last = number - 1
        if abs(total) >= STEP_S:
            one, two = points[first], points[min(last + 1, len(points) - 1)]
            yield _cause(segments, lines, extra, one, two, total)
        number = max(number, last) + 1


def _cause(
    segments: Sequence[Segment],
    lines: Sequence[LineMatch],
    extra: Sequence[Remark],
    one: _Point,
    two: _Point,
    gained_s: float,
) -> Cause:
    """What happened between two lines that were heard."""
    quiet = seconds(lines[one.number].cue.end), two.planned_s
    held = _held(segments, *quiet)
    if gained_s < 0:
        return _lost(segments, lines, one, two, gained_s, held)
    other = [
        word
        for word in extra
        if word.start_s < two.said_s and word.end_s > one.end_s and not word.again and word.instead is None
    ]
    other_s = sum(min(word.end_s, two.said_s) - max(word.start_s, one.end_s) for word in other)
    on = _at(segments, max(quiet[0], one.planned_s))
    if other_s >= TOUCH * gained_s:
        return Cause("between", round(other[0].start_s, 1), round(gained_s, 1), on.id)
    if held is not None:
        return Cause("longer", _real(one, seconds(held.start)), round(gained_s, 1), held.id)
    return Cause("stopped", round(one.end_s, 1), round(gained_s, 1), on.id)


def _lost(
    segments: Sequence[Segment],
    lines: Sequence[LineMatch],
    one: _Point,
    two: _Point,
    gained_s: float,
    held: Segment | None,
) -> Cause:
    """What is not there of what was planned between two lines that were heard."""
    unsaid = [line for line in lines[one.number + 1 : two.number] if line.said_s is None]
    out = _left_out(segments, one.planned_s, two.planned_s, -gained_s) if unsaid else ()
    ids = {segment.id for segment in out}
    spoken = {line.cue.segment for line in lines if line.said_s is not None}
    if not ids.isdisjoint(spoken) or not ids.issuperset(line.cue.segment for line in unsaid):
        out = ()  # some of it was there, or more is not
    if out:
        at_s = _real(one, seconds(out[0].start))
        return Cause("left-out", min(at_s, two.said_s), round(gained_s, 1), out[0].id, out[-1].id)
    if unsaid:
        first_s, last_s = seconds(unsaid[0].cue.start), seconds(unsaid[-1].cue.end)
        early_s = max(one.end_s, two.said_s - (two.planned_s - last_s))
        late_s = max(early_s, min(two.said_s, one.said_s + first_s - one.planned_s))
        here, there = _at(segments, first_s), _at(segments, last_s)
        return Cause("missing", round((early_s + late_s) / 2, 1), round(gained_s, 1), here.id, there.id)
    short = held or _at(segments, one.planned_s)
    return Cause("shorter", max(0.0, _real(one, seconds(short.start))), round(gained_s, 1), short.id)


def _real(one: _Point, planned_s: float) -> float:
    """The second of the recording that a planned second near a line was at."""
    return round(one.said_s + planned_s - one.planned_s, 1)


def _at(segments: Sequence[Segment], planned_s: float) -> Segment:
    on = [one for one in segments if seconds(one.start) <= planned_s + 0.05]
    return on[-1] if on else segments[0]


def _held(segments: Sequence[Segment], from_s: float, until_s: float) -> Segment | None:
    """What is held, or rested in, in most of a quiet stretch of the plan; None where it is work or talk."""
    shares = [
        (min(seconds(one.end), until_s) - max(seconds(one.start), from_s), one)
        for one in segments
        if seconds(one.start) < until_s and seconds(one.end) > from_s
    ]
    still = [(share, one) for share, one in shares if one.behaviour.is_hold or one.behaviour.is_rest]
    if not still:
        return None
    share, longest = max(still, key=lambda row: row[0])
    return longest if share >= STILL * max(1.0, until_s - from_s) else None


def _left_out(
    segments: Sequence[Segment], from_s: float, until_s: float, lost_s: float
) -> tuple[Segment, ...]:
    """The movements, with their ways, that are as long together as what is lost; () where none are."""
    inside = [
        one
        for one in segments
        if seconds(one.start) >= from_s - WHOLE_S and seconds(one.end) <= until_s + WHOLE_S
    ]
    found: list[tuple[float, tuple[Segment, ...]]] = []
    for first in range(len(inside)):
        for last in range(first, len(inside)):
            run = inside[first : last + 1]
            miss_s = abs(seconds(run[-1].end - run[0].start) - lost_s)
            way_only = run[-1].use.setup_for and len(run) > 1
            if miss_s <= WHOLE_S and not way_only:
                found.append((miss_s, tuple(run)))
    return min(found, key=lambda row: row[0])[1] if found else ()
