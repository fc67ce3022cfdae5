"""What is cut of a recording that was looked back at: where the class begins, what gives, what never does."""

from random import Random

import pytest

from tests.conftest import shipped
from tests.films import AFTER_S, BEFORE_S, LONGER_S, PLAN
from tools.teachers import Spoken, Taught, captions, taught
from yewhour.core.export.chapters import chapters
from yewhour.core.film.class_in_film import class_in_film
from yewhour.core.film.cut_list import CLEAR_S, LEAD_S, LEFT_S, REST_GIVES, STILL_S, TAIL_S, cuts_of
from yewhour.core.lengths import seconds
from yewhour.core.pipeline import solve
from yewhour.core.review.actual_class import actual_class
from yewhour.core.review.review import look_back
from yewhour.core.transcript.captions import read_captions

TIMED = solve(PLAN, shipped()).make()
REST = next(one for one in TIMED.segments if one.use.movement.id == "final-rest" and not one.use.setup_for)
CHILD = next(one for one in TIMED.segments if one.use.movement.id == "child" and not one.use.setup_for)
RIGHT = next(one for one in TIMED.segments if one.side == "right" and not one.use.setup_for)


def filmed(longer, before_s=BEFORE_S, after_s=AFTER_S):
    """A recording of the class: what is cut of it, what was looked back at, and how long it is."""
    said = taught(TIMED, Random(4), longer)
    moved = [Spoken(one.line, one.start_s + before_s, one.end_s + before_s, one.text) for one in said.said]
    long_s = before_s + said.length_s + after_s
    hearing = read_captions(captions(Taught(tuple(moved), said.segments, long_s)))
    back = look_back(TIMED, None, hearing)
    return cuts_of(back, hearing, long_s), back, hearing


def of(cuts, why):
    return [one for one in cuts.cuts if one.why == why]


def test_it_begins_a_breath_before_the_first_word_and_ends_a_little_after_the_last_thing():
    cuts, back, hearing = filmed({})
    (before,), (after,) = of(cuts, "before"), of(cuts, "after")
    first_s = hearing.words[0].start_s
    assert first_s - LEAD_S - 0.3 <= before.end_s <= first_s
    assert 0 <= after.start_s - back.segments[-1].end_s <= TAIL_S + 0.01
    assert cuts.promised_s == 240.0
    assert cuts.film_s == pytest.approx(240.0, abs=0.5)


def test_a_camera_that_began_with_the_class_has_nothing_cut_before_it():
    cuts, _, _ = filmed({}, before_s=0.0, after_s=0.0)
    assert of(cuts, "before") == []
    assert cuts.film_s == pytest.approx(cuts.length_s, abs=2.5)


def test_what_took_longer_gives_that_from_its_quiet_and_keeps_four_seconds_of_each():
    cuts, back, hearing = filmed({CHILD.id: LONGER_S})
    still = of(cuts, "still")
    assert sum(one.end_s - one.start_s for one in still) == pytest.approx(LONGER_S, abs=4.5)
    child = next(one for one in back.segments if one.segment.id == CHILD.id)
    for one in still:
        assert child.start_s <= one.start_s < one.end_s <= child.end_s
        before = max((word.end_s for word in hearing.words if word.end_s <= one.start_s), default=0.0)
        after = min((word.start_s for word in hearing.words if word.start_s >= one.end_s), default=999.0)
        before, after = max(before, child.start_s), min(after, child.end_s)
        spoken = [word for word in hearing.words if before < word.start_s < after]
        assert spoken == []
        assert after - before >= STILL_S
        assert (after - before) - (one.end_s - one.start_s) >= LEFT_S - 1e-6
        assert one.start_s - before == pytest.approx(after - one.end_s, abs=0.01)  # from its middle


def test_what_comes_after_the_last_word_is_after_the_class_once_that_is_as_long_as_planned():
    cuts, _, _ = filmed({REST.id: LONGER_S})
    assert of(cuts, "still") == []
    assert cuts.film_s == pytest.approx(240.0, abs=0.5)


