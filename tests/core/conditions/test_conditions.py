"""Who is in the room: nothing that is listed by hand for a condition is ever drafted, chosen, mended in, or
on a way."""

import re
from itertools import combinations
from random import Random

import msgspec
import pytest

from tests.conftest import shipped, some_of
from tests.core.conditions.forbidden import BASES, FORBIDDEN, WITHOUT
from yewhour.content.draft_model_file import load_model
from yewhour.core.conditions.groups import is_in
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.partial import alternatives_for
from yewhour.core.library.position import base_of
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Step, walk
from yewhour.core.plan.plan import Brief, Plan, Section, with_ids
from yewhour.core.problem import Problem
from yewhour.core.sides import fill

STYLES = tuple(load_model().styles)
KNEELING = {
    "cat",
    "opposite-reach",
    "fire-hydrant",
    "hands-and-knees",
    "low-lunge",
    "gate",
    "camel-prep",
    "half-splits",
}
EVERYDAY = ("square",)  # "square hips": a word that is a name, too
TIMES = ("", "morning", "evening", "night")
PROPS = (("chair",), ("chair", "wall", "blanket"), ("block", "strap"), ("bolster", "cushion", "blanket"), ())


def drafted(seed, **fields):
    brief = Brief(title="T", **{"target_s": 1200.0, **fields})
    return draft_class(DraftRequest(brief, seed), shipped(), load_model())


def tried(seed, **fields):
    """The draft, or why there is none."""
    try:
        return drafted(seed, **fields), None
    except Problem as problem:
        return None, problem


def held(draft, names, bases):
    """What a draft has that is listed by hand: movements, spoken choices and places."""
    library = shipped().library
    found = []
    for one in draft.timed.segments:
        movement = one.use.movement
        if movement.id in names:
            found.append(movement.id)
        places = [fill(place, "right") for place in (one.use.start, one.use.end) if place]
        found += [
            f"in {place}: {movement.id}"
            for place in places
            for base in bases
            if place != "start" and is_in(place, base)
        ]
    said = " ".join(cue.text.lower() for cue in draft.timed.cues if cue.purpose in ("option", "choice"))
    for name in names:
        called = library[name].name.lower()
        if len(called) > 5 and called not in EVERYDAY and re.search(rf"\b{re.escape(called)}\b", said):
            found.append(f"offered: {called}")
    return found


def promised(seed):
    """A promise for two conditions, in any style, at any time."""
    dice = Random(seed)
    pairs = list(combinations(sorted(FORBIDDEN), 2))
    tags = dice.choice(pairs)
    fields = {
        "style": dice.choice(STYLES),
        "time_of_day": dice.choice(TIMES),
        "props": dice.choice(PROPS),
        "level": dice.choice(("gentle", "beginners", "mixed", "experienced")),
        "target_s": dice.choice((600.0, 1200.0, 1800.0)),
    }
    if "chair-only" in tags and "chair" not in fields["props"]:
        fields["props"] = ("chair",)
    return tags, fields


def broken(tags, seed, **fields):
    """What a draft for conditions has that is listed by hand for one of them; nothing where it is refused."""
    draft, problem = tried(seed, cautions=tags, **fields)
    if draft is None:
        assert problem.do, problem.what
        return []
    names = set().union(*(FORBIDDEN[tag] for tag in tags))
    return held(draft, names, [base for tag in tags for base in BASES.get(tag, ())])


@pytest.mark.parametrize("seed", some_of(range(60), 4))
def test_no_draft_for_two_conditions_has_what_is_listed_for_either(seed):
    tags, fields = promised(seed)
    padded = {"blanket", "cushion", "bolster"} & {*fields["props"]}  # then knees may be on the floor
    found = broken(tags, seed, **fields)
    assert [one for one in found if not (padded and "knees" in tags and one in KNEELING)] == []


@pytest.mark.long
@pytest.mark.parametrize("style", STYLES)
def test_no_draft_for_any_two_conditions_in_any_style_has_what_is_listed(style):
    for seed, tags in enumerate(combinations(sorted(FORBIDDEN), 2)):
        props = ("chair", "wall", "bolster") if seed % 2 else ("chair",)
        padded = "bolster" in props and "knees" in tags
        found = broken(tags, seed, style=style, props=props, time_of_day=TIMES[seed % 4])
        assert [one for one in found if not (padded and one in KNEELING)] == [], (style, tags)


@pytest.mark.parametrize("tag", sorted(FORBIDDEN))
def test_a_rule_leaves_out_at_least_what_is_listed_by_hand(tag):
    room = shipped().room(Brief(cautions=(tag,)))
    kept = [
        name
        for name in sorted(FORBIDDEN[tag])
        if room.left_out(shipped().library[name]) is None and not room.met(shipped().library[name])
    ]
    assert kept == []


@pytest.mark.parametrize("group", sorted(WITHOUT))
def test_a_group_has_all_that_is_listed_by_hand(group):
    members = {
        name for name, one in shipped().library.items() if group in shipped().conditions.groups_of(one)
    }
    assert WITHOUT[group] - members == set()


