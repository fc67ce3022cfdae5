"""Cuts changed by hand stay in order, out of every word, and what they do to the sides is said."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import made_of
from yewhour.core.film.class_in_film import class_in_film
from yewhour.core.film.cut_changes import (
    cut_out,
    outside_lines,
    pulled,
    put_back,
    told_length,
    told_sides,
)
from yewhour.core.film.cut_list import Cut, CutList, Slower
from yewhour.core.lengths import seconds
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.transcript.transcript import HeardWord, Transcript

CUTS = CutList(
    300.0, (Cut(0.0, 10.0, "before"), Cut(100.0, 120.0, "still"), Cut(290.0, 300.0, "after")), 260.0
)
HEARD = Transcript((), (HeardWord("step", 130.0, 130.6), HeardWord("back", 130.6, 131.4)), 300.0)


def spans(cuts):
    return [(one.start_s, one.end_s) for one in cuts.cuts]


def test_a_cut_is_put_back_and_the_film_is_longer_by_it():
    found = put_back(CUTS, 1)
    assert spans(found) == [(0.0, 10.0), (290.0, 300.0)]
    assert found.film_s - CUTS.film_s == 20.0


def test_an_edge_is_pulled_as_far_as_its_neighbours_and_over_itself_it_is_gone():
    assert spans(pulled(CUTS, 1, False, 140.0))[1] == (100.0, 140.0)
    assert spans(pulled(CUTS, 1, True, 4.0))[1] == (10.0, 120.0)
    assert spans(pulled(CUTS, 1, False, 999.0))[1] == (100.0, 290.0)
    assert spans(pulled(CUTS, 1, False, 99.0)) == [(0.0, 10.0), (290.0, 300.0)]
    assert spans(pulled(CUTS, 0, False, 12.0))[0] == (0.0, 12.0)
    assert pulled(CUTS, 0, False, 12.0).cuts[0].why == "before"


@pytest.mark.parametrize(
    ("at_s", "there_s"), [(130.2, 130.0), (130.5, 130.6), (131.3, 131.4), (132.0, 132.0)]
)
def test_no_word_is_cut_into(at_s, there_s):
    assert outside_lines(at_s, HEARD) == there_s
    assert spans(pulled(CUTS, 1, False, at_s, HEARD))[1] == (100.0, there_s)
    assert outside_lines(at_s, None) == at_s


def test_one_more_cut_takes_in_what_it_lies_over():
    found = cut_out(CUTS, 150.0, 160.0)
    assert (found.cuts[2].start_s, found.cuts[2].end_s, found.cuts[2].why) == (150.0, 160.0, "hers")
    assert spans(cut_out(CUTS, 119.0, 130.2, HEARD))[1] == (100.0, 130.0)
    assert cut_out(CUTS, 150.0, 150.2) is CUTS
    assert spans(cut_out(CUTS, 284.0, 295.0))[-1] == (284.0, 300.0)


@given(st.lists(st.tuples(st.floats(-20, 330), st.floats(-20, 330), st.booleans()), max_size=8))
def test_whatever_is_done_cuts_are_in_order_and_none_lies_over_another(acts):
    cuts = CUTS
    for first, second, whether in acts:
        if whether and cuts.cuts:
            cuts = pulled(cuts, int(abs(second)) % len(cuts.cuts), second > first, first)
        else:
            cuts = cut_out(cuts, first, second)
        at = 0.0
        for one in cuts.cuts:
            assert at <= one.start_s < one.end_s <= cuts.length_s
            at = one.end_s
        assert cuts.film_s == pytest.approx(300.0 - sum(one.end_s - one.start_s for one in cuts.cuts))


def test_the_length_is_told_beside_what_was_promised():
    assert told_length(CUTS) == "The film lasts 4:20, as promised."
    assert told_length(put_back(CUTS, 1)) == "The film lasts 4:40: 20 seconds longer than promised."
    assert told_length(cut_out(CUTS, 150, 160)).endswith("10 seconds shorter than promised.")


def test_a_side_that_loses_by_the_cuts_is_told():
    timed = made_of(Step(movement="child", amount=4), Pair(body=(Step(movement="low-lunge", amount=4),)))
    left = next(one for one in timed.segments if one.side == "left" and not one.use.setup_for)
    begin = seconds(left.start)
    none = CutList(timed.length_s, (), timed.length_s)
    assert told_sides(timed, class_in_film(timed, (), none)) == ""
    cut = cut_out(none, begin + 2, begin + 12)
    told = told_sides(timed, class_in_film(timed, (), cut))
    assert told == "The cuts make the left side 10 seconds shorter than the other."


def test_a_cut_from_the_very_beginning_or_to_the_very_end_says_so():
    none = CutList(300.0, (), 260.0)
    assert [one.why for one in cut_out(none, 0.0, 10.0).cuts] == ["before"]
    assert [one.why for one in cut_out(none, 290.0, 300.0).cuts] == ["after"]
    assert [one.why for one in cut_out(none, 0.1, 299.9).cuts] == ["hers"]
    backwards = cut_out(none, 160.0, 150.0)
    assert spans(backwards) == [(150.0, 160.0)]
    assert spans(cut_out(none, -50.0, 999.0)) == [(0.0, 300.0)]


def test_cuts_that_only_touch_become_one_and_others_stay():
    found = cut_out(CUTS, 120.0, 130.0)
    assert spans(found) == [(0.0, 10.0), (100.0, 130.0), (290.0, 300.0)]
    assert [one.why for one in found.cuts] == ["before", "hers", "after"]
    assert len(cut_out(CUTS, 121.0, 130.0).cuts) == 4


def test_half_a_second_of_the_promise_is_as_promised_and_half_a_second_of_a_cut_is_one():
    near = CutList(260.5, (), 260.0)
    assert told_length(near).endswith("as promised.")
    assert "longer" in told_length(CutList(260.6, (), 260.0))
    none = CutList(300.0, (), 0.0)
    assert len(cut_out(none, 10.0, 10.5).cuts) == 1
    assert cut_out(none, 10.0, 10.4) is none
    assert len(pulled(cut_out(none, 10.0, 20.0), 0, False, 10.5).cuts) == 1


def test_a_difference_of_sides_under_a_second_and_a_half_is_none():
    timed = made_of(Step(movement="child", amount=4), Pair(body=(Step(movement="low-lunge", amount=4),)))
    right = next(one for one in timed.segments if one.side == "right" and not one.use.setup_for)
    begin, none = seconds(right.start), CutList(timed.length_s, (), timed.length_s)
    small = class_in_film(timed, (), cut_out(none, begin + 2, begin + 3.4))
    assert told_sides(timed, small) == ""
    more = class_in_film(timed, (), cut_out(none, begin + 2, begin + 7))
    assert told_sides(timed, more) == "The cuts make the right side 5 seconds shorter than the other."


def test_what_is_slower_can_be_put_back_and_goes_where_something_is_cut():
    slower = (Slower(50.0, 60.0, 5.0), Slower(200.0, 220.0, 10.0))
    cuts = CutList(CUTS.length_s, CUTS.cuts, 275.0, slower)
    assert cuts.film_s == 275.0
    assert [one.start_s for one in cuts.changes] == [0.0, 100.0, 290.0, 50.0, 200.0]
    assert put_back(cuts, 3).slower == slower[1:]
    assert put_back(cuts, 1).slower == slower
    assert cut_out(cuts, 55.0, 70.0).slower == slower[1:]
    assert pulled(cuts, 1, False, 210.0).slower == slower[:1]
    assert pulled(cuts, 1, False, 200.0).slower == slower
