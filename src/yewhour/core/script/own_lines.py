"""The teacher's own hand in a script: her edits found again in the lines of every new fit."""

from collections.abc import Collection, Sequence

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.plan.plan import Plan
from yewhour.core.script.cue import Candidate, Cue, Dropped
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.own_words import CARRIED, edit_applies, edited_text, purpose_of

OWN_AT_S = 8.0  # seconds into a movement where a line of hers stands that has lost its own place


def edit_behind(plan: Plan, segment: Segment, line: Cue | Dropped) -> LineEdit | None:
    """The edit of the teacher's that a line comes from, or that has pinned or moved it."""
    mine = [
        e for e in plan.edits if edit_applies(e, segment.use) and purpose_of(e, segment.use) == line.purpose
    ]
    for edit in mine:
        if edit.do != "mute" and edit.text and edited_text(edit, segment.use) == line.text:
            return edit
    return next(
        (e for e in mine if e.do not in ("add", "mute") and not e.text and e.number == line.number), None
    )


def with_own_lines(
    candidates: Sequence[Candidate], segments: Sequence[Segment], edits: Sequence[LineEdit]
) -> tuple[list[Candidate], tuple[LineEdit, ...]]:
    """The candidates with every edit done, and the edits whose place is gone.

    A line is found by its step, its purpose and its number among the step's lines of that purpose, so it
    keeps its edit when the class is fitted to another length.
    """
    lines = with_numbers(candidates, segments)
    lost = []
    for edit in edits:
        done, lines = _done(edit, lines, segments)
        if not done:
            lost.append(edit)
    return lines, tuple(lost)


def with_numbers(candidates: Sequence[Candidate], segments: Sequence[Segment]) -> list[Candidate]:
    counts: dict[tuple[str, str], int] = {}
    result = []
    for line in candidates:
        use = segments[line.segment].use
        place = (use.setup_for or use.key, line.purpose)
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
            if edit_applies(edit, segment.use) and not segment.behaviour.is_setup
        ]
        return bool(added), candidates + added
    done, result = False, []
    sides: set[str] = set()
    for line in candidates:
        segment = segments[line.segment]
        named = line.purpose == purpose_of(edit, segment.use) and line.number == edit.number
        if not named or not edit_applies(edit, segment.use):
            result.append(line)
            continue
        done = True
        sides.add(segment.side)
        if edit.do != "mute":
            result.append(_changed(edit, line, segment))
    if done and not edit.both:
        return done, result
    carried, more = _carried_over(edit, result, segments, sides)
    return done or carried, more


def _carried_over(
    edit: LineEdit, candidates: list[Candidate], segments: Sequence[Segment], sides: Collection[str]
) -> tuple[bool, list[Candidate]]:
    """An edit of a line that has no place there, as the card has none like it, or no room
    for it at this length; sides: where it was found. her words are a line of their own there, and
    what she muted is not said anyway."""
    if edit.purpose not in CARRIED:
        return False, candidates
    there = [
        (index, one)
        for index, one in enumerate(segments)
        if edit_applies(edit, one.use)
        and one.use.movement.card is not None
        and not one.behaviour.is_setup
        and one.side not in sides
    ]
    if edit.do == "mute" or not there:
        return bool(there), candidates
    at_s = edit.at_s or OWN_AT_S * (1 + edit.number)
    added = [
        _added(msgspec.structs.replace(edit, at_s=at_s), index, one) for index, one in there if edit.text
    ]
    return bool(added), [*candidates, *added]


def _changed(edit: LineEdit, line: Candidate, segment: Segment) -> Candidate:
    if edit.text:
        line = msgspec.structs.replace(line, wordings=(edited_text(edit, segment.use),), own=True)
    if edit.do not in ("pin", "move"):
        return line
    at, end = segment.start + ticks(edit.at_s), segment.end
    if edit.do == "pin":
        return msgspec.structs.replace(line, earliest=at, latest=at, aim=at, end_by=end, own=True, body=False)
    return msgspec.structs.replace(line, earliest=segment.start, latest=end, aim=at, end_by=end, body=False)


def _added(edit: LineEdit, index: int, segment: Segment) -> Candidate:
    at, low, high = segment.start + ticks(edit.at_s), segment.start, segment.end
    words = (edited_text(edit, segment.use),)
    return Candidate(edit.purpose, index, segment.side, words, low, high, high, at, own=True)
