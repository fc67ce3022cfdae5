"""Which class of the shelf a recording is of, where it is not the one it was held against."""

from pathlib import Path
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as some

from tests.conftest import demo_maker, shipped
from tools.teachers import captions, taught
from yewhour.core.review.whose import AHEAD, FEWEST, LIKE, alike, likeliest
from yewhour.core.shelf.class_sheet import sheet_of
from yewhour.core.transcript.captions import read_captions
from yewhour.state.takes.recordings import review_recording, told_whose

SPOKEN = Path(__file__).parents[1] / "transcript" / "spoken"
SHELF = ("bell-ringers", "lamps-out", "sail-loft-mat", "hips-after-the-helm", "two-chairs-and-a-kettle")
ROW = some.lists(some.sampled_from("abcdefgh"), unique=True, max_size=8)


@given(ROW, ROW)
def test_what_is_alike_is_so_both_ways_and_the_same_is_wholly(one, other):
    assert alike(one, other) == alike(other, one)
    assert 0 <= alike(one, other) <= 1
    assert not one or alike(one, one) == 1
    assert not one or set(one) & set(other) or alike(one, other) == 0


def test_the_order_counts():
    assert alike("abcd", "abcd") > alike("abcd", "dcba") > 0


@pytest.mark.parametrize(
    ("heard", "classes", "title"),
    [
        ("abcdef", {"One": "abcdef", "Two": "ghijkl"}, "One"),
        ("abcdef", {"One": "abcdef", "Two": "abcdef"}, ""),  # it may be either
        ("abcdef", {"Held": "abcdef", "Two": "ghijkl"}, ""),  # it is the one it was held against
        ("abc", {"One": "abc"}, ""),  # too little was heard
        ("abcdef", {"One": "axxxxxxxxx"}, ""),  # nothing is near
        ("abcdef", {}, ""),
        ("aabbccdd", {"One": "abcd"}, "One"),  # heard again is heard once
    ],
)
def test_only_what_is_clearly_nearest_is_told(heard, classes, title):
    assert likeliest(list(heard), {name: list(row) for name, row in classes.items()}, "Held") == title


def test_near_enough_and_far_enough_from_the_next_are_as_told():
    ten = [f"m{n}" for n in range(10)]
    near = ten[:4] + [f"x{n}" for n in range(6)]  # 0.4 of it
    assert alike(ten, near) == pytest.approx(LIKE)
    assert likeliest(ten, {"One": near}, "") == "One"
    assert likeliest(ten, {"One": [*near, "y"]}, "") == ""
    beside = ten[:3] + [f"z{n}" for n in range(7)]
    assert alike(ten, near) - alike(ten, beside) < AHEAD
    assert likeliest(ten, {"One": near, "Two": beside}, "") == ""
    assert likeliest(ten[:FEWEST], {"One": ten[:FEWEST]}, "") == "One"
    assert likeliest(ten[: FEWEST - 1], {"One": ten[: FEWEST - 1]}, "") == ""


def sheets():
    return [sheet_of(demo_maker(name).make()) for name in SHELF]


@pytest.mark.parametrize("name", ["lamps-out", pytest.param("sail-loft-mat", marks=pytest.mark.long)])
def test_a_class_that_was_spoken_from_its_script_is_known(name):
    said = read_captions(captions(taught(demo_maker(name).make(), Random(3))))
    held = demo_maker("hips-after-the-helm").make()
    looked = told_whose(review_recording(held, None, said), shipped(), sheets)
    title = demo_maker(name).make().plan.brief.title
    assert [one.code for one in looked.found] == ["stranger", "whose"]
    assert title in looked.found[1].message
    assert looked.found[1].fix


def test_a_class_that_is_on_no_shelf_is_only_told_to_be_another():
    said = read_captions((SPOKEN / "slipway-core.txt").read_bytes())
    held = demo_maker("lamps-out").make()
    looked = told_whose(review_recording(held, None, said), shipped(), sheets)
    assert [one.code for one in looked.found] == ["stranger"]


def test_the_shelf_is_not_asked_where_the_class_is_the_right_one():
    timed = demo_maker("lamps-out").make()
    said = read_captions(captions(taught(timed, Random(3))))
    looked = review_recording(timed, None, said)
    assert told_whose(looked, shipped(), lambda: pytest.fail("it was asked")) == looked
