"""A made class: exact, with equal sides, and a script that is true to its numbers."""

import re
from itertools import pairwise

import pytest

from tests.conftest import made_of, plan_of, said, shipped
from yewhour.core.export.contract import script
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Block,
    Pair,
    Rounds,
    SideDifference,
    Step,
)
from yewhour.core.problem import CannotFit, Problem

MINUTES = range(20, 33)


def sides_of(timed):
    """{pair: {side: (seconds, breaths, reps)}}"""
    pairs = {}
    for segment in timed.segments:
        if segment.use.pair and segment.side in ("left", "right"):
            sums = pairs.setdefault(segment.use.pair, {}).setdefault(segment.side, [0, 0, 0])
            sums[0] += segment.length
            sums[1] += segment.breaths or 0
            sums[2] += segment.reps or 0
    return pairs


@pytest.mark.parametrize("minutes", MINUTES)
def test_every_whole_minute_is_exact_with_equal_sides_and_no_overlap(ringers, minutes):
    timed = ringers.make(minutes * 60)
    assert timed.segments[-1].end == minutes * 600
    for before, after in zip(timed.segments, timed.segments[1:], strict=False):
        assert before.end == after.start
    for sides in sides_of(timed).values():
        assert sides["left"] == sides["right"]
    for before, after in zip(timed.cues, timed.cues[1:], strict=False):
        assert after.start - before.end >= 4
    assert all(0 <= cue.start < cue.end <= timed.length for cue in timed.cues)


def test_a_refusal_names_the_shortest_and_the_longest(ringers):
    for length_s in (5 * 60, 70 * 60):
        with pytest.raises(CannotFit) as refused:
            ringers.make(length_s)
        assert refused.value.shortest_s == ringers.shortest_s
        assert refused.value.longest_s == ringers.longest_s
        assert refused.value.do


def test_the_same_length_always_gives_the_same_script(ringers):
    assert script(ringers.make(1300)) == script(ringers.make(1300))


def test_a_pair_is_called_across_with_the_side_named():
    timed = made_of(
        Pair(body=(Step(movement="low-lunge", amount=5),), lead="right"), Step(movement="final-rest")
    )
    second = next(s for s in timed.segments if s.side == "left" and s.kind == "hold")
    across = [cue for cue in timed.cues if cue.segment == f"{second.id}/into"]
    assert any("left" in cue.text.lower() for cue in across)
    assert across[-1].end <= second.start


def test_counts_are_true_to_the_fitted_numbers(ringers):
    counted = 0
    for minutes in (20, 24, 32):
        timed = ringers.make(minutes * 60)
        by_id = {segment.id: segment for segment in timed.segments}
        for cue in timed.cues:
            segment = by_id[cue.segment]
            messages = re.search(r"\b(two|three|four)(?: more|\b.*:)", cue.text.lower())
            if cue.purpose in ("count", "late") and messages:
                number = {"two": 2, "three": 3, "four": 4}[messages[1]]
                left = (segment.end - cue.start) / segment.use.unit
                assert number - 0.5 <= left <= number + 0.6, cue.text
                counted += 1
    assert counted >= 6


def test_a_flow_is_called_before_each_phase(ringers):
    timed = ringers.make(1440)
    by_id = {segment.id: segment for segment in timed.segments}
    flows = [cue for cue in timed.cues if cue.purpose == "flow"]
    assert len(flows) >= 20
    for cue in flows:
        assert -10 <= cue.start - by_id[cue.segment].start <= 0


def test_the_rest_is_mostly_silent_and_left_slowly(ringers):
    timed = ringers.make(1440)
    rest = next(segment for segment in timed.segments if segment.kind == "stillness")
    spoken = sum(cue.end - cue.start for cue in timed.cues if cue.segment == rest.id)
    assert spoken < 0.15 * rest.length
    leaving = [cue for cue in timed.cues if cue.start >= rest.end]
    words = " ".join(cue.text.lower() for cue in leaving)
    order = [words.index(word) for word in ("deeper", "fingers", "stretch", "roll slowly", "come up to sit")]
    assert order == sorted(order)
    pauses = [after.start - before.end for before, after in pairwise(leaving[:8])]
    assert min(pauses) >= 40  # a quick style; a slow one waits twice as long


def test_the_second_side_is_said_shorter_than_the_first():
    timed = made_of(
        Pair(body=(Step(movement="low-lunge", amount=6),), lead="right"), Step(movement="final-rest")
    )
    spoken = {side: sum(len(c.text) for c in timed.cues if c.side == side) for side in ("right", "left")}
    assert spoken["left"] < spoken["right"]


