import pytest
from hypothesis import given
from hypothesis import strategies as st

from yewhour.core.pace import (
    Pace,
    breath_ticks,
    check_pace,
    parse_rhythm,
    phase_ticks,
    tapped_rate,
)
from yewhour.core.problem import Problem

share = st.floats(0.5, 9)
hold = st.floats(0, 9)


@given(st.floats(1, 60), st.tuples(share, hold, share, hold))
def test_the_phases_of_a_breath_sum_to_it_exactly(rate, ratio):
    pace = Pace(rate, ratio)
    assert sum(phase_ticks(pace)) == breath_ticks(pace)
    assert min(phase_ticks(pace)) >= 0


@pytest.mark.parametrize("pace", [Pace(0), Pace(200), Pace(8, (0, 0, 4, 0)), Pace(8, (4, -1, 4, 0))])
def test_a_pace_nobody_could_breathe_is_refused(pace):
    with pytest.raises(Problem):
        check_pace(pace)


def test_a_rhythm_is_read():
    assert parse_rhythm("effort 4 full 1 ease 4") == (("effort", 4), ("full", 1), ("ease", 4))
    with pytest.raises(Problem):
        parse_rhythm("exhale four")


def test_a_pace_is_taken_from_taps_whatever_one_of_them_missed():
    assert tapped_rate([0.0, 7.5, 15.0, 22.5, 30.0]) == 8.0
    assert tapped_rate([0.0, 7.4, 15.1, 30.2, 37.4, 45.0]) == 8.0
    for taps in ([], [0.0, 5.0, 10.0], [0.0, 0.1, 0.2, 0.3, 0.4]):
        with pytest.raises(Problem):
            tapped_rate(taps)
