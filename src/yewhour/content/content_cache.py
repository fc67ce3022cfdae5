"""The data that ship, read and found sound once, so that a start need not (130 ms, and a parser of TOML).

It lies beside the program, and is taken as long as every data file, and the code that reads them, is as it
was then; otherwise the files are read, and it is made anew.
"""

import contextlib
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

import msgspec

from yewhour.content.paths import DATA, prepared_folder
from yewhour.core.library.movement import Library, Movement
from yewhour.core.plan.nodes import Blocks
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole

FILE = "library.msgpack"
CODE = Path(__file__).resolve().parent.parent
READERS = (
    "content/card_files.py", "core/library/card.py", "content/movement_files.py", "content/block_files.py",
    "core/library/movement.py",
    "core/library/names.py", "core/pace.py", "core/plan/nodes.py", "core/outline/step_lines.py",
    "core/outline/reader.py",
)  # fmt: skip
Stamps = dict[str, tuple[int, int]]  # path -> size, time of change


class LazyMovements(Mapping[str, Movement]):
    """Movements by id, each read from what was kept when it is first asked for."""

    def __init__(self, kept: dict[str, msgspec.Raw]) -> None:
        self._kept = kept
        self._read: dict[str, Movement] = {}

    def __getitem__(self, name: str) -> Movement:
        found = self._read.get(name)
        if found is None:
            found = self._read[name] = _MOVEMENT.decode(self._kept[name])
        return found

    def __contains__(self, name: object) -> bool:
        return name in self._kept

    def __iter__(self) -> Iterator[str]:
        return iter(self._kept)

    def __len__(self) -> int:
        return len(self._kept)


_MOVEMENT = msgspec.msgpack.Decoder(Movement)


class CachedContent(msgspec.Struct, frozen=True):
    """The movements and blocks that ship, and how the data files were when they were read."""

    stamps: Stamps
    movements: dict[str, msgspec.Raw]
    blocks: Blocks
    tables: dict[str, dict[str, Any]]  # of the other data files: path -> what is in it

    @property
    def library(self) -> Library:
        """The movements by id."""
        return LazyMovements(self.movements)


def read_content_cache(stamps: Stamps) -> CachedContent | None:
    """The library and the blocks that ship, when they were prepared from files with these stamps."""
    try:
        found = msgspec.msgpack.decode((prepared_folder() / FILE).read_bytes(), type=CachedContent)
        return found if found.stamps == stamps else None
    except (OSError, msgspec.DecodeError):
        return None


def write_content_cache(
    library: Library, blocks: Blocks, tables: dict[str, dict[str, Any]], stamps: Stamps
) -> None:
    """Keeps the data that ship, where that can be. stamps: as the files were before they were read, so that
    what changes meanwhile is read again."""
    with contextlib.suppress(Problem, OSError):
        prepared_folder().mkdir(parents=True, exist_ok=True)
        movements = {name: msgspec.Raw(msgspec.msgpack.encode(one)) for name, one in library.items()}
        write_whole(
            prepared_folder() / FILE,
            msgspec.msgpack.encode(CachedContent(stamps, movements, blocks, tables)),
        )


def content_stamps(data: Path = DATA) -> Stamps:
    """How the data files, and the code that reads them, are now."""
    read = [*data.rglob("*.toml"), *data.rglob("blocks/*.txt"), *(CODE / name for name in READERS)]
    files = (
        (str(path.relative_to(CODE if path.is_relative_to(CODE) else data)), path.stat()) for path in read
    )
    return {path: (found.st_size, found.st_mtime_ns) for path, found in files}
