"""A draft: a whole class from its promise, fitted exactly, that passes the checks; or the reason why not."""

import math
import zlib
from collections.abc import Iterator, Sequence
from typing import TypeVar

import msgspec

from yewhour.core.draft.candidate_pool import (
    CandidatePool,
    PoolItem,
    beside,
    fits_base,
    order_of,
    pool_of,
    steps_in,
)
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftPart,
    DraftRequest,
    DraftRoute,
    DraftStyle,
)
from yewhour.core.draft.repair import about_focus, above, repair
from yewhour.core.draft.search import (
    MovementJudge,
    SearchState,
    fill_part,
    worth_bound,
)
from yewhour.core.draft.to_plan import draft_plan
from yewhour.core.finding import Finding
from yewhour.core.lengths import LONGEST_S, show_length
from yewhour.core.pipeline import solve
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
from yewhour.core.timed_class import TimedClass

T = TypeVar("T")
SHORT_S = 540.0  # a class so short welcomes in a line, and has no rest of its own
LEAST_PART_S = 45.0
TRIES, SCALED = 4, 3
KEENER = (1.3, 1.6, 2.0, 3.0)  # how much more the focus counts, where it was too little of a class
FOCUSED = 0.545  # of what is chosen is about the focus, so that half of it is when it is fitted
FIRST = 1.1  # how much more is chosen at first than there seems room for: ways and flows take less
NEAR = (0.86, 1.05)  # of the length: where a class may be by itself, before it is fitted
DROPPED = ("peak", "settle", "warm", "build")  # what a short class does without, first to last
OPENING_S, CLOSING_S = 55.0, 60.0
HANDY = 2  # props at hand that a class looks for a use of: who has a shelf full of them uses two


class DraftChoice(msgspec.Struct, frozen=True):
    """Why a movement is there: its step, the part it is in, and what speaks for it, as codes and words."""

    step: str
    movement: str
    part: str
    reasons: tuple[tuple[str, str], ...]


class Draft(msgspec.Struct, frozen=True):
    """A drafted class. turned_down: movements that might have been there, and why they are not.

    worth, bound: what the search found, and more than which there can't be.
    """

    plan: Plan
    timed: TimedClass
    choices: tuple[DraftChoice, ...]
    turned_down: dict[str, tuple[str, str]]
    worth: float
    bound: float


