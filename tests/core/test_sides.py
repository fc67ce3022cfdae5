import pytest
from hypothesis import given
from hypothesis import strategies as st

from yewhour.core.sides import SIDES, fill, mirrored
from yewhour.core.wording.directions import directions


def test_side_words_come_from_tokens_alone():
    line = "All right: {Side} foot forward, upright over the {other} knee, at a right angle."
    assert (
        fill(line, "left") == "All right: Left foot forward, upright over the right knee, at a right angle."
    )


def test_a_side_token_without_a_side_stays_to_be_found():
    assert fill("{Side} foot", "both") == "{Side} foot"


@given(st.sampled_from(SIDES))
def test_mirroring_twice_is_nothing(side):
    assert mirrored(mirrored(side)) == side


@given(st.sampled_from(["left", "right"]), st.text(alphabet="ab {}sideothrSO", max_size=40))
def test_a_mirrored_line_swaps_side_and_other(side, text):
    assert fill(text, side).replace("left", "#").replace("right", "left").replace("#", "right") == fill(
        text, mirrored(side)
    )


@pytest.mark.parametrize(
    ("text", "named"),
    [
        ("It is a twist that's left to happen.", set()),
        ("Let the scarf be drawn through, and then left alone.", set()),
        ("There's nothing left to guard.", set()),
        ("What the day has left at the bottom.", set()),
        ("From left to right.", {"left", "right"}),
        ("Roll left to the wall.", {"left"}),
        ("Over to the left.", {"left"}),
    ],
)
def test_what_is_left_is_no_side(text, named):
    assert directions(text) == named
