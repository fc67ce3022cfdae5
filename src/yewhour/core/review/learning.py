"""What recordings teach of a teacher: her own seconds as a share of the usual, and a plan that has them.

An observation is one use of something in one recording; the share that the plan had of it already is taken
out, so that it is always told against what the library and the style say. What stands out of a recording by
chance counts little: of each recording the middle is taken, and of the recordings again the middle.
"""

from collections.abc import Callable, Iterable, Sequence
from statistics import median, quantiles

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.pace import breath_ticks
from yewhour.core.plan.own_shares import (
    LEAST,
    MOST,
    WHATS,
    What,
    own_share,
    share_key,
    way_kind,
)
from yewhour.core.plan.plan import Plan
from yewhour.core.purpose import PURPOSES
from yewhour.core.review.learning_freely import shares_of
from yewhour.core.review.review import (
    LINED,
    ActualSegment,
    Review,
    spent_on,
)

LEAST_WORDS = 5  # of a line by which the voice is judged
LEAST_SEEN = 3  # observations of a recording, before anything is learnt of it; of a kind, in all of them
SLIGHT = 0.03  # a difference so small is none
# Teaching lies between two lines that are only heard to half a second: of a take that was as planned it came
# out from 0.94 to 1.00 of the plan (eight takes of a 24-minute class).
SLIGHT_TEACHING = 0.07


class ObservedSeconds(msgspec.Struct, frozen=True):
    """Something as it took, against what is usual, in seconds. which: of what kind (see `core.plan.own`).

    way_s: usual seconds of a way that are in the real ones besides, to be taken out at her own pace.
    """

    what: What
    which: str
    usual_s: float
    real_s: float
    way_s: float = 0.0


class RecordingNotes(msgspec.Struct, frozen=True):
    """What was observed in one recording of a class of a style."""

    style: str
    observed: tuple[ObservedSeconds, ...]


class LearntShare(msgspec.Struct, frozen=True):
    """What is learnt of one thing: her seconds against the usual, of how many observations and recordings.

    ratio: hers as a share of the usual. low, high: a quarter of all lies below and above. which: the kind it
    is of, "" for all; kinds: each kind by itself, those that differ most from all of it first. usual_s,
    hers_s: the middle of a kind's seconds.
    """

    what: What
    ratio: float
    count: int
    recordings: int
    low: float
    high: float
    which: str = ""
    usual_s: float = 0.0
    hers_s: float = 0.0
    kinds: tuple["LearntShare", ...] = ()

    @property
    def slight(self) -> bool:
        """Whether it makes no difference."""
        return abs(self.ratio - 1) < (SLIGHT_TEACHING if self.what == "teaching" else SLIGHT)

    @property
    def key(self) -> str:
        """What her share of it is kept by in a brief."""
        return share_key(self.what, self.which)


def observe(back: Review) -> RecordingNotes:
    """What a recording shows of her seconds, where it is sure. Of one in other words than its script's: the
    shares of all ways, all teaching, all breaths and counts, of no kind of them."""
    found: list[ObservedSeconds] = []
    if back.stranger:
        return RecordingNotes(back.timed.plan.brief.style, ())
    own = back.timed.plan.brief.own

    def usual(what: What, which: str, planned_s: float) -> float:
        return planned_s / own_share(own, what, which)

    if back.own_words:
        found = [
            ObservedSeconds(what, "", usual_s, real_s) for what, usual_s, real_s in shares_of(back, usual)
        ]
        return RecordingNotes(back.timed.plan.brief.style, tuple(filter(_alike, found)))
    for one in back.segments:
        if one.sure >= LINED and one.planned_start_s is not None and one.end_s <= back.length_s:
            found += _of_segment(one, usual)
    for line in back.lines:
        words = len(line.cue.text.split())
        if line.how == "said" and line.said_s is not None and line.sure > LINED and words >= LEAST_WORDS:
            delivery = PURPOSES[line.cue.purpose].delivery
            usual_s = usual("voice", delivery, seconds(line.cue.end - line.cue.start))
            found.append(ObservedSeconds("voice", delivery, usual_s, line.end_s - line.said_s))
    kept = [one for one in found if one.usual_s > 0 and _alike(one)]
    return RecordingNotes(back.timed.plan.brief.style, tuple(kept))


def _alike(one: ObservedSeconds) -> bool:
    return LEAST <= one.real_s / (one.usual_s + one.way_s) <= MOST


