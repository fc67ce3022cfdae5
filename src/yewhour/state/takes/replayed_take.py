"""Takes on disk: marks read from a file, and a take replayed from them."""

import zlib
from pathlib import Path

import msgspec

from yewhour.core.lengths import seconds, show_length
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.take.marks import Mark, MarkFile, later, read_marks
from yewhour.core.take.replay import replay
from yewhour.core.take.take import Take
from yewhour.core.take.take_remedies import unmet_promises
from yewhour.core.take.take_values import take_json
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import read_all
from yewhour.state.classes.any_class import read_class
from yewhour.state.classes.class_file import plan_bytes


def key_of(plan: Plan) -> str:
    """What tells a class from any other, and from itself after a change."""
    content = plan_bytes(plan)
    return f"{zlib.crc32(content):08x}{zlib.adler32(content):08x}"


def marks_in(path: Path) -> MarkFile:
    """The marks of a file. Raises Problem for one that can't be read."""
    content = read_all(path)
    return read_marks(content.splitlines(), str(path))


def check_class(plan: Plan, marks: tuple[Mark, ...], where: str) -> list[str]:
    """What is to be said of marks that were made with another state of a class.

    Raises Problem for marks of another class.
    """
    start = marks[0] if marks and marks[0].do == "start" else None
    if start is None or not start.key or start.key == key_of(plan):
        return []
    if start.title and start.title != plan.brief.title:
        raise Problem(
            f"These marks are of another class: {start.title!r}.",
            where,
            f"Name that, not {plan.brief.title!r}.",
        )
    return [f"{where}: the class was changed after this take began; it is replayed as the class is now."]


class ReplayedTake(msgspec.Struct, frozen=True):
    """A take replayed, the class as it was planned, and what is to be said about its marks."""

    take: Take
    timed: TimedClass
    messages: tuple[str, ...]

    @property
    def json(self) -> bytes:
        """For other programs."""
        return take_json(self.take)

    @property
    def text(self) -> bytes:
        """To be read."""
        lines = [
            f"{show_length(seconds(one.start), True):>9}  {one.dose:>10}  "
            f"{'' if one.side == 'both' else one.side:11}  {one.name}"
            for one in self.take.segments
        ]
        for one in self.take.retimed:
            late = f"{abs(seconds(one.late)):g} s {'late' if one.late > 0 else 'early'}"
            changes = "; ".join(f"{c.name} {c.before} → {c.after} {c.unit}" for c in one.changes)
            lines.append(
                f"at {show_length(seconds(one.at), True)}, {late}: {changes or 'nothing could give'}"
            )
        for missed in unmet_promises(self.take):
            lines.append(missed.message)
            lines += [f"  {choice.title}: {show_length(choice.end_s, True)}" for choice in missed.choices]
        return ("\n".join(lines) + "\n").encode()


def replay_take(
    path: Path, marks: Path, length_s: float | None, teaching_data: TeachingData, from_s: float = 0.0
) -> ReplayedTake:
    """A take of a class replayed from its marks, at a length in seconds, or the one it was begun with.

    from_s: the second of a recording at which the clock of the marks was at nought.
    """
    plan = read_class(path, teaching_data)
    read = marks_in(marks)
    messages = [*read.messages, *check_class(plan, read.marks, str(marks))]
    solved = solve(plan, teaching_data)
    begun_s = read.marks[0].length_s if read.marks else 0.0
    timed = solved.make(length_s or begun_s or None)
    take = replay(solved, timed, later(read.marks, from_s))
    return ReplayedTake(take, timed, (*messages, *take.messages))
