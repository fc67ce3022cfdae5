"""Place: which cues are said, in which wording, and when.

Musts and lines tied to a moment come first, by what is kept first; then each segment's body lines
are chosen by rank within its share of speech and spread over the silence that is left. Nothing
overlaps, and at least 0.4 s lie between two lines.
"""

from bisect import bisect_left, bisect_right, insort
from collections.abc import Callable, Sequence

from yewhour.core.cue import Candidate, Cue, Dropped
from yewhour.core.layout import Segment
from yewhour.core.lengths import ticks

GAP = ticks(0.4)
AGAIN = ticks(60)  # a line is not said twice within a minute when there is another wording
Duration = Callable[[str, str], int]  # (text, purpose) -> ticks


class Track:
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


class Placer:
    """Places the candidates of one class. Deterministic: the same class always gives the same script."""

    def __init__(
        self, segments: Sequence[Segment], duration: Duration, share: Callable[[Segment], float]
    ) -> None:
        self.segments = segments
        self.duration = duration
        self.share = share
        self.track = Track()
        self.cues: list[Cue] = []
        self.dropped: list[Dropped] = []
        self._said: dict[str, list[int]] = {}
        self._spoken = [0] * len(segments)

    def place(self, candidates: Sequence[Candidate]) -> tuple[list[Cue], list[Dropped]]:
        """The cues in order of time, and what found no room."""
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
        self.cues.sort(key=lambda cue: cue.start)
        return self.cues, self.dropped

    # --- one line -----------------------------------------------------------------------------------------

    def _one(self, line: Candidate) -> bool:
        for fresh in (True, False):
            for text in line.wordings:
                length = self.duration(text, line.purpose)
                if fresh and len(line.wordings) > 1 and self._recent(text, line.aim):
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

    def _drop(self, line: Candidate, enough: bool = False) -> None:
        segment = self.segments[line.segment]
        shortest = min(line.wordings, key=lambda text: self.duration(text, line.purpose))
        needs = self.duration(shortest, line.purpose)
        room = self.track.longest_silence(line.earliest, line.end_by)
        if enough:
            reason = f"{segment.name} has as much talk as this style gives it; a longer hold would make room"
        else:
            reason = f"it takes {needs / 10:.1f} s and the silence there is {room / 10:.1f} s; " + _remedy(
                segment, needs - room
            )
        self.dropped.append(Dropped(shortest, segment.id, reason, line.must))

    # --- the body of a segment ------------------------------------------------------------------------------

    def _spread(self, index: int, lines: list[Candidate]) -> None:
        segment = self.segments[index]
        budget = int(self.share(segment) * segment.length) - self._spoken[index]
        chosen: list[tuple[Candidate, str, int]] = []
        for line in sorted(lines, key=lambda c: -c.rank):
            text = self._wording(line, budget, chosen)
            if text is None:
                self._drop(line, enough=True)
                continue
            length = self.duration(text, line.purpose)
            budget -= length
            chosen.append((line, text, length))
        chosen.sort(key=lambda one: lines.index(one[0]))
        speech = sum(length for _, _, length in chosen)
        low, high = segment.start, segment.end
        pause = max(GAP, (high - low - speech) // (len(chosen) + 1)) if chosen else 0
        aim = low + pause // 2
        for line, text, length in chosen:
            start = self.track.nearest(line.earliest, min(line.latest, line.end_by - length), length, aim)
            if start is None:
                self._drop(line)
                continue
            self._say(line, text, start, length)
            aim = start + length + pause

    def _wording(self, line: Candidate, budget: int, chosen: list[tuple[Candidate, str, int]]) -> str | None:
        taken = {text for _, text, _ in chosen}
        fitting = [
            text
            for text in line.wordings
            if self.duration(text, line.purpose) <= budget and text not in taken
        ]
        fresh = [text for text in fitting if not self._recent(text, line.aim)]
        return next(iter(fresh or fitting), None)


def _remedy(segment: Segment, short: int) -> str:
    """What would make room."""
    if segment.kind == "hold" and segment.turn.unit:
        more = max(1, -(-short // segment.turn.unit))
        return (
            f"{'one more breath' if more == 1 else f'{more} more breaths'} in {segment.name} would make room"
        )
    if segment.kind == "phase":
        return "a slower pace would make room"
    return f"{max(0.1, short / 10):.1f} s more there would make room"
