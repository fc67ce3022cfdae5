"""Where the letter of a side stands: by the limb that works, where nothing is drawn."""

from math import atan2, cos, pi, sin

from yewhour.core.figure.body import Figure, Point, Points, apart
from yewhour.core.figure.joints import ABOVE, THICK

CLEAR = 0.10  # from a tip to its letter
TURNS = (0, 30, -30, 60, -60, 90, -90, 120, -120, 150, -150, 180)  # degrees from the way it points
BONES = (
    ("seat", "back", 0.045), ("back", "neck", 0.045), ("hip", "knee", 0.035), ("farhip", "farknee", 0.035),
    ("knee", "ankle", 0.02), ("farknee", "farankle", 0.02), ("ankle", "toe", 0.01),
    ("farankle", "fartoe", 0.01), ("shoulder", "elbow", 0.024), ("farshoulder", "farelbow", 0.024),
    ("elbow", "hand", 0.016), ("farelbow", "farhand", 0.016),
)  # fmt: skip


def letter_place(figure: Figure, points: Points) -> tuple[Point, Point]:
    """The tip of the limb that works, or the head where both sides look alike; and where its letter stands
    from it, where nothing is drawn: the way it points if that is free."""
    tip, before = "head", "neck"
    if figure.works:
        tip, before = ("toe", "knee") if "leg" in figure.works else ("hand", "elbow")
    (x, y), (u, v) = points[before], points[tip]
    straight = atan2(v - y, u - x)
    head = THICK["head"]

    def clear(turn: int, far: float) -> tuple[float, float]:
        at = (u + far * cos(straight + turn * pi / 180), v + far * sin(straight + turn * pi / 180))
        free = min(apart(points[one], points[other], at) - wide for one, other, wide in BONES)
        floor = at[1] + 0.4 * CLEAR if figure.view not in ABOVE else CLEAR
        room = min(CLEAR, floor, free + 0.02, apart(points["head"], points["head"], at) - head + 0.02)
        return round(room, 2), -far

    least = CLEAR + (head if tip == "head" else 0.0)
    best, turn, far = (-1.0, 0.0), 0, least
    for one, other in ((turn, far) for far in (least, 1.7 * least) for turn in TURNS):
        if (here := clear(one, other)) > best:
            best, turn, far = here, one, other
        if best[0] >= CLEAR:
            break
    return (u, v), (far * cos(straight + turn * pi / 180), far * sin(straight + turn * pi / 180))
