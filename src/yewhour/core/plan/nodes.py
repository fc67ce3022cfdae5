"""The nodes of a plan: steps, and the pairs, rounds, variants and blocks they stand in.

Values only, never changed in place. `extra` holds what a newer or another program wrote into the file and
we don't know; it goes back out as it came in.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Literal

import msgspec

from yewhour.core.pace import Pace, Phase
from yewhour.core.sides import Side

Level = Literal["gentler", "base", "stronger"]
Done = Literal["held", "pulsed", "repeated", "counted"]
EditKind = Literal["rewrite", "mute", "pin", "move", "add"]


class PlanPart(msgspec.Struct, frozen=True, omit_defaults=True, kw_only=True):
    """What every part of a plan has: fields of the file that we don't know, kept."""

    extra: dict[str, Any] = {}


class SideDifference(PlanPart, frozen=True):
    """How the second side is meant to differ: so much more or less, or left out; and why."""

    more: int = 0
    leave_out: bool = False
    why: str = ""


class LineEdit(PlanPart, frozen=True):
    """What the teacher did to one line of the script. It is kept by its step, and goes wherever that goes.

    purpose and number say which line: the number counts the step's lines of that purpose. side is the side
    it was done on ("" for no side); both: the other side has it mirrored. at_s: seconds from the start of the
    segment, for a line that is pinned, moved or added. was: the line before, for a reader.

    step: its id, and block the node it was put in by, where an edit stands by itself (see `Plan.edits`). In a
    step neither is written; in a block that the library has, and the class only names, the step is.
    """

    purpose: str
    do: EditKind
    step: str = ""
    block: str = ""
    number: int = 0
    side: str = ""
    both: bool = False
    text: str = ""
    was: str = ""
    at_s: float = 0.0


class Step(PlanPart, frozen=True, tag_field="is", tag="step"):
    """One use of a movement, with what it overrides. Amounts are in the unit of the movement's kind.

    clock: what is held by breath, or repeated, goes by the clock instead. done: it is held, pulsed, repeated
    or counted, whatever its movement usually is; a step like that after one of the same movement is its next
    stage. or_stay: who does not go on to it stays in what was before, and all go on together after it.
    pattern: the counts of inhale, full hold, exhale and empty hold of a breathing practice. teach: seconds it
    is taught in, after the way to it; None leaves it to the class. carded: what its card has to say is said;
    else nothing but her own words, the ways and what is minded. edits: what she did to its lines.
    """

    movement: str
    id: str = ""
    amount: int | None = None
    least: int | None = None
    most: int | None = None
    locked: bool = False
    phase: Phase | None = None
    clock: bool | None = None
    done: Done | None = None
    or_stay: bool = False
    pattern: tuple[float, float, float, float] | None = None
    side: Side | None = None
    pace: Pace | None = None
    count_s: float | None = None
    weight: float | None = None
    take: Level = "base"
    offer: bool = True
    carded: bool = True
    halves: bool = False
    countdown: int = 0
    teach: int | None = None
    from_round: int = 1
    second: SideDifference | None = None
    facing: str = ""
    mat: str = ""
    lines: dict[str, list[str]] = {}
    edits: tuple[LineEdit, ...] = ()


class Pair(PlanPart, frozen=True, tag_field="is", tag="pair"):
    """Steps done on the lead side, then again mirrored."""

    body: tuple[Node, ...]
    id: str = ""
    lead: Side | None = None
    from_round: int = 1


class Rounds(PlanPart, frozen=True, tag_field="is", tag="rounds"):
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


class Variant(PlanPart, frozen=True, tag_field="is", tag="variant"):
    """The same place in the class as different lineages do it; one of them is chosen."""

    ways: dict[str, tuple[Node, ...]]
    chosen: str
    id: str = ""
    from_round: int = 1


class Block(PlanPart, frozen=True, tag_field="is", tag="block"):
    """A reusable block (an opening, a closing), inserted by its name; edits: of the lines of its steps."""

    name: str
    id: str = ""
    from_round: int = 1
    edits: tuple[LineEdit, ...] = ()


Node = Step | Pair | Rounds | Variant | Block
Blocks = dict[str, tuple[Node, ...]]


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
