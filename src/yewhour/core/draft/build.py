"""The parts of a draft filled one after the other, and put together as a plan."""

import zlib
from collections.abc import Mapping, Sequence
from typing import TypeVar

import msgspec

from yewhour.core.draft.about import focus_of, goes_with
from yewhour.core.draft.candidate_pool import (
    CandidatePool,
    PoolItem,
    beside,
    fits_base,
    order_of,
    steps_in,
    style_of,
    suits,
)
from yewhour.core.draft.draft_model import (
    BREATHS,
    MORE_THAN_LEAST,
    DraftModel,
    DraftPart,
    DraftRequest,
    DraftRoute,
    DraftStyle,
    DraftWeights,
    PeakSteps,
)
from yewhour.core.draft.peak import PREPARED, Peak, chosen_peak, with_peak
from yewhour.core.draft.route_beginning import openings_for, place_after
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
)
from yewhour.core.plan.plan import Plan
from yewhour.core.plan.school import school_of
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData

T = TypeVar("T")
SizedPart = tuple[DraftPart, float]
SCARCE = 0.6  # of the working time
LONG_ENOUGH = 2.2  # times the least that a long shape lasts: both sides of one fit into a part
OF_EACH, EACH_S = 1, 900.0  # movements that must come for each of several areas; for so many seconds one more
HARDEST, GROUP_S = 2, 1200.0  # of a group asked for; and for so many seconds one of it more
FIRST_THIRD = 0.34


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
    brief = ask.brief
    weights, style = model.weights, style_of(ask, model, route)
    short = brief.target_s < weights.short_s
    rest_s = _rest_s(ask, style, weights, teaching_data)
    room_s = work_room_s(ask, style, weights, rest_s) * scale
    parts = sized_parts(route, pool, brief.target_s, room_s, style, weights)
    positions = ask.room(teaching_data, model).positions(teaching_data.positions)
    judge = MovementJudge(
        ask,
        weights,
        positions,
        focus_of(ask),
        next_to=goes_with(ask, pool, route, model),
        order=order_of(style, teaching_data),
        beside=beside(style),
        keen=keen,
        few=style.few,
        blocks=frozenset(one.id for one in pool.items.values() if one.movement is None),
        liked=ask.room(teaching_data, model).liked,
        kin=model.kin_of(),
        grows=model.grows,
        grown=model.grown_of(),
        groups=frozenset(one for one in brief.wanted if one not in pool.items),
        scarce=_scarce(focus_of(ask), pool),
    )
    peak = chosen_peak(parts, pool, judge, model.peaks)
    opening = _opening(route, ask, teaching_data, model, short)
    came = SearchState(here=_after(opening, teaching_data), used=_named(opening, teaching_data))
    if peak is not None:
        judge = msgspec.structs.replace(judge, ahead=peak.item.areas | judge.focus, kept=frozenset(peak.kept))
    wanted = _wanted(parts, pool, judge, peak, style, ask, room_s, model.peaks)
    found: list[tuple[DraftPart, tuple[PoolItem, ...]]] = []
    worth = most = 0.0
    for part, part_s in parts:
        own = wanted.get(part.title, frozenset())
        asked = msgspec.structs.replace(judge, wanted=own)
        items = items_for(part, pool, asked)
        of_peak = peak is not None and part.title == peak.part
        room = max(20.0, part_s - peak.costs) if peak is not None and of_peak else part_s
        path = fill_part(items, part, asked, came, room)
        came, done = path.came, path.items
        if peak is not None and (of_peak or (found and found[-1][0].title == peak.part)):
            done, came = with_peak(done, peak, of_peak, came, judge)
        found.append((part, done))
        worth, most = worth + path.worth, most + worth_bound(items, part, asked, part_s)
    if peak is not None and parts and parts[-1][0].title == peak.part and peak.after:
        found[-1] = (found[-1][0], (*found[-1][1], *peak.after))
    if not any(items for _, items in found):
        raise Problem("Not one movement is left for it.", "draft")
    plan = draft_plan(ask, style, opening, found, rest_s, teaching_data, model)
    focus = came.focused_s / came.worked_s if brief.focus and came.worked_s else 1.0
    return BuiltPlan(plan, tuple(found), judge, worth, most, focus)


