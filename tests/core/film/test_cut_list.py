"""The cuts of a recording: in order, none twice, and what is kept as long as was promised if it can be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yewhour.core.film.cut_list import (
    LEFT_S,
    NEAR_S,
    SLOWEST,
    Cut,
    CutList,
    Slower,
    Stillness,
    between,
    cut_list,
    played,
)

seconds = st.floats(0, 3000, allow_nan=False).map(lambda one: round(one, 1))
ranges = st.lists(st.tuples(seconds, seconds).map(lambda two: (min(two), max(two))), max_size=5)


@given(seconds, seconds, seconds, ranges, ranges, seconds)
def test_pieces_are_in_order_whole_and_kept_once(length, begins, lasts, marked, quiet, promised):
    begins, ends = min(begins, length), min(length, begins + lasts)
    still = [
        Stillness(start, end, (end - start) / 2) for start, end in quiet if begins <= start and end <= ends
    ]
    found = cut_list(length, begins, ends, marked, still, promised, quiet=quiet)
    at = 0.0
    for start, end in found.pieces:
        assert at <= start < end <= length
        at = end
    slower_s = sum(one.by_s for one in found.slower)
    assert found.film_s == pytest.approx(sum(end - start for start, end in found.pieces) + slower_s)
    kept = found.film_s - slower_s + sum(end - start for start, end in found.ranges)
    assert kept == pytest.approx(length, abs=1e-6)
    if found.slower:
        assert found.film_s == pytest.approx(promised, abs=1e-6)
    for one in found.played:  # carried there and back
        for second in (one.start_s, (one.start_s + one.end_s) / 2):
            there = found.in_film(second)
            assert found.in_recording(there) == pytest.approx(second, abs=1e-6)
    assert sum(one.long_s for one in found.played) == pytest.approx(found.film_s)


def test_the_longest_stillness_gives_first_and_keeps_some_of_itself():
    still = [Stillness(100.0, 120.0, 20.0), Stillness(300.0, 360.0, 30.0)]
    found = cut_list(700.0, 20.0, 660.0, [], still, 615.0)
    assert [(one.start_s, one.end_s) for one in found.cuts if one.why == "still"] == [(317.5, 342.5)]
    assert found.film_s == 615.0
    more = cut_list(700.0, 20.0, 660.0, [], still, 590.0)
    assert [one.end_s - one.start_s for one in more.cuts if one.why == "still"] == [16.0, 30.0]
    assert LEFT_S == 20.0 - 16.0
    assert more.film_s == 594.0  # and what is not still is never cut


def test_what_she_cut_out_goes_and_nothing_is_cut_that_is_short_enough():
    found = cut_list(400.0, 10.0, 390.0, [(50.0, 80.0), (70.0, 90.0)], [Stillness(200.0, 260.0, 60.0)], 340.0)
    assert [(one.start_s, one.end_s, one.why) for one in found.cuts] == [
        (0.0, 10.0, "before"), (50.0, 90.0, "marked"), (390.0, 400.0, "after"),
    ]  # fmt: skip
    assert abs(found.film_s - 340.0) <= NEAR_S
    assert cut_list(400.0, 0.0, 400.0).pieces == [(0.0, 400.0)]


def test_what_a_rest_can_do_without_is_that_much_in_all_however_often_it_is_spoken_into():
    quiet = [
        Stillness(300.0, 380.0, 15.0, "rest", "rest"), Stillness(385.0, 470.0, 15.0, "rest", "rest"),
    ]  # fmt: skip
    found = cut_list(500.0, 0.0, 500.0, [], quiet, 460.0)
    gone = [(one.end_s - one.start_s, one.why) for one in found.cuts]
    assert gone == [(15.0, "rest")]


def test_what_lies_before_and_after_gives_last_and_only_what_is_needed():
    found = cut_list(260.0, 8.5, 252.0, [], [], 240.0, (1.5, 2.0))
    assert found.film_s == pytest.approx(240.0)
    assert [(one.start_s, one.end_s) for one in found.cuts] == [(0.0, 10.0), (250.0, 260.0)]
    longer = cut_list(260.0, 8.5, 252.0, [], [], 242.5, (1.5, 2.0))
    assert [(one.start_s, one.end_s) for one in longer.cuts] == [(0.0, 8.5), (251.0, 260.0)]


def test_pieces_that_move_to_key_frames_leave_cuts_with_their_reasons():
    cuts = CutList(
        100.0, (Cut(0.0, 5.0, "before"), Cut(40.0, 50.0, "still"), Cut(95.0, 100.0, "after")), 80.0
    )
    moved = list(between([(4.0, 42.0), (48.0, 96.0)], cuts))
    assert moved == [Cut(0.0, 4.0, "before"), Cut(42.0, 48.0, "still"), Cut(96.0, 100.0, "after")]
    assert list(between([(0.0, 100.0)], cuts)) == []
    assert list(between([(0.0, 20.0), (30.0, 100.0)], cuts)) == [Cut(20.0, 30.0, "hers")]


def test_what_is_less_than_half_a_second_is_not_cut_and_half_a_second_too_much_is_near():
    still = [Stillness(100.0, 140.0, 30.0)]
    assert [one.why for one in cut_list(200.0, 0.0, 200.0, [], still, 199.6).cuts] == []
    assert [one.why for one in cut_list(200.0, 0.0, 200.0, [], still, 199.4).cuts] == ["still"]
    over_marked = cut_list(200.0, 0.0, 200.0, [(110.0, 112.0)], still, 180.0)
    assert [one.why for one in over_marked.cuts] == ["marked"]  # a silence that is cut into already stays
    beside = cut_list(200.0, 0.0, 200.0, [(90.0, 100.0), (140.0, 150.0)], still, 170.0)
    assert [one.why for one in beside.cuts] == ["marked", "still", "marked"]


def test_a_film_that_is_too_short_gets_the_rest_from_the_longest_quiet_or_nothing():
    quiet = [(100.0, 110.0), (300.0, 340.0)]
    found = cut_list(400.0, 10.0, 390.0, [], [], 410.0, quiet=quiet)
    assert found.slower == (Slower(300.0, 340.0, 30.0),)
    assert found.film_s == 410.0
    both = cut_list(400.0, 10.0, 390.0, [], [], 425.0, quiet=quiet)
    assert both.slower == (Slower(100.0, 110.0, 5.0), Slower(300.0, 340.0, 40.0))
    assert all(one.slow <= SLOWEST for one in both.played)
    assert cut_list(400.0, 10.0, 390.0, [], [], 440.0, quiet=quiet).slower == ()  # 60 s there are not
    assert cut_list(400.0, 10.0, 390.0, [], [], 380.4, quiet=quiet).slower == ()  # it is near
    marked = cut_list(400.0, 10.0, 390.0, [(320.0, 330.0)], [], 375.0, quiet=quiet)
    assert marked.slower == (Slower(100.0, 110.0, 5.0),)  # what is cut into is no quiet


def test_what_is_slower_is_carried_over_in_its_share():
    cuts = CutList(100.0, (Cut(0.0, 10.0, "before"),), 100.0, (Slower(50.0, 60.0, 10.0),))
    assert cuts.film_s == 100.0
    there = [(10.0, 0.0), (50.0, 40.0), (55.0, 50.0), (60.0, 60.0), (90.0, 90.0)]
    assert [cuts.in_film(at_s) for at_s, _ in there] == [film_s for _, film_s in there]
    assert [cuts.in_recording(film_s) for _, film_s in there] == [at_s for at_s, _ in there]
    assert cuts.in_film(4.0) == 0.0  # what is cut lies at its cut
    assert [tuple(one) for one in played([(10.0, 55.0)], cuts.slower)] == [(10.0, 55.0, 45.0)]
