import pytest
from hypothesis import given
from hypothesis import strategies as st

from yewhour.core.lengths import parse_length, show_length, shown_number
from yewhour.core.problem import Problem


@pytest.mark.parametrize(
    ("text", "seconds"),
    [
        ("24:00", 1440),
        ("1:05:00", 3900),
        ("90", 90),
        (" 0:30 ", 30),
        ("12:30.5", 750.5),
        ("90s", 90),
        ("90 s", 90),
    ],
)
def test_a_length_is_read(text, seconds):
    assert parse_length(text) == seconds


@pytest.mark.parametrize(
    "text", ["", "abc", "0", "-3", "0:00", "1:2:3:4", "1:60:00", "12:75", "24m", "nan", "9:00:00", "1:-5"]
)
def test_what_is_not_a_length_is_refused_with_advice(text):
    with pytest.raises(Problem) as refused:
        parse_length(text)
    assert refused.value.what
    assert refused.value.do


@given(st.integers(1, 4 * 3600))
def test_a_length_shown_is_the_length_read(seconds):
    assert parse_length(show_length(seconds)) == seconds


@pytest.mark.parametrize(
    ("value", "text"), [(4.0, "4"), (4.5, "4.5"), (-0.0, "0"), (1e-9, "0.000000001"), (1e6, "1000000")]
)
def test_a_number_is_written_as_anybody_writes_it(value, text):
    assert shown_number(value) == text


@pytest.mark.parametrize(
    ("length_s", "text"),
    [
        (59.96, "1:00"),
        (3599.0, "59:59"),
        (3599.96, "1:00:00"),
        (3600.0, "1:00:00"),
        (3660.0, "1:01:00"),
        (7200.0, "2:00:00"),
    ],
)
def test_an_hour_is_an_hour(length_s, text):
    assert show_length(length_s) == text
