"""A glimpse: a class as it was made last time, to be looked at while it is made anew.

The core with its tables takes longer to start than the window. A glimpse is shown until the class itself is
there and then forgotten, so that one that is out of date does no harm; one that can't be read is not there.
"""

import contextlib
import gc
import sys
from pathlib import Path

import msgspec

from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.core.timed_class import LengthRange, TimedClass
from yewhour.files.atomic_files import read_all, write_whole
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.preview_files import own_previews, preview_files, preview_name
from yewhour.state.paths import own_data
from yewhour.state.teaching_data import load_teaching_data

MOST = 30  # classes


class ClassPreview(msgspec.Struct, frozen=True):
    """A timed class and its lengths."""

    timed: TimedClass
    lengths: LengthRange


def preview_of(path: Path) -> ClassPreview | None:
    """The glimpse of a class file as it is now, or None."""
    with contextlib.suppress(Problem):
        for file in preview_files(path):
            with contextlib.suppress(Problem, msgspec.DecodeError):
                return msgspec.msgpack.decode(read_all(file), type=ClassPreview)
    return None


def make_preview(path: Path, folder: Path, own: Path | None = None) -> None:
    """Makes the glimpse of a class file, so that it is there the first time. Raises Problem when it can't.

    It is put into `folder`; own: where the movements of the teacher's own are, by default nowhere.
    """
    solved = solve(read_plan(path), load_teaching_data(own or folder / "nothing")[0])
    _write(path, ClassPreview(solved.make(), solved.lengths), folder)


def keep_preview(path: Path, glimpse: ClassPreview) -> None:
    """Keeps a glimpse of a class file as it is now, when it can be kept; the oldest go."""
    _write(path, glimpse, own_previews())


def _write(path: Path, glimpse: ClassPreview, folder: Path) -> None:
    with contextlib.suppress(OSError, Problem):
        file, content = folder / preview_name(read_all(path)), msgspec.msgpack.encode(glimpse)
        if file.exists() and read_all(file) == content:
            return
        file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(file, content)
        every = sorted(file.parent.glob("*.msgpack"), key=lambda one: one.stat().st_mtime)
        for old in every[:-MOST]:
            old.unlink()


if __name__ == "__main__":
    gc.disable()
    with contextlib.suppress(Problem, OSError):
        make_preview(Path(sys.argv[1]), own_previews(), own_data())
