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
from yewhour.store.paths import own_data, prepared
from yewhour.store.words import load_words

MOST = 30  # classes


class Glimpse(msgspec.Struct, frozen=True):
    """A made class and its lengths."""

    made: Made
    lengths: Lengths


def own_glimpses() -> Path:
    """The folder of the glimpses of her classes."""
    return own_data() / "glimpses"


def _name(content: bytes) -> str:
    """The file for a class file's content: another content, or another program, is another glimpse."""
    name = hashlib.sha1(content + __version__.encode(), usedforsecurity=False).hexdigest()[:20]
    return f"{name}.msgpack"


def glimpse_of(path: Path) -> Glimpse | None:
    """The glimpse of a class file as it is now, or None."""
    for folder in (own_glimpses(), prepared()):
        with contextlib.suppress(OSError, msgspec.DecodeError):
            return msgspec.msgpack.decode((folder / _name(path.read_bytes())).read_bytes(), type=Glimpse)
    return None


def prepare(path: Path, folder: Path) -> None:
    """Makes the glimpse of a class file, so that it is there the first time. Raises Problem when it can't.

    It is made as for a teacher with no movements of her own, and put into `folder`.
    """
    solved = solve(read_plan(path), load_words(folder / "nothing")[0])
    _write(path, Glimpse(solved.make(), solved.lengths), folder)


def keep_glimpse(path: Path, glimpse: Glimpse) -> None:
    """Keeps a glimpse of a class file as it is now, when it can be kept; the oldest go."""
    _write(path, glimpse, own_glimpses())


def _write(path: Path, glimpse: Glimpse, folder: Path) -> None:
    with contextlib.suppress(OSError, Problem):
        file, content = folder / _name(path.read_bytes()), msgspec.msgpack.encode(glimpse)
        if file.exists() and file.read_bytes() == content:
            return
        file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(file, content)
        every = sorted(file.parent.glob("*.msgpack"), key=lambda one: one.stat().st_mtime)
        for old in every[:-MOST]:
            old.unlink()
