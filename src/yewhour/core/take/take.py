"""A take: the class as it happened so far, and as it will be from here. Moments are ticks on one clock."""

from bisect import bisect_right
from typing import Literal

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.script.cue import Cue
from yewhour.core.take.marks import Mark
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import PhaseSpan, Segment, phase_spans

INTERRUPTED = ticks(120)  # a stop longer than that is no part of what was done


class Retiming(msgspec.Struct, frozen=True):
    """A number that is another one from here on: of a segment, or of a group's rounds."""

    segment: str
    name: str
    before: int
    after: int
    unit: str


class Retimed(msgspec.Struct, frozen=True):
    """The rest fitted anew at a moment. late: ticks the class would have run over, had the rest stayed."""

    at: int
    late: int
    changes: tuple[Retiming, ...]


class Course(msgspec.Struct, frozen=True):
    """A class to be gone through: where each of its uses comes, and the second side of each first one."""

    solved: SolvedPlan
    places: dict[str, int]
    partners: dict[str, str]


def course_of(solved: SolvedPlan) -> Course:
    """The course of a class."""
    sides: dict[tuple[str, str], tuple[list[str], list[str]]] = {}
    for use in solved.uses:
        if use.pair and not use.setup_for:
            sides.setdefault((use.pair, use.number), ([], []))[use.second].append(use.key)
    partners = {one: two for first, second in sides.values() for one, two in zip(first, second, strict=False)}
    return Course(solved, {use.key: place for place, use in enumerate(solved.uses)}, partners)


class Take(msgspec.Struct, frozen=True):
    """A class under way.

    target: the tick it should end at. segments: as they happened and as they will be; cues likewise. rest:
    ticks that the stillness which takes what is left had in the class as it was made. now: the moment it is
    known up to. paused: since when it stands still; camera_stopped: with the recording stopped too. out:
    ticks between the clock of the marks and the class's: of what was not recorded, or is cut out. cuts: the
    ranges of the recording that are cut out, in its seconds. history: the take as it was after each mark,
    with the tick of the mark. pauses: by segment, when and how long it stood still. kept:
    the segments whose length the teacher has set. forced: rounds she has asked for, by group. skipped: the
    keys of uses left out. messages: what could not be done, in words. did: what the last mark did, in words
    for who marked it, "" where that is seen. unsaid: since when the lines are those
    of before, None when they are true of the numbers (see `lines`).
    """

    course: Course
    target: int
    segments: tuple[Segment, ...]
    cues: tuple[Cue, ...]
    start: int = 0
    rest: int = 0
    now: int = 0
    paused: int | None = None
    camera_stopped: bool = False
    out: int = 0
    cuts: tuple[tuple[float, float], ...] = ()
    history: tuple[tuple[int, "Take"], ...] = ()
    pauses: dict[str, tuple[tuple[int, int], ...]] = {}
    kept: frozenset[str] = frozenset()
    forced: dict[str, int] = {}
    skipped: frozenset[str] = frozenset()
    retimed: tuple[Retimed, ...] = ()
    notes: tuple[Mark, ...] = ()
    messages: tuple[str, ...] = ()
    did: str = ""
    unsaid: int | None = None
    state: Literal["waiting", "running", "ended"] = "waiting"

    @property
    def solved(self) -> SolvedPlan:
        """The class as it was solved."""
        return self.course.solved

    @property
    def end(self) -> int:
        """The tick it ends at, as things are."""
        return self.segments[-1].end if self.segments else self.start

    def index_at(self, moment: float) -> int | None:
        """Which segment is on at a moment; the first before the start, None after the end."""
        if moment >= self.end:
            return None
        return max(0, bisect_right(self.segments, moment, key=lambda segment: segment.start) - 1)

    def paused_in(self, segment: Segment) -> int:
        """Ticks that a segment stood still."""
        return sum(length for _, length in self.pauses.get(segment.id, ()))

    def took(self, segment: Segment) -> int:
        """Ticks that a side really took: standing still shortly is being slow, standing still long is not."""
        long = sum(still for _, still in self.pauses.get(segment.id, ()) if still > INTERRUPTED)
        return segment.length - long

    def place(self, segment: Segment) -> int:
        """Which of the class's uses a segment is; one past the last for the closing pause."""
        return self.course.places.get(segment.use.key, len(self.solved.uses))


def begin(solved: SolvedPlan, timed: TimedClass, start: int = 0) -> Take:
    """A take of a class that begins at a tick, and should end so long after it as the class was made."""
    segments = tuple(moved(segment, start) for segment in timed.segments)
    cues = tuple(
        msgspec.structs.replace(cue, start=cue.start + start, end=cue.end + start) for cue in timed.cues
    )
    rest = timed.choice.amounts.get(solved.model.slack_key, 0)
    return Take(course_of(solved), start + timed.length, segments, cues, start, rest, start)


def moved(segment: Segment, by: int) -> Segment:
    """A segment so many ticks later."""
    spans = tuple(
        msgspec.structs.replace(span, start=span.start + by, end=span.end + by) for span in segment.spans
    )
    return msgspec.structs.replace(segment, start=segment.start + by, end=segment.end + by, spans=spans)


def lasting(take: Take, segment: Segment, length: int, pauses: tuple[tuple[int, int], ...] = ()) -> Segment:
    """A segment that does its use for so many ticks, and stands still in its pauses besides."""
    use = segment.use
    amount = length // use.unit if use.unit and not segment.is_closing_pause else 0
    spans = phase_spans(use, segment.start, length, amount, take.solved.prepared.school)
    for at, still in pauses:
        spans = tuple(_stilled(span, at, still) for span in spans)
    end = segment.start + length + sum(still for _, still in pauses)
    return msgspec.structs.replace(segment, amount=amount, spans=spans, end=end)


def _stilled(span: PhaseSpan, at: int, still: int) -> PhaseSpan:
    if span.end <= at:
        return span
    start = span.start + still if span.start >= at else span.start
    return msgspec.structs.replace(span, start=start, end=span.end + still)
