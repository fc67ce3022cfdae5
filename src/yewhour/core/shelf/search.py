"""Search: classes by what is typed, each word of it somewhere in what the shelf knows of a class."""

import re
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.library.names import plain_name
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import ShelvedClass

LEAST = 0.05  # of a class, for an area to be found by it
NEAR_S = 90.0  # so near a length is that length
_WORD = re.compile(r"[^\W_]+")
_LENGTH = re.compile(r"(<|>|under|over|to|from)?\s*(\d{1,3})(?:\s*(?:min|mins|minutes|m|'))?")


class SearchableClass(msgspec.Struct, frozen=True):
    """A class in words, to be searched: what it is called and for whom first, then what is in it."""

    shelved: ShelvedClass
    head: str
    inside: str


class ShelfIndex:
    """Classes in words. What it made of a class it keeps, as long as that is as it was."""

    def __init__(self, library: Library, areas: Mapping[str, str]) -> None:
        self._names = {
            one: _folded(" ".join((m.name, m.traditional, *m.aliases))) for one, m in library.items()
        }
        self._areas = {area: _folded(name) for area, name in areas.items()}
        self._known: dict[str, SearchableClass] = {}
        self._of: Mapping[str, ShelvedClass] = {}
        self._rows: list[SearchableClass] = []

    def rows(self, classes: Mapping[str, ShelvedClass]) -> list[SearchableClass]:
        """The classes with their words; those first seen last come first."""
        if classes is self._of:
            return self._rows
        rows = []
        for one in classes.values():
            known = self._known.get(one.id)
            if known is None or known.shelved is not one:
                known = self._known[one.id] = _indexed(one, self._names, self._areas)
            rows.append(known)
        rows.sort(key=lambda row: (-row.shelved.since, row.shelved.sheet.title, row.shelved.id))
        self._of, self._rows = classes, rows
        return rows


def _indexed(one: ShelvedClass, names: Mapping[str, str], areas: Mapping[str, str]) -> SearchableClass:
    sheet = one.sheet
    head = " ".join((sheet.title, sheet.audience, sheet.style, sheet.level, sheet.time_of_day, one.note))
    worked = [areas.get(area, area) for area in main_areas(sheet)]
    inside = (
        *worked,
        *(areas.get(area, area) for area in sheet.focus),
        *map(_folded, sheet.props),
        *(names.get(movement) or _folded(movement) for movement in sheet.movements),
    )
    return SearchableClass(one, f" {_folded(head)}", f" {' '.join(inside)}")


def _folded(text: str) -> str:
    return " ".join(_WORD.findall(text.lower().replace("'", "")))


def main_areas(sheet: ClassSheet) -> list[str]:
    """The areas that a good share of a class is about, the most first."""
    total: dict[str, float] = dict(sheet.works)
    for area, each_s in sheet.opens.items():
        total[area] = total.get(area, 0.0) + each_s
    least_s = LEAST * sheet.length_s
    return [area for area, each_s in sorted(total.items(), key=lambda row: -row[1]) if each_s >= least_s]


def search(rows: Sequence[SearchableClass], text: str) -> list[ShelvedClass]:
    """The classes that have every word that was typed, or its beginning; those that have it in front first.

    A number is a length in minutes: `25`, `under 30`, `over 20`.
    """
    lengths, words = _asked(text)
    if not lengths and not words:
        return [row.shelved for row in rows]
    front: list[ShelvedClass] = []
    behind: list[ShelvedClass] = []
    for row in rows:
        if lengths and not all(_long(row.shelved.sheet.length_s, *asked) for asked in lengths):
            continue
        ahead = True
        for word in words:
            if word not in row.head:
                ahead = False
                if word not in row.inside:
                    break
        else:
            (front if ahead else behind).append(row.shelved)
    return front + behind


def _asked(text: str) -> tuple[list[tuple[str, int]], list[str]]:
    lengths: list[tuple[str, int]] = []

    def take(found: re.Match[str]) -> str:
        lengths.append((found[1] or "", int(found[2])))
        return " "

    rest = re.sub(rf"(?<![^\W_]){_LENGTH.pattern}(?![^\W_])", take, text.lower())
    words = _folded(rest).split()
    return lengths, [f" {plain_name(word) if len(word) > 3 else word}" for word in words]


def _long(length_s: float, how: str, minutes: int) -> bool:
    if how in ("<", "under", "to"):
        return length_s <= minutes * 60 + 1
    if how in (">", "over", "from"):
        return length_s >= minutes * 60 - 1
    return abs(length_s - minutes * 60) <= NEAR_S
