"""A draft: a whole class from its promise, fitted exactly, that passes the checks; or the reason why not."""

import math
from collections.abc import Sequence

import msgspec

from yewhour.core.draft.build import build_plan, picked
from yewhour.core.draft.candidate_pool import (
    CandidatePool,
    pool_of,
)
from yewhour.core.draft.choices import DraftChoice, choices
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftRequest,
)
from yewhour.core.draft.repair import about_focus, above, repair
from yewhour.core.finding import Finding
from yewhour.core.lengths import LONGEST_S, show_length
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Plan
from yewhour.core.plan.school import school_of
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass

TRIES, SCALED = 4, 3


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
    route = picked(style.routes, ask.seed + number, "route")
    weights = model.weights
    scale, built, keen = weights.first, None, 1.0
    for _ in range(SCALED + len(weights.keener)):
        built = build_plan(ask, pool, teaching_data, model, route, scale, keen)
        if built.focus < weights.focused and keen < weights.keener[-1]:
            keen = next(one for one in weights.keener if one > keen)
            continue
        solved = solve(built.plan, teaching_data)
        share = solved.preferred_s / solved.promised_s
        low, high = weights.near
        if low / math.sqrt(style.stretch) <= share <= high:
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
        plan, timed, choices(plan, built), pool.turned_down, round(built.worth, 2), round(built.bound, 2)
    )
