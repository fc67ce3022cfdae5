import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import shipped
from yewhour.core.plan.position import position_graph
from yewhour.core.problem import Problem

POSITIONS = shipped().positions
place = st.sampled_from(POSITIONS.names)


@given(place, place, place)
def test_no_detour_is_quicker_than_the_way(a, b, c):
    assert POSITIONS.between(a, c) <= POSITIONS.between(a, b) + POSITIONS.between(b, c) + 1e-9
    assert POSITIONS.between(a, b) == POSITIONS.between(b, a)
    assert POSITIONS.between(a, a) == 0


def test_anywhere_costs_nothing():
    assert POSITIONS.between("", "standing") == 0


def test_a_position_that_cannot_be_reached_is_said():
    with pytest.raises(Problem, match="no way from"):
        position_graph({("a", "b"): 1, ("c", "d"): 1})
