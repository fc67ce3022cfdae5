"""What is chosen: the plan it stands in, what it is called, and how its fields are changed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from yewhour.core.edits.arrange import with_node
from yewhour.core.library.movement import Library
from yewhour.core.plan.places import group_of, nodes_of
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.sprig.picture.drop_places import named


class Chosen:
    """What is chosen in a session. What can't be done is told by `session.refused`."""

    def __init__(self, session: Session) -> None:
        self.session = session

    def set(self, nodes: Iterable[str], title: str, kind: str = "", **fields: Any) -> None:
        """The same fields of steps, pairs or rounds."""
        self.set_each(dict.fromkeys(nodes, fields), title, kind)

    def set_each(self, changes: Mapping[str, Mapping[str, Any]], title: str, kind: str = "") -> None:
        """Fields of several nodes, each its own, as one act."""
        plan = self.plan()
        try:
            for node, fields in changes.items():
                plan = with_node(plan, node, **fields)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.do(title, plan, kind)

    @property
    def library(self) -> Library:
        """The movements there are."""
        return self.session.teaching_data.library

    def plan(self) -> Plan:
        """The class, an empty one where none is open."""
        return self.session.plan if self.session.plan is not None else Plan()

    def refuse(self, what: str, do: str) -> None:
        """Says why something can't be done."""
        self.session.refused.emit(Problem(what, do=do))

    def grouped(self, node: str) -> bool:
        """Whether a node stands in a pair, rounds or a variant."""
        return bool(group_of(self.plan(), node))

    def called(self, node: str) -> str:
        """What a node is called."""
        found = nodes_of(self.plan()).get(node)
        return self.names([found]) if found is not None else "it"

    def name(self, node: str) -> str:
        """What a node that is there is called."""
        return self.names([nodes_of(self.plan())[node]])

    def names(self, nodes: list[Any]) -> str:
        """What several nodes are called together."""
        if not nodes:
            return "nothing"
        more = f" and {len(nodes) - 1} more" if len(nodes) > 1 else ""
        return named(nodes[0], self.session.teaching_data.library) + more
