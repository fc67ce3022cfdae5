"""The made-up shelf of Saltmarsh Row: the demo classes over half a year, up to this week and the next."""

import zlib
from pathlib import Path

from yewhour.content.demo_sheets import demo_sheets
from yewhour.content.paths import DEMO
from yewhour.core.shelf.records import (
    DAYS,
    WEEKDAYS,
    Outing,
    Record,
    Series,
    ShelvedClass,
    TakeRecord,
    monday_of,
    week_of,
)
from yewhour.files.toml_files import read_toml
from yewhour.state.logbook.logbook import FilePlace, Logbook

FILE = DEMO / "shelf.toml"
RECORDED_BEFORE = 3  # days, usually
DRIFT_S = 26  # a take is up to half so much longer or shorter than promised


def demo_logbook(today: int, file: Path = FILE) -> Logbook:
    """A logbook that is kept nowhere, with the demo classes on it. Raises Problem for a damaged file."""
    book = Logbook(None)
    book.put(*demo_records(today, file))
    for name in demo_sheets():
        book.place(name, FilePlace(str(DEMO / f"{name}.yewhour")))
    return book


def demo_records(today: int, file: Path = FILE) -> list[Record]:
    """Its records, as they would stand today."""
    table, sheets, first = read_toml(file), demo_sheets(), monday_of(week_of(today))
    cuts: dict[str, str] = table["cuts"]
    since: dict[str, int] = {}
    records: list[Record] = []
    for number, row in enumerate(table["out"]):
        name = row["class"]
        place = next(at for at, day in enumerate(WEEKDAYS) if day.startswith(row["day"]))
        day = first + DAYS * row["week"] + place
        since.setdefault(name, day - 9)
        by = day + row["by"] if "by" in row else 0
        records.append(Outing(f"out-{number}", name, day, row["at"], row["where"], by))
        recorded = day - RECORDED_BEFORE
        if "unrecorded" not in row and not any(
            isinstance(one, TakeRecord) and one.of == name for one in records
        ):
            length_s = sheets[name].length_s
            drift_s = zlib.crc32(name.encode()) % DRIFT_S - DRIFT_S / 2
            title = sheets[name].title
            records.append(TakeRecord(f"take-{number}", name, recorded, title, length_s + drift_s, length_s))
    for one in table["series"]:
        begins = first + DAYS * one["begins"]
        records.append(
            Series(
                "series", one["title"], one["weeks"], one["each"], tuple(one["classes"]), begins, one["note"]
            )
        )
    for name, sheet in sheets.items():
        file_name = f"{name}.yewhour"
        records.append(
            ShelvedClass(name, sheet, since.get(name, today - 20), cuts.get(name, ""), file=file_name)
        )
    return records
