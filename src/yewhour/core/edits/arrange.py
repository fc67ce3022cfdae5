"""Arrange: steps put in, taken out, moved and changed. Each takes a plan and gives a new one."""

from collections.abc import Iterable, Sequence
from typing import Any

import msgspec

from yewhour.core.edits.places import (
    Body,
    Place,
    bodies,
    group_of,
    nodes_of,
    outermost,
    place_of,
    rebuilt,
    section_key,
)
from yewhour.core.plan.edit import bare
from yewhour.core.plan.nodes import Node, Pair, Rounds, Step, walk
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem


def put(plan: Plan, place: Place, nodes: Sequence[Node]) -> tuple[Plan, tuple[str, ...]]:
    """The plan with nodes put in at a place, and the ids they got. An empty class gets its first section."""
    if not plan.sections and place.body == section_key(0):
        plan = msgspec.structs.replace(plan, sections=(Section(title="Practice"),))
    known = bodies(plan)
    if place.body not in known:
        raise Problem("That place is not in the class any more.", do="Choose another.")
    before = set(nodes_of(plan))
    fresh = tuple(node if node.id and node.id not in before else bare(node) for node in nodes)

    def change(key: str, body: Body) -> Body:
        return (*body[: place.at], *fresh, *body[place.at :]) if key == place.body else body

    result = rebuilt(plan, change)
    body = bodies(result)[place.body]
    return result, tuple(node.id for node in body[place.at : place.at + len(fresh)])


def removed(plan: Plan, ids: Iterable[str]) -> Plan:
    """The plan without these nodes. Raises Problem when none of them is there."""
    gone = {node.id for node in outermost(plan, ids)}
    if not gone:
        raise Problem("Nothing is chosen that could be left out.", do="Choose a movement first.")
    return rebuilt(plan, lambda key, body: tuple(node for node in body if node.id not in gone))


_HERE = "\0here"


def moved(plan: Plan, ids: Iterable[str], place: Place) -> Plan:
    """The plan with these nodes at a place, in their order. Raises Problem for a group put into itself."""
    nodes = outermost(plan, ids)
    inside = {inner.id for node in nodes for inner in walk((node,))}
    if place.body.split("/")[0] in inside:
        raise Problem("A group can't be put into itself.", do="Drop it before or after itself.")
    if not nodes:
        return plan
    moving = {node.id for node in nodes}

    def mark(key: str, body: Body) -> Body:
        return (
            (*body[: place.at], Step(movement="", id=_HERE), *body[place.at :]) if key == place.body else body
        )

    def settle(key: str, body: Body) -> Body:
        result: list[Node] = []
        for node in body:
            if node.id == _HERE:
                result += nodes
            elif node.id not in moving:
                result.append(node)
        return tuple(result)

    return rebuilt(rebuilt(plan, mark), settle)


def shifted(plan: Plan, ids: Iterable[str], by: int) -> Plan:
    """The nodes one place earlier (-1) or later (+1); at the edge of a group, out of it or into the next."""
    nodes = outermost(plan, ids)
    if not nodes:
        return plan
    first, last = place_of(plan, nodes[0].id), place_of(plan, nodes[-1].id)
    body = bodies(plan)[first.body if by < 0 else last.body]
    index = first.at - 1 if by < 0 else last.at + 1
    if 0 <= index < len(body):
        neighbour = body[index]
        if isinstance(neighbour, Pair | Rounds) and not isinstance(nodes[0], Pair):
            return moved(plan, ids, Place(neighbour.id, len(neighbour.body) if by < 0 else 0))
        return moved(plan, ids, Place(first.body if by < 0 else last.body, index if by < 0 else index + 1))
    group = group_of(plan, nodes[0].id)
    if group:
        around = place_of(plan, group)
        return moved(plan, ids, around if by < 0 else Place(around.body, around.at + 1))
    number = int(first.body.split()[1]) + by if first.body.startswith("section ") else -1
    if 0 <= number < len(plan.sections):
        return moved(plan, ids, Place(section_key(number), len(plan.sections[number].body) if by < 0 else 0))
    return plan


def copies(plan: Plan, ids: Iterable[str]) -> tuple[Node, ...]:
    """The chosen nodes without ids, to be put in elsewhere."""
    return tuple(bare(node) for node in outermost(plan, ids))


def with_node(plan: Plan, node: str, **fields: Any) -> Plan:
    """The plan with fields of one node replaced, those it has; raises Problem when it is not there."""
    place = place_of(plan, node)

    def change(key: str, body: Body) -> Body:
        if key != place.body:
            return body
        return tuple(
            msgspec.structs.replace(one, **{k: v for k, v in fields.items() if k in one.__struct_fields__})
            if one.id == node
            else one
            for one in body
        )

    return rebuilt(plan, change)
