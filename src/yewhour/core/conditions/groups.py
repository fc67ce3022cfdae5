"""Groups of movements that a promise can do without, and that a condition leaves out."""

from functools import lru_cache

import msgspec

from yewhour.core.library.movement import Movement
from yewhour.core.library.position import base_of
from yewhour.core.sides import fill


class MovementGroup(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A group as data/groups.toml declares it; that file says what each field is."""

    name: str
    words: tuple[str, ...] = ()
    say: tuple[str, ...] = ()
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    marks: tuple[str, ...] = ()
    loads: tuple[str, ...] = ()
    movements: tuple[str, ...] = ()
    but: tuple[str, ...] = ()

    def has(self, movement: Movement) -> bool:
        """Whether a movement is of the group: named, or by a mark, a load, or where it begins."""
        if movement.id in self.but or not movement.start:
            return False
        if (
            movement.id in self.movements
            or {*self.marks} & {*movement.marks}
            or {*self.loads} & {*movement.loads}
        ):
            return True
        return bool(self.on or self.off) and all(self.bars(one) for one in begins_in(movement))

    def bars(self, place: str) -> bool:
        """Whether being in a place is of the group: it is one of `on`, or none of `off`."""
        if any(is_in(place, one) for one in self.on):
            return True
        return bool(self.off) and not any(is_in(place, one) for one in self.off)


def begins_in(movement: Movement) -> list[str]:
    """The places a movement may begin in, done on the right."""
    return fill(movement.start, "right").split(" or ")


@lru_cache(maxsize=20_000)
def is_in(place: str, wanted: str) -> bool:
    """Whether a place is of a base, and of a form where one is named: `split low` of `split right low`."""
    base, _, form = wanted.partition(" ")
    return base_of(place) == base and (not form or form in place.split()[1:])
