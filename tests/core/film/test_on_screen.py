"""What a film tells at a moment is what the class does then."""

from itertools import pairwise

import pytest

from tests import films
from tests.conftest import demo_maker, made_of
from yewhour.core.film.on_screen import FADE_S, NAME_S, NEXT_S, TITLE_S, ScreenFacts
from yewhour.core.lengths import seconds
from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import Step


@pytest.fixture(scope="module")
def lunges():
    return films.lunges()


def on(timed, name, side="both"):
    return next(one for one in timed.segments if one.use.movement.id == name and one.side == side
                and not one.use.setup_for)  # fmt: skip


def test_the_title_stands_at_the_beginning_and_talk_has_no_name(lunges):
    facts = ScreenFacts(lunges)
    assert facts.at(0.5).title
    assert not facts.at(TITLE_S + 0.1).title
    assert facts.at(0.5).shown is None
    assert facts.at(lunges.length_s + 5).shown is None


def test_without_a_camera_the_title_stands_until_there_is_something_to_see():
    timed = demo_maker("lamps-out").make()
    first = next(one for one in timed.segments if not one.behaviour.is_talk)
    began_s = seconds(first.start)
    assert began_s > TITLE_S + 1
    assert ScreenFacts(timed, alone=True).at(began_s - 0.5).title
    assert not ScreenFacts(timed).at(began_s - 0.5).title
    assert not ScreenFacts(timed, alone=True).at(began_s + 0.1).title


def test_a_name_stands_as_its_movement_begins_and_the_side_while_it_is_on(lunges):
    facts, lunge = ScreenFacts(lunges), on(lunges, "low-lunge", "right")
    first = facts.at(seconds(lunge.start) + 0.2)
    assert (first.shown.use.name, first.side, first.named) == ("Low lunge", "right", True)
    assert not facts.at(seconds(lunge.start) + NAME_S + 0.5).named
    left = on(lunges, "low-lunge", "left")
    assert facts.at(seconds(left.start) + 0.2).side == "left"
    assert facts.at(seconds(on(lunges, "child").start) + 1).side == ""


def test_what_is_left_goes_to_nothing_and_is_counted_as_on_the_mat(lunges):
    facts, lunge = ScreenFacts(lunges), on(lunges, "low-lunge", "right")
    begin, end = seconds(lunge.start), seconds(lunge.end)
    told = [facts.at(begin + (end - begin) * share) for share in (0.01, 0.3, 0.6, 0.99)]
    assert [one.left for one in told] == ["4 breaths", "3 breaths", "2 breaths", "1 breath"]
    assert all(one.share > after.share for one, after in pairwise(told))
    assert told[-1].share < 0.02
    cow = made_of(Step(movement="bridge-roll", amount=3))
    rolls = ScreenFacts(cow)
    segment = on(cow, "bridge-roll")
    long_s = seconds(segment.end - segment.start)
    assert rolls.at(seconds(segment.start) + 0.1).left == "3 more"
    assert rolls.at(seconds(segment.start) + long_s - 0.2).left == "the last"


def test_what_comes_is_told_in_the_last_seconds_and_not_on_the_way(lunges):
    facts, child = ScreenFacts(lunges), on(lunges, "child")
    end = seconds(child.end)
    assert facts.at(end - NEXT_S - 1).coming is None
    coming = facts.at(end - 2).coming
    assert (coming.use.name, coming.side) == ("Low lunge", "right")
    assert facts.at(end + 0.5).coming is None
    assert facts.at(end + 0.5).shown.use.name == "Low lunge"  # one is on the way there


def test_a_breath_fills_and_empties_and_alternating_work_lights_the_side_of_its_stroke(lunges):
    facts, child = ScreenFacts(lunges), on(lunges, "child")
    full = {span.phase: facts.at((span.start + span.end) / 20).breath for span in child.spans}
    assert full == pytest.approx({"inhale": 0.5, "exhale": 0.5})
    span = next(one for one in child.spans if one.phase == "inhale")
    assert facts.at(seconds(span.end) - 0.05).breath > 0.98
    crossed = demo_maker("four-at-the-slip").make(240.0)
    told = ScreenFacts(crossed)
    cross = next(one for one in crossed.segments if one.use.name == "Criss-cross" and not one.use.setup_for)
    sides = [told.at(seconds(cross.start) + at / 10).side for at in range(1, 120)]
    assert set(sides) == {"left", "right"}


def test_the_words_are_those_of_the_captions(lunges):
    facts = ScreenFacts(lunges)
    first = lunges.cues[0]
    assert facts.at(seconds(first.start) + 0.5).caption.split()[0] == first.text.split()[0]
    assert facts.at(lunges.length_s + 10).caption == ""


def test_to_the_second(lunges):
    """Where each thing begins and ends to be told."""
    facts, child = ScreenFacts(lunges), on(lunges, "child")
    begin, end = seconds(child.start), seconds(child.end)
    assert facts.at(TITLE_S - 0.05).title
    assert not facts.at(TITLE_S).title
    way = next(one for one in lunges.segments if one.use.setup_for == child.use.key)
    assert facts.at(seconds(way.start) + 0.05).shown.use.name == "Child's pose"  # on the way there
    assert facts.at(seconds(way.start) + 0.05).named
    assert facts.at(begin + NAME_S - 0.1).named
    assert not facts.at(begin + NAME_S + 0.1).named
    assert facts.at(end - NEXT_S + 0.1).coming is not None
    assert facts.at(end - NEXT_S - 0.1).coming is None
    assert facts.at(begin + 0.05).share == pytest.approx(1.0, abs=0.01)
    on_way = facts.at(end + 0.5)
    assert (on_way.left, on_way.share, on_way.breath is None or 0 <= on_way.breath <= 1) == ("", 0.0, True)


def test_a_breath_is_full_when_it_is_held_full_and_empty_when_empty():
    timed = made_of(Step(movement="seated-breath", amount=4), pace=Pace(6.0, (4.0, 2.0, 4.0, 2.0)))
    facts = ScreenFacts(timed)
    spans = [span for one in timed.segments if not one.use.setup_for for span in one.spans]
    seen = {span.phase: facts.at((span.start + span.end) / 20).breath for span in spans}
    assert seen == pytest.approx({"inhale": 0.5, "full": 1.0, "exhale": 0.5, "empty": 0.0}, abs=0.02)
    inhale = next(span for span in spans if span.phase == "inhale")
    early, late = (
        facts.at((inhale.start + (inhale.end - inhale.start) * at) / 10).breath for at in (0.25, 0.75)
    )
    assert early == pytest.approx(0.156, abs=0.03)
    assert late == pytest.approx(0.844, abs=0.03)


def test_what_goes_by_the_clock_is_told_in_seconds():
    timed = made_of(Step(movement="final-rest", amount=60))
    facts, rest = ScreenFacts(timed), on(timed, "final-rest")
    assert facts.at(seconds(rest.end) - 30).left == "0:30"


def test_it_comes_out_of_the_dark_and_goes_back_and_is_clear_between(lunges):
    facts, end = ScreenFacts(lunges), lunges.length_s
    dark = [
        facts.at(at).dark for at in (0.0, FADE_S[0] / 2, FADE_S[0], end / 2, end - FADE_S[1], end - 0.75, end)
    ]
    assert dark == pytest.approx([1.0, 0.5, 0.0, 0.0, 0.0, 0.5, 1.0])