def test_a_rest_that_was_too_short_is_seen_slower_until_the_film_is_as_promised():
    cuts, back, hearing = filmed({REST.id: -25.0}, after_s=4.0)
    (slow,) = cuts.slower
    assert cuts.film_s == pytest.approx(240.0, abs=0.5)
    rest = next(one for one in back.segments if one.segment.id == REST.id)
    assert rest.start_s + CLEAR_S <= slow.start_s < slow.end_s <= cuts.length_s - CLEAR_S
    assert not [one for one in hearing.words if slow.start_s - 0.9 < one.end_s and one.start_s < slow.end_s]
    there = class_in_film(actual_class(back, True), back.cuts, cuts)
    assert seconds(there.length) == pytest.approx(cuts.film_s, abs=0.06)
    assert [cue.text for cue in there.cues] == [cue.text for cue in actual_class(back, True).cues]


def test_what_was_lain_after_the_last_word_stays_as_far_as_was_promised():
    cuts, _, _ = filmed({REST.id: -25.0}, after_s=60.0)
    assert cuts.slower == ()
    assert cuts.film_s == pytest.approx(240.0, abs=0.5)


def test_where_nothing_was_heard_nobody_knows_what_is_quiet():
    _, back, _ = filmed({REST.id: -25.0})
    assert cuts_of(back, None, back.length_s).slower == ()


def test_a_side_that_took_longer_never_gives_and_a_rest_gives_a_tenth_for_it_at_most():
    cuts, back, _ = filmed({RIGHT.id: 60.0})
    rest = next(one for one in back.segments if one.segment.id == REST.id)
    right = next(one for one in back.segments if one.segment.id == RIGHT.id)
    for one in cuts.cuts:
        assert one.end_s <= right.start_s or one.start_s >= right.end_s
    gone = [one.end_s - one.start_s for one in of(cuts, "rest") if rest.start_s <= one.start_s < rest.end_s]
    assert gone
    assert sum(gone) <= REST_GIVES * seconds(REST.length) + 0.6
    assert of(cuts, "still") == []
    assert cuts.film_s > 280.0  # it can't be as promised, and nothing is forced


def test_the_class_in_the_film_is_in_order_as_long_as_it_and_without_what_was_cut():
    cuts, back, _ = filmed({CHILD.id: LONGER_S})
    actual = actual_class(back, True)
    there = class_in_film(actual, back.cuts, cuts)
    assert seconds(there.length) == pytest.approx(cuts.film_s, abs=0.06)
    assert [one.id for one in there.segments] == [one.id for one in actual.segments]
    assert all(one.start <= one.end for one in there.segments)
    lengths = {one.id: one.end - one.start for one in actual.segments}
    for one in there.segments:
        cut = sum(
            max(0.0, min(gone.end_s, seconds(was.end)) - max(gone.start_s, seconds(was.start)))
            for was in actual.segments if was.id == one.id for gone in cuts.cuts
        )  # fmt: skip
        assert one.end - one.start == pytest.approx(lengths[one.id] - 10 * cut, abs=2)
        assert all(one.start <= span.start <= span.end <= one.end for span in one.spans)
    assert [cue.text for cue in there.cues] == [cue.text for cue in actual.cues]  # no line lay in a cut
    first = there.cues[0]
    assert 0 <= seconds(first.start) <= LEAD_S + 0.3
    assert chapters(there)[-1].end == there.length
    whole = cuts_of(back, None, cuts.length_s)
    assert whole.pieces  # nothing was heard: by the segments alone


def test_a_line_in_a_cut_is_not_in_the_film_and_what_comes_after_is_earlier_by_it():
    cuts, back, _ = filmed({})
    from yewhour.core.film.cut_changes import cut_out

    actual = actual_class(back, True)
    line = actual.cues[3]
    more = cut_out(cuts, seconds(line.start) - 0.2, seconds(line.end) + 0.2)
    there = class_in_film(actual, back.cuts, more)
    assert len(there.cues) == len(actual.cues) - 1
    assert line.text not in [cue.text for cue in there.cues]
    before = class_in_film(actual, back.cuts, cuts)
    by = cuts.film_s - more.film_s
    assert seconds(before.cues[-1].start) - seconds(there.cues[-1].start) == pytest.approx(by, abs=0.15)
    assert all(cue.end > cue.start for cue in there.cues)
