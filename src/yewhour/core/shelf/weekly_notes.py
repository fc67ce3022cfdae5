"""What is worth saying of the weeks: what is due, what comes again and again, what has not come for long."""

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from itertools import takewhile

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.shelf.records import (
    WEEKDAYS,
    Outing,
    ShelfRecords,
    State,
    monday_of,
    week_of,
    weekday,
)
from yewhour.core.shelf.weeks import GivenClass, Week, moves

RUNNING, GAP, LONG_GAP, HISTORY = 3, 6, 9, 8  # weeks
MAIN, MOST_MAIN = 0.18, 3  # share of a week's time that makes an area what the week is about; so many of them
TOUCHED_S = 60.0  # of an area in a week, to say that it came
CLASSES = 5  # in a row with the same movement
ASKED = 2  # effort of a movement that is noticed when it comes again and again
SIDE_S, SIDE_SHARE = 90.0, 0.02
STRONG, STRONG_WEEKS = 2.7, 4

Wordings = Mapping[str, str]  # code -> message


class ShelfWording(msgspec.Struct, frozen=True):
    """How it is worded, by its code, and the areas of which nothing is said."""

    messages: Wordings
    quiet: tuple[str, ...] = ()


class ShelfNote(msgspec.Struct, frozen=True):
    """One sentence: why it is said (its code), its words, and the class and the day it is about, if any."""

    code: str
    words: str
    of: str = ""
    day: int = 0


def due(shelf: ShelfRecords, today: int, saying: ShelfWording) -> list[ShelfNote]:
    """What goes out from today to the end of this week and the next, what is late first; behind it what was
    to go out and did not."""
    last = monday_of(week_of(today) + 2) - 1
    codes: dict[State, str] = {"late": "late", "planned": "due", "recorded": "ready"}
    rank = {"late": 0, "due": 1, "ready": 2, "missed": 3}
    found: list[tuple[int, int, ShelfNote]] = []
    for one in shelf.outings.values():
        state = shelf.state_of(one, today)
        behind = state == "late" and week_of(one.day) >= week_of(today) - 1
        if one.of not in shelf.classes or state == "out" or not (today <= one.day <= last or behind):
            continue
        code = "missed" if one.day < today else codes[state]
        words = saying.messages[code].format(
            title=shelf.classes[one.of].sheet.title,
            day=_on(one.day, today),
            at=f" at {one.at}" if one.at else "",
            by=shown_day(record_by(one), today),
        )
        found.append((rank[code], one.day, ShelfNote(code, words, one.of, one.day)))
    return [said for _, _, said in sorted(found, key=lambda row: row[:2])]


def record_by(outing: Outing) -> int:
    """The last day on which a class can be recorded."""
    return outing.by or outing.day


def shown_day(day: int, today: int) -> str:
    """A day as it is called: today, tomorrow, a weekday of this week, or of another."""
    if day - today in (0, 1, -1):
        return {0: "today", 1: "tomorrow", -1: "yesterday"}[day - today]
    name, weeks = WEEKDAYS[weekday(day)], week_of(day) - week_of(today)
    if abs(weeks) <= 1:
        return name + (" next week" if weeks > 0 else " last week" if weeks < 0 else "")
    return f"{name} {'in' if weeks > 0 else ''} {abs(weeks)} weeks{'' if weeks > 0 else ' ago'}".replace(
        "  ", " "
    )


def _on(day: int, today: int) -> str:
    """The same after "goes out"."""
    shown = shown_day(day, today)
    return shown if abs(day - today) <= 1 else f"on {shown}"


