"""Choosing: which node of the plan a segment comes from, and which segments come from a node."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from yewhour.core.plan.nodes import Block, Step, walk
from yewhour.core.plan.places import nodes_of, outermost
from yewhour.core.plan.plan import Plan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment


def node_of(segment: Segment, known: Mapping[str, object]) -> str:
    """The id of the known node that a segment comes from: its step, or the block around it; "" for none."""
    if segment.is_closing_pause:
        return ""
    if segment.use.step.id in known:
        return segment.use.step.id
    return next((block for block in segment.use.blocks if block in known), "")


def segments_from(plan: Plan, timed: TimedClass, nodes: Iterable[str]) -> list[Segment]:
    """The segments that come from these nodes or what is inside them, set-ups apart."""
    inside = list(walk(tuple(outermost(plan, nodes))))
    steps = {node.id for node in inside if isinstance(node, Step)}
    blocks = {node.id for node in inside if isinstance(node, Block)}
    return [
        segment
        for segment in timed.segments
        if not segment.use.setup_for
        and not segment.is_closing_pause
        and (segment.use.step.id in steps or blocks & set(segment.use.blocks))
    ]


def run_between(plan: Plan, timed: TimedClass | None, first: str, last: str) -> tuple[str, ...]:
    """The nodes from one to another, in the order of the class; the first one stays first."""
    known = nodes_of(plan)
    order = list(dict.fromkeys(node_of(s, known) for s in timed.segments)) if timed else []
    if first in known and first not in order:  # a pair or rounds: from the last of it
        inside = {node.id for node in walk((known[first],))}
        first = next((name for name in reversed(order) if name in inside), first)
    if first not in order or last not in order:
        return (last,)
    a, b = order.index(first), order.index(last)
    run = order[min(a, b) : max(a, b) + 1]
    return tuple(node for node in ([first] + [n for n in run if n != first]) if node)
