"""A recording brought in is a class of its own kind, and about as long as it was."""

from functools import cache

import pytest

from tests.conftest import shipped
from tools.spoken import LATER
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.review.bring_in import LEAST_SHARE, own_share_of, with_own_seconds
from yewhour.core.transcript.captions import read_captions
from yewhour.state.takes.recordings import brought_from


@cache
def brought_outline(name):
    return brought_from(hearing_of(name), shipped(), name).outline


def hearing_of(name):
    return read_captions((LATER / f"{name}.txt").read_bytes())


def plan_of(name):
    return read_outline(brought_outline(name), shipped().library), hearing_of(name).length_s


@pytest.mark.parametrize(
    ("name", "style", "level", "time"),
    [
        ("vestry-elders", "chair-balance", "mixed", "morning"),
        ("packhouse-reform", "mat-modern", "beginners", ""),
        ("chapel-flow", "flow", "mixed", ""), ("cellar-yin", "slow", "mixed", "evening"),
        ("tide-table-breath", "breathing", "mixed", ""), ("bandstand-hatha", "hatha", "gentle", "evening"),
    ],
)  # fmt: skip
def test_its_style_is_that_of_what_was_done_and_its_head_of_what_was_said(name, style, level, time):
    brief = plan_of(name)[0].brief
    assert (brief.style, brief.level, brief.time_of_day) == (style, level, time)


def test_it_is_naturally_nearer_to_its_recording_than_with_the_usual_seconds():
    plan, lasted_s = plan_of("chapel-flow")
    assert plan.brief.own["ways"] < 1
    natural_s = solve(plan, shipped()).preferred_s
    usual = read_outline(
        "\n".join(row for row in brought_outline("chapel-flow").splitlines() if not row.startswith("own ")),
        shipped().library,
    )
    assert abs(natural_s - lasted_s) < abs(solve(usual, shipped()).preferred_s - lasted_s)


def test_the_share_is_the_one_with_which_it_lasts_as_long_and_none_where_it_does():
    assert own_share_of(800, lambda share: 500 + 400 * share) == 0.75
    assert own_share_of(900, lambda share: 500 + 400 * share) == 1
    assert own_share_of(100, lambda share: 500 + 400 * share) == LEAST_SHARE
    assert own_share_of(100, lambda share: 500) == 1  # nothing of it is ways or teaching


def test_the_share_stands_below_the_length():
    assert with_own_seconds("title: A\nlength: 9:00\n\n# All", 0.8).splitlines()[2:4] == [
        "own ways: 0.8", "own teaching: 0.8",
    ]  # fmt: skip
    assert with_own_seconds("length: 9:00", 1) == "length: 9:00"
