"""The logbook: what was made, taken and given, in SQLite.

Each machine writes a file of its own, `MACHINE.SCHEMA.sqlite`, and reads those of all others: two that share
a synchronised folder never write into one file. Of a record that several have, the latest change counts,
by a number that is one higher than any seen before, not by clocks. A newer schema is another file, made from
a copy of the one before, which stays; so an older program finds what it knew, and a newer one both.
"""

import contextlib
import re
import sqlite3
import zlib
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path
from platform import node
from typing import Any

import msgspec

from yewhour.core.problem import Problem
from yewhour.core.shelf.records import (
    Outing,
    Record,
    Series,
    ShelfRecords,
    ShelvedClass,
    TakeRecord,
)
from yewhour.files.atomic_files import make_folder

SCHEMA = 1
STEPS: dict[int, str] = {}  # schema -> what makes the next one of it
TABLES = """
CREATE TABLE entries (id TEXT PRIMARY KEY, kind TEXT NOT NULL, stand INTEGER NOT NULL,
    gone INTEGER NOT NULL DEFAULT 0, value TEXT NOT NULL);
CREATE TABLE places (id TEXT PRIMARY KEY, path TEXT NOT NULL, stamp TEXT NOT NULL, inode INTEGER NOT NULL);
"""
KINDS: dict[str, type[Record]] = {
    "class": ShelvedClass,
    "take": TakeRecord,
    "outing": Outing,
    "series": Series,
}
FIELDS = {"class": "classes", "take": "takes", "outing": "outings", "series": "series"}
_ALL: dict[str, Any] = {kind: msgspec.json.Decoder(list[type_]) for kind, type_ in KINDS.items()}  # type: ignore[valid-type]
WAIT_S = 5.0  # for another window that is writing
_NAME = re.compile(r"(?P<machine>[\w-]+)\.(?P<schema>\d+)\.sqlite")


class LogbookEntry(msgspec.Struct, frozen=True, gc=False):
    """A record as it stands in a file: its kind, how late its change was, and whether it is gone."""

    kind: str
    stand: int
    gone: bool
    value: str


class FilePlace(msgspec.Struct, frozen=True):
    """Where a class lies on this machine: its path, and what tells its file from others."""

    path: str
    stamp: str = ""
    inode: int = 0


Listener = Callable[[Problem], object]


def this_machine() -> str:
    """A name for this machine, the same each time."""
    try:
        name = Path("/etc/machine-id").read_text(encoding="ascii").strip()
    except (OSError, UnicodeDecodeError):
        name = ""
    return f"{zlib.crc32((name or node()).encode()):08x}"


