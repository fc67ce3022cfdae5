"""A take replayed from its marks; the same marks always give the same take."""

from collections.abc import Sequence

from yewhour.core.lengths import ticks
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.take.apply_marks import apply_mark
from yewhour.core.take.marks import Mark
from yewhour.core.take.take import Take, begin
from yewhour.core.timed_class import TimedClass


def replay(solved: SolvedPlan, timed: TimedClass, marks: Sequence[Mark]) -> Take:
    """The take that marks in the order of time give. Without a `start` it begins at nought."""
    start = ticks(marks[0].at_s) if marks and marks[0].do == "start" else 0
    take = begin(solved, timed, start)
    for mark in marks:
        take = apply_mark(take, mark)
    return take
