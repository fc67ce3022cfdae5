"""The parts of a draft filled one after the other, and put together as a plan."""

import zlib
from collections.abc import Sequence
from typing import TypeVar

import msgspec

from yewhour.core.draft.candidate_pool import (
    CandidatePool,
    PoolItem,
    beside,
    fits_base,
    order_of,
    steps_in,
)
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftPart,
    DraftRequest,
    DraftRoute,
    DraftStyle,
    DraftWeights,
)
from yewhour.core.draft.search import (
    MovementJudge,
    SearchState,
    fill_part,
    worth_bound,
)
from yewhour.core.draft.to_plan import draft_plan
from yewhour.core.plan.nodes import (
    Block,
    Node,
    Step,
    walk,
)
from yewhour.core.plan.plan import Plan
from yewhour.core.plan.school import school_of
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData

T = TypeVar("T")


class BuiltPlan(msgspec.Struct, frozen=True):
    """A plan as it was put together, with the items of its parts, and how good the search was."""

    plan: Plan
    parts: tuple[tuple[DraftPart, tuple[PoolItem, ...]], ...]
    judge: MovementJudge
    worth: float
    bound: float
    focus: float


def build_plan(
    ask: DraftRequest,
    pool: CandidatePool,
    teaching_data: TeachingData,
    model: DraftModel,
    route: DraftRoute,
    scale: float,
    keen: float,
) -> BuiltPlan:
    """The parts of a route, filled. scale: of the room there seems to be; keen: of the focus."""
    brief, school = ask.brief, school_of(ask.brief, teaching_data.schools)
    weights, style = model.weights, model.styles[ask.brief.style]
    short = brief.target_s < weights.short_s
    rest_s = 0.0 if short or not style.rest else max(60.0, 1.25 * school.least_rest * brief.target_s)
    if not short and style.rest and not school.least_rest:
        rest_s = max(45.0, 0.08 * brief.target_s)
    room_s = (brief.target_s - (25 if short else weights.opening_s + weights.closing_s) - rest_s) * scale
    parts = _parts(route, brief.target_s, room_s, style, weights)
    judge = MovementJudge(
        ask,
        weights,
        teaching_data.positions,
        frozenset(brief.focus),
        order=order_of(style, teaching_data),
        beside=beside(style),
        keen=keen,
        few=style.few,
        blocks=frozenset(one.id for one in pool.items.values() if one.movement is None),
    )
    peak = _peak(parts, pool, judge)
    name = "" if short else _opening(route, ask, teaching_data)
    opening: Node = Block(name=name) if name else Step(movement="welcome-short")
    came = SearchState(here=_after(opening, teaching_data), used=_named(opening, teaching_data))
    if peak is not None:
        wanted = frozenset(peak.prepared_by) & pool.items.keys()
        first = sorted(wanted, key=lambda one: -judge.luck(pool.items[one]))[:1]
        judge = msgspec.structs.replace(judge, ahead=peak.areas | judge.focus, wanted=frozenset(first))
    found: list[tuple[DraftPart, tuple[PoolItem, ...]]] = []
    worth = most = 0.0
    handy = _handy(parts, pool, judge)
    for part, part_s in parts:
        asked = judge
        own = handy.get(part.title, frozenset())
        if part.about == "peak" and peak is not None:
            asked = msgspec.structs.replace(judge, wanted=frozenset({peak.id}))
        elif part.about == "ease" and peak is not None:
            after = frozenset(peak.neutralised_by) & pool.items.keys()
            asked = msgspec.structs.replace(judge, wanted=frozenset(sorted(after)[:1]))
        elif part.about == "order":
            asked = msgspec.structs.replace(judge, wanted=frozenset(style.begin))
        asked = msgspec.structs.replace(asked, wanted=asked.wanted | own)
        items = items_for(part, pool, asked)
        path = fill_part(items, part, asked, came, part_s)
        found.append((part, path.items))
        came, worth, most = path.came, worth + path.worth, most + worth_bound(items, part, asked, part_s)
    if not any(items for _, items in found):
        raise Problem("Not one movement is left for it.", "draft")
    plan = draft_plan(ask, style, opening, found, rest_s, teaching_data)
    focus = came.focused_s / came.worked_s if brief.focus and came.worked_s else 1.0
    return BuiltPlan(plan, tuple(found), judge, worth, most, focus)


