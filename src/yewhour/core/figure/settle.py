"""Settling: the joint angles nearest to those given at which all rests on what it is said to rest on.

A few steps of damped least squares over the joint angles. It makes a rough line exact, and lets a teacher
pull a hand: all that rests stays where it rests.
"""

from collections.abc import Callable, Mapping

import msgspec
import numpy as np

from yewhour.core.figure.body import (
    Figure,
    Point,
    anchor,
    stance,
    unbalanced,
)
from yewhour.core.figure.joints import (
    ABOVE,
    ANGLES,
    POINTS_UP,
    THICK,
    limits_of,
    points_down,
)

STEPS, STEP, STILL = 60, 0.5, 0.01  # most steps; degrees for a slope; and that change nothing any more
STIFF = {
    "trunk": 3.0,
    "bend": 2.0,
    "nod": 0.2,
    "hip": 0.5,
    "knee": 0.6,
    "foot": 0.7,
    "arm": 0.35,
    "elbow": 0.6,
}
STIFFER = 12.0  # what is not pulled
HELD = 60.0  # how much more being a whole body's height off counts than a degree
WEIGHT = 0.6  # how much of that the weight counts, where it is not over what carries it
NEAR = 0.004  # of the height: near enough
DAMP = 0.0004  # what a degree of a joint costs


def settle(figure: Figure, pulled: Mapping[str, Point] | None = None) -> Figure:
    """The figure with its rests and touches met as nearly as its joints let it.

    pulled: where points of the body are to be, from where its first rest is (see `anchor`); all that rests
    stays as far from that as it was.
    """
    flat = figure.view != "side"  # where a nod carries nothing, and makes no difference
    names = [name for name in ANGLES if not (flat and name == "nod")]
    given = np.array([figure.angle(name) for name in names])
    stiff = np.array([STIFF[name.removeprefix("far")] for name in names])
    if pulled:  # the limb that is pulled follows; the rest of the body goes along only where it must
        soft = {angle for name in pulled for angle in _moving(name)}
        stiff = np.where([name in soft for name in names], stiff, stiff * STIFFER)
    limits = np.array([limits_of(name, figure.view) for name in names])
    wanted = dict(pulled or {})
    if pulled and figure.view not in ABOVE:
        points = stance(figure)
        first = anchor(figure, points)
        for rest in figure.rests:
            for name in points_down(rest.part):
                wanted.setdefault(name, (points[name][0] - first, points[name][1]))

    def off(angles: np.ndarray) -> np.ndarray:
        moved = {**figure.angles, **dict(zip(names, angles.tolist(), strict=True))}
        tried = msgspec.structs.replace(figure, angles=moved)
        return np.array([one * HELD for one in _off(tried, wanted)])

    angles = np.clip(given, limits[:, 0], limits[:, 1])
    pull = np.diag(stiff**2 * DAMP)
    for _ in range(STEPS):
        now = off(angles)
        if not len(now) or np.abs(now).max() < NEAR * HELD:
            break
        slopes = _slopes(off, angles, now)
        step = np.linalg.solve(slopes.T @ slopes + pull, -slopes.T @ now)
        before = angles
        angles = np.clip(angles + np.clip(step, -25, 25), limits[:, 0], limits[:, 1])
        if np.abs(angles - before).max() < STILL:
            break
    result = {name: value for name, value in figure.angles.items() if name not in names}
    result |= {name: round(float(value), 1) for name, value in zip(names, angles, strict=True)}
    return msgspec.structs.replace(figure, angles=result)


def _moving(point: str) -> tuple[str, ...]:
    """The joint angles that move a point by themselves."""
    far = "far" if point.startswith("far") else ""
    if (plain := point.removeprefix("far")) in ("elbow", "wrist", "hand"):
        return f"{far}arm", f"{far}elbow"
    if plain in ("knee", "ankle", "toe"):
        return f"{far}hip", f"{far}knee", f"{far}foot"
    return ("nod", "bend") if plain == "head" else ("trunk", "bend")


def _slopes(off: Callable[[np.ndarray], np.ndarray], angles: np.ndarray, now: np.ndarray) -> np.ndarray:
    columns = []
    for index in range(len(angles)):
        moved = angles.copy()
        moved[index] += STEP
        columns.append(np.where(now == 0, 0.0, (off(moved) - now) / STEP))  # what is met does not pull
    return np.stack(columns, axis=1)


def _off(figure: Figure, pulled: Mapping[str, Point]) -> list[float]:
    """How far off every rest, touch and pull is, in shares of the height."""
    points = stance(figure)
    result: list[float] = []
    if figure.view not in ABOVE:
        for rest in figure.rests:
            for point in points_down(rest.part):
                result.append(points[point][1] - rest.height - THICK[point.removeprefix("far")])
        result.append(WEIGHT * unbalanced(figure, points))
        for name in POINTS_UP:
            result.append(min(0.0, points[name][1] - THICK[name.removeprefix("far")]))
    for held in figure.held:
        if held.by == "":
            (x, y), (u, v) = points[held.points[0]], points[held.points[-1]]
            result += [x - u, y - v]
        elif held.by == "wall":
            first = points[held.points[0]][0]
            result += [points[name][0] - first for name in held.points[1:]]
    first = anchor(figure, points)
    for name, (x, y) in pulled.items():
        result += [points[name][0] - first - x, points[name][1] - y]
    return result
