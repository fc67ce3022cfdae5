"""Writing a file so that it is there whole or not at all."""

import contextlib
import glob
import os
import shutil
import stat
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

from yewhour.core.problem import Problem

PART = ".part"  # what is being written; swept when a program was killed over it (see `sweep`)
OLD_S = 3600.0  # after which it is nobody's any more


def write_whole(path: Path, content: bytes) -> None:
    """Writes `content` beside `path` and puts it in place in one move; an older file stays until then.

    What is there and no regular file (a device, a pipe) is written into, never replaced. The move is on the
    disk when this returns. Raises Problem when the folder is missing or can't be written, the file is one
    that must not be changed, or the disk is full.
    """
    try:
        target = path.resolve()  # a link keeps pointing where it did
        there = target.stat() if target.exists() else None
        if there is not None and not stat.S_ISREG(there.st_mode):
            _write_into(target, there, content)
        else:
            _replace(target, there, content)
    except (OSError, RuntimeError) as error:  # a circle of links is a RuntimeError
        reason = getattr(error, "strerror", None) or "it is a link that points to itself"
        raise Problem(
            f"This can't be written: {str(reason).lower()}.",
            str(path),
            "Choose another place; what was there is as it was.",
        ) from error


@contextlib.contextmanager
def written_aside(path: Path) -> Iterator[Path]:
    """A file beside `path` to write into; it takes its place when that went well, as `write_whole` does it.

    What is there and no regular file is written into; what must not be changed is told before anything is
    written. Nothing is left behind when something is raised. Raises Problem.
    """
    target = path.resolve()
    there = target.stat() if target.exists() else None
    if there is not None and stat.S_ISDIR(there.st_mode):
        raise Problem("This is a folder, not a file.", str(target), "Give the name of a file in it.")
    regular = there is None or stat.S_ISREG(there.st_mode)
    if regular:
        _refuse_kept(target, there)
        _sweep_parts(target)
    handle, part = tempfile.mkstemp(
        prefix=f".{target.name[:80]}.", suffix=PART, dir=target.parent if regular else None
    )
    os.close(handle)
    try:
        yield Path(part)
        if not regular:
            with open(part, "rb") as source, target.open("wb") as into:
                shutil.copyfileobj(source, into)
            return
        with open(part, "rb+") as file:
            _made_alike(file.fileno(), target, there)
            os.fsync(file.fileno())
        os.replace(part, target)
        flush_folder(target.parent)
    finally:
        with contextlib.suppress(OSError):
            os.unlink(part)


def _refuse_kept(target: Path, there: os.stat_result | None) -> None:
    if there is not None and not there.st_mode & 0o222:
        raise Problem(
            "This file is marked as not to be changed.", str(target), "Save under another name, or allow it."
        )


def _write_into(target: Path, there: os.stat_result, content: bytes) -> None:
    if stat.S_ISDIR(there.st_mode):
        raise Problem("This is a folder, not a file.", str(target), "Give the name of a file in it.")
    with target.open("wb") as file:
        file.write(content)


def _replace(target: Path, there: os.stat_result | None, content: bytes) -> None:
    _refuse_kept(target, there)
    _sweep_parts(target)
    handle, part = tempfile.mkstemp(prefix=f".{target.name[:80]}.", suffix=PART, dir=target.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(content)
            file.flush()
            _made_alike(file.fileno(), target, there)
            os.fsync(file.fileno())
        os.replace(part, target)
    except BaseException:
        with contextlib.suppress(OSError):
            os.unlink(part)
        raise
    flush_folder(target.parent)


def _sweep_parts(target: Path) -> None:
    """Takes away what was being written for this file when a program was killed over it, long ago."""
    with contextlib.suppress(OSError):
        for part in target.parent.glob(f".{glob.escape(target.name[:80])}.*{PART}"):
            if time.time() - part.stat().st_mtime > OLD_S:
                part.unlink()


def _made_alike(handle: int, target: Path, there: os.stat_result | None) -> None:
    """Gives the new file the mode, the owner and the attributes of the one before, where that is allowed."""
    if there is None:
        umask = os.umask(0)
        os.umask(umask)
        os.fchmod(handle, 0o666 & ~umask)
        return
    with contextlib.suppress(OSError):
        if (there.st_uid, there.st_gid) != (os.geteuid(), os.getegid()):
            os.fchown(handle, there.st_uid, there.st_gid)
    os.fchmod(handle, there.st_mode & 0o7777)
    with contextlib.suppress(OSError):
        for name in os.listxattr(target):
            os.setxattr(handle, name, os.getxattr(target, name))


def flush_folder(folder: Path) -> None:
    """Makes sure that what was moved into a folder, or taken out of it, is on the disk."""
    with contextlib.suppress(OSError):  # not every kind of disk can
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def make_folder(folder: Path) -> None:
    """Makes a folder and those around it. Raises Problem when it can't be made."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Problem(
            f"This folder can't be made: {(error.strerror or str(error)).lower()}.",
            str(folder),
            "Nothing can be kept there until it can be written.",
        ) from error


MOST_BYTES = 64 * 1024 * 1024  # of a file that is read; a class of four hours has less than one hundredth


def read_all(path: Path) -> bytes:
    """The bytes of a file; raises Problem when it is missing, a folder, endless, or can't be read."""
    try:
        kind = path.stat()
        if stat.S_ISDIR(kind.st_mode):
            raise Problem("This is a folder, not a class.", str(path), "Open a .yewhour file in it.")
        if stat.S_ISFIFO(kind.st_mode) or stat.S_ISREG(kind.st_mode) or str(path) == "/dev/stdin":
            with path.open("rb") as file:
                content = file.read(MOST_BYTES + 1)
        else:
            raise Problem("This is a device, not a class.", str(path), "Open a .yewhour file.")
    except OSError as error:
        raise Problem(
            f"This can't be read: {(error.strerror or str(error)).lower()}.",
            str(path),
            "Check the name and the folder.",
        ) from error
    if len(content) > MOST_BYTES:
        raise Problem("This file is too large to be a class.", str(path), "Open a .yewhour file.")
    return content
