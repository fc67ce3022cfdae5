"""The figures of the take: the present one moves with the breath, the next one waits smaller."""

from itertools import pairwise

from yewhour.core.take.moment import moment
from yewhour.ui.kit.figure_view import moving_of, portrait_of


def moments(desk, movement, side=""):
    """The take's moments through a movement, a quarter of a second after another."""
    desk.press("to_take")
    page = desk.window.pages.take()
    take = page.runner.take
    one = next(
        s for s in take.segments
        if s.use.movement.id == movement and not s.use.setup_for and side in ("", s.side)
    )  # fmt: skip
    return page, [moment(take, one.start + 2.5 * step) for step in range(int((one.length - 5) / 2.5))], one


def test_it_goes_there_and_back_with_each_breath(desk):
    page, there, one = moments(desk, "bridge-roll")
    states = moving_of(one.use.movement, "both", one.use.start)
    seen = []
    for here in there:
        page.figure.show_moment(here)
        seen.append(states.index(page.figure.one))
    assert min(seen) <= 1
    assert max(seen) >= len(states) - 2
    half = len(states) / 2
    ups = sum(a < half <= b for a, b in pairwise(seen))
    assert one.amount - 1 <= ups <= one.amount + 1  # up once for each repetition


def test_the_side_is_that_which_is_said_and_mirrored_for_who_mirrors(desk):
    page, there, one = moments(desk, "low-lunge", "right")
    page.figure.show_moment(there[4])
    assert page.figure.side == "right"
    assert page.figure.one is portrait_of(one.use.movement, "right", one.use.start)
    page.figure.show_moment(there[4], mirror=True)
    assert page.figure.side == "right"
    assert page.figure.one is portrait_of(one.use.movement, "left", one.use.start)


def test_the_next_one_waits_and_on_the_way_it_is_the_large_one(desk):
    page, there, one = moments(desk, "low-lunge", "right")
    page.next_figure.show_moment(there[4])
    coming = there[4].coming
    assert page.next_figure.one is portrait_of(coming.use.movement, coming.side, coming.use.start)
    take = page.runner.take
    way = next(s for s in take.segments if s.use.setup_for and s.end == one.start)
    on_the_way = moment(take, way.start + 5)
    page.figure.show_moment(on_the_way)
    page.next_figure.show_moment(on_the_way)
    assert page.figure.one is portrait_of(one.use.movement, "right", one.use.start)
    assert page.next_figure.one is None
    page.figure.show_moment(None)
    assert page.figure.one is None
