"""Numbers that nobody could mean are told with their place, and never worked with."""

import math

import pytest

from tests.conftest import plan_of, shipped
from yewhour.core.outline.reader import read_outline
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_edits
from yewhour.core.plan.nodes import (
    LineEdit,
    Pair,
    Rounds,
    SideDifference,
    Step,
    Variant,
)
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem

WORDS = shipped()
NAN, INF = math.nan, math.inf


def nested(depth):
    node = Step(movement="child")
    for _ in range(depth):
        node = Rounds(body=(node,), times=1)
    return node


@pytest.mark.parametrize(
    "node",
    [
        Step(movement="child", amount=1_000_000),
        Step(movement="child", amount=10**30),
        Step(movement="child", count_s=NAN),
        Step(movement="child", count_s=INF),
        Step(movement="child", weight=1e308),
        Step(movement="child", weight=-1.0),
        Step(movement="child", facing="up"),
        Step(movement="child", mat="middle"),
        Step(movement="child", side="both"),
        Step(movement="equal-breath", pattern=(0, 0, 0, 0)),
        Step(movement="equal-breath", pattern=(4, 0, NAN, 0)),
        Pair(body=(Step(movement="low-lunge"),), lead="both"),
        Pair(body=(Step(movement="low-lunge"),), from_round=2**31),
        Step(movement="child", pace=Pace(NAN)),
        Step(movement="child", pace=Pace(8, (1e308, 0, 1e308, 0))),
        Step(movement="child", pace=Pace(8, (NAN, 0, 1, 0))),
        Pair(body=(Step(movement="low-lunge", second=SideDifference(more=-(10**30))),)),
        Rounds(body=(Step(movement="child"),), times=20_000),
        Rounds(body=(Rounds(body=(Step(movement="child"),), times=900),), times=900),
        nested(400),
        Variant(ways={"a": ()}, chosen="a"),
        Rounds(body=(Step(movement="child", from_round=5),), times=2),
    ],
)  # fmt: skip
def test_a_step_that_cannot_be_meant_is_refused_at_once(node):
    with pytest.raises(Problem) as refused:
        solve(plan_of(node), WORDS).make()
    assert refused.value.do
    assert "fault of the program" not in refused.value.do


@pytest.mark.parametrize(
    "brief",
    [
        {"voice_rate": 0.0}, {"voice_rate": INF}, {"tolerance_s": NAN}, {"target_s": -1.0}, {"target_s": 1e9},
        {"pace": Pace(0)}, {"pace_gives": INF}, {"ways": {"talk": 1e308}}, {"ways": {"count_s": 0}},
        {"style": "no such"}, {"ways": {"no_such": 1}},
    ],
)  # fmt: skip
def test_a_promise_that_cannot_be_meant_is_refused(brief):
    with pytest.raises(Problem) as refused:
        solve(plan_of(Step(movement="child"), **brief), WORDS).make()
    assert refused.value.where.startswith("the promise")


def test_a_line_of_an_unknown_purpose_or_moment_is_refused():
    plan = plan_of(Step(movement="child"))
    for fields in ({"purpose": "sing"}, {"at_s": NAN}, {"at_s": 1e12}):
        edit = LineEdit(**{"step": "n1", "purpose": "align", "do": "add", "text": "Oh.", **fields})
        with pytest.raises(Problem):
            solve(with_edits(plan, (edit,)), WORDS)


def test_a_glide_that_is_no_pace_is_refused():
    with pytest.raises(Problem, match="glide"):
        solve(Plan(sections=(Section(title="All", body=(Step(movement="child"),), glide_to=-3.0),)), WORDS)


@pytest.mark.parametrize(
    "line",
    [
        "voice rate: inf",
        "tolerance: nan",
        "target counts: maybe",
        "length: 9999999:00",
        "pace: 1.2.3",
        "pace: inf",
    ],
)
def test_an_outline_whose_file_could_not_be_opened_is_refused(line):
    with pytest.raises(Problem) as refused:
        read_outline(f"title: A\n{line}\nstyle: hatha\n# All\nchild 5b", WORDS.library, "mine.txt")
    assert refused.value.where.startswith("mine.txt")


@pytest.mark.parametrize(
    "line", ["# All | glide 1.2.3", "child 99999999999999999999b", "child count 1.2.3", "rounds 99999999"]
)
def test_an_unfinished_or_endless_number_is_refused_with_its_line(line):
    with pytest.raises(Problem, match="line 2"):
        read_outline(f"# All\n{line}\n" if not line.startswith("#") else f"title: A\n{line}\n", WORDS.library)


def test_an_outline_nested_without_end_is_refused():
    lines = "\n".join(f"{'  ' * depth}rounds 1" for depth in range(400))
    with pytest.raises(Problem, match="40 steps in"):
        read_outline(f"# All\n{lines}", WORDS.library)


@pytest.mark.parametrize("steps", [500])
def test_five_hundred_wide_numbers_are_weighed_in_seconds_or_refused(steps):
    names = ["child", "cobra", "downward-dog", "seated-breath"]
    nodes = [
        Step(movement=names[n % 4], amount=200 + n, least=1, most=14_000, pace=Pace(6 + n % 5))
        for n in range(steps)
    ]
    with pytest.raises(Problem) as refused:
        solve(plan_of(*nodes, target_s=7200.0), WORDS)
    assert refused.value.do


def test_a_beginning_nobody_knows_is_told_with_those_there_are():
    plan = read_outline("title: A\nbegins: upside down\n\n# Rest\nchild\n", WORDS.library)
    with pytest.raises(Problem) as told:
        solve(plan, WORDS)
    assert "upside down" in told.value.what
    assert "Use one of: standing, " in told.value.do
