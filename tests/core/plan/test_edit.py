"""What an edit of one node does to its numbers."""

import pytest

from tests.conftest import plan_of
from yewhour.core.pace import Pace
from yewhour.core.plan.edit import Repeat, SetAmount, SetMost, SlowSection, apply, words_gone
from yewhour.core.plan.nodes import Block, LineEdit, Rounds, Step


def changed(node, edit, **values):
    plan = plan_of(node)
    name = plan.sections[0].body[0].id
    return apply(plan, edit(node=name, title="Try", **values)).sections[0].body[0]


@pytest.mark.parametrize(("most", "then"), [(4, 6), (6, 6), (9, 9), (None, None)])
def test_so_much_and_no_less_lifts_what_is_the_most(most, then):
    step = changed(Step(movement="mountain", amount=3, most=most), SetAmount, amount=6)
    assert (step.amount, step.least, step.most) == (6, 6, then)


@pytest.mark.parametrize(("least", "then"), [(4, 2), (2, 2), (1, 1), (None, None)])
def test_so_much_and_no_more_lowers_what_is_the_least(least, then):
    step = changed(Step(movement="mountain", amount=5, least=least), SetMost, amount=2)
    assert (step.amount, step.least, step.most) == (2, then, 2)


@pytest.mark.parametrize(("most", "then"), [(None, 5), (4, 6), (8, 10)])
def test_more_rounds_may_be_so_many_more(most, then):
    flow = Rounds(body=(Step(movement="cat", amount=1), Step(movement="cow", amount=1)), times=3, most=most)
    flow = changed(flow, Repeat, more=2)
    assert (flow.times, flow.most) == (5, then)


@pytest.mark.parametrize(("own", "stays"), [(5.0, True), (6.0, True), (8.0, False)])
def test_a_slower_section_lets_go_only_of_what_was_quicker(own, stays):
    step = Step(movement="mountain", amount=5, pace=Pace(breaths_per_min=own))
    step = changed(step, SlowSection, pace=Pace(breaths_per_min=6.0))
    assert (step.pace is not None) == stays
    assert step.amount == 5


def test_the_words_of_a_block_that_stays_are_not_gone():
    plan = plan_of(Block(name="quiet close", edits=(LineEdit("aim", "rewrite", step="x", text="Mine."),)))
    assert words_gone(plan, plan) == ()
    assert words_gone(plan, plan_of()) == ("Mine.",)
