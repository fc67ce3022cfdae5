"""The small truths that no total shows: phases, sides, counts, and who a caution is for."""

import pytest

from tests.conftest import demo_maker, made_of, plan_of, said, shipped
from yewhour.content.paths import demo_classes
from yewhour.core.pace import Pace, phase_ticks
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_edits
from yewhour.core.plan.nodes import LineEdit, Pair, Rounds, Step
from yewhour.core.plan.plan import (
    Plan,
    Section,
    steps_of,
    with_ids,
)
from yewhour.core.sides import fill
from yewhour.core.timing.doses import (
    MOST_OPTIONS,
    AmountRange,
    amount_range,
    amounts_of,
)
from yewhour.core.timing.numbers import ChosenNumber

WORDS = shipped()
REST = Step(movement="final-rest")
THOUGHTS = ("aim", "check", "image", "deepen", "compare")
UNEVEN = Pace(6.0, (2, 0, 3, 0))  # 4 s in, 6 s out
ENTERED_OUT = sorted(m.id for m in WORDS.library.values() if m.enter == "exhale" and m.kind == "hold")
ENTERED_IN = sorted(m.id for m in WORDS.library.values() if m.enter != "exhale" and m.kind == "hold")


def held(timed, movement):
    return next(s for s in timed.segments if s.use.movement.id == movement and s.kind == "hold")


@pytest.mark.parametrize("movement", ENTERED_OUT[:6])
def test_a_hold_entered_on_the_exhale_begins_with_it(movement):
    segment = held(made_of(Step(movement=movement, amount=4, pace=UNEVEN), REST), movement)
    assert [(s.phase, s.end - s.start) for s in segment.spans[:4]] == [
        ("exhale", 60), ("inhale", 40), ("exhale", 60), ("inhale", 40),
    ]  # fmt: skip
    assert len(segment.spans) == 2 * segment.amount
    assert (segment.spans[0].start, segment.spans[-1].end) == (segment.start, segment.end)


@pytest.mark.parametrize("movement", ENTERED_IN[:6])
def test_any_other_hold_begins_with_the_inhale(movement):
    segment = held(made_of(Step(movement=movement, amount=4, pace=UNEVEN), REST), movement)
    assert [(s.phase, s.end - s.start) for s in segment.spans[:2]] == [("inhale", 40), ("exhale", 60)]


def test_phases_of_a_breath_are_in_their_order_and_add_up():
    assert phase_ticks(Pace(6.0, (3, 1, 5, 1))) == (30, 10, 50, 10)
    assert sum(phase_ticks(Pace(7.0, (1, 0, 2, 0)))) == 86


def test_the_last_breath_of_a_hold_is_kept_free_for_its_own_lines():
    timed = made_of(Step(movement="low-lunge", amount=6), Step(movement="downward-dog", amount=6), REST)
    seen = 0
    for segment in timed.segments:
        if segment.kind == "hold" and segment.amount >= 3:
            last = segment.end - segment.use.unit
            for cue in timed.cues:
                if cue.segment == segment.id and cue.purpose in THOUGHTS:
                    seen += 1
                    assert cue.end <= last
    assert seen > 2


def test_a_line_of_a_flow_starts_before_its_breath_and_never_a_second_before():
    steps = tuple(
        Step(movement=name, phase=phase)
        for name, phase in (
            ("arms-up", "inhale"),
            ("fold", "exhale"),
            ("half-lift", "inhale"),
            ("fold", "exhale"),
        )
    )
    timed = made_of(Rounds(body=steps, times=4), REST)
    segments = {segment.id: segment for segment in timed.segments}
    early = [segments[c.segment].start - c.start for c in timed.cues if c.purpose == "flow" and c.start > 30]
    assert len(early) > 10
    assert all(0 <= ticks <= 10 for ticks in early)
    assert sum(ticks > 0 for ticks in early) > len(early) / 2


def test_the_most_rounds_a_group_may_have_are_among_those_it_can_have():
    solved = solve(
        plan_of(Rounds(body=(Step(movement="cobra", amount=3),), times=3, least=2, most=5), REST), WORDS
    )
    (group,) = solved.unfolded.groups.values()
    assert group.options == (2, 3, 4, 5)
    assert max(use.round for use in solved.uses) == 5
    assert solved.make(solved.longest_s).choice.rounds == {group.key: 5}
    assert solved.make(solved.shortest_s).choice.rounds == {group.key: 2}


