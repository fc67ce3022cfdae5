"""Edits of a plan: each takes a plan and gives a new one, and has a name in the teacher's words."""

from collections.abc import Callable, Iterable
from typing import Literal

import msgspec

from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Rounds,
    Step,
    Variant,
    walk,
)
from yewhour.core.plan.plan import (
    LineEdit,
    Plan,
    Section,
    with_ids,
)
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
    "most",
    "line",
    "lines",
    "bring",
    "face",
    "pace",
    "slow",
]


class Edit(msgspec.Struct, frozen=True):
    """One edit, as a value: what to do, to which node, with what; `title` is how it is called.

    amount: in the unit of the step; seconds for a target. text: a prop, a facing, or a line of `purpose`.
    unsay and say: line edits to take out and put in. also: edits that belong to it.
    """

    deed: Deed
    node: str
    title: str
    movement: str = ""
    amount: int = 0
    clock: bool = False  # the amount is in seconds, of what is usually held by breath
    text: str = ""
    purpose: str = ""
    pace: Pace | None = None
    unsay: tuple[LineEdit, ...] = ()
    say: tuple[LineEdit, ...] = ()
    also: tuple["Edit", ...] = ()


def apply(plan: Plan, edit: Edit) -> Plan:
    """The plan after an edit, every node with an id. Raises Problem when its place is no longer there."""
    return apply_all(_applied(plan, edit), edit.also)


def _applied(plan: Plan, edit: Edit) -> Plan:
    if edit.deed in _WHOLE and not (edit.deed == "face" and edit.node):
        return with_ids(_WHOLE[edit.deed](plan, edit))
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
    most = max(node.most, edit.amount) if node.most else None
    clock = True if edit.clock else node.clock
    return (msgspec.structs.replace(node, amount=edit.amount, least=edit.amount, most=most, clock=clock),)


def _most(node: Node, edit: Edit) -> tuple[Node, ...]:
    """So much at most."""
    if not isinstance(node, Step):
        return (node,)
    least = min(node.least, edit.amount) if node.least else None
    clock = True if edit.clock else node.clock
    return (msgspec.structs.replace(node, amount=edit.amount, least=least, most=edit.amount, clock=clock),)


def _line(node: Node, edit: Edit) -> tuple[Node, ...]:
    """One more line of a purpose for this use of the movement."""
    if not isinstance(node, Step):
        return (node,)
    lines = {**node.lines, edit.purpose: [*node.lines.get(edit.purpose, []), edit.text]}
    return (msgspec.structs.replace(node, lines=lines),)


def _face(node: Node, edit: Edit) -> tuple[Node, ...]:
    return (msgspec.structs.replace(node, facing=edit.text),) if isinstance(node, Step) else (node,)


def _pace(node: Node, edit: Edit) -> tuple[Node, ...]:
    if not isinstance(node, Step):
        return (node,)
    return (msgspec.structs.replace(node, pace=edit.pace),)


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
    "most": _most,
    "line": _line,
    "face": _face,
    "pace": _pace,
}


# --- edits of the whole plan --------------------------------------------------------------------------------


def _target(plan: Plan, edit: Edit) -> Plan:
    return with_brief(plan, target_s=float(edit.amount))


def _bring(plan: Plan, edit: Edit) -> Plan:
    return with_brief(plan, props=(*plan.brief.props, edit.text))


def _faced(plan: Plan, edit: Edit) -> Plan:
    return with_brief(plan, facing=edit.text)


def _slow(plan: Plan, edit: Edit) -> Plan:
    """Another breath for the whole section that the node is in; steps with a quicker one of their own too."""
    assert edit.pace is not None
    pace = edit.pace

    def each(node: Node) -> tuple[Node, ...]:
        if isinstance(node, Step) and node.pace and node.pace.breaths_per_min > pace.breaths_per_min:
            node = msgspec.structs.replace(node, pace=None)
        return (_inside(node, each),)

    sections = tuple(
        msgspec.structs.replace(section, pace=pace, glide_to=None, body=_each(section.body, each))
        if any(node.id == edit.node for node in walk(section.body))
        else section
        for section in plan.sections
    )
    return msgspec.structs.replace(plan, sections=sections)


def _lines(plan: Plan, edit: Edit) -> Plan:
    """Line edits taken out and put in; a new one takes the place of the same one before."""
    places = {place_of(new) for new in edit.say if new.do != "add"}
    kept = (
        old
        for old in plan.edits
        if old not in edit.unsay and (old.do == "add" or place_of(old) not in places)
    )
    return msgspec.structs.replace(plan, edits=(*kept, *edit.say))


def place_of(edit: LineEdit) -> tuple[str, str, int, str]:
    """Which line an edit is about."""
    return edit.step, edit.purpose, edit.number, edit.side


def with_brief(plan: Plan, **fields: object) -> Plan:
    """The plan with fields of its brief replaced."""
    return msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, **fields))


def _appended(plan: Plan, edit: Edit) -> Plan:
    """A movement at the end: in its own section, before the closing one if there is one."""
    section = Section(title=edit.node, role=edit.node.lower(), body=(Step(movement=edit.movement),))
    at = next((n for n, s in enumerate(plan.sections) if s.role == "close"), len(plan.sections))
    if edit.node.lower() == "close":
        at = len(plan.sections)
    return msgspec.structs.replace(plan, sections=(*plan.sections[:at], section, *plan.sections[at:]))


_WHOLE: dict[str, Callable[[Plan, Edit], Plan]] = {
    "target": _target,
    "append": _appended,
    "lines": _lines,
    "bring": _bring,
    "face": _faced,
    "slow": _slow,
}


def bare(node: Node) -> Node:
    """A copy of a node and what is in it, without ids, to be put in somewhere else."""
    node = msgspec.structs.replace(node, id="")
    return _inside(node, lambda inner: (bare(inner),))
