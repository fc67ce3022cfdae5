"""What of a figure is drawn, and where: tapered twigs for limbs, a bud for the head, and what it rests on.

Everything is polygons in shares of the body's height, y up and the floor at 0, so that a window, a page and a
picture draw the same. The order is that of drawing: what is behind comes first.
"""

from collections.abc import Iterator
from itertools import pairwise
from math import atan2, cos, pi, sin

import msgspec

from yewhour.core.figure.body import (
    Figure,
    Point,
    Points,
    stance,
)
from yewhour.core.figure.drawn_props import held_of, props_of
from yewhour.core.figure.joints import ABOVE, THICK
from yewhour.core.figure.shapes import LimbShape, What, box, tapered

EDGE_ROUND, HEAD_ROUND = 4, 14  # points on a round end
LEAST_WIDE, LEAST_HIGH = 0.5, 0.72  # no figure is drawn larger than one of this size would be
MAT, MAT_LONG = 0.40, 1.12  # wide and long
LIMBS: tuple[tuple[str, ...], ...] = (("hip", "knee", "ankle", "toe"), ("shoulder", "elbow", "wrist", "hand"))
# What limbs taper to, as shares of the height: from where they begin to their tips.
TAPER = {"hip": 0.040, "knee": 0.028, "ankle": 0.018, "toe": 0.012, "shoulder": 0.029, "elbow": 0.020,
         "wrist": 0.014, "hand": 0.013}  # fmt: skip
# How thick the trunk is along its curve, from the seat to the neck: from the side; from the front or above.
SIDE_TRUNK = (0.047, 0.044, 0.037, 0.041, 0.046, 0.042, 0.032)
FLAT_TRUNK = (0.066, 0.060, 0.050, 0.056, 0.066, 0.066, 0.050)
CURVED = 10  # steps along it
EDGE = 0.011  # left free around a limb that crosses something
EDGED_FROM = 0.45  # of a limb's first bone: before that it is one with the trunk
COVERS = 1.5  # of the head's size: as near as that a limb lies over it
HEEL = 0.16  # of a foot, behind the ankle
NOSE, BUN = 0.014, 0.024


FURTHER = 0.82  # of that, for the far limbs of a side view


class FigureDrawing(msgspec.Struct, frozen=True):
    """What is drawn of a figure, and the box it fills: left, bottom, right, top."""

    shapes: tuple[LimbShape, ...]
    box: tuple[float, float, float, float]
    floor: bool


def drawing_of(figure: Figure) -> FigureDrawing:
    """The drawing of a figure."""
    points = stance(figure)
    shapes = tuple(_shapes(figure, points))
    xs = [x for shape in shapes for x, _ in shape.corners]
    ys = [y for shape in shapes for _, y in shape.corners]
    floor = figure.view not in ABOVE
    return FigureDrawing(shapes, (min(xs), min(0.0, min(ys)) if floor else min(ys), max(xs), max(ys)), floor)


def placed(drawing: FigureDrawing, box: tuple[float, float, float, float]) -> Iterator[LimbShape]:
    """The shapes of a drawing in a box of a page: left, top, wide and high, y down; its floor at the foot."""
    left, top, wide, high = box
    low, bottom, far, up = drawing.box
    size = min(wide / max(LEAST_WIDE, far - low), high / max(LEAST_HIGH, up - bottom))
    foot = top + high if drawing.floor else top + (high + (up - bottom) * size) / 2
    middle = left + wide / 2 - (low + far) / 2 * size
    for shape in drawing.shapes:
        corners = tuple((middle + x * size, foot - (y - bottom) * size) for x, y in shape.corners)
        yield LimbShape(shape.what, corners)


def _shapes(figure: Figure, points: Points) -> Iterator[LimbShape]:
    if figure.view in ABOVE:
        yield _mat(points)
    yield from props_of(figure, points)
    behind = figure.view == "side"
    yield from _limbs(points, "far", "far" if behind else "other", FURTHER if behind else 1.0, not behind)
    yield from _trunk(figure, points)
    yield from _head(figure, points)
    yield from _limbs(points, "", "near", flat=not behind)
    yield from held_of(figure, points)


def _mat(points: Points) -> LimbShape:
    """The mat that somebody lies on who is seen from above."""
    xs = [x for x, _ in points.values()]
    return LimbShape(
        "mat", box((min(xs) + max(xs)) / 2, -MAT / 2, max(MAT_LONG, max(xs) - min(xs) + 0.12), MAT)
    )


