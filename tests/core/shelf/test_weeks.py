"""Weeks: what was given in each, what is new in it, and what the weeks are worth saying of."""

import pytest

from tests.conftest import shipped
from tests.core.shelf.shelves import MONDAY, sheet, shelf_of, taken
from yewhour.content.shelf_wording import load_shelf_wording
from yewhour.content.terms import load_terms
from yewhour.core.shelf.records import (
    Outing,
    ShelfRecords,
    monday_of,
    week_of,
    weekday,
)
from yewhour.core.shelf.weekly_notes import due, shelf_notes, shown_day
from yewhour.core.shelf.weeks import (
    given_classes,
    lately,
    months_of,
    weeks_of,
)

AREAS = load_terms(shipped().positions).areas
WORDS = load_shelf_wording()
MONTHS = ("January", "February", "March", "April")


def month_of(day):
    return MONTHS[(day - MONDAY) // 28 % 4]


def seen(shelf, weeks):
    found = weeks_of(given_classes(shelf), week_of(MONDAY), week_of(MONDAY) + weeks - 1)
    return shelf_notes(found, shipped().library, AREAS, WORDS, month_of)


def week_after_week(*per_week):
    """A shelf of one class a week, each of (works) areas with its seconds."""
    return shelf_of(
        *(
            (MONDAY + 7 * n + 2, sheet(f"Class {n}", works=works))
            for n, works in enumerate(per_week)
            if works is not None
        )
    )


def test_weeks_begin_on_mondays():
    assert weekday(MONDAY) == 0
    assert {week_of(MONDAY + n) for n in range(7)} == {week_of(MONDAY)}
    assert monday_of(week_of(MONDAY + 6)) == MONDAY


def test_a_week_adds_up_its_classes_and_tells_what_is_new():
    shelf = shelf_of(
        (MONDAY, sheet("One", works={"hips": 100.0}, movements=("bridge",), sides=(60.0, 60.0))),
        (
            MONDAY + 3,
            sheet("Two", works={"hips": 50.0}, opens={"chest": 30.0}, movements=("bridge", "camel")),
        ),
        (MONDAY + 8, sheet("Three", movements=("camel", "cobra"))),
    )
    first, second, third = weeks_of(given_classes(shelf), week_of(MONDAY), week_of(MONDAY) + 2)
    assert first.works == {"hips": 150.0}
    assert first.areas["chest"] == 30.0
    assert first.new == ("bridge", "camel")
    assert (second.new, second.repeated) == (("cobra",), ("camel",))
    assert first.length_s == 2400
    assert third.given == ()


def test_a_class_without_a_day_counts_when_it_was_recorded():
    shelf = shelf_of((0, sheet("Early")), takes=[taken("c0", MONDAY + 1), taken("c0", MONDAY + 1, 1210.0)])
    assert [one.day for one in given_classes(shelf)] == [MONDAY + 1]


def test_what_runs_week_after_week_is_said():
    hips = {"hips": 900.0}
    said = [one.words for one in seen(week_after_week({"feet": 900.0}, hips, hips, hips), 4)]
    assert "Hips: 3 weeks running." in said
    assert not any("Hips" in one for one in [s.words for s in seen(week_after_week(hips, hips), 2)])


@pytest.mark.parametrize(("away", "words"), [(6, "not for 6 weeks"), (9, "not since January"), (3, "")])
def test_what_has_not_come_for_long_is_said(away, words):
    wrists, hips = {"wrists": 200.0, "hips": 100.0}, {"hips": 100.0}
    said = [one.words for one in seen(week_after_week(wrists, *[hips] * away), away + 1)]
    messages = [one for one in said if one.startswith("Wrists")]
    assert bool(messages) == bool(words)
    assert all(words in one for one in messages)


def test_what_never_came_is_said_only_after_weeks_enough():
    hips = {"hips": 100.0}
    assert any(one.code == "never" for one in seen(week_after_week(*[hips] * 8), 8))
    assert not any(one.code == "never" for one in seen(week_after_week(*[hips] * 3), 3))


def test_weeks_without_a_class_break_no_row_and_nothing_is_said_of_nothing():
    hips = {"hips": 900.0}
    assert any(one.code == "running" for one in seen(week_after_week(hips, None, hips, hips), 4))
    assert seen(ShelfRecords(), 6) == []


def test_sides_that_are_apart_are_said_and_those_that_are_not_are_not():
    apart = shelf_of((MONDAY, sheet(sides=(600.0, 400.0))))
    assert [one.words for one in seen(apart, 1)] == ["The left side got 3 min less than the other this week."]
    assert seen(shelf_of((MONDAY, sheet(sides=(600.0, 595.0)))), 1) == []


def test_the_same_movement_in_every_class_is_said():
    rows = [(MONDAY + n, sheet(f"Class {n}", movements=("low-lunge", f"other-{n}"))) for n in range(5)]
    assert "Low lunge came in each of the last 5 classes." in [one.words for one in seen(shelf_of(*rows), 1)]
    assert not any(one.code == "again" for one in seen(shelf_of(*rows[:4]), 1))


def test_what_goes_out_is_said_first_and_what_is_past_last():
    shelf = shelf_of(
        (MONDAY + 4, sheet("Friday's")), (MONDAY + 2, sheet("Wednesday's")), (MONDAY - 3, sheet("Overdue")),
        (MONDAY + 30, sheet("Far off")), takes=[taken("c1", MONDAY - 1)],
    )  # fmt: skip
    said = due(shelf, MONDAY, WORDS)
    assert [one.code for one in said] == ["due", "ready", "missed"]
    assert said[2].words == "Overdue was to go out on Friday last week, and is not recorded."
    assert said[0].words == "Friday's goes out on Friday, and is to be recorded by Friday."
    assert shown_day(MONDAY + 8, MONDAY) == "Tuesday next week"


@pytest.mark.parametrize(
    ("outing", "takes", "state"),
    [
        ({"day": MONDAY + 2}, (), "planned"),
        ({"day": MONDAY + 2, "by": MONDAY - 1}, (), "late"),
        ({"day": MONDAY + 2, "recorded": True}, (), "recorded"),
        ({"day": MONDAY + 2}, (taken("c", MONDAY),), "recorded"),
        ({"day": MONDAY - 2}, (taken("c", MONDAY - 4),), "out"),
        ({"day": MONDAY - 2, "out": True}, (), "out"),
        ({"day": MONDAY - 2}, (), "late"),
    ],
)
def test_how_far_a_class_is(outing, takes, state):
    shelf = ShelfRecords(takes={one.id: one for one in takes})
    assert shelf.state_of(Outing("o", "c", **outing), MONDAY) == state


def test_promised_and_recorded_by_month():
    takes = [taken("a", MONDAY, 1205.0), taken("b", MONDAY + 1, 1300.0), taken("c", MONDAY + 40, 1200.0)]
    shelf = ShelfRecords(takes={one.id: one for one in takes})
    first, second = months_of(shelf, month_of)
    assert (first.name, first.takes, first.promised_s, first.length_s, first.near) == (
        "January", 2, 2400.0, 2505.0, 1,
    )  # fmt: skip
    assert second.takes == 1


def test_what_was_taught_lately_counts_the_more_the_later_it_was():
    rows = [(MONDAY, sheet("Old", movements=("camel",))), (MONDAY + 14, sheet("New", movements=("bridge",)))]
    seen = lately(
        given_classes(shelf_of(*rows, (MONDAY + 60, sheet("Ahead", movements=("plank",))))), MONDAY + 20
    )
    assert 0 < seen["camel"] < seen["bridge"] < 1
    assert "plank" not in seen
