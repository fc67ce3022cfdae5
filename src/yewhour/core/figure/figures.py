"""The figures there are: of positions, and of movements that have their own."""

import re
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.figure.body import Figure
from yewhour.core.figure.figure_line import base_named, read_figure
from yewhour.core.problem import Problem


def best(there: Sequence[Figure]) -> Figure | None:
    """Of the figures of a movement, the one that shows it best: which says so, else where it goes to."""
    told = [one for one in there if one.best]
    return told[0] if told else there[min(1, len(there) - 1)] if there else None


class Figures(msgspec.Struct, frozen=True):
    """positions: a figure by what a position is called without its sides. own: one to three of a movement, by
    its id: from where to where it goes.
    """

    positions: Mapping[str, Figure]
    own: Mapping[str, tuple[Figure, ...]] = {}

    def of(self, movement: str, position: str) -> tuple[Figure, ...]:
        """The figures of a movement done in a position; none where neither has one."""
        found = self.own.get(movement)
        if found:
            return found
        one = self.at(position)
        return (one,) if one is not None else ()

    def at(self, position: str) -> Figure | None:
        """The figure of a position: of the first of several, of its base where it has no form of its own."""
        name = plain_position(position)
        return self.positions.get(name) or self.positions.get(name.partition(" ")[0])


def plain_position(position: str) -> str:
    """A position without its sides: `split low` of `split right low`, `on-side long` of `on-{other} long`."""
    first = position.split(" or ")[0].strip()
    first = re.sub(r"^on-(\{?\w+\}?)", "on-side", first)
    if re.fullmatch(r"wide \S+", first):
        return "wide side"
    words = [word for word in first.split() if not re.fullmatch(r"\{?(right|left|side|other)\}?", word)]
    return " ".join(words)


def figure_from(text: str, position: str, positions: Mapping[str, Figure], where: str = "") -> Figure:
    """The figure of a line. position: what it goes on from where it names none. Raises Problem."""
    name, rest = base_named(text)
    if name and name not in positions:
        raise Problem(f"No position is called {name!r}.", where, "Use one of data/figures/positions.toml.")
    base = positions.get(name or plain_position(position)) or positions.get(
        plain_position(position).split(" ")[0]
    )
    return read_figure(rest, base, where)
