"""The teacher's own hand in a script: her edits found again in the lines of every new fit."""

from collections.abc import Sequence

import msgspec

from yewhour.core.cue import Candidate
from yewhour.core.directions import tokenised
from yewhour.core.layout import Segment
from yewhour.core.lengths import ticks
from yewhour.core.plan import LineEdit
from yewhour.core.sides import fill


def applies(edit: LineEdit, segment: Segment) -> bool:
    """Whether an edit is for a segment: its step, and its side or either."""
    if segment.turn.step.id != edit.step:
        return False
    return edit.both or not edit.side or edit.side in (segment.turn.side, segment.turn.lead)


def said(edit: LineEdit, segment: Segment) -> str:
    """The words of an edit on a segment: mirrored when the segment is on the other side."""
    side = segment.turn.side if segment.turn.side in ("left", "right") else segment.turn.lead
    if edit.both and edit.side in ("left", "right"):
        return fill(tokenised(edit.text, edit.side), side)
    return fill(edit.text, side)


def with_edits(
    candidates: Sequence[Candidate], segments: Sequence[Segment], edits: Sequence[LineEdit]
) -> tuple[list[Candidate], tuple[LineEdit, ...]]:
    """The candidates with every edit done, and the edits whose place is gone.

    A line is found by its step, its purpose and its number among the step's lines of that purpose, so it
    keeps its edit when the class is fitted to another length.
    """
    numbered = _numbered(candidates, segments)
    lost = []
    for edit in edits:
        done, numbered = _done(edit, numbered, segments)
        if not done:
            lost.append(edit)
    return numbered, tuple(lost)


def _numbered(candidates: Sequence[Candidate], segments: Sequence[Segment]) -> list[Candidate]:
    counts: dict[tuple[str, str], int] = {}
    result = []
    for line in candidates:
        turn = segments[line.segment].turn
        place = (turn.setup_for or turn.key, line.purpose)
        counts[place] = number = counts.get(place, -1) + 1
        result.append(msgspec.structs.replace(line, number=number) if number else line)
    return result


def _done(
    edit: LineEdit, candidates: list[Candidate], segments: Sequence[Segment]
) -> tuple[bool, list[Candidate]]:
    if edit.do == "add":
        added = [
            _added(edit, index, segment)
            for index, segment in enumerate(segments)
            if applies(edit, segment) and segment.kind != "setup"
        ]
        return bool(added), candidates + added
    done, result = False, []
    for line in candidates:
        segment = segments[line.segment]
        if line.purpose != edit.purpose or line.number != edit.number or not applies(edit, segment):
            result.append(line)
            continue
        done = True
        if edit.do != "mute":
            result.append(_changed(edit, line, segment))
    return done, result


def _changed(edit: LineEdit, line: Candidate, segment: Segment) -> Candidate:
    if edit.text:
        line = msgspec.structs.replace(line, wordings=(said(edit, segment),), own=True)
    if edit.do not in ("pin", "move"):
        return line
    at, end = segment.start + ticks(edit.at_s), segment.end
    if edit.do == "pin":
        return msgspec.structs.replace(line, earliest=at, latest=at, aim=at, end_by=end, own=True, body=False)
    return msgspec.structs.replace(line, earliest=segment.start, latest=end, aim=at, end_by=end, body=False)


def _added(edit: LineEdit, index: int, segment: Segment) -> Candidate:
    at, low, high = segment.start + ticks(edit.at_s), segment.start, segment.end
    words = (said(edit, segment),)
    return Candidate(edit.purpose, index, segment.side, words, low, high, high, at, own=True)
