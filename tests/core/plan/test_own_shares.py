"""Her own seconds in a brief: kept in an outline, refused where nobody could mean them, felt in a class."""

import msgspec
import pytest

from tests.conftest import demo_maker, shipped
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.own_shares import own_share, way_kind
from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.problem import Problem

HERS = {"ways": 1.2, "ways standing to supine": 1.5, "count bridge": 0.9, "breath": 1.1, "voice rest": 1.3}


def with_own(plan, **own):
    return msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, own=own))


def test_a_kind_with_a_share_of_its_own_takes_no_other():
    assert own_share(HERS, "ways", "standing to supine") == 1.5
    assert own_share(HERS, "ways", way_kind("start", "seated crossed")) == 1.2
    assert own_share(HERS, "count", "hundred") == 1.0


def test_they_stand_in_an_outline_and_come_back():
    plan = Plan(brief=Brief(own=HERS))
    library = shipped().library
    assert read_outline(write_outline(plan, library), library).brief.own == HERS


@pytest.mark.parametrize(
    ("own", "messages"),
    [
        ({"ways": 40.0}, "Her own ways"),
        ({"naps": 1.0}, "called 'naps'"),
        ({"breath": float("nan")}, "breath"),
    ],
)
def test_what_nobody_could_mean_is_told(own, messages):
    plan = demo_maker("bell-ringers").plan
    with pytest.raises(Problem, match=messages):
        solve(msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, own=own)), shipped())


@pytest.mark.parametrize("what", ["ways", "teaching", "breath", "voice"])
def test_each_makes_a_class_longer_by_itself(what):
    solved = demo_maker("bell-ringers")
    slower = solve(with_own(solved.plan, **{what: 1.3}), shipped())
    assert slower.preferred_s > solved.preferred_s + 5


def test_a_count_of_one_movement_is_hers_alone():
    solved = demo_maker("sail-loft-mat")
    counted = next(use for use in solved.uses if use.kind == "reps" and use.unit)
    slower = solve(with_own(solved.plan, **{f"count {counted.movement.id}": 1.5}), shipped())
    before, after = ({t.key: t.unit for t in one.uses} for one in (solved, slower))
    other = {key for key in before if before[key] != after[key]}
    assert other
    movements = {use.key: use.movement.id for use in solved.uses}
    assert {movements[key] for key in other} == {counted.movement.id}
