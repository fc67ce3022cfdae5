"""The best of all paths of movements over a recording, with other talk between them: a semi-Markov search.

What may follow what comes from the ways between positions; how long something is, from its dose.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from yewhour.core.library.movement import Movement
from yewhour.core.library.position import PositionGraph
from yewhour.core.review.listening.spoken_of import sided

BIN_S = 2.0
SHORTEST, LONGEST = 3, 130  # bins of one movement, both sides
BEGUN, WAY_S, AGAIN = 8.0, 0.3, 3.0  # what it costs to begin a movement, a second of the way, the same one
BESIDE, ANEW_S = 0.05, 8.0  # what a bin of other talk costs; the way from it to a movement
SPREAD = 0.6  # of lengths against the usual (log-normal)
LOST_WAY_S = 15.0  # the longest way that is thought of; and where none is known
BREATH_S, TOLD_S = 6.5, 12.0  # of a breath of hers, and what it takes to bring one into a movement
LONGEST_S = 400.0
COUNT_S, LEAST_REP_S = 0.9, 2.0  # of a count, and of a repetition at least
Floats = NDArray[np.float32]


class Stretch(NamedTuple):
    """A movement by its place among those that can be heard, from one bin to before another."""

    place: int
    start: int
    end: int


class PathFinder:
    """Knows how long each movement usually is, and what it costs to go from one to another."""

    def __init__(self, movements: Sequence[Movement], positions: PositionGraph) -> None:
        self._change = _changes(movements, positions)
        self._spread = float(np.ptp(self._change)) if len(movements) else 0.0
        usual = np.array([_usual_s(one) for one in movements]) / BIN_S
        apart = np.log(np.arange(LONGEST - 1, SHORTEST - 1, -1)[:, None] / usual[None, :])
        self._fits = (-(apart**2) / (2 * SPREAD**2)).astype(np.float32)  # from the longest to the shortest

    def best(self, scores: Floats, cost: Floats) -> list[Stretch]:
        """The movements along the best path. scores: evidence of each bin, (movements, bins). cost: of
        beginning in each bin, (bins + 1,).

        Going ahead only what is best is kept; which it was is worked out on the way back, for the few
        bins that are on the path.
        """
        sums = np.concatenate([np.zeros((1, len(scores)), np.float32), np.cumsum(scores.T, axis=0)])
        size, count = len(sums) - 1, sums.shape[1]
        ended = np.full((size + 1, count), -np.inf, np.float32)  # the best that ends with a movement at a bin
        since = np.full(
            (size + 1, count), -np.inf, np.float32
        )  # the best that begins one, less its sum there
        beside = np.zeros(size + 1, np.float32)  # the best that ends with other talk
        since[0] = -BEGUN
        for at in range(1, size + 1):
            if at >= SHORTEST:
                ended[at] = self._whole(since, at).max(axis=0) + sums[at]
            beside[at] = max(beside[at - 1] - BESIDE, ended[at].max())
            begun = np.maximum(self._onward(ended[at])[1], beside[at] - BEGUN - WAY_S * ANEW_S)
            since[at] = begun - cost[at] - sums[at]
        found, at, movement = [], size, -1
        while at > 0:
            if movement < 0:
                last = int(ended[at].argmax())
                if ended[at, last] > beside[at - 1] - BESIDE:
                    movement = last
                else:
                    at -= 1
                continue
            whole = self._whole(since, at)[:, movement]
            start = at - SHORTEST - int(whole[::-1].argmax())  # of what is worth as much the shortest
            found.append(Stretch(movement, start, at))
            at, movement = start, self._before(ended, beside, start, movement)
        return found[::-1]

    def _whole(self, since: Floats, at: int) -> Floats:
        """What movements that end at a bin are worth by where they begin: (beginnings, movements)."""
        first = max(0, at - LONGEST + 1)
        behind = at - SHORTEST + 1
        return since[first:behind] + self._fits[first - behind :]

    def _onward(self, ended: Floats) -> tuple[NDArray[np.int64], Floats]:
        """The movements that anything can follow best, and the best that goes to each movement."""
        near = np.nonzero(ended >= ended.max() - self._spread)[0]  # no way is so short that others could win
        return near, (ended[near, None] - self._change[near]).max(axis=0)

    def _before(self, ended: Floats, beside: Floats, at: int, movement: int) -> int:
        """What a movement that begins at a bin comes behind; -1 for other talk."""
        if not at:
            return -1
        onward = ended[at] - self._change[:, movement]
        best = int(onward.argmax())
        return best if onward[best] > beside[at] - BEGUN - WAY_S * ANEW_S else -1


def _changes(movements: Sequence[Movement], positions: PositionGraph) -> Floats:
    """What it costs to go from each movement to each other one."""
    ends = [sided(one.end or one.start).split(" or ")[0] for one in movements]
    starts = [sided(one.start) for one in movements]
    known = {
        way: min(LOST_WAY_S, positions.seconds(*way))
        for way in ((end, start) for end in {*ends} for start in {*starts})
    }
    ways = np.array([[known[end, start] for start in starts] for end in ends], np.float32)
    return np.asarray(BEGUN + WAY_S * ways + AGAIN * np.eye(len(movements)), np.float32)


def repetition_s(movement: Movement) -> float:
    """How long a repetition usually is, where nobody has said."""
    return max(LEAST_REP_S, COUNT_S * sum(counts for _, counts in movement.rhythm))


def _usual_s(movement: Movement) -> float:
    """How long a movement is taught for, both sides where it has two."""
    _, usual, _ = movement.dose
    if movement.kind == "hold":
        doing = usual * BREATH_S
    elif movement.behaviour.is_clock:
        doing = float(usual)
    else:
        doing = usual * repetition_s(movement)
    sides = 2 if movement.sides == "one" else 1
    return min(LONGEST_S, max(16.0, sides * doing + TOLD_S))