@pytest.mark.parametrize("group", some_of(sorted({*WITHOUT, *BASES} & {*shipped().conditions.groups}), 3))
def test_a_class_without_a_group_has_none_of_it_and_no_way_through_it(group):
    for seed, style in enumerate(("hatha", "mat-modern", "slow", "chair-balance")):
        draft, problem = tried(seed, style=style, without=(group,), props=("chair", "wall"))
        if draft is None:
            assert problem.do
            continue
        assert held(draft, WITHOUT.get(group, set()), BASES.get(group, ())) == [], style


def test_every_condition_says_where_it_comes_from_and_leaves_something_out():
    rules = shipped().conditions
    for tag, one in rules.conditions.items():
        assert one.source, tag
        assert one.words or one.parts, tag
        assert one.out or one.also, tag
        for name in one.out:
            assert name in rules.groups or name in shipped().library, (tag, name)
        for name in (*one.also, *one.shapes):
            assert name in rules.conditions or name in shipped().library, (tag, name)
    for tag, group in rules.groups.items():
        for name in (*group.movements, *group.but):
            assert name in shipped().library, (tag, name)


def by_hand(cautions, *movements):
    body = tuple(Step(movement=one) for one in movements)
    sections = (
        Section(title="Arrive", role="arrive", body=(Step(movement="welcome-short"),)),
        Section(title="Work", role="build", body=body),
        Section(title="Close", role="close", body=(Step(movement="farewell-short"),)),
    )
    return with_ids(Plan(brief=Brief(title="By hand", target_s=150.0, cautions=cautions), sections=sections))


def test_a_class_made_by_hand_keeps_what_a_rule_forbids_says_so_first_and_the_finding_stays():
    timed = solve(by_hand(("disc",), "seated-fold", "staff"), shipped()).make()
    assert [one.use.movement.id for one in timed.segments if one.use.movement.id == "seated-fold"]
    left = next(one for one in timed.findings if one.code == "left-out")
    assert "Seated forward fold" in left.message
    assert "disc" in left.message
    spoken = [cue for cue in timed.cues if cue.purpose == "protect"]
    assert spoken
    done = next(
        one
        for one in timed.segments
        if one.use.movement.id == "seated-fold" and not one.use.setup_for and one.amount
    )
    assert spoken[0].start <= done.end


def test_what_mends_never_puts_in_what_a_rule_leaves_out():
    timed = solve(by_hand(("pregnancy",), "camel", "staff"), shipped()).make()
    for finding in timed.findings:
        movement = getattr(finding.edit, "movement", "")
        assert movement not in FORBIDDEN["pregnancy"], finding


def test_something_else_here_is_for_everybody_too():
    draft = drafted(3, cautions=("knees",), style="hatha")
    steps = [node for section in draft.plan.sections for node in walk(section.body) if isinstance(node, Step)]
    step = next(one for one in steps if shipped().library[one.movement].effort >= 1)
    for one in alternatives_for(draft.plan, step.id, DraftRequest(draft.plan.brief), shipped(), load_model()):
        assert one.movement not in FORBIDDEN["knees"]


def test_who_is_pregnant_rolls_and_rests_to_the_left():
    draft = drafted(0, cautions=("pregnancy",), props=("cushion",), target_s=1500.0)
    rest = next(one for one in draft.timed.segments if one.section == "Rest" and not one.use.setup_for)
    assert base_of(rest.use.end) == "on-left"


def test_a_prop_can_make_room_for_what_is_left_out_without_it():
    without, padded = (
        shipped().room(Brief(cautions=("knees",), props=props)) for props in ((), ("blanket",))
    )
    cat = shipped().library["cat"]
    assert without.left_out(cat) is not None
    assert padded.left_out(msgspec.structs.replace(cat)) is None
    assert padded.left_out(shipped().library["toe-squat"]) is not None


@pytest.mark.parametrize("tag", ["hips", "hip-replacement"])
def test_nobody_comes_up_over_a_hip_that_is_not_to_turn_in(tag):
    positions = shipped().room(Brief(cautions=(tag,))).positions(shipped().positions)
    way = positions.way("on-right long", "seated")
    assert way.changes
    assert not any("beside" in change.end for change in way.changes)


@pytest.mark.parametrize("tag", sorted(shipped().conditions.conditions))
def test_the_words_of_a_way_bar_no_way_that_is_nothing_of_what_is_left_out(tag):
    """Who minds straight-leg work may still stretch the legs out to lie down, and is not sent round about."""
    room = shipped().room(Brief(cautions=(tag,)))
    positions = room.positions(shipped().positions)
    groups = [room.rules.groups[one] for one in room._tags if one in room.rules.groups]
    for start, end in (
        ("supine bent", "supine long"),
        ("seated bent", "seated long"),
        ("on-right bent", "on-right long"),
        ("wide", "standing"),
    ):
        if not any(group.bars(place) for group in groups for place in (start, end)):
            assert len(positions.way(start, end).changes) == 1, (start, end)


@pytest.mark.parametrize("level", ["gentle", "beginners", "mixed"])
@pytest.mark.parametrize("tag", ["pregnancy", "chair-only", "older", "reflux"])
def test_a_class_made_by_hand_is_made_wherever_it_lies_and_however_gentle_it_is(level, tag):
    outline = f"""title: Hers
length: 12:00
style: flow
level: {level}
cautions: {tag}

# A
knees to chest 5b
sphinx 3b
plank 1b

# Rest
final rest 60s
"""
    assert solve(read_outline(outline, shipped().library), shipped()).preferred_s > 60
