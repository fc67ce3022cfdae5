"""A figure: joint angles, what rests on what; and where its points are then."""

from math import cos, dist, radians, sin

import msgspec

from yewhour.core.figure.joints import (
    ABOVE,
    ANGLES,
    BEHIND_ANKLE,
    FOOT,
    FOREARM,
    FRONT_FOOT,
    HAND,
    HIPS,
    LOWER_BACK,
    NECK,
    ON_SHIN,
    ON_THIGH,
    RESTS_HIGH,
    SEEN,
    SHIN,
    SHOULDERS,
    THICK,
    THIGH,
    UPPER_ARM,
    UPPER_BACK,
    WEIGHTS,
    View,
    points_down,
)

Point = tuple[float, float]
Points = dict[str, Point]


class Support(msgspec.Struct, frozen=True):
    """A part of the body that rests on the floor, or on a prop."""

    part: str
    on: str = ""

    @property
    def height(self) -> float:
        """How high what it rests on is, as a share of the body's height."""
        return RESTS_HIGH.get(self.on, 0.0)


class Touch(msgspec.Struct, frozen=True):
    """Two points that touch (by ""), or that a strap or a band is between; or points along a wall."""

    by: str
    points: tuple[str, ...]


class Figure(msgspec.Struct, frozen=True):
    """A body in a posture.

    angles: degrees by name (see joints.ANGLES), and hundredths of bones (joints.SEEN); one that is not there
    is 0 (of a bone 100), and a far limb that is not there is as the near one. flipped: it looks the other
    way, and near is left. works: the near limbs that do the work, "leg" and "arm"; none for both. best: of a
    movement's figures, the one that shows it alone.
    """

    view: View = "side"
    angles: dict[str, float] = {}
    rests: tuple[Support, ...] = ()
    held: tuple[Touch, ...] = ()
    flipped: bool = False
    works: tuple[str, ...] = ()
    best: bool = False

    def angle(self, name: str) -> float:
        """The degrees of a joint angle."""
        return self.angles.get(name, self.angles.get(name.removeprefix("far"), 0.0))

    def seen(self, bone: str) -> float:
        """How much of a bone is seen, 1 for all of it."""
        return self.angles.get(bone, self.angles.get(bone.removeprefix("far"), 100.0)) / 100


def mirrored(figure: Figure) -> Figure:
    """The same on the other side: it looks the other way."""
    return msgspec.structs.replace(figure, flipped=not figure.flipped)


def between(first: Figure, second: Figure, share: float) -> Figure:
    """On the way from one figure to another, 0 to 1; between two views there is none."""
    if first.view != second.view or share <= 0 or share >= 1:
        return second if share > 0.5 else first
    angles = {name: first.angle(name) + (second.angle(name) - first.angle(name)) * share for name in ANGLES}
    for bone in (far + one for one in SEEN for far in ("", "far")):
        angles[bone] = 100 * (first.seen(bone) + (second.seen(bone) - first.seen(bone)) * share)
    nearer = second if share > 0.5 else first
    return msgspec.structs.replace(nearer, angles=angles)


def stance(figure: Figure) -> Points:
    """Where each point of the body is, x right and y up, in shares of its height; the floor is at 0."""
    points = shape(figure)
    lift = 0.0
    if figure.view not in ABOVE:
        downs = [
            rest.height + THICK[point.removeprefix("far")] - points[point][1]
            for rest in figure.rests
            for point in points_down(rest.part)
        ]
        lift = sum(downs) / len(downs) if downs else -min(y for _, y in points.values())
    if figure.view in ABOVE:  # head to the left; who lies on the back has the right hand towards who looks
        sign = -1 if (figure.view == "above") != figure.flipped else 1
        return {name: (x, sign * y) for name, (x, y) in points.items()}
    sign = -1 if figure.flipped else 1
    return {name: (sign * x, y + lift) for name, (x, y) in points.items()}


