"""Where what lies over a film stands: over a camera's picture, and on paper alone."""

from typing import NamedTuple

from yewhour.core.film.on_screen import Part


class Place(NamedTuple):
    """Where a part stands: left, top, width and height in pixels of a picture 720 high; left from the right
    edge where it is below nought."""

    x: float
    y: float
    wide: float
    high: float


OVER: dict[Part, Place] = {
    "name": Place(80, 34, 560, 74), "left": Place(80, 114, 300, 62), "breath": Place(80, 182, 110, 110),
    "next": Place(-440, 34, 360, 74), "figure": Place(-340, 486, 260, 200),
    "captions": Place(240, 590, 800, 100), "title": Place(190, 230, 900, 190),
    "end": Place(190, 230, 900, 190),
}  # fmt: skip
ALONE: dict[Part, Place] = {
    "name": Place(84, 40, 640, 64), "left": Place(84, 110, 340, 56), "breath": Place(84, 470, 120, 120),
    "next": Place(-430, 40, 350, 190), "figure": Place(230, 150, 820, 430),
    "captions": Place(140, 596, 1000, 100), "title": Place(190, 230, 900, 190),
    "end": Place(190, 230, 900, 190),
}  # fmt: skip
