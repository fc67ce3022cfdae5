"""Random plans and random words through the whole pipeline: whole, in order, in bounded time."""

from itertools import pairwise

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, made_of, plan_of, said, shipped
from yewhour.core.export.contract import script
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.problem import Problem
from yewhour.render.formats import FORMATS
from yewhour.state.classes.class_file import parse_plan, plan_bytes

WORDS = shipped()
NAMES = sorted(WORDS.library)
REST = Step(movement="final-rest")

any_step = st.builds(
    Step,
    movement=st.sampled_from(NAMES),
    amount=st.none() | st.integers(1, 30),
    locked=st.booleans(),
    side=st.none() | st.sampled_from(["right", "left"]),
    take=st.sampled_from(["base", "gentler", "stronger"]),
    halves=st.booleans(),
    countdown=st.integers(0, 12),
    from_round=st.integers(1, 2),
)
any_flow = st.builds(
    lambda names, times, teach, alternate: Rounds(
        body=tuple(Step(movement=n, phase="inhale" if i % 2 == 0 else "exhale") for i, n in enumerate(names)),
        times=times,
        teach=teach,
        alternate=alternate and times % 2 == 0,
    ),
    st.lists(st.sampled_from([n for n in NAMES if WORDS.library[n].kind == "hold"]), min_size=1, max_size=5),
    st.integers(1, 6),
    st.integers(0, 2),
    st.booleans(),
)
any_node = st.recursive(
    any_step | any_flow,
    lambda inner: (
        st.builds(Pair, body=st.lists(inner, min_size=1, max_size=3).map(tuple))
        | st.builds(
            lambda body, times: Rounds(
                body=tuple(body), times=times, least=1, most=times + 1, alternate=False
            ),
            st.lists(inner, min_size=1, max_size=2),
            st.integers(1, 3),
        )
    ),
    max_leaves=6,
)
briefs = st.builds(
    Brief,
    title=st.text(max_size=40),
    style=st.sampled_from(sorted(WORDS.schools)),
    cautions=st.lists(st.sampled_from(sorted(WORDS.cautions)), max_size=3).map(tuple),
    pace=st.none() | st.builds(Pace, st.floats(2, 30)),
    voice_rate=st.floats(0.5, 2.0),
)


@examples(12)
@given(st.lists(any_node, min_size=1, max_size=6), briefs, st.floats(0, 1))
def test_any_plan_at_all_becomes_a_whole_class_or_says_why_not(nodes, brief, share):
    plan = with_ids(Plan(brief=brief, sections=(Section(title="All", body=(*nodes, REST)),)))
    try:
        solved = solve(plan, WORDS)
        timed = solved.make(
            solved.nearest_s(solved.shortest_s + share * (solved.longest_s - solved.shortest_s))
        )
    except Problem as problem:
        assert problem.do  # noqa: PT017
        return
    assert timed.segments[0].start == 0
    assert timed.segments[-1].end == timed.length
    for before, after in pairwise(timed.segments):
        assert before.end == after.start
    for before, after in pairwise(timed.cues):
        assert before.end + 4 <= after.start
    for segment in timed.segments:
        for one, other in pairwise(segment.spans):
            assert one.end == other.start
        if segment.spans:
            assert (segment.spans[0].start, segment.spans[-1].end) == (segment.start, segment.end)
    assert all(cue.start >= 0 and cue.end <= timed.length for cue in timed.cues)
    assert not any("{" in cue.text for cue in timed.cues if "{" not in brief.title)
    assert parse_plan(plan_bytes(plan)) == plan
    assert script(timed)["length_s"] == timed.length_s


@examples(6)
@given(st.text(max_size=60), st.text(max_size=200))
def test_any_words_in_a_title_or_a_line_can_be_exported(title, line):
    steps = (Step(movement="downward-dog", lines={"align": [line]}), REST)
    timed = made_of(*steps, title=title)
    for name in (
        "text",
        "markdown",
        "csv",
        "srt",
        "vtt",
        "chapters",
        "ffmetadata",
        "podcast",
        "labels",
        "json",
    ):
        FORMATS[name].write(timed).decode()


