"""The teacher's own words for a line: which use of a step they are for, and how long they take to say."""

from collections.abc import Callable, Sequence
from typing import Any

from yewhour.core.plan.nodes import EditKind, LineEdit
from yewhour.core.sides import fill, unmarked
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.directions import tokenised


def is_of(edit: LineEdit, use: StepUse) -> bool:
    """Whether an edit is of the step of a use, on whichever side."""
    return use.step.id == edit.step and (not edit.block or edit.block in use.blocks)


def line_edit(use: StepUse, purpose: str, do: EditKind, **fields: Any) -> LineEdit:
    """An edit of a line of a use, that names its step, and the block the class has it from."""
    return LineEdit(purpose, do, step=use.step.id, block=next(iter(use.blocks), ""), **fields)


def edit_applies(edit: LineEdit, use: StepUse) -> bool:
    """Whether an edit is for a use: its step, and its side or either."""
    if not is_of(edit, use):
        return False
    return edit.both or not edit.side or edit.side in (use.side, use.lead)


def edited_text(edit: LineEdit, use: StepUse) -> str:
    """The words of an edit on a use: mirrored when the use is on the other side."""
    side = use.side if use.side in ("left", "right") else use.lead
    if edit.both and edit.side in ("left", "right"):
        return unmarked(fill(tokenised(edit.text, edit.side), side, name=use.name))
    return unmarked(fill(edit.text, side, name=use.name))


# What lines were called before movements had cards -> what they are there; others of then have no place
# there.
CARDED = {"call": "place", "exit": "leave", "option": "choice", "caution": "protect"}
THOUGHTS = ("aim", "check", "image", "deepen", "compare", "keep", "late", "choice", "first")
CARRIED = (*CARDED, "setup", "align", "stay", *THOUGHTS)


def purpose_of(edit: LineEdit, use: StepUse) -> str:
    """What the line of an edit is called in a use: an edit of before cards finds the line of the card."""
    return CARDED.get(edit.purpose, edit.purpose) if use.movement.card is not None else edit.purpose


class OwnLineLengths:
    """How long the lines of a use take as the teacher has them: her rewritten lines, not her muted ones."""

    def __init__(self, edits: Sequence[LineEdit], duration: Callable[[str, str], int]) -> None:
        self.duration = duration
        self._edits: dict[str, list[LineEdit]] = {}
        for edit in edits:
            self._edits.setdefault(edit.step, []).append(edit)

    def lengths(self, use: StepUse, lines: Sequence[tuple[str, str]]) -> list[int]:
        """Ticks of each (purpose, text) said in a use, in order; 0 for a muted one."""
        mine = [edit for edit in self._edits.get(use.step.id, ()) if edit_applies(edit, use)]
        counts: dict[str, int] = {}
        result = []
        for purpose, text in lines:
            counts[purpose] = number = counts.get(purpose, -1) + 1
            for edit in mine:
                if (purpose_of(edit, use), edit.number) == (purpose, number) and edit.do != "add":
                    text = "" if edit.do == "mute" else edited_text(edit, use) if edit.text else text
            result.append(self.duration(text, purpose) if text else 0)
        return result

    def added(self, use: StepUse) -> list[int]:
        """Ticks of each line the teacher added to a use."""
        mine = (e for e in self._edits.get(use.step.id, ()) if e.do == "add" and edit_applies(e, use))
        return [self.duration(edited_text(edit, use), edit.purpose) for edit in mine]
