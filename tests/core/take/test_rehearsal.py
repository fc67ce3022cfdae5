"""A rehearsal goes through what it says, in order, and through nothing twice."""

from itertools import pairwise

import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import DEMO
from yewhour.core.take.apply_marks import apply_mark_numbers
from yewhour.core.take.marks import Mark
from yewhour.core.take.rehearsal import (
    ONLY,
    beginnings,
    carried_along,
    stretches,
)
from yewhour.core.take.take import begin

DEMOS = sorted(path.stem for path in DEMO.glob("*.yewhour"))


def begun(name):
    return begin(demo_maker(name), demo_maker(name).make())


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("only", ONLY)
def test_stretches_are_in_order_and_within_the_class(name, only):
    take = begun(name)
    stumbled = [one.id for one in take.segments[3::7]]
    found = stretches(take, only, stumbled)
    assert all(one[1] < two[0] for one, two in pairwise(found))
    assert all(0 <= start < end <= take.end for start, end in found)
    if only == "all":
        assert found == [(0, take.end)]


def test_every_change_of_side_is_gone_through():
    take = begun("bell-ringers")
    found = stretches(take, "sides")
    switches = [one for one in take.segments if one.use.switch and one.use.setup_for]
    assert switches
    assert all(any(start <= one.start and one.end <= end for start, end in found) for one in switches)


def test_a_rehearsal_can_begin_with_every_movement_and_a_flow_with_its_first_round():
    take = begun("sunrise-on-the-quay")
    found = beginnings(take)
    assert found[0] == take.segments[0]
    assert not any(one.kind == "phase" and one.use.round > 1 for one in found)
    assert [one.start for one in found] == sorted({one.start for one in found})


def test_stretches_go_along_when_a_movement_becomes_longer():
    take = apply_mark_numbers(begun("bell-ringers"), Mark(0.0, "start"))
    found = stretches(take, "sides")
    hold = next(one for one in take.segments if one.kind == "hold" and one.start > 600)
    longer = apply_mark_numbers(take, Mark((hold.start + 10) / 10, "again"))
    moved = carried_along(found, take, longer)
    after = {one.id: one for one in longer.segments}
    for (start, _), (now, _) in zip(found, moved, strict=True):
        was = take.segments[take.index_at(start)]
        assert now - after[was.id].start == start - was.start
    assert moved != found
    assert carried_along([(0, take.end)], take, longer) == [(0, longer.end)]
