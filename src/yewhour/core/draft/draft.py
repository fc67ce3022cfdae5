"""A draft: a whole class from its promise, fitted exactly, that passes the checks; or the reason why not."""

import math
import re
from collections.abc import Iterable, Sequence
from contextlib import suppress

import msgspec

from yewhour.core.draft.about import about_s, focus_of, goes_with
from yewhour.core.draft.build import build_plan, picked, supply_s, work_room_s
from yewhour.core.draft.candidate_pool import (
    CandidatePool,
    PoolItem,
    pool_of,
    style_of,
)
from yewhour.core.draft.choices import DraftChoice, choices
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftRequest,
    DraftRoute,
    DraftStyle,
)
from yewhour.core.draft.repair import ComesShort, above, repair
from yewhour.core.draft.route_beginning import openings_for
from yewhour.core.finding import Finding
from yewhour.core.lengths import LONGEST_S, show_length
from yewhour.core.library.names import listed
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Plan, steps_of
from yewhour.core.plan.school import school_of
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass

TRIES, SCALED = 4, 3
SPENT = 0.7  # of what could stand in a part, as not all can follow on all
SPENT_LONG, LONG_S = 0.95, 100  # where shapes are few and so long, there is a way from each to each
COVERED_LONG = 0.5  # of their working time is enough: each can be held for twice as long
NEARLY = 0.6  # of the length promised a class is made of, where there is no more for it
LEAST_COVERED = 0.3  # of the working time something must be there for


class Draft(msgspec.Struct, frozen=True):
    """A drafted class. turned_down: movements that might have been there, and why they are not.

    worth, bound: what the search found, and more than which there can't be. elsewhere: it goes a way that any
    style goes, as too little of its own was left. pool: all that might have stood in it.
    """

    plan: Plan
    timed: TimedClass
    choices: tuple[DraftChoice, ...]
    turned_down: dict[str, tuple[str, str]]
    worth: float
    bound: float
    elsewhere: bool = False
    pool: frozenset[str] = frozenset()
    next_to: frozenset[str] = frozenset()


def draft_class(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel, elsewhere: bool = False
) -> Draft:
    """A class that keeps a promise as far as it can be kept: of less than its length, by whole minutes, where
    there is not more to do; on a way that any style may go, where who may be there has none of its own
    (elsewhere: on such a way at once). Raises Problem, with what to change, for none."""
    _check(ask, teaching_data, model)
    ways = ways_of(ask, teaching_data, model)
    if ways[0][0].any_style and (nearer := _nearest(ask, teaching_data, model)):
        return draft_class(nearer, teaching_data, model)
    if elsewhere and not (ways := [row[1:] for row in _elsewhere(ask, teaching_data, model)]):
        raise Problem("No other way is there for this class.", "draft", "Ask for fewer cautions.")
    best: tuple[int, int, Draft] | None = None  # what is wrong with it, what it lacks of what was asked for
    trouble: Problem | None = None
    longest_s = 0.0
    for number in range(TRIES):
        tried = msgspec.structs.replace(ask, seed=ask.seed * 31 + number) if number else ask
        route, pool = picked(ways, ask.seed + number, "route") if number < TRIES - 1 else ways[0]
        try:
            found = _one(tried, route, pool, teaching_data, model)
        except Problem as problem:
            trouble = trouble or problem
            if isinstance(problem, ComesShort):
                longest_s = max(longest_s, problem.longest_s)
            continue
        wrong = len(above(found.timed.findings))
        lacking = _lacking([step.movement for step in steps_of(found.plan)], ask, pool)
        if best is None or (wrong, lacking) < best[:2]:
            best = (wrong, lacking, found)
        if not wrong and not lacking:
            break
    if best is None or best[0]:
        shorter_s = longest_s // 60 * 60
        if NEARLY * ask.brief.target_s <= shorter_s < ask.brief.target_s:
            brief = msgspec.structs.replace(ask.brief, target_s=shorter_s)
            return draft_class(msgspec.structs.replace(ask, brief=brief), teaching_data, model)
    if (best is None or best[0]) and ask.brief.cautions and not elsewhere:
        with suppress(Problem):
            return draft_class(ask, teaching_data, model, elsewhere=True)
    if best is None or best[0]:
        raise _refused(ask, ways[0][1], trouble, best[2].timed.findings if best else ())
    return best[2]


