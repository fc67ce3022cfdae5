"""Two versions stand side by side, line by line."""

from tests.conftest import demo_maker, plan_of, shipped
from yewhour.core.edits.arrange import with_node
from yewhour.core.edits.places import nodes_of
from yewhour.core.edits.report import differences
from yewhour.core.plan.compare import side_by_side
from yewhour.core.plan.nodes import Step


def test_the_same_plan_has_no_difference():
    plan = plan_of(Step(movement="downward-dog"))
    assert all(line.same for line in side_by_side(plan, plan, shipped().library))


def test_what_changed_stands_beside_what_it_was():
    before = plan_of(Step(movement="downward-dog", amount=4), Step(movement="child"))
    after = with_node(before, next(iter(nodes_of(before))), amount=6)
    changed = [line for line in side_by_side(before, after, shipped().library) if not line.same]
    assert [(line.before, line.after) for line in changed] == [("downward dog 4b", "downward dog 6b")]


def test_a_trial_is_told_in_a_few_words():
    solved = demo_maker("bell-ringers")
    before, after = solved.make(1440), solved.make(1500)
    assert "→" in differences(before, after)
    assert differences(before, before) == "nothing else changes"
