"""The teacher's own words for a line: which use of a step they are for, and how long they take to say."""

from collections.abc import Callable, Sequence

from yewhour.core.plan.plan import LineEdit
from yewhour.core.sides import fill, unmarked
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.directions import tokenised


def edit_applies(edit: LineEdit, turn: StepUse) -> bool:
    """Whether an edit is for a turn: its step, and its side or either."""
    if turn.step.id != edit.step:
        return False
    return edit.both or not edit.side or edit.side in (turn.side, turn.lead)


def edited_text(edit: LineEdit, turn: StepUse) -> str:
    """The words of an edit on a turn: mirrored when the turn is on the other side."""
    side = turn.side if turn.side in ("left", "right") else turn.lead
    if edit.both and edit.side in ("left", "right"):
        return unmarked(fill(tokenised(edit.text, edit.side), side, name=turn.name))
    return unmarked(fill(edit.text, side, name=turn.name))


class OwnLineLengths:
    """How long the lines of a turn take as the teacher has them: her rewritten lines, not her muted ones."""

    def __init__(self, edits: Sequence[LineEdit], duration: Callable[[str, str], int]) -> None:
        self.duration = duration
        self._edits: dict[str, list[LineEdit]] = {}
        for edit in edits:
            self._edits.setdefault(edit.step, []).append(edit)

    def lengths(self, turn: StepUse, lines: Sequence[tuple[str, str]]) -> list[int]:
        """Ticks of each (purpose, text) said in a turn, in order; 0 for a muted one."""
        mine = [edit for edit in self._edits.get(turn.step.id, ()) if edit_applies(edit, turn)]
        counts: dict[str, int] = {}
        result = []
        for purpose, text in lines:
            counts[purpose] = number = counts.get(purpose, -1) + 1
            for edit in mine:
                if (edit.purpose, edit.number) == (purpose, number) and edit.do != "add":
                    text = "" if edit.do == "mute" else edited_text(edit, turn) if edit.text else text
            result.append(self.duration(text, purpose) if text else 0)
        return result

    def added(self, turn: StepUse) -> list[int]:
        """Ticks of each line the teacher added to a turn."""
        mine = (e for e in self._edits.get(turn.step.id, ()) if e.do == "add" and edit_applies(e, turn))
        return [self.duration(edited_text(edit, turn), edit.purpose) for edit in mine]
