"""Days as they are typed, against a known today: Monday the 23rd of November 2026."""

from datetime import date

import pytest

from yewhour.core.problem import Problem
from yewhour.state.logbook.days import TypedDay, read_day, shown_date

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
        ("2031-03-05 the page", TypedDay(day(2031, 3, 5), "", "the page")),
    ],
)
def test_a_day_is_read(typed, given):
    assert read_day(typed, TODAY) == given


@pytest.mark.parametrize("typed", ["", "soon", "31 feb", "2031-13-01", "t", "thu 25:00", "5 foo"])
def test_what_is_no_day_is_told(typed):
    with pytest.raises(Problem, match=r"no day|no time"):
        read_day(typed, TODAY)


def test_a_day_is_shown():
    assert shown_date(day(2026, 12, 3)) == "Thu 3 Dec"
