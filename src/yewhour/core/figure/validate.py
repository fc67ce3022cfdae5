"""Whether a figure is a body that could stand so: its joints bend that far, nothing floats, nothing falls."""

from collections.abc import Iterator
from math import dist

from yewhour.core.figure.body import Figure, Points, along, stance, unbalanced, wall_of
from yewhour.core.figure.joints import (
    ABOVE,
    ANGLES,
    POINTS_UP,
    RESTS_HIGH,
    SEAT_LONG,
    SEAT_THICK,
    THICK,
    limits_of,
    points_down,
)

# Of the height: beside what it rests on or touches; below the floor; beside what carries it.
OFF, SUNK, TIPPED = 0.03, 0.03, 0.05
LOWER = (("knee", "ankle"), ("farknee", "farankle"), ("elbow", "hand"), ("farelbow", "farhand"))
EXACT = 0.4  # of that, for the figures that ship: to half a pixel, drawn a hand wide


def figure_faults(figure: Figure, exact: bool = False) -> Iterator[str]:
    """What is wrong with a figure, in words; nothing for a sound one. exact: as closely as what ships."""
    share = EXACT if exact else 1.0
    for name in ANGLES:
        least, most = limits_of(name, figure.view)
        if not least <= figure.angle(name) <= most:
            yield f"its {name} is at {figure.angle(name):.0f} degrees, which no joint reaches"
    points = stance(figure)
    for held in figure.held:
        if held.by == "" and dist(points[held.points[0]], points[held.points[-1]]) > share * OFF:
            yield f"its {held.points[0]} does not reach its {held.points[-1]}"
    if figure.view in ABOVE:
        return
    if not figure.rests:
        yield "it rests on nothing"
    for rest in figure.rests:
        for point in points_down(rest.part):
            off = points[point][1] - THICK[point.removeprefix("far")] - rest.height
            if abs(off) > share * OFF:
                yield f"its {rest.part} {'floats above' if off > 0 else 'is below'} what it rests on"
    for name in POINTS_UP:
        if points[name][1] - THICK[name.removeprefix("far")] < -share * SUNK:
            yield f"its {name} is below the floor"
    for held in figure.held:
        if held.by == "wall":
            x, sign = wall_of(figure, held, points)
            for name in POINTS_UP:
                if sign * (points[name][0] - x) > share * SUNK:
                    yield f"its {name} is in the wall"
    yield from _through_a_seat(figure, points, share)
    if abs(unbalanced(figure, points)) > share * TIPPED:
        yield "it would fall: its weight is not over what carries it"


def _through_a_seat(figure: Figure, points: Points, share: float) -> Iterator[str]:
    """Limbs that go through the seat of a chair; seen from the front they are before it."""
    sat = [points[rest.part][0] for rest in figure.rests if rest.on == "chair" and rest.part == "seat"]
    if not sat or figure.view != "side":
        return
    top = RESTS_HIGH["chair"] - share * SUNK
    for start, end in LOWER:
        for step in range(9):
            x, y = along(points[start], points[end], step / 8)
            if abs(x - sat[0]) < SEAT_LONG / 2 - share * SUNK and top - SEAT_THICK < y < top:
                yield f"its {end} goes through the chair"
                break
