"""Sound: what a plan must be before anything is worked out with it. Its bounds are far beyond any class.

A number that nobody could mean (a million breaths, a rate of nothing) is told with its place; it is never
worked with, as the time and memory it would take know no bounds either.
"""

import math
from collections.abc import Iterable, Iterator, Sequence

import msgspec

from yewhour.core.lengths import LONGEST_S
from yewhour.core.pace import Pace, check_pace
from yewhour.core.plan import own_shares
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    LineEdit,
    Node,
    Pair,
    Rounds,
    Step,
    Variant,
    walk,
)
from yewhour.core.plan.plan import ROLES, Plan
from yewhour.core.plan.school import School
from yewhour.core.problem import Problem, told_kind
from yewhour.core.purpose import PURPOSES

MOST_TURNS = 4500  # uses of steps, every round counted; four hours of a flow have some 3,800
MOST_DEEP = 40  # groups in groups
Bounds = tuple[float, float]
BEGINNINGS = ("standing", "sitting", "kneeling", "lying", "floor")
SIDES, FACINGS, MATS = (
    ("right", "left"),
    ("front", "side", "back", "left", "right", "near"),
    ("front", "back"),
)

# What each number may be, in the unit of its name.
BRIEF: dict[str, Bounds] = {
    "target_s": (1, LONGEST_S),
    "tolerance_s": (0, LONGEST_S),
    "pace_gives": (0, 50),
    "voice_rate": (0.25, 4),
}
STEP: dict[str, Bounds] = {
    "amount": (1, LONGEST_S),
    "least": (1, LONGEST_S),
    "most": (1, LONGEST_S),
    "count_s": (0.2, 60),
    "weight": (0.001, 1000),
    "countdown": (0, 1000),
    "teach": (0, 600),
    "from_round": (1, 1000),
}
GROUP: dict[str, Bounds] = {"from_round": (1, 1000)}
ROUNDS: dict[str, Bounds] = {
    "times": (1, 1000),
    "least": (1, 1000),
    "most": (1, 1000),
    "teach": (0, 20),
    "from_round": (1, 1000),
}
SCHOOL: dict[str, Bounds] = {
    "talk": (0, 1),
    "teaching": (0, 5),
    "moving": (0.5, 3),
    "least_rest": (0, 1),
    "count_s": (0.2, 60),
}


def validate_plan(plan: Plan, blocks: Blocks) -> None:
    """Raises Problem (what, where, what to do) for the first number that can't be meant."""
    _within(plan.brief, BRIEF, "the promise")
    _one_of("facing", plan.brief.facing, FACINGS, "the promise")
    _one_of("beginning", plan.brief.begins, BEGINNINGS, "the promise")
    if plan.brief.pace is not None:
        check_pace(plan.brief.pace, "the promise, pace")
    _check_own(plan.brief.own)
    for section in plan.sections:
        where = f"section {section.title!r}"
        _one_of("role", section.role, ROLES, where)
        _one_of("end of the mat", section.mat, MATS, where)
        if section.pace is not None:
            check_pace(section.pace, f"{where}, pace")
        if section.glide_to is not None:
            check_pace(Pace(section.glide_to), f"{where}, glide")
        _check_depth(section.body, where)
        for node in walk(section.body):
            _check_node(node, where)
    for name, body in plan.blocks.items():
        _check_depth(body, f"block {name!r}")
        for node in walk(body):
            _check_node(node, f"block {name!r}")
    for edit in plan.edits:
        _check_edit(edit)
    every = {**blocks, **plan.blocks}
    uses = sum(_turns(section.body, every, ()) for section in plan.sections)
    if uses > MOST_TURNS:
        raise Problem(
            f"Its steps come {uses} times in this class, every round counted; {MOST_TURNS} is the most.",
            "the rounds",
            "Use fewer rounds, or a lower most for them.",
        )


def _check_own(shares: own_shares.OwnShares) -> None:
    for name, share in shares.items():
        if name.partition(" ")[0] not in own_shares.WHATS:
            raise Problem(
                f"There are no seconds of her own called {name!r}.",
                "the promise, own",
                f"They begin with one of: {', '.join(own_shares.WHATS)}.",
            )
        if not (math.isfinite(share) and own_shares.LEAST <= share <= own_shares.MOST):
            raise Problem(
                f"Her own {name} can't be {_shown(share)} times as long as usual.",
                "the promise, own",
                f"Use a number from {own_shares.LEAST:g} to {own_shares.MOST:g}.",
            )


def validate_school(school: School) -> None:
    """Raises Problem for a way of the school's that can't be meant."""
    _within(school, SCHOOL, "the promise, ways")


