"""A take as it is kept: a folder with the class as it was, and its marks, each on the disk at once.

`marks.jsonl` has a mark a line, appended and flushed as it happens; `until` has the second up to which the
take is known to have run, overwritten in place. The lock is let go when the program ends, however it ends: a
folder without an `end` mark whose lock is free is a take that was broken off.
"""

import contextlib
import os
import shutil
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import IO

from yewhour.background.jobs import Fault, Job, Runner
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.take.marks import Mark, mark_line
from yewhour.files.atomic_files import flush_folder, make_folder, write_whole
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.classes.unsaved_work import locked
from yewhour.state.paths import kept_takes
from yewhour.state.takes.interrupted_takes import LOCK, UNTIL, whole
from yewhour.state.takes.take_sounds import CLASS, MARKS


class TakeFolder:
    """One take being kept. What can't be written is told once, kept in memory, and tried again with the next.

    on_problem: called with a Problem, from any thread.
    """

    def __init__(self, on_problem: Callable[[Problem], object]) -> None:
        self.on_problem = on_problem
        self.folder: Path | None = None
        self._lock: IO[bytes] | None = None
        self._marks: IO[bytes] | None = None
        self._until: IO[bytes] | None = None
        self._waiting: list[bytes] = []
        self._troubled = False
        self._disk = Runner(on_fault=self._told)

    def begin(self, plan: Plan, when: datetime) -> None:
        """Makes the folder of a new take. Raises Problem when another take is on, or it can't be kept."""
        make_folder(kept_takes())
        self._take_lock()
        folder = kept_takes() / when.strftime("%Y-%m-%d-%H%M%S-%f")
        make_folder(folder)
        write_whole(folder / CLASS, plan_bytes(plan))
        self._open(folder)
        flush_folder(folder.parent)

    def go_on(self, folder: Path) -> None:
        """Takes up a take that was broken off. Raises Problem when another take is on."""
        self._take_lock()
        self._open(folder)

    def _take_lock(self) -> None:
        self._lock = locked(kept_takes() / LOCK)
        if self._lock is None:
            raise Problem(
                "Another take is going on, in another window.", do="End that first: two at once would mix."
            )

    def _open(self, folder: Path) -> None:
        self.folder = folder
        try:
            self._marks = (folder / MARKS).open("ab", buffering=0)
            self._until = (folder / UNTIL).open("wb", buffering=0)
        except OSError as error:
            raise _cannot(error, folder) from error
        if not whole(folder / MARKS):
            self._waiting.append(b"\n")  # after a mark that was cut off

    def mark(self, mark: Mark) -> None:
        """Appends a mark: it outlives this program at once, and the machine a moment later."""
        self._waiting.append(mark_line(mark))
        self._write()

    def beat(self, at_s: float) -> None:
        """Notes that the take has run up to here."""
        if self._waiting:
            self._write()
        self._on_disk(lambda job: self._note(at_s))

    def close(self) -> None:
        """Waits until all is on the disk, and lets go."""
        self._write()
        self._disk.finish(timeout_s=60.0)
        for file in (self._marks, self._until, self._lock):
            if file is not None:
                with contextlib.suppress(OSError):
                    file.close()

    def discard(self) -> None:
        """Takes a take away that was never begun."""
        self.close()
        if self.folder is not None:
            shutil.rmtree(self.folder, ignore_errors=True)

    def _write(self) -> None:
        if self._marks is None:
            return
        try:
            while self._waiting:
                written = os.write(self._marks.fileno(), self._waiting[0])
                self._waiting[0] = self._waiting[0][written:]
                if not self._waiting[0]:
                    del self._waiting[0]
            self._troubled = False
        except OSError as error:
            self._trouble(error)
        marks = self._marks
        self._on_disk(lambda job: self._flush(marks))

    def _told(self, fault: Fault) -> None:
        self.on_problem(Problem(str(fault)))

    def _on_disk(self, work: Callable[[Job], None]) -> None:
        self._disk.run(
            "take", work, newest=False, doing="Keeping the take on the disk",
            lost="It goes on; what happens is kept in memory and written with the next mark.",
        )  # fmt: skip

    # --- on a thread: flushing to the disk may take longer than a frame ------------------------------------

    def _flush(self, file: IO[bytes]) -> None:
        try:
            os.fsync(file.fileno())
        except OSError as error:
            self._trouble(error)

    def _note(self, at_s: float) -> None:
        if self._until is None:
            return
        try:
            os.pwrite(self._until.fileno(), f"{at_s:12.1f}\n".encode(), 0)
            os.fdatasync(self._until.fileno())
        except OSError as error:
            self._trouble(error)

    def _trouble(self, error: OSError) -> None:
        if not self._troubled:
            self._troubled = True
            assert self.folder is not None
            self.on_problem(_cannot(error, self.folder))


def _cannot(error: OSError, folder: Path) -> Problem:
    reason = (error.strerror or str(error)).lower()
    return Problem(
        f"The take can't be kept on the disk: {reason}.",
        str(folder),
        "It goes on; what happens is kept in memory and written when there is room.",
    )
