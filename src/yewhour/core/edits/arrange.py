"""Arrange: steps put in, taken out, moved and changed. Each takes a plan and gives a new one."""

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.plan.edit import bare
from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Step,
    children,
    walk,
)
from yewhour.core.plan.places import (
    Body,
    BodyKey,
    NodePlace,
    SectionBody,
    bodies,
    group_body,
    group_of,
    inside_pair,
    nodes_of,
    place_of,
    rebuilt,
    whole,
)
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem


def put(plan: Plan, place: NodePlace, nodes: Sequence[Node]) -> tuple[Plan, tuple[str, ...]]:
    """The plan with nodes put in at a place, and the ids they got. An empty class gets its first section.

    Into a pair go the movements of a pair, not the pair: they are done on both sides there.
    """
    if not plan.sections and place.body == SectionBody(0):
        plan = msgspec.structs.replace(plan, sections=(Section(title="Practice"),))
    known = bodies(plan)
    if place.body not in known:
        raise Problem("That place is not in the class any more.", do="Choose another.")
    before = set(nodes_of(plan))
    if inside_pair(plan, place.body) is not None:
        nodes = [inner for node in nodes for inner in (node.body if isinstance(node, Pair) else (node,))]
    fresh = tuple(node if node.id and node.id not in before else bare(node) for node in nodes)

    def change(key: BodyKey, body: Body) -> Body:
        return (*body[: place.at], *fresh, *body[place.at :]) if key == place.body else body

    result = rebuilt(plan, change)
    body = bodies(result)[place.body]
    return result, tuple(node.id for node in body[place.at : place.at + len(fresh)])


def removed(plan: Plan, ids: Iterable[str]) -> Plan:
    """The plan without these nodes. Raises Problem when none of them is there."""
    gone = {node.id for node in whole(plan, ids)}
    if not gone:
        raise Problem("Nothing is chosen that could be left out.", do="Choose a movement first.")
    return rebuilt(plan, lambda key, body: tuple(node for node in body if node.id not in gone))


_HERE = "\0here"


def moved(plan: Plan, ids: Iterable[str], place: NodePlace, library: Library) -> Plan:
    """The plan with these nodes at a place, in their order; what was done on both sides still is.

    Raises Problem for a group put into itself.
    """
    ids = list(ids)
    nodes = whole(plan, ids)
    inside = {inner.id for node in nodes for inner in walk((node,))}
    if group_body(place.body) in inside:
        if not (inside & set(ids)) - {inner.id for node in nodes for inner in walk(children(node))}:
            return plan  # a pair let go of within itself: it is where it was
        raise Problem("A group can't be put into itself.", do="Drop it before or after itself.")
    if not nodes:
        return plan
    moving = {node.id for node in nodes}
    settled = [inner for node in nodes for inner in _at_home(plan, node, place, library)]

    def mark(key: BodyKey, body: Body) -> Body:
        return (
            (*body[: place.at], Step(movement="", id=_HERE), *body[place.at :]) if key == place.body else body
        )

    def settle(key: BodyKey, body: Body) -> Body:
        result: list[Node] = []
        for node in body:
            if node.id == _HERE:
                result += settled
            elif node.id not in moving:
                result.append(node)
        return tuple(result)

    return rebuilt(rebuilt(plan, mark), settle)


def _at_home(plan: Plan, node: Node, place: NodePlace, library: Library) -> Iterator[Node]:
    """A node as it has to be elsewhere: in a pair not a pair, and out of a pair one of its own."""
    was, will = inside_pair(plan, place_of(plan, node.id).body), inside_pair(plan, place.body)
    if will is not None and isinstance(node, Pair):
        yield from node.body
    elif will is None and was is not None and sided((node,), library):
        yield Pair(body=(node,), lead=was.lead)
    else:
        yield node


def sided(nodes: Sequence[Node], library: Library) -> bool:
    """Whether any step among nodes or in them takes the side of its pair."""
    steps = (node for node in walk(tuple(nodes)) if isinstance(node, Step))
    return any(s.side is None and s.movement in library and library[s.movement].sides == "one" for s in steps)


