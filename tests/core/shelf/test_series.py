"""Series: what each class repeats and prepares, the next one, and how one speaks of another."""

import pytest

from tests.conftest import demo_maker, shipped
from tests.core.shelf.shelves import sheet
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import steps_of
from yewhour.core.shelf.records import Series, ShelvedClass
from yewhour.core.shelf.series import (
    if_more,
    minutes_of,
    next_of,
    next_title,
    places_of,
    spoken_of,
)

LIBRARY = shipped().library
NECK = "title: Mornings\nlength: 10 min\ncautions: neck\n\n# Middle\nshoulder stand 5b\nbridge 5b\n"


def classes(*movements):
    return {
        f"c{n}": ShelvedClass(f"c{n}", sheet(f"Class {n}", movements=names))
        for n, names in enumerate(movements)
    }


def test_each_class_says_what_it_repeats_and_what_is_new():
    series = Series("s", "A course", weeks=2, each=2, classes=("c0", "c1"))
    places = places_of(series, classes(("low-lunge", "bridge"), ("low-lunge", "camel")), LIBRARY)
    assert [(one.week, one.number) for one in places] == [(1, 1), (1, 2), (2, 1), (2, 2)]
    assert places[0].repeats == ()
    assert "low-lunge" in places[1].repeats
    assert "camel" in places[1].new
    assert [one.shelved for one in places[2:]] == [None, None]


def test_a_class_prepares_what_comes_later_and_asks_for_it():
    asked = next(one for one in LIBRARY.values() if one.prepared_by)
    timed = classes((asked.prepared_by[0],), (asked.id,))
    first, second = places_of(Series("s", "A course", 1, 2, ("c0", "c1")), timed, LIBRARY)
    assert first.prepares == (asked.id,)
    assert second.prepares == ()


def test_the_next_class_begins_with_what_the_last_did():
    plan = demo_maker("bell-ringers").plan
    after = next_of(plan, "Ropes and shoulders 2", shipped().room(plan.brief))
    assert after.brief.title == "Ropes and shoulders 2"
    names, before = ([one.movement for one in steps_of(each)] for each in (after, plan))
    assert set(names) < set(before)
    assert names[:3] == before[:3]
    roles = [one.role for one in after.sections]
    assert roles.index("peak") < roles.index("rest") if "rest" in roles else True
    kept = solve(after, shipped()).preferred_s
    assert 0.15 < 1 - kept / solve(plan, shipped()).preferred_s < 0.6, "there is room for what is new"
    assert {one.id for one in steps_of(after)}.isdisjoint({one.id for one in steps_of(plan)})
    assert solve(after, shipped()).make(solve(after, shipped()).preferred_s).length_s > 0


def test_the_next_class_takes_nothing_along_that_is_left_out():
    plan = read_outline(NECK, LIBRARY)
    after = next_of(plan, "Next", shipped().room(plan.brief))
    assert [one.movement for one in steps_of(after)] == ["bridge"]


def test_titles_count_on():
    assert next_title("Slack tide", []) == "Slack tide 2"
    assert next_title("Slack tide 2", ["Slack tide 3"]) == "Slack tide 4"
    assert next_title("1400", []) == "1400 2"


def test_one_class_speaks_of_another_truly():
    short, long, other = sheet("Slack tide", 10), sheet("Slack tide", 30), sheet("Lamps out", 15)
    assert minutes_of(short, long) == 20
    assert if_more(short, long, "twenty") == (
        "If you have twenty minutes more another time, there is a longer Slack tide."
    )
    assert minutes_of(short, other) == 15
    assert if_more(short, other, "fifteen") == "If you have fifteen minutes more, go on with Lamps out."


@pytest.mark.parametrize("name", ["bell-ringers", "sail-loft-mat", "ten-on-the-lockside", "low-water"])
def test_what_is_said_of_another_class_is_in_the_script_once_before_the_last_words(name):
    words = shipped()
    line = "If you have fifteen minutes more, go on with Lamps out."
    plan = spoken_of(demo_maker(name).plan, line, words.library, words.blocks)
    other = line.replace("fifteen", "ten")
    again = spoken_of(plan, other, words.library, words.blocks)
    timed = solve(again, words).make()
    said = [cue.text for cue in timed.cues]
    assert other in said
    assert line not in said
    assert said.index(other) >= len(said) - 4
