"""Whether a figure is a body that could stand so: its joints bend that far, nothing floats, nothing falls."""

from collections.abc import Iterator

from yewhour.core.figure.body import Figure, stance, unbalanced
from yewhour.core.figure.joints import (
    ABOVE,
    ANGLES,
    THICK,
    limits_of,
    points_down,
)

OFF, SUNK, TIPPED = (
    0.03,
    0.045,
    0.05,
)  # of the height: above what it rests on; below the floor; beside what carries


def figure_faults(figure: Figure) -> Iterator[str]:
    """What is wrong with a figure, in words; nothing for a sound one."""
    for name in ANGLES:
        least, most = limits_of(name, figure.view)
        if not least <= figure.angle(name) <= most:
            yield f"its {name} is at {figure.angle(name):.0f} degrees, which no joint reaches"
    if figure.view in ABOVE:
        return
    points = stance(figure)
    if not figure.rests:
        yield "it rests on nothing"
    for rest in figure.rests:
        for point in points_down(rest.part):
            off = points[point][1] - THICK[point.removeprefix("far")] - rest.height
            if abs(off) > OFF:
                yield f"its {rest.part} {'floats above' if off > 0 else 'is below'} what it rests on"
    for name, (_, y) in points.items():
        if y < -SUNK:
            yield f"its {name} is below the floor"
    if abs(unbalanced(figure, points)) > TIPPED:
        yield "it would fall: its weight is not over what carries it"