def _rest_s(
    ask: DraftRequest, style: DraftStyle, weights: DraftWeights, teaching_data: TeachingData
) -> float:
    """Seconds of the final rest, 0 for none."""
    target_s, least = ask.brief.target_s, school_of(ask.brief, teaching_data.schools).least_rest
    if target_s < weights.short_s or not style.rest:
        return 0.0
    if style.rests:
        return style.rests * target_s
    shortest = 60.0 if least and target_s >= weights.brief_s else 45.0
    return max(shortest, (MORE_THAN_LEAST * least or 0.08) * target_s)


def work_room_s(ask: DraftRequest, style: DraftStyle, weights: DraftWeights, rest_s: float) -> float:
    """Seconds that are left for the parts of a class."""
    target_s = ask.brief.target_s
    framed_s = weights.opening_s + weights.closing_s
    if target_s < weights.brief_s:
        framed_s *= target_s / weights.brief_s
    return target_s - (25 if target_s < weights.short_s else framed_s) - style.opens - rest_s


def sized_parts(
    route: DraftRoute,
    pool: CandidatePool,
    target_s: float,
    room_s: float,
    style: DraftStyle,
    weights: DraftWeights,
) -> list[SizedPart]:
    """The parts of a route with their seconds, without those that would be too short or have nothing."""
    parts = [part for part in route.parts if part.is_of(target_s) and supply_s(part, pool)]
    while parts:
        shares = sum(part.share for part in parts)
        sized = [(part, room_s * part.share / shares) for part in parts]
        least = max(weights.least_part_s, LONG_ENOUGH * style.few)
        if len(parts) == 1 or all(part_s >= least for _, part_s in sized):
            return _spread(sized, pool)
        gone = min(parts, key=lambda part: (part.must, weights.dropped.index(part.role), part.share))
        parts.remove(gone)
    return []


def supply_s(part: DraftPart, pool: CandidatePool) -> float:
    """Seconds of all that could stand in a part."""
    return sum(one.costs for one in pool.suited(part))


def _spread(sized: list[SizedPart], pool: CandidatePool) -> list[SizedPart]:
    """The parts with their seconds, what one has nothing for given to those that have."""
    most = [min(part_s, 0.8 * supply_s(part, pool)) for part, part_s in sized]
    missing = sum(part_s for _, part_s in sized) - sum(most)
    if missing < 30:
        return sized
    spare = [max(0.0, 0.8 * supply_s(part, pool) - own) for (part, _), own in zip(sized, most, strict=True)]
    share = min(1.0, missing / max(1.0, sum(spare)))
    return [(part, own + share * more) for (part, _), own, more in zip(sized, most, spare, strict=True)]


