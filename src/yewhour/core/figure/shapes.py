"""Shapes that figures and what they rest on are drawn of: polygons, in shares of the body's height."""

from collections.abc import Iterator
from math import atan2, cos, pi, sin
from typing import Literal

import msgspec

from yewhour.core.figure.body import Point

# "edge": nothing is drawn of it; what was drawn before is cut away there, so that what crosses it stands out.
What = Literal["mat", "prop", "line", "far", "other", "middle", "near", "edge"]
ROUND = 7  # points on a round end


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
