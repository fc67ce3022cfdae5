"""Days as they are typed: `thu 18:30 the letter`, `tue 8 dec`, `tomorrow 7:00`, `every tue and thu 07:00`."""

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
_SLASHED = re.compile(r"^\d{1,2}/\d{1,2}\b")
_FOR = re.compile(r"\bfor\s+(\d{1,2})\s+weeks?\b", re.IGNORECASE)
_UNTIL = re.compile(r"\buntil\s+(.+)$", re.IGNORECASE)
WEEKS, MOST_DAYS = 4, 60  # that are planned at once: without a word of how long, and at most
_WORD = re.compile(r"^(next\s+|on\s+)?([a-z]+)\b", re.IGNORECASE)


class TypedDay(NamedTuple):
    """A day, a time as `18:30` ("" for none), and what stood behind them: where."""

    day: int
    at: str
    where: str


def read_day(text: str, today: int) -> TypedDay:
    """A day that was typed. A weekday is the next one there is, today's is today; a date may follow it.

    Raises Problem for what is no day, for a day that does not exist, and for what could be another day.
    """
    day, rest = _day(text.strip(), today)
    return _with_time(day, rest)


def read_days(text: str, today: int) -> tuple[TypedDay, ...]:
    """The days that were typed: one, or with `every` in front those of the weeks to come.

    `every tue and thu 07:00 for 6 weeks`, `every mon until 20 dec`; four weeks where nothing says how long.
    Raises Problem as read_day does, and for more days than anybody plans at once.
    """
    words = text.split()
    if not words or words[0].lower() != "every":
        return (read_day(text, today),)
    taken, places = 1, set[int]()
    for word in words[1:]:
        plain = word.strip(",").lower()
        if plain == "day":
            places |= set(range(DAYS))
        elif plain != "and":
            place = _place(plain)
            if place is None:
                break
            places.add(place)
        taken += 1
    if not places:
        do = "Write, for instance: every tue and thu 07:00."
        raise Problem(f"{text.strip()!r} names no day of the week.", "the shelf", do)
    rest = " ".join(words[taken:])
    last = today + DAYS * WEEKS - 1
    if weeks := _FOR.search(rest):
        last, rest = today + DAYS * int(weeks[1]) - 1, rest[: weeks.start()] + rest[weeks.end() :]
    elif until := _UNTIL.search(rest):
        last, behind = _day(until[1], today)
        rest = f"{rest[: until.start()]} {behind}"
    given = _with_time(today, rest)
    days = [day for day in range(today, last + 1) if weekday(day) in places]
    if not 0 < len(days) <= MOST_DAYS:
        how = "no day" if not days else f"{len(days)} days"
        do = "Write, for instance: every tue and thu 07:00 for 6 weeks."
        raise Problem(f"{text.strip()!r} gives {how}.", "the shelf", do)
    return tuple(given._replace(day=day) for day in days)


def _with_time(day: int, rest: str) -> TypedDay:
    rest = rest.strip(" ,")
    at = ""
    if found := _TIME.match(rest):
        at = _time(found)
        rest = rest[found.end() :]
    where = " ".join(rest.strip(" ,").split())
    if _TIME.search(where) or _like_a_day(where):
        raise Problem(
            f"{where!r} could be another day or time.",
            "the shelf",
            "Write one day, then its time, then where: tue 8 dec 07:00 the letter.",
        )
    return TypedDay(day, at, where)


def _like_a_day(where: str) -> bool:
    """Whether what should be a place begins as a date does, or holds a number with a month."""
    if _ISO.match(where) or _SLASHED.search(where):
        return True
    named = re.search(r"\b\d{1,2}\.?\s+([a-z]{3,9})\b", where, re.IGNORECASE)
    return named is not None and any(month.startswith(named[1].lower()) for month in MONTHS)


def _day(text: str, today: int) -> tuple[int, str]:
    try:
        if found := _ISO.match(text):
            return date(int(found[1]), int(found[2]), int(found[3])).toordinal(), text[found.end() :]
        if found := _DATE.match(text):
            month = next(n for n, name in enumerate(MONTHS, 1) if name.startswith(found[2].lower()))
            return _dated(int(found[1]), month, found[3], today), text[found.end() :]
        if found := _WORD.match(text):
            day = _named(found[2].lower(), bool(found[1] and found[1].lower().startswith("next")), today)
            rest = text[found.end() :].lstrip(" ,")
            if _DATE.match(rest) or _ISO.match(rest):
                return _agreed(found[2], *_day(rest, today))
            return day, rest
    except (ValueError, StopIteration):
        pass
    raise Problem(
        f"{text or 'Nothing'} is no day.", "the shelf", "Write a day, as: thu 18:30, 3 dec, or 2031-03-05."
    )


def _agreed(word: str, day: int, rest: str) -> tuple[int, str]:
    """A date that a weekday was written before. Raises Problem where it is another weekday."""
    if _place(word) == weekday(day):
        return day, rest
    do = "Write the weekday or the date, or mend one of them."
    raise Problem(f"{shown_date(day)} is not a {word}.", "the shelf", do)


def _place(word: str) -> int | None:
    """The number of a weekday; None for a word that is none."""
    named = (n for n, name in enumerate(WEEKDAYS) if len(word) >= 2 and name.lower().startswith(word.lower()))
    return next(named, None)


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
    place = _place(word)
    if place is None:
        raise ValueError(word)
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
