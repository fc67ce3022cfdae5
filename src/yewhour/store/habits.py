"""Habits: the classes opened lately, the text size, light or dark, taught keys. Lost without harm."""

import contextlib
from pathlib import Path

import msgspec

from yewhour.core.problem import Problem
from yewhour.store.atomic import write_whole
from yewhour.store.paths import own_data

MOST_RECENT = 10


class Habits(msgspec.Struct, frozen=True):
    """What the window was like last time. dark: None for as the desktop has it. take_keys: keys that were
    taught for a take, each with its deed."""

    recent: tuple[str, ...] = ()
    scale: float = 1.0
    dark: bool | None = None
    take_keys: dict[str, str] = {}


def _file() -> Path:
    return own_data() / "habits.json"


def read_habits() -> Habits:
    """The habits, as usual where there are none."""
    try:
        return msgspec.json.decode(_file().read_bytes(), type=Habits)
    except (OSError, msgspec.DecodeError):
        return Habits()


def change_habits(**fields: object) -> Habits:
    """The habits with fields replaced, written when they can be."""
    habits = msgspec.structs.replace(read_habits(), **fields)
    with contextlib.suppress(Problem, OSError):
        _file().parent.mkdir(parents=True, exist_ok=True)
        write_whole(_file(), msgspec.json.encode(habits))
    return habits


def opened(path: Path) -> None:
    """Puts a class at the head of those opened lately."""
    name = str(path.resolve())
    recent = [name, *(other for other in read_habits().recent if other != name)]
    change_habits(recent=tuple(recent[:MOST_RECENT]))


def recent_classes() -> list[Path]:
    """The classes opened lately that are still there, the latest first."""
    return [Path(name) for name in read_habits().recent if Path(name).is_file()]
