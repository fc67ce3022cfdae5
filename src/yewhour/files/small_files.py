"""Small files of hers, read: whatever is in them, the program goes on. What is damaged is set aside whole.

Every one of them is lost without harm, so a bad byte, a number too large, a list in the wrong place or
nesting without end costs that file alone; the damaged one lies beside it, and the log says so.
"""

import contextlib
from pathlib import Path
from typing import TypeVar

import msgspec

MOST_BYTES = 8 * 1024 * 1024
DAMAGED = ".damaged"
T = TypeVar("T")


def read_small(path: Path, kind: type[T], without: T) -> T:
    """What a small JSON file says; `without` where there is none, or it can't be read. Raises nothing.

    A damaged file is moved to a name of its own, where that can be done, so that the next one is whole.
    """
    try:
        if not path.is_file():
            return without
        with path.open("rb") as file:
            content = file.read(MOST_BYTES + 1)
    except OSError:
        return without
    try:
        if len(content) > MOST_BYTES:
            raise ValueError("it is too large")
        return msgspec.json.decode(content, type=kind)
    except (ValueError, RecursionError) as error:  # DecodeError and UnicodeDecodeError are ValueErrors
        import logging  # 8 ms that hardly any start needs

        logging.getLogger(__name__).warning("%s is damaged, and was set aside: %s", path.name, error)
        with contextlib.suppress(OSError):
            path.replace(path.with_name(path.name + DAMAGED))
        return without
