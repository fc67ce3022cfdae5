"""Keeping: what was not saved survives a crash, and a class open twice is noticed.

Every window has a file of its own in the teacher's `kept` folder, written a moment after each change,
with a lock that the system lets go when the program ends, however it ends. A kept file whose lock is
free is work that was never saved.
"""

import contextlib
import fcntl
import hashlib
import os
from datetime import datetime
from pathlib import Path
from typing import IO

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import OLD_S, PART, make_folder, read_all, write_whole
from yewhour.files.small_files import read_small
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.paths import kept_classes, own_data

TRIED_S = 7 * 24 * 3600.0  # a draft that was only tried is kept so long


def locked(path: Path) -> IO[bytes] | None:
    """A lock on a lock file, held until it is closed or the program ends; None when another has it.

    Raises Problem when there can be no such file.
    """
    make_folder(path.parent)
    try:
        handle = path.open("ab")
        os.utime(path)
    except OSError as error:
        reason = (error.strerror or str(error)).lower()
        raise Problem(
            f"This can't be locked: {reason}.", str(path), "Save the class, with Ctrl+S."
        ) from error
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        handle.close()
        return None
    return handle


def lock_class(path: Path) -> IO[bytes] | None:
    """The lock on a class that is open; None when it is open somewhere else."""
    return locked(own_data() / "open" / f"{name_for(path)}.lock")


def name_for(path: Path) -> str:
    """A file name that stands for a path."""
    return hashlib.sha1(str(path.resolve()).encode(), usedforsecurity=False).hexdigest()[:16]


def stamp_of(path: Path | None) -> str:
    """What tells whether a file is still as it was; "" when it is not there."""
    try:
        return hashlib.sha1(read_all(path), usedforsecurity=False).hexdigest() if path else ""
    except Problem:
        return ""


class ClassIdentity(msgspec.Struct, frozen=True):
    """Whose work a kept file is: the class file it belongs to ("" for none yet), and its title.

    tried: a draft in which nothing was changed by hand; such a one is kept a week.
    """

    path: str
    title: str
    tried: bool = False


class UnsavedWork(msgspec.Struct, frozen=True):
    """Work of another time that was not saved."""

    file: Path
    about: ClassIdentity
    when: datetime

    def plan(self) -> Plan:
        """The class as it was. Raises Problem when the file is damaged."""
        return read_plan(self.file)

    def forget(self) -> None:
        """Takes it away: it was brought back and is kept by its window now, or is not wanted."""
        _forget(self.file)


def _forget(file: Path) -> None:
    for suffix in (".yewhour", ".about", ".lock"):
        with contextlib.suppress(OSError):
            file.with_suffix(suffix).unlink()


class WorkKeeper:
    """Keeps the work of one window."""

    def __init__(self) -> None:
        self.file = kept_classes() / f"{os.urandom(6).hex()}.yewhour"
        self._lock: IO[bytes] | None = None
        self._about: ClassIdentity | None = None

    def keep(self, plan: Plan, path: Path | None, tried: bool = False) -> None:
        """Writes the class as it is now. tried: it is as drafted. Raises Problem when it can't be written."""
        if self._lock is None:
            try:
                self._lock = locked(self.file.with_suffix(".lock"))
            except Problem as problem:
                what = f"Your changes can't be kept safe. {problem.what}"
                raise Problem(what, str(self.file.parent), "Save the class now, with Ctrl+S.") from problem
        about = ClassIdentity(str(path) if path else "", plan.brief.title, tried)
        if about != self._about:
            write_whole(self.file.with_suffix(".about"), msgspec.json.encode(about))
            self._about = about
        write_whole(self.file, plan_bytes(plan))

    def saved(self) -> None:
        """Nothing is left to keep: it is in the class file."""
        if self._about is not None:
            _forget(self.file)
            self._about = None
        self.close()

    def close(self) -> None:
        """Lets go of the lock; what was kept stays for next time."""
        if self._lock is not None:
            self._lock.close()
            self._lock = None


def unsaved_work() -> list[UnsavedWork]:
    """What was kept and not saved, and is not being worked on now, the latest first."""
    found: list[tuple[float, UnsavedWork]] = []
    for file in kept_classes().glob("*.yewhour"):
        if _in_use(file.with_suffix(".lock")):
            continue
        about = _identity(file)
        with contextlib.suppress(OSError):
            kept_s = os.stat(file).st_mtime
            found.append((kept_s, UnsavedWork(file, about, datetime.fromtimestamp(kept_s))))
    return [kept for _, kept in sorted(found, key=lambda one: one[0], reverse=True)]


def _identity(file: Path) -> ClassIdentity:
    """Whose work a kept file is; where that can't be read, it is somebody's."""
    return read_small(file.with_suffix(".about"), ClassIdentity, ClassIdentity("", file.stem))


def _in_use(lock: Path) -> bool:
    """Whether a program that is running holds a lock. Where none can be made, nobody does."""
    try:
        handle = locked(lock)
    except Problem:
        return False
    if handle is None:
        return True
    handle.close()
    return False


def sweep(now_s: float) -> None:
    """Takes away what programs that were killed left behind: parts, and locks that stand for nothing; and
    drafts that were tried and left as they were, after a week.

    now_s: seconds since the epoch; what is younger than an hour stays.
    """
    for kept in unsaved_work():
        if kept.about.tried and now_s - kept.when.timestamp() > TRIED_S:
            kept.forget()
    left = [*own_data().rglob(f".*{PART}"), *(own_data() / "open").glob("*.lock")]
    for end in ("*.lock", "*.about"):
        left += [file for file in kept_classes().glob(end) if not file.with_suffix(".yewhour").exists()]
    for file in left:
        with contextlib.suppress(OSError):
            old = now_s - file.stat().st_mtime > OLD_S
            if old and not (file.suffix == ".lock" and _in_use(file)):
                file.unlink()
