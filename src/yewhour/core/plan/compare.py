"""Compare: two plans side by side, as the lines of their outlines."""

from difflib import SequenceMatcher

import msgspec

from yewhour.core.plan.movement import Library
from yewhour.core.plan.outline_write import write_outline
from yewhour.core.plan.plan import Plan


class Beside(msgspec.Struct, frozen=True):
    """A line of the one and the line of the other that stands beside it; "" where there is none."""

    before: str
    after: str

    @property
    def same(self) -> bool:
        """Whether nothing changed here."""
        return self.before == self.after


def side_by_side(before: Plan, after: Plan, library: Library) -> list[Beside]:
    """Every line of two classes, what belongs together side by side; the teacher's own lines at the end."""
    old, new = _lines(before, library), _lines(after, library)
    result: list[Beside] = []
    for tag, a, b, c, d in SequenceMatcher(None, old, new, autojunk=False).get_opcodes():
        if tag == "equal":
            result += [Beside(line, line) for line in old[a:b]]
            continue
        left, right = old[a:b], new[c:d]
        for number in range(max(len(left), len(right))):
            result.append(
                Beside(
                    left[number] if number < len(left) else "", right[number] if number < len(right) else ""
                )
            )
    return result


def _lines(plan: Plan, library: Library) -> list[str]:
    lines = write_outline(plan, library).splitlines()
    edits = [f"{edit.do} {edit.purpose}: {edit.text or edit.was}" for edit in plan.edits]
    return [*lines, *(["", "own lines", *edits] if edits else [])]
