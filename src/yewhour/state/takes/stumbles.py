"""Where a teacher stumbled in a class, by its title: movements at which she stood still or went back."""

import contextlib

import msgspec

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole
from yewhour.files.small_files import read_small
from yewhour.state.paths import own_data

MOST_CLASSES, MOST_PLACES = 100, 40
Places = dict[str, int]  # a segment's id, and how often


def _read() -> dict[str, Places]:
    return read_small(own_data() / "rehearsed.json", dict[str, Places], {})


def stumbled_in(title: str) -> Places:
    """Where she stumbled in a class, and how often."""
    return _read().get(title, {})


def stumble(title: str, segment: str) -> None:
    """Remembers one more; lost without harm where it can't be written."""
    known = _read()
    places = known.pop(title, {})
    places[segment] = places.get(segment, 0) + 1
    known[title] = dict(sorted(places.items(), key=lambda one: -one[1])[:MOST_PLACES])
    _write(known)


def mastered(title: str, segment: str) -> None:
    """Forgets one: it was gone through without stumbling."""
    known = _read()
    if known.get(title, {}).pop(segment, None) is not None:
        _write(known)


def _write(known: dict[str, Places]) -> None:
    with contextlib.suppress(Problem, OSError):
        own_data().mkdir(parents=True, exist_ok=True)
        write_whole(
            own_data() / "rehearsed.json", msgspec.json.encode(dict(list(known.items())[-MOST_CLASSES:]))
        )
