"""The props there are, and what all rooms have to know of them: one row each.

What they are called stands in data/terms.toml; a test holds the two together.
"""

from typing import Literal

import msgspec

Where = Literal["hand", "side", "room"]


class Prop(msgspec.Struct, frozen=True, gc=False):
    """where: held or used as it comes, "side" lies on the side it is used on, "room" stays where it stands.

    high, long: how it is drawn, as shares of the body's height; 0 where nothing rests on it, or it is
    drawn between points. heard: how people name it, as a pattern; "" where it is in too much other talk.
    """

    where: Where = "hand"
    high: float = 0.0
    long: float = 0.0
    heard: str = ""


PROPS: dict[str, Prop] = {
    "block": Prop(high=0.07, long=0.13, heard="blocks?|bricks?"),
    "two blocks": Prop(),
    "strap": Prop(heard="straps?|belts?"),
    "blanket": Prop(high=0.035, long=0.30, heard="blankets?"),
    "bolster": Prop("side", high=0.09, long=0.34, heard="bolsters?"),
    "cushion": Prop("side", high=0.06, long=0.22, heard="cushions?"),
    "chair": Prop("room", high=0.27, heard="chairs?"),
    "wall": Prop("room"),
    "band": Prop(heard="(?:resistance )?bands?"),
    "slider": Prop(),
    "ball": Prop(),
    "towel": Prop(),
}
HEARD_BESIDES = {"weights": "weights|dumbbells"}  # that no movement here uses
CHAIR_BACK_HIGH = 0.5  # hands rest on it


def stays(prop: str) -> bool:
    """Whether it stays where it stands, and is never brought or put away."""
    return prop in PROPS and PROPS[prop].where == "room"


def changes_side(prop: str) -> bool:
    """Whether it lies on the side it is used on, and is moved for the other."""
    return prop in PROPS and PROPS[prop].where == "side"
