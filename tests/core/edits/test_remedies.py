"""What fit says of itself, and what it offers when it can't."""

import msgspec
import pytest

from tests.conftest import demo_maker, plan_of, shipped
from yewhour.core.edits.cuts import cut, leave_out_order, with_given_pace
from yewhour.core.edits.remedies import changes, differences, explain, remedies
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Step, Variant
from yewhour.core.problem import CannotFit

RINGERS = demo_maker("bell-ringers")


def test_what_changed_is_told_with_what_binds():
    choice = RINGERS.fit.at(12600)
    messages = {change.name: change for change in changes(RINGERS, choice)}
    assert messages["Low lunge"].chosen < messages["Low lunge"].preferred
    assert messages["Low lunge"].binds
    assert "Low lunge: 4 -> 3 breaths" in explain(RINGERS, choice)


def test_at_its_preferred_length_nothing_changed():
    assert "as preferred" in explain(RINGERS, RINGERS.fit.at(RINGERS.fit.preferred))


@pytest.mark.parametrize("length_s", [600.0, 900.0, 3300.0])
def test_a_remedy_gives_the_length_it_says(length_s):
    found = remedies(RINGERS, length_s)
    assert found
    assert found[0].gives_s == length_s
    for remedy in found:
        mended = solve(remedy.applied(RINGERS.plan), shipped())
        assert mended.make(remedy.gives_s).length_s == remedy.gives_s


def test_a_locked_class_is_offered_its_key():
    steps = (
        Step(movement="downward-dog", amount=5, locked=True),
        Step(movement="final-rest", amount=60, most=60),
    )
    solved = solve(plan_of(*steps), shipped())
    found = remedies(solved, solved.longest_s + 20)
    assert any(remedy.title == "Unlock Downward-facing dog" for remedy in found)


@pytest.mark.parametrize("minutes", [10, 20, 30, 45])
def test_every_cut_is_a_good_class_in_itself(minutes):
    solved = demo_maker("lock-gates-open")
    try:
        shorter = cut(solved.plan, solved, minutes * 60.0)
    except CannotFit:
        assert minutes in (10, 45)
        return
    timed = solve(shorter.plan, shipped()).make(minutes * 60.0)
    assert timed.segments[-1].end == minutes * 600
    ids = [segment.use.movement.id for segment in timed.segments]
    assert "welcome-short" in ids
    assert "final-rest" in ids
    assert "return" in ids
    assert not {"uneven", "not-neutralised", "no-rest"} & {finding.code for finding in timed.findings}


def test_the_pace_gives_only_where_asked_and_only_where_it_helps():
    assert with_given_pace(RINGERS, 1300.0) is RINGERS
    brief = msgspec.structs.replace(RINGERS.plan.brief, pace_gives=10.0)
    giving = solve(msgspec.structs.replace(RINGERS.plan, brief=brief), shipped())
    given = with_given_pace(giving, 1300.0)
    assert given.fit.cost(13000) < giving.fit.cost(13000)
    share = given.prepared.school.pace.breaths_per_min / giving.prepared.school.pace.breaths_per_min
    assert abs(share - 1) <= 0.1 + 1e-9
    assert with_given_pace(giving, giving.preferred_s) is giving


def test_a_movement_that_is_gone_in_a_way_that_is_not_chosen_is_no_trouble():
    ways = {"ours": (Step(movement="cobra"),), "theirs": (Step(movement="gone-from-the-library"),)}
    solved = solve(plan_of(Variant(ways=ways, chosen="ours"), Step(movement="child")), shipped())
    assert explain(solved, solved.make(solved.preferred_s).choice)
    assert changes(solved, solved.make(solved.shortest_s).choice) is not None
    assert isinstance(remedies(solved, solved.shortest_s / 2), list)


def test_what_another_class_has_otherwise_is_told_shortest_first():
    solved = solve(plan_of(*(Step(movement=one, amount=5) for one in ("mountain", "tree"))), shipped())
    timed = solved.make(solved.preferred_s)
    fewer = msgspec.structs.replace(timed, cues=timed.cues[:-2])
    assert differences(timed, timed) == "nothing else changes"
    assert differences(timed, fewer) == "2 lines change"
    without = msgspec.structs.replace(timed, segments=timed.segments[:1])
    assert differences(timed, without).endswith(" goes")
    assert differences(without, timed).endswith(" comes in")


def test_what_ends_a_class_is_never_left_out():
    ends = {"final rest", "returning", "welcome", "farewell"}
    for name in ("bell-ringers", "lock-gates-open"):
        solved = demo_maker(name)
        out = {edit.node for edit in leave_out_order(solved)}
        marks = {
            mark for index, (_, node) in enumerate(solved.unfolded.nodes) if node.id in out
            for use in solved.turns_of(index) for mark in use.movement.marks
        }  # fmt: skip
        assert out
        assert not marks & ends
