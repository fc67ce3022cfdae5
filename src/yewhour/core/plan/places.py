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


class SectionBody(msgspec.Struct, frozen=True, tag=True):
    """The body of a section, by its number."""

    index: int


class BlockBody(msgspec.Struct, frozen=True, tag=True):
    """The body of a block that the class carries, by its name."""

    name: str


class GroupBody(msgspec.Struct, frozen=True, tag=True):
    """The body of a pair or of rounds, by its id."""

    group: str


class WayBody(msgspec.Struct, frozen=True, tag=True):
    """One way of a variant, by its id and the way's name."""

    group: str
    name: str


BodyKey = SectionBody | BlockBody | GroupBody | WayBody


class NodePlace(msgspec.Struct, frozen=True):
    """Where a node can stand: a body (see `bodies`), and how many nodes come before."""

    body: BodyKey
    at: int


def group_body(key: BodyKey) -> str:
    """The id of the pair, rounds or variant that a body is of, "" for a section's or a block's."""
    return key.group if isinstance(key, GroupBody | WayBody) else ""


def rebuilt(plan: Plan, change: Callable[[BodyKey, Body], Body]) -> Plan:
    """The plan with every body changed, inner ones first; pairs and rounds left empty are gone."""

    def inside(node: Node) -> Body:
        if isinstance(node, Pair | Rounds):
            body = each(GroupBody(node.id), node.body)
            return (msgspec.structs.replace(node, body=body),) if body else ()
        if isinstance(node, Variant):
            ways = {name: each(WayBody(node.id, name), way) for name, way in node.ways.items()}
            return (msgspec.structs.replace(node, ways=ways),)
        return (node,)

    def each(key: BodyKey, body: Body) -> Body:
        return change(key, tuple(after for node in body for after in inside(node)))

    sections = tuple(
        msgspec.structs.replace(section, body=each(SectionBody(index), section.body))
        for index, section in enumerate(plan.sections)
    )
    blocks = {name: each(BlockBody(name), body) for name, body in plan.blocks.items()}
    return with_ids(msgspec.structs.replace(plan, sections=sections, blocks=blocks))


def bodies(plan: Plan) -> dict[BodyKey, Body]:
    """Every body by its key, in the order of the class."""
    found: dict[BodyKey, Body] = {}

    def look(key: BodyKey, body: Body) -> None:
        found[key] = body
        for node in body:
            if isinstance(node, Pair | Rounds):
                look(GroupBody(node.id), node.body)
            elif isinstance(node, Variant):
                for name, way in node.ways.items():
                    look(WayBody(node.id, name), way)

    for index, section in enumerate(plan.sections):
        look(SectionBody(index), section.body)
    for name, body in plan.blocks.items():
        look(BlockBody(name), body)
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
        return NodePlace(SectionBody(0), 0)
    open_ones = [n for n, section in enumerate(plan.sections) if section.role not in ("rest", "close")]
    index = open_ones[-1] if open_ones else len(plan.sections) - 1
    return NodePlace(SectionBody(index), len(plan.sections[index].body))


def group_of(plan: Plan, node: str) -> str:
    """The id of the pair, rounds or variant a node stands in, "" when it stands in a section."""
    return group_body(place_of(plan, node).body)


def inside_pair(plan: Plan, body: BodyKey) -> Pair | None:
    """The innermost pair that a body is in, or is."""
    nodes = nodes_of(plan)
    while around := group_body(body):
        group = nodes.get(around)
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
