"""What of a figure is drawn, and where: tapered twigs for limbs, a bud for the head, and what it rests on.

Everything is polygons in shares of the body's height, y up and the floor at 0, so that a window, a page and a
picture draw the same. The order is that of drawing: what is behind comes first.
"""

from collections.abc import Iterator, Sequence
from itertools import pairwise

import msgspec

from yewhour.core.figure.body import (
    Figure,
    Point,
    Points,
    along,
    apart,
    stance,
)
from yewhour.core.figure.drawn_props import held_of, props_of
from yewhour.core.figure.head import head_of
from yewhour.core.figure.joints import ABOVE, THICK
from yewhour.core.figure.letter import letter_place
from yewhour.core.figure.shapes import EDGE, LimbShape, What, box, tapered

EDGE_ROUND = 4  # points on the round end of an edge
LEAST_WIDE, LEAST_HIGH = 0.5, 0.72  # no figure is drawn larger than one of this size would be
LYING = 2.2  # times as wide as high
MAT, MAT_LONG = 0.40, 1.12  # wide and long
LIMBS: dict[str, tuple[str, ...]] = {
    "leg": ("hip", "knee", "ankle"),
    "arm": ("shoulder", "elbow", "wrist"),
}
# How thick each bone of a limb is, as shares of the height: where it begins, where its flesh is, where it
# ends; and how far along it that flesh is.
FLESH: dict[str, tuple[float, float, float, float]] = {
    "hip": (0.043, 0.039, 0.026, 0.36), "knee": (0.026, 0.026, 0.016, 0.30),
    "shoulder": (0.030, 0.025, 0.019, 0.45), "elbow": (0.019, 0.020, 0.013, 0.28),
}  # fmt: skip
# Hands and feet: points along them from the wrist or ankle to the tip, and how thick they are there.
PALM: tuple[tuple[float, float], ...] = ((0.0, 0.013), (0.42, 0.019), (0.72, 0.016), (1.0, 0.009))
SOLE: tuple[tuple[float, float], ...] = ((-0.16, 0.016), (0.18, 0.018), (0.72, 0.0125), (1.0, 0.009))
TOES: tuple[tuple[float, float], ...] = (
    (0.0, 0.017),
    (0.55, 0.021),
    (1.0, 0.016),
)  # a foot seen from its toes
# How thick the trunk is along its curve, from the seat to the neck: from the side; from the front or above.
SIDE_TRUNK = (0.047, 0.045, 0.038, 0.042, 0.048, 0.043, 0.031)
FLAT_TRUNK = (0.076, 0.070, 0.058, 0.063, 0.078, 0.088, 0.066)
CURVED = 10  # steps along it
EDGED_FROM = 0.45  # of a limb's first bone: before that it is one with the trunk
COVERS = 1.5  # of the head's size: as near as that a limb lies over it
FURTHER = 0.82  # of that, for the far limbs of a side view


class FigureDrawing(msgspec.Struct, frozen=True):
    """What is drawn of a figure, and the box it fills: left, bottom, right, top.

    mark: the tip of the limb that works, and where from there the letter of its side stands. breath: where
    the breath it goes with can be said.
    """

    shapes: tuple[LimbShape, ...]
    box: tuple[float, float, float, float]
    floor: bool
    mark: tuple[Point, Point] = ((0.0, 0.0), (0.0, 0.0))
    breath: Point | None = None


def drawing_of(figure: Figure) -> FigureDrawing:
    """The drawing of a figure."""
    points = stance(figure)
    shapes = tuple(drawn(figure, points))
    xs = [x for shape in shapes for x, _ in shape.corners]
    ys = [y for shape in shapes for _, y in shape.corners]
    floor = figure.view not in ABOVE
    box = (min(xs), min(0.0, min(ys)) if floor else min(ys), max(xs), max(ys))
    return FigureDrawing(shapes, box, floor, letter_place(figure, points))


def placed(drawing: FigureDrawing, box: tuple[float, float, float, float]) -> Iterator[LimbShape]:
    """The shapes of a drawing in a box of a page: left, top, wide and high, y down; its floor at the foot."""
    left, top, wide, high = box
    low, bottom, far, up = drawing.box
    size = min(wide / (far - low), high / (up - bottom))
    if far - low <= LYING * (up - bottom):  # who lies fills what there is
        size = min(size, wide / LEAST_WIDE, high / LEAST_HIGH)
    foot = top + high if drawing.floor else top + (high + (up - bottom) * size) / 2
    middle = left + wide / 2 - (low + far) / 2 * size
    for shape in drawing.shapes:
        corners = tuple((middle + x * size, foot - (y - bottom) * size) for x, y in shape.corners)
        yield LimbShape(shape.what, corners)


def drawn(figure: Figure, points: Points) -> Iterator[LimbShape]:
    """The shapes of a figure whose points are there, what is behind first."""
    if figure.view in ABOVE:
        yield _mat(points)
    yield from props_of(figure, points)
    if figure.view == "side":
        for limb in LIMBS:
            yield from _limb(points, limb, "far", "far", FURTHER)
        yield from _trunk(figure, points)
        yield from head_of(figure, points)
        for limb in LIMBS:
            yield from _limb(points, limb, "", _worn(figure, limb))
    else:  # seen from the front, what is bent comes towards who looks
        yield from _trunk(figure, points)
        yield from head_of(figure, points)
        for limb in LIMBS:
            yield from _limb(points, limb, "far", "other", flat=True)
            yield from _limb(points, limb, "", _worn(figure, limb), flat=True)
    yield from held_of(figure, points)


