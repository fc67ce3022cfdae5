"""What is to be noticed in a recording of a class, each with its moment."""

from collections import Counter
from collections.abc import Iterator, Mapping

import msgspec

from yewhour.core.finding import CheckRules, Severity
from yewhour.core.lengths import TICKS_PER_S, said_length, seconds, show_length
from yewhour.core.review.review import (
    GUESSED,
    LINED,
    ActualSegment,
    Review,
)
from yewhour.core.take.cutting import in_film
from yewhour.core.timing.layout import Segment
from yewhour.core.transcript.line_matches import LineMatch
from yewhour.core.wording.directions import directions

LATE_S = 10.0
UNEVEN_S, UNEVEN = 4.0, 0.12  # seconds, and a share of the side, that two sides may differ unnoticed
FREE_S = 12.0  # within which a piece is found that was taught in other words
QUIETER_S = 15.0  # more silence than was planned
GRAVE = {"wrong": 0, "look": 1, "note": 2}


class ReviewFinding(msgspec.Struct, frozen=True):
    """Something noticed in a recording: where, how bad, why, and what would mend it."""

    code: str
    severity: Severity
    at_s: float
    message: str
    fix: str
    segment: str = ""
    sure: float = 1.0


UNSAID = {
    "side": "unsaid-side",
    "way": "unsaid-way",
    "caution": "unsaid-caution",
    "protect": "unsaid-caution",
}


def review_finding(
    rules: CheckRules, code: str, at_s: float, segment: str = "", sure: float = 1.0, **words: object
) -> ReviewFinding:
    """A finding in the words of its rule."""
    rule = rules[code]
    return ReviewFinding(
        code, rule.severity, round(max(0.0, at_s), 1), rule.message.format(**words), rule.fix.format(**words),
        segment, round(sure, 2),
    )  # fmt: skip


def review_findings(back: Review, rules: CheckRules) -> list[ReviewFinding]:
    """All that is to be noticed, what is worst first, then in the order of time."""
    if back.heard and not back.pace_words:
        return [review_finding(rules, "nothing", 0.0)]
    if back.stranger:
        return [review_finding(rules, "stranger", 0.0, title=back.timed.plan.brief.title)]
    why = {one.segment: one for one in back.causes if one.kind in ("longer", "shorter")}
    sides, doses = list(_sides(back, rules)), [*_doses(back, rules), *_rounds(back, rules)]
    uneven = {one.segment for one in sides} | _partners(back, {one.segment for one in sides})
    counted = {one.segment: one for one in doses if one.code == "more"}
    if back.own_words:
        pieces = len({one.segment.use.setup_for or one.segment.use.key for one in back.segments})
        heard = [review_finding(rules, "own-words", 0.0, count=pieces)]
    else:
        heard = []
    found = [
        *heard, *_length(back, rules), *sides, *_lines(back, rules, _gone(back)),
        *_causes(back, rules, uneven, counted),
        *(one for one in doses if one.code != "more" or one.segment not in why.keys() | uneven),
        *_silence(back, rules), *_again(back, rules), *_of_the_take(back, rules),
    ]  # fmt: skip
    return sorted(found, key=lambda one: (GRAVE[one.severity], one.at_s))


