"""Shapes that figures and what they rest on are drawn of: polygons, in shares of the body's height."""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import atan2, cos, pi, sin
from typing import Literal

import msgspec

from yewhour.core.figure.body import Point

# "ghost": where a movement began. "still": a near limb that does not work, where the other does. "edge":
# nothing is drawn of it; what was drawn before is cut away there, so that what crosses it stands out.
What = Literal[
    "ghost", "arrow", "mat", "prop", "line", "far", "other", "middle", "face", "still", "near", "edge"
]
ROUND = 7  # points on a round end
EDGE = 0.011  # left free around a limb that crosses something
THIN, BARB = 0.008, 0.038  # of an arrow


class LimbShape(msgspec.Struct, frozen=True):
    """A polygon: what it is of, and its corners."""

    what: What
    corners: tuple[Point, ...]


def tapered(start: Point, end: Point, thick: float, thin: float, smooth: int = ROUND) -> Iterator[Point]:
    """The corners of a twig from one point to another, round at both ends, in so many steps."""
    turned = atan2(end[1] - start[1], end[0] - start[0])
    for centre, radius, first in ((start, thick, turned + pi / 2), (end, thin, turned - pi / 2)):
        for step in range(smooth + 1):
            at = first + pi * step / smooth
            yield (centre[0] + radius * cos(at), centre[1] + radius * sin(at))


def box(x: float, bottom: float, wide: float, high: float) -> tuple[Point, ...]:
    """A box by its middle and its bottom."""
    left, right, top = x - wide / 2, x + wide / 2, bottom + high
    return ((left, bottom), (right, bottom), (right, top), (left, top))


def soft(x: float, wide: float, high: float) -> tuple[Point, ...]:
    """Something soft: a box with round ends."""
    radius = high / 2
    ends = (x - wide / 2 + radius, radius), (x + wide / 2 - radius, radius)
    return tuple(tapered(*ends, radius, radius))


def arrow(way: Sequence[Point], thin: float = THIN) -> Iterator[LimbShape]:
    """A thin arrow along a way."""
    for one, other in pairwise(way):
        yield LimbShape("arrow", tuple(tapered(one, other, thin, thin)))
    (x, y), (u, v) = way[-2], way[-1]
    turned = atan2(v - y, u - x)
    tip = (u + BARB * cos(turned), v + BARB * sin(turned))
    sides = [(u + 0.62 * BARB * cos(turned + way_round), v + 0.62 * BARB * sin(turned + way_round))
             for way_round in (pi / 2, -pi / 2)]  # fmt: skip
    yield LimbShape("arrow", (tip, sides[0], sides[1]))


def circled(middle: Point, wide: float, high: float, sign: int) -> Iterator[LimbShape]:
    """A round arrow about a point: three quarters of a circle; or flat, of a turn, before what turns."""
    begun, swept = (
        (0.15 * pi, 1.5 * pi * sign) if wide == high else (pi / 2 - sign * 0.42 * pi, -sign * 1.28 * pi)
    )
    turns = [begun + swept * step / 14 for step in range(15)]
    return arrow([(middle[0] + wide * cos(one), middle[1] + high * sin(one)) for one in turns])
