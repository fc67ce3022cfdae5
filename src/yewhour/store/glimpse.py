"""A glimpse: a class as it was made last time, to be looked at while it is made anew.

The core with its tables takes longer to start than the window. A glimpse is shown until the class itself is
there and then forgotten, so that one that is out of date does no harm; one that can't be read is not there.
"""

import contextlib
import gc
import hashlib
import subprocess
import sys
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
AHEAD_S = 0.6  # a class made ahead is waited for, once the window is on screen


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


class Ahead:
    """The glimpse of a class that has none, made in another process while the window is being built.

    Where it can't be made, or not soon, there is none, and the class is made as any other.
    """

    def __init__(self, path: Path) -> None:
        self._work: subprocess.Popen[bytes] | None = None
        if path.is_file() and glimpse_of(path) is None:
            with contextlib.suppress(OSError):
                self._work = subprocess.Popen(
                    [sys.executable, "-m", "yewhour.store.glimpse", str(path.resolve())],
                    stdin=subprocess.DEVNULL,
                    stdout=subprocess.DEVNULL,
                    stderr=subprocess.DEVNULL,
                )

    def wait(self, most_s: float = AHEAD_S) -> None:
        """Waits until it is there, at most so long; then it is given up."""
        if self._work is not None:
            with contextlib.suppress(subprocess.TimeoutExpired):
                self._work.wait(most_s)
            self._work.kill()
            self._work.wait()
            self._work = None


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
        file, content = folder / _name(path.read_bytes()), msgspec.msgpack.encode(glimpse)
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
