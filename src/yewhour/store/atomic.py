"""Writing a file so that it is there whole or not at all."""

import contextlib
import os
import tempfile
from pathlib import Path

from yewhour.core.problem import Problem


def write_whole(path: Path, content: bytes) -> None:
    """Writes `content` beside `path` and puts it in place in one move; an older file stays until then.

    Raises Problem when the folder is missing or can't be written, or the disk is full.
    """
    if path.is_dir():
        raise Problem("This is a folder, not a file.", str(path), "Give the name of a file in it.")
    target = path.resolve()  # a link keeps pointing where it did
    made = ""
    try:
        handle, made = tempfile.mkstemp(prefix=f".{target.name[:80]}.", suffix=".part", dir=target.parent)
        with os.fdopen(handle, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        umask = os.umask(0)
        os.umask(umask)
        Path(made).chmod(target.stat().st_mode & 0o777 if target.exists() else 0o666 & ~umask)
        os.replace(made, target)
    except OSError as error:
        if made:
            with contextlib.suppress(OSError):
                os.unlink(made)
        raise Problem(
            f"This can't be written: {(error.strerror or str(error)).lower()}.",
            str(path),
            "Choose another place; what was there is as it was.",
        ) from error


def read_all(path: Path) -> bytes:
    """The bytes of a file; raises Problem when it is missing, a folder, or can't be read."""
    if path.is_dir():
        raise Problem("This is a folder, not a class.", str(path), "Open a .yewhour file in it.")
    try:
        return path.read_bytes()
    except OSError as error:
        raise Problem(
            f"This can't be read: {(error.strerror or str(error)).lower()}.",
            str(path),
            "Check the name and the folder.",
        ) from error
