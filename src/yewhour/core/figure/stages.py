"""The stages of a movement in one drawing: where it begins, pale; where it goes to; arrows between them."""

from collections.abc import Sequence
from itertools import pairwise
from math import dist

import msgspec

from yewhour.core.figure.body import Figure, Point, Points, along, between, stance
from yewhour.core.figure.drawing import FigureDrawing, drawing_of, drawn
from yewhour.core.figure.joints import ABOVE, ROUND, points_down
from yewhour.core.figure.shapes import LimbShape, arrow

# What an arrow may follow: the first of each that goes far enough.
TIPS = (("toe", "knee"), ("fartoe", "farknee"), ("hand", "elbow"), ("farhand", "farelbow"), ("head",))
FARTHEST = 0.34  # of the height: a seat that moves further is in another place
OUTWARD, BREATH, LOWEST = 0.10, 0.07, 0.02  # beyond the head; beyond an arrow; over the floor
BESIDE, SUNK = 0.08, 0.06  # of the body, an arrow that stands there; a seat that goes so far has it
LEAST = 0.11  # a tip that moves less has no arrow
ALIKE = 0.09  # two tips that go the same way have one
SHARES = tuple(step / 20 for step in range(21))
BEGUN, ENDED = 3, 17  # of these, what an arrow follows
# The joint angles of a limb, and how far one moves, or near and far differ, before a limb is said to work.
BENDS = {"leg": ("hip", "knee", "foot", "thigh", "shin"), "arm": ("arm", "elbow", "upper", "fore")}
MOVED = 9.0


def working(figures: Sequence[Figure]) -> tuple[Figure, ...]:
    """The figures with what works told: the near limbs that move, else those that are unlike the far ones."""
    moving = tuple(
        limb for limb in BENDS if any(_moves(one, other, limb) for one, other in pairwise(figures))
    )
    unlike = tuple(limb for limb in BENDS if any(_unlike(one, limb) for one in figures))
    return tuple(msgspec.structs.replace(one, works=one.works or moving or unlike) for one in figures)


def _moves(one: Figure, other: Figure, limb: str) -> bool:
    return one.view == other.view and any(
        abs(_bent(one, name) - _bent(other, name)) > MOVED for name in BENDS[limb]
    )


def _unlike(one: Figure, limb: str) -> bool:
    return any(abs(_bent(one, name) - _bent(one, f"far{name}")) > MOVED for name in BENDS[limb])


def _bent(figure: Figure, name: str) -> float:
    """A joint angle in degrees; or how much of a bone is seen, in hundredths."""
    seen = name.removeprefix("far") in ("thigh", "shin", "upper", "fore")
    return 100 * figure.seen(name) if seen else figure.angle(name)


def in_one_place(figures: Sequence[Figure]) -> bool:
    """Whether two stages can be drawn one over the other: one view, and the body stays where it is."""
    if len(figures) != 2 or figures[0].view != figures[1].view:
        return False
    first, second = figures
    if first.view not in ABOVE and not _footing(first, second):
        return False
    here, there = _aligned(first, second)
    return dist(here["seat"], there["seat"]) < FARTHEST


def overlaid(figures: Sequence[Figure]) -> FigureDrawing:
    """Two stages in one drawing; they are in one place (see in_one_place)."""
    first, second = figures
    here, _ = _aligned(first, second)
    final = drawing_of(second)
    pale = [
        LimbShape("ghost", shape.corners)
        for shape in drawn(first, here)
        if shape.what in ("far", "other", "middle", "still", "near")
    ]
    told = any(one.by in ROUND for one in second.held)
    ways = [] if told else _ways(first, second)
    arrows = [shape for way in ways for shape in arrow(way)]
    mats = [shape for shape in final.shapes if shape.what == "mat"]
    rest = [shape for shape in final.shapes if shape.what != "mat"]
    xs = [x for shape in (*pale, *arrows) for x, _ in shape.corners]
    ys = [y for shape in (*pale, *arrows) for _, y in shape.corners]
    left, bottom, right, top = final.box
    box = min(left, *xs), min(bottom, *ys), max(right, *xs), max(top, *ys)
    breath = _breath(ways[0], stance(second)["back"], final) if ways else None
    return msgspec.structs.replace(final, shapes=(*mats, *pale, *rest, *arrows), box=box, breath=breath)


