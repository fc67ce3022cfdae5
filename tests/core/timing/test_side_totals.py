"""What is told of the two sides is what they got, counted a second time."""

from collections import Counter

import pytest

from tests.conftest import demo_maker, made_of
from yewhour.content.paths import demo_classes
from yewhour.core.plan.nodes import Pair, SideDifference, Step
from yewhour.core.timing.side_totals import side_totals

REST = Step(movement="final-rest")


def counted(timed):
    """Seconds of each side, from the script alone."""
    found = Counter()
    for one in timed.segments:
        if (
            one.side in ("left", "right")
            and one.kind not in ("setup", "talk")
            and not one.use.movement.side_by
        ):
            found[one.side] += one.length
    return found["left"], found["right"]


@pytest.mark.parametrize("name", [path.stem for path in demo_classes()])
def test_the_totals_are_those_of_the_segments(name):
    timed = demo_maker(name).make()
    totals = side_totals(timed.segments)
    assert (totals.left, totals.right) == counted(timed)
    uneven = any(one.code == "uneven" for one in timed.findings)
    assert uneven == bool(totals.unmeant)
    assert ("equal" in totals.told()) == (totals.any and totals.equal)


def test_a_difference_is_told_as_meant_or_as_not():
    meant = Pair(body=(Step(movement="low-lunge", amount=4, second=SideDifference(more=2)),))
    told = side_totals(made_of(meant, REST, length_s=None).segments).told()
    assert told.endswith(", as you meant in Low lunge.")
    alone = side_totals(
        made_of(Step(movement="low-lunge", side="right"), REST, length_s=None).segments
    ).told()
    assert told != alone
    assert "Left 0:00" in alone
    assert alone.endswith(": Low lunge differs.")
    assert side_totals(made_of(Step(movement="child"), REST, length_s=None).segments).told() == ""
