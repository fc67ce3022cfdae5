"""Stages of a movement in one drawing, what of it works, and where the letter of its side stands."""

from math import dist

import pytest

from yewhour.core.figure.body import apart, mirrored, stance
from yewhour.core.figure.drawing import drawing_of
from yewhour.core.figure.figure_line import read_figure, write_figure
from yewhour.core.figure.figures import best
from yewhour.core.figure.letter import BONES, CLEAR, letter_place
from yewhour.core.figure.settle import settle
from yewhour.core.figure.stages import in_one_place, overlaid, working

LYING = read_figure("trunk 180, hip 50, knee 100, foot 40, arm 0, on seat back shoulders feet")
LIFTED = read_figure("hip 92/50, knee 0/100, on seat back shoulders farfoot", LYING)
STANDING = read_figure("trunk 90, arm 8, on feet")
BENT = settle(read_figure("trunk 66, hip 74, knee 66, foot -16, arm 90, on feet", STANDING))
ROLLED = read_figure("trunk 214, bend 54, nod 40, hip 132, on back shoulders", LYING)


def whats(figures):
    return {shape.what for shape in overlaid(figures).shapes}


def test_two_stages_lie_over_each_other_where_something_rests_in_both():
    assert in_one_place((LYING, LIFTED))
    assert in_one_place((STANDING, BENT))
    assert not in_one_place((LYING, STANDING))  # nothing rests in both
    assert not in_one_place((LYING,))
    assert not in_one_place((LYING, LIFTED, LYING))
    assert not in_one_place((STANDING, read_figure("front, hip 4, arm 12, on feet", STANDING)))


def test_the_first_is_pale_and_stands_where_the_second_stands():
    over = overlaid((STANDING, BENT))
    assert {"ghost", "arrow", "middle", "near"} <= {shape.what for shape in over.shapes}
    alone = drawing_of(BENT)
    assert [one for one in over.shapes if one.what == "near"] == [
        one for one in alone.shapes if one.what == "near"
    ]
    feet = [y for one in over.shapes if one.what == "ghost" for _, y in one.corners]
    assert min(feet) == pytest.approx(0.0, abs=0.012)
    left, bottom, right, top = over.box
    assert all(left <= x <= right and bottom <= y <= top for one in over.shapes for x, y in one.corners)


def arrow_tips(figures):
    """Where the arrows of two stages end: the corners of their heads."""
    heads = [one.corners for one in overlaid(figures).shapes if one.what == "arrow" and len(one.corners) == 3]
    return [corners[0] for corners in heads]


def test_an_arrow_follows_the_limb_that_moves_to_where_it_goes():
    (tip,) = arrow_tips((LYING, LIFTED))
    toe = stance(LIFTED)["toe"]
    assert dist(tip, toe) < 0.3 < dist(tip, stance(LYING)["toe"])


def test_a_body_that_sinks_has_one_arrow_down_beside_it():
    (tip,) = arrow_tips((STANDING, BENT))
    assert tip[0] < min(stance(BENT)[name][0] for name in ("seat", "back", "neck"))
    (up,) = arrow_tips((BENT, STANDING))
    assert up[1] > tip[1]


def test_what_circles_or_turns_says_so_itself_and_has_no_other_arrow():
    circling = read_figure("hip 92/50, knee 0/100, on seat back shoulders farfoot, circle ankle", LYING)
    assert len(arrow_tips((LYING, circling))) == 1
    right, left = (drawing_of(one) for one in (circling, mirrored(circling)))
    assert (
        [one.what for one in right.shapes].count("arrow")
        == [one.what for one in left.shapes].count("arrow")
        > 5
    )


def test_what_moves_works_and_where_nothing_moves_what_is_unlike_the_other_side():
    assert [one.works for one in working((LYING, LIFTED))] == [("leg",), ("leg",)]
    assert working((read_figure("arm 90/10", STANDING),))[0].works == ("arm",)
    assert working((STANDING,))[0].works == ()
    told = read_figure("arm 90/10, works leg", STANDING)
    assert working((told,))[0].works == ("leg",)


def test_only_what_works_is_drawn_in_the_colour_of_the_side():
    (one,) = working((read_figure("arm 90/10", STANDING),))
    counted = [shape.what for shape in drawing_of(one).shapes]
    assert counted.count("near") == 8  # an arm: four bones, a wrist, three of a hand
    assert counted.count("still") > counted.count("near") - 2


@pytest.mark.parametrize("figure", [LIFTED, BENT, ROLLED, mirrored(LIFTED)])
@pytest.mark.parametrize("works", [("leg",), ("arm",), ()])
def test_the_letter_stands_near_its_limb_and_over_nothing(figure, works):
    (one,) = working((read_figure(" ".join(["works", *works]), figure),)) if works else (figure,)
    points = stance(one)
    (x, y), (u, v) = letter_place(one, points)
    assert CLEAR - 1e-9 <= dist((0, 0), (u, v)) <= 0.3
    at = (x + u, y + v)
    assert min(apart(points[one], points[other], at) for one, other, _ in BONES) > 0.04
    assert at[1] > -0.05


def test_the_best_is_the_second_or_the_one_that_says_so():
    first, told = LYING, read_figure("best", LYING)
    assert best((first, LIFTED, first)) is LIFTED
    assert best((told, LIFTED)) is told
    assert best((first,)) is first
    assert best(()) is None
    assert read_figure(write_figure(told)) == read_figure(write_figure(told), LIFTED)
    assert read_figure(write_figure(told)).best


def test_two_limbs_that_go_each_have_their_arrow():
    four = read_figure("trunk 0, hip 90, knee 90, arm 90, on hand farhand knee farknee foot farfoot")
    stretched = read_figure("hip 0/90, knee 0/90, arm 180/90, on farhand farknee farfoot", four)
    assert len(arrow_tips((four, stretched))) == 2
