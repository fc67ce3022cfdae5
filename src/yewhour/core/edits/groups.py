"""Groups: steps made into pairs, rounds and flows, and taken apart; and sections. A plan gives a new one."""

from collections.abc import Callable, Iterable
from typing import Any

import msgspec

from yewhour.core.edits.arrange import sided
from yewhour.core.library.movement import Library
from yewhour.core.pace import Phase, opposite
from yewhour.core.plan.edit import bare, with_edits_of
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    Pair,
    Rounds,
    Step,
    children,
    walk,
)
from yewhour.core.plan.places import (
    Body,
    BodyKey,
    SectionBody,
    bodies,
    inside_pair,
    nodes_of,
    outermost,
    place_of,
    rebuilt,
    whole,
)
from yewhour.core.plan.plan import ROLES, Plan, Section
from yewhour.core.problem import Problem

# --- pairs and rounds --------------------------------------------------------------------------------------


def _side_by_side(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Node, ...]:
    """The chosen nodes, to make one group of. Rounds of which all is chosen, and more beside them, are whole.

    Raises Problem unless they stand side by side in one part or one group of the class.
    """
    nodes = tuple(whole(plan, ids))
    chosen = {node.id for node in nodes}
    if len({place_of(plan, node.id).body for node in nodes}) > 1:
        for group in reversed(nodes_of(plan).values()):  # inner ones first
            if isinstance(group, Rounds | Pair) and all(inner.id in chosen for inner in group.body):
                chosen.add(group.id)
        nodes = tuple(outermost(plan, chosen))
    if not nodes:
        raise Problem("Nothing is chosen to be put together.", do="Choose one or more movements first.")
    places = [place_of(plan, node.id) for node in nodes]
    homes = list(dict.fromkeys(place.body for place in places))
    if len(homes) > 1 and all(isinstance(home, SectionBody) for home in homes):
        raise Problem(
            f"What is chosen stands in {len(homes)} parts of the class.", do="Choose movements of one part."
        )
    if len(homes) > 1:
        raise Problem(
            "Some of what is chosen stands in a pair or in rounds, and some beside it.",
            do="Choose all of the pair or the rounds too, or only what is beside it.",
        )
    body = bodies(plan)[homes[0]]
    for between in body[places[0].at : places[-1].at]:
        if between.id not in chosen:
            raise Problem(
                f"{_name(between, library)} stands between what is chosen.",
                do="Choose it too, or move it out of the way first.",
            )
    return nodes


def _name(node: Node, library: Library) -> str:
    """What a node is called where something is said of it."""
    step = next((one for one in walk((node,)) if isinstance(one, Step)), None)
    if step is None:
        return node.name.capitalize() if isinstance(node, Block) else "What"
    return library[step.movement].name if step.movement in library else step.movement


def _gathered(plan: Plan, nodes: Body, group: Callable[[Body], Node]) -> tuple[Plan, tuple[str, ...]]:
    place = place_of(plan, nodes[0].id)
    grouped = group(nodes)
    gone = {node.id for node in nodes}

    def change(key: BodyKey, body: Body) -> Body:
        result: list[Node] = []
        for node in body:
            if node.id == nodes[0].id:
                result.append(grouped)
            elif node.id not in gone:
                result.append(node)
        return tuple(result)

    result = rebuilt(plan, change)
    index = sum(1 for node in bodies(plan)[place.body][: place.at] if node.id not in gone)
    return result, (bodies(result)[place.body][index].id,)