def shape(figure: Figure) -> Points:
    """Where each point is with the seat at (0, 0), looking to the right."""
    flat = figure.view != "side"
    laid = {rest.part for rest in figure.rests}  # a hand that carries lies flat, or points to who looks
    trunk = figure.angle("trunk")
    upper = trunk - figure.angle("bend")
    head = upper - figure.angle("nod")
    seat = (0.0, 0.0)
    back = _on(seat, trunk, LOWER_BACK)
    neck = _on(back, upper, UPPER_BACK)
    points: Points = {"seat": seat, "back": back, "neck": neck, "head": _on(neck, head, NECK)}
    points["crown"] = _on(points["head"], head, THICK["head"])
    for name, at, facing, deep in (
        ("belly", back, (trunk + upper) / 2, 0.036),
        ("chest", _on(back, upper, 0.55 * UPPER_BACK), upper, 0.044),
    ):
        points[name] = at if flat else _on(at, facing - 90, deep)
    for far, sign in (("", 1), ("far", -1)):
        use = sign if flat else 1  # from the front, what opens to the right on one side does to the left
        hip = _on(seat, trunk - 90 * sign, HIPS) if flat else seat
        shoulder = _on(neck, upper - 90 * sign, SHOULDERS) if flat else neck
        thigh = trunk + 180 + use * figure.angle(f"{far}hip")
        shin = thigh - use * figure.angle(f"{far}knee")
        foot = shin + use * (90 - figure.angle(f"{far}foot"))
        arm = upper + 180 + use * figure.angle(f"{far}arm")
        fore = arm + use * figure.angle(f"{far}elbow")
        points[f"{far}hip"], points[f"{far}shoulder"] = hip, shoulder
        thigh_long, shin_long, upper_long, fore_long = (figure.seen(far + bone) for bone in SEEN)
        knee = points[f"{far}knee"] = _on(hip, thigh, THIGH * thigh_long)
        ankle = points[f"{far}ankle"] = _on(knee, shin, SHIN * shin_long)
        points[f"{far}toe"] = _on(ankle, foot, FRONT_FOOT if flat else FOOT)
        points[f"{far}thigh"], points[f"{far}shin"] = (
            along(hip, knee, ON_THIGH),
            along(knee, ankle, ON_SHIN),
        )
        points[f"{far}heel"] = along(ankle, points[f"{far}toe"], -BEHIND_ANKLE)
        elbow = points[f"{far}elbow"] = _on(shoulder, arm, UPPER_ARM * upper_long)
        wrist = points[f"{far}wrist"] = _on(elbow, fore, FOREARM * fore_long)
        down = f"{far}hand" in laid
        long = HAND * fore_long * (0.2 if down and flat else 1.0)
        points[f"{far}hand"] = _on(wrist, _laid(fore) if down else fore, long)
    return points


def _laid(fore: float) -> float:
    """Where a hand points that lies flat: forwards, or back where the forearm lies back."""
    return 180.0 if cos(radians(fore)) < -0.5 else 0.0


def _on(start: Point, degrees: float, length: float) -> Point:
    turned = radians(degrees)
    return (start[0] + length * cos(turned), start[1] + length * sin(turned))


def along(start: Point, end: Point, share: float) -> Point:
    """A point so far on the way from one to another; beyond both, where the share is."""
    return (start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share)


def apart(start: Point, end: Point, point: Point) -> float:
    """How far a point is from the line between two others."""
    way = (end[0] - start[0], end[1] - start[1])
    long = way[0] ** 2 + way[1] ** 2
    at = ((point[0] - start[0]) * way[0] + (point[1] - start[1]) * way[1]) / max(1e-9, long)
    return dist(along(start, end, min(1.0, max(0.0, at))), point)


def weight_at(points: Points) -> Point:
    """Where the weight of a body is."""
    x = y = 0.0
    total = sum(share for _, _, share in WEIGHTS)
    for one, other, share in WEIGHTS:
        x += share * (points[one][0] + points[other][0]) / 2
        y += share * (points[one][1] + points[other][1]) / 2
    return (x / total, y / total)


def unbalanced(figure: Figure, points: Points) -> float:
    """How far the weight is from over what carries it, in shares of the height; 0 where a wall helps."""
    if figure.view in ABOVE or any(one.by == "wall" for one in figure.held) or not figure.rests:
        return 0.0
    carrying = [points[name][0] for rest in figure.rests for name in points_down(rest.part)]
    # Whose ankle lies there, of that the whole shin carries.
    carrying += [
        points[rest.part.replace("ankle", "knee")][0] for rest in figure.rests if "ankle" in rest.part
    ]
    x = weight_at(points)[0]
    least, most = min(carrying) - 0.03, max(carrying) + 0.03
    return min(0.0, x - least) + max(0.0, x - most)


def anchor(figure: Figure, points: Points) -> float:
    """How far to the right the first thing that rests is; 0 where nothing does, or it is seen from above."""
    if figure.view in ABOVE or not figure.rests:
        return 0.0
    return points[points_down(figure.rests[0].part)[0]][0]


def wall_of(figure: Figure, held: Touch, points: Points) -> tuple[float, int]:
    """Where the wall is that points touch, and on which side of the body, 1 to the right: behind a back that
    leans on it, else where it is touched."""
    if "back" in held.points:
        sign = 1 if figure.flipped else -1
    else:
        middle = sum(points[name][0] for name in held.points) / len(held.points)
        sign = 1 if middle > points["back"][0] else -1
    thick = max(THICK[name.removeprefix("far")] for name in held.points)
    return points[held.points[0]][0] + sign * thick, sign
