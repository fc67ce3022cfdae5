"""A listener with closed eyes, who knows nothing but what is said."""

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from tests.conftest import demo_maker, examples, plan_of, shipped
from yewhour.core.library.position import START, base_of
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_edits
from yewhour.core.plan.nodes import LineEdit, Pair, Step
from yewhour.state.listing import demo_classes

WORDS = shipped()
BY_EAR = {"lost", "wrong-side-heard", "unsaid"}
MOVEMENTS = sorted(m.id for m in WORDS.library.values() if m.kind not in ("talk", "setup"))


def by_ear(timed):
    return [finding for finding in timed.findings if finding.code in BY_EAR]


def ways():
    places = WORDS.positions.places
    found = {change for a in (START, *places) for b in places for change in WORDS.positions.way(a, b).changes}
    return sorted(found, key=lambda change: (change.start, change.end))


@pytest.mark.parametrize("change", ways(), ids=lambda change: f"{change.start} to {change.end}")
def test_every_wording_of_a_way_brings_a_listener_where_it_goes(change):
    for text in change.say:
        start = change.start if not change.start.startswith("split") else " ".join(change.start.split()[:2])
        heard = WORDS.ear.after(base_of(start) if not start.startswith("split") else start, text)
        assert base_of(heard) == base_of(change.end), text
        if heard.startswith("split "):
            assert change.end.startswith(heard), text


@pytest.mark.parametrize("name", [path.stem for path in demo_classes()])
def test_nobody_is_lost_in_a_demo_class(name):
    solved = demo_maker(name)
    for length_s in (solved.shortest_s, solved.promised_s, solved.longest_s):
        assert [f.message for f in by_ear(solved.make(solved.nearest_s(length_s)))] == []


def node(name: str) -> Step | Pair:
    movement, step = WORDS.library[name], Step(movement=name)
    return Pair(body=(step,)) if movement.sides == "one" and not movement.side_by else step


@examples(40)
@example(["neck-turn", "neck-turn"], "hatha")
@given(st.lists(st.sampled_from(MOVEMENTS), min_size=3, max_size=7), st.sampled_from(sorted(WORDS.schools)))
def test_any_movement_may_come_after_any_other_in_any_style(names, style):
    solved = solve(plan_of(*(node(name) for name in names), style=style), WORDS)
    assert [finding.message for finding in by_ear(solved.make(solved.preferred_s))] == []


def test_a_way_that_is_not_said_is_noticed_and_mended():
    steps = (Step(movement="mountain", id="up"), Step(movement="bridge", id="down"))
    mute = LineEdit(step="down", purpose="way", do="mute")
    timed = _with(steps, (mute,))
    lost = next(finding for finding in timed.findings if finding.code == "lost")
    assert "standing when Bridge begins, and it is done supine" in lost.message
    assert lost.edit is not None


def test_a_line_of_ones_own_is_heard_like_any():
    steps = (Step(movement="mountain", id="up"), Step(movement="bridge", id="down"))
    led_away = LineEdit(step="up", purpose="call", do="add", text="Lie down on your front.", at_s=3.0)
    mute = LineEdit(step="down", purpose="way", do="mute")
    lost = next(finding for finding in _with(steps, (led_away, mute)).findings if finding.code == "lost")
    assert "By ear one is" in lost.message


def _with(steps, edits):
    plan = with_edits(plan_of(*steps), edits)
    solved = solve(plan, WORDS)
    return solved.make(solved.preferred_s)
