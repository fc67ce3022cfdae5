"""How a movement is taught: what comes first, how much is quiet, what is never said twice, what comes down
again."""

import re
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import demo_maker, examples, made_of, plan_of, said, shipped
from yewhour.content.paths import demo_classes
from yewhour.core.library.facets import Facets, FacetValue
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.script.body_state import state_of
from yewhour.core.sides import evened

REST = Step(movement="final-rest")
LIBRARY = shipped().library
THOUGHTS = ("aim", "check", "image", "deepen", "compare", "keep", "late")
NAMES = [path.stem for path in demo_classes()]
SHAPED = sorted(one.id for one in LIBRARY.values() if one.shape and not one.behaviour.framing)


@pytest.mark.parametrize("name", NAMES)
def test_no_thought_comes_twice_in_a_class(name):
    solved = demo_maker(name)
    for length_s in (solved.promised_s, solved.longest_s):
        timed = solved.make(solved.nearest_s(length_s))
        texts = [evened(cue.text) for cue in timed.cues if cue.purpose in THOUGHTS and not cue.own]
        assert len(texts) == len(set(texts))


@pytest.mark.parametrize("seconds", [60, 120, 240])
def test_a_long_hold_is_mostly_quiet_and_talks_in_islands(seconds):
    timed = made_of(Step(movement="long-caterpillar", amount=seconds, locked=True), REST, style="slow")
    hold = next(one for one in timed.segments if one.kind == "clock")
    cues = [cue for cue in timed.cues if cue.segment == hold.id and cue.purpose in THOUGHTS]
    assert cues
    assert sum(cue.end - cue.start for cue in cues) <= 0.34 * hold.length
    if seconds >= 120:
        gaps = [after.start - cue.end for cue, after in pairwise(cues[1:])]
        assert all(gap >= 300 for gap in gaps)


def test_a_short_hold_says_what_it_is_for_and_then_is_quiet():
    timed = made_of(Step(movement="camel-prep", amount=3, locked=True), REST, style="hatha")
    hold = next(one for one in timed.segments if one.kind == "hold")
    purposes = [cue.purpose for cue in timed.cues if cue.segment == hold.id]
    assert "aim" in purposes
    assert not {"image", "deepen"} & {*purposes}


def test_in_a_quick_style_one_is_in_it_at_once_and_it_is_placed_there():
    quick, slow = (
        made_of(Step(movement="bridge"), Step(movement="fish", amount=6), REST, style=style)
        for style in ("flow", "hatha")
    )

    def setup(timed):
        return next(
            one.length for one in timed.segments if one.use.setup_for and one.use.movement.id == "fish"
        )

    assert setup(quick) < setup(slow)
    fish = next(one for one in quick.segments if one.use.movement.id == "fish" and one.kind == "hold")
    placed = [cue for cue in quick.cues if cue.segment == fish.id and cue.purpose == "place"]
    assert len(placed) == len(LIBRARY["fish"].card.place)


def test_who_is_minded_hears_it_before_an_inversion_is_begun():
    timed = made_of(Step(movement="shoulder-stand", amount=4), REST, cautions=("neck",), level="experienced")
    order = [
        cue.purpose
        for cue in timed.cues
        if cue.segment.endswith("/into") and cue.purpose in ("protect", "place")
    ]
    assert order.index("protect") < order.index("place")


def test_a_curled_head_stays_up_from_one_to_the_next_and_comes_down_after():
    run = [Step(movement=one) for one in ("single-leg-stretch", "criss-cross", "bridge-roll")]
    texts = [cue.text for cue in made_of(*run, REST, style="mat-classical").cues]
    assert any("stay up" in text.lower() for text in texts)
    lowered = next(n for n, text in enumerate(texts) if "head down" in text.lower())
    assert lowered < next(n for n, text in enumerate(texts) if "Pelvic curl" in text)
    assert lowered > next(n for n, text in enumerate(texts) if "Criss-cross" in text)


def test_on_the_front_each_backbend_comes_down_before_the_next():
    timed = made_of(Step(movement="half-bow", side="left"), Step(movement="superman"))
    texts = [cue.text for cue in timed.cues]
    assert any("let the foot go" in text.lower() for text in texts)
    assert not any("stay up" in text.lower() for text in texts)


@examples(30)
@given(st.lists(st.sampled_from(SHAPED), min_size=2, max_size=5), st.sampled_from(sorted(shipped().schools)))
def test_nothing_is_left_up_whatever_follows_what(names, style):
    nodes = [
        Pair(body=(Step(movement=name),)) if LIBRARY[name].sides == "one" else Step(movement=name)
        for name in names
    ]
    solved = solve(plan_of(*nodes, REST, style=style), shipped())
    found = [
        one.message
        for one in solved.make(solved.preferred_s).findings
        if one.code in ("left-up", "which-first")
    ]
    assert found == []


