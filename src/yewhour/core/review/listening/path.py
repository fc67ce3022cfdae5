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
BEGUN, WAY_S, AGAIN = 9.0, 0.3, 3.0  # what it costs to begin a movement, a second of the way, the same one
BESIDE, ANEW_S = 0.05, 8.0  # what a bin of other talk costs; the way from it to a movement
SPREAD = 0.7  # of lengths against the usual (log-normal)
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
        self._change = np.ascontiguousarray(_changes(movements, positions).T)
        usual = np.array([_usual_s(one) for one in movements]) / BIN_S
        self._lengths = np.arange(SHORTEST, LONGEST)
        apart = np.log(self._lengths[:, None] / usual[None, :])
        self._fits = (-(apart**2) / (2 * SPREAD**2)).astype(np.float32)

    def best(self, scores: Floats, cost: Floats) -> list[Stretch]:
        """The movements along the best path. scores: evidence of each bin, (movements, bins). cost: of
        beginning in each bin, (bins + 1,)."""
        sums = np.concatenate([np.zeros((1, len(scores)), np.float32), np.cumsum(scores.T, axis=0)])
        size, count = len(sums) - 1, sums.shape[1]
        ended = np.full((size + 1, count), -np.inf, np.float32)  # the best that ends with a movement at a bin
        since = np.zeros((size + 1, count), np.int32)
        begun = np.full((size + 1, count), -np.inf, np.float32)  # the best that begins one there
        came = np.full((size + 1, count), -1, np.int32)  # from which; -1: from other talk
        beside = np.zeros(size + 1, np.float32)  # the best that ends with other talk
        spoke = np.full(size + 1, -1, np.int32)  # the movement other talk began behind; -1: it goes on
        begun[0] = -BEGUN
        every = np.arange(count)
        for at in range(1, size + 1):
            starts = at - self._lengths[: max(0, at - SHORTEST + 1)]
            if len(starts):
                value = begun[starts] + sums[at] - sums[starts] + self._fits[: len(starts)]
                longest = value.argmax(axis=0)
                ended[at], since[at] = value[longest, every], starts[longest]
            last = int(ended[at].argmax())
            goes_on = beside[at - 1] - BESIDE
            beside[at] = max(goes_on, ended[at, last])
            spoke[at] = last if ended[at, last] > goes_on else -1
            onward = ended[at] - self._change  # (to, from)
            best = onward.argmax(axis=1)
            behind, anew = onward[every, best], beside[at] - BEGUN - WAY_S * ANEW_S
            begun[at] = np.maximum(behind, anew) - cost[at]
            came[at] = np.where(behind > anew, best, -1)
        found, at, movement = [], size, -1
        while at > 0:
            if movement < 0:
                movement = int(spoke[at])
                at -= movement < 0
                continue
            start = int(since[at, movement])
            found.append(Stretch(movement, start, at))
            at, movement = start, int(came[start, movement]) if start else -1
        return found[::-1]


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
