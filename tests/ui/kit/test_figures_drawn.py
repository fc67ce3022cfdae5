"""Figures in the window: drawn at any size in every theme, in the colours of their side, remembered."""

import numpy as np
import pytest
from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter

from tests.conftest import shipped
from yewhour.ui.kit.figure_view import (
    STATES,
    FigureStrip,
    colour_of,
    moving_of,
    paint_figure,
    pictures_of,
    portrait_of,
)
from yewhour.ui.kit.theme import (
    DARK,
    DIM,
    LIGHT,
    side_colour,
)


def painted(one, size, theme=LIGHT, side="both", letter=False):
    """A figure on its own, and the colours in it."""
    image = QImage(size, size, QImage.Format.Format_RGB32)
    image.fill(QColor(theme.paper))
    painter = QPainter(image)
    paint_figure(painter, QRectF(0, 0, size, size), one, theme, side, letter)
    painter.end()
    return image


def inked(image, colour):
    """How many pixels have a colour."""
    wanted = QColor(colour).rgb()
    return sum(image.pixel(x, y) == wanted for x in range(image.width()) for y in range(image.height()))


@pytest.mark.parametrize("theme", [LIGHT, DARK, DIM])
@pytest.mark.parametrize("size", [20, 90])
def test_every_figure_is_seen_at_any_size(qapp, theme, size):
    for name in list(shipped().library)[:: 40 if size > 20 else 25]:
        movement = shipped().library[name]
        one = portrait_of(movement, "right")
        if one is None:
            continue
        image = painted(one, size, theme, "both")
        assert inked(image, theme.paper) < size * size - 12, name


def test_near_limbs_wear_the_colour_of_their_side_and_the_other_side_looks_the_other_way(qapp):
    lunge = shipped().library["low-lunge"]
    right = painted(portrait_of(lunge, "right"), 120, LIGHT, "right")
    left = painted(portrait_of(lunge, "left"), 120, LIGHT, "left")
    assert inked(right, LIGHT.right) > 300
    assert inked(right, LIGHT.left) == 0
    assert inked(left, LIGHT.left) == pytest.approx(inked(right, LIGHT.right), rel=0.05)
    turned = left.flipped(Qt.Orientation.Horizontal)
    there = [
        (
            right.pixel(x, y) == side_colour(LIGHT, "right").rgb(),
            turned.pixel(x, y) == QColor(LIGHT.left).rgb(),
        )
        for x in range(0, 120, 3)
        for y in range(0, 120, 3)
    ]
    assert sum(a == b for a, b in there) > 0.97 * len(there)


def pieces(image, colour):
    """How many pieces of a colour stand apart from each other."""
    from scipy import ndimage  # a second to import, and every worker collects this file

    there = [
        [image.pixelColor(x, y) == QColor(colour) for x in range(image.width())]
        for y in range(image.height())
    ]
    return ndimage.label(there, np.ones((3, 3)))[1]


@pytest.mark.parametrize(
    "name", ["low-lunge", "side-leg-lift", "three-legged-dog", "tree", "half-lord-twist"]
)
def test_the_letter_of_a_side_stands_free_where_there_is_room(qapp, name):
    one = portrait_of(shipped().library[name], "right")
    for size, there in ((160, 1), (30, 0)):
        with_it, without = (
            pieces(painted(one, size, LIGHT, "right", letter), LIGHT.right) for letter in (True, False)
        )
        assert with_it - without == there


def test_only_what_works_wears_the_colour_of_the_side(qapp):
    leg = painted(portrait_of(shipped().library["side-leg-lift"], "right"), 160, LIGHT, "right")
    arm = painted(portrait_of(shipped().library["open-book"], "right"), 160, LIGHT, "right")
    both = painted(portrait_of(shipped().library["wild-thing"], "right"), 160, LIGHT, "right")
    still = colour_of("still", LIGHT, "right")
    assert min(inked(one, LIGHT.right) for one in (leg, arm, both)) > 100
    assert min(inked(leg, still), inked(arm, still)) > 100
    assert inked(both, still) == 0


def test_two_stages_in_one_place_are_one_drawing_with_an_arrow(qapp):
    lift = pictures_of(shipped().library["side-leg-lift"], "right")
    assert len(lift) == 1
    assert {"ghost", "arrow"} <= {what for what, _ in lift[0].parts}
    assert inked(painted(lift[0], 160), LIGHT.focus) > 20
    assert inked(painted(lift[0], 40), LIGHT.focus) == 0  # it would be a smear
    assert not {"ghost", "arrow"} & {
        what for what, _ in portrait_of(shipped().library["side-leg-lift"], "left").parts
    }
    assert len(pictures_of(shipped().library["rolling-ball"], "both")) == 2  # it lies elsewhere then


def test_the_breath_a_movement_goes_with_is_said_where_there_is_room(qapp):
    (bend,) = pictures_of(shipped().library["spine-stretch"], "both")
    assert bend.breath[0] == "out"
    (lean,) = pictures_of(shipped().library["lean-back"], "both")
    assert lean.breath[0] == "in"
    for size, there in ((200, True), (40, False)):
        with_it, without = (painted(one, size) for one in (bend, bend._replace(breath=None)))
        assert (with_it != without) is there
    (lift,) = pictures_of(shipped().library["side-leg-lift"], "right")
    assert lift.breath is None  # its breath is the school's


def test_what_moves_has_states_in_one_place_and_is_remembered(qapp):
    bridge = shipped().library["bridge-roll"]
    states = moving_of(bridge, "right")
    assert len(states) == STATES + 1
    assert len({(one.box.left(), one.box.bottom()) for one in states}) == 1
    assert moving_of(bridge, "right") is states
    assert len(moving_of(shipped().library["tree"], "left")) == 1
    assert pictures_of(shipped().library["welcome-short"], "both") == ()


def test_a_strip_shows_both_sides_of_what_is_done_on_both_and_is_no_window(qapp):
    strip = FigureStrip(LIGHT, 90)
    strip.show_movement(shipped().library["tree"], ["right", "left"])
    assert [side for _, side in strip.shown] == ["right", "left"]
    assert not strip.isVisible()
    strip.show_movement(shipped().library["sit-to-stand"], ["both"])
    assert len(strip.shown) == 3  # from where to where
    strip.show_several([shipped().library[one] for one in ("cow", "cat", "welcome-short")], "Three")
    assert len(strip.shown) == 2
    assert strip.accessibleName() == "Three"
    strip.resize(300, 90)
    assert inked(strip.grab().toImage(), LIGHT.bark) > 50