def _breath(way: Sequence[Point], back: Point, drawing: FigureDrawing) -> Point:
    """Where the breath is said: beyond the middle of an arrow, and not where the letter of a side stands."""
    (x, y), (u, v) = drawing.mark
    place = _outward(way[len(way) // 2], back, BREATH)
    return place if dist(place, (x + u, y + v)) > 2 * BREATH else _outward(place, back, 1.6 * BREATH)


def _footing(first: Figure, second: Figure) -> list[str]:
    """The points that rest in both."""
    there = {(rest.part, rest.on) for rest in second.rests}
    return [name for rest in first.rests if (rest.part, rest.on) in there for name in points_down(rest.part)]


def _aligned(first: Figure, second: Figure, share: float = 0.0) -> tuple[Points, Points]:
    """Where the points of the first figure are, or of one so far on the way, and of the second: what rests in
    both stays where it is in the second, on the average."""
    here, there = stance(between(first, second, share)), stance(second)
    both = _footing(first, second) if first.view not in ABOVE else []
    move = sum(there[name][0] - here[name][0] for name in both) / max(1, len(both))
    return {name: (x + move, y) for name, (x, y) in here.items()}, there


def _ways(first: Figure, second: Figure) -> list[list[Point]]:
    """What arrows follow between two stages."""
    ways = [_aligned(first, second, share)[0] for share in SHARES]
    resting = set(_footing(first, second))
    kept: list[list[Point]] = []
    sunk = first.view not in ABOVE and abs(ways[0]["seat"][1] - ways[-1]["seat"][1]) > SUNK
    if sunk and _upright(ways[0]) and _upright(ways[-1]):  # the whole body goes: an arrow stands beside it
        kept.append(_beside(first, ways))
    trunk = dist(ways[0]["neck"], ways[-1]["neck"]) > LEAST and not kept
    if trunk:  # the arms go with it
        kept.append([_outward(points["head"], points["seat"]) for points in ways])
    for names in () if kept and not trunk else TIPS[:2] if trunk else TIPS:
        for name in names:
            way = [points[name] for points in ways]
            if name in resting or dist(way[0], way[-1]) < LEAST:
                continue
            alike = any(dist(way[0], one[0]) < ALIKE and dist(way[-1], one[-1]) < ALIKE for one in kept)
            if not alike and not (name == "head" and kept):  # the limbs have told it
                kept.append(way)
            break
    inner = [way[BEGUN:ENDED] for way in kept]
    return inner if first.view in ABOVE else [[(x, max(y, LOWEST)) for x, y in way] for way in inner]


def _outward(point: Point, middle: Point, far: float = OUTWARD) -> Point:
    return along(middle, point, 1 + far / max(1e-6, dist(point, middle)))


def _beside(figure: Figure, ways: Sequence[Points]) -> list[Point]:
    """A way up or down behind a body; beside it, where it is seen from the front."""
    behind = ("seat", "back", "neck") if figure.view == "side" else ("knee", "hip")
    walled = any(one.by == "wall" for one in figure.held)
    behind_it = figure.view == "side" and not walled
    sign = -1 if behind_it != figure.flipped else 1
    far = max(sign * points[name][0] for points in ways for name in behind)
    begun, ended = ways[0]["seat"][1], ways[-1]["seat"][1]
    more = 0.05 if begun > ended else -0.05
    return [
        (sign * (far + BESIDE), 0.1 + begun + more + share * (ended - begun - 2 * more)) for share in SHARES
    ]


def _upright(points: Points) -> bool:
    return points["neck"][1] - points["seat"][1] > 2 * abs(points["neck"][0] - points["seat"][0])
