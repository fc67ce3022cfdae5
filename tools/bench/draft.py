"""Drafts: how quick they are, and whether a thousand of them keep what they promise."""

import time
from collections import Counter
from itertools import combinations
from random import Random
from statistics import mean, median

import msgspec

from tools.bench.table import against, line
from yewhour.content.draft_model_file import load_model
from yewhour.content.terms import load_terms
from yewhour.core.draft.about import about_s
from yewhour.core.draft.candidate_pool import at_hand
from yewhour.core.draft.draft import Draft, draft_class, ways_of
from yewhour.core.draft.draft_model import DraftModel, DraftRequest
from yewhour.core.draft.partial import alternatives_for, movements_of, redraft_section
from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import Node, Rounds, Step, walk
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.teaching_data import load_teaching_data

PROMISES, ALIKE, ANOTHERS = 1000, 50, 10
WORK = ("talk", "setup", "stillness")


def bench_draft(promises: int = PROMISES) -> None:
    """An hour's draft, the tenth other one; random promises; how unlike fifty of one promise are."""
    words, model = load_teaching_data()[0], load_model()
    hour = Brief(title="An hour", target_s=3600.0, style="flow", focus=("hips",), level="mixed")
    draft_class(DraftRequest(hour), words, model)
    took = [_timed(DraftRequest(hour, seed), words, model) for seed in range(1, ANOTHERS + 1)]
    against("an hour drafted, slowest of ten / a yardstick", max(took) / 1000, 22)
    line("   the tenth other one, against the first", f"{took[-1] / took[0]:.2f}")
    _bench_parts(hour, words, model)
    dice, broken, refused, times = Random(5), Counter[str](), Counter[str](), []
    for number in range(promises):
        brief = random_brief(dice, words, model)
        before = time.perf_counter()
        try:
            timed = draft_class(DraftRequest(brief, number), words, model)
        except Problem as problem:
            refused[problem.what.split(":")[0][:60]] += 1
            times.append(time.perf_counter() - before)
            continue
        times.append(time.perf_counter() - before)
        broken.update(faults(timed, brief, words))
    kept = promises - sum(refused.values())
    line(f"{promises} random promises: drafted", f"{kept}, {sum(refused.values())} refused")
    for what, count in refused.most_common(4):
        line(f"      {what}", str(count))
    for what in ("length", "finding", "caution", "prop", "up and down", "focus", "sides"):
        line(f"   not as promised: {what}", str(broken[what]), "0", not broken[what])
    line("   shorter than promised, and told", str(broken["shorter"]))
    line("   time: median, slowest", f"{median(times) * 1000:.0f}, {max(times) * 1000:.0f} ms")
    for style in model.styles:
        share = alike(style, words, model)
        title = f"{ALIKE} drafts of one promise, {style}: movements that two share"
        line(title, f"{share:.0%}", "under 50 %", share < 0.5)


def _bench_parts(brief: Brief, words: TeachingData, model: DraftModel) -> None:
    """A section of an hour anew, and something else in one place."""
    timed = draft_class(DraftRequest(brief, 1), words, model)
    index = next(n for n, one in enumerate(timed.plan.sections) if one.role == "settle")
    took = []
    for seed in range(5):
        before = time.perf_counter()
        redraft_section(timed.plan, timed.timed, index, DraftRequest(brief, seed), words, model)
        took.append((time.perf_counter() - before) * 1000)
    against("   a section of it anew, median / a yardstick", median(took) / 1000, 6.8)
    step = next(one for one in walk(timed.plan.sections[index].body) if isinstance(one, Step))
    before = time.perf_counter()
    found = alternatives_for(timed.plan, step.id, DraftRequest(brief, 1), words, model)
    line(f"   {len(found)} others in one place", f"{(time.perf_counter() - before) * 1000:.0f} ms")


def _timed(ask: DraftRequest, words: TeachingData, model: DraftModel) -> float:
    before = time.perf_counter()
    draft_class(ask, words, model)
    return (time.perf_counter() - before) * 1000


