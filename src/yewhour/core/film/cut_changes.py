"""Changes to a cut list by hand: an edge pulled, a cut put back, one more; and what is to be said of them."""

from bisect import bisect_right
from collections.abc import Sequence

import msgspec

from yewhour.core.film.cut_list import LEAST_CUT_S, NEAR_S, Cut, CutList, Reason, clear_of
from yewhour.core.lengths import said_length, seconds, show_length
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.transcript import Transcript

UNEVEN_S = 1.5  # between what the sides were and what they are in the film, from which on it is told
HEARD_S = 2.0  # what is listened to on both sides of a cut


def put_back(cuts: CutList, number: int) -> CutList:
    """Without one of the cuts, or of what is slower: their numbers go on from the cuts'."""
    if number >= len(cuts.cuts):
        gone = number - len(cuts.cuts)
        return msgspec.structs.replace(cuts, slower=(*cuts.slower[:gone], *cuts.slower[gone + 1 :]))
    return _with(cuts, [one for at, one in enumerate(cuts.cuts) if at != number])


def cut_out(cuts: CutList, start_s: float, end_s: float, hearing: Transcript | None = None) -> CutList:
    """With one cut more, what it lies over taken into it; no line is cut into."""
    start_s, end_s = _bounded(cuts, outside_lines(start_s, hearing), outside_lines(end_s, hearing))
    if end_s - start_s < LEAST_CUT_S:
        return cuts
    kept: list[Cut] = []
    for one in cuts.cuts:
        if one.end_s < start_s or one.start_s > end_s:
            kept.append(one)
        else:
            start_s, end_s = min(start_s, one.start_s), max(end_s, one.end_s)
    return _with(cuts, [*kept, Cut(start_s, end_s, _reason(cuts, start_s, end_s))])


def pulled(
    cuts: CutList, number: int, first: bool, at_s: float, hearing: Transcript | None = None
) -> CutList:
    """With an edge of a cut at another second: its first or its last. It stays between its neighbours, and
    out of every line; pulled over its other edge the cut is gone."""
    one = cuts.cuts[number]
    least = cuts.cuts[number - 1].end_s if number else 0.0
    most = cuts.cuts[number + 1].start_s if number + 1 < len(cuts.cuts) else cuts.length_s
    at_s = min(most, max(least, outside_lines(at_s, hearing)))
    start_s, end_s = (at_s, one.end_s) if first else (one.start_s, at_s)
    if end_s - start_s < LEAST_CUT_S:
        return put_back(cuts, number)
    changed = list(cuts.cuts)
    changed[number] = Cut(start_s, end_s, one.why)
    return _with(cuts, changed)


def outside_lines(at_s: float, hearing: Transcript | None) -> float:
    """A second, or the nearer end of the word that is being said then."""
    words = hearing.words if hearing is not None else ()
    number = bisect_right(words, at_s, key=lambda one: one.start_s) - 1
    if number < 0 or at_s >= words[number].end_s:
        return at_s
    word = words[number]
    return word.start_s if at_s - word.start_s < word.end_s - at_s else word.end_s


def told_length(cuts: CutList) -> str:
    """How long the film is, beside what was promised."""
    film, over_s = show_length(round(cuts.film_s)), cuts.film_s - cuts.promised_s
    if abs(over_s) <= NEAR_S:
        return f"The film lasts {film}, as promised."
    return (
        f"The film lasts {film}: {said_length(over_s)} {'longer' if over_s > 0 else 'shorter'} than promised."
    )


def told_sides(before: TimedClass, there: TimedClass) -> str:
    """What cuts did to the sides, "" where they are as even as they were. there: the class in the film."""
    was, now = _sides(before), _sides(there)
    change_s = (now[0] - was[0]) - (now[1] - was[1])
    if abs(change_s) <= UNEVEN_S:
        return ""
    side = "left" if change_s < 0 else "right"
    return f"The cuts make the {side} side {said_length(change_s)} shorter than the other."


def _sides(timed: TimedClass) -> tuple[float, float]:
    left, right = (
        sum(seconds(one.length) for one in timed.segments if one.side == side) for side in ("left", "right")
    )
    return left, right


def _bounded(cuts: CutList, start_s: float, end_s: float) -> tuple[float, float]:
    first, last = sorted((start_s, end_s))
    return max(0.0, first), min(cuts.length_s, last)


def _reason(cuts: CutList, start_s: float, end_s: float) -> Reason:
    return "before" if start_s <= 0 else "after" if end_s >= cuts.length_s else "hers"


def _with(cuts: CutList, changed: Sequence[Cut]) -> CutList:
    kept = tuple(sorted(changed, key=lambda one: one.start_s))
    return msgspec.structs.replace(cuts, cuts=kept, slower=clear_of(cuts.slower, kept))
