"""Edits of a plan: each takes a plan and gives a new one, and has a name in the teacher's words."""

from collections.abc import Callable, Iterable
from typing import Literal

import msgspec

from yewhour.core.plan import Node, Pair, Plan, Rounds, Section, Step, Variant, with_ids
from yewhour.core.problem import Problem

Deed = Literal[
    "drop",
    "unlock",
    "repeat",
    "widen",
    "pair",
    "insert before",
    "insert after",
    "target",
    "take",
    "append",
    "amount",
]


class Edit(msgspec.Struct, frozen=True):
    """One edit, as a value: what to do, to which node, with what; `title` is how it is called."""

    deed: Deed
    node: str
    title: str
    movement: str = ""
    amount: int = 0


def apply(plan: Plan, edit: Edit) -> Plan:
    """The plan after an edit, every node with an id. Raises Problem when its place is no longer there."""
    if edit.deed == "target":
        return msgspec.structs.replace(
            plan, brief=msgspec.structs.replace(plan.brief, target_s=float(edit.amount))
        )
    if edit.deed == "append":
        return with_ids(_appended(plan, edit))
    found = False

    def changed(node: Node) -> tuple[Node, ...]:
        nonlocal found
        if node.id != edit.node:
            return (_inside(node, changed),)
        found = True
        return _DEEDS[edit.deed](node, edit)

    sections = tuple(
        msgspec.structs.replace(section, body=_each(section.body, changed)) for section in plan.sections
    )
    blocks = {name: _each(body, changed) for name, body in plan.blocks.items()}
    if not found:
        raise Problem(
            f"{edit.title!r} has no place any more: {edit.node!r} is not in the class.", do="Leave it out."
        )
    return with_ids(msgspec.structs.replace(plan, sections=sections, blocks=blocks))


def apply_all(plan: Plan, edits: Iterable[Edit]) -> Plan:
    """The plan after several edits, in order."""
    for edit in edits:
        plan = apply(plan, edit)
    return plan


def _each(body: tuple[Node, ...], changed: Callable[[Node], tuple[Node, ...]]) -> tuple[Node, ...]:
    return tuple(after for node in body for after in changed(node))


def _inside(node: Node, changed: Callable[[Node], tuple[Node, ...]]) -> Node:
    if isinstance(node, Pair | Rounds):
        return msgspec.structs.replace(node, body=_each(node.body, changed))
    if isinstance(node, Variant):
        return msgspec.structs.replace(
            node, ways={name: _each(way, changed) for name, way in node.ways.items()}
        )
    return node


def _drop(node: Node, edit: Edit) -> tuple[Node, ...]:
    return ()


def _unlock(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (msgspec.structs.replace(node, locked=False),) if isinstance(node, Step | Rounds) else (node,)


def _repeat(node: Node, edit: Edit) -> tuple[Node, ...]:
    """Rounds get one more (two where sides change); anything else is done again."""
    if isinstance(node, Rounds):
        more = edit.amount or 1
        most = max(node.most or node.times, node.times) + more
        return (msgspec.structs.replace(node, times=node.times + more, most=most),)
    return (node, bare(node))


def _widen(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (msgspec.structs.replace(node, most=edit.amount),) if isinstance(node, Step | Rounds) else (node,)


def _pair(node: Node, edit: Edit) -> tuple[Node, ...]:
    """Both sides of a step that had one: the side it had leads."""
    if isinstance(node, Step):
        return (Pair(body=(msgspec.structs.replace(node, side=None),), lead=_lead(node)),)
    return (node,)


def _lead(step: Step) -> Literal["right", "left"] | None:
    return "left" if step.side == "left" else "right" if step.side == "right" else None


def _before(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (Step(movement=edit.movement, amount=edit.amount or None), node)


def _after(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (node, Step(movement=edit.movement, amount=edit.amount or None))


def _take(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (msgspec.structs.replace(node, take="gentler"),) if isinstance(node, Step) else (node,)


def _amount(node: Node, edit: Edit) -> tuple[Node, ...]:
    """So much, and no less."""
    if not isinstance(node, Step):
        return (node,)
    return (msgspec.structs.replace(node, amount=edit.amount, least=edit.amount),)


_DEEDS: dict[str, Callable[[Node, Edit], tuple[Node, ...]]] = {
    "drop": _drop,
    "unlock": _unlock,
    "repeat": _repeat,
    "widen": _widen,
    "pair": _pair,
    "insert before": _before,
    "insert after": _after,
    "take": _take,
    "amount": _amount,
}


def _appended(plan: Plan, edit: Edit) -> Plan:
    """A movement at the end: in its own section, before the closing one if there is one."""
    section = Section(title=edit.node, role=edit.node.lower(), body=(Step(movement=edit.movement),))
    at = next((n for n, s in enumerate(plan.sections) if s.role == "close"), len(plan.sections))
    if edit.node.lower() == "close":
        at = len(plan.sections)
    return msgspec.structs.replace(plan, sections=(*plan.sections[:at], section, *plan.sections[at:]))


def bare(node: Node) -> Node:
    """A copy of a node and what is in it, without ids, to be put in somewhere else."""
    node = msgspec.structs.replace(node, id="")
    return _inside(node, lambda inner: (bare(inner),))
