"""Edits of a plan, as values: each has a title in the teacher's words; `apply` gives the plan after it.

What a check or a fit that failed offers is one of these, so that a window can show what it would do, do it,
and take it back. Those of a node change it where it stands (`places.rebuilt`); the others change the plan.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Literal

import msgspec

from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import Block, LineEdit, Node, Pair, Rounds, Step, Variant, walk
from yewhour.core.plan.places import Body, nodes_of, rebuilt
from yewhour.core.plan.plan import Plan, Section, own_edits, with_ids
from yewhour.core.problem import Problem


class _Titled(msgspec.Struct, frozen=True, tag=True, kw_only=True):
    """also: edits that belong to it, done after it."""

    title: str
    also: tuple["Edit", ...] = ()


class _OfNode(_Titled, frozen=True, tag=True, kw_only=True):
    """An edit of one node, by its id."""

    node: str


class Drop(_OfNode, frozen=True, tag=True):
    """Leaves a node out."""


class Unlock(_OfNode, frozen=True, tag=True):
    """Lets fit change its number again."""


class Repeat(_OfNode, frozen=True, tag=True):
    """Rounds get so many more; anything else is done again, right after."""

    more: int = 1


class Widen(_OfNode, frozen=True, tag=True):
    """It may have so much at most."""

    most: int


class PairUp(_OfNode, frozen=True, tag=True):
    """Both sides of a step that had one: the side it had leads."""


class Insert(_OfNode, frozen=True, tag=True):
    """A movement right before a node, or after it."""

    movement: str
    before: bool = False


class TakeGentler(_OfNode, frozen=True, tag=True):
    """The gentler way of a step is taught."""


class SetAmount(_OfNode, frozen=True, tag=True):
    """So much, and no less, in the unit of the step. clock: in seconds, of what is usually held by breath."""

    amount: int
    clock: bool = False


class SetMost(_OfNode, frozen=True, tag=True):
    """So much, and no more."""

    amount: int
    clock: bool = False


class Face(_OfNode, frozen=True, tag=True):
    """A step is done facing another way."""

    facing: str


class SetPace(_OfNode, frozen=True, tag=True):
    """A breath of its own for a step."""

    pace: Pace


class SlowSection(_OfNode, frozen=True, tag=True):
    """Another breath for the whole section that a node is in; steps with a quicker one of their own too."""

    pace: Pace


class SetTarget(_Titled, frozen=True, tag=True):
    """Promises another length, in seconds."""

    target_s: int


class BringProp(_Titled, frozen=True, tag=True):
    """A prop is at hand."""

    prop: str


class Forget(_Titled, frozen=True, tag=True):
    """A caution or a prop that means nothing here is taken out of the brief."""

    what: Literal["caution", "prop"]
    word: str


class Append(_Titled, frozen=True, tag=True):
    """A movement at the end, in a section of its own: before the closing one, if there is one."""

    section: str
    movement: str


class EditLines(_Titled, frozen=True, tag=True):
    """Line edits taken out and put in; a new one takes the place of the same one before.

    step: that they are about, "" for several.
    """

    step: str = ""
    unsay: tuple[LineEdit, ...] = ()
    say: tuple[LineEdit, ...] = ()


NodeEdit = (
    Drop | Unlock | Repeat | Widen | PairUp | Insert | TakeGentler | SetAmount | SetMost | Face | SetPace
)
Edit = NodeEdit | SlowSection | SetTarget | BringProp | Forget | Append | EditLines


def apply(plan: Plan, edit: Edit) -> Plan:
    """The plan after an edit, every node with an id. Raises Problem when its place is no longer there."""
    return apply_all(with_ids(_applied(plan, edit)), edit.also)


def apply_all(plan: Plan, edits: Iterable[Edit]) -> Plan:
    """The plan after several edits, in order."""
    for edit in edits:
        plan = apply(plan, edit)
    return plan


def _applied(plan: Plan, edit: Edit) -> Plan:
    match edit:
        case SetTarget():
            return with_brief(plan, target_s=float(edit.target_s))
        case BringProp():
            return with_brief(plan, props=(*plan.brief.props, edit.prop))
        case Forget():
            field = f"{edit.what}s"
            left = tuple(word for word in getattr(plan.brief, field) if word != edit.word)
            return with_brief(plan, **{field: left})
        case Append():
            return _appended(plan, edit)
        case EditLines():
            return _with_lines(plan, edit)
        case SlowSection():
            return _slowed(plan, edit)
        case _:
            return _with_node(plan, edit)


# --- of one node ------------------------------------------------------------------------------------------


def _with_node(plan: Plan, edit: NodeEdit) -> Plan:
    if edit.node not in nodes_of(plan):
        raise Problem(
            f"{edit.title!r} has no place any more: {edit.node!r} is not in the class.", do="Leave it out."
        )
    return rebuilt(
        plan,
        lambda key, body: tuple(
            after for node in body for after in (_changed(node, edit) if node.id == edit.node else (node,))
        ),
    )


def _changed(node: Node, edit: NodeEdit) -> Body:
    """What stands in a node's place after an edit of it; itself where the edit is not for its kind."""
    match edit, node:
        case Drop(), _:
            return ()
        case Unlock(), Step() | Rounds():
            return (msgspec.structs.replace(node, locked=False),)
        case Repeat(), Rounds():
            most = max(node.most or node.times, node.times) + edit.more
            return (msgspec.structs.replace(node, times=node.times + edit.more, most=most),)
        case Repeat(), _:
            return (node, bare(node))
        case Widen(), Step() | Rounds():
            return (msgspec.structs.replace(node, most=edit.most),)
        case Insert(), _:
            new = Step(movement=edit.movement)
            return (new, node) if edit.before else (node, new)
        case _, Step():
            return _changed_step(node, edit)
    return (node,)