def shifted(plan: Plan, ids: Iterable[str], by: int, library: Library) -> Plan:
    """The nodes one place earlier (-1) or later (+1): past a group, never into it; at its edge, out of it."""
    nodes = whole(plan, ids)
    if not nodes:
        return plan
    ids = [node.id for node in nodes]
    first, last = place_of(plan, nodes[0].id), place_of(plan, nodes[-1].id)
    body = bodies(plan)[first.body if by < 0 else last.body]
    index = first.at - 1 if by < 0 else last.at + 1
    if 0 <= index < len(body):
        at = index if by < 0 else index + 1
        return moved(plan, ids, NodePlace(first.body if by < 0 else last.body, at), library)
    group = group_of(plan, nodes[0].id)
    if group:
        around = place_of(plan, group)
        return moved(plan, ids, around if by < 0 else NodePlace(around.body, around.at + 1), library)
    number = first.body.index + by if isinstance(first.body, SectionBody) else -1
    if 0 <= number < len(plan.sections):
        at = len(plan.sections[number].body) if by < 0 else 0
        return moved(plan, ids, NodePlace(SectionBody(number), at), library)
    return plan


def copies(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Node, ...]:
    """The chosen nodes without ids, to be put in elsewhere; out of a pair they are pairs of their own."""
    result: list[Node] = []
    for node in whole(plan, ids):
        pair = inside_pair(plan, place_of(plan, node.id).body)
        alone = pair is not None and not isinstance(node, Pair) and sided((node,), library)
        result.append(bare(Pair(body=(node,), lead=pair.lead) if alone and pair is not None else node))
    return tuple(result)


def copied_parts(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Section, ...]:
    """The parts that the chosen nodes stand in, each with copies of those of them that stand there."""
    ids = list(ids)
    parts = []
    for section in plan.sections:
        inside = {node.id for node in walk(section.body)}
        mine = copies(plan, [one for one in ids if one in inside], library)
        if mine:
            parts.append(msgspec.structs.replace(section, body=mine))
    return tuple(parts)


def put_parts(plan: Plan, parts: Sequence[Section]) -> tuple[Plan, tuple[str, ...]]:
    """The plan with the nodes of parts at the end of its own parts of that title; others are new parts.

    The ids that the nodes got come with it.
    """
    got: list[str] = []
    at = 0
    for part in parts:
        same = [n for n, one in enumerate(plan.sections) if (one.title, one.role) == (part.title, part.role)]
        if same:
            at = same[0]
        else:
            empty = msgspec.structs.replace(part, body=())
            at = min(at + 1, len(plan.sections))
            plan = msgspec.structs.replace(plan, sections=(*plan.sections[:at], empty, *plan.sections[at:]))
        plan, ids = put(plan, NodePlace(SectionBody(at), len(plan.sections[at].body)), part.body)
        got += ids
    return plan, tuple(got)


def with_part(plan: Plan, part: Section, at: int) -> Plan:
    """The plan with a part of another state of it: in place of its own of that title, else new as part `at`.

    What else is in the plan stays; nodes whose ids it has elsewhere get new ones.
    """
    same = [n for n, one in enumerate(plan.sections) if (one.title, one.role) == (part.title, part.role)]
    at = same[0] if same else min(at, len(plan.sections))
    rest = plan.sections[at + 1 :] if same else plan.sections[at:]
    emptied = (*plan.sections[:at], msgspec.structs.replace(part, body=()), *rest)
    plan = msgspec.structs.replace(plan, sections=emptied)
    return put(plan, NodePlace(SectionBody(at), 0), part.body)[0] if part.body else plan


def with_node(plan: Plan, node: str, **fields: Any) -> Plan:
    """The plan with fields of one node replaced, those it has; raises Problem when it is not there."""
    place = place_of(plan, node)

    def change(key: BodyKey, body: Body) -> Body:
        if key != place.body:
            return body
        return tuple(
            msgspec.structs.replace(one, **{k: v for k, v in fields.items() if k in one.__struct_fields__})
            if one.id == node
            else one
            for one in body
        )

    return rebuilt(plan, change)
