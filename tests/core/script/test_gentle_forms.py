"""What everybody does in its gentler way is placed so from the beginning, and left from where it is."""

import pytest

from tests.conftest import made_of, shipped
from yewhour.core.plan.nodes import Step


def said(*steps, **brief):
    return [cue.text for cue in made_of(*steps, length_s=None, **brief).cues]


def test_nobody_curls_up_whose_head_is_to_stay_down():
    lines = " ".join(said(Step(movement="hundred", take="gentler"), Step(movement="knees-to-chest"))).lower()
    assert "leave the head on the mat" in lines
    assert "curl" not in lines
    assert "head down" not in lines
    assert "lay the head" not in lines


def test_the_whole_of_it_still_curls_up_and_lays_the_head_down():
    lines = " ".join(said(Step(movement="hundred"), Step(movement="knees-to-chest"))).lower()
    assert "curl head and shoulders up" in lines
    assert "head down" in lines


@pytest.mark.parametrize("name", ["high-lunge", "warrior-two"])
def test_without_a_form_the_card_is_said_and_then_what_is_less_of_it(name):
    less = shipped().library[name].gentler.line[0].rstrip(".").lower()
    lines = said(Step(movement=name, take="gentler"))
    told = next(line for line in lines if less in line.lower())
    assert not told.lower().startswith(less)  # it is no flat order against what was just said
    place = shipped().library[name].card.place[0][:9].lower()
    assert any(place in line.lower() for line in lines[: lines.index(told)])