def _worn(figure: Figure, limb: str) -> What:
    """Whether a near limb wears the colour of its side: it does where it works."""
    return "near" if not figure.works or limb in figure.works else "still"


def _mat(points: Points) -> LimbShape:
    """The mat that somebody lies on who is seen from above."""
    xs = [x for x, _ in points.values()]
    return LimbShape(
        "mat", box((min(xs) + max(xs)) / 2, -MAT / 2, max(MAT_LONG, max(xs) - min(xs) + 0.12), MAT)
    )


def _limb(
    points: Points, limb: str, far: str, what: What, thick: float = 1.0, flat: bool = False
) -> Iterator[LimbShape]:
    first, *rest = (points[far + joint] for joint in LIMBS[limb])
    tip = points[far + ("toe" if limb == "leg" else "hand")]
    bones = [(first, rest[0], FLESH[LIMBS[limb][0]]), (rest[0], rest[1], FLESH[LIMBS[limb][1]])]
    end = TOES if limb == "leg" and flat else SOLE if limb == "leg" else PALM
    outline = [(along(rest[1], tip, at), thick * wide) for at, wide in end]
    if what != "far":
        yield from _edges(points, bones, outline, thick)
    for start, stop, (wide, flesh, thin, at) in bones:
        middle = along(start, stop, at)
        yield LimbShape(what, tuple(tapered(start, middle, thick * wide, thick * flesh)))
        yield LimbShape(what, tuple(tapered(middle, stop, thick * flesh, thick * thin)))
    yield LimbShape(what, tuple(tapered(rest[1], rest[1], thick * bones[1][2][2], thick * bones[1][2][2])))
    for (start, wide), (stop, thin) in pairwise(outline):
        yield LimbShape(what, tuple(tapered(start, stop, wide, thin)))


def _edges(
    points: Points,
    bones: Sequence[tuple[Point, Point, tuple[float, ...]]],
    outline: Sequence[tuple[Point, float]],
    thick: float,
) -> Iterator[LimbShape]:
    """What is left free around a limb: not where it is one with the trunk, nor over the head."""
    begun = along(bones[0][0], bones[0][1], EDGED_FROM)
    parts = [
        (begun, bones[0][1], bones[0][2][1], bones[0][2][2]),
        (bones[1][0], bones[1][1], bones[1][2][1], bones[1][2][2]),
        (outline[0][0], outline[-1][0], max(wide for _, wide in outline), outline[-1][1]),
    ]
    for start, stop, wide, thin in parts:
        if not _near_head(start, stop, points["head"]):  # there would be little left of it
            yield LimbShape(
                "edge", tuple(tapered(start, stop, thick * wide + EDGE, thick * thin + EDGE, EDGE_ROUND))
            )


def _near_head(start: Point, end: Point, head: Point) -> bool:
    """Whether a bone lies so near the head that it covers it."""
    return apart(start, end, head) < COVERS * THICK["head"]


def _trunk(figure: Figure, points: Points) -> Iterator[LimbShape]:
    seat, back, neck = points["seat"], points["back"], points["neck"]
    flat = figure.view != "side"
    yield LimbShape("middle", tuple(_curved(seat, back, neck, FLAT_TRUNK if flat else SIDE_TRUNK)))
    yield LimbShape("middle", tuple(tapered(seat, seat, 0.047, 0.047)))
    if flat:
        yield LimbShape("middle", tuple(tapered(points["farhip"], points["hip"], 0.040, 0.040)))
        yield LimbShape("middle", tuple(tapered(points["farshoulder"], points["shoulder"], 0.029, 0.029)))
    yield LimbShape("middle", tuple(tapered(neck, points["head"], 0.027, 0.021)))


def _curved(seat: Point, back: Point, neck: Point, thick: tuple[float, ...]) -> Iterator[Point]:
    """The outline of a trunk that bends without a corner: a curve through three points, as thick as told."""
    # A parabola that passes the middle point halfway.
    bow = tuple(2 * back[axis] - (seat[axis] + neck[axis]) / 2 for axis in (0, 1))
    ridge, furrow = [], []
    for step in range(CURVED + 1):
        t = step / CURVED
        at = tuple((1 - t) ** 2 * seat[n] + 2 * t * (1 - t) * bow[n] + t * t * neck[n] for n in (0, 1))
        slope = tuple(2 * (1 - t) * (bow[n] - seat[n]) + 2 * t * (neck[n] - bow[n]) for n in (0, 1))
        long = max(1e-6, (slope[0] ** 2 + slope[1] ** 2) ** 0.5)
        place = t * (len(thick) - 1)
        low = min(int(place), len(thick) - 2)
        radius = thick[low] + (thick[low + 1] - thick[low]) * (place - low)
        across = (-slope[1] / long * radius, slope[0] / long * radius)
        ridge.append((at[0] + across[0], at[1] + across[1]))
        furrow.append((at[0] - across[0], at[1] - across[1]))
    yield from (*furrow, *ridge[::-1])  # turned as a twig is: what overlaps is filled
