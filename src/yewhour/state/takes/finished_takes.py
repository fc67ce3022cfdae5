"""Takes that are over: what there is to look back at, of one class."""

import contextlib
from datetime import datetime
from pathlib import Path

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.state.classes.class_file import read_plan
from yewhour.state.paths import kept_takes
from yewhour.state.takes.replayed_take import marks_in
from yewhour.state.takes.take_sounds import CLASS, MARKS, sounds_in

MOST = 12


class FinishedTake(msgspec.Struct, frozen=True):
    """A take that is over: its folder, when it began, the class, whether there is sound."""

    folder: Path
    when: datetime
    plan: Plan
    sound: bool


def finished_takes(title: str) -> list[FinishedTake]:
    """The takes of a class by its title, the latest first."""
    found: list[FinishedTake] = []
    if not kept_takes().is_dir():
        return found
    for folder in sorted(kept_takes().iterdir(), reverse=True):
        with contextlib.suppress(OSError, Problem, ValueError):
            if not folder.is_dir() or len(found) >= MOST:
                continue
            plan = read_plan(folder / CLASS)
            if plan.brief.title != title or not any(
                mark.do == "end" for mark in marks_in(folder / MARKS).marks
            ):
                continue
            when = datetime.strptime(folder.name, "%Y-%m-%d-%H%M%S-%f")
            found.append(FinishedTake(folder, when, plan, bool(sounds_in(folder))))
    return found
