"""Lines that a step has of its own, and what used to go wrong with them."""

import pytest

from tests.conftest import made_of, said
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.wording.directions import directions

REST = Step(movement="final-rest")


def test_a_line_of_ones_own_is_mirrored_on_the_second_side():
    lines = {"align": ["Press your left knee down, right away."]}
    timed = made_of(Pair(body=(Step(movement="low-lunge", amount=6, lines=lines),), lead="right"), REST)
    heard = [(cue.side, cue.text) for cue in timed.cues if "right away" in cue.text]
    assert ("right", "Press your left knee down, right away.") in heard
    assert ("left", "Press your right knee down, right away.") in heard


def test_a_prop_line_of_ones_own_is_said_also_where_the_movement_has_no_prop():
    timed = made_of(Step(movement="low-lunge", lines={"prop": ["Fold your blanket under the knee."]}), REST)
    assert said(timed, "prop") == ["Fold your blanket under the knee."]


@pytest.mark.parametrize("purpose", ["on_effort", "half", "exit", "align", "remind", "call"])
def test_a_line_of_ones_own_takes_the_place_of_the_movements(purpose):
    own = "Think of the tide going out."
    step = Step(movement="band-open", amount=12, halves=True, lines={purpose: [own]})
    texts = [cue.text for cue in made_of(step, Step(movement="child"), REST, props=("band",)).cues]
    assert any("tide going out" in text for text in texts)


def test_a_line_of_ones_own_takes_the_place_in_a_flow_too():
    step = Step(movement="downward-dog", phase="exhale", lines={"flow": ["{Breath}, up goes the tail."]})
    up = Step(movement="plank", phase="inhale")
    flow = Rounds(body=(up, step), times=3)
    texts = [cue.text for cue in made_of(flow, REST).cues]
    assert "Exhale, up goes the tail." in texts


def test_a_pause_in_a_talk_is_kept_and_never_spoken():
    step = Step(movement="water", lines={"say": ["Drink. [6s] And put it down. [2s]"]})
    timed = made_of(step, Step(movement="child"), REST)
    first, second = (cue for cue in timed.cues if cue.purpose == "say")
    assert (first.text, second.text) == ("Drink.", "And put it down.")
    assert second.start - first.end >= 60
    held = made_of(Step(movement="child", amount=8, lines={"stay": ["Wait. [20s]"]}), REST)
    assert not any("[" in cue.text for cue in held.cues)


def test_rounds_within_a_pair_stay_on_its_side():
    body = (Rounds(body=(Step(movement="low-lunge", amount=2),), times=2),)
    timed = made_of(Pair(body=body, lead="right"), REST)
    sides = [
        segment.side
        for segment in timed.segments
        if segment.use.movement.id == "low-lunge" and segment.kind == "hold"
    ]
    assert sides == ["right", "right", "left", "left"]


def test_breaths_are_breaths_where_holds_are_by_the_clock():
    step = Step(movement="child", amount=5, least=5, most=5)
    timed = made_of(step, REST, style="slow")
    child = next(
        segment
        for segment in timed.segments
        if segment.use.movement.id == "child" and not segment.use.setup_for
    )
    assert child.kind == "clock"
    assert child.length == 5 * 100  # ten seconds a breath at six a minute


@pytest.mark.parametrize("amount", [7, 9])
def test_work_from_side_to_side_is_always_even(amount):
    timed = made_of(Step(movement="toe-taps", amount=amount, locked=True), REST)
    taps = next(segment for segment in timed.segments if segment.kind == "reps")
    assert taps.amount == amount + 1


def test_a_class_for_somebody_pregnant_rolls_to_the_left_and_speaks_of_the_rest():
    timed = made_of(Step(movement="child"), REST, Step(movement="return"), cautions=("pregnancy",))
    assert any("left side" in text for text in said(timed, "say"))
    assert any("left side" in text for text in said(timed, "protect"))


def test_the_plan_s_own_set_ups_are_spoken_once_and_run_once():
    timed = made_of(
        Step(movement="chair-sit-tall"), Step(movement="floor-down"), Step(movement="staff"), REST
    )
    down = [cue.text for cue in timed.cues if "one knee down" in cue.text]
    assert len(down) == 1
    assert sum("own way" in cue.text for cue in timed.cues) == 0


@pytest.mark.parametrize("side", ["right", "left"])
def test_a_change_of_side_names_the_side_of_the_step_not_of_the_pair(side):
    other = "left" if side == "right" else "right"
    timed = made_of(Pair(body=(Step(movement="clam", side=side),), lead="right"), REST)
    second = next(one for one in timed.segments if one.use.second and not one.use.setup_for)
    across = [cue for cue in timed.cues if cue.segment == f"{second.id}/into" and cue.purpose == "place"]
    assert directions(across[0].text) == {other}


def test_a_flow_does_not_open_to_the_side_over_the_foot_that_is_behind():
    """After the right foot steps back the left one is in front: the right knee can't just bend."""
    back = Step(movement="step-back", phase="exhale"), Step(movement="warrior-two", amount=1)
    fore = Step(movement="step-forward", phase="inhale"), Step(movement="warrior-two", amount=1)
    up = Step(movement="half-lift", phase="inhale")
    turned = Rounds(body=(Step(movement="fold", phase="exhale"), up, *back), times=4, alternate=True)
    plain = Rounds(body=(Step(movement="plank", phase="exhale"), *fore), times=4, alternate=True)
    assert "toes out" in " ".join(said(made_of(turned, REST), "way"))
    flow = " ".join(said(made_of(plain, REST), "flow"))
    assert "open to the side, arms wide" in flow
    assert "open to the side, arms wide" not in " ".join(said(made_of(turned, REST), "flow"))
