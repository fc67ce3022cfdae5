"""The joints of a drawn body: how long its bones are, how far they bend, what can rest on the floor.

Lengths are shares of the body's height; they are those of grown people on the average, rounded (what
anatomy books agree on to a hundredth for thigh, shin, trunk and arm). Limits are in degrees, as a supple body
reaches them; they are there to find what nobody can do, not to tell anybody how far to go.
"""

from functools import lru_cache
from typing import Literal

from yewhour.core.props import CHAIR_BACK_HIGH, PROPS

# From the right side; from behind, so that right is right; from above, on the back or face down.
View = Literal["side", "front", "above", "facedown"]
VIEWS: tuple[View, ...] = ("side", "front", "above", "facedown")
ABOVE = ("above", "facedown")

# Bones, as shares of the height.
LOWER_BACK, UPPER_BACK, NECK, HEAD = 0.155, 0.155, 0.105, 0.062
THIGH, SHIN, FOOT = 0.245, 0.245, 0.125
UPPER_ARM, FOREARM, HAND = 0.17, 0.15, 0.07
SHOULDERS, HIPS = 0.085, 0.05  # from the middle, seen from the front or from above
FRONT_FOOT = 0.06  # a foot seen from its toes
ON_THIGH, ON_SHIN, BEHIND_ANKLE = 0.62, 0.5, 0.16  # where a hand lies along a thigh, a shin; of a foot

# Joint angles: of the middle, and of limbs, each near and far. In a side view the body looks to the right,
# and its right limbs are near; "front" is what is seen in a mirror, or from behind: right is right.
MIDDLE = ("trunk", "bend", "nod")
LIMBS = ("hip", "knee", "foot", "arm", "elbow")
WORKS = ("leg", "arm")
# How much of a bone is seen, in hundredths, where it points towards who looks.
SEEN = ("thigh", "shin", "upper", "fore")
ANGLES = (*MIDDLE, *(f"{far}{limb}" for limb in LIMBS for far in ("", "far")))

SIDE_LIMITS: dict[str, tuple[float, float]] = {
    "trunk": (-200, 380), "bend": (-75, 80), "nod": (-75, 80), "hip": (-75, 160), "knee": (0, 176),
    "foot": (-45, 95), "arm": (-100, 215), "elbow": (-5, 160),
}  # fmt: skip
FLAT_LIMITS: dict[str, tuple[float, float]] = {
    "trunk": (-200, 380), "bend": (-75, 75), "nod": (-60, 60), "hip": (-95, 175), "knee": (-170, 170),
    "foot": (-90, 180), "arm": (-90, 225), "elbow": (-165, 165),
}  # fmt: skip

# Points of the body: where they are is found by `stance`; how thick it is there, as a share of the height.
THICK: dict[str, float] = {
    "seat": 0.046, "back": 0.040, "neck": 0.046, "head": 0.056, "knee": 0.027, "ankle": 0.019, "toe": 0.013,
    "elbow": 0.019, "wrist": 0.014, "hand": 0.011, "hip": 0.040, "shoulder": 0.030,
    "thigh": 0.034, "shin": 0.023, "heel": 0.016, "chest": 0.0, "belly": 0.0, "crown": 0.0,
}  # fmt: skip
LIMB_POINTS = ("knee", "ankle", "toe", "elbow", "wrist", "hand", "hip", "shoulder", "thigh", "shin", "heel")
MIDDLE_POINTS = ("seat", "back", "neck", "head", "chest", "belly", "crown")
POINTS = (*MIDDLE_POINTS, *(f"{far}{one}" for one in LIMB_POINTS for far in ("", "far")))

# What must not go through the floor.
POINTS_UP = ("seat", "back", "neck", "head", "knee", "farknee", "ankle", "farankle", "elbow", "farelbow",
             "wrist", "farwrist", "hand", "farhand", "toe", "fartoe")  # fmt: skip

# What may be said to rest on something, and the points that are then down.
RESTS: dict[str, tuple[str, ...]] = {
    "foot": ("ankle", "toe"), "toe": ("toe",), "heel": ("ankle",), "shin": ("knee", "ankle"),
    "knee": ("knee",), "hand": ("wrist",), "forearm": ("elbow", "wrist"), "elbow": ("elbow",),
    "fingers": ("hand",),    "ankle": ("ankle",), "hip": ("hip",), "shoulder": ("shoulder",),
}  # fmt: skip
MIDDLE_RESTS: dict[str, tuple[str, ...]] = {
    "seat": ("seat",), "back": ("back",), "shoulders": ("neck",), "head": ("head",),
    "belly": ("back", "seat"),
}  # fmt: skip
BOTH = {
    "feet": "foot", "toes": "toe", "heels": "heel", "shins": "shin", "knees": "knee", "hands": "hand",
    "forearms": "forearm", "elbows": "elbow", "ankles": "ankle",
}  # fmt: skip

# What a body may rest on besides the floor: how high, as a share of the height.
RESTS_HIGH: dict[str, float] = {name: one.high for name, one in PROPS.items() if one.high} | {
    "chairback": CHAIR_BACK_HIGH
}
SEAT_LONG, SEAT_THICK = 0.24, 0.02  # of a chair
LINES = ("strap", "band", "wall", "block", "cushion")  # drawn between points, or along them
ROUND = ("circle", "turn")  # arrows about a point: what circles there, or turns

# Where the weight is: a share of it at each point between the two named.
WEIGHTS: tuple[tuple[str, str, float], ...] = (
    ("neck", "head", 0.08), ("seat", "back", 0.25), ("back", "neck", 0.25), ("hip", "knee", 0.10),
    ("farhip", "farknee", 0.10), ("knee", "ankle", 0.045), ("farknee", "farankle", 0.045),
    ("ankle", "toe", 0.015), ("farankle", "fartoe", 0.015), ("shoulder", "elbow", 0.028),
    ("farshoulder", "farelbow", 0.028), ("elbow", "wrist", 0.022), ("farelbow", "farwrist", 0.022),
)  # fmt: skip


def limits_of(angle: str, view: View) -> tuple[float, float]:
    """The least and most degrees of a joint angle, or hundredths of a bone."""
    if angle.removeprefix("far") in SEEN:
        return (10, 100)
    return (SIDE_LIMITS if view == "side" else FLAT_LIMITS)[angle.removeprefix("far")]


@lru_cache(100)
def points_down(rest: str) -> tuple[str, ...]:
    """The points that are down where something rests: `farhand` is the far wrist. Raises KeyError."""
    if rest in MIDDLE_RESTS:
        return MIDDLE_RESTS[rest]
    far = "far" if rest.startswith("far") else ""
    return tuple(far + point for point in RESTS[rest.removeprefix("far")])
