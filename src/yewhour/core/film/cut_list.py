"""What is kept of a camera's file, and what is cut out of it and why: before the class, after it, what she
cut out in the take, and stillness that is longer than planned, so that the film is as long as was promised.

Nothing is cut within a spoken line, and of stillness only where both sides lie alike. A film that is shorter
than promised gets what is missing from the quiet of its rests, which is seen slower there. Seconds are of the
recording; `CutList.in_film` and `in_recording` carry a moment over.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Literal, NamedTuple

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.review.review import ActualSegment, Review
from yewhour.core.take.cutting import Range, in_recording, joined_ranges
from yewhour.core.transcript.transcript import HeardWord, Transcript

Reason = Literal["before", "marked", "still", "rest", "after", "hers"]
LEAD_S, TAIL_S = 1.5, 2.0  # before the first word and after the last thing of the class
STILL_S = 6.0  # silence from which on some of it can go
LEFT_S = 4.0  # of it that stays
NEAR_S = 0.5  # to the promise
LEAST_CUT_S = 0.5
REST_GIVES = 0.1  # of its planned length, that a rest can do without
SLOWEST = 2.0  # times as long, that the quiet of a rest can be seen
CLEAR_S = 1.0  # from what is said, that stays as quick as it was
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


class Slower(msgspec.Struct, frozen=True):
    """A stretch of the recording in which nobody speaks, and by how much longer it is in the film."""

    start_s: float
    end_s: float
    by_s: float


class Piece(NamedTuple):
    """A stretch of the recording, and how long it is in the film."""

    start_s: float
    end_s: float
    long_s: float

    @property
    def slow(self) -> float:
        """How many times as long."""
        return self.long_s / (self.end_s - self.start_s)


class CutList(msgspec.Struct, frozen=True):
    """The cuts of a recording, in order; none overlap. promised_s: the length the film was to have. slower:
    what lasts longer in the film, in order, clear of the cuts."""

    length_s: float
    cuts: tuple[Cut, ...]
    promised_s: float
    slower: tuple[Slower, ...] = ()

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
        return sum(end - start for start, end in self.pieces) + sum(one.by_s for one in self.slower)

    @property
    def changes(self) -> tuple[Cut | Slower, ...]:
        """What can be put back, by its number: the cuts, and then what is slower."""
        return (*self.cuts, *self.slower)

    @property
    def played(self) -> list[Piece]:
        """What is kept, each piece with how long it is in the film."""
        return played(self.pieces, self.slower)

    def in_film(self, at_s: float) -> float:
        """Where a second of the recording lies in the film; what is cut out lies at its cut."""
        return carried(self.played, at_s)

    def in_recording(self, film_s: float) -> float:
        """Where a second of the film lies in the recording: at a cut, behind it."""
        for piece in self.played:
            if film_s < piece.long_s:
                return piece.start_s + film_s / piece.slow
            film_s -= piece.long_s
        return (self.pieces[-1][1] if self.pieces else self.length_s) + film_s


def played(pieces: Sequence[Range], slower: Sequence[Slower]) -> list[Piece]:
    """Pieces, parted where what is slower begins and ends; each with how long it is in the film."""
    found = list[Piece]()
    for start_s, end_s in pieces:
        at_s = start_s
        for one in slower:
            if start_s <= one.start_s and one.end_s <= end_s:
                if one.start_s > at_s:
                    found.append(Piece(at_s, one.start_s, one.start_s - at_s))
                found.append(Piece(one.start_s, one.end_s, one.end_s - one.start_s + one.by_s))
                at_s = one.end_s
        if end_s > at_s:
            found.append(Piece(at_s, end_s, end_s - at_s))
    return found


def carried(pieces: Sequence[Piece], at_s: float) -> float:
    """Where a second of the recording lies in the film of these pieces; what is in none, between them."""
    film_s = 0.0
    for piece in pieces:
        if at_s < piece.end_s:
            return film_s + max(0.0, at_s - piece.start_s) * piece.slow
        film_s += piece.long_s
    return film_s


def cut_list(
    length_s: float,
    begins_s: float,
    ends_s: float,
    marked: Iterable[Range] = (),
    still: Sequence[Stillness] = (),
    promised_s: float = 0.0,
    spare_s: tuple[float, float] = (0.0, 0.0),
    quiet: Iterable[Range] = (),
) -> CutList:
    """The cuts that make the film of a recording, of which the class is from one second to another.

    still: where something may go if the film is longer than promised; the longest gives first, from its
    middle; what a rest can do without goes last. spare_s: what may go before that at the beginning, and at
    the end, that first. quiet: what can be seen slower if the film is shorter, the longest first; nothing of
    it where all of that is not enough. promised_s: 0 for a film as long as it comes.
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
    found = CutList(length_s, tuple(kept), promised_s)
    calm = joined_ranges((max(begins_s, start), min(ends_s, end)) for start, end in quiet)
    return msgspec.structs.replace(found, slower=_slower(found, calm)) if promised_s else found