def draft_class(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> Draft:
    """A class that keeps a promise. Raises Problem, with what to change, where none can."""
    _check(ask, teaching_data, model)
    pool = pool_of(ask, teaching_data, model)
    _check_focus(ask, pool, model)
    best: tuple[int, Draft] | None = None
    trouble: Problem | None = None
    for number in range(TRIES):
        tried = msgspec.structs.replace(ask, seed=ask.seed * 31 + number) if number else ask
        try:
            found = _one(tried, pool, teaching_data, model, number)
        except Problem as problem:
            trouble = trouble or problem
            continue
        wrong = len(above(found.timed.findings))
        if best is None or wrong < best[0]:
            best = (wrong, found)
        if not wrong:
            break
    if best is None or best[0]:
        raise _refused(ask, pool, trouble, best[1].timed.findings if best else ())
    return best[1]


def _check(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> None:
    brief = ask.brief
    school_of(brief, teaching_data.schools)  # raises for a style that is not there
    if brief.style not in model.styles:
        raise Problem(f"No class of style {brief.style!r} can be drafted.", "draft", "Choose another style.")
    style = model.styles[brief.style]
    if style.needs and style.needs not in brief.props:
        raise Problem(
            f"A class of this style needs a {style.needs}, and none is at hand.", "draft, props",
            f"Put a {style.needs} at hand, or choose another style.",
        )  # fmt: skip
    if brief.target_s > LONGEST_S:
        raise Problem("A class of more than four hours can't be drafted.", "draft", "Ask for a shorter one.")
    if brief.target_s < 180:
        asked = brief.target_s
        meant = f"; {asked:.0f} minutes are written {asked:.0f}:00" if asked >= 4 else ""
        raise Problem(
            f"A class of {show_length(asked)}, less than three minutes, can't be drafted.", "draft",
            f"Ask for four minutes or more{meant}.",
        )  # fmt: skip


def _check_focus(ask: DraftRequest, pool: CandidatePool, model: DraftModel) -> None:
    """Raises Problem where far too little of a style is about the focus, however it is chosen."""
    focus, style = frozenset(ask.brief.focus), model.styles[ask.brief.style]
    if not focus:
        return
    about = [item for item in pool.items.values() if item.areas & focus]
    seconds = sum(item.lasts for item in about) * (2.0 if style.few else 1.6)
    needed = 0.2 * ask.brief.target_s
    if seconds < needed:
        areas, number = " and ".join(ask.brief.focus), len(about)
        what = f"Only {number} movements of this style that all can do are about {areas}"
        do = "Choose another focus or style, a shorter class, or mind fewer cautions."
        raise Problem(what + "; half of the work can't be.", "draft, focus", do)


def _refused(
    ask: DraftRequest, pool: CandidatePool, trouble: Problem | None, findings: Sequence[Finding]
) -> Problem:
    """Why there is no class, and what to change."""
    down: dict[str, int] = {}
    for code, word in pool.turned_down.values():
        if code in ("caution", "prop"):
            down[f"{code} {word}"] = down.get(f"{code} {word}", 0) + 1
    most = sorted(down.items(), key=lambda row: -row[1])[:3]
    messages = [f"{count} for want of a {name[5:]}" if name.startswith("prop") else
            f"{count} for the caution {name[8:]}" for name, count in most]  # fmt: skip
    left = f"{len(pool.items)} movements are left"
    reason = f"{left}; {', '.join(messages)} were left out" if messages else left
    what = "No class keeps this promise"
    detail = findings[0].message if findings else trouble.what if trouble is not None else ""
    if trouble is not None and trouble.where in ("draft, focus", "draft, length"):
        return trouble
    do = "Ask for another length or style, fewer cautions, more props, or another focus."
    return Problem(f"{what}: {reason}. {detail}".strip(), "draft", do)


# --- one try --------------------------------------------------------------------------------------------


def _one(
    ask: DraftRequest, pool: CandidatePool, teaching_data: TeachingData, model: DraftModel, number: int
) -> Draft:
    style = model.styles[ask.brief.style]
    route = _picked(style.routes, ask.seed + number, "route")
    scale, built, keen = FIRST, None, 1.0
    for _ in range(SCALED + len(KEENER)):
        built = _built(ask, pool, teaching_data, style, route, scale, keen)
        if built.focus < FOCUSED and keen < KEENER[-1]:
            keen = next(one for one in KEENER if one > keen)
            continue
        solved = solve(built.plan, teaching_data)
        share = solved.preferred_s / solved.promised_s
        if NEAR[0] / math.sqrt(style.stretch) <= share <= NEAR[1]:
            break
        scale *= min(1.6, max(0.6, 1.0 / share))
    assert built is not None
    plan, timed = repair(built.plan, teaching_data, pool)
    about = about_focus(timed, ask.brief)
    if about < 0.5:
        areas = " and ".join(ask.brief.focus)
        what = f"Only {about:.0%} of the work could be about {areas}."
        raise Problem(what, "draft, focus", "Choose another focus, or another style.")
    return Draft(
        plan, timed, _choices(plan, built), pool.turned_down, round(built.worth, 2), round(built.bound, 2)
    )


def _picked(options: Sequence[T], seed: int, what: str) -> T:
    return options[zlib.crc32(f"{seed}/{what}".encode()) % len(options)]


class BuiltPlan(msgspec.Struct, frozen=True):
    """A plan as it was put together, with the items of its parts, and how good the search was."""

    plan: Plan
    parts: tuple[tuple[DraftPart, tuple[PoolItem, ...]], ...]
    judge: MovementJudge
    worth: float
    bound: float
    focus: float


def _built(
    ask: DraftRequest,
    pool: CandidatePool,
    teaching_data: TeachingData,
    style: DraftStyle,
    route: DraftRoute,
    scale: float,
    keen: float,
) -> BuiltPlan:
    brief, school = ask.brief, school_of(ask.brief, teaching_data.schools)
    short = brief.target_s < SHORT_S
    rest_s = 0.0 if short or not style.rest else max(60.0, 1.25 * school.least_rest * brief.target_s)
    if not short and style.rest and not school.least_rest:
        rest_s = max(45.0, 0.08 * brief.target_s)
    room_s = (brief.target_s - (25 if short else OPENING_S + CLOSING_S) - rest_s) * scale
    parts = _parts(route, brief.target_s, room_s, style)
    judge = MovementJudge(
        ask,
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
    route: DraftRoute, target_s: float, room_s: float, style: DraftStyle
) -> list[tuple[DraftPart, float]]:
    """The parts of a route with their seconds; those that would be too short are left out."""
    parts = [part for part in route.parts if target_s >= part.least]
    while True:
        shares = sum(part.share for part in parts)
        sized = [(part, room_s * part.share / shares) for part in parts]
        least = max(LEAST_PART_S, 0.75 * style.few)
        if len(parts) == 1 or all(part_s >= least for _, part_s in sized):
            return sized
        gone = min(parts, key=lambda part: (DROPPED.index(part.role), part.share))
        parts.remove(gone)


def _handy(
    parts: Sequence[tuple[DraftPart, float]], pool: CandidatePool, judge: MovementJudge
) -> dict[str, frozenset[str]]:
    """A movement for each prop at hand, or for two of many, by the title of the part it may stand in."""
    found: dict[str, frozenset[str]] = {}
    seed = judge.ask.seed
    props = sorted(judge.ask.brief.props, key=lambda prop: zlib.crc32(f"{seed}/{prop}".encode()))
    for prop in props[:HANDY]:
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
    return _picked(known, ask.seed, "opening") if known else ""


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


# --- why ------------------------------------------------------------------------------------------------


def _choices(plan: Plan, built: BuiltPlan) -> tuple[DraftChoice, ...]:
    items = {item.id: (item, part) for part, own in built.parts for item in own}
    steps = [
        node
        for section in plan.sections
        for node in walk(section.body)
        if (isinstance(node, Step) and node.movement in items)
        or (isinstance(node, Block) and node.name in items)
    ]
    order = [node.movement if isinstance(node, Step) else node.name for node in steps]
    return tuple(
        DraftChoice(
            node.id,
            name,
            items[name][1].title,
            tuple(_reasons(items[name][0], items[name][1], order, at, items, built)),
        )
        for at, (node, name) in enumerate(zip(steps, order, strict=True))
    )


def _reasons(
    item: PoolItem,
    part: DraftPart,
    order: Sequence[str],
    at: int,
    items: dict[str, tuple[PoolItem, DraftPart]],
    built: BuiltPlan,
) -> Iterator[tuple[str, str]]:
    """What speaks for a movement at its place, the strongest first, as (code, word)."""
    later = [items[name][0] for name in order[at + 1 :] if name in items]
    before = [items[name][0] for name in order[:at] if name in items]
    for one in later:
        if item.id in one.prepared_by:
            yield "prepares", one.name
    for one in before[-4:]:
        if item.id in one.neutralised_by:
            yield "neutralises", one.name
    for area in sorted(item.areas & built.judge.focus):
        yield "focus", area
    if part.about == "peak" and item.effort >= 3:
        yield "peak", ""
    if item.props:
        yield "prop", item.props[0]
    if part.about == "warm" and "warming" in item.marks:
        shared = sorted(item.areas & frozenset(area for one in later for area in one.areas))
        yield from (("warms", area) for area in shared)
        yield "warm", ""
    if part.about == "ease" and item.effort <= 1:
        yield "ease", ""
    if part.about == "order":
        yield "order", ""
    if item.take == "gentler":
        yield "gentler", ""
    if before and not built.judge._way_s(before[-1].ends, item.start):
        yield "near", before[-1].name
