"""The plan of a class: its brief, its sections, and the teacher's own lines. An edit makes a new plan."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import count
from typing import Any, Literal

import msgspec

from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import (
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
    ways it could be told. said: her own words for a caution, an area, a group: tag -> words.
    """

    title: str = "New class"
    target_s: float = 1200.0
    tolerance_s: float = 0.0
    style: str = "hatha"
    level: str = "mixed"
    focus: tuple[str, ...] = ()
    time_of_day: str = ""
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


class LineEdit(PlanPart, frozen=True):
    """What the teacher did to one line of the script: it lives on its step, whatever the class is fitted to.

    step, purpose and number say which line: the number counts the step's lines of that purpose. side is
    the side it was done on ("" for no side); both: the other side has it mirrored. at_s: seconds from the
    start of the segment, for a line that is pinned, moved or added. was: the line before, for a reader.
    """

    step: str
    purpose: str
    do: Literal["rewrite", "mute", "pin", "move", "add"]
    number: int = 0
    side: str = ""
    both: bool = False
    text: str = ""
    was: str = ""
    at_s: float = 0.0


class Plan(PlanPart, frozen=True):
    """A class: the brief and its sections, the blocks it carries with it, and the teacher's own lines."""

    brief: Brief = Brief()
    sections: tuple[Section, ...] = ()
    blocks: dict[str, tuple[Node, ...]] = msgspec.field(default_factory=dict)
    edits: tuple[LineEdit, ...] = ()


def steps_of(plan: Plan) -> Iterator[Step]:
    """Every step of the plan, blocks included."""
    bodies = [section.body for section in plan.sections] + list(plan.blocks.values())
    for body in bodies:
        for node in walk(body):
            if isinstance(node, Step):
                yield node


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