def random_brief(dice: Random, words: TeachingData, model: DraftModel) -> Brief:
    """Any promise: all styles, levels, 4 to 75 minutes, any cautions, props and focus."""
    areas = list(load_terms(words.positions).areas)
    style = dice.choice(list(model.styles))
    props = set(dice.sample(sorted(words.props), dice.choice((0, 0, 1, 2, 3))))
    if style == "restorative":
        props |= {"bolster", "blanket"}
    if style == "chair-balance":
        props.add("chair")
    return Brief(
        title="A promise",
        target_s=dice.choice((4, 6, 8, 10, 12, 15, 20, 25, 30, 40, 45, 60, 75)) * 60.0,
        style=style,
        level=dice.choice(list(model.levels)),
        focus=tuple(dice.sample(areas, dice.choice((0, 1, 1, 2)))),
        time_of_day=dice.choice(("", "morning", "evening")),
        cautions=tuple(dice.sample(sorted(words.cautions), dice.choice((0, 0, 1, 2, 3)))),
        props=tuple(sorted(props)),
    )


def _much_about(brief: Brief, words: TeachingData) -> bool:
    """Whether there is as much about the focus as a class could be filled with, on every way it may go."""
    model = load_model()
    ways = ways_of(DraftRequest(brief), words, model)
    return all(about_s({*brief.focus}, pool, route) > brief.target_s for route, pool in ways)


def faults(timed: Draft, brief: Brief, words: TeachingData) -> list[str]:
    """What a draft does not keep."""
    found = []
    class_, room = timed.timed, words.room(brief)
    if abs(class_.length_s - class_.plan.brief.target_s) > 0.05:
        found.append("length")
    if class_.plan.brief.target_s < brief.target_s:
        found.append("shorter")
    if any(one.severity != "note" for one in class_.findings):
        found.append("finding")
    for one in class_.segments:
        movement = one.use.movement
        met = one.kind not in ("talk", "setup", "stillness") and room.troubled(movement)
        if room.left_out(movement) is not None or (met and one.use.step.take != "gentler"):
            found.append("caution")
            break
    if any(not at_hand(prop, brief.props) for prop in class_.props):
        found.append("prop")
    if ups(class_, words) > 2:
        found.append("up and down")
    if brief.focus and focus_share(class_, brief) < 0.4 and _much_about(brief, words):
        found.append("focus")
    sides: Counter[str] = Counter()
    for one in class_.segments:
        if one.side in ("left", "right") and not one.use.movement.side_by and not one.use.setup_for:
            sides[one.side] += one.length
    if abs(sides["left"] - sides["right"]) > 1:
        found.append("sides")
    return found


def focus_share(timed: TimedClass, brief: Brief) -> float:
    """The share of the working time that is about the focus."""
    work = [one for one in timed.segments if one.kind not in WORK]
    total = sum(one.length for one in work) or 1
    about = [one for one in work if {*one.use.movement.works, *one.use.movement.opens} & set(brief.focus)]
    return sum(one.length for one in about) / total


def ups(timed: TimedClass, words: TeachingData) -> int:
    """How often people are sent from the floor to their feet, or down."""
    floor = words.positions.floor - {"four-point", "plank", "inverted"}
    before, changes = None, 0
    for one in timed.segments:
        base = base_of(one.use.end)
        if one.use.flow or not base or base in ("start", "wall", "split", "four-point", "plank", "inverted"):
            continue
        here = base in floor or base.startswith("on-")
        changes += before is not None and here != before
        before = here
    return changes


def alike(style: str, words: TeachingData, model: DraftModel) -> float:
    """The mean share of movements that two drafts of one promise have in common."""
    props = ("bolster", "blanket", "chair", "block", "two blocks", "strap", "wall")
    brief = Brief(title="One", target_s=1800.0, style=style, level="mixed", focus=(), props=props)
    sets = [_movements(draft_class(DraftRequest(brief, seed), words, model)) for seed in range(ALIKE)]
    return mean(len(one & two) / max(1, min(len(one), len(two))) for one, two in combinations(sets, 2))


def _is_flow(node: Node) -> bool:
    return isinstance(node, Rounds) and node.teach > 0


def _movements(timed: Draft) -> frozenset[str]:
    """What was chosen; a flow that is put in whole, taught or not, has no say in it."""
    parts = [
        msgspec.structs.replace(one, body=tuple(node for node in one.body if not _is_flow(node)))
        for one in timed.plan.sections
        if one.role not in ("arrive", "rest", "close")
    ]
    return movements_of(timed.plan, parts) - {"silence-ahead", "quiet-breath"}