def test_what_is_up_is_undone_in_order_and_what_is_kept_is_not():
    facets = Facets(
        {
            "head": {"up": FacetValue("head up", "head down", "stay up", True)},
            "arms": {"up": FacetValue("arms up", "arms down"), "free": FacetValue("arms free")},
            "legs": {"{side} up": FacetValue("{side} leg up", "{side} leg down")},
        }
    )
    before = {"legs": "left up", "head": "up", "arms": "up"}
    assert [*facets.undone(before, {})] == ["head down", "arms down", "left leg down"]
    assert [*facets.undone(before, {"head": "up", "arms": "free"})] == ["left leg down"]
    assert [*facets.undone(before, {**before, "legs": "right up"})] == ["left leg down"]
    assert [*facets.kept(before, {"head": "up"})] == ["stay up"]
    assert facets.fault({"head": "off"}).startswith("'off' is no value of head")
    assert facets.fault({"tail": "up"}).startswith("'tail' is no facet")


def test_a_state_can_be_asked_for():
    timed = made_of(Step(movement="hundred"), REST, style="mat-classical")
    state = state_of(
        next(one for one in timed.segments if one.use.movement.id == "hundred" and not one.use.setup_for)
    )
    assert (state.base, state.form, state.facets["head"]) == ("supine", "table", "up")
    names = {"supine table": "on the back, legs in table top"}
    assert state.words(names, shipped().facets).startswith("on the back, legs in table top, head up")


# --- the frame --------------------------------------------------------------------------------------------


def test_a_welcome_says_why_and_what_and_a_theme_comes_three_times():
    theme = ("A rope has three strands.", "Here is the second strand.", "And laid up again.")
    work = [Step(movement=one) for one in ("butterfly", "warrior-two", "low-lunge", "bridge", "lying-twist")]
    nodes = [Pair(body=(one,)) if LIBRARY[one.movement].sides == "one" else one for one in work]
    frame = (Step(movement="welcome"), *nodes, REST, Step(movement="return"), Step(movement="farewell"))
    timed = made_of(*frame, reason="For ropemakers.", theme=theme, target_s=1500.0)
    texts = [cue.text for cue in timed.cues]
    at = [texts.index(one) for one in ("For ropemakers.", *theme)]
    assert at == sorted(at)
    assert any(text.startswith(("We begin", "We start", "First ")) for text in texts[:5])
    assert at[2] < len(texts) - 10
    own = made_of(*frame, shape="Down, up, and down again.", target_s=1500.0)
    assert "Down, up, and down again." in said(own, "say")


def test_a_class_all_in_one_place_says_so():
    seats = [Step(movement=one) for one in ("seated-fold", "staff", "seated-cat")]
    timed = made_of(Step(movement="welcome"), *seats, target_s=900.0)
    assert any("sitting" in text for text in said(timed, "say"))


def test_the_shape_begins_where_one_arrives_and_names_what_the_class_goes_to():
    work = [Step(movement=one) for one in ("butterfly", "bridge", "camel", "child")]
    frame = (Step(movement="welcome"), Step(movement="arriving-lying"), *work, REST)
    lines = [cue.text for cue in made_of(*frame, target_s=1200.0).cues[:6]]
    assert any("on the back" in line.split(",")[0] for line in lines)
    towards = [cue.text for cue in made_of(*frame, target_s=1200.0, peak="camel").cues[:6]]
    assert any("camel" in line for line in towards)


def test_who_was_promised_quiet_is_called_back_before_anything_moves():
    calls = {one[0] for one in shipped().wording.quiet_over}
    quiet = (Step(movement="silence-ahead"), Step(movement="long-sphinx", amount=240))
    timed = made_of(Step(movement="welcome"), *quiet, Step(movement="child"), REST, Step(movement="return"))
    texts = [cue.text for cue in timed.cues]
    (called,) = [at for at, text in enumerate(texts) if text in calls]
    child = next(one for one in timed.segments if one.use.movement.id == "child")
    sphinx = next(
        one for one in timed.segments if one.use.movement.id == "long-sphinx" and not one.use.setup_for
    )
    after = [cue for cue in timed.cues if sphinx.end <= cue.start < child.end]
    assert after[0].text == texts[called]
    rested = made_of(
        Step(movement="silence-ahead"), Step(movement="final-rest", amount=240), Step(movement="return")
    )
    assert not calls & {cue.text for cue in rested.cues}  # the words of the return do it


@pytest.mark.parametrize("counting", ["silent", "last three"])
def test_a_silence_that_is_told_is_as_long_as_it_was_said_to_be(counting):
    for seconds in (240, 420):
        hold = Step(movement="long-caterpillar", amount=seconds, most=seconds, locked=True)
        timed = made_of(hold, REST, style="slow", ways={"counting": counting, "talk": 0.6})
        segment = next(one for one in timed.segments if one.kind == "clock")
        cues = [cue for cue in timed.cues if cue.segment == segment.id]
        for cue, after in pairwise(cues):
            minutes = re.search(r"about (a|two|three|four|five) minutes?", cue.text)
            if cue.purpose == "time" and minutes:
                said = {"a": 60, "two": 120, "three": 180, "four": 240, "five": 300}[minutes[1]]
                assert abs((after.start - cue.end) / 10 - said) <= 35
