"""What goes out when, for others: as iCalendar, as a table, and as a page to hang beside the door."""

import csv
import io
from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from typing import TYPE_CHECKING

from yewhour.core.export.cue_sheet import harmless
from yewhour.core.lengths import show_length
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import (
    DAYS,
    WEEKDAYS,
    Outing,
    ShelfRecords,
    monday_of,
    week_of,
    weekday,
)
from yewhour.core.shelf.search import main_areas
from yewhour.core.shelf.weekly_notes import record_by
from yewhour.files.late import late
from yewhour.render.pdf_page import (
    INK,
    SIDE_INK,
    Pdf,
    new_pdf,
    printable,
)

if TYPE_CHECKING:
    import icalendar
else:
    icalendar = late("icalendar")  # 240 ms; only a calendar needs it


COLUMNS = (
    "day", "time", "class", "length", "style", "for", "where", "record by", "state", "areas", "note",
)  # fmt: skip
LEFT, TOP, RIGHT, DAY_TALL, TWIG = 18.0, 22.0, 192.0, 33.0, 22.0  # millimetres on A4
STATES = {"planned": "to record", "late": "to record, late", "recorded": "recorded", "out": "out"}
BOTH = (95, 107, 44)


def outings_in(shelf: ShelfRecords, first: int, last: int) -> list[Outing]:
    """The outings from one day to another, both included, of classes that are on the shelf."""
    found = (one for one in shelf.outings.values() if first <= one.day <= last and one.of in shelf.classes)
    return shelf.days(found)


def time_of(outing: Outing) -> time | None:
    """The time of day a class goes out at, None for none that can be read."""
    hours, _, minutes = outing.at.partition(":")
    try:
        return time(int(hours), int(minutes or 0))
    except ValueError:
        return None


def calendar(shelf: ShelfRecords, outings: Sequence[Outing], today: int, now: datetime) -> bytes:
    """The outings as iCalendar, and what must be recorded as days of their own.

    Times are floating: those of the clock on the wall, wherever it is read. now: when it is written, in UTC.
    """
    calendar = icalendar.Calendar()
    calendar.add("prodid", "-//Yew Hour//Shelf//EN")
    calendar.add("version", "2.0")
    for one in outings:
        said, state = shelf.classes[one.of].sheet, shelf.state_of(one, today)
        out = icalendar.Event()
        out.add("uid", f"{one.id}-out@yewhour")
        out.add("dtstamp", now)
        out.add("summary", said.title)
        day, at = date.fromordinal(one.day), time_of(one)
        if at is None:
            out.add("dtstart", day)
            out.add("dtend", day + timedelta(days=1))
        else:
            out.add("dtstart", datetime.combine(day, at))
            out.add("dtend", datetime.combine(day, at) + timedelta(seconds=round(said.length_s)))
        if one.where:
            out.add("location", one.where)
        out.add("description", _described(said, one.note))
        calendar.add_component(out)
        if state in ("planned", "late"):
            due = icalendar.Event()
            due.add("uid", f"{one.id}-record@yewhour")
            due.add("dtstamp", now)
            due.add("summary", f"Record: {said.title}")
            by = date.fromordinal(record_by(one))
            due.add("dtstart", by)
            due.add("dtend", by + timedelta(days=1))
            calendar.add_component(due)
    return bytes(calendar.to_ical())


def _described(said: ClassSheet, note: str) -> str:
    parts = [
        f"{said.length_s / 60:.0f} min",
        said.style,
        f"for {said.audience}" if said.audience else "",
        note,
    ]
    return ", ".join(part for part in parts if part)


def table(shelf: ShelfRecords, outings: Sequence[Outing], today: int) -> bytes:
    """The outings as CSV, a row each."""
    written = io.StringIO()
    rows = csv.writer(written, lineterminator="\r\n")
    rows.writerow(COLUMNS)
    for one in outings:
        said = shelf.classes[one.of].sheet
        rows.writerow(
            harmless(cell)
            for cell in (
                date.fromordinal(one.day).isoformat(), one.at, said.title, show_length(said.length_s),
                said.style, said.audience, one.where, date.fromordinal(record_by(one)).isoformat(),
                STATES[shelf.state_of(one, today)], ", ".join(main_areas(said)[:4]), one.note,
            )
        )  # fmt: skip
    return written.getvalue().encode("utf-8")


