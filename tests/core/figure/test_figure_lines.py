"""Figures as lines: read, written, settled; and what is wrong in them."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as some

from tests.conftest import examples
from yewhour.core.figure.body import Figure, anchor, stance
from yewhour.core.figure.figure_line import read_figure, write_figure
from yewhour.core.figure.figures import figure_from, plain_position
from yewhour.core.figure.joints import (
    ANGLES,
    THICK,
    VIEWS,
    limits_of,
)
from yewhour.core.figure.settle import settle
from yewhour.core.figure.validate import figure_faults
from yewhour.core.problem import Problem


def test_a_line_says_near_and_far_and_goes_on_from_what_it_is_given():
    base = read_figure("trunk 90, hip 10, arm 20/30, on feet")
    figure = read_figure("hip 90/0, on seat@chair", base)
    assert (figure.angle("hip"), figure.angle("farhip")) == (90, 0)
    assert (figure.angle("arm"), figure.angle("fararm")) == (20, 30)
    assert [(rest.part, rest.on) for rest in figure.rests] == [("seat", "chair")]
    assert read_figure("arm 50", base).angle("fararm") == 50  # one number is both


@pytest.mark.parametrize(
    ("line", "messages"),
    [
        ("knee 190", "No knee bends to 190"),
        ("knee -5", "No knee bends to -5"),
        ("elbow 170/0", "No elbow bends to 170"),
        ("tail 20", "no 'tail 20'"),
        ("hip much", "'much' is no angle"),
        ("hip 1/2/3", "one angle, or two"),
        ("trunk 1/2", "one angle, or two"),
        ("on tail", "rests on no 'tail'"),
        ("on feet@cloud", "rests on no 'feet@cloud'"),
        ("touch wrist tail", "no point 'tail'"),
        ("hip nan", "No hip bends"),
    ],
)
def test_what_is_wrong_is_told_with_where(line, messages):
    with pytest.raises(Problem, match=messages) as raised:
        read_figure(line, where="mine.toml, line 7")
    assert raised.value.where == "mine.toml, line 7"
    assert raised.value.do


def test_a_line_that_moves_an_arm_takes_the_hands_off():
    sitting = read_figure("trunk 90, hip 90, arm 20, on seat heels, touch hand thigh, strap hand toe")
    assert [one.by for one in read_figure("trunk 80", sitting).held] == ["", "strap"]
    assert [one.by for one in read_figure("arm 40", sitting).held] == ["strap"]
    assert [one.points for one in read_figure("arm 40, touch hand shin", sitting).held][-1] == (
        "hand",
        "shin",
    )


def test_what_ships_is_held_closer_than_what_is_hers():
    for line, loose, tight in (("trunk 90, hip 1/0, on feet", [], 0), ("trunk 90, hip 9/0, on feet", [], 1)):
        figure = read_figure(line)
        assert list(figure_faults(figure)) == loose
        assert len(list(figure_faults(figure, exact=True))) >= tight


def test_a_position_nobody_knows_is_told():
    with pytest.raises(Problem, match="'flying'"):
        figure_from("as flying, hip 3", "standing", {})


@some.composite
def whole(draw):
    view = draw(some.sampled_from(VIEWS))
    angles = {
        name: float(draw(some.integers(*(round(one) for one in limits_of(name, view))))) for name in ANGLES
    }
    return Figure(view, angles)


@given(whole())
@examples(30)
def test_what_is_written_reads_as_it_whatever_it_goes_on_from(figure):
    base = read_figure("front, trunk 40, thigh 30, arm 9/4, on feet, touch wrist toe")
    again = read_figure(write_figure(figure), base)
    for name, point in stance(figure).items():
        assert stance(again)[name] == pytest.approx(point)
    assert (again.view, again.rests, again.held) == (figure.view, figure.rests, figure.held)


def test_settling_meets_what_rests_and_leaves_the_rest_nearly_as_it_was():
    rough = read_figure("trunk 4, hip 70, knee 100, foot 80, arm 70, on hands shins toes")
    assert list(figure_faults(rough))
    sound = settle(rough)
    assert not list(figure_faults(sound))
    points = stance(sound)
    for name in ("wrist", "farwrist", "knee", "ankle", "toe"):
        assert points[name][1] == pytest.approx(THICK[name.removeprefix("far")], abs=0.01)
    assert abs(sound.angle("trunk") - 4) < 15


def test_a_pulled_hand_goes_there_and_the_feet_stay():
    standing = settle(read_figure("trunk 90, arm 10, on feet"))
    before = stance(standing)
    neck = before["neck"]
    pulled = settle(standing, {"wrist": (neck[0] + 0.25 - anchor(standing, before), neck[1] + 0.1)})
    after = stance(pulled)
    moved = anchor(pulled, after) - anchor(standing, before)
    assert after["wrist"] == pytest.approx((neck[0] + 0.25 + moved, neck[1] + 0.1), abs=0.02)
    assert after["ankle"] == pytest.approx((before["ankle"][0] + moved, before["ankle"][1]), abs=0.02)
    assert pulled.angle("fararm") == pytest.approx(10, abs=3)
    assert not list(figure_faults(pulled))


@pytest.mark.parametrize(
    ("line", "messages"),
    [
        ("trunk 90", "rests on nothing"),
        ("trunk 90, hip 40/0, on feet", "floats|below"),
        ("trunk 20, on feet", "would fall"),
        ("trunk 90, arm 0, on seat", "below the floor"),
        ("trunk 90, arm 90, on feet, touch hand knee", "hand does not reach its knee"),
        ("trunk 90, arm 88/120, on feet, wall wrist", "in the wall"),
        ("trunk 90, hip 90, knee 140, on seat@chair", "goes through the chair"),
    ],
)
def test_what_floats_sinks_or_falls_is_told(line, messages):
    assert re.search(messages, " ".join(figure_faults(read_figure(line))))


@pytest.mark.parametrize(
    ("position", "plain"),
    [
        ("split right low", "split low"), ("split {side} high", "split high"), ("wide left", "wide side"),
        ("wide", "wide"), ("folded wide", "folded wide"), ("on-{other} long", "on-side long"),
        ("on-left bent", "on-side bent"), ("seated or chair", "seated"), ("", ""),
    ],
)  # fmt: skip
def test_a_position_without_its_sides(position, plain):
    assert plain_position(position) == plain