def paired(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Plan, tuple[str, ...]]:
    """The chosen steps as one pair, all of them on one side and then on the other, and the pair's id.

    Those that were pairs by themselves are so no longer. Raises Problem when none of them has a side, or
    they are one pair already.
    """
    ids = list(ids)
    nodes = whole(plan, ids)
    steps = [node for node in walk(tuple(nodes)) if isinstance(node, Step)]
    already = len(nodes) == 1 and any(isinstance(node, Pair) for node in walk(tuple(nodes)))
    inside = any(inside_pair(plan, place_of(plan, node.id).body) is not None for node in nodes)
    deeper = any(isinstance(inner, Pair) for node in nodes for inner in walk(children(node)))
    if already or inside or deeper:
        raise Problem(
            "This is done on both sides already."
            if already or inside
            else "There is a pair inside these rounds.",
            do="Choose movements that are not, or take the pair apart first (U).",
        )
    if not any(step.movement in library and library[step.movement].sides == "one" for step in steps):
        raise Problem(
            "None of this is done on one side.", do="Choose a movement that has a left and a right side."
        )
    only = steps[0].side if len(steps) == 1 and steps[0].side in ("left", "right") else None

    def pair(body: Body) -> Node:
        flat = [inner for node in body for inner in (node.body if isinstance(node, Pair) else (node,))]
        cleared = tuple(
            msgspec.structs.replace(node, side=None) if isinstance(node, Step) else node for node in flat
        )
        return Pair(body=cleared, lead=only)

    return _gathered(plan, _side_by_side(plan, ids, library), pair)


def in_rounds(
    plan: Plan, ids: Iterable[str], library: Library, times: int = 2
) -> tuple[Plan, tuple[str, ...]]:
    """The chosen nodes as one group done `times` times, and the group's id.

    Raises Problem for what does not stand side by side.
    """
    nodes = _side_by_side(plan, ids, library)
    return _gathered(
        plan, nodes, lambda body: Rounds(body=body, times=times, least=1, most=max(times * 2, 4))
    )


def flowing(plan: Plan, ids: Iterable[str], library: Library) -> tuple[Plan, tuple[str, ...]]:
    """The chosen steps as a flow in rounds: one movement a phase, inhale and exhale by turns.

    A movement that is entered on a certain phase keeps it; one that would repeat the phase before takes
    the other. Raises Problem for what can't be one breath long, or whose number she keeps, and for what
    does not stand side by side.
    """
    breath: Phase = "exhale"

    def phased(node: Node) -> Node:
        nonlocal breath
        if not isinstance(node, Step) or node.movement not in library:
            return node
        breath = opposite(breath)
        return msgspec.structs.replace(node, phase=breath, amount=None, locked=False)

    nodes = _side_by_side(plan, ids, library)
    _check_flow(nodes, library)
    first = next((n for n in walk(tuple(nodes)) if isinstance(n, Step)), None)
    if first is not None and first.movement in library and library[first.movement].enter == "exhale":
        breath = "inhale"
    # On the other side in every other round, where there is a side to change: then both are led as often.
    changes = sided(nodes, library) and not any(inside_pair(plan, place_of(plan, n.id).body) for n in nodes)
    times, least = (4, 2) if changes else (3, 1)

    def flow(body: Body) -> Node:
        flat = [inner for node in body for inner in (node.body if isinstance(node, Pair) else (node,))]
        phases = tuple(phased(node) for node in flat)
        return Rounds(body=phases, times=times, least=least, most=6, alternate=changes or None)

    return _gathered(plan, nodes, flow)


def _check_flow(nodes: Body, library: Library) -> None:
    """Raises Problem for nodes that a flow can't be made of."""
    for node in nodes:
        inner = node.body if isinstance(node, Pair) else (node,)
        for one in inner:
            name = _name(one, library)
            if not isinstance(one, Step):
                what = "a block" if isinstance(one, Block) else "a group already"
                do = "Take it apart first (U), or choose only what is beside it."
                raise Problem(f"{name} is {what}, and a flow is made of single movements.", do=do)
            movement = library.get(one.movement)
            if movement is not None and not movement.behaviour.is_hold:
                raise Problem(
                    f"{name} can't be one breath long.", do="Choose only what is held, and moved through."
                )
            if one.locked:
                raise Problem(f"You keep the number of {name}.", do="Let it go first (L), or leave it out.")


def undone(plan: Plan, group: str, blocks: Blocks) -> Plan:
    """The plan with a pair, rounds or a block dissolved: what was in it stands in its place, once."""

    def inside(node: Node) -> Body:
        if node.id != group:
            return (node,)
        if isinstance(node, Block):
            inner = plan.blocks.get(node.name, blocks.get(node.name, ()))
            return tuple(bare(one) for one in with_edits_of(inner, node.edits))
        return node.body if isinstance(node, Pair | Rounds) else (node,)

    return rebuilt(plan, lambda key, body: tuple(inner for node in body for inner in inside(node)))


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
