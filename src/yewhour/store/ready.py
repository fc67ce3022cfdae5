"""The library that ships, read and found sound once, so that a start need not do it again (30 ms).

It lies beside the program, and is taken as long as every data file, and the code that reads them, is as it
was then; otherwise the files are read, and it is made anew.
"""

import contextlib
from pathlib import Path

import msgspec

from yewhour.core.plan.movement import Library, Movement
from yewhour.core.problem import Problem
from yewhour.store.atomic import write_whole
from yewhour.store.paths import DATA, prepared

FILE = "library.msgpack"
CODE = Path(__file__).resolve().parent.parent
READERS = ("store/library.py", "core/plan/movement.py", "core/plan/pace.py")
Stamps = dict[str, tuple[int, int]]  # path -> size, time of change


class Ready(msgspec.Struct, frozen=True):
    """The movements that ship, and how the data files were when they were read."""

    stamps: Stamps
    movements: list[Movement]


def ready_library(data: Path = DATA) -> Library | None:
    """The library that ships, when it was prepared from the files as they are now."""
    try:
        found = msgspec.msgpack.decode((prepared() / FILE).read_bytes(), type=Ready)
        return {one.id: one for one in found.movements} if found.stamps == _stamps(data) else None
    except (OSError, msgspec.DecodeError):
        return None


def make_ready(library: Library, data: Path = DATA) -> None:
    """Keeps the library that ships, where that can be."""
    with contextlib.suppress(Problem, OSError):
        prepared().mkdir(parents=True, exist_ok=True)
        content = msgspec.msgpack.encode(Ready(_stamps(data), list(library.values())))
        write_whole(prepared() / FILE, content)


def _stamps(data: Path) -> Stamps:
    read = [*data.rglob("*.toml"), *(CODE / name for name in READERS)]
    files = ((str(path), path.stat()) for path in read)
    return {path: (found.st_size, found.st_mtime_ns) for path, found in files}
