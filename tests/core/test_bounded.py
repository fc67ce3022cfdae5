"""Whatever a plan's numbers are, it is made within seconds or refused with the reason."""

from random import Random

import pytest

from tests.conftest import shipped, some_of
from yewhour.core.edits.compare import nearest_class
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Pair,
    Rounds,
    Step,
    Variant,
)
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.problem import Problem
from yewhour.core.timing.doses import amount_range


def child(**fields):
    return Step(movement="child", amount=5, **fields)


def planned(body, target_s):
    return with_ids(Plan(brief=Brief(target_s=target_s), sections=(Section(title="All", body=tuple(body)),)))


def rounds(most, *body):
    return Rounds(times=2, least=1, most=most, body=body)


WIDE = {"least": 1, "most": 14400}
PLANS = {
    "500 of any number": [child(**WIDE)] * 500,
    "500 of any weight": [child(least=1, most=900, weight=weight) for weight in (0.001, 1000)] * 250,
    "100 groups of rounds": [rounds(9, *[child()] * 5)] * 100,
    "rounds in rounds in rounds": [rounds(10, rounds(10, rounds(10, *[child(least=1, most=100)] * 4)))],
    "many rounds of much": [rounds(1000, *[child(least=1, most=300)] * 4)],
    "20 groups of 200 rounds": [rounds(200, child(least=1, most=500))] * 20,
    "a round more each time": [rounds(60, *[child(least=1, most=50, from_round=n) for n in range(1, 61)])],
    "pairs of 100": [Pair(body=tuple([Step(movement="low-lunge", least=1, most=300)] * 100))] * 5,
    "ways of 100": [Variant(ways={"a": tuple([child(**WIDE)] * 100), "b": ()}, chosen="a")] * 5,
}


LONGEST = ("rounds in rounds in rounds", "20 groups of 200 rounds")


@pytest.mark.parametrize(
    "name", [pytest.param(name, marks=pytest.mark.long if name in LONGEST else ()) for name in PLANS]
)
def test_what_would_take_long_is_refused_with_its_reason_or_made(name):
    plan = with_ids(
        Plan(brief=Brief(target_s=14400.0), sections=(Section(title="All", body=tuple(PLANS[name])),))
    )
    try:
        nearest_class(solve(plan, shipped()))
        said = ""
    except Problem as problem:
        said = str(problem)
    assert not said or "more to choose from" in said or "longer than four hours. Shorten it." in said


@pytest.mark.parametrize("seed", some_of(range(6), 3))
def test_five_hundred_steps_of_any_sort_are_made(seed):
    dice, library = Random(seed), sorted(shipped().library)
    body = []
    for _ in range(500):
        amount = dice.choice((None, 2, 4, 6))
        most = (amount or 2) + dice.choice((0, 1, 5, 40)) if dice.random() < 0.5 else None
        body.append(Step(movement=dice.choice(library), amount=amount, most=most, least=1 if most else None))
    plan = with_ids(
        Plan(
            brief=Brief(target_s=7200.0), sections=(Section(title="All", body=tuple(body[: 60 + seed * 88])),)
        )
    )
    try:
        solved = solve(plan, shipped())
        assert solved.make(solved.preferred_s).segments
        assert solved.make(solved.shortest_s).length_s == solved.shortest_s
        said = "made"
    except Problem as problem:
        said = problem.do
    assert said


@pytest.mark.parametrize("movement", ["child", "final-rest", "equal-breath", "clam"])
def test_a_step_s_own_most_and_least_are_stronger_than_its_movement_s(movement):
    library = shipped().library
    kind = library[movement].kind
    below = amount_range(Step(movement=movement, most=1), library[movement], kind)
    assert (below.least, below.preferred, below.most) == (1, 1, 1)
    above = amount_range(Step(movement=movement, least=9000), library[movement], kind)
    assert (above.least, above.preferred, above.most) == (9000, 9000, 9000)
