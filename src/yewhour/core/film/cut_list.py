"""What is kept of a camera's file, and what is cut out of it and why: before the class, after it, what she
cut out in the take, and stillness that is longer than planned, so that the film is as long as was promised.

Nothing is cut within a spoken line, and of stillness only where both sides lie alike. Seconds are of the
recording; `in_film` and `in_recording` (take/cutting.py) carry a moment over.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Literal

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.review.review import Review
from yewhour.core.take.cutting import Range, in_recording, joined_ranges
from yewhour.core.transcript.transcript import HeardWord, Transcript

Reason = Literal["before", "marked", "still", "rest", "after", "hers"]
LEAD_S, TAIL_S = 1.5, 2.0  # before the first word and after the last thing of the class
STILL_S = 6.0  # silence from which on some of it can go
LEFT_S = 4.0  # of it that stays
NEAR_S = 0.5  # to the promise
LEAST_CUT_S = 0.5
REST_GIVES = 0.1  # of its planned length, that a rest can do without
TOLD = {
    "before": "before the class begins", "marked": "you cut it out", "still": "longer still than planned",
    "rest": "what a rest can do without",
    "after": "after the class", "hers": "as you wish",
}  # fmt: skip


class Cut(msgspec.Struct, frozen=True):
    """A stretch of the recording that is not in the film, and why."""

    start_s: float
    end_s: float
    why: Reason


class Stillness(msgspec.Struct, frozen=True):
    """A stretch in which nothing is said, and how many seconds may go of all there are of what it is in."""

    start_s: float
    end_s: float
    most_s: float
    of: str = ""
    why: Reason = "still"


class CutList(msgspec.Struct, frozen=True):
    """The cuts of a recording, in order; none overlap. promised_s: the length the film was to have."""

    length_s: float
    cuts: tuple[Cut, ...]
    promised_s: float

    @property
    def ranges(self) -> tuple[Range, ...]:
        """The cuts as ranges, those that touch as one."""
        return joined_ranges((one.start_s, one.end_s) for one in self.cuts)

    @property
    def pieces(self) -> list[Range]:
        """What is kept, in order."""
        found, at = list[Range](), 0.0
        for start, end in (*self.ranges, (self.length_s, self.length_s)):
            if start > at:
                found.append((at, start))
            at = end
        return found

    @property
    def film_s(self) -> float:
        """How long the film is."""
        return sum(end - start for start, end in self.pieces)


def cut_list(
    length_s: float,
    begins_s: float,
    ends_s: float,
    marked: Iterable[Range] = (),
    still: Sequence[Stillness] = (),
    promised_s: float = 0.0,
    spare_s: tuple[float, float] = (0.0, 0.0),
) -> CutList:
    """The cuts that make the film of a recording, of which the class is from one second to another.

    still: where something may go if the film is longer than promised; the longest gives first, from its
    middle; what a rest can do without goes last. spare_s: what may go before that at the beginning, and at
    the end, that first. promised_s: 0 for a film as long as it comes.
    """
    begins_s, ends_s = max(0.0, begins_s), min(length_s, ends_s)
    cuts = list[Cut]()
    inside = joined_ranges((max(begins_s, start), min(ends_s, end)) for start, end in marked)
    cuts += [Cut(start, end, "marked") for start, end in inside]
    if promised_s:
        over_s = ends_s - begins_s - sum(end - start for start, end in inside) - promised_s
        longer = list(_giving([one for one in still if one.why == "still"], over_s, inside))
        over_s -= sum(one.end_s - one.start_s for one in longer)
        tail_s = min(max(0.0, over_s), spare_s[1])
        lead_s = min(max(0.0, over_s - tail_s), spare_s[0])
        ends_s, begins_s = ends_s - tail_s, begins_s + lead_s
        rests = [one for one in still if one.why != "still"]
        cuts += [*longer, *_giving(rests, over_s - tail_s - lead_s, inside)]
    cuts += [Cut(0.0, begins_s, "before"), Cut(ends_s, length_s, "after")]
    kept = sorted((one for one in cuts if one.end_s - one.start_s > 0), key=lambda one: one.start_s)
    return CutList(length_s, tuple(kept), promised_s)


def between(pieces: Sequence[Range], cuts: CutList) -> Iterator[Cut]:
    """The cuts that leave these pieces, each with the reason of the one that it was; pieces in order."""
    at_s = 0.0
    for start_s, end_s in (*pieces, (cuts.length_s, cuts.length_s)):
        if start_s > at_s:
            middle = (at_s + start_s) / 2
            of = (one.why for one in cuts.cuts if one.start_s <= middle <= one.end_s)
            why: Reason = next(of, "hers")
            yield Cut(at_s, start_s, why)
        at_s = end_s


def _giving(still: Iterable[Stillness], over_s: float, inside: Sequence[Range]) -> Iterator[Cut]:
    """What stillnesses give of so many seconds that are too many: the longest first, from their middles."""
    given: dict[str, float] = {}
    for one in sorted(still, key=lambda one: one.start_s - one.end_s):
        gone_s = given.get(one.of, 0.0) if one.of else 0.0
        gives_s = min(over_s, one.most_s - gone_s, one.end_s - one.start_s - LEFT_S)
        free = all(one.end_s <= start or end <= one.start_s for start, end in inside)
        if over_s <= NEAR_S or gives_s < LEAST_CUT_S or not free:
            continue
        middle = (one.start_s + one.end_s) / 2
        yield Cut(middle - gives_s / 2, middle + gives_s / 2, one.why)
        given[one.of] = gone_s + gives_s
        over_s -= gives_s


def cuts_of(back: Review, hearing: Transcript | None, length_s: float) -> CutList:
    """The cuts of a recording that was looked back at, to the length that was promised."""
    last_s = max((one.end_s for one in back.segments), default=back.length_s)
    words = hearing.words if hearing is not None else ()
    first_s = min((one.start_s for one in words), default=in_recording(back.cuts, back.segments[0].start_s))
    begun_s = in_recording(back.cuts, back.segments[0].start_s) if back.segments else 0.0
    begins_s = max(0.0, min(max(first_s, begun_s), begun_s + LEAD_S) - LEAD_S)
    ends_s = in_recording(back.cuts, min(last_s, back.length_s)) + TAIL_S
    class_s = in_recording(back.cuts, min(last_s, back.length_s))
    spare_s = max(0.0, min(first_s, begun_s) - begins_s), max(0.0, min(length_s, ends_s) - class_s)
    return cut_list(length_s, begins_s, ends_s, back.cuts, [*_still(back, words)], back.target_s, spare_s)


def _still(back: Review, words: Sequence[HeardWord]) -> Iterable[Stillness]:
    """Silences within what took longer than planned, on no side; a rest may give a little more."""
    for one in back.segments:
        gives_s = one.longer_s
        why: Reason = "still"
        if one.segment.behaviour.is_rest:
            spare_s = REST_GIVES * seconds(one.segment.length)
            why = "still" if gives_s > spare_s else "rest"
            gives_s += spare_s
        if gives_s < LEAST_CUT_S or one.segment.side in ("left", "right"):
            continue
        start_s, end_s = (in_recording(back.cuts, at_s) for at_s in (one.start_s, one.end_s))
        spoken = [word for word in words if word.end_s > start_s and word.start_s < end_s]
        edges = [start_s, *(at for word in spoken for at in (word.start_s, word.end_s)), end_s]
        for first_s, last_s in zip(edges[::2], edges[1::2], strict=True):
            if last_s - first_s >= STILL_S:
                yield Stillness(first_s, last_s, gives_s, one.segment.id, why)
