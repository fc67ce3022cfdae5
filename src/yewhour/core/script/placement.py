"""Place: which cues are said, in which wording, and when.

Musts and lines tied to a moment come first, by what is kept first; then the best set of each segment's
body lines (see `choose`) within its share of speech is spread over the silence that is left. Nothing
overlaps, and at least 0.4 s lie between two lines.
"""

from bisect import bisect_left, bisect_right, insort
from collections.abc import Iterator, Sequence

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.script.cue import Candidate, Cue, Dropped
from yewhour.core.script.line_selection import LineRequest, SpacingRule, best_lines
from yewhour.core.sides import evened
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.speech import GAP, Duration

AGAIN = ticks(180)  # a line is not said twice within three minutes when there is another wording


class SpokenTrack:
    """The time already spoken for. Intervals are in ticks and never overlap."""

    def __init__(self) -> None:
        self._starts: list[int] = []
        self._ends: list[int] = []

    def nearest(self, earliest: int, latest: int, length: int, aim: int) -> int | None:
        """The start nearest to `aim`, from earliest to latest, that leaves a gap on both sides."""
        if latest < earliest:
            return None
        best: int | None = None
        index = bisect_left(self._ends, earliest - GAP)
        low = earliest if index == 0 else max(earliest, self._ends[index - 1] + GAP)
        while low <= latest:
            ceiling = self._starts[index] - GAP - length if index < len(self._starts) else latest
            high = min(latest, ceiling)
            if low <= high:
                start = min(max(aim, low), high)
                if best is None or abs(start - aim) < abs(best - aim):
                    best = start
                elif low > aim:
                    break
            if index >= len(self._starts):
                break
            low = max(earliest, self._ends[index] + GAP)
            index += 1
        return best

    def take(self, start: int, end: int) -> None:
        """Speak from start to end."""
        index = bisect_left(self._starts, start)
        self._starts.insert(index, start)
        self._ends.insert(index, end)

    def longest_silence(self, earliest: int, end: int) -> int:
        """Ticks of the longest stretch in which a line could stand."""
        index = bisect_right(self._ends, earliest)
        low, best = earliest, 0
        while index < len(self._starts) and self._starts[index] < end:
            best = max(best, self._starts[index] - GAP - low)
            low = self._ends[index] + GAP
            index += 1
        return max(best, end - low, 0)


# Lines on the way somewhere have just the room that was made for them, and are said even if said before.
TRUE = (
    "way", "call", "flow", "side", "exit", "prop", "caution", "remind", "setup", "place", "protect", "choice",
    "first", "leave",
)  # fmt: skip
APART = ticks(3)  # from the start of one body line to the next
SAID = 0.3  # what a body line is worth that was said before in this class, whenever that was
MOST_LINES = 40  # of one segment; nobody says more in a held posture
REST_SHARE, CLOCK_SHARE = 0.12, 0.7  # of a stillness; of what a held posture may have, held by the clock
HARD_SHARE = 0.4  # of a posture that is hard to speak in


def place_cues(
    candidates: Sequence[Candidate],
    segments: Sequence[Segment],
    duration: Duration,
    talk: float,
    said: Sequence[Cue] = (),
    now: int = 0,
) -> tuple[tuple[Cue, ...], tuple[Dropped, ...]]:
    """The cues in order of time, and what found no room. The same class always gives the same script.

    talk: the largest share of a held posture that may be speech. said: what was said before `now`, in a
    class that is under way; the rest is placed after it, and nothing of it twice.
    """
    placer = _Placer(segments, duration, talk)
    if said or now:
        candidates = list(_still_to_say(candidates, segments, said, now))
        placer.remember(said)
    placer.place(candidates)
    return tuple(sorted(placer.cues, key=lambda cue: cue.start)), tuple(placer.dropped)


