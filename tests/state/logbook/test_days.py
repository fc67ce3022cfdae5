"""Days as they are typed, against a known today: Monday the 23rd of November 2026."""

from datetime import date

import pytest

from yewhour.core.problem import Problem
from yewhour.state.logbook.days import TypedDay, read_day, read_days, shown_date

TODAY = date(2026, 11, 23).toordinal()


def day(year, month, number):
    return date(year, month, number).toordinal()


@pytest.mark.parametrize(
    ("typed", "given"),
    [
        ("thu", TypedDay(day(2026, 11, 26), "", "")),
        ("Thursday 18:30 the letter", TypedDay(day(2026, 11, 26), "18:30", "the letter")),
        ("mon 7:00", TypedDay(TODAY, "07:00", "")),
        ("next monday", TypedDay(TODAY + 7, "", "")),
        ("next thu at 6pm, the loop", TypedDay(day(2026, 12, 3), "18:00", "the loop")),
        ("today 9.15", TypedDay(TODAY, "09:15", "")),
        ("tomorrow", TypedDay(TODAY + 1, "", "")),
        ("3 dec", TypedDay(day(2026, 12, 3), "", "")),
        ("3 December 2027 12am", TypedDay(day(2027, 12, 3), "00:00", "")),
        ("5 jan", TypedDay(day(2027, 1, 5), "", "")),
        ("2 november", TypedDay(day(2026, 11, 2), "", "")),
        ("tue 8 dec 07:00 video", TypedDay(day(2026, 12, 8), "07:00", "video")),
        ("Tuesday, 8 December", TypedDay(day(2026, 12, 8), "", "")),
        ("2031-03-05 the page", TypedDay(day(2031, 3, 5), "", "the page")),
    ],
)
def test_a_day_is_read(typed, given):
    assert read_day(typed, TODAY) == given


@pytest.mark.parametrize(
    "typed", ["", "soon", "31 feb", "2031-13-01", "t", "thu 25:00", "5 foo", "soon 8 dec"]
)
def test_what_is_no_day_is_told(typed):
    with pytest.raises(Problem, match=r"no day|no time"):
        read_day(typed, TODAY)


@pytest.mark.parametrize(
    "typed", ["wed 8 dec", "thu the 4 dec", "thu 8/12", "thu 07:00 3 dec", "thu 18:30 19:30"]
)
def test_what_could_be_another_day_is_refused_and_never_read_by_half(typed):
    with pytest.raises(Problem, match=r"is not a|another day"):
        read_day(typed, TODAY)


def test_days_that_come_every_week_are_given_at_once():
    given = read_days("every tue and thu 07:00 the letter", TODAY)
    assert [one.day for one in given[:3]] == [day(2026, 11, 24), day(2026, 11, 26), day(2026, 12, 1)]
    assert len(given) == 8
    assert {(one.at, one.where) for one in given} == {("07:00", "the letter")}
    assert len(read_days("every mon, wed for 6 weeks", TODAY)) == 12
    assert read_days("every friday until 11 dec", TODAY)[-1] == TypedDay(day(2026, 12, 11), "", "")
    assert read_days("thu", TODAY) == (read_day("thu", TODAY),)
    for wrong in ("every now and then", "every tue until 1 jan 2030", "every tue until 23 nov"):
        with pytest.raises(Problem):
            read_days(wrong, TODAY)


def test_a_day_is_shown():
    assert shown_date(day(2026, 12, 3)) == "Thu 3 Dec"
