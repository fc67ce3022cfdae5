"""A condition: somebody who may be in the room, as a rule for what a class leaves out, props, and says."""

from collections.abc import Hashable, Iterator, Mapping, Sequence

import msgspec

from yewhour.core.conditions.groups import MovementGroup
from yewhour.core.library.movement import Movement
from yewhour.core.sides import Side


class Condition(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A condition as data/cautions.toml declares it; that file says what each field is."""

    name: str
    whom: str
    about: str
    theirs: bool = False
    watch: str = ""
    words: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    out: tuple[str, ...] = ()
    unless: dict[str, tuple[str, ...]] = {}
    also: tuple[str, ...] = ()
    most: int = 5
    supports: tuple[str, ...] = ()
    shapes: tuple[str, ...] = ()
    roll: Side | None = None
    liked: tuple[str, ...] = ()
    stretch: float = 1.0
    said: str = ""
    source: str = ""
    soon_weeks: int = 0
    again: str = ""


class Conditions(msgspec.Struct, frozen=True, dict=True):
    """All conditions and groups there are, by their tags."""

    conditions: Mapping[str, Condition] = {}
    groups: Mapping[str, MovementGroup] = {}

    def with_others(self, tags: Sequence[str]) -> Iterator[tuple[str, Condition]]:
        """(tag that was asked for, condition) of tags and of what they bring along, each condition once."""
        seen: set[str] = set()
        for tag in tags:
            waiting = [tag]
            while waiting:
                name = waiting.pop(0)
                condition = self.conditions.get(name)
                if condition is not None and name not in seen:
                    seen.add(name)
                    waiting += condition.also
                    yield tag, condition

    def groups_of(self, movement: Movement) -> frozenset[str]:
        """The groups a movement is of, and its own id; worked out once for each."""
        known: dict[Hashable, frozenset[str]] = self.__dict__.setdefault("_known", {})
        key = movement.id, movement.start, movement.marks, movement.loads
        if key not in known:
            names = {name for name, group in self.groups.items() if group.has(movement)}
            known[key] = frozenset((movement.id, *names))
        return known[key]