def _within(value: object, bounds: dict[str, Bounds], where: str) -> None:
    for name, (low, high) in bounds.items():
        number = getattr(value, name)
        if number is not None and not (math.isfinite(number) and low <= number <= high):
            shown = name.removesuffix("_s").replace("_", " ")
            raise Problem(
                f"The {shown} can't be {_shown(number)}.",
                where,
                f"Use a number from {low:g} to {high:g}.",
            )


def _one_of(what: str, word: str, known: Sequence[str], where: str) -> None:
    if word and word not in known:
        raise Problem(f"There is no {what} {word!r}.", where, f"Use one of: {', '.join(known)}.")


def _shown(number: float) -> str:
    return f"{number:g}" if isinstance(number, float) or abs(number) < 10**9 else "a number that long"


def _check_node(node: Node, where: str) -> None:
    if isinstance(node, Step):
        _check_step(node, f"{where}, {node.movement}")
    elif isinstance(node, Pair):
        _one_of("lead", node.lead or "", SIDES, f"{where}, a pair")
        _within(node, GROUP, f"{where}, a pair")
    elif isinstance(node, Variant | Block):
        _within(node, GROUP, f"{where}, {'a variant' if isinstance(node, Variant) else node.name}")
    elif isinstance(node, Rounds):
        _within(node, ROUNDS, f"{where}, rounds")
        if not (node.least or node.times) <= node.times <= (node.most or node.times):
            raise Problem(
                f"A group has its rounds out of order: least {node.least}, preferred {node.times}, "
                f"most {node.most}.",
                where,
                "Write least, preferred, most in order.",
            )


def _check_step(step: Step, where: str) -> None:
    _within(step, STEP, where)
    _one_of("side", step.side or "", SIDES, where)
    _one_of("facing", step.facing, FACINGS, where)
    _one_of("end of the mat", step.mat, MATS, where)
    if step.pace is not None:
        check_pace(step.pace, f"{where}, pace")
    if step.pattern is not None:
        check_pace(Pace(ratio=step.pattern), f"{where}, pattern")
    given = [number for number in (step.least, step.amount, step.most) if number is not None]
    if given != sorted(given):
        raise Problem(
            f"{step.movement} has a least, preferred and most out of order: {given}.",
            where,
            "Write them as least, preferred, most.",
        )
    if step.second is not None:
        more = step.second.more
        if abs(more) > LONGEST_S:
            raise Problem(f"The sides can't differ by {_shown(more)}.", where, "Use a smaller difference.")
        fixed = step.amount if step.locked else step.most
        if fixed is not None and fixed + more < 1:
            raise Problem(
                f"The second side of {step.movement} can't be {-more} fewer than {fixed}.",
                where,
                "Leave it out there, or take fewer away.",
            )


def _check_edit(edit: LineEdit) -> None:
    where = f"the teacher's line {(edit.text or edit.was)[:40]!r}"
    if edit.purpose not in PURPOSES:
        known = ", ".join(PURPOSES)
        raise Problem(f"There is no purpose {edit.purpose!r}.", where, f"The purposes are: {known}.")
    if not (math.isfinite(edit.at_s) and abs(edit.at_s) <= LONGEST_S):
        raise Problem(f"{edit.at_s:g} can't be a moment of a class.", where, "Move the line again.")


def _check_depth(nodes: Iterable[Node], where: str) -> None:
    level: list[Node] = list(nodes)
    for _ in range(MOST_DEEP):
        level = [inner for node in level for inner in _inside(node)]
        if not level:
            return
    raise Problem(f"Groups stand in groups more than {MOST_DEEP} deep.", where, "Take some of them apart.")


def _inside(node: Node) -> Iterator[Node]:
    if isinstance(node, Pair | Rounds):
        yield from node.body
    elif isinstance(node, Variant):
        for way in node.ways.values():
            yield from way


def _turns(nodes: tuple[Node, ...], blocks: Blocks, inside: tuple[str, ...]) -> int:
    """The most uses of steps there can be; a block that holds itself is found elsewhere."""
    total = 0
    for node in nodes:
        if isinstance(node, Step):
            total += 1
        elif isinstance(node, Pair):
            total += 2 * _turns(node.body, blocks, inside)
        elif isinstance(node, Rounds):
            total += max(node.times, node.most or 0) * _turns(node.body, blocks, inside)
        elif isinstance(node, Variant):
            total += max((_turns(way, blocks, inside) for way in node.ways.values()), default=0)
        elif isinstance(node, Block) and node.name not in inside:
            total += _turns(blocks.get(node.name, ()), blocks, (*inside, node.name))
    return total


def validate_types(plan: Plan) -> Plan:
    """The same plan. Raises Problem for a value of a kind its field can't have, as its file would."""
    try:
        return msgspec.convert(msgspec.to_builtins(plan), Plan)
    except (msgspec.ValidationError, OverflowError) as error:
        raise Problem(
            f"A value can't be what it is: {told_kind(error)}.", "", "See docs/outline.md."
        ) from error
