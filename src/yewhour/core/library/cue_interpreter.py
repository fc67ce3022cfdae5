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


class CueInterpreter:
    """Listens: lines in, bases out. What a line means is remembered."""

    def __init__(self, words: Sequence[BodyCue]) -> None:
        self._words = tuple(words)
        self._known: dict[str, tuple[tuple[BodyCue, str], ...]] = {}

    def after(self, here: str, line: str) -> str:
        """The base a listener is in after a line: `split right` has the right foot in front."""
        if line not in self._known:
            self._known[line] = tuple(self._meant(line))
        for heard, side in self._known[line]:
            if not heard.start or base_of(here) in heard.start:
                here = _reached(heard.to, side)
        return here

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
    return CueInterpreter(msgspec.convert(table["words"], list[BodyCue]))
