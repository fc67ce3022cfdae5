"""Hearing: what words bring a body to, for a listener who knows nothing but what is said."""

import re
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.plan.position import base_of
from yewhour.core.sides import mirrored


class Heard(msgspec.Struct, frozen=True):
    """Words that bring the body to a base, from some bases or (none named) from anywhere."""

    to: str
    say: tuple[str, ...]
    start: tuple[str, ...] = msgspec.field(default=(), name="from")


class Ear:
    """Listens: lines in, bases out."""

    def __init__(self, words: Sequence[Heard]) -> None:
        self._words = [(one, [re.compile(text, re.IGNORECASE) for text in one.say]) for one in words]

    def after(self, here: str, line: str) -> str:
        """The base a listener is in after a line: `split right` has the foot in front behind it."""
        found = sorted(
            ((match.start(), -match.end(), number, match) for number, (_, patterns) in enumerate(self._words)
             for pattern in patterns for match in pattern.finditer(line)),
            key=lambda one: one[:3],
        )  # fmt: skip
        for _, _, number, match in found:
            heard = self._words[number][0]
            if heard.start and base_of(here) not in heard.start:
                continue
            here = _reached(heard.to, match)
        return here


def _reached(to: str, match: re.Match[str]) -> str:
    side = next((group.lower() for group in match.groups() if group), "")
    if to == "split-forward":
        return f"split {side}"
    if to == "split-back":
        return f"split {mirrored(side)}"  # type: ignore[arg-type]
    return to.replace("{side}", side)


def ear_of(table: Mapping[str, object]) -> Ear:
    """The ear of data/ear.toml. Raises msgspec.ValidationError for a table that is none."""
    return Ear(msgspec.convert(table["words"], list[Heard]))