def _changed_step(step: Step, edit: NodeEdit) -> Body:
    match edit:
        case PairUp():
            return (Pair(body=(msgspec.structs.replace(step, side=None),), lead=_lead(step)),)
        case TakeGentler():
            return (msgspec.structs.replace(step, take="gentler"),)
        case SetAmount(amount=amount):
            most = max(step.most, amount) if step.most else None
            clock = True if edit.clock else step.clock
            return (msgspec.structs.replace(step, amount=amount, least=amount, most=most, clock=clock),)
        case SetMost(amount=amount):
            least = min(step.least, amount) if step.least else None
            clock = True if edit.clock else step.clock
            return (msgspec.structs.replace(step, amount=amount, least=least, most=amount, clock=clock),)
        case Face():
            return (msgspec.structs.replace(step, facing=edit.facing),)
        case SetPace():
            return (msgspec.structs.replace(step, pace=edit.pace),)
    return (step,)


def _lead(step: Step) -> Literal["right", "left"] | None:
    return "left" if step.side == "left" else "right" if step.side == "right" else None


# --- of the whole plan --------------------------------------------------------------------------------------


def _slowed(plan: Plan, edit: SlowSection) -> Plan:
    def slower(node: Node) -> Node:
        if isinstance(node, Step) and node.pace is not None:
            quicker = node.pace.breaths_per_min > edit.pace.breaths_per_min
            return msgspec.structs.replace(node, pace=None) if quicker else node
        return node

    mine = {
        node.id
        for section in plan.sections
        if any(node.id == edit.node for node in walk(section.body))
        for node in walk(section.body)
    }
    plan = rebuilt(plan, lambda key, body: tuple(slower(node) if node.id in mine else node for node in body))
    sections = tuple(
        msgspec.structs.replace(section, pace=edit.pace, glide_to=None)
        if any(node.id == edit.node for node in walk(section.body))
        else section
        for section in plan.sections
    )
    return msgspec.structs.replace(plan, sections=sections)


def _with_lines(plan: Plan, edit: EditLines) -> Plan:
    here = nodes_of(plan)
    say = tuple(at_home(new, here) for new in edit.say)
    places = {place_of(new) for new in say if new.do != "add"}
    kept = (
        old
        for old in plan.edits
        if old not in edit.unsay and (old.do == "add" or place_of(old) not in places)
    )
    return with_edits(plan, (*kept, *say))


