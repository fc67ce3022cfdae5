"""Other words for the same movements: how a class is told to those who are spoken to in another way.

What a telling says stands in place of a card's words; where it is silent on how a shape is built or left, and
on what protects, the card's hold. Thoughts that it does not have are not said at all.
"""

from collections.abc import Callable

import msgspec

from yewhour.core.library.card import Card
from yewhour.core.library.movement import Library, Movement, parse_wordings

KEPT = ("way", "place", "protect", "again", "first", "leave")  # of the card, where a telling has none


class Telling(Card, frozen=True, forbid_unknown_fields=True, omit_defaults=True):
    """A movement as it is told: a card's words, its name there, and of a talk the ways to tell it, each its
    lines in order."""

    name: str = ""
    say: tuple[str | tuple[str, ...], ...] = ()


class Tellings(msgspec.Struct, frozen=True, dict=True):
    """How a class is told to some: by movement, and standing lines (field of StandingLines -> its lines)."""

    movements: dict[str, Telling] = {}
    wording: dict[str, tuple[str, ...]] = {}

    def of(self, library: Library) -> Library:
        """The library with what is told in another way; the same one for the same library."""
        made: tuple[Library, Library] | None = self.__dict__.get("_made")
        if made is None or made[0] is not library:
            there = {name: one for name, one in self.movements.items() if name in library}
            made = library, {**library, **{name: told(library[name], one) for name, one in there.items()}}
            self.__dict__["_made"] = made
        return made[1]


TellingsOf = Callable[[str], Tellings | None]  # by the tag of a condition


def none_told(tag: str) -> Tellings | None:
    """Nobody is told anything in another way."""
    return None


def told(movement: Movement, telling: Telling) -> Movement:
    """The movement as a telling has it."""
    base = movement.card or Card()
    words = {
        name: getattr(telling if name not in KEPT or getattr(telling, name) else base, name)
        for name in Card.__struct_fields__
        if name != "gentle"
    }
    lines, otherwise = movement.lines, movement.otherwise
    if telling.say:
        ways = [tuple(map(parse_wordings, (way,) if isinstance(way, str) else way)) for way in telling.say]
        lines, otherwise = {**lines, "say": ways[0]}, tuple(ways[1:])
    card = None if movement.behaviour.framing else Card(**words)
    name = telling.name or movement.name
    return msgspec.structs.replace(movement, name=name, card=card, lines=lines, otherwise=otherwise)