def clear_of(slower: Iterable[Slower], cuts: Sequence[Cut]) -> tuple[Slower, ...]:
    """What is slower and is not cut into, in order."""
    free = [
        one for one in slower
        if all(one.end_s <= cut.start_s or cut.end_s <= one.start_s for cut in cuts)
    ]  # fmt: skip
    return tuple(sorted(free, key=lambda one: one.start_s))


def _slower(cuts: CutList, quiet: Iterable[Range]) -> tuple[Slower, ...]:
    """What of the quiet is seen slower, so that a film that is too short becomes as long as promised."""
    short_s = cuts.promised_s - cuts.film_s
    if short_s <= NEAR_S:
        return ()
    whole = (Slower(start_s, end_s, (SLOWEST - 1) * (end_s - start_s)) for start_s, end_s in quiet)
    found = list[Slower]()
    for one in sorted(clear_of(whole, cuts.cuts), key=lambda one: -one.by_s):
        if short_s > 0:
            found.append(msgspec.structs.replace(one, by_s=min(one.by_s, short_s)))
            short_s -= found[-1].by_s
    return clear_of(found, ()) if short_s <= 0 else ()


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
    if back.segments and back.segments[-1].segment.behaviour.is_rest:  # nobody said how long she lay
        later_s = min((one.start_s for one in words if one.start_s > class_s), default=length_s)
        ends_s = max(ends_s, min(later_s, begins_s + back.target_s + _out(back.cuts, begins_s)))
    spare_s = max(0.0, min(first_s, begun_s) - begins_s), max(0.0, min(length_s, ends_s) - class_s)
    quiet = list(_quiet(back, words, length_s)) if words else ()  # or else nobody knows what is quiet
    return cut_list(
        length_s, begins_s, ends_s, back.cuts, [*_still(back, words)], back.target_s, spare_s, quiet
    )


def _out(cuts: Sequence[Range], from_s: float) -> float:
    """How much is cut out from a second of the recording on."""
    return sum(end_s - max(start_s, from_s) for start_s, end_s in cuts if end_s > from_s)


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
        for first_s, last_s in _silences(back, one, words):
            yield Stillness(first_s, last_s, gives_s, one.segment.id, why)


def _quiet(back: Review, words: Sequence[HeardWord], length_s: float) -> Iterable[Range]:
    """The silences of rests on no side, clear of what is said around them, as far as they were recorded."""
    for one in back.segments:
        if one.segment.behaviour.is_rest and one.segment.side not in ("left", "right"):
            for start_s, end_s in _silences(back, one, words):
                start_s, end_s = start_s + CLEAR_S, min(end_s, length_s) - CLEAR_S
                if end_s - start_s >= STILL_S:
                    yield start_s, end_s


def _silences(back: Review, one: ActualSegment, words: Sequence[HeardWord]) -> Iterable[Range]:
    """Where nothing is said for six seconds in what was done, in seconds of the recording."""
    start_s, end_s = (in_recording(back.cuts, at_s) for at_s in (one.start_s, one.end_s))
    spoken = [word for word in words if word.end_s > start_s and word.start_s < end_s]
    edges = [start_s, *(at for word in spoken for at in (word.start_s, word.end_s)), end_s]
    for first_s, last_s in zip(edges[::2], edges[1::2], strict=True):
        if last_s - first_s >= STILL_S:
            yield first_s, last_s
