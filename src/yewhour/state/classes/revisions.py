"""Versions: every saved state of a class, kept in the teacher's own folder."""

import contextlib
import re
from datetime import datetime
from pathlib import Path

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import make_folder, read_all, write_whole
from yewhour.files.small_files import read_small
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.unsaved_work import name_for
from yewhour.state.paths import own_data

MOST = 60  # of one class, besides those with a name
NAMES = "names.json"
_STAMP = "%Y-%m-%d %H.%M.%S"
# `000012 2026-05-04 18.30.00`; without the number, as it was before there were numbers.
_NAME = re.compile(r"(?:(?P<number>\d{6,9}) )?(?P<when>\d{4}-\d\d-\d\d \d\d\.\d\d\.\d\d)")


class Revision(msgspec.Struct, frozen=True):
    """One saved state of a class, which one it is, when it was saved by the clock of then, and its name."""

    file: Path
    number: int
    when: datetime
    name: str = ""

    def plan(self) -> Plan:
        """The class as it was. Raises Problem when the file is damaged."""
        return read_plan(self.file)


def folder_for(path: Path) -> Path:
    """Where the versions of a class file lie."""
    return own_data() / "versions" / name_for(path)


def revisions_of(path: Path) -> list[Revision]:
    """The versions of a class file, the latest first: by what came after what, whatever the clock said."""
    found = []
    names = _names(folder_for(path))
    for file in folder_for(path).glob("*.yewhour"):
        named = _NAME.match(file.stem)
        with contextlib.suppress(ValueError):
            if named:
                when = datetime.strptime(named["when"], _STAMP)
                number = int(named["number"] or 0)
                found.append(Revision(file, number, when, names.get(str(number), "")))
    return sorted(
        found, key=lambda one: (one.number, one.when, len(one.file.name), one.file.name), reverse=True
    )


def keep_revision(path: Path, content: bytes, when: datetime) -> None:
    """Keeps a state of a class file, unless it is the same as the last; the oldest go when there are many.

    Raises Problem when it can't be written.
    """
    folder = folder_for(path)
    make_folder(folder)
    known = revisions_of(path)
    with contextlib.suppress(Problem):
        if known and read_all(known[0].file) == content:
            return
    number = known[0].number + 1 if known else 1
    write_whole(folder / f"{number:06} {when.strftime(_STAMP)}.yewhour", content)
    for old in [one for one in known if not one.name][MOST - 1 :]:
        with contextlib.suppress(OSError):
            old.file.unlink()


def name_revision(path: Path, version: Revision, name: str) -> None:
    """Gives a state a name, or takes it away with ""; one that has a name is never let go of.

    Raises Problem when it can't be written.
    """
    folder = folder_for(path)
    names = {**_names(folder), str(version.number): name.strip()}
    write_whole(folder / NAMES, msgspec.json.encode({key: said for key, said in names.items() if said}))


def _names(folder: Path) -> dict[str, str]:
    """The names of states, by their numbers; a file of them that can't be read is none."""
    return read_small(folder / NAMES, dict[str, str], {})
