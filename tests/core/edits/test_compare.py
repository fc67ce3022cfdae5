"""Two states of a class: what is other is told, and nothing else."""

import msgspec
import pytest

from tests.conftest import demo_maker, plan_of, shipped
from yewhour.core.edits.arrange import removed, shifted, with_node
from yewhour.core.edits.compare import compare_classes, nearest_class
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_brief, with_edits
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.places import nodes_of
from yewhour.core.wording.own_words import line_edit

NAMES = ("bell-ringers", "back-on-deck", "boat-builders-half-hour")


def timed(plan):
    return nearest_class(solve(plan, shipped()))


def messages(before, after):
    """The differences as (kind, words)."""
    return [(one.kind, one.words) for one in compare_classes(before, after)]


def order_of(timed):
    """The steps of a class in the order they are first done."""
    return list(dict.fromkeys(s.use.step.id for s in timed.segments if not s.use.setup_for))


def steps(plan):
    return [name for name, node in nodes_of(plan).items() if hasattr(node, "movement")]


@pytest.mark.parametrize("name", NAMES)
def test_a_class_beside_itself_has_nothing_other(name):
    one = demo_maker(name).make()
    assert compare_classes(one, one) == []


@pytest.mark.parametrize("name", NAMES)
def test_what_came_one_way_went_the_other_way_round(name):
    before = demo_maker(name).make()
    plan = before.plan
    after = timed(with_brief(removed(plan, steps(plan)[3:5]), target_s=plan.brief.target_s - 60))
    there, back = compare_classes(before, after), compare_classes(after, before)
    turned = {"new": "gone", "gone": "new", "longer": "shorter", "shorter": "longer"}
    assert sorted(turned.get(one.kind, one.kind) for one in there) == sorted(one.kind for one in back)
    assert [one.words for one in there if one.kind == "gone"] == [
        one.words for one in back if one.kind == "new"
    ]
    assert {one.step for one in there if one.kind == "gone"} >= set(steps(plan)[3:5]) & {
        segment.use.step.id for segment in before.segments
    }


@pytest.mark.parametrize("name", NAMES)
def test_what_is_told_longer_and_shorter_is_all_that_is(name):
    solved = demo_maker(name)
    before, after = solved.make(), solved.make(solved.promised_s + 60)
    found = compare_classes(before, after)
    listed = {one.step for one in found if one.kind in ("longer", "shorter")}
    lengths = [{}, {}]
    for total, one in zip(lengths, (before, after), strict=True):
        for segment in one.segments:
            if not segment.use.setup_for:
                step = segment.use.step.id
                total[step] = total.get(step, 0) + segment.length
    other = {step for step in lengths[0] if abs(lengths[0][step] - lengths[1].get(step, 0)) >= 10}
    assert listed == other
    assert {one.kind for one in found} <= {"longer", "shorter"}


def test_a_number_is_told_with_its_lengths():
    before = demo_maker("bell-ringers").make()
    step = next(s.use.step.id for s in before.segments if s.kind == "hold" and s.side == "right")
    plan = with_brief(
        with_node(before.plan, step, amount=9, locked=True), target_s=before.plan.brief.target_s + 60
    )
    mine = [one for one in compare_classes(before, timed(plan)) if one.step == step]
    assert [one.kind for one in mine] == ["longer"]
    assert "→ 9 breaths (" in mine[0].words


def test_a_promise_is_told_in_the_words_of_its_page():
    before = demo_maker("bell-ringers").make()
    plan = with_brief(before.plan, title="Ropes and the bells", props=("block",), pace_gives=5.0)
    assert messages(before, timed(plan)) == [
        ("promise", f"Title: {before.plan.brief.title} → Ropes and the bells"),
        ("promise", "At hand: nothing → block"),
        ("promise", "What the style sets, or how the length counts"),
    ]


def test_what_was_carried_elsewhere_is_told_once():
    before = demo_maker("back-on-deck").make()
    words = shipped()
    orders = set()
    for step in steps(before.plan)[3:12]:
        after = timed(shifted(before.plan, [step], 1, words.library))
        moved = [one.words for one in compare_classes(before, after) if one.kind == "moved"]
        was, now = order_of(before), order_of(after)
        parts = [one.section for one in before.segments] != [one.section for one in after.segments]
        assert (was != now or parts) == bool(moved)
        assert len(moved) <= 1
        orders.add(tuple(now))
    assert len(orders) > 3


def test_lines_said_otherwise_are_counted_by_movement():
    before = demo_maker("bell-ringers").make()
    segment = next(s for s in before.segments if s.kind == "hold")
    edits = tuple(
        line_edit(segment.use, "call", "rewrite", number=number, text="Go on.") for number in (0, 1)
    )
    after = timed(with_edits(before.plan, edits))
    assert ("said", f"{segment.use.name}: 2 lines") in messages(before, after)


def test_what_stands_in_another_part_is_told_though_all_else_is_the_same():
    before = demo_maker("bell-ringers").make()
    first, second, *others = before.plan.sections
    joined = msgspec.structs.replace(first, body=(*first.body, *second.body))
    plan = msgspec.structs.replace(before.plan, sections=(joined, *others))
    told = [words for kind, words in messages(before, timed(plan)) if kind in ("gone", "moved")]
    assert f"The part {second.title}" in told
    assert any(words.endswith(f": {second.title} → {first.title}") for words in told)


def test_a_class_that_can_t_be_its_promise_is_compared_as_near_as_it_comes():
    solved = demo_maker("bell-ringers")
    hurried = with_brief(solved.plan, target_s=120.0)
    assert timed(hurried).length_s == solve(hurried, shipped()).shortest_s
    long = timed(with_brief(solved.plan, target_s=3 * 3600.0))
    assert long.length_s == solved.preferred_s


def test_a_step_with_another_number_is_the_same_by_its_name():
    """A class that was written anew, from its outline: other ids, and nothing other in it."""
    before = timed(plan_of(Step(movement="child", amount=4), Step(movement="cobra", amount=3)))
    steps = (
        Step(movement="child", amount=4, id="other1"),
        Step(movement="cobra", amount=5, id="other2"),
    )
    after = timed(plan_of(*steps))
    told = messages(before, after)
    assert [kind for kind, _ in told if kind in ("new", "gone")] == []
    assert any("Cobra" in words for _, words in told)


def test_a_movement_that_changes_its_side_is_told():
    right, left = (
        timed(plan_of(Step(movement="low-lunge", side=side), Step(movement="child")))
        for side in ("right", "left")
    )
    assert any("left" in words for _, words in messages(right, left)), messages(right, left)
    assert messages(right, right) == []
