"""The shelf on the command line: what is due, what the weeks show, or what is found; as text or to write."""

from collections.abc import Callable
from datetime import UTC, datetime

from yewhour.content.shelf_wording import load_shelf_wording
from yewhour.content.terms import load_terms
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.shelf.records import ShelfRecords, week_of
from yewhour.core.shelf.search import ShelfIndex, search
from yewhour.core.shelf.weekly_notes import due, shelf_notes
from yewhour.core.shelf.weeks import given_classes, weeks_of
from yewhour.core.teaching_data import TeachingData
from yewhour.state.logbook.days import month_name, shown_date
from yewhour.state.logbook.demo_logbook import demo_logbook
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.logbook.outings import (
    calendar,
    outings_in,
    table,
    this_week,
    week_page,
)
from yewhour.state.logbook.shelving import today
from yewhour.state.paths import kept_shelf

SEASON, AHEAD_DAYS = 26, 60


def shelf_report(
    made_up: bool,
    find: str | None,
    kind: str,
    teaching_data: TeachingData,
    on_problem: Callable[[Problem], object],
) -> bytes:
    """The shelf, hers or the made-up one, in a format. Raises Problem where there is nothing on it."""
    now = today()
    book = demo_logbook(now) if made_up else Logbook(kept_shelf(), on_problem=on_problem)
    shelf = book.shelf
    book.close()
    if shelf.empty:
        what = "There is nothing on the shelf."
        raise Problem(what, do="A class comes onto it when it is saved in the window, or say --made-up.")
    if find is not None:
        return _found(shelf, find, teaching_data)
    first, last = this_week(now)
    outings = outings_in(shelf, first, first + AHEAD_DAYS)
    if kind == "ics":
        return calendar(shelf, outings, now, datetime.now(UTC))
    if kind == "csv":
        return table(shelf, outings, now)
    if kind == "pdf":
        return week_page(shelf, week_of(last), now)
    return _text(shelf, teaching_data, now)


def _found(shelf: ShelfRecords, find: str, teaching_data: TeachingData) -> bytes:
    index = ShelfIndex(teaching_data.library, load_terms(teaching_data.positions).areas)
    found = search(index.rows(shelf.classes), find)
    if not found:
        raise Problem(f"Nothing on the shelf has {find!r}.", do="Try fewer teaching_data, or part of one.")
    lines = [f"{show_length(one.sheet.length_s):>8}  {one.sheet.title}, {one.sheet.style}" for one in found]
    return ("\n".join(lines) + "\n").encode()


def _text(shelf: ShelfRecords, teaching_data: TeachingData, now: int) -> bytes:
    saying, areas = load_shelf_wording(), load_terms(teaching_data.positions).areas
    weeks = weeks_of(given_classes(shelf), week_of(now) - SEASON + 1, week_of(now))
    lines = [one.words for one in due(shelf, now, saying)] or ["Nothing is to go out this week or the next."]
    lines += [one.words for one in shelf_notes(weeks, teaching_data.library, areas, saying, month_name)]
    first, last = this_week(now)
    lines += ["", "This week:"]
    for one in outings_in(shelf, first, last):
        place = ", ".join(part for part in (one.at, one.where) if part)
        lines.append(
            f"  {shown_date(one.day)}  {shelf.classes[one.of].sheet.title}{f' ({place})' if place else ''}"
        )
    return ("\n".join(lines) + "\n").encode()