def _limbs(
    points: Points, far: str, what: What, thick: float = 1.0, flat: bool = True
) -> Iterator[LimbShape]:
    for limb in LIMBS:
        bones = [(points[far + one], points[far + other], thick * TAPER[one], thick * TAPER[other])
                 for one, other in pairwise(limb)]  # fmt: skip
        if what == "near":
            start, end, wide, thin = bones[0]
            begun = _share(start, end, EDGED_FROM)
            for bone in ((begun, end, wide, thin), *bones[1:]):
                if _near_head(bone[0], bone[1], points["head"]):
                    continue  # there would be little left of it
                edge = tapered(bone[0], bone[1], bone[2] + EDGE, bone[3] + EDGE, EDGE_ROUND)
                yield LimbShape("edge", tuple(edge))
        if limb[0] == "hip" and not flat:
            ankle, toe, wide, thin = bones[-1]
            bones[-1] = (_share(ankle, toe, -HEEL), toe, 0.9 * wide, thin)
            yield LimbShape(what, tuple(tapered(ankle, ankle, wide, wide)))
        for start, end, wide, thin in bones:
            yield LimbShape(what, tuple(tapered(start, end, wide, thin)))


def _near_head(start: Point, end: Point, head: Point) -> bool:
    """Whether a bone lies so near the head that it covers it."""
    along = (end[0] - start[0], end[1] - start[1])
    long = along[0] ** 2 + along[1] ** 2
    at = ((head[0] - start[0]) * along[0] + (head[1] - start[1]) * along[1]) / max(1e-9, long)
    nearest = _share(start, end, min(1.0, max(0.0, at)))
    return (nearest[0] - head[0]) ** 2 + (nearest[1] - head[1]) ** 2 < (COVERS * THICK["head"]) ** 2


def _share(start: Point, end: Point, share: float) -> Point:
    return (start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share)


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
        along = tuple(2 * (1 - t) * (bow[n] - seat[n]) + 2 * t * (neck[n] - bow[n]) for n in (0, 1))
        long = max(1e-6, (along[0] ** 2 + along[1] ** 2) ** 0.5)
        place = t * (len(thick) - 1)
        low = min(int(place), len(thick) - 2)
        radius = thick[low] + (thick[low + 1] - thick[low]) * (place - low)
        across = (-along[1] / long * radius, along[0] / long * radius)
        ridge.append((at[0] + across[0], at[1] + across[1]))
        furrow.append((at[0] - across[0], at[1] - across[1]))
    yield from (*furrow, *ridge[::-1])  # turned as a twig is: what overlaps is filled


def _head(figure: Figure, points: Points) -> Iterator[LimbShape]:
    """The head: where its nose is, one looks; where a bun is seen whole, the back of it is."""
    neck, head = points["neck"], points["head"]
    turned, radius = atan2(head[1] - neck[1], head[0] - neck[0]), THICK["head"]

    def at(degrees: float, far: float) -> Point:
        angle = turned + degrees * pi / 180
        return (head[0] + far * radius * cos(angle), head[1] + far * radius * sin(angle))

    yield LimbShape(
        "middle", tuple(tapered(at(0, 0.12), at(180, 0.1), radius * 0.96, radius * 0.9, HEAD_ROUND))
    )
    front = 1 if figure.flipped else -1
    if figure.view == "side":
        yield LimbShape(
            "middle", tuple(tapered(at(front * 96, 0.8), at(front * 101, 1.24), 1.4 * NOSE, 0.3 * NOSE))
        )
        yield LimbShape("middle", tuple(tapered(at(-front * 62, 1.12), at(-front * 62, 1.16), BUN, BUN)))
    elif figure.view == "above":  # the face is up
        yield LimbShape("middle", tuple(tapered(at(0, 1.16), at(0, 1.2), BUN, BUN)))
        yield LimbShape("edge", tuple(tapered(at(180, 0.12), at(0, 0.2), 0.6 * NOSE, 0.4 * NOSE)))
    else:  # the back of the head
        yield LimbShape("edge", tuple(tapered(at(0, 0.8), at(0, 0.84), BUN + 0.6 * EDGE, BUN + 0.6 * EDGE)))
        yield LimbShape("middle", tuple(tapered(at(0, 0.8), at(0, 0.84), BUN, BUN)))