@pytest.mark.parametrize("name", ["downward-dog", "clam", "hundred"])
def test_a_plan_of_five_hundred_steps_is_made_or_refused(name):
    least = {"downward-dog": 1, "clam": 4, "hundred": 1}[name]
    steps = tuple(Step(movement=name, least=least, amount=least + 1, most=least + 3) for _ in range(500))
    try:
        solved = solve(plan_of(*steps), WORDS)
        solved.make(solved.shortest_s)
    except Problem as problem:
        assert "four hours" in problem.what  # noqa: PT017


def test_the_props_are_announced_in_the_opening_and_again_before_they_are_needed():
    timed = made_of(
        Step(movement="welcome"), Step(movement="band-open"), Step(movement="block-squeeze"), REST
    )
    assert "You will want a band and a block close by." in said(timed, "say")
    band = next(s for s in timed.segments if s.use.movement.id == "band-open" and s.kind == "reps")
    before = [cue for cue in timed.cues if cue.purpose == "prop" and cue.start < band.start]
    assert [cue.text for cue in before] == ["Put the band round your thighs, above the knees."]


def test_counts_are_said_in_another_wording_each_time_within_three_minutes():
    holds = [Step(movement=name, amount=6, locked=True) for name in ("tree", "eagle", "dancer", "mountain")]
    timed = made_of(*(Pair(body=(step,)) for step in holds[:3]), holds[3], REST)
    counts = [cue for cue in timed.cues if cue.purpose == "count"]
    assert len(counts) >= 3  # balances say that they end, some of them
    for index, cue in enumerate(counts):
        near = [other.text for other in counts[index + 1 :] if other.start - cue.start < 1800]
        assert cue.text not in near


def test_speech_stays_under_the_share_of_the_style():
    for style, most in (("restorative", 0.3), ("flow", 0.75)):
        timed = made_of(
            Step(movement="child", amount=12, locked=True), REST, style=style, ways={"holds": "breaths"}
        )
        child = next(s for s in timed.segments if s.kind == "hold")
        spoken = sum(
            cue.end - cue.start for cue in timed.cues if cue.segment == child.id and cue.purpose != "count"
        )
        assert spoken <= most * child.length


def test_what_found_no_room_says_what_would_make_room():
    timed = made_of(Step(movement="low-lunge", amount=3, locked=True, side="right"), REST, ways={"talk": 0.2})
    assert timed.dropped
    assert all("make room" in line.reason for line in timed.dropped)


def test_a_slower_voice_makes_longer_set_ups_and_a_quicker_one_shorter():
    lengths = []
    for rate in (0.7, 1.0, 1.5):
        timed = made_of(
            Step(movement="welcome"), Step(movement="thread-arm", side="right"), REST, voice_rate=rate
        )
        lengths.append(next(s.length for s in timed.segments if s.kind == "talk"))
    assert lengths[0] > lengths[1] > lengths[2]


def test_the_class_is_the_same_from_its_file(tmp_path):
    plan = plan_of(Step(movement="thread-arm", side="right"), REST, title="Same")
    one, other = (solve(p, WORDS) for p in (plan, parse_plan(plan_bytes(plan))))
    assert script(one.make(one.preferred_s)) == script(other.make(other.preferred_s))


def test_a_target_of_three_hours_is_refused_with_what_can_be():
    solved = solve(plan_of(Step(movement="downward-dog"), REST), WORDS)
    with pytest.raises(Problem, match="longest"):
        solved.make(3 * 3600)


def test_contradicting_locks_are_refused_with_the_only_length_there_is():
    steps = (
        Step(movement="downward-dog", amount=5, locked=True, teach=10),
        Step(movement="final-rest", amount=60, locked=True, teach=10),
    )
    solved = solve(plan_of(*steps), WORDS)
    assert solved.longest_s - solved.shortest_s <= 15
    with pytest.raises(Problem, match="longest"):
        solved.make(solved.longest_s + 30)


def test_values_are_not_changed_by_being_made():
    plan = plan_of(Step(movement="thread-arm", side="right"), REST)
    before = msgspec.json.encode(plan)
    solved = solve(plan, WORDS)
    solved.make(solved.preferred_s)
    assert msgspec.json.encode(plan) == before
