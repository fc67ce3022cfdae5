"""Several cuts of one class, and a pace that gives."""

import msgspec

from yewhour.core.lengths import show_length, ticks
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Drop, Edit, apply_all
from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Step,
    walk,
)
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.timing.doses import AmountRange, amount_range, kind_of
from yewhour.core.timing.step_use import uses_with_rounds


def span_of(solved: SolvedPlan, step: Step) -> AmountRange:
    """The numbers a step may have."""
    movement = solved.teaching_data.library[step.movement]
    return amount_range(step, movement, kind_of(step, movement, solved.prepared.school))


def name_of(node: Node, solved: SolvedPlan) -> str:
    """What a node is called: its first movement, and how many others are in it."""
    library = solved.teaching_data.library
    steps = [n for n in walk((node,)) if isinstance(n, Step)]
    names = [library[n.movement].name if n.movement in library else n.movement for n in steps]
    if not names:
        return "the block"
    rest = f" and {len(names) - 1} other{'s' if len(names) > 2 else ''}" if len(names) > 1 else ""
    sides = ", both sides" if isinstance(node, Pair) else ""
    return f"{names[0]}{rest}{sides}"


class Cut(msgspec.Struct, frozen=True):
    """One cut: its plan, the length, and what was left out (titles)."""

    plan: Plan
    length_s: float
    left_out: tuple[str, ...]


KEPT_ROLES = frozenset({"arrive", "rest", "close"})


def cut(plan: Plan, solved: SolvedPlan, length_s: float) -> Cut:
    """The class at a length, whole parts left out by priority until it fits best.

    Opening, rest, closing, both sides of every pair, and what neutralises a deep backbend that stays are
    kept. Sections with a higher priority number go first, then single parts of building sections, the
    shortest least missed. Raises CannotFit when no cut has the length.
    """
    order = leave_out_order(solved)
    best: tuple[float, Cut] | None = None
    for number in range(_first_short_enough(plan, solved, order, length_s), len(order) + 1):
        left = order[:number]
        try:
            smaller = apply_all(plan, left)
            timed = solve(smaller, solved.teaching_data, stage=solved.stage)
            choice = timed.fit.at(ticks(length_s))
        except Problem:
            continue
        # A part left out costs a fixed amount, so that one is not dropped for a breath's sake.
        cost = choice.cost + 0.35 * number
        if best is None or cost < best[0]:
            titles = tuple(edit.title.removeprefix("Leave out ") for edit in left)
            best = (cost, Cut(smaller, length_s, titles))
        elif cost > best[0] + 3:
            break
    if best is None:
        raise CannotFit(
            f"No cut of this class lasts {show_length(length_s)}.",
            solved.shortest_s,
            solved.longest_s,
            "Give more parts a priority, or ask for another length.",
        )
    return best[1]


def _first_short_enough(plan: Plan, solved: SolvedPlan, order: list[Edit], length_s: float) -> int:
    """How many parts must go before the class can be so short at all, searched by halves."""
    low, high = 0, len(order)
    while low < high:
        middle = (low + high) // 2
        try:
            smaller = solve(apply_all(plan, order[:middle]), solved.teaching_data, stage=solved.stage)
            enough = smaller.shortest_s <= length_s
        except Problem:
            enough = False
        low, high = (low, middle) if enough else (middle + 1, high)
    return low


def leave_out_order(solved: SolvedPlan) -> list[Edit]:
    """The parts that may be left out, first to go first."""
    parts: list[tuple[tuple[int, float], Edit]] = []
    turns_by_node = [solved.turns_of(i) for i in range(len(solved.unfolded.nodes))]
    backbend = any("deep backbend" in t.movement.marks for uses in turns_by_node for t in uses)
    for index, (section_index, node) in enumerate(solved.unfolded.nodes):
        section, uses = solved.plan.sections[section_index], turns_by_node[index]
        marks = {mark for use in uses for mark in use.movement.marks}
        kept = section.role in KEPT_ROLES or marks & {"final rest", "returning", "welcome", "farewell"}
        if kept or not uses or (backbend and marks & {"neutralising", "deep backbend"}):
            continue
        length = sum(t.fixed + t.unit * span_of(solved, t.step).preferred for t in uses)
        late = {"warm": 1, "build": 2, "settle": 1, "peak": 0}.get(section.role, 2)
        edit = Drop(node=node.id, title=f"Leave out {name_of(node, solved)}")
        parts.append(((-section.priority * 10 - late, length), edit))
    parts.sort(key=lambda part: part[0])
    return [edit for _, edit in parts][: max(0, len(parts) - 2)]


def with_given_pace(solved: SolvedPlan, length_s: float, steps: int = 8) -> SolvedPlan:
    """The plan as it is, or at a slightly other pace where its brief lets the pace give and that costs less.

    The pace may change by `pace_gives` percent. It is tried only when whole numbers alone cost anything;
    its own cost is that of one step of ordinary weight for each breath-led step.
    """
    gives = solved.plan.brief.pace_gives
    best, least = solved, solved.fit.cost(ticks(length_s))
    if gives <= 0 or least <= 1e-9:
        return solved
    rounds = solved.fit.at(solved.fit.preferred).rounds
    held = sum(use.behaviour.is_hold for use in uses_with_rounds(solved.uses, rounds, solved.unfolded.groups))
    for number in range(1, steps + 1):
        for sign in (1, -1):
            share = sign * gives / 100 * number / steps
            pace = solved.prepared.school.pace
            pace = msgspec.structs.replace(pace, breaths_per_min=pace.breaths_per_min * (1 + share))
            brief = msgspec.structs.replace(solved.plan.brief, pace=pace)
            tried = solve(msgspec.structs.replace(solved.plan, brief=brief), solved.teaching_data)
            cost = tried.fit.cost(ticks(length_s)) + held * share * share
            if cost < least - 1e-9:
                best, least = tried, cost
    return best