def _nearest(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> DraftRequest | None:
    """The same asked of the nearest tradition, where one's own has no way for who may be there and it has."""
    near = model.styles[ask.brief.style].nearest
    if not near:
        return None
    schools = teaching_data.schools
    own, other = schools[ask.brief.style].noun, schools[near].noun
    title = re.sub(rf"^An? {re.escape(own)}\b", f"A {other}", ask.brief.title)
    nearer = msgspec.structs.replace(
        ask, brief=msgspec.structs.replace(ask.brief, style=near, lineage="", title=title)
    )
    with suppress(Problem):
        if not ways_of(nearer, teaching_data, model)[0][0].any_style:
            return nearer
    return None


def _lacking(there: Iterable[str], ask: DraftRequest, pool: CandidatePool) -> int:
    """How many of the movements that were asked for, by name, by their group or as one of several areas,
    could be there, and are not."""
    items = [pool.items[name] for name in there if name in pool.items]
    return len(_asked(ask, pool, pool.items.values()) - _asked(ask, pool, items))


def _asked(ask: DraftRequest, pool: CandidatePool, items: Iterable[PoolItem]) -> frozenset[str]:
    """What was asked for that these movements are: names, groups, and areas where there are several."""
    brief = ask.brief
    asked = frozenset((brief.peak, *brief.wanted, *(brief.focus if len(brief.focus) > 1 else ())))
    return asked & frozenset(name for one in items for name in (one.id, *one.groups, *one.areas))


def _check(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> None:
    brief = ask.brief
    school_of(brief, teaching_data.schools)  # raises for a style that is not there
    if brief.style not in model.styles:
        raise Problem(f"No class of style {brief.style!r} can be drafted.", "draft", "Choose another style.")
    if brief.target_s > LONGEST_S:
        raise Problem("A class of more than four hours can't be drafted.", "draft", "Ask for a shorter one.")
    if brief.target_s < 180:
        asked = brief.target_s
        meant = f"; {asked:.0f} minutes are written {asked:.0f}:00" if asked >= 4 else ""
        raise Problem(
            f"A class of {show_length(asked)}, less than three minutes, can't be drafted.", "draft",
            f"Ask for four minutes or more{meant}.",
        )  # fmt: skip


def ways_of(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> list[tuple[DraftRoute, CandidatePool]]:
    """The ways a class may go, with what there is for each: the style's own for that time of day, if enough
    is left for them; else any on which the body may be, the best first. Raises Problem where there is
    none."""
    style, weights = model.styles[ask.brief.style], model.weights
    pool, time = pool_of(ask, teaching_data, model), ask.brief.time_of_day
    fitting = not style.needs or style.needs in ask.brief.props
    theirs = _for_people(ask, teaching_data, model)
    if theirs:
        return theirs
    able = [route for route in style.routes if fitting and ask.brief.target_s >= route.least]
    able = [one for one in able if openings_for(one, ask.brief.begins, teaching_data)] or able
    now = [one for one in able if not one.times or time in one.times]
    now = now or able * bool(ask.brief.begins)  # who asks to begin so has it at any time of day
    own = [(covered(route, ask, pool, model), route, pool) for route in now]
    enough = COVERED_LONG if style.few >= LONG_S else weights.covered
    timely = [row for row in own if row[1].times and row[0] >= enough]
    good = timely or [row for row in own if row[0] >= enough]
    if not good:
        every = sorted([*own, *_elsewhere(ask, teaching_data, model)], key=lambda row: -row[0])
        good = [row for row in every if row[0] >= 0.9 * every[0][0]] if every else []
    good = [row for row in good if row[0] >= LEAST_COVERED]
    if not good:
        raise _nothing(ask, style, pool, teaching_data)
    return _about_it(ask, [(route, there) for _, route, there in good], model)


def _elsewhere(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> list[tuple[float, DraftRoute, CandidatePool]]:
    """The ways that a class of any style may go, with how much of each there is; the best first. Who asks for
    a class on the chair stays on it."""
    found, seat = [], model.styles[ask.brief.style].needs
    for route in model.elsewhere:
        if seat and seat in ask.brief.props and route.needs != seat:
            continue
        timely = not route.times or ask.brief.time_of_day in route.times
        if not route.people and timely and (not route.needs or route.needs in ask.brief.props):
            pool = pool_of(ask, teaching_data, model, route)
            found.append((covered(route, ask, pool, model), route, pool))
    return [row for row in sorted(found, key=lambda row: -row[0]) if row[0] >= LEAST_COVERED]


def _about_it(
    ask: DraftRequest, ways: list[tuple[DraftRoute, CandidatePool]], model: DraftModel
) -> list[tuple[DraftRoute, CandidatePool]]:
    """Of the ways those on which most of what was asked for can stand; of them those on which enough is about
    the focus, or with what goes with it nearly as much as on the best."""
    served = [
        len(_asked(ask, pool, (one for part in route.parts for one in pool.suited(part))))
        for route, pool in ways
    ]
    ways = [way for way, count in zip(ways, served, strict=True) if count == max(served)]
    if not ask.brief.focus:
        return ways
    focus, enough_s = focus_of(ask), model.weights.focused * ask.brief.target_s
    about = [about_s(focus, pool, route) for route, pool in ways]
    least = min(0.8 * max(about), enough_s)
    if max(about) < enough_s:  # too little of it anywhere: what goes with it decides, too
        about = [_served_s(ask, pool, route, model) for route, pool in ways]
        least = 0.8 * max(about)
    return [way for way, there_s in zip(ways, about, strict=True) if there_s >= least]


def _served_s(ask: DraftRequest, pool: CandidatePool, route: DraftRoute, model: DraftModel) -> float:
    """Seconds of what is about the focus on a way; of what goes with it, where that is too little, a part."""
    beside = goes_with(ask, pool, route, model)
    return about_s(focus_of(ask), pool, route) + model.weights.focus_next * about_s(beside, pool, route)


def _for_people(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> list[tuple[DraftRoute, CandidatePool]]:
    """The ways that are for somebody who may be in the room, or for what was asked for, where enough is there
    for them."""
    about = (f"about {one}" for one in ask.brief.focus)
    asked = {*ask.brief.cautions, *ask.brief.without, *ask.brief.wanted, *about}
    found: list[tuple[DraftRoute, CandidatePool]] = []
    for route in model.elsewhere:
        if not asked & {*route.people} or ask.brief.style not in route.styles:
            continue
        if (route.times and ask.brief.time_of_day not in route.times) or ask.brief.target_s < route.least:
            continue
        pool = pool_of(ask, teaching_data, model, route)
        if any(part.must and not pool.items.keys() & {*part.blocks} for part in route.parts):
            continue  # rounds that not all can do
        style = style_of(ask, model, route)
        enough = COVERED_LONG if style.few >= LONG_S else model.weights.covered
        enough *= not route.rests  # there the rest takes what is left
        if covered(route, ask, pool, model) >= enough:
            found.append((route, pool))
    longest = max((route.least for route, _ in found), default=0)
    return [(route, pool) for route, pool in found if route.least == longest]


def covered(route: DraftRoute, ask: DraftRequest, pool: CandidatePool, model: DraftModel) -> float:
    """The share of the working time that a way has something for."""
    style = style_of(ask, model, route)
    parts = [part for part in route.parts if part.is_of(ask.brief.target_s)]
    shares = sum(part.share for part in parts)
    room_s = work_room_s(ask, style, model.weights, 0.08 * ask.brief.target_s)
    spent = SPENT_LONG if style.few >= LONG_S else SPENT
    given = (
        room_s
        * part.share
        / shares
        * (part.must and bool(part.blocks))  # rounds come as often as there is time
        or min(room_s * part.share / shares, spent * supply_s(part, pool))
        for part in parts
    )
    return sum(given) / room_s


def _nothing(
    ask: DraftRequest, style: DraftStyle, pool: CandidatePool, teaching_data: TeachingData
) -> Problem:
    """Why nothing is left, and what to change."""
    groups, brief = teaching_data.conditions.groups, ask.brief
    asked = [one for one in (*brief.without, *brief.cautions) if one in groups or one in brief.said]
    said = [brief.said.get(one) or f"without {groups[one].name}" for one in asked]
    if len(said) > 1:
        quoted = listed([f"\u201c{one}\u201d" for one in said])
        what = f"{quoted} leave too little to do together."
        return Problem(what, "the promise", f"The nearest is one of them alone: {said[0]}.")
    if style.needs and style.needs not in ask.brief.props:
        do = f"Put a {style.needs} at hand, or choose another style."
        return Problem(
            f"A class of this style needs a {style.needs}, and none is at hand.", "draft, props", do
        )
    return _refused(ask, pool, None, ())


BY_EAR = ("lost", "left-up")  # findings in words of the machinery: nothing that she could change
PLACES = ("lying", "sitting", "standing", "kneeling", "floor")


def _refused(
    ask: DraftRequest, pool: CandidatePool, trouble: Problem | None, findings: Sequence[Finding]
) -> Problem:
    """Why there is no class, and what to change."""
    down: dict[str, int] = {}
    for code, word in pool.turned_down.values():
        if code in ("caution", "prop"):
            down[f"{code} {word}"] = down.get(f"{code} {word}", 0) + 1
    most = sorted(down.items(), key=lambda row: -row[1])[:3]
    messages = [
        f"{count} for the caution {name[8:]}" if name.startswith("caution")
        else f"{count} for want of {name[5:] if name.startswith('prop two') else f'a {name[5:]}'}"
        for name, count in most
    ]  # fmt: skip
    left = f"{len(pool.items)} movements are left"
    reason = f"{left}; {', '.join(messages)} were left out" if messages else left
    what = "No class keeps this promise"
    told = [one.message for one in findings if one.code not in BY_EAR]
    detail = told[0] if told else trouble.what if trouble is not None else ""
    if trouble is not None and trouble.where == "draft, length":
        return trouble
    do = "Ask for another length or style, fewer cautions, more props, or another focus."
    if len(nowhere := [f"no {one}" for one in PLACES if one in ask.brief.without]) > 1:
        do = f"Take one of them back: {listed(nowhere)}."
    return Problem(f"{what}: {reason}. {detail}".strip(), "draft", do)


# --- one try --------------------------------------------------------------------------------------------


def _one(
    ask: DraftRequest, route: DraftRoute, pool: CandidatePool, teaching_data: TeachingData, model: DraftModel
) -> Draft:
    style, weights = style_of(ask, model, route), model.weights
    if route.called:  # a flow that is all on the chair is none
        noun = school_of(ask.brief, teaching_data.schools).noun
        title = re.sub(rf"^An? {re.escape(noun)}\b", route.called, ask.brief.title)
        ask = msgspec.structs.replace(ask, brief=msgspec.structs.replace(ask.brief, title=title))
    scale, built, keen = weights.first, None, 1.0
    stretch = style.stretch * ask.room(teaching_data, model).stretch
    there_s = _served_s(ask, pool, route, model)
    keenest = weights.keener[-1] if there_s > weights.focused * ask.brief.target_s else 1.0
    for _ in range(SCALED + len(weights.keener)):
        try:
            built = build_plan(ask, pool, teaching_data, model, route, scale, keen)
        except Problem:
            if built is None or keen == 1.0:
                raise
            keen = keenest = 1.0  # so short, and nothing of it is about that: then it is about something else
            continue
        if built.focus < weights.focused and keen < keenest:
            keen = next(one for one in weights.keener if one > keen)
            continue
        solved = solve(built.plan, teaching_data)
        share = solved.preferred_s / solved.promised_s
        low, high = weights.near
        too_long = solved.shortest_s > solved.promised_s
        if not too_long and low / math.sqrt(stretch) <= share <= high / min(1.0, math.sqrt(stretch)):
            break
        scale *= 0.85 if too_long and share < high else min(1.6, max(0.6, 1.0 / share))
    assert built is not None
    plan, timed = repair(built.plan, teaching_data, pool)
    return Draft(
        plan, timed, choices(plan, built), pool.turned_down, round(built.worth, 2), round(built.bound, 2),
        route.any_style, frozenset(pool.items), built.judge.next_to,
    )  # fmt: skip
