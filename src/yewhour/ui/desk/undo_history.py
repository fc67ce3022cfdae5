"""The past of a class: what was done to it, to be taken back and done again."""

from __future__ import annotations

from typing import NamedTuple

from yewhour.core.plan.plan import Plan

MOST_UNDO = 200


class DoneAct(NamedTuple):
    """Something done, in the teacher's words, and the plan before it. Acts of one kind in a row are one."""

    title: str
    plan: Plan
    kind: str = ""


class UndoHistory:
    """Acts, the last at the end; those taken back can be done again until something else is done."""

    def __init__(self) -> None:
        self._done: list[DoneAct] = []
        self._undone: list[DoneAct] = []

    def add(self, title: str, before: Plan, kind: str = "") -> None:
        """Notes an act, and the plan before it."""
        if kind and self._done and self._done[-1].kind == kind:
            self._done[-1] = self._done[-1]._replace(title=title)
        else:
            self._done.append(DoneAct(title, before, kind))
            del self._done[:-MOST_UNDO]
        self._undone.clear()

    def take_out_last(self) -> DoneAct | None:
        """The last act, which did not come about: it can't be done again either."""
        return self._done.pop() if self._done else None

    @property
    def undo_titles(self) -> list[str]:
        """What can be taken back, the last act first."""
        return [act.title for act in reversed(self._done)]

    @property
    def redo_titles(self) -> list[str]:
        """What can be done again, the next first."""
        return [act.title for act in reversed(self._undone)]

    def back(self, plan: Plan, times: int) -> Plan:
        """The plan before so many acts."""
        return _moved(self._done, self._undone, plan, times)

    def forward(self, plan: Plan, times: int) -> Plan:
        """The plan after so many acts that were taken back."""
        return _moved(self._undone, self._done, plan, times)


def _moved(source: list[DoneAct], other: list[DoneAct], plan: Plan, times: int) -> Plan:
    for _ in range(min(times, len(source))):
        act = source.pop()
        other.append(DoneAct(act.title, plan))
        plan = act.plan
    return plan
