"""Places: where nodes stand in a plan.

A body is a run of nodes: a section's, a pair's, a round's, one way of a variant's, or a block's that the
class carries. `bodies` names them all; a place is a body and a number of nodes before it.
"""

from collections.abc import Callable, Iterable

import msgspec

from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Rounds,
    Variant,
)
from yewhour.core.plan.plan import Plan, with_ids
from yewhour.core.problem import Problem

Body = tuple[Node, ...]


class NodePlace(msgspec.Struct, frozen=True):
    """Where a node can stand: a body by its key (see `bodies`), and how many nodes come before."""

    body: str
    at: int


def section_key(index: int) -> str:
    """The key of a section's body."""
    return f"section {index}"


def rebuilt(plan: Plan, change: Callable[[str, Body], Body]) -> Plan:
    """The plan with every body changed, inner ones first; pairs and rounds left empty are gone."""

    def inside(node: Node) -> Body:
        if isinstance(node, Pair | Rounds):
            body = each(node.id, node.body)
            return (msgspec.structs.replace(node, body=body),) if body else ()
        if isinstance(node, Variant):
            ways = {name: each(f"{node.id}/{name}", way) for name, way in node.ways.items()}
            return (msgspec.structs.replace(node, ways=ways),)
        return (node,)

    def each(key: str, body: Body) -> Body:
        return change(key, tuple(after for node in body for after in inside(node)))

    sections = tuple(
        msgspec.structs.replace(section, body=each(section_key(index), section.body))
        for index, section in enumerate(plan.sections)
    )
    blocks = {name: each(f"block {name}", body) for name, body in plan.blocks.items()}
    return with_ids(msgspec.structs.replace(plan, sections=sections, blocks=blocks))


def bodies(plan: Plan) -> dict[str, Body]:
    """Every body by its key, in the order of the class."""
    found: dict[str, Body] = {}

    def look(key: str, body: Body) -> None:
        found[key] = body
        for node in body:
            if isinstance(node, Pair | Rounds):
                look(node.id, node.body)
            elif isinstance(node, Variant):
                for name, way in node.ways.items():
                    look(f"{node.id}/{name}", way)

    for index, section in enumerate(plan.sections):
        look(section_key(index), section.body)
    for name, body in plan.blocks.items():
        look(f"block {name}", body)
    return found


def nodes_of(plan: Plan) -> dict[str, Node]:
    """Every node by its id, in the order of the class."""
    return {node.id: node for body in bodies(plan).values() for node in body}


def place_of(plan: Plan, node: str) -> NodePlace:
    """Where a node stands; raises Problem when it is not in the class."""
    for key, body in bodies(plan).items():
        for index, one in enumerate(body):
            if one.id == node:
                return NodePlace(key, index)
    raise Problem("That is not in the class any more.", do="Choose something that is.")


def after(plan: Plan, node: str) -> NodePlace:
    """The place right after a node."""
    place = place_of(plan, node)
    return NodePlace(place.body, place.at + 1)


def end_of(plan: Plan) -> NodePlace:
    """Where the next movement goes when nothing is chosen: the end of the last section with room for it.

    A rest or a close stays at the end, should the class have one.
    """
    if not plan.sections:
        return NodePlace(section_key(0), 0)
    open_ones = [n for n, section in enumerate(plan.sections) if section.role not in ("rest", "close")]
    index = open_ones[-1] if open_ones else len(plan.sections) - 1
    return NodePlace(section_key(index), len(plan.sections[index].body))


def group_of(plan: Plan, node: str) -> str:
    """The id of the pair, rounds or variant a node stands in, "" when it stands in a section."""
    key = place_of(plan, node).body
    return "" if key.startswith(("section ", "block ")) else key.split("/")[0]


def inside_pair(plan: Plan, body: str) -> Pair | None:
    """The innermost pair that a body is in, or is."""
    nodes = nodes_of(plan)
    while body and not body.startswith(("section ", "block ")):
        group = nodes.get(body.split("/")[0])
        if group is None or isinstance(group, Pair):
            return group
        body = place_of(plan, group.id).body
    return None


def whole(plan: Plan, ids: Iterable[str]) -> list[Node]:
    """The nodes with these ids, outermost; a pair whose every node is among them is meant as a whole.

    So a movement that is paired by itself is never taken apart by what is done to it.
    """
    wanted = set(ids)
    pairs = [node for node in nodes_of(plan).values() if isinstance(node, Pair)]
    for pair in reversed(pairs):  # inner ones first
        if all(node.id in wanted for node in pair.body):
            wanted.add(pair.id)
    return outermost(plan, wanted)


def outermost(plan: Plan, ids: Iterable[str]) -> list[Node]:
    """The nodes with these ids, in the order of the class, without those inside another of them."""
    wanted, found = set(ids), list[Node]()

    def look(body: Body) -> None:
        for node in body:
            if node.id in wanted:
                found.append(node)
            elif isinstance(node, Pair | Rounds):
                look(node.body)
            elif isinstance(node, Variant):
                for way in node.ways.values():
                    look(way)

    for section in plan.sections:
        look(section.body)
    for body in plan.blocks.values():
        look(body)
    return found
