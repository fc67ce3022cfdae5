"""The rows of the script: lines said, left out and left unsaid, and what was noticed, in order of time."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import zip_longest

from yewhour.core.finding import Finding
from yewhour.core.lengths import TICKS_PER_S, seconds, show_length
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.script.cue import Cue, Dropped
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.own_words import edit_applies, edited_text

GAP = 4  # ticks between two lines, as placed
QUIET_S = 8.0  # a silence this long is shown as one


@dataclass(frozen=True, slots=True)
class ScriptRow:
    """One row. Only one of cue, left, muted and finding is there.

    heading, section: what opens above it. quiet_s: the silence after it. takes_s, room_s: how long the line
    is, and how long it could be before the next.
    """

    at: int
    segment: Segment
    text: str
    side: str
    purpose: str = ""
    cue: Cue | None = None
    left: Dropped | None = None
    muted: LineEdit | None = None
    finding: Finding | None = None
    heading: str = ""
    section: str = ""
    quiet_s: float = 0.0
    takes_s: float = 0.0
    room_s: float = 0.0

    @property
    def key(self) -> tuple[str, str, int, str]:
        """What a row is known by when the class is another: kind, purpose, number, segment."""
        line = self.cue or self.left or self.muted
        kind = "finding" if self.finding else "line"
        number = line.number if line is not None else 0
        return kind, self.finding.code if self.finding else self.purpose, number, self.segment.id

    @property
    def line(self) -> Cue | Dropped | None:
        """The line said, or the one left out."""
        return self.cue or self.left

    def said(self) -> str:
        """The row as a screen reader says it."""
        side = f", {self.side}" if self.side in ("left", "right") else ""
        clock = show_length(self.at / TICKS_PER_S)
        if self.finding:
            return f"Noticed at {clock}: {self.text}"
        if self.left:
            return f"Left out at {clock}{side}: {self.text}. {self.left.reason}"
        if self.muted:
            return f"Left unsaid at {clock}{side}: {self.text}"
        return f"{clock}{side}: {self.text}. {self.takes_s:.1f} of {self.room_s:.1f} seconds"


def rows_of(timed: TimedClass) -> list[ScriptRow]:
    """Every row of a class."""
    segments = {segment.id: segment for segment in timed.segments}
    bare = sorted(
        [*_lines(timed, segments), *_left(timed, segments), *_muted(timed), *_findings(timed, segments)],
        key=lambda row: (row.at, row.finding is None),
    )
    rows = []
    section = heading = ""
    for row in bare:
        key = row.segment.use.flow or row.segment.id
        new = heading_of(row.segment) if key != heading else ""
        title = row.segment.section if row.segment.section != section else ""
        heading, section = key, row.segment.section
        rows.append(_headed(row, new, title) if new or title else row)
    return rows


def _headed(row: ScriptRow, heading: str, section: str) -> ScriptRow:
    return replace(row, heading=heading, section=section)


def _lines(timed: TimedClass, segments: dict[str, Segment]) -> list[ScriptRow]:
    found = []
    for cue, after in zip_longest(timed.cues, timed.cues[1:]):
        until = after.start if after else timed.length
        found.append(
            ScriptRow(
                cue.start, _shown(segments, cue.segment), cue.text, cue.side, cue.purpose, cue=cue,
                quiet_s=seconds(until - cue.end), takes_s=seconds(cue.end - cue.start),
                room_s=seconds(max(cue.end, until - (GAP if after else 0)) - cue.start),
            )
        )  # fmt: skip
    return found


def _left(timed: TimedClass, segments: dict[str, Segment]) -> list[ScriptRow]:
    """Lines left out; one that stands twice on a place is shown once."""
    found, known = [], set()
    for line in timed.dropped:
        if (line.segment, line.text) not in known:
            known.add((line.segment, line.text))
            where = _shown(segments, line.segment)
            found.append(ScriptRow(line.start, where, line.text, line.side, line.purpose, left=line))
    return found


def _muted(timed: TimedClass) -> list[ScriptRow]:
    found = []
    for edit in timed.plan.edits:
        if edit.do == "mute":
            places = [s for s in timed.segments if edit_applies(edit, s.use) and not s.use.setup_for]
            for place in places[:1]:
                text = edited_text(edit, place.use) if edit.text else edit.was
                found.append(ScriptRow(place.start, place, text, place.side, edit.purpose, muted=edit))
    return found


def _findings(timed: TimedClass, segments: dict[str, Segment]) -> list[ScriptRow]:
    first = timed.segments[0]
    return [
        ScriptRow(segment.start, segment, finding.message, "both", finding=finding)
        for finding in timed.findings
        for segment in [_shown(segments, finding.segment) if finding.segment in segments else first]
    ]


def _shown(segments: dict[str, Segment], name: str) -> Segment:
    """The segment a line is shown under: what a set-up leads to, for a set-up."""
    segment = segments[name]
    return segments.get(segment.use.setup_for, segment)


def heading_of(segment: Segment) -> str:
    """What stands above the lines of a movement."""
    side = f" · {segment.side}" if segment.side in ("left", "right") else ""
    if segment.use.flow:
        rounds = segment.use.rounds
        return f"{segment.name} and on, {rounds} round{'' if rounds == 1 else 's'}{side}"
    return f"{segment.name} · {segment.dose}{side}"
