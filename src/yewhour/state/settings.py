"""Habits: the classes opened lately, the text size, light or dark, taught keys. Lost without harm."""

import contextlib
from pathlib import Path

import msgspec

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole
from yewhour.files.small_files import read_small
from yewhour.state.paths import own_data

MOST_RECENT = 10


class Settings(msgspec.Struct, frozen=True):
    """What the window was like last time. dark: None for as the desktop has it. take_keys: keys that were
    taught for a take, each with its deed. take_call: the words behind which something is asked for aloud."""

    recent: tuple[str, ...] = ()
    scale: float = 1.0
    dark: bool | None = None
    take_keys: dict[str, str] = {}
    take_call: str = "tide table"


def _file() -> Path:
    return own_data() / "habits.json"


def read_settings() -> Settings:
    """The habits, as usual where there are none."""
    return read_small(_file(), Settings, Settings())


def change_settings(**fields: object) -> Settings:
    """The habits with fields replaced, written when they can be."""
    habits = msgspec.structs.replace(read_settings(), **fields)
    with contextlib.suppress(Problem, OSError):
        _file().parent.mkdir(parents=True, exist_ok=True)
        write_whole(_file(), msgspec.json.encode(habits))
    return habits


def remember_opened(path: Path) -> None:
    """Puts a class at the head of those opened lately."""
    name = str(path.resolve())
    recent = [name, *(other for other in read_settings().recent if other != name)]
    change_settings(recent=tuple(recent[:MOST_RECENT]))


def recent_classes() -> list[Path]:
    """The classes opened lately that are still there, the latest first."""
    return [Path(name) for name in read_settings().recent if Path(name).is_file()]
