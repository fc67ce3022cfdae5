"""A body of joints: where its points are, its other side, what is between two, where its weight is."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as some

from tests.conftest import examples
from yewhour.core.figure.body import (
    Figure,
    Support,
    between,
    mirrored,
    stance,
    unbalanced,
    weight_at,
)
from yewhour.core.figure.drawing import LEAST_HIGH, drawing_of, placed
from yewhour.core.figure.figure_line import read_figure
from yewhour.core.figure.joints import (
    ANGLES,
    POINTS,
    SHIN,
    THICK,
    THIGH,
    VIEWS,
    limits_of,
)


@some.composite
def figures(draw):
    view = draw(some.sampled_from(VIEWS))
    angles = {name: draw(some.floats(*limits_of(name, view))) for name in ANGLES}
    rests = tuple(
        Support(part) for part in draw(some.sets(some.sampled_from(("foot", "farfoot", "seat", "hand"))))
    )
    return Figure(view, angles, rests, (), draw(some.booleans()))


@given(figures())
@examples(30)
def test_mirrored_twice_is_the_same_and_once_is_the_same_looking_the_other_way(figure):
    assert mirrored(mirrored(figure)) == figure
    here, there = stance(figure), stance(mirrored(figure))
    flat = figure.view in ("above", "facedown")
    for name in POINTS:
        (x, y), (u, v) = here[name], there[name]
        assert (u, v) == pytest.approx((x, -y) if flat else (-x, y))


@given(figures())
@examples(30)
def test_bones_keep_their_length_and_what_rests_is_down(figure):
    points = stance(figure)
    for far in ("", "far"):
        thigh = math.dist(points[f"{far}hip"], points[f"{far}knee"])
        shin = math.dist(points[f"{far}knee"], points[f"{far}ankle"])
        assert (thigh, shin) == pytest.approx((THIGH, SHIN))
    if figure.view in ("side", "front") and len(figure.rests) == 1 and figure.rests[0].part == "seat":
        assert points["seat"][1] == pytest.approx(THICK["seat"])


@given(figures(), figures(), some.floats(0, 1))
@examples(20)
def test_between_two_figures_every_joint_is_between(first, second, share):
    there = between(first, second, share)
    if first.view != second.view:
        assert there in (first, second)
        return
    for name in ANGLES:
        low, high = sorted((first.angle(name), second.angle(name)))
        assert low - 1e-6 <= there.angle(name) <= high + 1e-6


def test_knees_bend_back_elbows_forward_and_hips_forward():
    sitting = stance(read_figure("trunk 90, hip 90, knee 90, arm 90, elbow 90"))
    assert sitting["knee"][0] > sitting["seat"][0] + 0.2
    assert sitting["ankle"][1] < sitting["knee"][1] - 0.2
    assert sitting["elbow"][0] > sitting["neck"][0] + 0.1
    assert sitting["wrist"][1] > sitting["elbow"][1] + 0.1
    lying = stance(read_figure("trunk 180, hip 90, knee 0"))
    assert lying["head"][0] < lying["seat"][0]
    assert lying["ankle"][1] > lying["seat"][1] + 0.4


def test_right_is_right_from_behind_and_towards_who_looks_down_on_the_back():
    behind = stance(read_figure("front, trunk 90, hip 30/0, arm 90/0"))
    assert behind["knee"][0] > 0 > behind["farknee"][0]
    above = stance(read_figure("above, trunk 180, arm 90/0"))
    assert above["head"][0] < 0
    assert above["wrist"][1] < 0  # on the back, head to the left, the right hand is below
    facedown = stance(read_figure("facedown, trunk 180, arm 90/0"))
    assert facedown["wrist"][1] > 0


def test_weight_is_told_where_it_is_over_nothing():
    standing = read_figure("trunk 90, on feet")
    assert weight_at(stance(standing))[0] == pytest.approx(0.0, abs=0.02)
    assert 0.4 < weight_at(stance(standing))[1] < 0.7  # a little over half the height
    assert unbalanced(standing, stance(standing)) == 0
    leaning = read_figure("trunk 20, hip 0, on feet")
    assert abs(unbalanced(leaning, stance(leaning))) > 0.1
    held = read_figure("trunk 20, hip 0, on feet, wall wrist farwrist")
    assert unbalanced(held, stance(held)) == 0


@given(figures())
@examples(20)
def test_a_drawing_fills_its_box_and_stands_in_the_box_it_is_put_in(figure):
    drawing = drawing_of(figure)
    left, bottom, right, top = drawing.box
    corners = [corner for shape in drawing.shapes for corner in shape.corners]
    assert (min(x for x, _ in corners), max(x for x, _ in corners)) == pytest.approx((left, right))
    assert max(y for _, y in corners) == pytest.approx(top)
    assert min(y for _, y in corners) >= bottom - 1e-9
    inside = [corner for shape in placed(drawing, (10, 20, 60, 40)) for corner in shape.corners]
    assert all(10 - 1e-6 <= x <= 70 + 1e-6 and 20 - 1e-6 <= y <= 60 + 1e-6 for x, y in inside)
    low = max(y for _, y in inside) - min(y for _, y in inside)
    assert low <= 40 * max(1.0, (top - bottom) / max(LEAST_HIGH, top - bottom)) + 1e-6


def test_from_the_front_hips_stand_beside_the_seat_and_from_the_side_they_are_it():
    front, side = (stance(read_figure(f"{view}trunk 90, on feet")) for view in ("front, ", ""))
    assert front["hip"][0] > front["seat"][0] > front["farhip"][0]
    assert side["hip"] == side["farhip"] == side["seat"]


def widths(shapes, what):
    return [
        max(math.dist(one, other) for one in shape.corners for other in shape.corners)
        for shape in shapes
        if shape.what == what
    ]


def test_what_is_further_off_is_thinner():
    shapes = drawing_of(read_figure("trunk 90, arm 40, farhip 20, on feet")).shapes
    assert max(widths(shapes, "far")) < max(widths(shapes, "near"))


def test_a_strap_is_a_line_from_the_hand_to_the_foot():
    figure = read_figure("trunk 180, hip 90, arm 90, on seat back shoulders, strap hand toe")
    (strap,) = [one for one in drawing_of(figure).shapes if one.what == "line"]
    xs, ys = ([point[axis] for point in strap.corners] for axis in (0, 1))
    assert min(max(xs) - min(xs), max(ys) - min(ys)) < 0.4
