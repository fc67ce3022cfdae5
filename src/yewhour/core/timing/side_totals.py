"""What each side has got of a class. All that is told of the two sides, anywhere, is told from here."""

from collections.abc import Iterable

import msgspec

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.library.names import listed
from yewhour.core.timing.layout import Segment

SAME = TICKS_PER_S  # ticks by which the two sides of a movement may differ and are the same to anybody


class SideTotals(msgspec.Struct, frozen=True):
    """Ticks of work on each side; the names of movements that differ, as was meant and as was not."""

    left: int
    right: int
    meant: tuple[str, ...] = ()
    unmeant: tuple[str, ...] = ()

    @property
    def any(self) -> bool:
        """Whether anything is done on one side at all."""
        return bool(self.left or self.right)

    @property
    def equal(self) -> bool:
        """Whether both have got the same."""
        return not self.meant and not self.unmeant and abs(self.left - self.right) <= SAME

    def told(self) -> str:
        """How the sides stand, as a sentence; "" for a class without any."""
        if not self.any:
            return ""
        if self.equal:
            return "Both sides are equal."
        sides = f"Left {_shown(self.left)}, right {_shown(self.right)}"
        if self.unmeant:
            return f"{sides}: {listed(list(self.unmeant))} differ{'s' if len(self.unmeant) == 1 else ''}."
        if self.meant:
            return f"{sides}, as you meant in {listed(list(self.meant))}."
        return f"{sides}."


class MovementSides(msgspec.Struct):
    """What the two sides of one movement have got, in ticks; first: where it comes first."""

    first: Segment
    left: int = 0
    right: int = 0
    meant: bool = False

    @property
    def differ(self) -> bool:
        """Whether one has got more, to anybody."""
        return abs(self.left - self.right) > SAME


def movement_sides(segments: Iterable[Segment]) -> list[MovementSides]:
    """Each movement that is done on one side at a time, in the order they come.

    Lying on a side to rest, or rolling over it, is no work on that side.
    """
    found: dict[str, MovementSides] = {}
    for segment in segments:
        use = segment.use
        if segment.behaviour.framing or segment.is_closing_pause or use.movement.side_by:
            continue
        if segment.side in ("left", "right"):
            sides = found.setdefault(use.movement.id, MovementSides(segment))
            if segment.side == "left":
                sides.left += segment.length
            else:
                sides.right += segment.length
            sides.meant = sides.meant or use.step.second is not None
    return list(found.values())


def side_totals(segments: Iterable[Segment]) -> SideTotals:
    """The totals of a class."""
    found = movement_sides(segments)
    return SideTotals(
        left=sum(one.left for one in found),
        right=sum(one.right for one in found),
        meant=tuple(one.first.name for one in found if one.differ and one.meant),
        unmeant=tuple(one.first.name for one in found if one.differ and not one.meant),
    )


def _shown(ticks: int) -> str:
    return show_length(round(ticks / TICKS_PER_S))
