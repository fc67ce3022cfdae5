"""Takes that were broken off: by the power, a kill, a window closed. They are offered at the next start."""

import contextlib
import os
from datetime import datetime
from pathlib import Path

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.take.marks import (
    Mark,
    MarkFile,
    mark_line,
    read_marks,
)
from yewhour.files.atomic_files import read_all
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.unsaved_work import locked
from yewhour.state.paths import kept_takes
from yewhour.state.takes.take_sounds import CLASS, MARKS

UNTIL, LOCK = "until", "lock"
RAN_ON_S = 1200.0  # after which nobody's camera is still on


class InterruptedTake(msgspec.Struct, frozen=True):
    """A take that was broken off: its folder, when it began, the class, its marks, how far it got, and when
    that was (seconds of the clock on the wall)."""

    folder: Path
    when: datetime
    plan: Plan
    read: MarkFile
    until_s: float
    left: float = 0.0

    def ago_s(self, wall: float) -> float:
        """Seconds since it broke off, by the clock on the wall; 0 where that is longer than a camera is left
        to run by itself."""
        gone_s = wall - self.left
        return gone_s if 0 < gone_s <= RAN_ON_S else 0.0


def interrupted_takes() -> list[InterruptedTake]:
    """The takes that were broken off, the latest first; none while a take is on."""
    handle = None
    if not kept_takes().is_dir():
        return []
    with contextlib.suppress(Problem):
        handle = locked(kept_takes() / LOCK)
    if handle is None:
        return []
    handle.close()
    found = []
    for folder in sorted(kept_takes().iterdir(), reverse=True):
        with contextlib.suppress(OSError, Problem, ValueError):
            if folder.is_dir() and (one := _broken(folder)) is not None:
                found.append(one)
    return found


def _broken(folder: Path) -> InterruptedTake | None:
    read = read_marks(read_all(folder / MARKS).split(b"\n"), str(folder / MARKS))
    if not read.marks or any(mark.do == "end" for mark in read.marks):
        return None
    until_s = read.marks[-1].at_s
    with contextlib.suppress(Problem, ValueError):
        until_s = max(until_s, float(read_all(folder / UNTIL)))
    when = datetime.strptime(folder.name, "%Y-%m-%d-%H%M%S-%f")
    left = max(path.stat().st_mtime for path in (folder / MARKS, folder / UNTIL) if path.exists())
    return InterruptedTake(folder, when, read_plan(folder / CLASS), read, until_s, left)


def leave(broken: InterruptedTake) -> None:
    """Ends a take that was broken off where it broke off: it is kept, and not offered again."""
    with contextlib.suppress(OSError, Problem), (broken.folder / MARKS).open("ab") as file:
        if not whole(broken.folder / MARKS):
            file.write(b"\n")
        file.write(mark_line(Mark(broken.until_s, "end")))
        file.flush()
        os.fsync(file.fileno())


def whole(path: Path) -> bool:
    """Whether the last mark of a file is whole."""
    content = read_all(path)
    return not content or content.endswith(b"\n")
