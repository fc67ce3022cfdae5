"""Versions: every saved state of a class, kept in the teacher's own folder."""

import contextlib
from datetime import datetime
from pathlib import Path

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.store.atomic import write_whole
from yewhour.store.classfile import read_plan
from yewhour.store.keeping import name_for
from yewhour.store.paths import own_data

MOST = 60  # of one class
_STAMP = "%Y-%m-%d %H.%M.%S"


class Version(msgspec.Struct, frozen=True):
    """One saved state of a class, and when it was saved."""

    file: Path
    when: datetime

    def plan(self) -> Plan:
        """The class as it was. Raises Problem when the file is damaged."""
        return read_plan(self.file)


def folder_for(path: Path) -> Path:
    """Where the versions of a class file lie."""
    return own_data() / "versions" / name_for(path)


def versions_of(path: Path) -> list[Version]:
    """The versions of a class file, the latest first."""
    found = []
    for file in folder_for(path).glob("*.yewhour"):
        with contextlib.suppress(ValueError):
            found.append(Version(file, datetime.strptime(file.stem[:19], _STAMP)))
    return sorted(found, key=lambda one: (one.when, len(one.file.name), one.file.name), reverse=True)


def keep_version(path: Path, content: bytes, when: datetime) -> None:
    """Keeps a state of a class file, unless it is the same as the last; the oldest go when there are many.

    Raises Problem when it can't be written.
    """
    folder = folder_for(path)
    folder.mkdir(parents=True, exist_ok=True)
    known = versions_of(path)
    with contextlib.suppress(OSError):
        if known and known[0].file.read_bytes() == content:
            return
    name, number = when.strftime(_STAMP), 2
    while (folder / f"{name}.yewhour").exists():
        name, number = f"{when.strftime(_STAMP)} {number}", number + 1
    write_whole(folder / f"{name}.yewhour", content)
    for old in known[MOST - 1 :]:
        with contextlib.suppress(OSError):
            old.file.unlink()
