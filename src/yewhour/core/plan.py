"""The plan of a class: brief, sections, and the steps, pairs, rounds, variants and blocks in them.

Values only, never changed in place: an edit makes a new plan. `extra` holds what a newer or another
program wrote into the file and we don't know; it goes back out as it came in.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import count
from typing import Any, Literal

import msgspec

from yewhour.core.pace import Pace, Phase
from yewhour.core.sides import Side

Level = Literal["gentler", "base", "stronger"]
ROLES = ("arrive", "warm", "build", "peak", "settle", "rest", "close")


class Value(msgspec.Struct, frozen=True, omit_defaults=True, kw_only=True):
    """What every part of a plan has: fields of the file that we don't know, kept."""

    extra: dict[str, Any] = {}


class Difference(Value, frozen=True):
    """How the second side is meant to differ: so much more or less, or left out; and why."""

    more: int = 0
    leave_out: bool = False
    why: str = ""


class Step(Value, frozen=True, tag_field="is", tag="step"):
    """One use of a movement, with what it overrides. Amounts are in the unit of the movement's kind."""

    movement: str
    id: str = ""
    amount: int | None = None
    least: int | None = None
    most: int | None = None
    locked: bool = False
    phase: Phase | None = None
    clock: bool | None = None
    side: Side | None = None
    pace: Pace | None = None
    count_s: float | None = None
    weight: float | None = None
    take: Level = "base"
    offer: bool = True
    halves: bool = False
    countdown: int = 0
    from_round: int = 1
    second: Difference | None = None
    facing: str = ""
    mat: str = ""
    lines: dict[str, list[str]] = {}


class Pair(Value, frozen=True, tag_field="is", tag="pair"):
    """Steps done on the lead side, then again mirrored."""

    body: tuple[Node, ...]
    id: str = ""
    lead: Side | None = None
    from_round: int = 1


class Rounds(Value, frozen=True, tag_field="is", tag="rounds"):
    """Steps repeated. `times` is preferred; fit may choose from `least` to `most`.

    alternate: the lead side changes every round; None leaves it to the school. teach: in the first
    round every one-phase step takes this many breaths, to be taught; 0 for not at all.
    """

    body: tuple[Node, ...]
    id: str = ""
    times: int = 1
    least: int | None = None
    most: int | None = None
    locked: bool = False
    alternate: bool | None = None
    teach: int = 0
    from_round: int = 1


class Variant(Value, frozen=True, tag_field="is", tag="variant"):
    """The same place in the class as different lineages do it; one of them is chosen."""

    ways: dict[str, tuple[Node, ...]]
    chosen: str
    id: str = ""
    from_round: int = 1


class Block(Value, frozen=True, tag_field="is", tag="block"):
    """A reusable block (an opening, a closing), inserted by its name."""

    name: str
    id: str = ""
    from_round: int = 1


Node = Step | Pair | Rounds | Variant | Block
Blocks = dict[str, tuple[Node, ...]]


class Section(Value, frozen=True):
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


class Brief(Value, frozen=True):
    """The promise. `ways` overrides single values of the style's school."""

    title: str = "New class"
    target_s: float = 1200.0
    tolerance_s: float = 0.0
    style: str = "hatha"
    level: str = "mixed"
    focus: tuple[str, ...] = ()
    time_of_day: str = ""
    audience: str = ""
    reason: str = ""
    cautions: tuple[str, ...] = ()
    props: tuple[str, ...] = ()
    facing: str = "front"
    target_counts: Literal["recording", "practice"] = "recording"
    lineage: str = ""
    pace: Pace | None = None
    pace_gives: float = 0.0
    voice_rate: float = 1.0
    ways: dict[str, Any] = {}


class LineEdit(Value, frozen=True):
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


class Plan(Value, frozen=True):
    """A class: the brief and its sections, the blocks it carries with it, and the teacher's own lines."""

    brief: Brief = Brief()
    sections: tuple[Section, ...] = ()
    blocks: dict[str, tuple[Node, ...]] = {}
    edits: tuple[LineEdit, ...] = ()


def children(node: Node) -> tuple[Node, ...]:
    """The nodes directly inside a node; a variant's are those of every way."""
    if isinstance(node, Pair | Rounds):
        return node.body
    if isinstance(node, Variant):
        return tuple(inner for way in node.ways.values() for inner in way)
    return ()


def walk(nodes: tuple[Node, ...]) -> Iterator[Node]:
    """Every node at any depth, in order."""
    for node in nodes:
        yield node
        yield from walk(children(node))


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