def at_home(edit: LineEdit, nodes: Mapping[str, Node]) -> LineEdit:
    """An edit as the node that keeps it tells it; nodes: of the plan, by their ids.

    Raises Problem when the plan has neither its step nor the block that the step is in.
    """
    if isinstance(nodes.get(edit.step), Step):  # something else may have its id now
        return msgspec.structs.replace(edit, block="")
    if isinstance(nodes.get(edit.block), Block):
        return edit
    raise Problem("The movement of this line is not in the class any more.", do="Choose another line.")


def with_edits(plan: Plan, edits: Iterable[LineEdit]) -> Plan:
    """The plan with these edits of its lines and no others, each kept by its step, or by its block.

    Raises Problem for an edit of what is not in the plan.
    """
    here = nodes_of(plan)
    kept: dict[str, list[LineEdit]] = {}
    for edit in edits:
        edit = at_home(edit, here)
        bare_edit = msgspec.structs.replace(edit, block="", step=edit.step if edit.block else "")
        kept.setdefault(edit.block or edit.step, []).append(bare_edit)

    def mine(node: Node) -> Node:
        if not isinstance(node, Step | Block):
            return node
        own = tuple(kept.get(node.id, ()))
        return node if own == node.edits else msgspec.structs.replace(node, edits=own)

    return rebuilt(plan, lambda key, body: tuple(map(mine, body)))


def with_edits_of(nodes: Body, edits: Sequence[LineEdit]) -> Body:
    """Nodes of a block with what was done to their lines where the block was put in."""

    def mine(node: Node) -> Node:
        if isinstance(node, Step):
            own = tuple(msgspec.structs.replace(edit, step="") for edit in edits if edit.step == node.id)
            return msgspec.structs.replace(node, edits=(*node.edits, *own)) if own else node
        if isinstance(node, Block):  # what is in it is said in it
            return msgspec.structs.replace(node, edits=(*node.edits, *edits))
        return with_body(node, mine)

    return tuple(map(mine, nodes)) if edits else nodes


def words_gone(before: Plan, after: Plan) -> tuple[str, ...]:
    """Her own words that went with a movement, or a block, that is gone or another one now."""
    here = nodes_of(after)
    left = {edit.text for edit in after.edits}

    def same(node: Node) -> bool:
        now = here.get(node.id)
        return now is not None and getattr(now, "movement", "") == getattr(node, "movement", "")

    gone = (edit for node in nodes_of(before).values() if not same(node) for edit in own_edits(node))
    return tuple(edit.text for edit in gone if edit.text and edit.text not in left)


def place_of(edit: LineEdit) -> tuple[str, str, str, int, str]:
    """Which line an edit is about."""
    return edit.block, edit.step, edit.purpose, edit.number, edit.side


def with_brief(plan: Plan, **fields: object) -> Plan:
    """The plan with fields of its brief replaced."""
    return msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, **fields))


def _appended(plan: Plan, edit: Append) -> Plan:
    role = edit.section.lower()
    section = Section(title=edit.section, role=role, body=(Step(movement=edit.movement),))
    at = next((n for n, s in enumerate(plan.sections) if s.role == "close"), len(plan.sections))
    if role == "close":
        at = len(plan.sections)
    return msgspec.structs.replace(plan, sections=(*plan.sections[:at], section, *plan.sections[at:]))


def bare(node: Node) -> Node:
    """A copy of a node and what is in it, without ids, to be put in somewhere else."""
    return with_body(msgspec.structs.replace(node, id=""), bare)


def with_body(node: Node, change: Callable[[Node], Node]) -> Node:
    """A node with each of those directly inside it changed."""
    if isinstance(node, Pair | Rounds):
        return msgspec.structs.replace(node, body=tuple(map(change, node.body)))
    if isinstance(node, Variant):
        ways = {name: tuple(map(change, way)) for name, way in node.ways.items()}
        return msgspec.structs.replace(node, ways=ways)
    return node
