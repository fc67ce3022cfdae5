"""What a figure rests on, leans on and holds, drawn."""

from collections.abc import Iterator
from itertools import pairwise

from yewhour.core.figure.body import Figure, Point, Points, wall_of
from yewhour.core.figure.joints import RESTS_HIGH, ROUND, SEAT_LONG, SEAT_THICK
from yewhour.core.figure.shapes import LimbShape, box, circled, soft, tapered
from yewhour.core.props import PROPS

LEG = 0.012  # of a chair
BETWEEN = 0.06  # of a block between the knees


def props_of(figure: Figure, points: Points) -> Iterator[LimbShape]:
    """What a figure rests on."""
    sign = -1 if figure.flipped else 1
    placed: dict[str, list[Point]] = {}
    for rest in figure.rests:
        if rest.on:
            name = rest.part
            point = {"hand": "wrist", "farhand": "farwrist", "foot": "ankle", "farfoot": "farankle",
                     "shoulders": "neck", "belly": "back", "forearm": "wrist", "farforearm": "farwrist",
                     "shin": "ankle", "farshin": "farankle", "heel": "ankle", "farheel": "farankle",
                     "fingers": "hand", "farfingers": "farhand"}.get(name, name)  # fmt: skip
            placed.setdefault(rest.on, []).append(points[point])
    for prop, where in placed.items():
        xs = [x for x, _ in where]
        middle = sum(xs) / len(xs)
        if prop in ("chair", "chairback"):
            sat = any(rest.part == "seat" and rest.on == "chair" for rest in figure.rests)
            if figure.view == "front":
                yield from _chair_from_front(middle)
            else:
                yield from _chair(middle, sign if sat else -sign, prop == "chairback")
            continue
        if prop == "block" and len(where) > 1 and max(xs) - min(xs) > PROPS["block"].long:
            for x in xs:
                yield LimbShape("prop", box(x, 0.0, PROPS[prop].long, RESTS_HIGH[prop]))
            continue
        long = max(PROPS[prop].long, max(xs) - min(xs) + 0.1)
        yield LimbShape("prop", soft(middle, long, RESTS_HIGH[prop]) if prop != "block"
                    else box(middle, 0.0, long, RESTS_HIGH[prop]))  # fmt: skip


def _chair(x: float, sign: int, held: bool) -> Iterator[LimbShape]:
    """A chair seen from the side. held: its back is at x, not its seat."""
    top, back = RESTS_HIGH["chair"], RESTS_HIGH["chairback"]
    x = x + sign * SEAT_LONG / 2 if held else x
    behind, front = x - sign * SEAT_LONG / 2, x + sign * SEAT_LONG / 2
    yield LimbShape("prop", box(x, top - SEAT_THICK, SEAT_LONG, SEAT_THICK))
    for leg, height in ((behind, back), (front, top)):
        yield LimbShape("prop", box(leg, 0.0, 2 * LEG, height))


def _chair_from_front(x: float) -> Iterator[LimbShape]:
    """A chair whose back is behind who sits on it."""
    top, back, half = RESTS_HIGH["chair"], RESTS_HIGH["chairback"], SEAT_LONG / 2
    yield LimbShape("prop", box(x, top - SEAT_THICK, SEAT_LONG + 4 * LEG, SEAT_THICK))
    yield LimbShape("prop", box(x, back - 2 * SEAT_THICK, SEAT_LONG + 2 * LEG, 2 * SEAT_THICK))
    for leg in (x - half, x + half):
        yield LimbShape("prop", box(leg, 0.0, 2 * LEG, back))


def held_of(figure: Figure, points: Points) -> Iterator[LimbShape]:
    """What holds it, or is held: a wall, a strap, something between the knees."""
    for held in figure.held:
        if held.by == "wall":
            x, sign = wall_of(figure, held, points)
            top = max(1.05, max(y for _, y in points.values()) + 0.06)
            yield LimbShape("prop", box(x + sign * 0.012, 0.0, 0.024, top))
        elif held.by in ("block", "cushion"):  # between the knees
            x, y = (sum(points[name][axis] for name in held.points) / len(held.points) for axis in (0, 1))
            yield LimbShape("line", box(x, y - BETWEEN / 2, BETWEEN, BETWEEN))
        elif held.by in ROUND:
            flat = held.by == "turn"
            wide, high = (0.13, 0.034) if flat else (0.075, 0.075)
            for name in held.points:
                yield from circled(points[name], wide, high, -1 if figure.flipped else 1)
        elif held.by:
            for one, other in pairwise(held.points):
                yield LimbShape("line", tuple(tapered(points[one], points[other], 0.006, 0.006)))
