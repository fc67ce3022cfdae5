"""Facets: what of a body may be otherwise than its position says, from the trunk to the eyes.

A movement's `shape` names the facets it is held in and leaves behind it. What the next one does not hold is
undone in words before it; what it holds the same is kept, and not told again.
"""

from collections.abc import Iterator, Mapping

import msgspec

from yewhour.core.sides import Side, fill, tokens

LIFTED = ("legs", "hips")
Shape = Mapping[str, str]  # facet -> value; what is not named is at ease


class FacetValue(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """told: how a state is told. undo: what undoes it, "" where nothing need be said. keep: what is said
    where the next movement holds it too, "" for nothing. up: nobody rests in it."""

    told: str
    undo: str = ""
    keep: str = ""
    up: bool = False


class Facets:
    """The facets there are, in the order in which they are undone, each with its values."""

    def __init__(self, table: Mapping[str, Mapping[str, FacetValue]] = {}) -> None:
        self.names = tuple(table)
        self._values: dict[tuple[str, str], FacetValue] = {}
        for facet, values in table.items():
            for name, value in values.items():
                for side in ("right", "left") if tokens(name) else ("both",):
                    told, undo, keep = (fill(text, side) for text in (value.told, value.undo, value.keep))
                    filled = FacetValue(told, undo, keep, value.up)
                    self._values[facet, fill(name, side)] = filled

    def fault(self, shape: Shape) -> str:
        """What is wrong with a shape as it is written, side tokens and all; "" for nothing."""
        for facet, value in shape.items():
            if facet not in self.names:
                return f"{facet!r} is no facet. There are: {', '.join(self.names)}."
            if (facet, fill(value, "right")) not in self._values:
                known = ", ".join(dict.fromkeys(name for one, name in self._values if one == facet))
                return f"{value!r} is no value of {facet}. There are: {known}."
        return ""

    def told(self, shape: Shape) -> tuple[str, ...]:
        """A shape in words: `head up`, `right leg up`."""
        return tuple(self._values[facet, shape[facet]].told for facet in self.names if facet in shape)

    def undone(self, before: Shape, after: Shape) -> Iterator[str]:
        """Words of what must be said down again: it was so before, and is not after.

        A leg, or the hips, come down before they go elsewhere; hands and trunk go there from where they are.
        """
        for facet in (one for one in self.names if one in before):
            gone = facet not in after or (facet in LIFTED and after[facet] != before[facet])
            if gone and (words := self._values[facet, before[facet]].undo):
                yield words

    def kept(self, before: Shape, after: Shape) -> Iterator[str]:
        """Words of what is not to be let go: it was so before, and still is."""
        for facet in (one for one in self.names if one in before and before[one] == after.get(one)):
            if words := self._values[facet, before[facet]].keep:
                yield words

    def up(self, shape: Shape) -> tuple[str, ...]:
        """The facets of a shape in which nobody rests."""
        return tuple(f for f, value in shape.items() if self._values[f, value].up)


def shape_on(shape: Shape, side: Side) -> dict[str, str]:
    """A movement's shape on a side."""
    return {facet: fill(value, side) for facet, value in shape.items()}
