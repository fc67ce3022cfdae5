"""Search: every word typed is somewhere in what the shelf knows; a number is a length."""

import pytest

from tests.conftest import shipped
from tests.core.shelf.shelves import MONDAY, sheet, shelf_of
from yewhour.content.terms import load_terms
from yewhour.core.shelf.search import ShelfIndex, search

SHELF = shelf_of(
    (
        MONDAY,
        sheet(
            "Slack tide", 20, works={"hips": 700.0}, movements=("half-pigeon",), audience="the lock-keepers"
        ),
    ),
    (MONDAY, sheet("Lamps out", 45, opens={"wrists": 500.0}, props=("bolster",), style="restorative")),
    (MONDAY, sheet("Keel and ballast", 30, works={"core": 900.0}, movements=("hundred",), level="beginners")),
    (MONDAY, sheet("Hips of the harbour", 10, works={"core": 300.0})),
)
INDEX = ShelfIndex(shipped().library, load_terms(shipped().positions).areas)
ROWS = INDEX.rows(SHELF.classes)


@pytest.mark.parametrize(
    ("typed", "found"),
    [
        ("slack", ["Slack tide"]),
        ("LOCK keep", ["Slack tide"]),
        ("pigeon", ["Slack tide"]),
        ("bolster", ["Lamps out"]),
        ("wrists", ["Lamps out"]),
        ("wrist", ["Lamps out"]),
        ("restorative 45", ["Lamps out"]),
        ("beginners", ["Keel and ballast"]),
        ("the hundred", ["Keel and ballast"]),
        ("hips", ["Hips of the harbour", "Slack tide"]),
        ("under 20", ["Hips of the harbour", "Slack tide"]),
        ("over 30 min core", ["Keel and ballast"]),
        ("20 minutes", ["Slack tide"]),
        ("trapeze", []),
    ],
)
def test_what_is_typed_finds(typed, found):
    names = [one.sheet.title for one in search(ROWS, typed)]
    assert names == found


def test_nothing_typed_is_everything():
    assert len(search(ROWS, "  ")) == 4