class _Placer:
    """Places the candidates of one class."""

    def __init__(self, segments: Sequence[Segment], duration: Duration, talk: float) -> None:
        self.segments = segments
        self.duration = duration
        self.talk = talk
        self.track = SpokenTrack()
        self.cues: list[Cue] = []
        self.dropped: list[Dropped] = []
        self._said: dict[str, list[int]] = {}
        self._ever: set[str] = set()
        self._spoken = [0] * len(segments)

    def place(self, candidates: Sequence[Candidate]) -> None:
        """Says or drops every candidate."""
        tied = [line for line in candidates if not line.body]
        # Musts as they come; then the rest, what is kept first before what is not.
        for line in sorted(tied, key=lambda c: (not c.must, 0 if c.must else -c.rank, c.aim)):
            self._one(line)
        bodies: dict[int, list[Candidate]] = {}
        for line in candidates:
            if line.body:
                bodies.setdefault(line.segment, []).append(line)
        for index in sorted(bodies):
            self._spread(index, bodies[index])

    def remember(self, said: Sequence[Cue]) -> None:
        """Takes up a class that is under way: these lines were said."""
        indices = {segment.id: index for index, segment in enumerate(self.segments)}
        for cue in said:
            self.track.take(cue.start, cue.end)
            self._ever.add(evened(cue.text))
            insort(self._said.setdefault(cue.text, []), cue.start)
            if cue.segment in indices:
                self._spoken[indices[cue.segment]] += cue.end - cue.start
        self.cues += said

    def share(self, segment: Segment) -> float:
        """The largest share of a segment that may be speech."""
        if segment.behaviour.is_rest:
            return REST_SHARE
        talk = self.talk if segment.use.movement.speaks else min(self.talk, HARD_SHARE)
        return talk * CLOCK_SHARE if segment.behaviour.is_clock else talk

    # --- one line -----------------------------------------------------------------------------------------

    def _one(self, line: Candidate) -> bool:
        for fresh in (True, False):
            for text in line.wordings:
                length = self.duration(text, line.purpose)
                if fresh and line.purpose not in TRUE and self._recent(text, line.aim):
                    continue
                start = self.track.nearest(
                    line.earliest, min(line.latest, line.end_by - length), length, line.aim
                )
                if start is not None:
                    self._say(line, text, start, length)
                    return True
        self._drop(line)
        return False

    def _say(self, line: Candidate, text: str, start: int, length: int) -> None:
        self.track.take(start, start + length)
        if line.body:
            self._ever.add(evened(text))
        insort(self._said.setdefault(text, []), start)
        self._spoken[line.segment] += length
        segment = self.segments[line.segment]
        self.cues.append(
            Cue(
                start,
                start + length,
                text,
                line.purpose,
                line.side,
                segment.id,
                line.must,
                line.own,
                line.number,
            )
        )

    def _recent(self, text: str, near: int) -> bool:
        said = self._said.get(text)
        if not said:
            return False
        index = bisect_left(said, near - AGAIN)
        return index < len(said) and said[index] <= near + AGAIN

    def _drop(self, line: Candidate, enough: bool = False, said: bool = False) -> None:
        if line.company:
            return
        segment = self.segments[line.segment]
        shortest = min(line.wordings, key=lambda text: self.duration(text, line.purpose))
        needs = self.duration(shortest, line.purpose)
        room = self.track.longest_silence(line.earliest, line.end_by)
        if said:
            reason = "it was said less than three minutes before; in other words it could be said again"
        elif enough:
            reason = f"{segment.name} has as much talk as this style gives it; a longer hold would make room"
        else:
            reason = f"it takes {needs / 10:.1f} s and the silence there is {room / 10:.1f} s; " + _remedy(
                segment, needs - room
            )
        at = min(max(line.aim, segment.start), segment.end - 1)
        short = needs if enough else max(1, needs - room)
        self.dropped.append(
            Dropped(
                shortest,
                segment.id,
                reason,
                line.must,
                line.purpose,
                line.side,
                line.number,
                line.own,
                at,
                short,
            )
        )

    # --- the body of a segment ------------------------------------------------------------------------------

    def _spread(self, index: int, lines: list[Candidate]) -> None:
        """The best set of a segment's body lines within its share of speech, spread over its silence."""
        segment = self.segments[index]
        lines, more = _foremost(lines)
        for line in more:
            self._drop(line, enough=True)
        budget = int(self.share(segment) * segment.length) - self._spoken[index]
        wordings = self._fresh(lines)
        wishes = [self._wish(line, texts) for line, texts in zip(lines, wordings, strict=True)]
        apart = max(APART, segment.use.unit // 2 if segment.behaviour.is_hold else 0)  # two lines a breath
        said = best_lines(wishes, SpacingRule(budget, GAP, apart), self._first_free)
        chosen = [
            (line, texts[number])
            for line, texts, number in zip(lines, wordings, said, strict=True)
            if number >= 0
        ]
        for line, texts, number in zip(lines, wordings, said, strict=True):
            if number < 0:
                shortest = min((self.duration(text, line.purpose) for text in texts), default=0)
                self._drop(
                    line,
                    enough=shortest > budget - sum(self.duration(t, c.purpose) for c, t in chosen),
                    said=not texts,
                )
        self._say_spread(segment, chosen, apart)

    def _say_spread(self, segment: Segment, chosen: list[tuple[Candidate, str]], apart: int) -> None:
        """Says the chosen lines in order, each near its even place and early enough for those after it."""
        lengths = [self.duration(text, line.purpose) for line, text in chosen]
        limits: list[int] = []
        limit = segment.end
        for (line, _), length in zip(reversed(chosen), reversed(lengths), strict=True):
            latest = min(line.latest, line.end_by - length, limit)
            at = self.track.nearest(line.earliest, latest, length, latest)
            assert at is not None, "best_set found room for every line it chose"
            limits.append(at)
            if len(limits) < len(chosen):
                limit = at - max(apart, GAP + lengths[len(chosen) - len(limits) - 1])
        free = segment.length - sum(lengths)
        pause = max(GAP, free // (len(chosen) + 1)) if chosen else 0
        earliest, aim = segment.start, segment.start + pause // 2
        for (line, text), length, latest in zip(chosen, lengths, reversed(limits), strict=True):
            start = self.track.nearest(max(earliest, line.earliest), latest, length, aim)
            assert start is not None, "an earlier line never goes past where this one must start"
            self._say(line, text, start, length)
            earliest, aim = start + max(length + GAP, apart), start + length + pause

    def _first_free(self, earliest: int, latest: int, length: int) -> int | None:
        return self.track.nearest(earliest, latest, length, earliest)

    def _wish(self, line: Candidate, texts: Sequence[str]) -> LineRequest:
        worth = float(max(1, line.rank) ** 2)
        lengths = [self.duration(text, line.purpose) for text in texts]
        return LineRequest(
            line.earliest,
            line.latest,
            line.end_by,
            tuple(
                (length, worth * (1.0 - 0.1 * number) * (SAID if evened(text) in self._ever else 1.0))
                for number, (text, length) in enumerate(zip(texts, lengths, strict=True))
            ),
        )

    def _fresh(self, lines: list[Candidate]) -> list[tuple[str, ...]]:
        """The wordings each line may have: none that was said within three minutes, if it is not her own."""
        taken: set[str] = set()
        result = []
        for line in lines:
            texts = tuple(text for text in line.wordings if text not in taken)
            fresh = tuple(text for text in texts if not self._recent(text, line.aim))
            result.append(fresh or (texts if line.own else ()))
            taken.update(result[-1][:1])
        return result


TIMED = ("count", "breath", "time", "half", "late")  # lines that are true at one moment only


def _still_to_say(
    candidates: Sequence[Candidate], segments: Sequence[Segment], said: Sequence[Cue], now: int
) -> Iterator[Candidate]:
    """The candidates that may still be said from a moment on, none of them before it."""
    cues_of: dict[tuple[str, str], list[Cue]] = {}
    for cue in said:
        cues_of.setdefault((cue.segment, cue.purpose), []).append(cue)
    for line in candidates:
        if segments[line.segment].end <= now or line.latest < now:
            continue
        before = cues_of.get((segments[line.segment].id, line.purpose), ())
        if line.purpose in TIMED:
            known = any(line.earliest <= cue.start <= line.latest for cue in before)
        else:
            known = any(line.number == cue.number or cue.text in line.wordings for cue in before)
        if not known:
            aim = max(line.aim, now)
            yield msgspec.structs.replace(line, earliest=max(line.earliest, now), aim=aim)


def _foremost(lines: list[Candidate]) -> tuple[list[Candidate], list[Candidate]]:
    """As many lines as the best set can be searched among at once, what is kept first first; and the rest."""
    if len(lines) <= MOST_LINES:
        return lines, []
    ranked = sorted(range(len(lines)), key=lambda n: (-lines[n].rank, n))
    there = set(ranked[:MOST_LINES])
    return (
        [line for n, line in enumerate(lines) if n in there],
        [line for n, line in enumerate(lines) if n not in there],
    )


def _remedy(segment: Segment, short: int) -> str:
    """What would make room."""
    if segment.behaviour.is_hold and segment.use.unit:
        more = max(1, -(-short // segment.use.unit))
        return (
            f"{'one more breath' if more == 1 else f'{more} more breaths'} in {segment.name} would make room"
        )
    if segment.behaviour.is_phase:
        return "a slower pace would make room"
    return f"{max(0.1, short / 10):.1f} s more there would make room"
