"""Where a body is in a movement, which the figure in the take follows."""

import pytest

from tests.conftest import made_of
from yewhour.core.plan.nodes import Step
from yewhour.core.take.moment import class_moment, gone_there


def work_of(timed, movement):
    """The segment in which a movement is done, after the way into it."""
    return next(one for one in timed.segments if one.use.step.movement == movement and one.spans)


CURLS = made_of(Step(movement="chest-lift", amount=4), style="mat-modern")
SEGMENT = work_of(CURLS, "chest-lift")
WORK = [span for span in SEGMENT.spans if span.beat not in ("full", "empty")]


def gone(at):
    return gone_there(class_moment(CURLS, at), SEGMENT)


@pytest.mark.parametrize("share", [0.0, 0.25, 0.75])
def test_one_goes_there_on_the_first_beat_and_back_on_the_next_softly(share):
    there, back = WORK[0], WORK[1]
    eased = share * share * (3 - 2 * share)
    assert gone(there.start + share * (there.end - there.start)) == pytest.approx(eased)
    assert gone(back.start + share * (back.end - back.start)) == pytest.approx(1 - eased)


def test_who_is_not_working_has_gone_nowhere():
    assert gone(SEGMENT.end + 1) == 0.0
    rest = made_of(Step(movement="final-rest", amount=60))
    lying = rest.segments[-1]
    assert gone_there(class_moment(rest, lying.start), lying) in (0.0, pytest.approx(0.0))


def test_a_held_breath_holds_the_body_where_it_is():
    timed = made_of(Step(movement="box-breath", amount=3), style="breathing")
    segment = work_of(timed, "box-breath")
    full = next(span for span in segment.spans if span.beat == "full")
    empty = next(span for span in segment.spans if span.beat == "empty")
    assert gone_there(class_moment(timed, (full.start + full.end) / 2), segment) == 1.0
    assert gone_there(class_moment(timed, (empty.start + empty.end) / 2), segment) == 0.0
