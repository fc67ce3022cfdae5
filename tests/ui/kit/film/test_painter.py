"""What is painted over a film: each part in its place, readable on any ground, painted when it changes."""

import numpy as np
import pytest

from tests import films
from yewhour.core.film.on_screen import PARTS
from yewhour.core.lengths import seconds
from yewhour.ui.kit.film.painter import FilmPainter, paper
from yewhour.voice.film.laid_over import flattened

WIDE, HIGH = 640, 360


@pytest.fixture(scope="module")
def lunges():
    return films.lunges()


def painted(timed, at_s, parts, **more):
    return flattened(FilmPainter(timed, WIDE, HIGH, parts, **more)(at_s), WIDE, HIGH)


def second_of(timed, side):
    one = next(one for one in timed.segments if one.side == side and not one.use.setup_for)
    return seconds(one.start) + 1.0


def test_a_side_is_told_on_its_own_edge(qtbot, lunges):
    right, left = (painted(lunges, second_of(lunges, side), ["side"]) for side in ("right", "left"))
    assert right[:, WIDE // 2 :, 3].any()
    assert not right[:, : WIDE // 2, 3].any()
    assert left[:, : WIDE // 2, 3].any()
    assert not left[:, WIDE // 2 :, 3].any()
    assert tuple(right[60, -2, :3]) != tuple(left[60, 2, :3])


@pytest.mark.parametrize("part", sorted(PARTS))
def test_each_part_is_painted_at_some_time_inside_the_picture_and_alone_if_asked(qtbot, lunges, part):
    for alone in (False, True):
        painter = FilmPainter(lunges, WIDE, HIGH, [part], alone=alone)
        laid = [one for at in range(0, int(lunges.length_s)) for one in painter(at)]
        assert laid
        for one in laid:
            assert one.x >= 0
            assert one.y >= 0
            assert one.x + one.pixels.shape[1] <= WIDE
            assert one.y + one.pixels.shape[0] <= HIGH


def test_words_stand_out_on_light_and_on_dark(qtbot, lunges):
    """Beneath its words a plate covers whatever is there, so that ink keeps its contrast."""
    laid = painted(lunges, second_of(lunges, "right"), ["name"]).astype(float)
    for ground in (0, 255):
        share = laid[:, :, 3:] / 255
        seen = (laid[:, :, :3] * share + ground * (1 - share))[laid[:, :, 3] > 200].mean(axis=-1)
        light, dark = np.percentile(seen, 90), seen.min()
        assert _contrast(light, dark) > 4.5


def _contrast(light: float, dark: float) -> float:
    def linear(value: float) -> float:
        return ((value / 255 + 0.055) / 1.055) ** 2.4

    return (linear(light) + 0.05) / (linear(dark) + 0.05)


def test_what_stands_is_given_again_and_not_painted_again(qtbot, lunges):
    painter = FilmPainter(lunges, WIDE, HIGH, ["name", "side"])
    at = second_of(lunges, "right")
    first, second = painter(at), painter(at + 0.1)
    assert first
    assert all(one is other for one, other in zip(first, second, strict=True))
    moving = FilmPainter(lunges, WIDE, HIGH, ["breath"])
    assert moving(at)[0] is not moving(at + 1.0)[0]


def test_the_paper_is_the_whole_picture(qtbot, lunges):
    whole = paper(FilmPainter(lunges, WIDE, HIGH, []))
    assert whole.pixels.shape == (HIGH, WIDE, 4)
    assert (whole.pixels[:, :, 3] == 255).all()


def test_on_a_telephone_held_upright_everything_is_inside(qtbot, lunges):
    painter = FilmPainter(lunges, 360, 640, sorted(PARTS))
    for at in range(0, int(lunges.length_s), 3):
        assert flattened(painter(at), 360, 640).shape == (640, 360, 4)
        assert all(one.x + one.pixels.shape[1] <= 360 for one in painter(at))


def test_the_dark_covers_all_of_it_and_on_paper_it_is_paper(qtbot, lunges):
    first = painted(lunges, 0.0, ["title", "fade"])
    assert (first[:, :, 3] == 255).all()
    assert not first[:, :, :3].any()
    half = painted(lunges, 0.4, ["fade"])
    assert 100 < half[:, :, 3].mean() < 160
    assert not painted(lunges, 10.0, ["fade"]).any()
    drawn = painted(lunges, 0.0, ["fade"], alone=True)
    assert drawn[:, :, :3].min() > 200


def test_thanks_stand_at_the_end_and_cover_the_rest_only_where_they_are_wanted(qtbot, lunges):
    last_s = lunges.length_s - 2.0
    assert FilmPainter(lunges, WIDE, HIGH, ["end"])(last_s)
    assert not FilmPainter(lunges, WIDE, HIGH, ["end"])(lunges.length_s - 8.0)
    both = FilmPainter(lunges, WIDE, HIGH, ["end", "name", "left", "figure"], alone=True)(last_s)
    assert len(both) == 1
    assert FilmPainter(lunges, WIDE, HIGH, ["left", "figure"], alone=True)(last_s)
    early = FilmPainter(lunges, WIDE, HIGH, ["name", "title"], alone=True)
    assert len(early(1.0)) == 1
