"""Every plan that can be a class at a length is one: what is fitted is what is laid out, in every shape."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, plan_of, shipped
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Block,
    Pair,
    Rounds,
    SideDifference,
    Step,
    walk,
)
from yewhour.core.problem import CannotFit, Problem

WORDS = shipped()
HELD = [
    "child",
    "cobra",
    "downward-dog",
    "low-lunge",
    "warrior-two",
    "lying-twist",
    "clam",
    "pause",
    "final-rest",
]


def laid_out_at(plan, length_s=None):
    solved = solve(plan, WORDS)
    length_s = solved.preferred_s if length_s is None else length_s
    timed = solved.make(length_s)
    assert timed.segments[-1].end == round(length_s * 10)
    return timed


@st.composite
def steps(draw):
    second = draw(st.none() | st.builds(SideDifference, more=st.integers(-2, 2), leave_out=st.booleans()))
    return Step(
        movement=draw(st.sampled_from(HELD)),
        amount=draw(st.none() | st.integers(4, 9)),
        locked=draw(st.booleans()),
        second=second,
        from_round=draw(st.sampled_from([1, 1, 1, 2, 3])),
    )


def rounds_of(nodes):
    return st.builds(
        lambda body, times, down, up: Rounds(
            body=tuple(body), times=times, least=max(1, times - down), most=times + up
        ),
        st.lists(nodes, min_size=1, max_size=3),
        st.integers(1, 3),
        st.integers(0, 2),
        st.integers(0, 2),
    )  # fmt: skip


pairs = st.builds(lambda body: Pair(body=tuple(body)), st.lists(steps(), min_size=1, max_size=2))
SHORT = [name for name in sorted(WORDS.blocks) if len(list(walk(WORDS.blocks[name]))) < 8]  # enough of any
blocks = st.sampled_from([Block(name=name) for name in SHORT])
shallow = st.one_of(steps(), pairs, blocks, rounds_of(steps()))
nodes = st.one_of(shallow, shallow, rounds_of(shallow))


@examples(30)
@given(st.lists(nodes, min_size=1, max_size=5), st.floats(0, 1))
def test_what_is_fitted_is_what_is_laid_out(body, share):
    try:
        solved = solve(plan_of(*body), WORDS)
        length_s = solved.nearest_s(solved.shortest_s + share * (solved.longest_s - solved.shortest_s))
        timed = solved.make(length_s)
    except Problem as problem:
        said = str(problem)
        assert "fault of the program" not in said
        assert "fewer than" in said or "Nothing in this class" in said or "need an even number" in said
        return
    assert timed.segments[-1].end == timed.length == round(length_s * 10)


@pytest.mark.parametrize(
    ("outline", "length_s"),
    [
        ("insert seated opening\ninsert seated opening\nchild 5b", None),
        ("pair\n  lying twist\n  pause", None),
        ("rounds 2 (1-4)\n  cobra\n  child from round 3\nwarrior two 5b", 180.0),
        ("rounds 2 (1-4)\n  cobra\n  child from round 3\nwarrior two 5b", 240.0),
    ],
)
def test_shapes_that_once_were_a_fault_of_the_program(outline, length_s):
    plan = read_outline(f"title: A\nlength: 10:00\nstyle: hatha\n# All\n{outline}", WORDS.library)
    solved = solve(plan, WORDS)
    for asked in [length_s] if length_s else (solved.shortest_s, solved.preferred_s, solved.longest_s):
        try:
            laid_out_at(plan, asked)
        except CannotFit as refused:
            assert refused.shortest_s <= refused.longest_s  # noqa: PT017


def test_a_block_put_in_twice_has_numbers_of_its_own_each_time():
    name = next(n for n in SHORT if any(isinstance(s, Step) for s in WORDS.blocks[n]))
    solved = solve(plan_of(Block(name=name), Step(movement="cobra"), Block(name=name)), WORDS)
    keys = [use.number for use in solved.uses if "@" in use.number and use.unit]
    assert len(keys) == len(set(keys))


def test_a_second_side_of_nothing_is_refused():
    step = Step(movement="low-lunge", amount=1, locked=True, second=SideDifference(more=-2))
    with pytest.raises(Problem, match="can't be 2 fewer than 1"):
        solve(plan_of(Pair(body=(step,))), WORDS)


def test_seven_groups_of_eight_are_fitted_at_once_and_reach_as_far_as_they_can():
    groups = tuple(
        Rounds(body=(Step(movement="cobra", amount=2),), times=4, least=1, most=8) for _ in range(7)
    )
    plan = plan_of(Pair(body=(Step(movement="low-lunge"), *groups)), target_s=1800.0)
    solved = solve(plan, WORDS)
    most = {key: group.most for key, group in solved.unfolded.groups.items()}
    assert solved.fit.at(solved.fit.longest).rounds == most
    for share in (0.2, 0.5, 0.9):
        laid_out_at(
            plan, solved.nearest_s(solved.shortest_s + share * (solved.longest_s - solved.shortest_s))
        )


def test_a_class_longer_than_four_hours_within_one_part_is_refused():
    block = Rounds(body=(Block(name="classical mat"),) * 3, times=9)
    with pytest.raises(CannotFit, match="longer than four hours"):
        solve(plan_of(block), WORDS)