class Logbook:
    """All records, as values; what is changed is written at once, or as soon as it can be.

    folder: None for a logbook that is kept nowhere. on_problem: hears what is wrong with a file.
    """

    def __init__(
        self, folder: Path | None, machine: str = "", on_problem: Listener = lambda problem: None
    ) -> None:
        self.folder, self.machine, self.on_problem = folder, machine or this_machine(), on_problem
        self.writable = True
        self._entries: dict[str, tuple[int, str, LogbookEntry]] = {}  # id -> stand, machine, entry
        self._others: dict[Path, tuple[int, int]] = {}
        self._waiting: dict[str, LogbookEntry] = {}
        self._troubled = ""
        self._version = -1
        self._shelf: ShelfRecords | None = None
        self._known: dict[str, dict[str, Record | None]] = {kind: {} for kind in KINDS}
        self._file = self._opened()
        self.refresh()

    # --- opening ----------------------------------------------------------------------------------------

    @property
    def path(self) -> Path | None:
        """This machine's file."""
        return self.folder / f"{self.machine}.{SCHEMA}.sqlite" if self.folder is not None else None

    def _opened(self) -> sqlite3.Connection:
        if self.path is None or self.folder is None:
            return _made(":memory:")
        try:
            make_folder(self.folder)
            self._migrate(self.path)
            return self._read_or_new(self.path)
        except (Problem, sqlite3.Error, OSError) as error:
            return self._without(self.path, error)

    def _read_or_new(self, path: Path) -> sqlite3.Connection:
        try:
            return _made(str(path))
        except sqlite3.DatabaseError as error:
            if isinstance(error, sqlite3.OperationalError):
                raise
            aside = _set_aside(path)
            what = "The logbook is damaged; it was set aside, and a new one begun."
            self.on_problem(
                Problem(what, str(aside), "What other machines know, and the classes, are there.")
            )
            return _made(str(path))

    def _without(self, path: Path, error: Exception) -> sqlite3.Connection:
        """Where nothing can be written: what is there is read, and what is new is kept in memory."""
        self.writable = False
        self._trouble(error)
        memory = _made(":memory:")
        with contextlib.suppress(sqlite3.Error):
            for row in _read_only(path):
                memory.execute("INSERT OR REPLACE INTO entries VALUES (?, ?, ?, ?, ?)", row)
            memory.commit()
        return memory

    def _migrate(self, path: Path) -> None:
        """A file of an older schema, copied and brought to this one; the older one stays as it was."""
        if path.exists():
            return
        mine = [(schema, file) for machine, schema, file in self._files() if machine == self.machine]
        older = [(schema, file) for schema, file in mine if schema < SCHEMA]
        if not older:
            return
        schema, file = max(older)
        part = path.with_suffix(".part")
        part.unlink(missing_ok=True)
        with (
            contextlib.closing(sqlite3.connect(file)) as before,
            contextlib.closing(sqlite3.connect(part)) as new,
        ):
            before.backup(new)
            for step in range(schema, SCHEMA):
                new.executescript(STEPS[step])
            new.commit()
        part.replace(path)

    def _files(self) -> Iterator[tuple[str, int, Path]]:
        if self.folder is not None and self.folder.is_dir():
            for file in sorted(self.folder.iterdir()):
                if found := _NAME.fullmatch(file.name):
                    yield found["machine"], int(found["schema"]), file

    # --- reading ----------------------------------------------------------------------------------------

    @property
    def shelf(self) -> ShelfRecords:
        """Everything, as it is now."""
        if self._shelf is None:
            found: dict[str, dict[str, Record]] = {field: {} for field in FIELDS.values()}
            by_kind: dict[str, list[str]] = {kind: [] for kind in KINDS}
            for _, _, entry in self._entries.values():
                if not entry.gone:
                    by_kind[entry.kind].append(entry.value)
            for kind, values in by_kind.items():
                known = self._known[kind]  # one change makes one record anew, not all of them
                anew = [value for value in values if value not in known]
                known |= dict(zip(anew, _decoded(kind, anew), strict=True))
                records = (known[value] for value in values)
                found[FIELDS[kind]] = {one.id: one for one in records if one is not None}
            self._shelf = ShelfRecords(**found)  # type: ignore[arg-type]
        return self._shelf

    def refresh(self) -> bool:
        """Reads what other windows and machines have written; whether there was anything."""
        changed = self._refresh_own()
        for machine, schema, file in self._files():
            if machine == self.machine and schema <= SCHEMA:
                continue
            try:
                kind = file.stat()
            except OSError:
                continue
            if self._others.get(file) != (kind.st_mtime_ns, kind.st_size):
                self._others[file] = (kind.st_mtime_ns, kind.st_size)
                changed = self._read_other(machine, schema, file) or changed
        if changed:
            self._shelf = None
        return changed

    def _refresh_own(self) -> bool:
        version = self._file.execute("PRAGMA data_version").fetchone()[0]
        if version == self._version:
            return False
        self._version = version
        try:
            rows = self._file.execute("SELECT id, kind, stand, gone, value FROM entries").fetchall()
        except sqlite3.DatabaseError as error:
            self._trouble(error)
            return False
        return self._take(self.machine, rows)

    def _read_other(self, machine: str, schema: int, file: Path) -> bool:
        if schema > SCHEMA:
            what = "A newer Yew Hour has written in this logbook; it is left as it is."
            self.on_problem(Problem(what, str(file), "Use the newer one to see all of it."))
            return False
        try:
            return self._take(machine, _read_only(file))
        except sqlite3.Error:
            what = "What another machine wrote in the logbook can't be read just now."
            self.on_problem(
                Problem(what, str(file), "It is read as soon as it is whole; all the rest is there.")
            )
            return False

    def _take(self, machine: str, rows: Iterable[tuple[Any, ...]]) -> bool:
        changed = False
        for name, kind, stand, gone, value in rows:
            if kind not in KINDS:
                continue
            known = self._entries.get(name)
            if known is None or (stand, machine) > known[:2]:
                self._entries[name] = (stand, machine, LogbookEntry(kind, stand, bool(gone), value))
                changed = True
        return changed

    # --- writing ----------------------------------------------------------------------------------------

    def put(self, *records: Record) -> None:
        """Writes records, new ones or ones that are there already."""
        self.refresh()
        kinds = {type_: kind for kind, type_ in KINDS.items()}
        self._write({one.id: (kinds[type(one)], False, msgspec.json.encode(one).decode()) for one in records})

    def change(self, name: str, **fields: object) -> None:
        """Changes single fields of a record as it is now; of one that is gone, nothing."""
        self.refresh()
        record = self.record(name)
        if record is not None:
            self.put(msgspec.structs.replace(record, **fields))

    def drop(self, *names: str) -> None:
        """Takes records away; their last state stays in the file, marked as gone."""
        self.refresh()
        known = {name: self._entries[name][2] for name in names if name in self._entries}
        self._write({name: (entry.kind, True, entry.value) for name, entry in known.items()})

    def record(self, name: str) -> Record | None:
        """One record, or None."""
        shelf = self.shelf
        every: tuple[dict[str, Any], ...] = (shelf.classes, shelf.takes, shelf.outings, shelf.series)
        return next((found[name] for found in every if name in found), None)

    def _write(self, changes: dict[str, tuple[str, bool, str]]) -> None:
        stand = max((stand for stand, _, _ in self._entries.values()), default=0)
        for name, (kind, gone, value) in changes.items():
            stand += 1
            entry = LogbookEntry(kind, stand, gone, value)
            self._entries[name] = (stand, self.machine, entry)
            self._waiting[name] = entry
        self._shelf = None
        self.flush()

    def flush(self) -> None:
        """Writes what is waiting; where it can't be, it goes on waiting, and that is told once."""
        if not self._waiting:
            return
        if not self.writable:
            self._retry()
        rows = [(name, e.kind, e.stand, e.gone, e.value) for name, e in self._waiting.items()]
        try:
            with self._file:
                self._file.executemany("INSERT OR REPLACE INTO entries VALUES (?, ?, ?, ?, ?)", rows)
        except sqlite3.Error as error:
            self._trouble(error)
            return
        if self.writable:
            self._waiting.clear()
            self._troubled = ""
            with contextlib.suppress(sqlite3.Error):  # so that the file alone is whole for other machines
                self._file.execute("PRAGMA wal_checkpoint(PASSIVE)")

    def _retry(self) -> None:
        """Tries again to open the file that could not be written."""
        if self.path is None:
            return
        with contextlib.suppress(sqlite3.Error, OSError, Problem):
            make_folder(self.path.parent)
            file = _made(str(self.path))
            with file:
                file.execute("DELETE FROM places WHERE id = ''")  # a write, to see whether one can be
            self._file, self.writable, self._version = file, True, -1

    def _trouble(self, error: Exception) -> None:
        reason = str(getattr(error, "strerror", None) or error).lower()
        if reason != self._troubled and self.path is not None:
            self._troubled = reason
            what = f"The logbook can't be written: {reason}."
            do = "What you do on the shelf is kept in memory, and written as soon as it can be."
            self.on_problem(Problem(what, str(self.path), do))

    def close(self) -> None:
        """Writes what is waiting, and lets go of the file."""
        self.flush()
        with contextlib.suppress(sqlite3.Error):
            self._file.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        self._file.close()

    # --- where classes lie on this machine --------------------------------------------------------------

    def places(self) -> dict[str, FilePlace]:
        """Where each class lies here, by its id."""
        rows = self._file.execute("SELECT id, path, stamp, inode FROM places").fetchall()
        return {name: FilePlace(path, stamp, inode) for name, path, stamp, inode in rows}

    def place_of(self, name: str) -> FilePlace | None:
        """Where one class lies here, None where that is not known."""
        row = self._file.execute("SELECT path, stamp, inode FROM places WHERE id = ?", (name,)).fetchone()
        return FilePlace(*row) if row else None

    def place(self, name: str, where: FilePlace) -> None:
        """Notes where a class lies."""
        row = (name, where.path, where.stamp, where.inode)
        try:
            with self._file:
                self._file.execute("INSERT OR REPLACE INTO places VALUES (?, ?, ?, ?)", row)
        except sqlite3.Error as error:
            self._trouble(error)


