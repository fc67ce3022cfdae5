"""What was planned beside what really happened: each segment's real start and length, and where time went."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import cached_property
from itertools import pairwise
from statistics import median

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.review.causes import Cause, causes
from yewhour.core.review.film_time import of_the_film
from yewhour.core.take.cutting import in_film, is_cut
from yewhour.core.take.take import Take
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.transcript.free_speech import FreeAlignment, aligned_freely
from yewhour.core.transcript.line_matches import (
    TRUSTED,
    LineMatch,
    Remark,
    match_lines,
)
from yewhour.core.transcript.transcript import HeardWord, Transcript

OWN_S = (-4.0, 9.0)  # a line said so soon after its segment began tells when that was
BREATHS = {"inhale": "in", "exhale": "out"}
BREATH_S = (2.0, 25.0)  # between two inhales
STRANGER = 0.3  # of the lines that should have been said
CUT_S = 20.0  # a recording that ends so long before the class, and before its last segment, was cut off
MARKED, LINED, GUESSED, UNKNOWN = 1.0, 0.9, 0.5, 0.2  # how sure a moment is


class ActualSegment(msgspec.Struct, frozen=True):
    """A segment as it went; seconds of the recording. sure: of its start and its end, the less of both.

    planned_start_s and planned_end_s are None for what was only tried.
    """

    segment: Segment
    planned_start_s: float | None
    planned_end_s: float | None
    start_s: float
    end_s: float
    sure: float

    @property
    def longer_s(self) -> float:
        """Seconds it took more than planned."""
        if self.planned_start_s is None or self.planned_end_s is None:
            return self.end_s - self.start_s
        return self.end_s - self.start_s - (self.planned_end_s - self.planned_start_s)


class SpokenPace(msgspec.Struct, frozen=True):
    """How it was spoken: words a minute while speaking, share and longest stretch of silence, and breaths a
    minute where inhales were said (0: not known)."""

    words_per_min: float
    silence: float
    longest_silence_s: float
    longest_silence_at_s: float
    breaths_per_min: float


class Review(msgspec.Struct, frozen=True, dict=True):
    """A class and a recording of it. lines and extra are empty where nothing was heard. Seconds are of the
    film: of the recording without what she cut out.

    causes: of what is longer or shorter, the gravest first. cuts: seconds of the recording that are not in
    the film. notes: moments that she noted, and whether they are cut out.
    """

    timed: TimedClass
    target_s: float
    length_s: float
    segments: tuple[ActualSegment, ...]
    lines: tuple[LineMatch, ...]
    extra: tuple[Remark, ...]
    drift: dict[str, float]
    pace: SpokenPace | None
    heard: bool
    causes: tuple[Cause, ...] = ()  # of what is longer or shorter, the gravest first
    cuts: tuple[tuple[float, float], ...] = ()  # seconds of the recording that are not in the film
    notes: tuple[
        tuple[float, bool], ...
    ] = ()  # moments of the film that she noted, and whether they are cut out
    own_words: bool = False  # it is this class, in other words than its script's
    stranger: bool = False  # hardly anything of this class was heard: nothing is known of its lines
    cut: bool = False  # the recording ends before the class does
    messages: tuple[str, ...] = ()

    @property
    def ran_s(self) -> float:
        """How long the class itself was: a camera runs before it and after."""
        if not self.segments:
            return self.length_s
        return self.segments[-1].end_s - self.segments[0].start_s

    def went(self, line: LineMatch) -> bool:
        """Whether the recording reaches to where a line should have been said."""
        if not self.cut:
            return True
        begun = self.moments.get(line.cue.segment, 0.0)
        planned = self.planned.get(line.cue.segment, line.cue.start)
        return begun + seconds(max(0, line.cue.start - planned)) < self.length_s - 5

    @property
    def pace_words(self) -> bool:
        """Whether any word was heard."""
        return self.pace is not None and self.pace.words_per_min > 0

    @cached_property
    def planned(self) -> dict[str, int]:
        """When each segment was to begin, in ticks, by its id."""
        return {one.segment.id: one.segment.start for one in self.segments}

    @cached_property
    def moments(self) -> dict[str, float]:
        """When each segment began, by its id."""
        return {one.segment.id: one.start_s for one in self.segments}


def look_back(timed: TimedClass, take: Take | None, hearing: Transcript | None) -> Review:
    """What happened: from the marks of a take, from what was heard, or from both."""
    cuts = take.cuts if take is not None else ()
    if hearing is not None and cuts:
        hearing = of_the_film(hearing, cuts)
    segments = take.segments if take is not None else timed.segments
    tried = {segment.id for segment in segments if segment.attempt}
    cues = [cue for cue in (take.cues if take is not None else timed.cues) if cue.segment not in tried]
    zero_s = seconds(take.start) if take is not None else 0.0
    lines: list[LineMatch] = []
    extra: list[Remark] = []
    if hearing is not None:
        lines, extra = match_lines(cues, hearing)
        lines = _as_planned(lines, timed)
    due = [line for line in lines if hearing is not None and line.planned_s < hearing.length_s]
    sure = sum(line.said_s is not None and line.sure >= TRUSTED for line in due)
    stranger = hearing is not None and sure < STRANGER * max(1, len(due))
    free = aligned_freely(timed.segments, hearing) if hearing is not None and stranger else None
    if hearing is not None and free is not None and free.of_this(sure / max(1, len(due))):
        return _in_own_words(timed, take, hearing, free)
    if stranger:
        lines, extra = [LineMatch(line.cue, line.planned_s, None, 0.1, "unsaid") for line in lines], []
    went = _went(timed, segments, lines, take is not None)
    end_s = went[-1].end_s if went else 0.0
    ends_s = hearing.length_s if hearing is not None else end_s
    cut = hearing is not None and bool(went) and ends_s < min(end_s - CUT_S, went[-1].start_s)
    length_s = ends_s if cut or stranger else max(end_s, ends_s)
    drift = _drift(went, extra)
    pace = pace_of(hearing, length_s) if hearing is not None else None
    why = causes(segments, lines, extra, length_s) if hearing is not None and not stranger and not cut else []
    notes = tuple((in_film(cuts, one.at_s), is_cut(cuts, one.at_s)) for one in take.notes) if take else ()
    messages = (
        *(hearing.messages if hearing is not None else ()),
        *(take.messages if take is not None else ()),
    )
    target_s = seconds(take.target) - zero_s if take is not None else seconds(timed.length)
    return Review(
        timed, target_s, round(length_s, 2), tuple(went), tuple(lines), tuple(extra), drift, pace,
        hearing is not None, tuple(why), cuts, notes, stranger=stranger, cut=cut and not stranger,
        messages=messages,
    )  # fmt: skip


def _in_own_words(timed: TimedClass, take: Take | None, hearing: Transcript, free: FreeAlignment) -> Review:
    """A class that was taught freely: each piece where it was found, and all that was said as she said it."""
    planned = {one.id: one for one in timed.segments}
    spans, at_s = [], 0.0
    for piece in free.stretches:
        start_s = at_s if piece.start_s is None else piece.start_s
        at_s = at_s if piece.end_s is None else piece.end_s
        spans.append((start_s, piece.start_s is not None))
    went: list[ActualSegment] = []
    for number, piece in enumerate(free.stretches):
        start_s, there = spans[number]
        until_s = next((one for one, found in spans[number + 1 :] if found), hearing.length_s)
        mine = [planned[name] for name in piece.segments]
        whole, gone = max(1, sum(one.length for one in mine)), 0
        for one in mine:
            from_s = start_s + (until_s - start_s) * gone / whole
            gone += one.length
            to_s = start_s + (until_s - start_s) * gone / whole if there else from_s
            plan = seconds(one.start), seconds(one.end)
            went.append(ActualSegment(one, *plan, round(from_s, 2), round(to_s, 2), piece.sure))
    said = tuple(Remark(one.text, one.start_s, one.end_s) for one in hearing.talks)
    out = [
        Cause("left-out", spans[number][0], -seconds(sum(planned[name].length for name in piece.segments)),
              piece.segments[0], piece.segments[-1])
        for number, piece in enumerate(free.stretches)
        if piece.start_s is None
    ]  # fmt: skip
    target_s = seconds(take.target - take.start) if take is not None else seconds(timed.length)
    return Review(
        timed, target_s, round(hearing.length_s, 2), tuple(went), (), said, _drift(went, ()),
        pace_of(hearing, hearing.length_s), True, tuple(out), own_words=True, messages=hearing.messages,
    )  # fmt: skip


def _as_planned(lines: Sequence[LineMatch], timed: TimedClass) -> list[LineMatch]:
    """Lines with the seconds the plan had for them, where the take has others."""
    planned = {(cue.segment, cue.purpose, cue.number, cue.text): seconds(cue.start) for cue in timed.cues}
    return [
        msgspec.structs.replace(
            line,
            planned_s=planned.get(
                (line.cue.segment, line.cue.purpose, line.cue.number, line.cue.text), line.planned_s
            ),
        )
        for line in lines
    ]


# --- when each segment was ------------------------------------------------------------------------------


def _went(
    timed: TimedClass, segments: Sequence[Segment], lines: Sequence[LineMatch], marked: bool
) -> list[ActualSegment]:
    planned = {one.id: one for one in timed.segments}
    lines = [line for line in lines if line.said_s is not None]
    starts = _starts(segments, lines, marked)
    end_s, end_sure = _end(segments, lines, starts, marked)
    found = []
    for number, one in enumerate(segments):
        start_s, sure = starts[number]
        until_s, until_sure = starts[number + 1] if number + 1 < len(starts) else (end_s, end_sure)
        plan = planned.get(one.id)
        found.append(
            ActualSegment(
                one,
                seconds(plan.start) if plan is not None else None,
                seconds(plan.end) if plan is not None else None,
                round(start_s, 2),
                round(max(start_s, until_s), 2),
                min(sure, until_sure),
            )
        )
    return found


def _starts(
    segments: Sequence[Segment], lines: Sequence[LineMatch], marked: bool
) -> list[tuple[float, float]]:
    """(second, how sure) each segment began at. A line soon after its start tells it best."""
    anchors = [
        (seconds(line.cue.start), line.said_s)
        for line in lines
        if line.said_s is not None and line.sure >= TRUSTED
    ]
    own: dict[str, tuple[float, float]] = {}
    begins = {one.id: seconds(one.start) for one in segments}
    for line in lines:
        if line.said_s is None or line.cue.segment not in begins or line.cue.segment in own:
            continue
        after_s = seconds(line.cue.start) - begins[line.cue.segment]
        if OWN_S[0] <= after_s <= OWN_S[1]:
            own[line.cue.segment] = (line.said_s - after_s, min(LINED, line.sure))
    found = []
    for one in segments:
        start_s = seconds(one.start)
        if one.id in own:
            found.append(own[one.id])
        elif marked or not lines:
            found.append((start_s, MARKED if marked else UNKNOWN))
        else:
            found.append(_between(anchors, start_s))
    if found:
        found[0] = (max(0.0, found[0][0]), found[0][1])
    for number, (before, here) in enumerate(pairwise(found)):
        if here[0] < before[0]:
            found[number + 1] = (before[0], min(before[1], here[1], GUESSED))
    return found


def _between(anchors: Sequence[tuple[float, float]], start_s: float) -> tuple[float, float]:
    """Where a moment of the plan lies that no line of its own tells: as late as the nearer line beside it."""
    before = [one for one in anchors if one[0] <= start_s][-1:]
    after = [one for one in anchors if one[0] > start_s][:1]
    near = min([*before, *after], key=lambda one: abs(one[0] - start_s), default=None)
    if near is None:
        return start_s, UNKNOWN
    return start_s + near[1] - near[0], GUESSED if abs(near[0] - start_s) < 30 else UNKNOWN


def _end(
    segments: Sequence[Segment],
    lines: Sequence[LineMatch],
    starts: Sequence[tuple[float, float]],
    marked: bool,
) -> tuple[float, float]:
    if not segments:
        return 0.0, UNKNOWN
    last = segments[-1]
    if marked or not lines:
        return seconds(last.end), MARKED if marked else UNKNOWN
    said = [line for line in lines if line.said_s is not None]
    late_s = said[-1].said_s - seconds(said[-1].cue.start) if said and said[-1].said_s is not None else 0.0
    return max(starts[-1][0], seconds(last.end) + late_s), GUESSED


def with_start(back: Review, segment: str, start_s: float) -> Review:
    """A recording in which a segment began at another second than was found, as somebody has heard."""
    went = list(back.segments)
    index = next((number for number, one in enumerate(went) if one.segment.id == segment), 0)
    if not index:
        return back
    before, here = went[index - 1], went[index]
    start_s = round(min(max(start_s, before.start_s), here.end_s), 2)
    went[index - 1] = msgspec.structs.replace(before, end_s=start_s, sure=max(before.sure, LINED))
    went[index] = msgspec.structs.replace(here, start_s=start_s, sure=max(here.sure, LINED))
    return msgspec.structs.replace(back, segments=tuple(went), drift=_drift(went, back.extra))


# --- where the time went --------------------------------------------------------------------------------


def _drift(went: Iterable[ActualSegment], extra: Iterable[Remark]) -> dict[str, float]:
    """Seconds more than planned by what they were spent on."""
    found: dict[str, float] = defaultdict(float)
    for one in went:
        found[spent_on(one)] += one.longer_s
    talk_s = sum(one.end_s - one.start_s for one in extra if not one.again)
    shares = {key: round(value, 1) for key, value in found.items() if abs(value) >= 0.5}
    return {**shares, **({"remarks": round(talk_s, 1)} if talk_s else {})}


def spent_on(one: ActualSegment) -> str:
    """What its time is spent on: ways, teaching, holds, repetitions, talk, rest, or what was tried."""
    segment = one.segment
    if one.planned_start_s is None:
        return "tried"
    if segment.use.setup_for:
        return "teaching" if segment.amount else "ways"
    return {
        "hold": "holds", "clock": "holds", "talk": "talk", "stillness": "rest", "setup": "talk",
    }.get(segment.kind, "repetitions")  # fmt: skip


def pace_of(hearing: Transcript, length_s: float) -> SpokenPace:
    """How a recording was spoken."""
    words = hearing.words
    speaking_s, silences = 0.0, [(0.0, 0.0)]
    if words:
        silences.append((words[0].start_s, 0.0))
    for one, two in pairwise(words):
        gap_s = two.start_s - one.end_s
        speaking_s += one.end_s - one.start_s + (gap_s if gap_s < 0.6 else 0.0)
        silences.append((gap_s, one.end_s))
    longest = max(silences)
    return SpokenPace(
        round(60 * len(words) / max(1.0, speaking_s), 1),
        round(1 - min(1.0, speaking_s / max(1.0, length_s)), 3),
        round(longest[0], 1),
        round(longest[1], 1),
        breath_pace(words),
    )


def breath_pace(words: Sequence[HeardWord]) -> float:
    """Breaths a minute where an exhale lies between two inhales that were said; 0 where too few were."""
    said = [(BREATHS[word.text], word.start_s) for word in words if word.text in BREATHS]
    apart = [
        three[1] - one[1]
        for one, two, three in zip(said, said[1:], said[2:], strict=False)
        if (one[0], two[0], three[0]) == ("in", "out", "in")
        and BREATH_S[0] <= three[1] - one[1] <= BREATH_S[1]
    ]
    return round(60 / median(apart), 2) if len(apart) >= 3 else 0.0
