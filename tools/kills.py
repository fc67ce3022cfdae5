"""Saving that is killed: what is left of it at any moment, found by doing it."""

import contextlib
import os
import signal
import time
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from random import Random

from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.state.classes.class_file import read_plan, write_plan
from yewhour.state.classes.revisions import folder_for, keep_revision, revisions_of
from yewhour.state.classes.unsaved_work import WorkKeeper, sweep, unsaved_work

LONGEST_S = 0.03  # after which it is killed at the latest
FOREVER_S = 7200.0  # what lies longer than this was left behind


def in_another(work: Callable[[], None]) -> int:
    """Runs something in a process forked off; its number."""
    number = os.fork()
    if number == 0:
        with contextlib.suppress(BaseException):
            work()
        os._exit(0)
    return number


def saving(plan: Plan, path: Path) -> Callable[[], None]:
    """Saves, keeps and makes versions, one state after another, until it is killed."""

    def work() -> None:
        keeper = WorkKeeper()
        for number in range(10**6):
            state = with_brief(plan, title=f"State {number}")
            keeper.keep(state, path)
            write_plan(state, path)
            keep_revision(path, path.read_bytes(), datetime.now())

    return work


def kill_saves(plan: Plan, path: Path, times: int, dice: Random) -> list[str]:
    """Kills so many processes that save a class, at any moment; everything that was wrong afterwards.

    The teacher's folder is where XDG_DATA_HOME says; it, and the folder of `path`, are this test's own.
    """
    wrong: list[str] = []
    write_plan(plan, path)
    for number in range(times):
        child = in_another(saving(plan, path))
        time.sleep(dice.uniform(0, LONGEST_S))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        for what, read in (("the class", lambda: read_plan(path)), *_kept()):
            try:
                read()
            except Problem as problem:
                wrong.append(f"kill {number}: {what}: {problem}")
        for version in revisions_of(path):
            try:
                version.plan()
            except Problem as problem:
                wrong.append(f"kill {number}: version {version.number}: {problem}")
        if number % 20 == 19:
            for kept in unsaved_work():
                kept.forget()
            for part in path.parent.glob(".*.part"):  # as if it had lain there for long
                os.utime(part, (0, 0))
            write_plan(plan, path)
            sweep(time.time() + FOREVER_S)
            left = [*path.parent.glob(".*.part"), *folder_for(path).glob(".*.part")]
            if left:
                wrong.append(f"kill {number}: {len(left)} parts lie about")
    return wrong


def _kept() -> list[tuple[str, Callable[[], object]]]:
    return [(f"kept {kept.file.name}", kept.plan) for kept in unsaved_work()]