def test_a_declared_difference_is_kept():
    pair = Pair(
        body=(
            Step(movement="low-lunge", amount=4, second=SideDifference(more=2, why="the stiffer side")),
            Step(movement="lunge-reach", amount=4, second=SideDifference(leave_out=True)),
        )
    )
    timed = made_of(pair, Step(movement="final-rest"))
    held = [(s.use.movement.id, s.side, s.amount) for s in timed.segments if s.kind == "hold"]
    assert held == [("low-lunge", "right", 4), ("lunge-reach", "right", 4), ("low-lunge", "left", 6)]


def test_alternating_sets_are_even_and_halves_are_equal(words):
    solved = solve(
        plan_of(
            Step(movement="opposite-reach", amount=8),
            Step(movement="rope-shoulders", amount=8, halves=True),
            Step(movement="final-rest"),
        ),
        words,
    )
    for length_s in range(int(solved.shortest_s) + 1, int(solved.longest_s), 37):
        for segment in solved.make(length_s).segments:
            if segment.kind == "reps":
                assert segment.amount % 2 == 0


def test_rounds_that_change_sides_lead_equally_often():
    steps = (Step(movement="low-lunge", amount=2), Step(movement="downward-dog", amount=2))
    timed = made_of(Rounds(body=steps, times=4, alternate=True), Step(movement="final-rest"))
    led = [s.side for s in timed.segments if s.use.movement.id == "low-lunge" and s.kind == "hold"]
    assert led == ["right", "left", "right", "left"]
    with pytest.raises(Problem, match="even"):
        made_of(Rounds(body=steps, times=3, alternate=True), Step(movement="final-rest"))


def test_a_lock_is_kept_at_every_length(words):
    plan = plan_of(
        Step(movement="downward-dog", amount=5, locked=True),
        Step(movement="seated-breath"),
        Step(movement="final-rest"),
    )
    solved = solve(plan, words)
    for length_s in (solved.shortest_s, solved.preferred_s + 7.3, solved.longest_s):
        dog = next(s for s in solved.make(length_s).segments if s.kind == "hold")
        assert dog.amount == 5


def test_a_class_without_a_rest_ends_on_time_with_a_pause():
    timed = made_of(Step(movement="dart", amount=6), length_s=None)
    longer = made_of(Step(movement="dart", amount=6), length_s=timed.length_s + 4.3)
    assert longer.segments[-1].end == longer.length


def test_a_caution_comes_before_the_movement_it_is_for():
    timed = made_of(Step(movement="downward-dog"), Step(movement="final-rest"), cautions=("wrists",))
    caution = next(cue for cue in timed.cues if cue.purpose == "protect")
    dog = next(s for s in timed.segments if s.kind == "hold")
    assert caution.end <= dog.start
    assert said(made_of(Step(movement="downward-dog"), Step(movement="final-rest")), "protect") == []


@pytest.mark.parametrize(
    ("node", "words_of_it"),
    [
        (Step(movement="downward-dog", amount=-2), "amount can't be -2"),
        (Step(movement="downward-dog", least=6, amount=3), "out of order"),
        (Rounds(body=(Step(movement="cow"),), times=2, least=4), "out of order"),
    ],
)
def test_what_cannot_be_a_class_is_said(node, words_of_it):
    with pytest.raises(Problem, match=words_of_it):
        made_of(node, Step(movement="final-rest"))


@pytest.mark.parametrize(
    "step",
    [
        Step(movement="tide-stretch", amount=4),
        Step(movement="tide-stretch", amount=6, done="repeated", lines={"call": ["Sway with the tide."]}),
        Step(movement="tide-stretch", amount=4, pattern=(4, 2, 4, 0)),
        Step(movement="tide-stretch", phase="inhale"),
    ],
)
def test_what_the_library_has_not_stands_in_its_place_and_is_told(step):
    plan = plan_of(Pair(body=(step,)), Step(movement="downward-dog"), Block(name="harbour"))
    solved = solve(plan, shipped())
    timed = solved.make(solved.preferred_s)
    mine = [one for one in timed.segments if one.use.movement.id == "tide-stretch" and not one.use.setup_for]
    assert {one.use.name for one in mine} == {"Tide stretch"}
    assert {one.side for one in mine} == {"right", "left"}
    told = [one.message for one in timed.findings if one.code == "stand-in"]
    assert ["Tide stretch" in told[0], "Harbour" in told[1]] == [True, True]
    if step.lines:
        assert "Sway with the tide." in [cue.text for cue in timed.cues]


def test_a_plan_without_steps_is_said(words):
    with pytest.raises(Problem, match="no steps"):
        solve(plan_of(), words)


def test_a_target_that_counts_the_practice_alone_leaves_the_welcome_out_of_it(words):
    steps = (Step(movement="welcome"), Step(movement="downward-dog"), Step(movement="final-rest"))
    whole, alone = (
        solve(plan_of(*steps, target_s=240.0, target_counts=counts), words).make()
        for counts in ("recording", "practice")
    )
    assert whole.length_s == 240.0
    assert alone.length_s == 240.0 + alone.segments[0].length / 10
    assert not [f for f in alone.findings if f.code == "length"]
