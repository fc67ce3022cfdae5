"""The lines chosen for a stretch of time are the best set there is."""

from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, made_of
from yewhour.core.plan.nodes import Step
from yewhour.core.script.line_selection import LineRequest, SpacingRule, best_lines
from yewhour.core.script.placement import GAP, SpokenTrack


def track_of(busy):
    track = SpokenTrack()
    end = -100
    for start, length in sorted(busy):
        if start >= end:
            track.take(start, start + length)
            end = start + length
    return track


def finder(track):
    return lambda earliest, latest, length: track.nearest(earliest, latest, length, earliest)


def worth(wishes, said, budget, earliest):
    """What a choice is worth, or None when it can't be said."""
    free = spoken = 0
    total = 0.0
    for wish, number in zip(wishes, said, strict=True):
        if number < 0:
            continue
        length, value = wish.wordings[number]
        start = earliest(max(free, wish.earliest), min(wish.latest, wish.end_by - length), length)
        spoken += length
        if start is None or spoken > budget:
            return None
        free, total = start + length + GAP, total + value
    return total


WISH = st.builds(
    lambda low, room, lengths, rank: LineRequest(
        low, low + room, low + room, tuple((n, rank**2 * (1 - 0.1 * k)) for k, n in enumerate(lengths))
    ),
    st.integers(0, 60),
    st.integers(20, 120),
    st.lists(st.integers(5, 60), min_size=1, max_size=3).map(lambda n: sorted(n, reverse=True)),
    st.integers(30, 100),
)


@examples(75)
@given(
    st.lists(WISH, max_size=5),
    st.integers(0, 160),
    st.lists(st.tuples(st.integers(0, 150), st.integers(1, 30)), max_size=3),
)
def test_no_other_set_is_worth_more(wishes, budget, busy):
    earliest = finder(track_of(busy))
    best = worth(wishes, best_lines(wishes, SpacingRule(budget, GAP, 0), earliest), budget, earliest)
    choices = product(*[range(-1, len(wish.wordings)) for wish in wishes])
    others = [worth(wishes, said, budget, earliest) for said in choices]
    assert best is not None
    assert best == max(total for total in others if total is not None)


def test_one_line_that_explains_comes_before_two_that_keep_company():
    company, explains = (
        LineRequest(0, 200, 200, ((length, rank**2),)) for length, rank in ((30, 40), (50, 60))
    )
    earliest = finder(SpokenTrack())
    assert best_lines([company, explains, company], SpacingRule(70, GAP, 0), earliest) == (-1, 0, -1)
    assert best_lines([company, explains, company], SpacingRule(80, GAP, 0), earliest) != (-1, 0, -1)


def test_a_hundred_lines_in_one_posture_are_chosen_from_in_a_moment():
    lines = [f"Let breath number {n} come and go as it likes. | Breath {n}. | {n}." for n in range(100)]
    timed = made_of(Step(movement="child", amount=20, lines={"stay": lines}), target_s=300.0)
    assert len(timed.cues) > 5
    assert len(timed.dropped) > 50
