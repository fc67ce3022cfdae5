"""Arrange: steps put in, taken out, moved, made into pairs and rounds. Each takes a plan and gives a new one.

A body is a run of nodes: a section's, a pair's, a round's, one way of a variant's, or a block's that the
class carries. `bodies` names them all; a place is a body and a number of nodes before it.
"""

from collections.abc import Callable, Iterable, Sequence
from typing import Any

import msgspec

from yewhour.core.plan.edit import bare
from yewhour.core.plan.movement import Library
from yewhour.core.plan.nodes import Block, Blocks, Node, Pair, Rounds, Step, Variant, walk
from yewhour.core.plan.pace import Phase, opposite
from yewhour.core.plan.plan import ROLES, Plan, Section, with_ids
from yewhour.core.problem import Problem

Body = tuple[Node, ...]


class Place(msgspec.Struct, frozen=True):
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


def place_of(plan: Plan, node: str) -> Place:
    """Where a node stands; raises Problem when it is not in the class."""
    for key, body in bodies(plan).items():
        for index, one in enumerate(body):
            if one.id == node:
                return Place(key, index)
    raise Problem("That is not in the class any more.", do="Choose something that is.")


def after(plan: Plan, node: str) -> Place:
    """The place right after a node."""
    place = place_of(plan, node)
    return Place(place.body, place.at + 1)


def end_of(plan: Plan) -> Place:
    """Where the next movement goes when nothing is chosen: the end of the last section with room for it.

    A rest or a close stays at the end, should the class have one.
    """
    if not plan.sections:
        return Place(section_key(0), 0)
    open_ones = [n for n, section in enumerate(plan.sections) if section.role not in ("rest", "close")]
    index = open_ones[-1] if open_ones else len(plan.sections) - 1
    return Place(section_key(index), len(plan.sections[index].body))


def group_of(plan: Plan, node: str) -> str:
    """The id of the pair, rounds or variant a node stands in, "" when it stands in a section."""
    key = place_of(plan, node).body
    return "" if key.startswith(("section ", "block ")) else key.split("/")[0]


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


# --- putting in, taking out, moving --------------------------------------------------------------------


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


# --- pairs and rounds --------------------------------------------------------------------------------------


def _gathered(plan: Plan, ids: Iterable[str], group: Callable[[Body], Node]) -> tuple[Plan, tuple[str, ...]]:
    nodes = tuple(outermost(plan, ids))
    if not nodes:
        raise Problem("Nothing is chosen to be put together.", do="Choose one or more movements first.")
    place = place_of(plan, nodes[0].id)
    made = group(nodes)
    gone = {node.id for node in nodes}

    def change(key: str, body: Body) -> Body:
        result: list[Node] = []
        for node in body:
            if node.id == nodes[0].id:
                result.append(made)
            elif node.id not in gone:
                result.append(node)
        return tuple(result)

    result = rebuilt(plan, change)
    index = sum(1 for node in bodies(plan)[place.body][: place.at] if node.id not in gone)
    return result, (bodies(result)[place.body][index].id,)


def paired(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Plan, tuple[str, ...]]:
    """The chosen steps as one pair, both sides done, and the pair's id.

    Raises Problem when none of them has a side, or they are a pair already.
    """
    ids = list(ids)
    nodes = outermost(plan, ids)
    steps = [node for node in walk(tuple(nodes)) if isinstance(node, Step)]
    if any(isinstance(node, Pair) for node in walk(tuple(nodes))):
        raise Problem("This is done on both sides already.", do="Choose movements that are not.")
    if not any(step.movement in library and library[step.movement].sides == "one" for step in steps):
        raise Problem(
            "None of this is done on one side.", do="Choose a movement that has a left and a right side."
        )
    only = steps[0].side if len(steps) == 1 and steps[0].side in ("left", "right") else None

    def pair(body: Body) -> Node:
        cleared = tuple(
            msgspec.structs.replace(node, side=None) if isinstance(node, Step) else node for node in body
        )
        return Pair(body=cleared, lead=only)

    return _gathered(plan, ids, pair)


def in_rounds(plan: Plan, ids: Iterable[str], times: int = 2) -> tuple[Plan, tuple[str, ...]]:
    """The chosen nodes as one group done `times` times, and the group's id."""
    return _gathered(plan, ids, lambda body: Rounds(body=body, times=times, least=1, most=max(times * 2, 4)))


def flowing(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Plan, tuple[str, ...]]:
    """The chosen steps as a flow in rounds: one movement a phase, inhale and exhale by turns.

    A movement that is entered on a certain phase keeps it; one that would repeat the phase before takes
    the other. What is not a step is left as it is.
    """
    breath: Phase = "exhale"

    def phased(node: Node) -> Node:
        nonlocal breath
        if not isinstance(node, Step) or node.movement not in library:
            return node
        breath = opposite(breath)
        return msgspec.structs.replace(node, phase=breath, amount=None, locked=False)

    first = next((n for n in outermost(plan, ids) if isinstance(n, Step)), None)
    if first is not None and first.movement in library and library[first.movement].enter == "exhale":
        breath = "inhale"
    return _gathered(
        plan, ids, lambda body: Rounds(body=tuple(phased(node) for node in body), times=3, least=1, most=6)
    )


def undone(plan: Plan, group: str, blocks: Blocks) -> Plan:
    """The plan with a pair, rounds or a block dissolved: what was in it stands in its place, once."""

    def inside(node: Node) -> Body:
        if node.id != group:
            return (node,)
        if isinstance(node, Block):
            return tuple(bare(inner) for inner in plan.blocks.get(node.name, blocks.get(node.name, ())))
        return node.body if isinstance(node, Pair | Rounds) else (node,)

    return rebuilt(plan, lambda key, body: tuple(inner for node in body for inner in inside(node)))


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


# --- sections ------------------------------------------------------------------------------------------


def with_section(plan: Plan, index: int, **fields: Any) -> Plan:
    """The plan with fields of one section replaced."""
    sections = list(plan.sections)
    sections[index] = msgspec.structs.replace(sections[index], **fields)
    return msgspec.structs.replace(plan, sections=tuple(sections))


def new_section(plan: Plan, title: str, at: int) -> Plan:
    """The plan with an empty section as number `at`; a usual title gives it its role."""
    role = title.lower() if title.lower() in ROLES else ""
    sections = (*plan.sections[:at], Section(title=title, role=role), *plan.sections[at:])
    return msgspec.structs.replace(plan, sections=sections)


def without_section(plan: Plan, index: int) -> Plan:
    """The plan without a section and everything in it."""
    return msgspec.structs.replace(plan, sections=(*plan.sections[:index], *plan.sections[index + 1 :]))


def section_moved(plan: Plan, index: int, by: int) -> Plan:
    """A whole section one place earlier or later."""
    other = index + by
    if not 0 <= other < len(plan.sections):
        return plan
    sections = list(plan.sections)
    sections[index], sections[other] = sections[other], sections[index]
    return msgspec.structs.replace(plan, sections=tuple(sections))
