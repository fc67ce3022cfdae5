"""A take keeps its end, gives each second side what the first took, and breaks no lock."""

from functools import cache
from itertools import pairwise
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import demo_maker, examples, plan_of, shipped, some_of
from tools.takes import could, misses, simulated
from yewhour.content.paths import DEMO
from yewhour.core.lengths import seconds, ticks
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Pair,
    Rounds,
    SideDifference,
    Step,
)
from yewhour.core.take.apply_marks import apply_mark
from yewhour.core.take.marks import DOES, Mark
from yewhour.core.take.moment import moment
from yewhour.core.take.replay import replay
from yewhour.core.take.take_remedies import unmet_promises
from yewhour.core.take.take_values import take_values
from yewhour.core.timing.numbers import PAUSE

DEMOS = sorted(path.stem for path in DEMO.glob("*.yewhour"))


@cache
def made_demo(name):
    return demo_maker(name).make()


def taken(name, *marks):
    return replay(demo_maker(name), made_demo(name), [Mark(0, "start"), *marks])


def segment(take, id_):
    return next(one for one in take.segments if one.id == id_)


def first_of_a_pair(take, kind="hold"):
    return next(one for one in take.segments if one.use.key in take.course.partners and one.kind == kind)


def middle(one):
    return seconds((one.start + one.end) // 2)


@pytest.mark.parametrize("name", DEMOS)
def test_a_take_without_marks_is_the_class_as_it_was_made(name):
    take, timed = taken(name), made_demo(name)
    assert take.segments == timed.segments
    assert take.cues == timed.cues
    assert take_values(take)["unmet"] == []
    assert take_values(take)["retimed"] == []


@st.composite
def takes(draw):
    """A demo class with some marks, in the order of time."""
    name = draw(st.sampled_from(DEMOS))
    length = made_demo(name).length
    at = sorted(draw(st.lists(st.integers(1, length + 50), max_size=8)))
    does = st.sampled_from([do for do in DOES if do != "start"])
    return name, [Mark(seconds(one), draw(does), cut=draw(st.booleans())) for one in at]


@examples(12)
@given(takes())
def test_whatever_happens_the_class_stays_whole(given_take):
    name, marks = given_take
    take = taken(name, *marks)
    ids = [one.id for one in take.segments]
    assert len(ids) == len(set(ids))
    assert all(one.end == two.start for one, two in pairwise(take.segments))
    assert {cue.segment for cue in take.cues} <= set(ids)
    later = [cue for cue in take.cues if cue.start > take.now]
    assert all(one.end <= two.start for one, two in pairwise(later))
    if take.end != take.target and take.state != "ended":
        assert any(one.code == "end" for one in unmet_promises(take))
    assert take_values(taken(name, *marks)) == take_values(take), "the same marks give the same take"


@examples(20)
@given(takes(), st.integers(0, 20_000))
def test_every_moment_can_be_told(given_take, at):
    name, marks = given_take
    take = taken(name, *marks)
    here = moment(take, at)
    if here.segment is not None:
        assert here.left == here.segment.end - here.at
        assert 0 <= here.phase <= 1
        assert here.number <= here.of
    else:
        assert here.left == 0


@pytest.mark.parametrize("name", ["bell-ringers", "moorings", "sail-loft-mat", "hips-after-the-helm"])
@pytest.mark.parametrize("more", [1, 2])
def test_the_second_side_follows_the_first_and_the_end_is_kept(name, more):
    before = taken(name)
    one = first_of_a_pair(before, "clock" if name == "hips-after-the-helm" else "hold")
    marks = [Mark(middle(one), "again")] * more
    take = taken(name, *marks)
    first, second = segment(take, one.id), segment(take, take.course.partners[one.id])
    assert first.length > one.length
    assert first.length == second.length
    assert first.amount == second.amount
    assert take.end == take.target
    assert unmet_promises(take) == []


def test_a_little_is_given_by_the_last_stillness_alone():
    one = first_of_a_pair(taken("bell-ringers"))
    take = taken("bell-ringers", Mark(middle(one), "again"))
    changed = {change.name for retimed in take.retimed for change in retimed.changes}
    assert changed == {one.name, "Savasana"}
    assert take.retimed[0].late == 2 * one.use.unit  # both sides


def test_a_side_ended_early_makes_the_other_as_long():
    one = first_of_a_pair(taken("bell-ringers"))
    take = taken("bell-ringers", Mark(seconds(one.end) - 2.3, "next"))
    first, second = segment(take, one.id), segment(take, take.course.partners[one.id])
    assert first.length == second.length == one.length - 23
    assert first.amount == second.amount
    assert take.end == take.target


def test_where_one_side_was_slow_the_other_is_as_slow():
    one = first_of_a_pair(taken("bell-ringers"))
    at = middle(one)
    take = taken("bell-ringers", Mark(at, "pause"), Mark(at + 9, "resume"))
    first, second = segment(take, one.id), segment(take, take.course.partners[one.id])
    assert first.length == second.length == one.length + 90
    assert first.amount == second.amount == one.amount
    assert take.end == take.target
    assert take.retimed[0].late == 180


def test_a_long_stop_makes_the_other_side_no_longer():
    one = first_of_a_pair(taken("bell-ringers"))
    at = middle(one)
    take = taken("bell-ringers", Mark(at, "pause"), Mark(at + 130, "resume"))
    first, second = segment(take, one.id), segment(take, take.course.partners[one.id])
    assert first.length == one.length + 1300
    assert second.length == one.length
    assert second.amount == one.amount


def test_a_breath_of_a_flow_that_was_slow_is_as_slow_on_the_other_side():
    solved = demo_maker("sunrise-on-the-quay")
    timed = made_demo("sunrise-on-the-quay")
    partners = taken("sunrise-on-the-quay").course.partners
    one = next(s for s in timed.segments if s.kind == "phase" and s.use.key in partners)
    at = middle(one)
    take = replay(solved, timed, [Mark(0, "start"), Mark(at, "pause"), Mark(at + 5, "resume")])
    first, second = segment(take, one.id), segment(take, partners[one.id])
    assert first.length == second.length == one.length + 50
    assert take.end == take.target


def test_a_turn_to_the_other_end_of_the_mat_takes_as_long_on_the_other_side_and_is_never_hurried():
    turn = segment(made_demo("round-the-compass"), "n18")
    assert turn.name == "Turn to the back of the mat"
    longer = taken("round-the-compass", Mark(middle(turn), "again"))
    assert segment(longer, "n18").length > turn.length
    assert segment(longer, "n18'").length == segment(longer, "n18").length
    hurried = taken("round-the-compass", Mark(seconds(turn.start) + 1, "next"))
    assert segment(hurried, "n18").length < turn.length == segment(hurried, "n18'").length


def test_a_recording_that_stands_still_too_changes_nothing():
    at = middle(first_of_a_pair(taken("bell-ringers")))
    take = taken("bell-ringers", Mark(at, "pause", camera="stopped"), Mark(at + 100, "resume"))
    assert take.segments == made_demo("bell-ringers").segments
    assert moment(take, ticks(at)).late == 0


def test_while_it_stands_still_it_gets_later_and_later():
    take = taken("bell-ringers", Mark(100, "pause"))
    assert moment(take, 1080).late == 80
    assert moment(take, 1080).at == 1000


@pytest.mark.parametrize("name", DEMOS)
def test_no_lock_is_broken_and_no_rest_goes_under_its_least(name):
    locked = {one.id: one.amount for one in made_demo(name).segments if one.use.step.locked and one.use.unit}
    take = taken(name, Mark(31, "pause"), Mark(71, "resume"))
    assert {one.id: one.amount for one in take.segments if one.id in locked} == locked
    for one in take.segments:
        least = one.use.step.least
        if one.kind == "stillness" and least is not None:
            assert one.length >= ticks(least)


def test_what_can_not_be_kept_is_told_with_what_could_be_done():
    take = taken("bell-ringers", Mark(400, "pause"), Mark(1000, "resume"))
    (missed,) = unmet_promises(take)
    assert missed.code == "end"
    assert take.end > take.target
    ends = [choice.end_s for choice in missed.choices]
    assert ends[-1] == seconds(take.end)
    for choice in missed.choices:
        if choice.mark:
            assert seconds(apply_mark(take, choice.mark).end) == choice.end_s < seconds(take.end)


def test_back_does_a_movement_again_and_keeps_what_was_tried():
    one = first_of_a_pair(taken("bell-ringers"))
    take = taken("bell-ringers", Mark(middle(one), "back"))
    tried, again = segment(take, f"{one.id}~1"), segment(take, one.id)
    assert tried.end == ticks(middle(one))
    assert again.amount == one.amount
    assert segment(take, f"{one.id}/into").start == tried.end
    assert take.end == take.target


def test_back_at_once_goes_to_the_movement_before():
    timed = made_demo("bell-ringers")
    index = timed.segments.index(first_of_a_pair(taken("bell-ringers")))
    before = next(one for one in reversed(timed.segments[: index - 1]) if not one.use.setup_for)
    take = taken("bell-ringers", Mark(seconds(timed.segments[index - 1].start) + 0.5, "back"))
    assert segment(take, f"{before.id}~1").length > 0
    assert segment(take, before.id).start > segment(take, f"{before.id}~1").end


def test_what_is_left_out_on_the_first_side_is_left_out_on_the_second():
    one = first_of_a_pair(taken("bell-ringers"))
    take = taken("bell-ringers", Mark(seconds(one.start) + 1, "skip"))
    assert take.course.partners.get(one.id) is None
    assert segment(take, f"{one.id}~1").length == 10
    assert not [unmet for unmet in take_values(take)["unmet"] if unmet["code"] == "sides"]
    assert take.end == take.target


def test_what_is_left_out_on_the_second_side_alone_is_told():
    before = taken("bell-ringers")
    one = first_of_a_pair(before)
    second = segment(before, before.course.partners[one.id])
    take = taken("bell-ringers", Mark(seconds(second.start) + 1, "skip"))
    assert [(u["code"], u["message"]) for u in take_values(take)["unmet"]] == [
        ("sides", f"{one.name}: it was left out on the second side.")
    ]


def flow(times=2, least=None, most=None):
    steps = (Step(movement="arms-up", phase="inhale"), Step(movement="fold", phase="exhale"))
    rest = Step(movement="final-rest", amount=120, least=30, most=300)
    plan = plan_of(
        Step(movement="mountain"), Rounds(steps, times=times, least=least, most=most), rest, target_s=400
    )
    solved = solve(plan, shipped())
    return solved, solved.make(solved.preferred_s)


def test_one_more_in_a_flow_is_one_more_round():
    solved, timed = flow()
    phases = [one for one in timed.segments if one.kind == "phase"]
    take = replay(solved, timed, [Mark(0, "start"), Mark(middle(phases[0]), "again")])
    assert len([one for one in take.segments if one.kind == "phase"]) == 6
    assert [c.unit for c in take.retimed[0].changes if c.name == "Rounds"] == ["rounds"]
    assert take.end == take.target


def test_one_fewer_in_a_flow_is_one_fewer_round_and_never_less_than_the_present():
    solved, timed = flow()
    phases = [one for one in timed.segments if one.kind == "phase"]
    take = replay(solved, timed, [Mark(0, "start"), Mark(middle(phases[0]), "fewer")])
    assert len([one for one in take.segments if one.kind == "phase"]) == 2
    take = replay(solved, timed, [Mark(0, "start"), Mark(middle(phases[-1]), "fewer")])
    assert take.segments == timed.segments
    assert "last round" in take.messages[0]


def test_counts_are_true_of_the_new_number():
    solved = demo_maker("sail-loft-mat")
    timed = made_demo("sail-loft-mat")
    one = next(s for s in timed.segments if s.kind == "reps" and s.amount >= 6)
    take = replay(solved, timed, [Mark(0, "start"), Mark(seconds(one.start) + 3, "again")])
    counts = [cue for cue in take.cues if cue.segment == one.id and cue.purpose in ("count", "late")]
    old = [cue for cue in timed.cues if cue.segment == one.id and cue.purpose in ("count", "late")]
    assert counts
    assert old
    end = segment(take, one.id).end
    assert {(end - cue.start) for cue in counts} & {(one.end - cue.start) for cue in old}


def test_a_pair_with_a_declared_difference_keeps_it():
    step = Step(movement="warrior-two", amount=4, second=SideDifference(more=2, why="stiffer"))
    rest = Step(movement="final-rest", amount=120, least=30, most=300)
    solved = solve(plan_of(Pair((step,)), rest), shipped())
    timed = solved.make(solved.preferred_s)
    one = next(s for s in timed.segments if s.kind == "hold")
    take = replay(solved, timed, [Mark(0, "start"), Mark(middle(one), "again")])
    first, second = [s for s in take.segments if s.kind == "hold"]
    assert (first.amount, second.amount) == (5, 7)


def test_after_the_end_nothing_changes_but_is_told():
    take = taken("the-way-back", Mark(100, "end"), Mark(120, "next"))
    assert take.end == 1000
    assert "the take is over" in take.messages[0]


@pytest.mark.parametrize("name", some_of(DEMOS, 3))
def test_a_teacher_who_drifts_ends_on_time_whenever_the_class_can(name):
    for seed in range(2):
        take, wrong = simulated(demo_maker(name), made_demo(name), Random(seed))
        assert wrong == []
        assert not (misses(take) and could(take))


@pytest.mark.parametrize("do", ["fewer", "next", "back", "again", "pause", "skip"])
def test_a_class_that_ends_without_a_stillness_closes_with_a_pause(do):
    solved = solve(plan_of(Step(movement="child", amount=5), Step(movement="cobra", amount=5)), shipped())
    timed = solved.make(solved.preferred_s)
    assert solved.model.slack_key == PAUSE
    last = timed.segments[-1]
    take = replay(solved, timed, [Mark(0, "start"), Mark(seconds(last.end) - 6.4, do)])
    assert all(one.end == two.start for one, two in pairwise(take.segments))
    if do == "next":
        assert take.segments[-1].use.key == PAUSE
        assert take.end == take.target
        for again in ("skip", "next"):
            over = apply_mark(take, Mark(seconds(take.end) - 2, again))
            assert [one.use.key for one in over.segments].count(PAUSE) == 1
            assert over.end == take.end - 20


def test_a_rest_that_is_under_way_is_never_cut_before_now():
    rest = Step(movement="final-rest", amount=60, least=30, most=90)
    solved = solve(plan_of(Step(movement="child", amount=5), rest), shipped())
    timed = solved.make(solved.preferred_s)
    under_way = timed.segments[-1]
    at = seconds(under_way.end) - 10
    take = replay(solved, timed, [Mark(0, "start"), Mark(at, "pause"), Mark(at + 30, "resume")])
    assert take.segments[-1].end >= take.now == ticks(at + 30)
    assert take.segments[-1].id == under_way.id


def test_nothing_is_said_while_it_stands_still_and_nothing_is_lost_by_it():
    before = taken("bell-ringers")
    at = 900.0
    take = taken("bell-ringers", Mark(at, "pause"), Mark(at + 25, "resume"))
    assert not [cue for cue in take.cues if ticks(at) <= cue.start < ticks(at + 25)]
    here = next(one for one in before.segments if one.end > ticks(at))
    lost = {cue.text for cue in before.cues if cue.segment == here.id and cue.must}
    assert lost <= {cue.text for cue in take.cues}


def test_a_shorter_rest_than_its_least_can_be_chosen():
    take = taken("bell-ringers", Mark(100, "pause"), Mark(460, "resume"))
    (missed,) = unmet_promises(take)
    choice = next(one for one in missed.choices if "under its least" in one.title)
    shorter = apply_mark(take, choice.mark)
    assert shorter.end == shorter.target
    rest = next(one for one in shorter.segments if one.id == choice.mark.segment)
    assert 0 < rest.length < next(one for one in take.segments if one.id == rest.id).length


def test_a_shorter_rest_where_there_is_none_is_told():
    take = taken("bell-ringers", Mark(300, "fewer", segment="nowhere"))
    assert "no stillness ahead" in take.messages[0]
    rest = take.segments[-1] if take.segments[-1].kind == "stillness" else take.segments[-2]
    on_time = taken("bell-ringers", Mark(300, "fewer", segment=rest.id))
    assert len(on_time.messages) == 1
    assert on_time.segments == taken("bell-ringers").segments


def way_into(take, one):
    """The way that leads into a segment."""
    return next(way for way in take.segments if way.use.setup_for == one.use.key and way.end <= one.start)


def test_one_more_on_the_way_is_of_what_the_way_leads_to_on_both_sides():
    planned = taken("bell-ringers")
    one = next(
        first for first in planned.segments
        if first.use.movement.id == "low-lunge" and first.use.key in planned.course.partners
    )  # fmt: skip
    way = way_into(planned, one)
    assert way.length > ticks(4)
    take = taken("bell-ringers", Mark(seconds(way.start) + 3, "again"))
    first, second = segment(take, one.id), segment(take, planned.course.partners[one.use.key])
    assert segment(take, way.id).length == way.length
    assert first.amount == second.amount == one.amount + 1
    assert take.did == f"+1 {one.name}, {one.side}, and {second.side} too"
    assert take.end == take.target


def test_one_more_just_after_the_end_is_still_of_what_has_ended():
    planned = taken("bell-ringers")
    one = next(
        first for first in planned.segments
        if first.use.movement.id == "low-lunge" and first.use.key in planned.course.partners
    )  # fmt: skip
    take = taken("bell-ringers", Mark(seconds(one.end) + 1.5, "again"))
    assert segment(take, one.id).amount == one.amount + 1
    assert segment(take, planned.course.partners[one.use.key]).amount == one.amount + 1
    assert take.did.startswith(f"+1 {one.name}, {one.side}, and ")
    later = taken("bell-ringers", Mark(seconds(one.end) + 2.5, "again"))
    assert segment(later, one.id).amount == one.amount
    assert one.name not in later.did


def test_one_more_of_the_second_side_says_that_it_is_the_only_one():
    planned = taken("bell-ringers")
    one = first_of_a_pair(planned)
    second = segment(planned, planned.course.partners[one.use.key])
    take = taken("bell-ringers", Mark(middle(second), "again"))
    assert take.did == f"+1 {second.name}, {second.side} only"
    assert segment(take, second.id).amount == second.amount + 1


def test_where_the_camera_stood_still_too_nothing_is_lost_and_the_recording_is_behind_the_clock():
    """Forty seconds of a camera that stood still are in neither clock: the class goes on where it stopped."""
    before = taken("bell-ringers", Mark(100.0, "pause"))
    stopped = [Mark(100.0, "pause"), Mark(140.0, "resume", camera="stopped")]
    after = taken("bell-ringers", *stopped)
    assert (after.out, after.now) == (400, before.now)
    assert after.segments == before.segments
    assert after.end == after.target
    again = taken("bell-ringers", *stopped, Mark(200.0, "pause"), Mark(210.0, "resume", camera="stopped"))
    assert (again.out, again.now) == (500, 1600)  # two hundred, less the forty of the first time


def test_what_she_made_longer_is_hers_whatever_is_fitted_later():
    first = first_of_a_pair(taken("bell-ringers"))
    take = taken("bell-ringers", Mark(middle(first), "again"))
    assert first.id in take.kept
