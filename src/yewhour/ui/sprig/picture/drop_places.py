"""Where a dragged movement can be dropped: every place of the plan with the time it stands at."""

from __future__ import annotations

from dataclasses import dataclass

from yewhour.core.library.movement import Library
from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Rounds,
    Step,
    walk,
)
from yewhour.core.plan.places import BlockBody, BodyKey, NodePlace, SectionBody, bodies, group_body, nodes_of
from yewhour.core.plan.plan import Plan
from yewhour.core.timed_class import TimedClass

HIT_TYPE = "application/x-yewhour-hit"  # a result of the finder that is carried to the sprig


@dataclass(frozen=True)
class DropPlace:
    """A place, the tick it stands at, how deep in groups it is, and what it is called."""

    place: NodePlace
    at: int
    depth: int
    label: str


def drop_places(plan: Plan, timed: TimedClass, library: Library) -> list[DropPlace]:
    """Every place a node can be dropped at, in the order of the class."""
    times = _times(plan, timed)
    found: list[DropPlace] = []
    depth_of: dict[str, int] = {}
    last = 0
    for key, body in bodies(plan).items():
        if isinstance(key, BlockBody):
            continue
        depth = depth_of.get(group_body(key), 0)
        for node in body:
            if isinstance(node, Pair | Rounds):
                depth_of[node.id] = depth + 1
        where = _where(plan, key)
        for index, node in enumerate(body):
            if node.id in times:
                found.append(
                    DropPlace(
                        NodePlace(key, index),
                        times[node.id][0],
                        depth,
                        f"{where}before {named(node, library)}",
                    )
                )
        ended = [node for node in body if node.id in times]
        if ended:
            last = times[ended[-1].id][1]
            found.append(
                DropPlace(NodePlace(key, len(body)), last, depth, f"{where}after {named(ended[-1], library)}")
            )
        elif not body:
            found.append(DropPlace(NodePlace(key, 0), last, depth, f"into {_title(plan, key)}"))
    return found


def nearest(found: list[DropPlace], at: int, within: int, deep: bool) -> DropPlace | None:
    """The slot nearest to a tick; of those at about the same one, the innermost if `deep`."""
    if not found:
        return None
    best = min(abs(slot.at - at) for slot in found)
    close = [slot for slot in found if abs(slot.at - at) <= best + within]
    return max(close, key=lambda slot: (slot.depth if deep else -slot.depth, -abs(slot.at - at)))


def named(node: Node, library: Library) -> str:
    """What a node is called in a few words."""
    steps = [one for one in walk((node,)) if isinstance(one, Step)]
    if not steps:
        return getattr(node, "name", "the block")
    movement = library.get(steps[0].movement)
    name = movement.name if movement else steps[0].movement
    if isinstance(node, Rounds):
        return f"the rounds of {name}"
    if isinstance(node, Pair):
        return f"{name}, both sides" if len(steps) == 1 else f"the pair of {name}"
    return name


def _times(plan: Plan, timed: TimedClass) -> dict[str, tuple[int, int]]:
    """First tick of each node, and the tick its first round or side ends at; a pair or rounds: its whole."""
    first: dict[str, tuple[int, int]] = {}
    whole: dict[str, tuple[int, int]] = {}
    for segment in timed.segments:
        if segment.use.setup_for:
            continue
        for name in (segment.use.step.id, *segment.use.blocks):
            first.setdefault(name, (segment.start, segment.end))
            start, _ = whole.get(name, (segment.start, 0))
            whole[name] = start, segment.end
    times: dict[str, tuple[int, int]] = {}
    for node in nodes_of(plan).values():
        if isinstance(node, Pair | Rounds):
            inner = [whole[one.id] for one in walk((node,)) if one.id in whole]
            if inner:
                times[node.id] = min(a for a, _ in inner), max(b for _, b in inner)
        elif node.id in first:
            times[node.id] = first[node.id]
    return times


def _where(plan: Plan, key: BodyKey) -> str:
    node = nodes_of(plan).get(group_body(key))
    return (
        "in the pair, " if isinstance(node, Pair) else "in the rounds, " if isinstance(node, Rounds) else ""
    )


def _title(plan: Plan, key: BodyKey) -> str:
    return plan.sections[key.index].title if isinstance(key, SectionBody) else "the group"
