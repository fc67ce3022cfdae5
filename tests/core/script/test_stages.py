"""Stages: a movement that goes on held, pulsed or in another pattern, each stage called as it comes."""

import pytest

from tests.conftest import made_of, plan_of, said, shipped
from yewhour.core.outline.reader import read_nodes, read_outline
from yewhour.core.outline.writer import nodes_text
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.problem import Problem

REST = Step(movement="final-rest")
OUTLINE = """clam 10x pair
  + 3b held: Keep your {side} knee up.
  + 12x pulsed last 4
equal breath 4x pattern 4:0:4:0
  + 4x pattern 4:2:6:0
knee bends 45s
"""


def work(timed):
    return [segment for segment in timed.segments if segment.kind not in ("setup", "talk", "stillness")]


def test_stages_are_written_in_an_outline_as_they_are_read():
    nodes = read_nodes(OUTLINE, shipped().library)
    assert nodes_text(nodes, shipped().library) == OUTLINE
    assert [step.done for step in nodes[0].body] == [None, "held", "pulsed"]


def test_a_stage_lasts_in_its_own_unit_and_is_called_as_it_comes():
    timed = made_of(*read_nodes(OUTLINE, shipped().library), REST)
    right = [segment for segment in work(timed) if segment.side == "right"]
    assert [segment.kind for segment in right] == ["reps", "hold", "pulses"]
    for segment in right[1:]:
        call = next(c for c in timed.cues if c.segment == segment.id and c.purpose == "call")
        assert abs(call.start - segment.start) <= 30
    assert "Keep your right knee up." in said(timed, "call")
    assert "Keep your left knee up." in said(timed, "call")


def test_the_stages_of_the_two_sides_are_equal():
    timed = made_of(*read_nodes(OUTLINE, shipped().library), REST, length_s=420.0)
    by_side = {side: [s.length for s in work(timed) if s.side == side] for side in ("right", "left")}
    assert by_side["right"] == by_side["left"]


def test_between_two_stages_nobody_comes_out():
    timed = made_of(Step(movement="bridge-roll"), Step(movement="bridge-roll", done="held", amount=3), REST)
    one, two = work(timed)
    assert one.end == two.start
    assert two.side == one.side


def test_a_pattern_is_said_in_its_own_counts():
    timed = made_of(Step(movement="equal-breath", amount=4, pattern=(3, 2, 5, 0)), REST)
    spoken = " ".join(cue.text for cue in timed.cues)
    assert "in for three, hold for two, out for five" in spoken
    assert "for four" not in spoken
    assert work(timed)[0].length == 4 * 100


def test_what_is_repeated_for_a_time_tells_the_time_that_is_left():
    timed = made_of(Step(movement="knee-bends", amount=60, clock=True, locked=True), REST)
    assert work(timed)[0].length == 600
    assert any("hirty seconds" in line or "alf a minute" in line for line in said(timed, "time"))
    assert said(timed, "count") == []


@pytest.mark.parametrize(
    ("step", "what"),
    [
        (Step(movement="downward-dog", pattern=(4, 0, 4, 0)), "no breathing practice"),
        (Step(movement="child", done="repeated"), "no repetition"),
    ],
)
def test_what_a_movement_can_not_be_is_refused(step, what):
    with pytest.raises(Problem, match=what):
        solve(plan_of(step, REST), shipped())


def test_a_line_that_is_no_stage_is_refused_with_its_line():
    with pytest.raises(Problem, match="is no stage") as caught:
        read_outline("# One\nclam 10x pair\n  + 4x\n", shipped().library)
    assert "line 3" in caught.value.where


def test_breath_held_in_a_flow_is_said_where_there_is_time():
    flow = Rounds(
        body=(Step(movement="cow", phase="inhale"), Step(movement="cat", phase="exhale")), times=3, teach=0
    )
    held = made_of(flow, REST, style="flow", pace=Pace(5, (4, 2, 4, 0)))
    assert any(line.lower().endswith("hold.") or "Hold" in line for line in said(held, "breath"))
    assert not said(made_of(flow, REST, style="flow", pace=Pace(5, (4, 0, 4, 0))), "breath")


def test_a_pair_holds_the_stages_of_what_it_pairs():
    (pair,) = read_nodes("clam 10x pair left\n  + 3b held\n", shipped().library)
    assert isinstance(pair, Pair)
    assert (pair.lead, len(pair.body)) == ("left", 2)


def test_a_stage_is_called_a_little_before_it_comes():
    timed = made_of(*read_nodes(OUTLINE, shipped().library), REST)
    stages = [one for one in work(timed) if one.kind in ("hold", "pulses") and one.use.step.done]
    calls = {c.segment: c.start for c in timed.cues if c.purpose == "call"}
    assert stages
    assert all(calls[one.id] <= one.start for one in stages)
