"""Each kind of step, each kind of group, each way of a school: what it does to a class."""

import re
from itertools import pairwise

import pytest

from tests.conftest import made_of, said, shipped
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Block,
    Pair,
    Rounds,
    Step,
    Variant,
)
from yewhour.core.plan.plan import Plan, Section, with_ids
from yewhour.core.problem import Problem
from yewhour.core.sides import SIDE_TOKENS, tokens

REST = Step(movement="final-rest")
MIRROR = {"left": "right", "right": "left", "Left": "Right", "Right": "Left"}
LIBRARY = shipped().library


def work(timed):
    return [s for s in timed.segments if s.kind not in ("setup", "talk", "stillness")]


@pytest.mark.parametrize("movement", LIBRARY.values(), ids=lambda movement: movement.id)
def test_every_movement_makes_a_class_on_both_sides(movement):
    step = Step(movement=movement.id)
    timed = made_of(Pair(body=(step,)) if movement.sides == "one" else step, REST)
    for cue in timed.cues:
        assert not tokens(cue.text) & SIDE_TOKENS, cue.text
        assert "{" not in cue.text
    if movement.sides == "one" and movement.kind not in ("setup", "talk") and not movement.side_by:
        first, second = (s for s in timed.segments if s.use.movement.id == movement.id and s.kind != "setup")
        assert (first.side, second.side) == ("right", "left")
        assert first.length == second.length


@pytest.mark.parametrize("movement", [m for m in LIBRARY.values() if m.sides == "one"], ids=lambda m: m.id)
def test_mirrored_twice_a_pair_is_what_it_was(movement):
    lead_right = made_of(Pair(body=(Step(movement=movement.id, side="right"),), lead="right"), REST)
    lead_left = made_of(Pair(body=(Step(movement=movement.id, side="left"),), lead="left"), REST)
    swapped = [
        re.sub(r"\b[lL]eft\b|\b[rR]ight\b(?! angle| up)", lambda m: MIRROR[m[0]], c.text)
        for c in lead_left.cues
    ]
    texts = [c.text for c in lead_right.cues]
    assert texts == swapped or movement.side_by


def test_a_hold_by_the_clock_goes_in_steps_of_five_seconds():
    timed = made_of(Step(movement="long-sphinx", amount=90), REST)
    assert work(timed)[0].length == 900
    assert any("minute" in line or "hirty" in line for line in said(timed, "time"))


def test_pulses_and_counts_are_counted_down():
    timed = made_of(Pair(body=(Step(movement="side-pulses", amount=20, countdown=10),)), REST)
    counts = said(timed, "count")
    words = ["Ten.", "Nine.", "Eight.", "Seven.", "Six.", "Five.", "Four.", "Three.", "Two.", "One."]
    assert [line for line in counts if line.split()[0] in ("Twenty.", *words)] == ["Twenty.", *words] * 2
    assert sum("ten" in line and line != "Ten." for line in counts) == 2  # announced before it begins
    timed = made_of(Step(movement="table-hold", amount=30, locked=True), REST)
    assert said(timed, "count") == ["Thirty.", "Twenty.", "Ten.", *words[5:]]


def test_a_climbing_breath_takes_all_its_stages():
    timed = made_of(Step(movement="climb-breath", amount=2, locked=True), REST)
    assert work(timed)[0].length == 2 * (12 + 15 + 17 + 19) * 10
    assert "Hold for seven." in said(timed, "breath")


def test_how_many_there_will_be_is_told_before_the_first():
    timed = made_of(Step(movement="chest-lift", amount=8, locked=True), REST)
    lifts = work(timed)[0]
    told = next(cue for cue in timed.cues if "eight" in cue.text.lower())
    assert told.end <= lifts.start
    first = next(cue for cue in timed.cues if cue.purpose == "first")
    assert lifts.start - 15 <= first.start <= lifts.start + lifts.use.unit


def test_a_change_halfway_is_called_halfway():
    timed = made_of(Pair(body=(Step(movement="leg-circles", amount=10, halves=True),)), REST)
    for segment in work(timed):
        half = next(c for c in timed.cues if c.purpose == "half" and c.segment == segment.id)
        assert abs(half.start - (segment.start + segment.end) / 2) <= 10


def test_rounds_grow_and_the_first_is_taught_slowly():
    flow = (
        Step(movement="arms-up", phase="inhale"),
        Step(movement="fold", phase="exhale"),
        Step(movement="half-lift", phase="inhale", from_round=2),
        Step(movement="fold", phase="exhale", from_round=2),
    )
    timed = made_of(Rounds(body=flow, times=3, teach=2), REST)
    per_round = {n: [s for s in work(timed) if s.use.round == n] for n in (1, 2, 3)}
    assert [len(per_round[n]) for n in (1, 2, 3)] == [2, 4, 4]
    assert all(s.length == 2 * 75 * 1.1428 or s.length >= 150 for s in per_round[1])
    assert all(s.length < 60 for s in per_round[3])


