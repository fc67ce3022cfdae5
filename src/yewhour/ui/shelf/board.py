"""Boards: what stands on the shelf and where, as values; a board for each week, and for what has no day."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from itertools import groupby
from typing import NamedTuple

from yewhour.core.shelf.records import (
    DAYS,
    Outing,
    ShelfRecords,
    ShelvedClass,
    State,
    monday_of,
    week_of,
    weekday,
)

MARGIN = 118.0  # pixels at the usual text size, left of a board
FLOOR, BELOW = 112.0, 90.0  # from the top of a row to its board, and below that
EMPTY_FLOOR, EMPTY_BELOW = 56.0, 34.0  # of a week in which nothing goes out
SLOT = 104.0  # across, of a class that has no day
LONGEST_S, TALL, LEAST_TALL = 3000.0, 90.0, 24.0  # of a class; the sprig of such a one; of the shortest


class Spot(NamedTuple):
    """One class where it stands: its board, its middle and how wide it may be, in pixels of the page."""

    board: int
    x: float
    width: float
    shelved: ShelvedClass
    outing: Outing | None
    state: State | None


class WeekBoard(NamedTuple):
    """One board: its title, what stands below that, the week it is (None for what has no day), its top, the
    board itself, and its foot, in pixels of the page."""

    title: str
    under: str
    week: int | None
    top: float
    floor: float
    foot: float


class ShelfBoards(NamedTuple):
    """All boards from the top down, and what stands on them."""

    boards: list[WeekBoard]
    spots: list[Spot]
    height: float


def week_title(week: int, now: int) -> str:
    """What a week is called."""
    return {0: "This week", 1: "Next week", -1: "Last week"}.get(week - now, _from(week))


def _from(week: int) -> str:
    day = date.fromordinal(monday_of(week))
    return f"{day.day} {day:%B}"


def _under(week: int, now: int) -> str:
    if abs(week - now) <= 1:
        return _from(week)
    year = date.fromordinal(monday_of(week)).year
    return "" if year == date.fromordinal(monday_of(now)).year else str(year)


def shelf_boards(shelf: ShelfRecords, today: int, width: float, scale: float) -> ShelfBoards:
    """The boards: this week, those to come, what has no day yet, and the weeks before, the last first."""
    now = week_of(today)
    by_week: dict[int, list[Outing]] = {}
    for one in shelf.days(shelf.outings.values()):
        if one.of in shelf.classes:
            by_week.setdefault(week_of(one.day), []).append(one)
    coming = sorted({now, now + 1, *(week for week in by_week if week > now)})
    gone = sorted((week for week in by_week if week < now), reverse=True)
    undated = sorted(
        (one for one in shelf.classes.values() if one.id not in shelf.outings_of),
        key=lambda one: (-one.since, one.sheet.title, one.id),
    )
    builder = _Made(width, scale)
    for week in coming:
        builder.week(week, by_week.get(week, []), shelf, today)
    builder.loose("No day yet", undated, shelf)
    for week in gone:
        builder.week(week, by_week[week], shelf, today)
    return builder.shelves()


def found_shelves(
    title: str, classes: Iterable[ShelvedClass], shelf: ShelfRecords, width: float, scale: float
) -> ShelfBoards:
    """Boards of what was found."""
    builder = _Made(width, scale)
    there = list(classes)
    builder.loose(title, there, shelf)
    if not there:
        builder.board(title, "", None)
    return builder.shelves()


class _Made:
    def __init__(self, width: float, scale: float) -> None:
        self.width, self.scale = width, scale
        self.boards: list[WeekBoard] = []
        self.spots: list[Spot] = []

    def shelves(self) -> ShelfBoards:
        foot = self.boards[-1].foot if self.boards else 0.0
        return ShelfBoards(self.boards, self.spots, foot + 24 * self.scale)

    def board(self, title: str, under: str, week: int | None, empty: bool = False) -> int:
        top = self.boards[-1].foot if self.boards else 0.0
        floor = top + (EMPTY_FLOOR if empty else FLOOR) * self.scale
        foot = floor + (EMPTY_BELOW if empty else BELOW) * self.scale
        self.boards.append(WeekBoard(title, under, week, top, floor, foot))
        return len(self.boards) - 1

    def week(self, week: int, outings: Sequence[Outing], shelf: ShelfRecords, today: int) -> None:
        now = week_of(today)
        at = self.board(week_title(week, now), _under(week, now), week, not outings)
        day_wide = (self.width - MARGIN * self.scale) / DAYS
        for day, group in groupby(outings, key=lambda one: weekday(one.day)):
            there = list(group)
            each = day_wide / len(there)
            for place, one in enumerate(there):
                x = MARGIN * self.scale + day * day_wide + (place + 0.5) * each
                self.spots.append(Spot(at, x, each, shelf.classes[one.of], one, shelf.state_of(one, today)))

    def loose(self, title: str, classes: Sequence[ShelvedClass], shelf: ShelfRecords) -> None:
        across = max(1, int((self.width - MARGIN * self.scale) / (SLOT * self.scale)))
        each = (self.width - MARGIN * self.scale) / across
        for first in range(0, len(classes), across):
            number = str(len(classes)) if first == 0 else ""
            at = self.board(title if first == 0 else "", number, None)
            for place, one in enumerate(classes[first : first + across]):
                x = MARGIN * self.scale + (place + 0.5) * each
                state: State | None = "recorded" if shelf.takes_of.get(one.id) else None
                self.spots.append(Spot(at, x, each, one, None, state))


def tall(length_s: float, scale: float) -> float:
    """How tall a class stands: an hour as tall as there is room, shorter ones shorter."""
    share = min(1.0, max(0.0, length_s) / LONGEST_S)
    return max(LEAST_TALL, TALL * float(share**0.6)) * scale
