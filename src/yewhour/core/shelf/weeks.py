"""Weeks: what went out and was recorded in each, in seconds by area, side, effort, position and style."""

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator

import msgspec

from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import (
    Outing,
    ShelfRecords,
    ShelvedClass,
    week_of,
)


class GivenClass(msgspec.Struct, frozen=True, gc=False):
    """A class given on a day: it went out then, or was recorded then and has no day of its own."""

    day: int
    shelved: ShelvedClass
    outing: Outing | None = None


class Week(msgspec.Struct, frozen=True):
    """One week, in seconds. new, repeated: movements that had not come before in the time looked at, and
    those that had. styles: seconds by style."""

    number: int
    given: tuple[GivenClass, ...]
    works: dict[str, float]
    opens: dict[str, float]
    sides: tuple[float, float]
    effort: tuple[float, ...]
    bases: dict[str, float]
    styles: dict[str, float]
    new: tuple[str, ...]
    repeated: tuple[str, ...]

    @property
    def areas(self) -> Counter[str]:
        """Seconds of each area, worked or opened."""
        return Counter(self.works) + Counter(self.opens)

    @property
    def strong(self) -> float:
        """The mean effort of the week, from 0 to 5."""
        total_s = sum(self.effort)
        return sum(number * each_s for number, each_s in enumerate(self.effort)) / total_s if total_s else 0.0

    @property
    def length_s(self) -> float:
        """Seconds of all its classes."""
        return sum(self.styles.values())


def given_classes(shelf: ShelfRecords) -> list[GivenClass]:
    """Every class that was or will be given, in order."""
    found = [
        GivenClass(one.day, shelf.classes[one.of], one)
        for one in shelf.outings.values()
        if one.of in shelf.classes
    ]
    for of, takes in shelf.takes_of.items():
        if of in shelf.classes and of not in shelf.outings_of:
            found += [GivenClass(day, shelf.classes[of]) for day in sorted({one.day for one in takes})]
    return sorted(found, key=lambda one: (one.day, one.outing.at if one.outing else "", one.shelved.id))


def weeks_of(found: Iterable[GivenClass], first: int, last: int) -> list[Week]:
    """The weeks from one to another, both included, empty ones too; `found` in order."""
    by_week: dict[int, list[GivenClass]] = defaultdict(list)
    for one in found:
        by_week[week_of(one.day)].append(one)
    seen: set[str] = set()
    for week, there in by_week.items():
        if week < first:
            for one in there:
                seen.update(one.shelved.sheet.movements)
    weeks = []
    for number in range(first, last + 1):
        there = by_week.get(number, [])
        names = list(dict.fromkeys(name for one in there for name in moves(one)))
        new = tuple(name for name in names if name not in seen)
        weeks.append(_week(number, there, new, tuple(name for name in names if name in seen)))
        seen.update(names)
    return weeks


def moves(one: GivenClass) -> Iterator[str]:
    """The movements of a class that was given."""
    return iter(one.shelved.sheet.movements)


def _week(number: int, there: list[GivenClass], new: tuple[str, ...], repeated: tuple[str, ...]) -> Week:
    sheets = [one.shelved.sheet for one in there]
    return Week(
        number,
        tuple(there),
        _summed(sheets, lambda sheet: sheet.works),
        _summed(sheets, lambda sheet: sheet.opens),
        (sum(sheet.sides[0] for sheet in sheets), sum(sheet.sides[1] for sheet in sheets)),
        tuple(map(sum, zip(*(sheet.effort for sheet in sheets if sheet.effort), strict=False))),
        _summed(sheets, lambda sheet: sheet.bases),
        _summed(sheets, lambda sheet: {sheet.style: sheet.length_s}),
        new,
        repeated,
    )


def _summed(sheets: Iterable[ClassSheet], part: Callable[[ClassSheet], dict[str, float]]) -> dict[str, float]:
    found: dict[str, float] = defaultdict(float)
    for sheet in sheets:
        for name, each_s in part(sheet).items():
            found[name] += each_s
    return dict(found)


class Month(msgspec.Struct, frozen=True):
    """How long the recordings of a month were meant to be, and became, in seconds."""

    name: str
    takes: int
    promised_s: float
    length_s: float
    near: int  # takes within ten seconds of what they promised


def months_of(shelf: ShelfRecords, name_of: Callable[[int], str], near_s: float = 10.0) -> list[Month]:
    """Promised against recorded, month by month. name_of: the month a day is in."""
    found: dict[str, list[tuple[float, float]]] = defaultdict(list)
    for one in sorted(shelf.takes.values(), key=lambda one: one.day):
        if one.promised_s and one.length_s:
            found[name_of(one.day)].append((one.promised_s, one.length_s))
    return [
        Month(
            name,
            len(rows),
            round(sum(promised for promised, _ in rows), 1),
            round(sum(real for _, real in rows), 1),
            sum(abs(real - promised) <= near_s for promised, real in rows),
        )
        for name, rows in found.items()
    ]


LATELY = 28  # days


def lately(found: Iterable[GivenClass], today: int) -> dict[str, float]:
    """The movements of the last weeks, from 0 for long ago to 1 for today."""
    seen: dict[str, float] = {}
    for one in found:
        if 0 <= today - one.day < LATELY:
            for name in moves(one):
                seen[name] = max(seen.get(name, 0.0), 1 - (today - one.day) / LATELY)
    return seen
