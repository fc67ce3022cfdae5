"""Counts: breath words, breaths and repetitions to go, and time to go, all made from the fitted numbers."""

from collections.abc import Iterator

from yewhour.core.lengths import seconds, ticks
from yewhour.core.library.kinds import BEHAVIOURS
from yewhour.core.library.movement import Wordings
from yewhour.core.plan.own_shares import own_share
from yewhour.core.script.cue import LEAD, Candidate
from yewhour.core.timing.layout import PhaseSpan, Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.passage import begins_with, is_again
from yewhour.core.wording.phrasing import Phrasing, filled_line, lines_of
from yewhour.core.wording.speech import GAP

FEW = 2  # repetitions in which the breath is told, where a school tells the first few
TOLD = ticks(12)  # in counted work one hears at least so often how far one is
HARD = 4  # effort
HALVED = ticks(60)  # a set so long hears when half of it is done
READY = ticks(2.5)  # before a countdown, to say that it comes


def count_lines(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """The lines of one segment that are tied to its numbers."""
    use = segment.use
    if not use.step.carded:
        return  # she counts herself
    if segment.behaviour.numbered:
        yield from _breath_words(phrasing, index, segment)
    turns = segment.behaviour.is_reps and bool(use.movement.said("half"))  # a circle is drawn both ways
    if (use.step.halves or turns) and segment.amount >= 2:
        middle = (segment.start + segment.end) // 2
        lines = lines_of(use, "half") or phrasing.wording.change_half
        wordings = filled_line(phrasing.variants(lines, index), use)
        yield Candidate(
            "half", index, segment.side, wordings, middle - LEAD, middle + LEAD, segment.end, middle - GAP
        )
    if segment.behaviour.time_told:
        yield from _times(phrasing, index, segment)
    elif segment.amount and use.unit and not segment.behaviour.is_rest:
        yield from _numbers(phrasing, index, segment)


def _breath_words(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """The words of each phase, for as many repetitions as the school says them in."""
    use, spans, says = segment.use, segment.spans, phrasing.school.breath_words
    if not spans or says == "none":
        return
    per_one = max(1, len(spans) // max(1, segment.amount))
    shown = spans if says == "always" and segment.behaviour.is_reps else spans[: FEW * per_one]
    if use.movement.card is not None and segment.behaviour.is_hold:
        return
    if use.movement.card is not None and says != "always":  # the first is talked through; then one is told
        first = (
            1
            if segment.behaviour.is_reps and begins_with(phrasing, use) and not is_again(phrasing, use)
            else 0
        )
        shown = spans[first * per_one : FEW * per_one] if per_one <= 2 or use.movement.said("on_part") else ()
    if use.movement.stages:  # each stage is new
        lengths = [len(rhythm) for rhythm in use.movement.stages]
        starts = [sum(lengths[:stage]) * segment.amount for stage in range(len(lengths))]
        shown = tuple(span for at, n in zip(starts, lengths, strict=True) for span in spans[at : at + n])
    # After the first few a number takes the place of the breath.
    later = range(FEW, len(shown) // per_one) if segment.behaviour.is_reps else ()
    numbered = {n for n in later if _number(phrasing, index, segment, segment.amount - n) is not None}
    said = [(number, span, line) for number, span in enumerate(shown) if number // per_one not in numbered
            and (line := _phase_line(phrasing, use, span, *divmod(number, per_one)))]  # fmt: skip
    # All the words of one repetition in the same fullness, and never fuller than those before.
    first = max((_fits(phrasing, line, span) for number, span, line in said if number < per_one), default=0)
    for number, span, line in said:
        tier = first if number < per_one or use.movement.stages else max(first, 1)
        wordings = line[min(tier, len(line) - 1) :]
        earliest, aim = max(segment.start, span.start - LEAD), max(segment.start, span.start - GAP)
        bonus = 0 if number < FEW * per_one else -50  # later, whatever else there is to say comes first
        yield Candidate(
            "breath", index, segment.side, wordings, earliest, span.start + GAP, span.end, aim, bonus=bonus
        )


def _phase_line(phrasing: Phrasing, use: StepUse, span: PhaseSpan, repetition: int, part: int) -> Wordings:
    """What is said on one phase, if anything: for its part of a repetition, or for the breath."""
    lines = lines_of(use, f"on_{span.beat}") or lines_of(use, f"on_{span.phase}")
    own = not {f"on_{span.beat}", f"on_{span.phase}"}.isdisjoint(use.step.lines)
    if not own and (parts := lines_of(use, "on_part")):
        lines = (parts[part % len(parts)],)
    if not own and use.step.pattern is not None:  # the movement's own words may count otherwise
        lines = phrasing.wording.on_phase[span.phase]
    if not lines:
        return ()
    count_s = use.step.count_s or use.movement.count_s or phrasing.school.count_s
    count_s *= own_share(phrasing.brief.own, "count", use.movement.id)
    n = phrasing.number_word(max(1, round(seconds(span.end - span.start) / count_s)))
    line = filled_line(lines[repetition % len(lines)], use, breath=span.phase, n=n)
    named = line[0].split()[0].strip(",.").lower()
    if named in ("inhale", "exhale", "in", "out") and len(line) > 1 and not line[1].lower().startswith(named):
        return (line[0], f"{line[0].split()[0].rstrip(',.')}, {line[1][0].lower()}{line[1][1:]}", *line[1:])
    return line


def _fits(phrasing: Phrasing, line: Wordings, span: PhaseSpan) -> int:
    """The first wording that its phase has time for."""
    room = span.end - span.start - GAP
    return next(
        (n for n, text in enumerate(line) if phrasing.duration(text, "breath") <= room), len(line) - 1
    )


def _times(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """Time to go, in words."""
    wording = phrasing.wording
    lines = {
        120: wording.minutes_left, 60: wording.one_minute_left, 30: wording.half_minute_left,
        10: wording.ten_seconds_left,
    }  # fmt: skip
    for left_s in phrasing.times_to_go(segment.use, segment.length):
        wordings = filled_line(
            phrasing.variants(lines[left_s], index), segment.use, n=phrasing.number_word(left_s // 60)
        )
        yield _count("time", index, segment, wordings, segment.end - ticks(left_s), ticks(1.5))


def _numbers(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    amount, unit = segment.amount, segment.use.unit
    announced = list(_announced(phrasing, index, segment))
    yield from announced
    for left in range(amount, 0, -1):
        words = _number(phrasing, index, segment, left)
        if words is not None and not (announced and left == segment.use.step.countdown + 1):
            at = segment.end - left * unit
            yield _count("count", index, segment, words, at, min(LEAD, unit // 4))


def _announced(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """That a countdown comes, shortly before it."""
    down, unit = segment.use.step.countdown, segment.use.unit
    begins = segment.end - down * unit
    at = begins - max(READY, unit)
    if down >= 3 and at >= segment.start:
        n = phrasing.number_word(down)
        words = filled_line(phrasing.variants(phrasing.wording.count_down_from, index), segment.use, n=n)
        yield Candidate("count", index, segment.side, words, at - GAP, at + GAP, begins, at)


def _number(phrasing: Phrasing, index: int, segment: Segment, left: int) -> Wordings | None:
    """What is said when so many are left, if anything."""
    amount, unit, kind, use = segment.amount, segment.use.unit, segment.kind, segment.use
    wording = phrasing.wording
    asked = phrasing.school.counting in ("up", "down") and BEHAVIOURS[kind].repeated
    own = asked or left <= use.step.countdown or BEHAVIOURS[kind].is_counted
    if use.movement.card is not None and not own:
        return _told_late(phrasing, index, segment, left)
    more, last = {
        "hold": (wording.more_breaths, wording.last_breath),
        "cycles": (wording.more_cycles, wording.last_cycle),
    }.get(kind, (wording.more_reps, wording.last_rep))
    counting = phrasing.school.counting if BEHAVIOURS[kind].repeated else "last three"
    number = amount - left + 1
    bare = (f"{phrasing.number_word(left).capitalize()}.",)
    told = 10 if use.movement.card is None else 5
    if left <= use.step.countdown or (BEHAVIOURS[kind].is_counted and left <= told):
        return bare
    if counting == "silent" and left > 1:
        return None
    if left == 1 and amount >= 3:
        return filled_line(phrasing.variants(last, index), use)
    if unit < ticks(1.5):
        return bare if left % 10 == 0 else None
    if left == 2 and amount >= (5 if BEHAVIOURS[kind].is_hold else 4):
        return filled_line(phrasing.variants(more, index + left), use, n=phrasing.number_word(left))
    if BEHAVIOURS[kind].is_reps and number > 2 and counting in ("up", "down"):
        return (f"{phrasing.number_word(number if counting == 'up' else left).capitalize()}.",)
    if (
        left == 3
        and BEHAVIOURS[kind].is_reps
        and counting == "last three"
        and (amount >= 6 or 2 * unit > TOLD)
    ):
        return filled_line(phrasing.variants(more, index + left), use, n=phrasing.number_word(left))
    return _underway(phrasing, index, segment, number)


def _told_late(phrasing: Phrasing, index: int, segment: Segment, left: int) -> Wordings | None:
    """What a movement with a card tells of its numbers: of a long set that three are left, if nothing else
    does; that a hold ends, where it is hard to hold or stands on one leg. The number is told before the
    first."""
    use, wording, card = segment.use, phrasing.wording, segment.use.movement.card
    assert card is not None
    if segment.behaviour.is_hold:
        hard = use.movement.effort >= HARD or "balance" in use.movement.marks
        ends = left == 1 and segment.amount >= 4 and hard and use.place % 2 == 0
        return filled_line(phrasing.variants(wording.last_breath, index), use) if ends else None
    if use.unit < ticks(1.5):
        return (f"{phrasing.number_word(left).capitalize()}.",) if left % 10 == 0 else None
    if segment.behaviour.is_reps and segment.length >= HALVED and 2 * left == segment.amount:
        return filled_line(phrasing.variants(wording.halfway, index), use)
    if segment.behaviour.is_reps and left == 3 and segment.amount >= 6 and not card.late:
        return filled_line(phrasing.variants(wording.more_reps, index), use, n=phrasing.number_word(left))
    return None


def _underway(phrasing: Phrasing, index: int, segment: Segment, number: int) -> Wordings | None:
    """What is said in the middle of a set: that half is done, every fourth, slow ones more often."""
    amount, wording = segment.amount, phrasing.wording
    done = number - 1  # as this one begins
    often = max(1, min(4, TOLD // segment.use.unit))
    if not segment.behaviour.is_reps or done < often or phrasing.school.counting == "silent":
        return None
    if 2 * done == amount and amount >= 8:
        return filled_line(phrasing.variants(wording.halfway, index), segment.use)
    if done % often == 0 and amount - done > 3:
        return filled_line(
            phrasing.variants(wording.count_so_far, index + done), segment.use, n=phrasing.number_word(done)
        )
    return None


def _count(
    purpose: str, index: int, segment: Segment, wordings: Wordings, at: int, slip: int
) -> Candidate:  # fmt: skip
    earliest = max(segment.start, at - slip)
    return Candidate(
        purpose, index, segment.side, wordings, earliest, at + slip, segment.end, max(earliest, at - GAP)
    )