def test_a_dose_of_breaths_held_by_the_clock_is_taken_at_seven_and_a_half_seconds():
    movement = WORDS.library["low-lunge"]
    span = amount_range(Step(movement="low-lunge"), movement, "clock")
    expected = [int(breaths * 7.5 // 5) * 5 for breaths in movement.dose]
    assert [span.least, span.preferred, span.most] == expected
    assert span.by == 5


@pytest.mark.parametrize("amount", [6, 9, 12])
def test_a_countdown_says_each_number_when_so_many_are_left(amount):
    movement = next(m.id for m in WORDS.library.values() if m.kind == "reps" and m.sides in ("both", "none"))
    timed = made_of(Step(movement=movement, amount=amount, locked=True, countdown=4), REST)
    segment = next(s for s in timed.segments if s.use.movement.id == movement and s.kind == "reps")
    numbers = {"One.": 1, "Two.": 2, "Three.": 3, "Four.": 4}
    messages = {
        numbers[cue.text]: (segment.end - cue.start) / segment.use.unit
        for cue in timed.cues
        if cue.segment == segment.id and cue.text in numbers
    }
    assert set(messages) == {1, 2, 3, 4}
    for number, left in messages.items():
        assert number - 0.5 <= left <= number + 0.6


@pytest.mark.parametrize("tag", sorted(WORDS.cautions))
def test_a_caution_speaks_to_those_it_is_for(tag):
    found = [m for m in WORDS.library.values() if tag in m.cautions and (m.said("caution") or m.gentler)]
    for movement in found[:4]:
        timed = made_of(Step(movement=movement.id), REST, cautions=(tag,))
        lines = said(timed, "protect")
        assert lines, movement.id
        own = movement.card.protect.get(tag) if movement.card is not None else None
        if own is not None:  # said to those it is for, unless the class is theirs alone
            text, whom = fill(own, "right"), WORDS.cautions[tag]
            lowered = text[0].lower() + text[1:]
            theirs = WORDS.conditions.conditions[tag].theirs
            named = theirs or text.startswith("If ")
            assert (text if named else f"For {whom}: {lowered}") in lines


def test_what_is_unwilling_changes_less():
    def plan(weights):
        names = ("downward-dog", "child")
        steps = [
            Step(movement=n, amount=8, least=2, most=14, weight=w)
            for n, w in zip(names, weights, strict=True)
        ]
        return solve(plan_of(*steps), WORDS)

    for weights in ((1.0, 9.0), (9.0, 1.0)):
        solved = plan(weights)
        numbers = [n for part in solved.model.parts for n in part.numbers if isinstance(n, ChosenNumber)]
        numbers = [n for n in numbers if not n.key.endswith("/into")]
        assert [round(n.costs[0] / ((n.options[0] - 8) / 8) ** 2) for n in numbers] == list(weights)
        choice = solved.fit.at(solved.fit.nearest(solved.fit.preferred - 500))
        moved = [abs(choice.amounts[number.key] - 8) for number in numbers]
        assert moved[weights.index(1.0)] > moved[weights.index(9.0)]


def test_a_way_lasts_as_long_as_moving_and_what_is_said_on_it_whatever_it_follows():
    for path in demo_classes():
        solved = demo_maker(path.stem)
        for length_s in (solved.shortest_s, solved.plan.brief.target_s, solved.longest_s):
            before = None
            for segment in solved.laid_out(solved.fit.at(solved.fit.nearest(round(length_s * 10)))):
                use = segment.use
                if use.setup_for and use.step.phase is None:
                    assert segment.length >= solved.entries.saying(before, use), (path.stem, use.key)
                    way = solved.teaching_data.positions.way(use.start, use.end)
                    assert segment.length >= 10 * way.least_s
                before = before if use.setup_for else use


@pytest.mark.parametrize(
    ("way", "effort", "ease"), [("exhale", "exhale", "inhale"), ("inhale", "inhale", "exhale")]
)
def test_effort_and_ease_fall_on_the_breath_the_school_says(way, effort, ease):
    movement = next(m.id for m in WORDS.library.values() if [b for b, _ in m.rhythm] == ["effort", "ease"])
    timed = made_of(Step(movement=movement, amount=6), REST, ways={"effort_breath": way})
    segment = next(s for s in timed.segments if s.use.movement.id == movement and s.kind == "reps")
    assert [(span.beat, span.phase) for span in segment.spans[:2]] == [("effort", effort), ("ease", ease)]


def test_a_gliding_pace_begins_at_the_sections_and_ends_where_it_glides_to():
    body = tuple(Step(movement=name) for name in ("child", "cobra", "downward-dog"))
    section = Section(title="All", body=body, pace=Pace(8.0), glide_to=5.0)
    solved = solve(with_ids(Plan(sections=(section,))), WORDS)
    paces = [use.pace.breaths_per_min for use in solved.uses if use.kind == "hold"]
    assert paces == [8.0, 6.5, 5.0]


def test_a_range_too_wide_to_weigh_one_by_one_keeps_what_is_preferred_and_both_its_ends_near():
    for preferred in (7, 500, 1203):
        options = amounts_of(AmountRange(1, preferred, 5000, 1, 1.0), 1)
        assert len(options) <= MOST_OPTIONS + 1
        assert preferred in options
        assert options[0] < 25
        assert options[-1] > 4975


@pytest.mark.parametrize("times", [2, 3, 4, 5])
def test_the_lead_changes_every_round_only_where_both_lead_equally_often(times):
    rounds = Rounds(
        times=times, body=(Step(movement="low-lunge", amount=3), Step(movement="child", amount=3))
    )
    sides = [
        s.side
        for s in made_of(rounds, REST).segments
        if s.use.movement.id == "low-lunge" and s.kind == "hold"
    ]
    if times % 2:
        assert set(sides) == {sides[0]}
    else:
        assert sides == ["right", "left"] * (times // 2)


def test_a_hold_within_a_flow_is_never_too_short_for_what_must_be_said_in_it():
    said_in_it = "Now press both of your hands down and send your hips up and back, heels heavy."
    dog = Step(
        movement="downward-dog", amount=5, least=1, most=8, pace=Pace(30), lines={"flow": [said_in_it]}
    )
    flow = Rounds(
        times=2, body=(Step(movement="arms-up", phase="inhale"), Step(movement="fold", phase="exhale"), dog)
    )
    solved = solve(plan_of(flow, REST), shipped())
    timed = solved.make(solved.shortest_s)
    held_for = [s for s in timed.segments if s.use.movement.id == "downward-dog" and s.kind == "hold"]
    needed = solved.duration(said_in_it, "flow")
    assert needed > 2 * 20  # ticks of a breath
    assert held_for
    assert all(segment.length >= needed for segment in held_for)


def test_a_line_of_her_own_on_what_has_no_side_stays_in_its_half_of_a_pair():
    plan = plan_of(
        Pair(body=(Step(movement="low-lunge", amount=4), Step(movement="downward-dog", amount=4))), REST
    )
    dog = next(step.id for step in steps_of(plan) if step.movement == "downward-dog")
    for half, side in enumerate(("right", "left")):
        edit = LineEdit("align", "add", step=dog, side=side, text="The tide is in your hands.", at_s=8.0)
        timed = solve(with_edits(plan, (edit,)), shipped()).make(300.0)
        dogs = [s for s in timed.segments if s.use.movement.id == "downward-dog" and s.kind == "hold"]
        assert len(dogs) == 2
        where = {cue.segment for cue in timed.cues if cue.own}
        assert where == {dogs[half].id}


def test_of_two_stillnesses_the_last_takes_what_no_whole_number_can():
    stillness = Step(movement="seated-silence", amount=60, least=30, most=120)
    solved = solve(plan_of(Step(movement="child", amount=4), stillness, REST), shipped())
    timed = solved.make(round(solved.preferred_s) + 3.3)
    lengths = {s.use.movement.id: s.length for s in timed.segments if s.kind == "stillness"}
    assert lengths["seated-silence"] % 50 == 0
    assert lengths["final-rest"] % 50 != 0
