"""A glimpse: a class as it was made last time, to be looked at while it is made anew.

The core with its tables takes longer to start than the window. A glimpse is shown until the class itself is
there and then forgotten, so that one that is out of date does no harm; one that can't be read is not there.
"""

import contextlib
import hashlib
from pathlib import Path

import msgspec

from yewhour import __version__
from yewhour.core.made import Lengths, Made
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.store.atomic import write_whole
from yewhour.store.classfile import read_plan
from yewhour.store.paths import own_data
from yewhour.store.words import load_words

MOST = 30  # classes


class Glimpse(msgspec.Struct, frozen=True):
    """A made class and its lengths."""

    made: Made
    lengths: Lengths


def _file(content: bytes) -> Path:
    """The file for a class file's content: another content, or another program, is another glimpse."""
    name = hashlib.sha1(content + __version__.encode(), usedforsecurity=False).hexdigest()[:20]
    return own_data() / "glimpses" / f"{name}.msgpack"


def glimpse_of(path: Path) -> Glimpse | None:
    """The glimpse of a class file as it is now, or None."""
    try:
        return msgspec.msgpack.decode(_file(path.read_bytes()).read_bytes(), type=Glimpse)
    except (OSError, msgspec.DecodeError):
        return None


def prepare(path: Path) -> None:
    """Makes the glimpse of a class file, so that it is there the first time. Raises Problem when it can't."""
    solved = solve(read_plan(path), load_words()[0])
    keep_glimpse(path, Glimpse(solved.make(), solved.lengths))


def keep_glimpse(path: Path, glimpse: Glimpse) -> None:
    """Keeps a glimpse of a class file as it is now, when it can be kept; the oldest go."""
    with contextlib.suppress(OSError, Problem):
        file, content = _file(path.read_bytes()), msgspec.msgpack.encode(glimpse)
        if file.exists() and file.read_bytes() == content:
            return
        file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(file, content)
        every = sorted(file.parent.glob("*.msgpack"), key=lambda one: one.stat().st_mtime)
        for old in every[:-MOST]:
            old.unlink()
