"""The head: it shows where one looks, and which way is up."""

from collections.abc import Iterator
from math import atan2, cos, pi, sin

from yewhour.core.figure.body import Figure, Point, Points
from yewhour.core.figure.joints import THICK
from yewhour.core.figure.shapes import EDGE, LimbShape, tapered

HEAD_ROUND = 14  # points on a round end
BUN = 0.025
# The face in the head, in its radii: where it is towards where one looks and towards the chin, and how large.
FACE_SIDE, FACE_FRONT = (0.40, -0.10, 0.62), (0.0, -0.20, 0.68)
NOSE = 0.30  # of the radius


def head_of(figure: Figure, points: Points) -> Iterator[LimbShape]:
    """The head: a face where one looks, a knot of hair at the back of the crown."""
    neck, head = points["neck"], points["head"]
    turned, radius = atan2(head[1] - neck[1], head[0] - neck[0]), THICK["head"]

    def at(forward: float, up: float) -> Point:
        """A point of the head, in its radii: towards where it looks, and towards the crown."""
        front = turned + (pi / 2 if figure.flipped else -pi / 2)
        return (head[0] + radius * (forward * cos(front) + up * cos(turned)),
                head[1] + radius * (forward * sin(front) + up * sin(turned)))  # fmt: skip

    def disc(place: Point, size: float) -> tuple[Point, ...]:
        return tuple(tapered(place, place, size, size, HEAD_ROUND))

    side, hidden = figure.view == "side", looks_away(figure)
    knot = at(-0.72, 0.86) if side else at(0.0, 0.62 if hidden else 1.08)
    if hidden:
        yield LimbShape(
            "middle", tuple(tapered(at(0, -0.1), at(0, 0.1), radius * 0.9, radius * 0.96, HEAD_ROUND))
        )
        yield LimbShape("edge", disc(knot, BUN + 0.6 * EDGE))
    else:
        yield LimbShape("middle", disc(knot, BUN))
        yield LimbShape(
            "middle", tuple(tapered(at(0, -0.1), at(0, 0.1), radius * 0.9, radius * 0.96, HEAD_ROUND))
        )
    if hidden:
        yield LimbShape("middle", disc(knot, BUN))
        return
    forward, up, size = FACE_SIDE if side else FACE_FRONT
    yield LimbShape(
        "face",
        tuple(
            tapered(
                at(forward, up - 0.12),
                at(forward, up + 0.1),
                radius * (size - 0.1),
                radius * size,
                HEAD_ROUND,
            )
        ),
    )
    if side:
        yield LimbShape("face", tuple(tapered(at(0.86, 0.02), at(1.2, -0.16), 0.2 * radius, 0.09 * radius)))


def looks_away(figure: Figure) -> bool:
    """Whether the back of the head is seen: of who lies on the front, or hangs from the hips."""
    if figure.view == "facedown":
        return True
    return figure.view == "front" and sin(figure.angle("trunk") * pi / 180) < -0.3
