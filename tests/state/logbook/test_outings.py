"""What goes out when, for others: read back by a calendar's library, a table's, and a PDF's."""

import csv
import io
from datetime import UTC, date, datetime

import icalendar
import pypdfium2
import pytest

from tests.core.shelf.shelves import sheet
from yewhour.core.shelf.records import (
    Outing,
    ShelfRecords,
    ShelvedClass,
    TakeRecord,
    week_of,
)
from yewhour.state.logbook.demo_logbook import demo_logbook
from yewhour.state.logbook.outings import (
    calendar,
    outings_in,
    table,
    week_page,
)

MONDAY = date(2026, 11, 23).toordinal()
NOW = datetime(2026, 11, 23, 9, 0, tzinfo=UTC)


@pytest.fixture(scope="module")
def shelf():
    return demo_logbook(MONDAY).shelf


def test_a_calendar_reads_what_goes_out_and_what_is_to_be_recorded(shelf):
    outings = outings_in(shelf, MONDAY, MONDAY + 13)
    read = icalendar.Calendar.from_ical(calendar(shelf, outings, MONDAY, NOW))
    events = {str(one["summary"]): one for one in read.walk("VEVENT")}
    out = events["The boat-builders' half hour"]
    assert out.decoded("dtstart") == datetime(2026, 11, 26, 18, 30)
    assert out.decoded("dtend") == datetime(2026, 11, 26, 19, 0)
    assert str(out["location"]) == "the Thursday letter"
    due = events["Record: The boat-builders' half hour"]
    assert due.decoded("dtstart") == date(2026, 11, 24)
    assert "Record: Keel and ballast" not in events
    assert len({str(one["uid"]) for one in read.walk("VEVENT")}) == len(read.walk("VEVENT"))


def test_a_day_without_a_time_is_a_whole_day_and_signs_are_kept():
    odd = ShelfRecords(
        classes={"a": ShelvedClass("a", sheet("Tide; rope, knot\nand Yöga ☂"))},
        outings={"o": Outing("o", "a", MONDAY, "soon")},
    )
    written = calendar(odd, list(odd.outings.values()), MONDAY, NOW)
    event = icalendar.Calendar.from_ical(written).walk("VEVENT")[0]
    assert event.decoded("dtstart") == date(2026, 11, 23)
    assert str(event["summary"]) == "Tide; rope, knot\nand Yöga ☂"
    assert all(len(line) <= 75 for line in written.split(b"\r\n"))


def test_a_table_has_a_row_a_day_and_no_formula(shelf):
    rows = list(
        csv.DictReader(io.StringIO(table(shelf, outings_in(shelf, MONDAY, MONDAY + 6), MONDAY).decode()))
    )
    assert [row["class"] for row in rows] == [
        "Keel and ballast", "The boat-builders' half hour", "Four minutes at the slip",
    ]  # fmt: skip
    assert [row["state"] for row in rows] == ["recorded", "to record", "to record"]
    assert rows[1]["record by"] == "2026-11-24"
    odd = ShelfRecords(
        classes={"a": ShelvedClass("a", sheet("=1+1"))}, outings={"o": Outing("o", "a", MONDAY)}
    )
    assert "'=1+1" in table(odd, list(odd.outings.values()), MONDAY).decode()


def test_a_week_is_a_page_with_boxes_to_tick(shelf):
    document = pypdfium2.PdfDocument(week_page(shelf, week_of(MONDAY), MONDAY))
    assert len(document) == 1
    text = document[0].get_textpage().get_text_range()
    assert "The week of 23 November 2026" in text
    assert "to record by Tuesday 24 November" in text
    assert all(day in text for day in ("Monday", "Sunday"))


def test_a_full_week_takes_more_pages():
    classes = {f"c{n}": ShelvedClass(f"c{n}", sheet(f"Class {n}")) for n in range(20)}
    outings = {f"o{n}": Outing(f"o{n}", f"c{n}", MONDAY + n % 7) for n in range(20)}
    takes = {"t": TakeRecord("t", "c1", MONDAY)}
    full = ShelfRecords(classes=classes, outings=outings, takes=takes)
    document = pypdfium2.PdfDocument(week_page(full, week_of(MONDAY), MONDAY))
    assert len(document) >= 3
    text = "".join(page.get_textpage().get_text_range() for page in document)
    assert all(f"Class {n}" in text for n in range(20))
