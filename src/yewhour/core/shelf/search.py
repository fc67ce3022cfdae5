"""Search: classes by what is typed, each word of it somewhere in what the shelf knows of a class."""

import re
from collections.abc import Iterable, Mapping, Sequence

import msgspec

from yewhour.core.plan.movement import Library
from yewhour.core.plan.names import plain
from yewhour.core.shelf.records import Shelved
from yewhour.core.shelf.sheet import Sheet

LEAST = 0.05  # of a class, for an area to be found by it
NEAR_S = 90.0  # so near a length is that length
_LENGTH = re.compile(r"(<|>|under|over|to|from)?\s*(\d{1,3})(?:\s*(?:min|mins|minutes|m|'))?")


class Found(msgspec.Struct, frozen=True):
    """A class in words, to be searched: what it is called and for whom first, then what is in it."""

    shelved: Shelved
    head: str
    inside: str


def indexed(classes: Iterable[Shelved], library: Library, areas: Mapping[str, str]) -> list[Found]:
    """The classes with their words; those first seen last come first."""
    names = {one: " ".join((m.name, m.traditional, *m.aliases)).lower() for one, m in library.items()}
    rows = [_indexed(one, names, areas) for one in classes]
    return sorted(rows, key=lambda row: (-row.shelved.since, row.shelved.sheet.title, row.shelved.id))


def _indexed(one: Shelved, names: Mapping[str, str], areas: Mapping[str, str]) -> Found:
    sheet = one.sheet
    head = " ".join((sheet.title, sheet.audience, sheet.style, sheet.level, sheet.time_of_day, one.note))
    worked = [areas.get(area, area) for area in main_areas(sheet)]
    inside = (
        *worked,
        *(areas.get(area, area) for area in sheet.focus),
        *sheet.props,
        *(names.get(movement, movement) for movement in sheet.movements),
    )
    return Found(one, f" {_folded(head)}", f" {_folded(' '.join(inside))}")


def _folded(text: str) -> str:
    return " ".join(re.findall(r"[^\W_]+", text.lower().replace("'", "")))


def main_areas(sheet: Sheet) -> list[str]:
    """The areas that a good share of a class is about, the most first."""
    total: dict[str, float] = dict(sheet.works)
    for area, each_s in sheet.opens.items():
        total[area] = total.get(area, 0.0) + each_s
    least_s = LEAST * sheet.length_s
    return [area for area, each_s in sorted(total.items(), key=lambda row: -row[1]) if each_s >= least_s]


def search(rows: Sequence[Found], text: str) -> list[Shelved]:
    """The classes that have every word that was typed, or its beginning; those that have it in front first.

    A number is a length in minutes: `25`, `under 30`, `over 20`.
    """
    lengths, words = _asked(text)
    if not lengths and not words:
        return [row.shelved for row in rows]
    front, behind = [], []
    for row in rows:
        if not all(_long(row.shelved.sheet.length_s, how, minutes) for how, minutes in lengths):
            continue
        if all(f" {word}" in row.head for word in words):
            front.append(row.shelved)
        elif all(f" {word}" in row.head or f" {word}" in row.inside for word in words):
            behind.append(row.shelved)
    return front + behind


def _asked(text: str) -> tuple[list[tuple[str, int]], list[str]]:
    lengths: list[tuple[str, int]] = []

    def take(found: re.Match[str]) -> str:
        lengths.append((found[1] or "", int(found[2])))
        return " "

    rest = re.sub(rf"(?<![^\W_]){_LENGTH.pattern}(?![^\W_])", take, text.lower())
    words = _folded(rest).split()
    return lengths, [plain(word) if len(word) > 3 else word for word in words]


def _long(length_s: float, how: str, minutes: int) -> bool:
    if how in ("<", "under", "to"):
        return length_s <= minutes * 60 + 1
    if how in (">", "over", "from"):
        return length_s >= minutes * 60 - 1
    return abs(length_s - minutes * 60) <= NEAR_S
