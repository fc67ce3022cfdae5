"""Hearing: what words bring a body to, for a listener who knows nothing but what is said."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import cached_property

import msgspec

from yewhour.core.library.position import base_of


class BodyCue(msgspec.Struct, frozen=True):
    """Words that bring the body to a base, from some bases or (none named) from anywhere."""

    to: str
    say: tuple[str, ...]
    start: tuple[str, ...] = msgspec.field(default=(), name="from")


class LiftCue(msgspec.Struct, frozen=True):
    """Words that lift a part of the body, and words that put it down again, on some bases."""

    facet: str
    up: tuple[str, ...]
    down: tuple[str, ...]
    start: tuple[str, ...] = msgspec.field(default=(), name="from")


class CueInterpreter:
    """Listens: lines in, bases out, and what is lifted. What a line means is remembered."""

    def __init__(self, words: Sequence[BodyCue], lifted: Sequence[LiftCue] = ()) -> None:
        self._words = tuple(words)
        self._lifted = tuple(
            (one, re.compile("|".join(one.up)), re.compile("|".join(one.down))) for one in lifted
        )
        self._known: dict[str, tuple[tuple[BodyCue, str], ...]] = {}

    def after(self, here: str, line: str) -> str:
        """The base a listener is in after a line: `split right` has the right foot in front."""
        if line not in self._known:
            self._known[line] = tuple(self._meant(line))
        for heard, side in self._known[line]:
            if not heard.start or base_of(here) in heard.start:
                here = _reached(heard.to, side)
        return here

    def lifted(self, before: frozenset[str], here: str, line: str) -> frozenset[str]:
        """What a listener holds up after a line. here: the base when it is over; what is not of it is
        down."""
        text, found = line.lower(), set[str]()
        for one, up, down in self._lifted:
            if one.start and base_of(here) not in one.start:
                continue
            last_up = max((match.end() for match in up.finditer(text)), default=-1)
            last_down = max((match.end() for match in down.finditer(text)), default=-1)
            if last_up > last_down or (last_up == last_down and one.facet in before):
                found.add(one.facet)
        return frozenset(found)

    @cached_property
    def _patterns(self) -> list[tuple[BodyCue, re.Pattern[str]]]:
        return [(one, re.compile("|".join(one.say))) for one in self._words]

    def _meant(self, line: str) -> Iterator[tuple[BodyCue, str]]:
        """What the words of a line say of the body, in their order, with the side they name."""
        found = [
            (match.start(), -match.end(), number, heard, next(filter(None, match.groups()), ""))
            for number, (heard, pattern) in enumerate(self._patterns)
            for match in pattern.finditer(line.lower())
        ]
        for _, _, _, heard, side in sorted(found, key=lambda one: one[:3]):
            yield heard, side


def _reached(to: str, side: str) -> str:
    if to == "split-forward":
        return f"split {side}"
    if to == "split-back":
        return "split left" if side == "right" else "split right"
    return to.replace("{side}", side)


def cue_interpreter_from(table: Mapping[str, object]) -> CueInterpreter:
    """The ear of data/ear.toml. Raises msgspec.ValidationError for a table that is none."""
    return CueInterpreter(
        msgspec.convert(table["words"], list[BodyCue]),
        msgspec.convert(table.get("lifted", []), list[LiftCue]),
    )