def _wanted(
    parts: Sequence[SizedPart],
    pool: CandidatePool,
    judge: MovementJudge,
    peak: Peak | None,
    style: DraftStyle,
    ask: DraftRequest,
    room_s: float,
    steps: Mapping[str, PeakSteps],
) -> dict[str, frozenset[str]]:
    """What must come in each part, by its title: what was asked for, a use of each prop early and again, what
    prepares the peak, what begins an order."""
    found: dict[str, frozenset[str]] = {}

    def put(title: str, *names: str) -> None:
        found[title] = found.get(title, frozenset()) | frozenset(names)

    names = list(ask.brief.wanted)
    if peak is None and ask.brief.peak:  # it stands in a tradition's order, and what grows into it does
        named = pool.items.get(ask.brief.peak)
        names += [
            ask.brief.peak,
            *steps.get(ask.brief.peak, PeakSteps()).stages,
            *(named.prepared_by[:1] if named else ()),
        ]
    rounds = [pool.items[one] for part, _ in parts if part.must for one in part.blocks if one in pool.items]
    come = {group for one in rounds for group in one.groups}
    for group in (one for one in ask.brief.wanted if one not in pool.items and one not in come):
        of_it = [one for one in pool.items.values() if group in one.groups and one.movement is not None]
        members = [
            one
            for one in of_it
            if any(
                fits_base(one, part.bases) >= 0
                and one.effort <= part.effort[1]
                and _cold(part, one.effort) < COLDEST
                for part, _ in parts
            )
        ] or [one for one in of_it if any(fits_base(one, part.bases) >= 0 for part, _ in parts)]
        members.sort(key=lambda one: -judge.luck(one))
        hardest = sorted(members, key=lambda one: -one.effort)[:HARDEST]  # or it is only hinted at
        count = judge.weights.wanted_group + int(ask.brief.target_s // GROUP_S)
        names += [*dict.fromkeys(one.id for one in (*hardest, *members))][:count]
    if len(judge.focus) > 1:  # of several areas none is forgotten
        for area in sorted(judge.focus):
            names += _of_area(area, parts, pool, judge)[: OF_EACH + int(ask.brief.target_s // EACH_S)]
    about = [item for item in pool.items.values() if item.areas & judge.focus and item.movement is not None]
    if sum(item.costs for item in about) <= SCARCE * room_s:  # so little that none of it may be left out
        names += [item.id for item in sorted(about, key=lambda one: -judge.luck(one))]
    for item in (pool.items[name] for name in names if name in pool.items and name not in style.rest):
        able = [part for part, _ in parts if fits_base(item, part.bases) >= 0]
        fitting = [part for part in able if part.effort[0] <= item.effort <= part.effort[1]] or able
        if fitting:  # what is rest stands where a class lets go
            eased = item.effort == 0
            breath = item.family in BREATHS
            cold = {
                part.title: (
                    breath and part.about != "breath",
                    breath and len(found.get(part.title, ())),
                    _cold(part, item.effort),
                    eased and not breath and part.about != "ease",
                )
                for part in fitting
            }
            put(min(cold, key=cold.__getitem__), item.id)
    for title, handy in _handy(parts, pool, judge, room_s).items():
        put(title, *handy)
    for part, _ in parts:
        if part.about == "order":
            put(part.title, *style.begin)
    if peak is not None:
        before = parts[: next((n for n, (part, _) in enumerate(parts) if part.title == peak.part), 0) + 1]
        ready = [one for one in peak.prepares if one.id not in peak.kept]
        placed = 0
        for item in ready:
            able = [part for part, _ in before if suits(item, part, pool.order)]
            if able and placed < PREPARED:
                put(able[-1].title, item.id)
                placed += 1
    return found


def _scarce(focus: frozenset[str], pool: CandidatePool) -> dict[str, float]:
    """How much rarer than the commonest each of several areas is in a pool; {} where there is one."""
    if len(focus) < 2:
        return {}
    there = {area: sum(area in one.areas for one in pool.items.values()) for area in focus}
    most = max(there.values())
    return {area: min(SCARCEST, max(1.0, most / number)) for area, number in there.items() if number}


def _of_area(area: str, parts: Sequence[SizedPart], pool: CandidatePool, judge: MovementJudge) -> list[str]:
    """What may come for one of several areas, the likeliest first."""
    there = {
        one.id: one
        for part, _ in parts
        if part.about != "order"
        for one in pool.suited(part)
        if area in one.areas
    }
    return sorted(there, key=lambda name: -judge.luck(there[name]))


SCARCEST = 3.0  # how much more an area that little is about counts beside one that much is about
BESIDE = 0.3  # of a class may be taken by what uses a prop, and is not about what the class is about
COLDEST = 2  # of what is asked for by its group, none begins a class


def _cold(part: DraftPart, effort: int) -> int:
    """How little a part is for something of an effort: what is asked of a cold body is small."""
    return ("ease", "warm").index(part.about) + 1 if effort > 1 and part.about in ("ease", "warm") else 0


def _handy(
    parts: Sequence[SizedPart], pool: CandidatePool, judge: MovementJudge, room_s: float
) -> dict[str, frozenset[str]]:
    """A movement for each prop at hand in the first third and one later, for two props of many, by part."""
    found: dict[str, frozenset[str]] = {}
    taken: set[str] = set()
    seed = judge.ask.seed
    props = sorted(judge.ask.brief.props, key=lambda prop: zlib.crc32(f"{seed}/{prop}".encode()))
    early_s = FIRST_THIRD * room_s
    for prop in props[: judge.weights.props_used]:
        begun_s, able = 0.0, []
        for part, part_s in parts:
            for item in items_for(part, pool, judge):
                about = not judge.focus or judge.about(item)
                beside = not about and item.costs > BESIDE * room_s  # it would be the class
                if prop in item.props and item.costs < part_s and item.id not in taken and not beside:
                    able.append((begun_s < early_s, about, judge.alone(item, part), item.id, part.title))
            begun_s += part_s
        for early in (True, False):
            row = max((one for one in able if one[0] == early and one[3] not in taken), default=None)
            if row is not None:
                taken.add(row[3])
                found[row[4]] = found.get(row[4], frozenset()) | {row[3]}
    return found


def items_for(part: DraftPart, pool: CandidatePool, judge: MovementJudge) -> list[PoolItem]:
    """The items that may stand in a part. A class has one peak, and what was asked for has its place."""
    asked = {judge.ask.brief.peak, *judge.wanted} & pool.items.keys()
    blocks = [pool.items[name] for name in part.blocks if name in pool.items]
    quiet = part.about in (
        "warm",
        "ease",
    )  # nothing hard that was asked for stands where a class warms or settles
    wished = [
        item
        for item in (pool.items[name] for name in asked)
        if fits_base(item, part.bases) >= 0 and (not quiet or item.effort <= 1 or item.id in judge.wanted)
    ]
    suited = [one for one in pool.suited(part) if judge.order or one.id in asked or "peak" not in one.marks]
    found = {one.id: one for one in (*blocks, *suited, *wished)}
    return [one for name, one in found.items() if name not in judge.kept]


def _opening(
    route: DraftRoute, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel, short: bool
) -> Node:
    """An opening that asks nobody who is minded for what is not for them; a welcome alone where none does."""
    room = ask.room(teaching_data, model)
    asked = openings_for(route, ask.brief.begins, teaching_data) or openings_for(route, "", teaching_data)
    known = [
        name
        for name in asked
        if not any(
            room.met(movement) or room.left_out(movement)
            for step in steps_in(teaching_data.blocks[name])
            for movement in (teaching_data.library[step.movement],)
        )
    ]
    if (short and not route.opens) or not known:  # where one is led through the body that is the class
        return Step(movement="welcome-short" if short else "welcome")
    return Block(name=picked(known, ask.seed, "opening"))


def _named(opening: Node, teaching_data: TeachingData) -> frozenset[str]:
    """The movements of an opening: they are not new when they come again."""
    return frozenset(step.movement for step in steps_in(_nodes(opening, teaching_data)))


def _nodes(opening: Node, teaching_data: TeachingData) -> tuple[Node, ...]:
    return teaching_data.blocks.get(opening.name, ()) if isinstance(opening, Block) else (opening,)


def _after(opening: Node, teaching_data: TeachingData) -> str:
    """Where an opening leaves the body."""
    return place_after(_nodes(opening, teaching_data), teaching_data)


def picked(options: Sequence[T], seed: int, what: str) -> T:
    """One of them by the seed, the same on any machine."""
    return options[zlib.crc32(f"{seed}/{what}".encode()) % len(options)]