def shelf_notes(
    weeks: Sequence[Week],
    library: Library,
    areas: Mapping[str, str],
    saying: ShelfWording,
    month_of: Callable[[int], str],
) -> list[ShelfNote]:
    """What the weeks show, the last of them being the one that is on; what matters first.

    areas: their names. month_of: the month a day is in, as a word.
    """
    there = [week for week in weeks if week.given]
    if not there:
        return []
    wordings = saying.messages
    known = [area for area in areas if area not in saying.quiet]
    found = [
        *_running(there, known, areas, wordings),
        *_gaps(weeks, there, known, areas, wordings, month_of),
        *_sides(there, wordings),
        *_strong(there, wordings),
        *_again([one for week in there for one in week.given], library, wordings),
    ]
    return found


def main_of(week: Week, known: Collection[str]) -> list[str]:
    """The areas a week is about, the most first."""
    least_s = MAIN * week.length_s
    ranked = [(area, each_s) for area, each_s in week.areas.most_common() if area in known]
    return [area for area, each_s in ranked[:MOST_MAIN] if each_s >= least_s]


def _running(
    there: Sequence[Week], known: Collection[str], areas: Mapping[str, str], wordings: Wordings
) -> Iterator[ShelfNote]:
    for area in main_of(there[-1], known):
        weeks = _weeks_about(area, there, known)
        if weeks >= RUNNING:
            yield _said("running", wordings, Area=_capital(areas[area]), weeks=weeks)


def _weeks_about(area: str, there: Sequence[Week], known: Collection[str]) -> int:
    """How many weeks, up to the last, an area has been what they are about."""
    return len(list(takewhile(lambda week: area in main_of(week, known), reversed(there))))


def _gaps(
    weeks: Sequence[Week], there: Sequence[Week], known: Collection[str], areas: Mapping[str, str],
    wordings: Wordings, month_of: Callable[[int], str],
) -> Iterator[ShelfNote]:  # fmt: skip
    rows: list[tuple[int, ShelfNote]] = []
    for area in known:
        last = next((week for week in reversed(there) if week.areas[area] >= TOUCHED_S), None)
        name = _capital(areas[area])
        if last is None:
            if len(there) >= HISTORY:
                rows.append((len(weeks), _said("never", wordings, Area=name, weeks=len(weeks))))
            continue
        gone = weeks[-1].number - last.number
        if gone >= LONG_GAP:
            month = month_of(last.given[-1].day)
            rows.append((gone, _said("long-gap", wordings, Area=name, month=month)))
        elif gone >= GAP:
            rows.append((gone, _said("gap", wordings, Area=name, weeks=gone)))
    yield from (said for _, said in sorted(rows, key=lambda row: -row[0]))


def _again(found: Sequence[GivenClass], library: Library, wordings: Wordings) -> Iterator[ShelfNote]:
    last = found[-CLASSES:]
    if len(last) < CLASSES or len({one.shelved.id for one in last}) < CLASSES:
        return
    for movement in moves(last[-1]):
        known = library.get(movement)
        asked = known is not None and known.effort >= ASKED
        if asked and all(movement in one.shelved.sheet.movements for one in last):
            assert known is not None
            yield _said("again", wordings, movement=known.name, classes=CLASSES)


def _sides(there: Sequence[Week], wordings: Wordings) -> Iterator[ShelfNote]:
    right_s, left_s = sum(week.sides[0] for week in there), sum(week.sides[1] for week in there)
    off_s = abs(right_s - left_s)
    if off_s >= max(SIDE_S, SIDE_SHARE * (right_s + left_s)):
        side = "left" if left_s < right_s else "right"
        over = f"in these {len(there)} weeks" if len(there) > 1 else "this week"
        yield _said("sides", wordings, side=side, minutes=round(off_s / 60), over=over)


def _strong(there: Sequence[Week], wordings: Wordings) -> Iterator[ShelfNote]:
    weeks = len(list(takewhile(lambda week: week.strong >= STRONG, reversed(there))))
    if weeks >= STRONG_WEEKS:
        yield _said("strong", wordings, weeks=weeks)


def _said(code: str, wordings: Wordings, **words: object) -> ShelfNote:
    return ShelfNote(code, wordings[code].format(**words))


def _capital(name: str) -> str:
    return name[:1].upper() + name[1:]
