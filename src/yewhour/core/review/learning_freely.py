"""What a class that was taught in other words teaches: its pieces are known as wholes, not by their parts.

Of each piece that was surely found its length is known, and what the plan had in it of ways, of teaching, of
breaths and of counts. The shares of these four with which the pieces last as long as they did are those of
the least squares, held near to the usual as far as the pieces say little of them; a piece that is far off
weighs less.
"""

from collections.abc import Callable, Iterator, Sequence
from itertools import groupby, pairwise
from typing import NamedTuple

from yewhour.core.lengths import seconds
from yewhour.core.plan.own_shares import What
from yewhour.core.review.review import ActualSegment, Review, spent_on

LIKELY, SURE = 0.6, 0.8  # of a piece that anything is learnt of; that weighs fully
HALF = 0.5  # what one that is only likely weighs
OFF_S = 8.0  # that the length of a piece is usually off
SPREAD = 0.25  # of teachers' shares
FAR_S = 12.0  # from where on a piece weighs less
ROUNDS = 12
TOLD = 0.5  # of a share that has to come from the pieces, not from the usual
PARTS: tuple[What, ...] = ("ways", "teaching", "breath", "count")


class Piece(NamedTuple):
    """A piece of a class: usual seconds of each part and of all else, the seconds it took, what it weighs."""

    parts: dict[What, float]
    rest_s: float
    real_s: float
    weight: float

    def off_s(self, shares: dict[What, float]) -> float:
        """How much longer it was than these shares make it."""
        return self.real_s - self.rest_s - sum(shares[what] * self.parts[what] for what in PARTS)


def shares_of(
    back: Review, usual: Callable[[What, str, float], float]
) -> Iterator[tuple[What, float, float]]:
    """(what, usual seconds, seconds as they took) of each piece, for what the pieces tell enough of."""
    pieces = list(_pieces(back, usual))
    held = (OFF_S / SPREAD) ** 2
    shares: dict[What, float] = dict.fromkeys(PARTS, 1.0)
    told: dict[What, float] = {}
    weights = [one.weight for one in pieces]
    for _ in range(ROUNDS):
        for what in PARTS:
            square = pull = held
            for weight, one in zip(weights, pieces, strict=True):
                mine_s = one.parts[what]
                square += weight * mine_s**2
                pull += weight * mine_s * (one.off_s(shares) + shares[what] * mine_s)
            shares[what], told[what] = pull / square, 1 - held / square
        weights = [one.weight * min(1.0, FAR_S / max(0.1, abs(one.off_s(shares)))) for one in pieces]
    for what in PARTS:
        if told[what] >= TOLD:
            mine = [one.parts[what] for one in pieces if one.parts[what]]
            yield from ((what, usual_s, shares[what] * usual_s) for usual_s in mine)


def _pieces(back: Review, usual: Callable[[What, str, float], float]) -> Iterator[Piece]:
    """The pieces that were surely found, the last one apart: nobody knows when that ended."""
    groups = [list(group) for _, group in groupby(back.segments, key=_key)]
    for here, after in pairwise(groups):
        sure = min(one.sure for one in (*here, after[0]))
        if sure >= LIKELY and here[-1].end_s > here[0].start_s:
            yield _piece(here, usual, 1.0 if sure >= SURE else HALF)


def _key(one: ActualSegment) -> str:
    """What segments of one piece have in common."""
    use = one.segment.use
    return use.flow or use.setup_for or use.key


def _piece(
    segments: Sequence[ActualSegment], usual: Callable[[What, str, float], float], weight: float
) -> Piece:
    parts: dict[What, float] = dict.fromkeys(PARTS, 0.0)
    rest_s = 0.0
    for one in segments:
        segment, spent = one.segment, spent_on(one)
        planned_s = seconds(segment.length)
        if spent == "ways":
            parts["ways"] += usual("ways", "", planned_s)
        elif spent == "teaching":
            fixed_s = min(planned_s, seconds(segment.use.fixed))
            parts["ways"] += usual("ways", "", fixed_s)
            parts["teaching"] += usual("teaching", "", planned_s - fixed_s)
        elif segment.behaviour.is_hold:
            parts["breath"] += usual("breath", "", planned_s)
        elif segment.behaviour.lasts in ("rhythm", "count"):
            parts["count"] += usual("count", "", planned_s)
        else:
            rest_s += planned_s
    return Piece(parts, rest_s, segments[-1].end_s - segments[0].start_s, weight)
