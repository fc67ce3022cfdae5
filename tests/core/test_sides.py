from hypothesis import given
from hypothesis import strategies as st

from yewhour.core.sides import SIDES, fill, mirrored


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
