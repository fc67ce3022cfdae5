"""Takes that are over: what there is to look back at, of one class; each with a name, kept or thrown away."""

import contextlib
from collections.abc import Sequence
from datetime import datetime
from pathlib import Path

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import joined_ranges
from yewhour.core.take.marks import Mark
from yewhour.files.atomic_files import write_whole
from yewhour.files.small_files import read_small
from yewhour.state.classes.class_file import read_plan
from yewhour.state.paths import kept_takes
from yewhour.state.takes.learnt_seconds import leave_out, take_back
from yewhour.state.takes.replayed_take import marks_in
from yewhour.state.takes.take_sounds import CLASS, MARKS, has_sound

MOST = 12
ABOUT = "about.json"
WHOLE = 0.8  # of its class a take has to have, to be a keeper where she has not said


class TakeAbout(msgspec.Struct, frozen=True, omit_defaults=True):
    """What she says of a take: its name, and whether it is a keeper (None: she has not said)."""

    name: str = ""
    keeper: bool | None = None


class FinishedTake(msgspec.Struct, frozen=True):
    """A take that is over: its folder, when it began, the class, whether there is sound, how long its film
    is, and what she says of it. Only keepers teach; the others stay where they are."""

    folder: Path
    when: datetime
    plan: Plan
    sound: bool
    length_s: float
    name: str
    keeper: bool


def finished_takes(title: str) -> list[FinishedTake]:
    """The takes of a class by its title, keepers first, the latest of them first."""
    found: list[FinishedTake] = []
    if not kept_takes().is_dir():
        return found
    for folder in sorted(kept_takes().iterdir(), reverse=True):
        with contextlib.suppress(OSError, Problem, ValueError):
            if folder.is_dir() and len(found) < MOST and (one := _finished(folder, title)) is not None:
                found.append(one)
    return sorted(found, key=lambda one: not one.keeper)


def _finished(folder: Path, title: str) -> FinishedTake | None:
    plan = read_plan(folder / CLASS)
    marks = marks_in(folder / MARKS).marks
    if plan.brief.title != title or not any(mark.do == "end" for mark in marks):
        return None
    about, length_s = _about(folder), film_length_s(marks)
    whole = length_s >= WHOLE * marks[0].length_s
    keeper = whole if about.keeper is None else about.keeper
    when = datetime.strptime(folder.name, "%Y-%m-%d-%H%M%S-%f")
    return FinishedTake(folder, when, plan, has_sound(folder), length_s, about.name, keeper)


def film_length_s(marks: Sequence[Mark]) -> float:
    """Seconds from the start of a take to its end, without what was cut out or not recorded."""
    cuts = joined_ranges(mark.cut for mark in marks if isinstance(mark.cut, tuple))
    out_s = sum(end - start for start, end in cuts)
    paused_s: float | None = None
    stopped = False
    for mark in marks:
        if mark.do == "pause":
            paused_s, stopped = mark.at_s, mark.camera == "stopped"
        elif mark.do == "resume" and paused_s is not None:
            out_s += mark.at_s - paused_s if stopped or mark.camera == "stopped" else 0.0
            paused_s = None
    ended_s = next((mark.at_s for mark in reversed(marks) if mark.do == "end"), marks[-1].at_s)
    return max(0.0, ended_s - marks[0].at_s - out_s)


def _about(folder: Path) -> TakeAbout:
    return read_small(folder / ABOUT, TakeAbout, TakeAbout())


def name_take(folder: Path, name: str) -> None:
    """Gives a take a name, or takes it away with "". Raises Problem when it can't be written."""
    _write(folder, msgspec.structs.replace(_about(folder), name=name.strip()))


def keep_take(folder: Path, keeper: bool) -> None:
    """Makes a take a keeper, or throws it away: it stays where it is, and teaches nothing. Raises Problem."""
    _write(folder, msgspec.structs.replace(_about(folder), keeper=keeper))
    (take_back if keeper else leave_out)(str(folder))


def is_keeper(folder: Path) -> bool:
    """Whether a take that is over teaches."""
    with contextlib.suppress(OSError, Problem, ValueError):
        one = _finished(folder, read_plan(folder / CLASS).brief.title)
        return one is None or one.keeper
    return True


def _write(folder: Path, about: TakeAbout) -> None:
    write_whole(folder / ABOUT, msgspec.json.encode(about))
