"""Days as they are typed: `thu 18:30 the letter`, `3 dec`, `tomorrow 7:00`, `2031-03-05`."""

import re
from datetime import date, timedelta
from typing import NamedTuple

from yewhour.core.problem import Problem
from yewhour.core.shelf.records import DAYS, WEEKDAYS, weekday

MONTHS = (
    "january", "february", "march", "april", "may", "june", "july", "august", "september", "october",
    "november", "december",
)  # fmt: skip
_TIME = re.compile(r"^(?:at\s+)?(\d{1,2})[:.](\d\d)\b|^(?:at\s+)?(\d{1,2})\s*(am|pm)\b", re.IGNORECASE)
_ISO = re.compile(r"^(\d{4})-(\d\d?)-(\d\d?)\b")
_DATE = re.compile(r"^(\d{1,2})\.?\s+([a-z]{3,9})\.?(?:\s+(\d{4}))?\b", re.IGNORECASE)
_WORD = re.compile(r"^(next\s+|on\s+)?([a-z]+)\b", re.IGNORECASE)


class TypedDay(NamedTuple):
    """A day, a time as `18:30` ("" for none), and what stood behind them: where."""

    day: int
    at: str
    where: str


def read_day(text: str, today: int) -> TypedDay:
    """A day that was typed. A weekday is the next one there is, today's is today.

    Raises Problem for what is no day, and for a day that does not exist.
    """
    day, rest = _day(text.strip(), today)
    rest = rest.strip(" ,")
    at = ""
    if found := _TIME.match(rest):
        at = _time(found)
        rest = rest[found.end() :]
    return TypedDay(day, at, " ".join(rest.strip(" ,").split()))


def _day(text: str, today: int) -> tuple[int, str]:
    try:
        if found := _ISO.match(text):
            return date(int(found[1]), int(found[2]), int(found[3])).toordinal(), text[found.end() :]
        if found := _DATE.match(text):
            month = next(n for n, name in enumerate(MONTHS, 1) if name.startswith(found[2].lower()))
            return _dated(int(found[1]), month, found[3], today), text[found.end() :]
        if found := _WORD.match(text):
            day = _named(found[2].lower(), bool(found[1] and found[1].lower().startswith("next")), today)
            return day, text[found.end() :]
    except (ValueError, StopIteration):
        pass
    raise Problem(
        f"{text or 'Nothing'} is no day.", "the shelf", "Write a day, as: thu 18:30, 3 dec, or 2031-03-05."
    )


def _dated(day: int, month: int, year: str | None, today: int) -> int:
    """That day of this year, or of the next where it is long gone."""
    if year:
        return date(int(year), month, day).toordinal()
    now = date.fromordinal(today)
    found = date(now.year, month, day)
    return (found if found >= now - timedelta(days=90) else date(now.year + 1, month, day)).toordinal()


def _named(word: str, after: bool, today: int) -> int:
    if word in ("today", "tomorrow"):
        return today + (word == "tomorrow")
    place = next(n for n, name in enumerate(WEEKDAYS) if len(word) >= 2 and name.lower().startswith(word))
    ahead = (place - weekday(today)) % DAYS
    return today + ahead + (DAYS if after and place >= weekday(today) else 0)


def _time(found: re.Match[str]) -> str:
    if found[1]:
        hours, minutes = int(found[1]), int(found[2])
    else:
        hours, minutes = int(found[3]) % 12 + (12 if found[4].lower() == "pm" else 0), 0
    if hours > 23 or minutes > 59:
        raise Problem(f"{found[0]} is no time of day.", "the shelf", "Write it as 7:00 or 18:30.")
    return f"{hours:02}:{minutes:02}"


def month_name(day: int) -> str:
    """The month a day is in."""
    return f"{date.fromordinal(day):%B}"


def month_and_year(day: int) -> str:
    """The month a day is in, with its year."""
    return f"{date.fromordinal(day):%B %Y}"


def shown_date(day: int) -> str:
    """A day as it is written: `Thu 3 Dec`."""
    there = date.fromordinal(day)
    return f"{there:%a} {there.day} {there:%b}"