def week_page(shelf: ShelfRecords, week: int, today: int) -> bytes:
    """One week on a page: each day with its classes, their sprigs, and a box to tick for what to record."""
    pdf = new_pdf()
    monday = date.fromordinal(monday_of(week))
    pdf.set_title(f"Week of {monday.isoformat()}")
    pdf.set_creator("Yew Hour")
    by_day: list[list[Outing]] = [[] for _ in range(DAYS)]
    for one in outings_in(shelf, monday_of(week), monday_of(week) + DAYS - 1):
        by_day[weekday(one.day)].append(one)
    y = _page_head(pdf, monday)
    for number, outings in enumerate(by_day):
        there: list[Outing | None] = [*outings] or [None]
        for place, each in enumerate(there):
            if y + DAY_TALL > 285:
                pdf.add_page()
                y = TOP
            day = monday + timedelta(days=number)
            y = _day(pdf, y, day if place == 0 else None, shelf, each, today)
    return bytes(pdf.output())


def _page_head(pdf: Pdf, monday: date) -> float:
    pdf.add_page()
    pdf.set_font("Title", "", 22)
    pdf.set_text_color(*INK)
    pdf.text(LEFT, TOP, f"The week of {monday.day} {monday:%B %Y}")
    return TOP + 8


def _day(pdf: Pdf, y: float, day: date | None, shelf: ShelfRecords, one: Outing | None, today: int) -> float:
    tall = DAY_TALL if one is not None else DAY_TALL * 0.45
    pdf.set_draw_color(*INK)
    pdf.set_line_width(0.15)
    if day is not None:
        pdf.line(LEFT, y, RIGHT, y)
        pdf.set_font("Title", "", 13)
        pdf.text(LEFT, y + 7, WEEKDAYS[day.weekday()])
        pdf.set_font("Body", "", 10)
        pdf.text(LEFT, y + 12, f"{day.day} {day:%B}")
    if one is None:
        return y + tall
    said, state = shelf.classes[one.of].sheet, shelf.state_of(one, today)
    _twig(pdf, 60.0, y + 3, said, tall - 6)
    pdf.set_font("Body", "B", 13)
    pdf.text(88, y + 8, printable(pdf, said.title)[:48])
    pdf.set_font("Body", "", 10)
    place = " · ".join(part for part in (one.at, one.where) if part)
    pdf.text(88, y + 14, printable(pdf, place)[:70])
    pdf.text(88, y + 20, printable(pdf, _described(said, ""))[:70])
    if state in ("planned", "late"):
        pdf.rect(88, y + 23, 3.4, 3.4)
        by = date.fromordinal(record_by(one))
        pdf.text(94, y + 26, f"to record by {WEEKDAYS[by.weekday()]} {by.day} {by:%B}")
    return y + tall


def _twig(pdf: Pdf, middle: float, top: float, said: ClassSheet, tall: float) -> None:
    """The sprig of a class as on the shelf, drawn in ink."""
    pdf.set_line_width(0.5)
    pdf.line(middle, top, middle, top + tall)
    pdf.set_line_width(0.1)
    for start, end, side, reach in said.strokes:
        colour = SIDE_INK.get(side, BOTH)
        pdf.set_fill_color(*colour)
        pdf.set_draw_color(*colour)
        upper, lower = top + start * tall, top + max(end, start + 0.012) * tall
        for sign in (-1, 1) if side == "both" else (-1,) if side == "left" else (1,):
            tip = middle + sign * reach * TWIG / 2
            points = [(middle, upper), (tip, (upper + lower) / 2), (middle, lower)]
            pdf.polygon(points, style="F")
    pdf.set_draw_color(*INK)


def this_week(today: int) -> tuple[int, int]:
    """The first and the last day of the week that is on."""
    first = monday_of(week_of(today))
    return first, first + DAYS - 1


def written_out(shelf: ShelfRecords, today: int, days: int, now: datetime) -> dict[str, bytes]:
    """What goes out from this week on, for so many days, as files by name: a calendar, a table, a page."""
    first = today - (today - 1) % 7
    outings = outings_in(shelf, first, first + days)
    monday = date.fromordinal(first).isoformat()
    return {
        f"going-out-{monday}.ics": calendar(shelf, outings, today, now),
        f"going-out-{monday}.csv": table(shelf, outings, today),
        f"week-{monday}.pdf": week_page(shelf, week_of(today), today),
    }
