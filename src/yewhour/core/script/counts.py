"""Counts: breath words, breaths and repetitions to go, and time to go, all made from the fitted numbers."""

from collections.abc import Iterator

from yewhour.core.lengths import seconds, ticks
from yewhour.core.plan.movement import Wordings
from yewhour.core.script.cue import GAP, LEAD, Candidate
from yewhour.core.script.manner import Manner, filled, from_tier, variants
from yewhour.core.timing.layout import Segment


def counts(manner: Manner, index: int, segment: Segment) -> Iterator[Candidate]:
    """The lines of one segment that are tied to its numbers."""
    turn = segment.turn
    if segment.kind in ("hold", "reps", "cycles", "pulses"):
        yield from _breath_words(manner, index, segment)
    if turn.step.halves and segment.amount >= 2:
        middle = (segment.start + segment.end) // 2
        lines = turn.movement.said("half") or manner.wording.change_half
        wordings = filled(variants(lines, index), turn)
        yield Candidate(
            "half", index, segment.side, wordings, middle - LEAD, middle + LEAD, segment.end, middle - GAP
        )
    if segment.kind in ("clock", "rapid"):
        yield from _times(manner, index, segment)
    elif segment.amount and turn.unit and segment.kind != "stillness":
        yield from _numbers(manner, index, segment)


def _breath_words(manner: Manner, index: int, segment: Segment) -> Iterator[Candidate]:
    """The words of each phase, for the first two repetitions."""
    turn = segment.turn
    spans = segment.spans
    if not spans:
        return
    per_one = max(1, len(spans) // max(1, segment.amount))
    shown = spans[: 2 * per_one]
    if turn.movement.stages:  # each stage is new
        lengths = [len(rhythm) for rhythm in turn.movement.stages]
        starts = [sum(lengths[:stage]) * segment.amount for stage in range(len(lengths))]
        shown = tuple(span for at, n in zip(starts, lengths, strict=True) for span in spans[at : at + n])
    for number, span in enumerate(shown):
        lines = turn.movement.said(f"on_{span.beat}") or turn.movement.said(f"on_{span.phase}")
        if not lines:
            continue
        n = manner.number_word(round(seconds(span.end - span.start)))
        line = filled(lines[(number // per_one) % len(lines)], turn, breath=span.phase, n=n)
        wordings = from_tier(manner.tier(turn) if number < per_one else 1, line)
        earliest, aim = max(segment.start, span.start - LEAD), max(segment.start, span.start - GAP)
        yield Candidate(
            "breath", index, segment.side, wordings, earliest, span.start + GAP, span.end, aim
        )  # fmt: skip


def _times(manner: Manner, index: int, segment: Segment) -> Iterator[Candidate]:
    """Time to go; in a quiet style only in long holds, and once."""
    wording, length = manner.wording, segment.length
    quiet = manner.school.counting == "silent" and segment.kind == "clock"
    for left_s, line in (
        (120, wording.minutes_left),
        (60, wording.one_minute_left),
        (30, wording.half_minute_left),
        (10, wording.ten_seconds_left),
    ):
        if quiet and (left_s != 60 or length < ticks(150)):
            continue
        if length >= ticks(left_s) * 3 // 2 and not (left_s == 10 and length >= ticks(90)):
            at = segment.end - ticks(left_s)
            wordings = filled(variants(line, index), segment.turn, n=manner.number_word(left_s // 60))
            yield _count("time", index, segment, wordings, at, ticks(1.5))


def _numbers(manner: Manner, index: int, segment: Segment) -> Iterator[Candidate]:
    amount, unit = segment.amount, segment.turn.unit
    for left in range(amount, 0, -1):
        words = _number(manner, index, segment, left)
        if words is not None:
            at = segment.end - left * unit
            yield _count("count", index, segment, words, at, min(LEAD, unit // 4))


def _number(manner: Manner, index: int, segment: Segment, left: int) -> Wordings | None:
    """What is said when so many are left, if anything."""
    amount, unit, kind, turn = segment.amount, segment.turn.unit, segment.kind, segment.turn
    wording = manner.wording
    more, last = {
        "hold": (wording.more_breaths, wording.last_breath),
        "cycles": (wording.more_cycles, wording.last_cycle),
    }.get(kind, (wording.more_reps, wording.last_rep))
    counting = manner.school.counting if kind in ("reps", "pulses") else "last three"
    number = amount - left + 1
    bare = (f"{manner.number_word(left).capitalize()}.",)
    if left <= turn.step.countdown or (kind == "counted" and left <= 10):
        return bare
    if counting == "silent" and left > 1:
        return None
    if left == 1 and amount >= 3:
        return filled(variants(last, index), turn)
    if unit < ticks(1.5):
        return bare if left % 10 == 0 else None
    if left == 2 and amount >= (5 if kind == "hold" else 4):
        return filled(variants(more, index + left), turn, n=manner.number_word(left))
    if kind == "reps" and number > 2 and counting in ("up", "down"):
        return (f"{manner.number_word(number if counting == 'up' else left).capitalize()}.",)
    if left == 3 and kind == "reps" and counting == "last three" and amount >= 6:
        return filled(variants(more, index + left), turn, n=manner.number_word(left))
    return _underway(manner, index, segment, number)


def _underway(manner: Manner, index: int, segment: Segment, number: int) -> Wordings | None:
    """What is said in the middle of a long set: that half is done, and every fourth."""
    amount, wording = segment.amount, manner.wording
    if segment.kind != "reps" or amount < 8 or number < 4 or manner.school.counting == "silent":
        return None
    done = number - 1  # as this one begins
    if 2 * done == amount:
        return filled(variants(wording.halfway, index), segment.turn)
    if done % 4 == 0 and amount - done > 3:
        return filled(variants(wording.count_so_far, index + done), segment.turn, n=manner.number_word(done))
    return None


def _count(
    purpose: str, index: int, segment: Segment, wordings: Wordings, at: int, slip: int
) -> Candidate:  # fmt: skip
    earliest = max(segment.start, at - slip)
    return Candidate(
        purpose, index, segment.side, wordings, earliest, at + slip, segment.end, max(earliest, at - GAP)
    )
