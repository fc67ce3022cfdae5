"""A take replayed from its marks; the same marks always give the same take."""

from collections.abc import Sequence

from yewhour.core.lengths import ticks
from yewhour.core.made import Made
from yewhour.core.pipeline import Solved
from yewhour.core.take.acts import marked
from yewhour.core.take.marks import Mark
from yewhour.core.take.take import Take, begin


def replay(solved: Solved, made: Made, marks: Sequence[Mark]) -> Take:
    """The take that marks in the order of time give. Without a `start` it begins at nought."""
    start = ticks(marks[0].at_s) if marks and marks[0].do == "start" else 0
    take = begin(solved, made, start)
    for mark in marks:
        take = marked(take, mark)
    return take
