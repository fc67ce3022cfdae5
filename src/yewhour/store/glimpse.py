"""A glimpse: a class as it was made last time, to be looked at while it is made anew.

The core with its tables takes longer to start than the window. A glimpse is shown until the class itself is
there and then forgotten, so that one that is out of date does no harm; one that can't be read is not there.
"""

import contextlib
import gc
import sys
from pathlib import Path

import msgspec

from yewhour.core.made import Lengths, Made
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.store.atomic import write_whole
from yewhour.store.classfile import read_plan
from yewhour.store.glimpse_file import glimpse_files, glimpse_name, own_glimpses
from yewhour.store.paths import own_data
from yewhour.store.words import load_words

MOST = 30  # classes


class Glimpse(msgspec.Struct, frozen=True):
    """A made class and its lengths."""

    made: Made
    lengths: Lengths


def glimpse_of(path: Path) -> Glimpse | None:
    """The glimpse of a class file as it is now, or None."""
    with contextlib.suppress(Problem):
        for file in glimpse_files(path):
            with contextlib.suppress(OSError, msgspec.DecodeError):
                return msgspec.msgpack.decode(file.read_bytes(), type=Glimpse)
    return None


def prepare(path: Path, folder: Path, own: Path | None = None) -> None:
    """Makes the glimpse of a class file, so that it is there the first time. Raises Problem when it can't.

    It is put into `folder`; own: where the movements of the teacher's own are, by default nowhere.
    """
    solved = solve(read_plan(path), load_words(own or folder / "nothing")[0])
    _write(path, Glimpse(solved.make(), solved.lengths), folder)


def keep_glimpse(path: Path, glimpse: Glimpse) -> None:
    """Keeps a glimpse of a class file as it is now, when it can be kept; the oldest go."""
    _write(path, glimpse, own_glimpses())


def _write(path: Path, glimpse: Glimpse, folder: Path) -> None:
    with contextlib.suppress(OSError, Problem):
        file, content = folder / glimpse_name(path.read_bytes()), msgspec.msgpack.encode(glimpse)
        if file.exists() and file.read_bytes() == content:
            return
        file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(file, content)
        every = sorted(file.parent.glob("*.msgpack"), key=lambda one: one.stat().st_mtime)
        for old in every[:-MOST]:
            old.unlink()


if __name__ == "__main__":
    gc.disable()
    with contextlib.suppress(Problem, OSError):
        prepare(Path(sys.argv[1]), own_glimpses(), own_data())
