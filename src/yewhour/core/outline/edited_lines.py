"""What the teacher did to the lines of a step, as an outline has it under the step; read and written alike.

say aim 2, right: Let the left hip be heavy.
  was: Both hips face the front of the mat.
unsay image
hold check, at 12s
add stay, at 20s: You have time.
"""

import re
from collections.abc import Iterable, Iterator
from typing import Any

from yewhour.core.outline.brief_lines import one_line
from yewhour.core.plan.nodes import EditKind, LineEdit
from yewhour.core.problem import Problem
from yewhour.core.purpose import PURPOSES

VERBS: dict[str, EditKind] = {"say": "rewrite", "unsay": "mute", "hold": "pin", "move": "move", "add": "add"}
_WRITTEN = {do: verb for verb, do in VERBS.items()}
WAS = "was:"
_LINE = re.compile(rf"({'|'.join(VERBS)}) ({'|'.join(PURPOSES)})(?: (\d{{1,4}}))?((?:, [^:,]+)*)(?:: (.*))?$")
# So begins a line that is said: a comment's sign in it is one of its words.
SAID = re.compile(rf"(?:>|\+|{WAS} |(?:{'|'.join(VERBS)}) (?:{'|'.join(PURPOSES)})\b)")
DO = "Write, for instance: say aim, right: the words. See docs/outline.md."


def is_edited_line(text: str) -> bool:
    """Whether a line under a movement says what was done to one of its lines."""
    return text.split(" ", 1)[0] in VERBS


def read_edited_line(text: str, was: str, block: str = "") -> LineEdit:
    """The edit that a line and the `was:` under it describe; block: the name of the block it stands under.

    Raises Problem for what can't be read.
    """
    found = _LINE.match(text)
    if found is None:
        raise Problem(f"{text!r} is not what can be done to a line.", do=DO)
    verb, purpose, number, address, words = found.groups()
    fields: dict[str, Any] = {}
    for part in filter(None, (address or "").split(", ")):
        fields |= _addressed(part, block)
    if block and "step" not in fields:
        raise Problem(
            f"{text!r} names no step of the block.", do="Write, for instance: say aim, of 2: the words"
        )
    if verb in ("say", "add") and not words:
        raise Problem(f"{text!r} has no words.", do="Write them after a colon.")
    return LineEdit(
        purpose, VERBS[verb], number=max(0, int(number or 1) - 1), text=words or "", was=was, **fields
    )


def _addressed(part: str, block: str) -> dict[str, Any]:
    """The fields that one part of an address gives: `right`, `both sides`, `at 12.5s`, `of 3`."""
    if part in ("right", "left"):
        return {"side": part}
    if part == "both sides":
        return {"both": True}
    if found := re.fullmatch(r"at (-?\d{1,7}(?:\.\d+)?)s", part):
        return {"at_s": float(found[1])}
    if block and (found := re.fullmatch(r"of (?:(.+) )?(\d{1,4})", part)):
        return {"step": f"{found[1] or block}:{found[2]}"}
    raise Problem(f"{part!r} does not say which line.", do="There are: right, left, both sides, at 12s.")


def write_edited_lines(edits: Iterable[LineEdit], block: str = "") -> Iterator[str]:
    """The lines of edits, those a step deeper that say what was there before."""
    for edit in edits:
        head = [f"{_WRITTEN[edit.do]} {edit.purpose}{f' {edit.number + 1}' if edit.number else ''}"]
        if edit.step:
            name, _, number = edit.step.rpartition(":")
            head.append(f"of {number}" if name == block else f"of {name} {number}")
        if edit.side:
            head.append(edit.side)
        if edit.both:
            head.append("both sides")
        if edit.at_s or edit.do in ("pin", "move", "add"):
            head.append(f"at {_shown(edit.at_s)}s")
        text = one_line(edit.text)
        yield ", ".join(head) + (f": {text}" if text else "")
        if was := one_line(edit.was):
            yield f"  {WAS} {was}"


def _shown(seconds: float) -> str:
    return f"{seconds:.6f}".rstrip("0").rstrip(".")