def _length(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    if not back.segments:
        return
    if back.cut:
        on = [one for one in back.segments if one.start_s < back.length_s][-1]
        at = show_length(round(back.length_s))
        yield review_finding(rules, "cut-off", back.length_s, on.segment.id, at=at, name=_name(on))
        return
    end_s = back.segments[-1].end_s
    late_s = back.ran_s - back.target_s
    if abs(late_s) < LATE_S or (back.heard and back.segments[-1].sure < GUESSED):
        return
    told_s = sum(one.seconds for one in back.causes)
    if back.causes and abs(late_s - told_s) < max(LATE_S, 0.2 * abs(late_s)):
        return  # what happened says it
    where = "" if back.causes else _spent(back, late_s)
    code = "late" if late_s > 0 else "early"
    yield review_finding(rules, code, end_s, length=said_length(late_s), where=where)


def _spent(back: Review, late_s: float) -> str:
    """What the time went into, where nothing happened at once."""
    sign = 1 if late_s > 0 else -1
    most = sorted(
        ((sign * value, name) for name, value in back.drift.items() if name != "remarks"), reverse=True
    )
    parts = [f"{said_length(value)} in {name}" for value, name in most[:3] if value >= 3]
    return f": {', '.join(parts)}" if parts else ""


def _causes(
    back: Review, rules: CheckRules, uneven: set[str], counted: dict[str, ReviewFinding]
) -> Iterator[ReviewFinding]:
    """What happened, each thing once: a longer side stands with its other side already."""
    segments = {one.segment.id: one.segment for one in back.segments}
    for one in back.causes:
        length = said_length(one.seconds)
        if one.kind == "pace":
            how = "slower" if one.share > 0 else "quicker"
            percent = f"{abs(one.share) * 100:.0f}"
            yield review_finding(rules, "pace", one.at_s, percent=percent, how=how, length=length)
            continue
        if one.segment in uneven and one.kind in ("longer", "shorter"):
            continue
        on, last = segments[one.segment], segments.get(one.until, segments[one.segment])
        side = f", {on.side}," if on.side in ("left", "right") else ""
        dose = counted.get(one.segment)
        here, there = _named(segments, on), _named(segments, last)
        where = f"in {here}" if here == there else f"from {here} to {there}"
        number = f": {dose.message.split(': ', 1)[1].rstrip('.')}" if dose is not None else ""
        yield review_finding(
            rules, one.kind, one.at_s, one.segment, GUESSED, name=here, side=side,
            length=length, where=where, counted=number,
        )  # fmt: skip


def _named(segments: Mapping[str, Segment], one: Segment) -> str:
    """What a segment is called; of a way, what it leads to."""
    led_to = (other.use.name for other in segments.values() if other.use.key == one.use.setup_for)
    return next(led_to, one.use.name)


def _partners(back: Review, ids: set[str]) -> set[str]:
    """The other sides of these."""
    pairs = {(one.segment.use.pair, one.segment.use.number) for one in back.segments if one.segment.id in ids}
    return {
        one.segment.id
        for one in back.segments
        if one.segment.use.pair and (one.segment.use.pair, one.segment.use.number) in pairs
    }


def _of_the_take(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    """Her own notes, and what she cut out."""
    for from_s, to_s in back.cuts:
        yield review_finding(rules, "cut-out", in_film(back.cuts, from_s), length=said_length(to_s - from_s))
    for at_s, cut in back.notes:
        yield review_finding(rules, "noted", at_s, cut=", in what you cut out" if cut else "")


def _sides(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    """Pairs whose sides did not get the same time."""
    firsts: dict[tuple[str, str, int], list[ActualSegment]] = {}
    gone = _gone(back)
    for one in back.segments:
        use = one.segment.use
        if (
            use.pair
            and not use.setup_for
            and use.step.second is None
            and one.segment.side in ("left", "right")
        ):
            firsts.setdefault((use.pair, use.number, use.round), []).append(one)
    for sides in firsts.values():
        by_side = {one.segment.side: one for one in sides if not one.segment.attempt}
        if any(one.segment.id in gone for one in sides):
            continue
        if back.cut and any(one.end_s > back.length_s - 5 for one in by_side.values()):
            continue
        if len(by_side) != 2 or min(one.sure for one in by_side.values()) < GUESSED:
            continue
        first, second = sorted(by_side.values(), key=lambda one: one.start_s)
        one_s, two_s = first.end_s - first.start_s, second.end_s - second.start_s
        slack_s = 0.0 if min(first.sure, second.sure) >= LINED else FREE_S if back.own_words else 3.0
        if abs(one_s - two_s) > max(UNEVEN_S, UNEVEN * max(one_s, two_s)) + slack_s:
            yield review_finding(
                rules, "uneven", second.start_s, second.segment.id, min(first.sure, second.sure),
                name=first.segment.use.name, first=f"{one_s:.0f}", second=f"{two_s:.0f}",
                side=first.segment.side, other=second.segment.side,
            )  # fmt: skip


def _gone(back: Review) -> set[str]:
    """The segments that are not there, or not whole: nothing else is to be said of them."""
    ids = [one.segment.id for one in back.segments]
    gone: set[str] = set()
    for one in back.causes:
        if one.kind in ("missing", "left-out"):
            gone |= set(ids[ids.index(one.segment) : ids.index(one.until or one.segment) + 1])
    return gone


def _lines(back: Review, rules: CheckRules, gone: set[str]) -> Iterator[ReviewFinding]:
    names = {one.segment.id: one for one in back.segments}
    unsaid = [line for line in back.lines if line.said_s is None and back.went(line)]
    for line in back.lines:
        if line.wrong_side and line.said_s is not None:
            side = "right" if line.wrong_side == "left" else "left"
            yield review_finding(
                rules, "other-side", line.said_s, line.cue.segment, line.sure, said=line.wrong_side,
                side=side, line=line.cue.text,
            )  # fmt: skip
    for line in unsaid:
        one = names.get(line.cue.segment)
        if line.cue.segment in gone:
            continue
        if (code := _unsaid_code(line, one)) and line.sure > 0.6 and one is not None:
            at_s = one.start_s + max(0.0, seconds(line.cue.start) - seconds(one.segment.start))
            yield review_finding(
                rules, code, at_s, line.cue.segment, line.sure, line=line.cue.text, name=_name(one)
            )
    if unsaid and back.heard:
        yield review_finding(rules, "unsaid", _at(unsaid[0], names), count=len(unsaid), all=len(back.lines))


def _unsaid_code(line: LineMatch, one: ActualSegment | None) -> str:
    """What it means that a line was not said, where it means something."""
    across = one is not None and one.segment.use.switch and line.cue.purpose == "place"
    if across and directions(line.cue.text):
        return "unsaid-side"
    return UNSAID.get(line.cue.purpose, "")


def _at(line: LineMatch, names: dict[str, ActualSegment]) -> float:
    one = names.get(line.cue.segment)
    return one.start_s if one is not None else line.planned_s


def _name(one: ActualSegment) -> str:
    return one.segment.use.name


def _doses(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    """Holds and repetitions that had at least one more or fewer than planned, as far as can be told."""
    tries = Counter(one.segment.use.key for one in back.segments if one.segment.attempt)
    for one in back.segments:
        segment, use = one.segment, one.segment.use
        unit = segment.behaviour.unit
        if not unit or unit == "seconds" or not use.unit or use.setup_for or one.sure < LINED or use.flow:
            continue
        each_s = use.unit / TICKS_PER_S
        planned = next((p.amount for p in back.timed.segments if p.id == segment.id), 0)
        done = round((one.end_s - one.start_s - use.fixed / TICKS_PER_S) / each_s)
        other = abs(done - planned) >= max(1, 0.15 * planned) and abs(one.longer_s) >= 0.8 * each_s
        if planned and other:
            side = f", {segment.side}" if segment.side in ("left", "right") else ""
            yield review_finding(
                rules, "more", one.start_s, segment.id, one.sure, name=use.name, side=side,
                done=max(0, done), unit=unit, planned=planned,
            )  # fmt: skip
    for one in back.segments:
        if one.segment.id in tries and not one.segment.use.setup_for:
            count = tries.pop(one.segment.id) + 1
            yield review_finding(rules, "tried", one.start_s, one.segment.id, name=_name(one), count=count)


def _rounds(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    """Flows that had more rounds or fewer than planned, as her marks tell."""
    planned: dict[str, int] = {}
    for segment in back.timed.segments:
        if segment.use.flow:
            planned[segment.use.flow] = max(planned.get(segment.use.flow, 0), segment.use.round)
    flows: dict[str, list[ActualSegment]] = {}
    for one in back.segments:
        if one.segment.use.flow and one.end_s > one.start_s:
            flows.setdefault(one.segment.use.flow, []).append(one)
    for flow, there in flows.items():
        done, before = max(one.segment.use.round for one in there), planned.get(flow, 0)
        if before and done != before:
            first, last = there[0], next(one for one in there if one.segment.use.round == done)
            yield review_finding(
                rules, "more", last.start_s, last.segment.id, last.sure, name=first.segment.use.name, side="",
                done=done, unit="rounds", planned=before,
            )  # fmt: skip


def _silence(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    """A silence longer than any the plan has there."""
    pace = back.pace
    if pace is None or not back.lines or any(one.kind in ("stopped", "longer") for one in back.causes):
        return
    said = sorted(
        (line for line in back.lines if line.said_s is not None), key=lambda line: line.said_s or 0.0
    )
    at_s, until_s = pace.longest_silence_at_s, pace.longest_silence_at_s + pace.longest_silence_s
    around = [line for line in said if line.said_s is not None]
    before = [line for line in around if line.said_s is not None and line.said_s <= at_s][-1:]
    after = [line for line in around if line.said_s is not None and line.said_s >= until_s - 1][:1]
    if not before or not after:
        return
    planned_s = seconds(after[0].cue.start) - seconds(before[0].cue.end)
    if pace.longest_silence_s > planned_s + QUIETER_S:
        yield review_finding(
            rules, "silence", at_s, before[0].cue.segment, seconds=f"{pace.longest_silence_s:.0f}",
            planned=f"{max(0, planned_s):.0f}",
        )  # fmt: skip


def _again(back: Review, rules: CheckRules) -> Iterator[ReviewFinding]:
    for one in back.extra:
        if one.again:
            yield review_finding(rules, "again", one.start_s, line=one.again)
