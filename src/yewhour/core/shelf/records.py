"""What the logbook knows: classes, takes, the days on which classes go out, and series.

A day is its number in the calendar, the first Monday being 1 (`date.toordinal` of the standard library), so
that nothing here needs a clock. Every record has an id that no other has, on whatever machine it was made.
"""

from collections import defaultdict
from collections.abc import Iterable
from functools import cached_property
from typing import Literal

import msgspec

from yewhour.core.shelf.class_sheet import ClassSheet

DAYS = 7
WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class ShelvedClass(msgspec.Struct, frozen=True, omit_defaults=True, gc=False):
    """A class on the shelf. since: the day it was first seen. cut_of: the class it was made from, if it was.

    file: the name of its file, to be found by; where it lies is each machine's own knowledge.
    """

    id: str
    sheet: ClassSheet
    since: int = 0
    cut_of: str = ""
    note: str = ""
    file: str = ""


class TakeRecord(msgspec.Struct, frozen=True, omit_defaults=True, gc=False):
    """A recording of a class: the day, how long it became, how long it should have been, how it went.

    of: the class, "" where it was not on the shelf then; it is known by its title.
    """

    id: str
    of: str
    day: int
    title: str = ""
    length_s: float = 0.0
    promised_s: float = 0.0
    note: str = ""
    folder: str = ""


class Outing(msgspec.Struct, frozen=True, omit_defaults=True, gc=False):
    """A class that goes out: on which day, at what time, where; by which day it must be recorded (0: before).

    recorded, out: what she says herself, where the program can't know.
    """

    id: str
    of: str
    day: int
    at: str = ""
    where: str = ""
    by: int = 0
    recorded: bool = False
    out: bool = False
    note: str = ""


class Series(msgspec.Struct, frozen=True, omit_defaults=True):
    """Classes that belong together, in their order: so many weeks of so many each; "" is still to be made."""

    id: str
    title: str
    weeks: int = 1
    each: int = 1
    classes: tuple[str, ...] = ()
    begins: int = 0
    note: str = ""


Record = ShelvedClass | TakeRecord | Outing | Series
State = Literal["planned", "late", "recorded", "out"]


class ShelfRecords(msgspec.Struct, frozen=True, dict=True):
    """All of it, by id."""

    classes: dict[str, ShelvedClass] = {}
    takes: dict[str, TakeRecord] = {}
    outings: dict[str, Outing] = {}
    series: dict[str, Series] = {}

    @cached_property
    def takes_of(self) -> dict[str, list[TakeRecord]]:
        """The takes of each class, the first first."""
        found: dict[str, list[TakeRecord]] = defaultdict(list)
        titles = {one.sheet.title: name for name, one in self.classes.items()}
        for one in sorted(self.takes.values(), key=lambda one: (one.day, one.id)):
            found[one.of or titles.get(one.title, "")].append(one)
        return found

    @cached_property
    def outings_of(self) -> dict[str, list[Outing]]:
        """The days of each class, the first first."""
        found: dict[str, list[Outing]] = defaultdict(list)
        for one in self.days(self.outings.values()):
            found[one.of].append(one)
        return found

    @staticmethod
    def days(outings: Iterable[Outing]) -> list[Outing]:
        """Outings in the order they go out."""
        return sorted(outings, key=lambda one: (one.day, one.at, one.id))

    def state_of(self, outing: Outing, today: int) -> State:
        """How far a class is on its way out.

        It is recorded when there is a take of it, or she says so; it is late when it had to be recorded
        before today and is not.
        """
        if outing.out:
            return "out"
        recorded = outing.recorded or bool(self.takes_of.get(outing.of))
        if recorded:
            return "out" if outing.day < today else "recorded"
        return "late" if (outing.by or outing.day) < today else "planned"

    @property
    def empty(self) -> bool:
        """Whether there is nothing on it."""
        return not self.classes


def week_of(day: int) -> int:
    """The week a day is in; weeks begin on Mondays."""
    return (day - 1) // DAYS


def monday_of(week: int) -> int:
    """The first day of a week."""
    return week * DAYS + 1


def weekday(day: int) -> int:
    """0 for Monday to 6 for Sunday."""
    return (day - 1) % DAYS
