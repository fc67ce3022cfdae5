"""Recordings with known causes: a stretch cut out, something put in, slower all along, held longer."""

from random import Random

import msgspec

from tools.teachers import REMARKS, Spoken, Taught, taught
from yewhour.core.lengths import seconds
from yewhour.core.timed_class import TimedClass

KINDS = ("missing", "left-out", "between", "stopped", "longer", "pace")
APART_S = 75.0  # between two causes


class KnownCause(msgspec.Struct, frozen=True):
    """What was done to a recording: at which second of it, and how many seconds it gained or lost."""

    kind: str
    at_s: float
    seconds: float


def recording_with(
    timed: TimedClass, dice: Random, kinds: tuple[str, ...]
) -> tuple[Taught, list[KnownCause]]:
    """A class as it was taught, with one of each kind done to it, apart from each other."""
    share = dice.choice([-0.04, -0.03, 0.03, 0.04, 0.05]) if "pace" in kinds else 0.0
    said = taught(timed, dice, drift=share)
    known = [KnownCause("pace", 0.0, share * timed.length_s)] if share else []
    used: list[float] = []
    for kind in kinds:
        for _ in range(200 if kind != "pace" else 0):
            found = _DONE[kind](timed, said, dice)
            if found is None:
                continue
            after, one = found
            if all(abs(one.at_s - at_s) > APART_S for at_s in used):
                known = [_moved(other, one) for other in known]
                used = [at_s + (one.seconds if at_s > one.at_s else 0.0) for at_s in used]
                known.append(one)
                used.append(one.at_s)
                said = after
                break
    return said, known


def _moved(one: KnownCause, by: KnownCause) -> KnownCause:
    if one.kind == "pace" or one.at_s < by.at_s:
        return one
    return msgspec.structs.replace(one, at_s=one.at_s + by.seconds)


def _shifted(said: Taught, from_s: float, by_s: float, new: tuple[Spoken, ...] = ()) -> Taught:
    """What comes after a second so much later, with something new put in."""
    rows = [
        msgspec.structs.replace(one, start_s=one.start_s + by_s, end_s=one.end_s + by_s)
        if one.start_s >= from_s
        else one
        for one in said.said
    ]
    rows = sorted([*rows, *new], key=lambda one: one.start_s)
    return msgspec.structs.replace(said, said=tuple(rows), length_s=said.length_s + by_s)


def _on(timed: TimedClass, one: Spoken):
    cue = timed.cues[one.line]
    return next(segment for segment in timed.segments if segment.id == cue.segment)


def _missing(timed: TimedClass, said: Taught, dice: Random):
    from_s = dice.uniform(60, said.length_s - 180)
    lost_s = dice.uniform(25, 90)
    kept = tuple(
        one for one in said.said if not from_s - (one.end_s - one.start_s) < one.start_s < from_s + lost_s
    )
    cut = _shifted(msgspec.structs.replace(said, said=kept), from_s, -lost_s)
    return cut, KnownCause("missing", from_s, -lost_s)


def _left_out(timed: TimedClass, said: Taught, dice: Random):
    """A movement with the way into it, of neither a pair nor a flow."""
    able = [
        (way, one)
        for way, one in zip(timed.segments, timed.segments[1:], strict=False)
        if way.use.setup_for == one.use.key and not one.use.pair and not one.use.flow
        and not one.behaviour.is_rest and 200 <= one.end - way.start <= 900 and one.end < timed.length - 1500
    ]  # fmt: skip
    if not able:
        return None
    way, one = dice.choice(able)
    spoken = [
        row for row in said.said if row.line is not None and timed.cues[row.line].segment in (way.id, one.id)
    ]
    if len(spoken) < 2:
        return None
    after = [row for row in said.said if row.line is not None and timed.cues[row.line].start >= one.end]
    if not after:
        return None
    lost_s = seconds(one.end - way.start) * _rate(timed, said)
    at_s = said.segments[way.id][0] + _late(timed, said, way)
    kept = tuple(row for row in said.said if row not in spoken)
    cut = _shifted(msgspec.structs.replace(said, said=kept), after[0].start_s - 0.01, -lost_s)
    return cut, KnownCause("left-out", at_s, -lost_s)


def _rate(timed: TimedClass, said: Taught) -> float:
    last = timed.segments[-1]
    return (said.segments[last.id][1] - said.segments[timed.segments[0].id][0]) / timed.length_s


def _late(timed: TimedClass, said: Taught, one) -> float:
    """How much later than `segments` says a segment is by now, by its neighbours' lines."""
    rows = [row for row in said.said if row.line is not None]
    near = min(rows, key=lambda row: abs(timed.cues[row.line].start - one.start))
    return near.start_s - seconds(timed.cues[near.line].start) * _rate(timed, said)


def _gap(timed: TimedClass, said: Taught, dice: Random, still: bool):
    """Two lines that follow each other, and what is on between them: held still, or not."""
    able = []
    for one, two in zip(said.said, said.said[1:], strict=False):
        if (
            one.line is None
            or two.line is None
            or two.line != one.line + 1
            or not 60 < one.start_s < said.length_s - 120
        ):
            continue
        segment = _on(timed, one)
        holds = segment.behaviour.is_hold or segment.behaviour.is_rest
        same = timed.cues[two.line].segment == segment.id
        quiet_s = two.start_s - one.end_s
        if same and holds == still and (quiet_s > 4 if still else quiet_s < 4):
            able.append((one, two, segment))
    return dice.choice(able) if able else None


def _between(timed: TimedClass, said: Taught, dice: Random):
    found = _gap(timed, said, dice, still=False)
    if found is None:
        return None
    one, two, _ = found
    more_s = dice.uniform(15, 40)
    new, at_s = [], one.end_s + 0.8
    while at_s < one.end_s + more_s - 4:
        text = dice.choice(REMARKS)
        new.append(Spoken(None, at_s, at_s + len(text) / 14, text))
        at_s += len(text) / 14 + 0.6
    return _shifted(said, two.start_s, more_s, tuple(new)), KnownCause("between", one.end_s, more_s)


def _nothing(timed: TimedClass, said: Taught, dice: Random):
    found = _gap(timed, said, dice, still=False)
    if found is None:
        return None
    one, two, _ = found
    more_s = dice.uniform(12, 40)
    return _shifted(said, two.start_s, more_s), KnownCause("stopped", one.end_s, more_s)


def _longer(timed: TimedClass, said: Taught, dice: Random):
    found = _gap(timed, said, dice, still=True)
    if found is None:
        return None
    one, two, segment = found
    more_s = dice.uniform(9, 25)
    at_s = one.start_s - seconds(timed.cues[one.line].start - segment.start) * _rate(timed, said)
    return _shifted(said, two.start_s, more_s), KnownCause("longer", at_s, more_s)


_DONE = {
    "missing": _missing, "left-out": _left_out, "between": _between, "stopped": _nothing, "longer": _longer,
}  # fmt: skip
