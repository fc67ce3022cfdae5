"""The grip: what every part of the hand has: the session, what things are called, how a change is made."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from yewhour.core.edits.arrange import with_node
from yewhour.core.edits.places import group_of, nodes_of
from yewhour.core.library.movement import Library
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.sprig.picture.drop_places import named


class ActionsBase:
    """Acts on what is chosen in a session. What can't be done is told by `session.refused`."""

    def __init__(self, session: Session) -> None:
        self.session = session

    def set_fields(self, node: str, title: str, **fields: Any) -> None:
        """Fields of one step, pair or rounds."""
        self._set((node,), title, **fields)

    def _set(self, nodes: Iterable[str], title: str, kind: str = "", **fields: Any) -> None:
        plan = self._plan()
        try:
            for node in nodes:
                plan = with_node(plan, node, **fields)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.do(title, plan, kind)

    @property
    def _library(self) -> Library:
        return self.session.teaching_data.library

    def _plan(self) -> Plan:
        return self.session.plan if self.session.plan is not None else Plan()

    def _refuse(self, what: str, do: str) -> None:
        self.session.refused.emit(Problem(what, do=do))

    def grouped(self, node: str) -> bool:
        """Whether a node stands in a pair, rounds or a variant."""
        return bool(group_of(self._plan(), node))

    def called(self, node: str) -> str:
        """What a node is called."""
        found = nodes_of(self._plan()).get(node)
        return self._names([found]) if found is not None else "it"

    def _name(self, node: str) -> str:
        return self._names([nodes_of(self._plan())[node]])

    def _names(self, nodes: list[Any]) -> str:
        if not nodes:
            return "nothing"
        more = f" and {len(nodes) - 1} more" if len(nodes) > 1 else ""
        return named(nodes[0], self.session.teaching_data.library) + more