def test_where_two_phases_do_not_meet_the_missing_one_is_put_between():
    flow = (Step(movement="arms-up", phase="inhale"), Step(movement="half-lift", phase="inhale"))
    timed = made_of(Rounds(body=flow, times=2), REST)
    between = [s for s in timed.segments if s.kind == "setup" and s.spans]
    assert between
    assert all(span.phase in ("exhale", "empty") for s in between for span in s.spans)


def test_a_pair_inside_rounds_is_a_pair_in_every_round():
    timed = made_of(Rounds(body=(Pair(body=(Step(movement="low-lunge", amount=2),)),), times=2), REST)
    pairs = [s.use.pair for s in work(timed)]
    assert pairs[0] == pairs[1] != pairs[2] == pairs[3]
    assert [s.side for s in work(timed)] == ["right", "left"] * 2


def test_a_school_that_breathes_in_on_the_effort_turns_the_words_round():
    timed = made_of(
        Step(movement="dart", amount=6), REST, style="mat-modern", ways={"effort_breath": "inhale"}
    )
    assert "Inhale, lift" in said(timed, "breath")[0]
    assert not said(timed, "first")  # whose breath would be the other one
    assert work(timed)[0].spans[0].phase == "inhale"


@pytest.mark.parametrize(
    ("counting", "has", "lacks"),
    [("up", "Five.", "Four more"), ("down", "Four.", "Seven."), ("silent", "", ".")],
)
def test_a_school_counts_as_it_counts(counting, has, lacks):
    timed = made_of(
        Step(movement="dart", amount=8, locked=True), REST, style="mat-modern", ways={"counting": counting}
    )
    counts = said(timed, "count")
    assert not has or has in counts
    assert not any(lacks in text for text in counts)


def test_the_second_side_is_said_in_full_where_the_school_has_it_so():
    pair = Pair(body=(Step(movement="low-lunge", amount=6, locked=True),))
    short, full = (
        sum(len(c.text) for c in made_of(pair, REST, ways={"second_side": way}).cues if c.side == "left")
        for way in ("short", "full")
    )
    assert full > short


def test_names_are_said_as_the_school_says_them():
    both = made_of(Step(movement="downward-dog"), REST, ways={"names": "both"})
    assert work(both)[0].name == "Downward-facing dog (Adho Mukha Svanasana)"


@pytest.mark.parametrize(("time", "side"), [("morning", "right"), ("evening", "left")])
def test_the_class_rolls_to_the_side_of_the_time_of_day(time, side):
    timed = made_of(REST, Step(movement="return"), time_of_day=time, ways={"roll": "by time of day"})
    assert any(f"roll slowly onto your {side} side" in text for text in said(timed, "say"))


def test_the_pace_glides_from_the_first_step_to_the_last():
    steps = tuple(Step(movement="seated-breath", amount=2, locked=True) for _ in range(5))
    plan = with_ids(Plan(sections=(Section(title="A", body=(*steps, REST), pace=Pace(8), glide_to=4.0),)))
    solved = solve(plan, shipped())
    units = [s.use.unit for s in work(solved.make(solved.preferred_s))]
    assert units[0] == 75
    assert all(before < after for before, after in pairwise(units))


def test_a_lineage_chooses_its_way():
    variant = Variant(
        ways={"sea": (Step(movement="cobra"),), "hill": (Step(movement="locust"),)}, chosen="sea"
    )
    assert work(made_of(variant, REST))[0].use.movement.id == "cobra"
    assert work(made_of(variant, REST, lineage="hill"))[0].use.movement.id == "locust"


def test_blocks_are_inserted_and_a_closing_of_the_school_is_added():
    timed = made_of(Step(movement="downward-dog"), REST, Block(name="quiet close"))
    assert timed.segments[-1].use.movement.id == "farewell"
    closed = made_of(Step(movement="downward-dog"), REST, ways={"closing": "quiet close"})
    assert closed.segments[-1].use.movement.id == "farewell"
    kept = made_of(Block(name="nowhere"), REST, length_s=None)
    assert "Nowhere" in next(one.message for one in kept.findings if one.code == "stand-in")


def test_blocks_that_hold_each_other_are_refused():
    blocks = {"a": (Block(name="b"),), "b": (Block(name="a"),)}
    plan = with_ids(Plan(sections=(Section(title="A", body=(Block(name="a"), REST)),), blocks=blocks))
    with pytest.raises(Problem, match="a > b > a"):
        solve(plan, shipped())


def test_the_gentler_movement_is_the_one_taught_where_it_is_chosen():
    timed = made_of(Step(movement="wheel", take="gentler"), REST)
    assert work(timed)[0].use.movement.id == "bridge"


def test_a_school_has_no_way_that_does_not_exist():
    with pytest.raises(Problem, match="no way 'tempo'"):
        made_of(REST, ways={"tempo": 3})
    with pytest.raises(Problem, match="can't have"):
        made_of(REST, ways={"talk": "loud"})
    with pytest.raises(Problem, match="no style"):
        made_of(REST, style="acrobatics")