def _decoded(kind: str, values: Sequence[str]) -> list[Record | None]:
    """Records of a kind, one a value: all at once, or, where one is damaged, one by one, None for that."""
    with contextlib.suppress(msgspec.DecodeError, msgspec.ValidationError):
        every: list[Record | None] = _ALL[kind].decode(f"[{','.join(values)}]")
        if len(every) == len(values):
            return every
    return [_decoded_alone(kind, value) for value in values]


def _decoded_alone(kind: str, value: str) -> Record | None:
    with contextlib.suppress(msgspec.DecodeError, msgspec.ValidationError):
        found: list[Record] = _ALL[kind].decode(f"[{value}]")
        return found[0] if len(found) == 1 else None
    return None


def _made(path: str) -> sqlite3.Connection:
    """A file with its tables, as it is or new. Raises sqlite3.Error when it can't be one."""
    file = sqlite3.connect(path, timeout=WAIT_S, check_same_thread=False)
    try:
        file.execute("PRAGMA journal_mode=WAL")
        file.execute("PRAGMA synchronous=FULL")
        if not file.execute("SELECT 1 FROM sqlite_master WHERE name = 'entries'").fetchone():
            with file:
                file.executescript(TABLES)
            file.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        if file.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
            raise sqlite3.DatabaseError("it is damaged")
        file.execute("SELECT id, kind, stand, gone, value FROM entries LIMIT 1").fetchone()
    except sqlite3.Error:
        file.close()
        raise
    return file


def _read_only(path: Path) -> list[tuple[Any, ...]]:
    """The entries of a file that another writes: as it lies there, nothing of it touched."""
    name = f"file:{str(path).replace('%', '%25').replace('?', '%3f').replace('#', '%23')}?mode=ro&immutable=1"
    with contextlib.closing(sqlite3.connect(name, uri=True)) as file:
        return file.execute("SELECT id, kind, stand, gone, value FROM entries").fetchall()


def _set_aside(path: Path) -> Path:
    """Moves a damaged file away whole, with what belongs to it; the first name that is free."""
    number = 1
    while (aside := path.with_name(f"{path.name}.damaged-{number}")).exists():
        number += 1
    path.replace(aside)
    for end in ("-wal", "-shm"):
        with contextlib.suppress(OSError):
            path.with_name(path.name + end).replace(aside.with_name(aside.name + end))
    return aside