def _parts(
    route: DraftRoute, target_s: float, room_s: float, style: DraftStyle, weights: DraftWeights
) -> list[tuple[DraftPart, float]]:
    """The parts of a route with their seconds; those that would be too short are left out."""
    parts = [part for part in route.parts if target_s >= part.least]
    while True:
        shares = sum(part.share for part in parts)
        sized = [(part, room_s * part.share / shares) for part in parts]
        least = max(weights.least_part_s, 0.75 * style.few)
        if len(parts) == 1 or all(part_s >= least for _, part_s in sized):
            return sized
        gone = min(parts, key=lambda part: (weights.dropped.index(part.role), part.share))
        parts.remove(gone)


def _handy(
    parts: Sequence[tuple[DraftPart, float]], pool: CandidatePool, judge: MovementJudge
) -> dict[str, frozenset[str]]:
    """A movement for each prop at hand, or for two of many, by the title of the part it may stand in."""
    found: dict[str, frozenset[str]] = {}
    seed = judge.ask.seed
    props = sorted(judge.ask.brief.props, key=lambda prop: zlib.crc32(f"{seed}/{prop}".encode()))
    for prop in props[: judge.weights.props_used]:
        able = [
            (judge.alone(item, part), item.id, part.title)
            for part, part_s in parts
            for item in items_for(part, pool, judge)
            if prop in item.props and item.costs < part_s
        ]
        if able:
            _, name, title = max(able)
            found[title] = found.get(title, frozenset()) | {name}
    return found


def _peak(
    parts: Sequence[tuple[DraftPart, float]], pool: CandidatePool, judge: MovementJudge
) -> PoolItem | None:
    """The highest point of a class: it is chosen first, as other parts look to it."""
    part = next((one for one, _ in parts if one.about == "peak"), None)
    if part is None:
        return None
    ready = [
        item
        for item in items_for(part, pool, judge)
        if not item.prepared_by or "peak" not in item.marks or set(item.prepared_by) & pool.items.keys()
    ]
    return max(ready, key=lambda item: (judge.fits(item, part), item.id), default=None)


def items_for(part: DraftPart, pool: CandidatePool, judge: MovementJudge) -> list[PoolItem]:
    """The items that may stand in a part."""
    low, high = part.effort
    found = []
    for item in pool.items.values():
        if item.movement is None:
            if item.id in part.blocks:
                found.append(item)
            continue
        breath = item.family in ("breath-practices", "breathing")
        if breath != (part.about == "breath") and not (breath and part.about == "warm" and item.effort == 0):
            continue
        if part.about == "warm" and item.effort > 1 and "warming" not in item.marks:
            continue  # what is asked of a cold body is small
        ordered = not judge.order or part.about != "order" or item.id in judge.order
        if ordered and low <= item.effort <= high and fits_base(item, part.bases) >= 0:
            found.append(item)
    return found


def _opening(route: DraftRoute, ask: DraftRequest, teaching_data: TeachingData) -> str:
    """An opening in which nobody who is minded is asked what is not for them; "" where there is none."""
    minded = set(ask.brief.cautions)
    known = [
        name
        for name in route.opening
        if name in teaching_data.blocks
        and not any(
            minded & set(teaching_data.library[step.movement].cautions)
            for step in steps_in(teaching_data.blocks[name])
        )
    ]
    return picked(known, ask.seed, "opening") if known else ""


def _named(opening: Node, teaching_data: TeachingData) -> frozenset[str]:
    """The movements of an opening: they are not new when they come again."""
    return frozenset(step.movement for step in steps_in(_nodes(opening, teaching_data)))


def _nodes(opening: Node, teaching_data: TeachingData) -> tuple[Node, ...]:
    return teaching_data.blocks.get(opening.name, ()) if isinstance(opening, Block) else (opening,)


def _after(opening: Node, teaching_data: TeachingData) -> str:
    """Where an opening leaves the body."""
    here = "start"
    for node in walk(_nodes(opening, teaching_data)):
        if isinstance(node, Step) and (need := teaching_data.library[node.movement].start):
            here = teaching_data.positions.way(here, need).end
    return here


def picked(options: Sequence[T], seed: int, what: str) -> T:
    """One of them by the seed, the same on any machine."""
    return options[zlib.crc32(f"{seed}/{what}".encode()) % len(options)]
