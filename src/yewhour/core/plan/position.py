"""Positions on the mat, and the least time to change from one to another."""

from collections.abc import Mapping

import msgspec

from yewhour.core.problem import Problem


class Positions(msgspec.Struct, frozen=True):
    """Seconds of the quickest careful way between any two positions, by (from, to)."""

    names: tuple[str, ...]
    moving_s: dict[tuple[str, str], float]
    floor: frozenset[str] = frozenset()
    facing_down: frozenset[str] = frozenset()

    def between(self, start: str, end: str) -> float:
        """Seconds to change from one position to another; "" is anywhere and costs nothing."""
        return self.moving_s.get((start, end), 0.0)


def position_graph(
    edges: Mapping[tuple[str, str], float],
    floor: frozenset[str] = frozenset(),
    facing_down: frozenset[str] = frozenset(),
) -> Positions:
    """All shortest ways from single changes (Floyd and Warshall); a change goes both ways.

    Raises Problem when a position can't be reached from another.
    """
    names = tuple(dict.fromkeys(name for edge in edges for name in edge))
    least = {(a, b): 0.0 if a == b else float("inf") for a in names for b in names}
    for (a, b), moving_s in edges.items():
        least[a, b] = min(least[a, b], moving_s)
        least[b, a] = min(least[b, a], moving_s)
    for via in names:
        for a in names:
            first = least[a, via]
            for b in names:
                if first + least[via, b] < least[a, b]:
                    least[a, b] = first + least[via, b]
    for (a, b), moving_s in least.items():
        if moving_s == float("inf"):
            raise Problem(f"There is no way from {a} to {b}.", "positions", "Add a change between them.")
    return Positions(names, least, floor, facing_down)
