"""What is cut out of a take has not been: the class goes on as it was, the film is as long as promised."""

from itertools import pairwise
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import some_of
from tests.core.take.test_take import demo_maker, made_demo, taken
from yewhour.core.take.apply_marks import apply_mark
from yewhour.core.take.cutting import in_film, in_recording, joined_ranges, places_to_go_back, recorded
from yewhour.core.take.marks import Mark
from yewhour.core.take.moment import moment
from yewhour.core.take.replay import replay

HAND = ("next", "again", "fewer", "pause", "resume", "back", "note")
NAMES = ("bell-ringers", "sail-loft-mat", "low-water", "sunrise-on-the-quay")


def some_marks(dice, until_s):
    """What a hand may do, in the order of time."""
    found, at_s = [Mark(0.0, "start")], 0.0
    while at_s < until_s:
        at_s = round(at_s + dice.uniform(5, 120), 1)
        found.append(
            Mark(at_s, dice.choice(["next", "again", "fewer", "pause", "resume", "back", "note"]), "n")
        )
    return [one for one in found if one.at_s < until_s]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", some_of(range(3), 3))
def test_the_class_goes_on_as_if_what_is_cut_out_had_not_been(name, seed):
    dice = Random(f"{name}{seed}")
    solved, timed = demo_maker(name), made_demo(name)
    cut_s = dice.uniform(60, timed.length_s * 0.6)
    before = some_marks(dice, cut_s)
    going = [one for one in before if one.do not in ("pause",)]  # it is going where it is taken up again
    gone = [Mark(round(cut_s + n * 7.3, 1), do, "n") for n, do in enumerate(("again", "pause", "next"), 1)]
    from_s, to_s = round(cut_s, 1), round(cut_s + 140, 1)
    cut = replay(solved, timed, [*going, *gone, Mark(to_s, "resume", cut=(from_s, to_s))])
    as_if = replay(solved, timed, going)
    assert cut.segments == as_if.segments
    assert cut.cues == as_if.cues
    assert (cut.target, cut.paused, cut.cuts) == (as_if.target, None, ((from_s, to_s),))
    for do, after_s in (("again", 3.0), ("next", 40.0), ("back", 55.0)):
        cut = apply_mark(cut, Mark(round(to_s + after_s, 1), do))
        as_if = apply_mark(as_if, Mark(round(from_s + after_s, 1), do))
        assert cut.segments == as_if.segments
        assert cut.cues == as_if.cues
    assert cut.end <= cut.target or cut.end == as_if.end


def test_a_pause_that_is_cut_out_costs_the_class_nothing_and_one_that_is_not_costs_the_rest():
    timed = made_demo("bell-ringers")
    pause, resume = Mark(300.0, "pause"), Mark(840.0, "resume")
    charged = taken("bell-ringers", pause, resume)
    free = taken("bell-ringers", pause, Mark(840.0, "resume", cut=(300.0, 840.0)))
    assert charged.segments != timed.segments
    assert free.segments == timed.segments
    assert moment(free, 8400 - free.out).at == 3000
    assert moment(free, 8400 - free.out).late == 0


def test_where_one_can_go_back_to_is_the_line_the_side_and_the_movement():
    timed = made_demo("bell-ringers")
    lunge = next(
        one for one in timed.segments if one.use.movement.id == "low-lunge" and not one.use.setup_for
    )
    take = taken("bell-ringers", Mark((lunge.start + 150) / 10, "note"))
    found = places_to_go_back(take, lunge.start + 150)
    assert [one.what for one in found] == ["line", "side", "movement"]
    line, side, movement = (one.at for one in found)
    assert line == max(cue.start for cue in take.cues if cue.start <= lunge.start + 150)
    assert side == lunge.start
    assert movement < lunge.start  # with the way into it
    assert places_to_go_back(take, 0) == []


def test_the_second_of_the_recording_is_known_of_what_is_past():
    take = taken("bell-ringers", Mark(100.0, "pause"), Mark(160.0, "resume", cut=(100.0, 160.0)))
    assert recorded(take, 500) == 50.0
    assert recorded(take, 1500) == 210.0


@given(st.lists(st.tuples(st.integers(0, 900), st.integers(1, 90)), max_size=6), st.floats(0, 1200))
def test_film_and_recording_are_carried_there_and_back(spans, film_s):
    cuts = joined_ranges((float(start), float(start + length)) for start, length in spans)
    assert all(one[1] < two[0] for one, two in pairwise(cuts))
    assert in_film(cuts, in_recording(cuts, film_s)) == pytest.approx(film_s)
    assert in_film(cuts, 3000.0) == pytest.approx(3000 - sum(end - start for start, end in cuts))