def _of_segment(one: ActualSegment, usual: Callable[[What, str, float], float]) -> Iterable[ObservedSeconds]:
    assert one.planned_start_s is not None
    assert one.planned_end_s is not None
    planned_s, real_s = one.planned_end_s - one.planned_start_s, one.end_s - one.start_s
    segment, use = one.segment, one.segment.use
    spent, way = spent_on(one), way_kind(use.start, use.end)
    if spent == "ways" and planned_s >= 2:
        yield ObservedSeconds("ways", way, usual("ways", way, planned_s), real_s)
    elif spent == "teaching" and segment.amount:
        way_s = usual("ways", way, seconds(use.fixed))
        taught_s = usual("teaching", use.movement.id, planned_s - seconds(use.fixed))
        yield ObservedSeconds("teaching", use.movement.id, taught_s, real_s, way_s)
    elif segment.behaviour.is_hold and segment.amount and not use.flow:
        breath_s = usual("breath", "", seconds(breath_ticks(use.pace)))
        yield ObservedSeconds("breath", "", breath_s, seconds(breath_ticks(use.pace)) * real_s / planned_s)
    elif segment.behaviour.lasts in ("rhythm", "count") and segment.amount and use.unit:
        each_s = usual("count", use.movement.id, seconds(use.unit))
        yield ObservedSeconds("count", use.movement.id, each_s, seconds(use.unit) * real_s / planned_s)


def learnt_shares(notes: Sequence[RecordingNotes], style: str = "") -> list[LearntShare]:
    """What recordings teach, of one style or ("") of all; robust to one that was odd."""
    found: list[LearntShare] = []
    mine = [one for one in notes if not style or one.style == style]
    for what in WHATS:
        way = next((one.ratio for one in found if one.what == "ways"), 1.0)
        heard = [
            [_without_way(one, way) for one in recording.observed if one.what == what] for recording in mine
        ]
        heard = [here for here in heard if len(here) >= LEAST_SEEN]
        if heard:
            whole = _learnt(what, "", heard)
            kinds = [one for one in _kinds(what, heard) if one.count >= LEAST_SEEN]
            kinds.sort(key=lambda one: -abs(one.ratio - whole.ratio))
            found.append(msgspec.structs.replace(whole, kinds=tuple(kinds)))
    return found


def _kinds(what: What, heard: Sequence[Sequence[ObservedSeconds]]) -> Iterable[LearntShare]:
    """Each kind by itself; what has one kind only has none."""
    names = {one.which for here in heard for one in here if one.which or what == "breath"}
    for which in sorted(names) if len(names) > 1 else ():
        mine = [[one for one in here if one.which == which] for here in heard]
        yield _learnt(what, which, [here for here in mine if here])


def _learnt(what: What, which: str, heard: Sequence[Sequence[ObservedSeconds]]) -> LearntShare:
    every = [one for here in heard for one in here]
    ratios = [one.real_s / one.usual_s for one in every]
    low, _, high = quantiles(ratios, n=4) if len(ratios) > 1 else (ratios[0],) * 3
    return LearntShare(
        what,
        round(median(_middle(here) for here in heard), 3),
        len(every),
        len(heard),
        round(low, 2),
        round(high, 2),
        which,
        round(median(one.usual_s for one in every), 1),
        round(median(one.real_s for one in every), 1),
    )


def _without_way(one: ObservedSeconds, ratio: float) -> ObservedSeconds:
    """An observation without the way that is in it."""
    if not one.way_s:
        return one
    return msgspec.structs.replace(one, real_s=max(0.0, one.real_s - one.way_s * ratio), way_s=0.0)


def _middle(here: Sequence[ObservedSeconds]) -> float:
    """The middle of a recording's ratios, each weighing as much as it lasts."""
    ordered = sorted(here, key=lambda one: one.real_s / one.usual_s)
    half, passed = sum(one.usual_s for one in ordered) / 2, 0.0
    for one in ordered:
        passed += one.usual_s
        if passed >= half:
            return one.real_s / one.usual_s
    return 1.0


def adopt(plan: Plan, taken: Iterable[LearntShare]) -> Plan:
    """A plan with her own seconds in place of the usual, where they are taken."""
    shares = {one.key: min(MOST, max(LEAST, one.ratio)) for one in taken}
    return with_own(plan, {**plan.brief.own, **shares})


def with_own(plan: Plan, own: dict[str, float]) -> Plan:
    """A plan with these seconds of her own, and no others."""
    return msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, own=own))
