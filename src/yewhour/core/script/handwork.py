"""The teacher's own hand in a script: her edits found again in the lines of every new fit."""

from collections.abc import Callable, Sequence

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.plan.plan import LineEdit, Plan
from yewhour.core.script.cue import Candidate, Cue, Dropped
from yewhour.core.script.directions import tokenised
from yewhour.core.sides import fill, unmarked
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.turn import Turn


def applies(edit: LineEdit, turn: Turn) -> bool:
    """Whether an edit is for a turn: its step, and its side or either."""
    if turn.step.id != edit.step:
        return False
    return edit.both or not edit.side or edit.side in (turn.side, turn.lead)


def said(edit: LineEdit, turn: Turn) -> str:
    """The words of an edit on a turn: mirrored when the turn is on the other side."""
    side = turn.side if turn.side in ("left", "right") else turn.lead
    if edit.both and edit.side in ("left", "right"):
        return unmarked(fill(tokenised(edit.text, edit.side), side, name=turn.name))
    return unmarked(fill(edit.text, side, name=turn.name))


def edit_behind(plan: Plan, segment: Segment, line: Cue | Dropped) -> LineEdit | None:
    """The edit of the teacher's that a line comes from, or that has pinned or moved it."""
    mine = [e for e in plan.edits if applies(e, segment.turn) and e.purpose == line.purpose]
    for edit in mine:
        if edit.do != "mute" and edit.text and said(edit, segment.turn) == line.text:
            return edit
    return next(
        (e for e in mine if e.do not in ("add", "mute") and not e.text and e.number == line.number), None
    )


class Spoken:
    """How long the lines of a turn take as the teacher has them: her rewritten lines, not her muted ones."""

    def __init__(self, edits: Sequence[LineEdit], duration: Callable[[str, str], int]) -> None:
        self.duration = duration
        self._edits: dict[str, list[LineEdit]] = {}
        for edit in edits:
            self._edits.setdefault(edit.step, []).append(edit)

    def lengths(self, turn: Turn, lines: Sequence[tuple[str, str]]) -> list[int]:
        """Ticks of each (purpose, text) said in a turn, in order; 0 for a muted one."""
        mine = [edit for edit in self._edits.get(turn.step.id, ()) if applies(edit, turn)]
        counts: dict[str, int] = {}
        result = []
        for purpose, text in lines:
            counts[purpose] = number = counts.get(purpose, -1) + 1
            for edit in mine:
                if (edit.purpose, edit.number) == (purpose, number) and edit.do != "add":
                    text = "" if edit.do == "mute" else said(edit, turn) if edit.text else text
            result.append(self.duration(text, purpose) if text else 0)
        return result

    def added(self, turn: Turn) -> list[int]:
        """Ticks of each line the teacher added to a turn."""
        mine = (e for e in self._edits.get(turn.step.id, ()) if e.do == "add" and applies(e, turn))
        return [self.duration(said(edit, turn), edit.purpose) for edit in mine]


def with_edits(
    candidates: Sequence[Candidate], segments: Sequence[Segment], edits: Sequence[LineEdit]
) -> tuple[list[Candidate], tuple[LineEdit, ...]]:
    """The candidates with every edit done, and the edits whose place is gone.

    A line is found by its step, its purpose and its number among the step's lines of that purpose, so it
    keeps its edit when the class is fitted to another length.
    """
    lines = numbered(candidates, segments)
    lost = []
    for edit in edits:
        done, lines = _done(edit, lines, segments)
        if not done:
            lost.append(edit)
    return lines, tuple(lost)


def numbered(candidates: Sequence[Candidate], segments: Sequence[Segment]) -> list[Candidate]:
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
            if applies(edit, segment.turn) and segment.kind != "setup"
        ]
        return bool(added), candidates + added
    done, result = False, []
    for line in candidates:
        segment = segments[line.segment]
        if line.purpose != edit.purpose or line.number != edit.number or not applies(edit, segment.turn):
            result.append(line)
            continue
        done = True
        if edit.do != "mute":
            result.append(_changed(edit, line, segment))
    return done, result


def _changed(edit: LineEdit, line: Candidate, segment: Segment) -> Candidate:
    if edit.text:
        line = msgspec.structs.replace(line, wordings=(said(edit, segment.turn),), own=True)
    if edit.do not in ("pin", "move"):
        return line
    at, end = segment.start + ticks(edit.at_s), segment.end
    if edit.do == "pin":
        return msgspec.structs.replace(line, earliest=at, latest=at, aim=at, end_by=end, own=True, body=False)
    return msgspec.structs.replace(line, earliest=segment.start, latest=end, aim=at, end_by=end, body=False)


def _added(edit: LineEdit, index: int, segment: Segment) -> Candidate:
    at, low, high = segment.start + ticks(edit.at_s), segment.start, segment.end
    words = (said(edit, segment.turn),)
    return Candidate(edit.purpose, index, segment.side, words, low, high, high, at, own=True)
