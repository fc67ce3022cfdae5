"""The plan of a class: its brief, its sections and its blocks. An edit makes a new plan."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import count
from typing import Any, Literal

import msgspec

from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    LineEdit,
    Node,
    Pair,
    PlanPart,
    Rounds,
    Step,
    Variant,
    walk,
)

ROLES = ("arrive", "warm", "build", "peak", "settle", "rest", "close")


class Section(PlanPart, frozen=True):
    """A titled run of steps. `pace` replaces the brief's here; `glide_to` is the pace at its end.

    priority: 0 must stay in every cut of the class; higher numbers are left out first.
    """

    title: str
    body: tuple[Node, ...] = ()
    role: str = ""
    pace: Pace | None = None
    glide_to: float | None = None
    mat: str = ""
    priority: int = 0


class Brief(PlanPart, frozen=True):
    """The promise. `ways` overrides single values of the style's school; `own`: shares of her own.

    without: groups of movements, and movements, that the class does without. wanted: movements it was asked
    to have; peak: the one it goes to. reason: why it is given; shape: it in a sentence, "" for the one that
    is made; theme: what is said of it in the welcome, in the middle and at the end; telling: which of the
    ways it could be told. begins: where the body begins, "" for where its style has it. said: her own words
    for a caution, an area, a group: tag -> words.
    """

    title: str = "New class"
    target_s: float = 1200.0
    tolerance_s: float = 0.0
    style: str = "hatha"
    level: str = "mixed"
    focus: tuple[str, ...] = ()
    time_of_day: str = ""
    begins: str = ""
    audience: str = ""
    reason: str = ""
    shape: str = ""
    theme: tuple[str, ...] = ()
    telling: int = 0
    cautions: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    wanted: tuple[str, ...] = ()
    peak: str = ""
    props: tuple[str, ...] = ()
    facing: str = "front"
    target_counts: Literal["recording", "practice"] = "recording"
    lineage: str = ""
    pace: Pace | None = None
    pace_gives: float = 0.0
    voice_rate: float = 1.0
    ways: dict[str, Any] = msgspec.field(default_factory=dict)
    own: dict[str, float] = msgspec.field(default_factory=dict)
    said: dict[str, str] = msgspec.field(default_factory=dict)


class Plan(PlanPart, frozen=True):
    """A class: the brief and its sections, and the blocks it carries with it."""

    brief: Brief = Brief()
    sections: tuple[Section, ...] = ()
    blocks: dict[str, tuple[Node, ...]] = msgspec.field(default_factory=dict)

    @property
    def edits(self) -> tuple[LineEdit, ...]:
        """What the teacher did to the lines, each with the id of its step, in the order of the class."""
        return tuple(edit for node in nodes_in(self) for edit in own_edits(node))


def nodes_in(plan: Plan) -> Iterator[Node]:
    """Every node of the plan at any depth, those of its blocks too."""
    for body in (*(section.body for section in plan.sections), *plan.blocks.values()):
        yield from walk(body)


def own_edits(node: Node) -> tuple[LineEdit, ...]:
    """What the teacher did to the lines of a node, each with the id of its step and of its block."""
    if isinstance(node, Step) and node.edits:
        return tuple(msgspec.structs.replace(edit, step=node.id, block="") for edit in node.edits)
    if isinstance(node, Block) and node.edits:
        return tuple(msgspec.structs.replace(edit, block=node.id) for edit in node.edits)
    return ()


def steps_of(plan: Plan) -> Iterator[Step]:
    """Every step of the plan, blocks included."""
    return (node for node in nodes_in(plan) if isinstance(node, Step))


def with_ids(plan: Plan, prefix: str = "n") -> Plan:
    """The plan with an id of its own on every node; of two nodes with one id the first keeps it.

    A plan with `prefix` given anew gets new ids throughout, so that they are no other plan's.
    """
    bodies = [*(section.body for section in plan.sections), *plan.blocks.values()]
    taken = {node.id for body in bodies for node in walk(body)}
    used: set[str] = set()
    fresh = (name for name in (f"{prefix}{number}" for number in count(1)) if name not in taken)

    def named(node: Node) -> Node:
        if not node.id or node.id in used or not (prefix == "n" or node.id.startswith(prefix)):
            node = msgspec.structs.replace(node, id=next(fresh))
        used.add(node.id)
        if isinstance(node, Pair | Rounds):
            return msgspec.structs.replace(node, body=tuple(named(n) for n in node.body))
        if isinstance(node, Variant):
            ways = {name: tuple(named(n) for n in way) for name, way in node.ways.items()}
            return msgspec.structs.replace(node, ways=ways)
        return node

    sections = tuple(
        msgspec.structs.replace(section, body=tuple(named(n) for n in section.body))
        for section in plan.sections
    )
    blocks = {name: tuple(named(n) for n in body) for name, body in plan.blocks.items()}
    return msgspec.structs.replace(plan, sections=sections, blocks=blocks)


def movements_of(plan: Plan, sections: Iterable[Section]) -> frozenset[str]:
    """The movements of sections, and the names of the blocks in them."""
    found = set[str]()
    for section in sections:
        for node in walk(section.body):
            if isinstance(node, Step):
                found.add(node.movement)
            elif isinstance(node, Block):
                found.add(node.name)
    return frozenset(found)


def steps_in_order(plan: Plan, section: Section, blocks: Blocks) -> Iterator[Step]:
    """The steps of a section as they come, those of its blocks too."""
    for node in walk(section.body):
        if isinstance(node, Step):
            yield node
        elif isinstance(node, Block):
            inner = plan.blocks.get(node.name) or blocks.get(node.name, ())
            yield from (one for one in walk(inner) if isinstance(one, Step))
