"""Made-up shelves for tests."""

from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import (
    Outing,
    ShelfRecords,
    ShelvedClass,
    TakeRecord,
)

MONDAY = 7 * 105_000 + 1  # a Monday long before anything here


def sheet(title="Slack tide", minutes=20, works=None, opens=None, movements=(), **more):
    return ClassSheet(
        title=title, style=more.pop("style", "hatha"), length_s=minutes * 60.0, target_s=minutes * 60.0,
        works=works or {}, opens=opens or {}, movements=dict.fromkeys(movements, 60.0), **more,
    )  # fmt: skip


def shelf_of(*rows, takes=()):
    """A shelf of (day, sheet) rows: each its class and its outing."""
    classes = {f"c{n}": ShelvedClass(f"c{n}", one) for n, (_, one) in enumerate(rows)}
    outings = {f"o{n}": Outing(f"o{n}", f"c{n}", day) for n, (day, _) in enumerate(rows) if day}
    return ShelfRecords(classes=classes, outings=outings, takes={one.id: one for one in takes})


def taken(of, day, length_s=1200.0, promised_s=1200.0):
    return TakeRecord(f"t{of}{day}", of, day, "", length_s, promised_s)
