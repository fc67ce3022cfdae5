"""The room of one class: who may be in it and what it does without, asked about movements, choices and ways.

Whatever puts a movement into a class by itself asks `left_out` first: a draft, something else here, a mend, a
cut, the next one. A class made by hand keeps what it has; it is spoken for, and a finding stays.
"""

import re
from collections.abc import Iterator
from typing import Literal

import msgspec

from yewhour.core.conditions.condition import Conditions
from yewhour.core.library.movement import Library, Movement, Option
from yewhour.core.library.position import PositionGraph
from yewhour.core.plan.plan import Brief
from yewhour.core.sides import Side


class LeftOut(msgspec.Struct, frozen=True):
    """Why a movement is left out: for a caution of the promise, or because it is not wanted; by which tag."""

    why: Literal["caution", "without"]
    tag: str


_NOT_STANDING = r"(?! on (?:your|both) knees)"


class Room(msgspec.Struct, frozen=True, dict=True):
    """Who may be in the room of a class. `rules` are those of everybody there is."""

    rules: Conditions
    library: Library
    cautions: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    props: frozenset[str] = frozenset()

    def left_out(self, movement: Movement) -> LeftOut | None:
        """Why a movement is left out here, or None."""
        if not (self.cautions or self.without):
            return None
        groups = self.rules.groups_of(movement)
        unwanted = next((one for one in self.without if one in groups), "")
        if unwanted:
            return LeftOut("without", unwanted)
        tag = next(self._left_out_for(movement), "")
        return LeftOut("caution", tag) if tag else None

    def _left_out_for(self, movement: Movement) -> Iterator[str]:
        """The cautions of the promise that leave a movement out."""
        groups, supported = self.rules.groups_of(movement), self.props | {*movement.props}
        for tag, condition in self.rules.with_others(self.cautions):
            out = (one for one in condition.out if one in groups)
            if any(not supported.intersection(condition.unless.get(one, ())) for one in out):
                yield tag

    def met(self, movement: Movement) -> tuple[str, ...]:
        """The cautions of the promise that a movement matters for: that leave it out, or by its own tags."""
        if not self.cautions:
            return ()
        known: dict[str, tuple[str, ...]] = self.__dict__.setdefault("_met", {})
        if movement.id not in known:
            own = {*movement.cautions}
            by_name = {id(c): name for name, c in self.rules.conditions.items()}
            found = [tag for tag in movement.cautions if tag in self.cautions]
            found += self._left_out_for(movement)
            found += [tag for tag, one in self.rules.with_others(self.cautions) if by_name[id(one)] in own]
            known[movement.id] = tuple(dict.fromkeys(found))
        return known[movement.id]

    def troubled(self, movement: Movement) -> tuple[str, ...]:
        """The cautions that a movement matters for and that no prop of its own answers: at a chair one is
        steady."""
        known = self.rules.conditions
        return tuple(
            tag for tag in self.met(movement)
            if tag not in known or not {*known[tag].supports} & {*movement.props}
        )  # fmt: skip

    def offers(self, option: Option | None) -> bool:
        """Whether a choice is there and may be spoken: neither what it is nor what it says is left out."""
        if option is None:
            return False
        other = self.library.get(option.movement)
        if other is not None and self.left_out(other) is not None:
            return False
        return not any(self.unwanted(text) for text in option.line)

    def unwanted(self, text: str) -> bool:
        """Whether a line asks for something that is left out."""
        return bool(self._unsaid) and bool(re.search(self._unsaid, text, re.IGNORECASE))

    def wanted(self, text: str) -> str:
        """A placing without the other ways in it that are left out: "the shin or a block", or a sentence for
        those who need one ("If the low back lifts, ...")."""
        if not self.unwanted(text):
            return text
        left_out = rf"(?:(?:on|over) )?(?:(?:an?|the|two) )?{self._unsaid}"
        text = re.sub(rf",? or {left_out}(?: if [^,.;]*)?", "", text)
        text = re.sub(rf"{left_out} or ", "", text)
        sentences = re.split(r"(?<=[.?!])\s+", text)
        return " ".join(one for one in sentences if not (one.startswith("If ") and self.unwanted(one)))

    @property
    def most(self) -> int:
        """The most effort for everybody here."""
        return min((one.most for _, one in self.rules.with_others(self.cautions)), default=5)

    @property
    def said(self) -> tuple[str, ...]:
        """What is said once, at the beginning, to those who may be there."""
        known = (self.rules.conditions.get(tag) for tag in self.cautions)
        return tuple(one.said for one in known if one is not None and one.said)

    @property
    def whoms(self) -> tuple[str, ...]:
        """Those who may be there, as they are spoken of."""
        known = (self.rules.conditions.get(tag) for tag in self.cautions)
        return tuple(dict.fromkeys(one.whom for one in known if one is not None and one.whom))

    @property
    def theirs(self) -> str:
        """Whose class it is, where a condition makes it somebody's; "" where it is anybody's."""
        known = (self.rules.conditions.get(tag) for tag in self.cautions)
        return next((one.whom for one in known if one is not None and one.theirs), "")

    @property
    def roll(self) -> Side | None:
        """The side to roll to, where a condition has one."""
        return next((one.roll for _, one in self.rules.with_others(self.cautions) if one.roll), None)

    @property
    def liked(self) -> frozenset[str]:
        """Movements that are above others for who may be there."""
        return frozenset(one for _, known in self.rules.with_others(self.cautions) for one in known.liked)

    @property
    def stretch(self) -> float:
        """How long things last for them, against what is usual."""
        return min((one.stretch for _, one in self.rules.with_others(self.cautions)), default=1.0)

    def positions(self, positions: PositionGraph) -> PositionGraph:
        """The positions, with ways that keep away from what is left out wherever there are such."""
        groups = [self.rules.groups[one] for one in self._tags if one in self.rules.groups]
        barred = frozenset(place for place in positions.places if any(group.bars(place) for group in groups))
        return positions.avoiding(barred, self._unsaid) if barred else positions

    @property
    def _tags(self) -> tuple[str, ...]:
        """Groups and movements that are left out altogether."""
        named = [
            one
            for _, condition in self.rules.with_others(self.cautions)
            for one in condition.out
            if not self.props.intersection(condition.unless.get(one, ()))
        ]
        return (*self.without, *named)

    @property
    def _unsaid(self) -> str:
        """What no choice may say, as a pattern; "" for nothing. To stand on one's knees is not to stand."""
        if "_pattern" not in self.__dict__:
            words = {
                word for one in self._tags if one in self.rules.groups for word in self.rules.groups[one].say
            }
            said = "|".join(map(re.escape, sorted(words, key=len, reverse=True)))
            self.__dict__["_pattern"] = rf"\b(?:{said})\b{_NOT_STANDING}" if said else ""
        return str(self.__dict__["_pattern"])


def room_of(brief: Brief, rules: Conditions, library: Library) -> Room:
    """The room of a promise."""
    return Room(rules, library, brief.cautions, brief.without, frozenset(brief.props))
