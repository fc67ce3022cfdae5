"""What recordings teach of a teacher: her own seconds against the planned, and what a plan becomes with them.

An observation is one use of something in one recording. What stands out of a recording by chance counts
little: of each recording the middle is taken, and of the recordings again the middle.
"""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from statistics import median, quantiles
from typing import Literal

import msgspec

from yewhour.core.back.compare import LINED, Back, Went, spent_on
from yewhour.core.edits.places import rebuilt
from yewhour.core.lengths import seconds
from yewhour.core.plan.nodes import Node, Step
from yewhour.core.plan.pace import Pace, breath_ticks
from yewhour.core.plan.plan import Plan
from yewhour.core.plan.position import base_of
from yewhour.core.plan.purpose import PURPOSES
from yewhour.core.plan.school import School
from yewhour.core.plan.sound import SCHOOL

What = Literal["ways", "teaching", "breath", "count", "voice"]
WHATS: dict[What, str] = {
    "ways": "getting from one position to the next",
    "teaching": "teaching what is new",
    "breath": "a breath",
    "count": "a count",
    "voice": "speaking",
}
ALIKE = (0.3, 3.0)  # of the planned: what lies outside was something else
LEAST_WORDS = 5  # of a line by which the voice is judged
LEAST_SEEN = 3  # observations of a recording, before anything is learnt of it
SLIGHT = 0.03  # a difference so small is none
HOLDS, COUNTED = ("hold",), ("reps", "pulses", "counted", "cycles")


class Observed(msgspec.Struct, frozen=True):
    """Something as it took, against what was planned, in seconds. which: of what kind, in words.

    way_s: planned seconds of a way that are in the real ones besides, to be taken out at her own pace.
    """

    what: What
    which: str
    planned_s: float
    real_s: float
    way_s: float = 0.0


class Notes(msgspec.Struct, frozen=True):
    """What was observed in one recording of a class of a style."""

    style: str
    observed: tuple[Observed, ...]


class Learnt(msgspec.Struct, frozen=True):
    """What is learnt of one thing: her time against the planned, of how many observations and recordings,
    the quarter above and below the middle, and the kinds it consists of: (kind, planned, hers, how many)."""

    what: What
    ratio: float
    count: int
    recordings: int
    low: float
    high: float
    kinds: tuple[tuple[str, float, float, int], ...]

    @property
    def slight(self) -> bool:
        """Whether it makes no difference."""
        return abs(self.ratio - 1) < SLIGHT


def observed(back: Back) -> Notes:
    """What a recording shows of her seconds, where it is sure."""
    found: list[Observed] = []
    if back.stranger:
        return Notes(back.made.plan.brief.style, ())
    for one in back.segments:
        if one.sure >= LINED and one.planned_start_s is not None and one.end_s <= back.length_s:
            found += _of_segment(one)
    for line in back.lines:
        words = len(line.cue.text.split())
        if line.how == "said" and line.said_s is not None and line.sure > LINED and words >= LEAST_WORDS:
            delivery = PURPOSES[line.cue.purpose].delivery
            planned_s = seconds(line.cue.end - line.cue.start)
            found.append(Observed("voice", delivery, planned_s, line.end_s - line.said_s))
    kept = [one for one in found if one.planned_s > 0 and _alike(one)]
    return Notes(back.made.plan.brief.style, tuple(kept))


def _alike(one: Observed) -> bool:
    return ALIKE[0] <= one.real_s / (one.planned_s + one.way_s) <= ALIKE[1]


def _of_segment(one: Went) -> Iterable[Observed]:
    assert one.planned_start_s is not None
    assert one.planned_end_s is not None
    planned_s, real_s = one.planned_end_s - one.planned_start_s, one.end_s - one.start_s
    segment, turn = one.segment, one.segment.turn
    spent = spent_on(one)
    if spent == "ways" and planned_s >= 2:
        yield Observed("ways", f"{base_of(turn.start) or 'start'} to {base_of(turn.end)}", planned_s, real_s)
    elif spent == "teaching" and segment.amount:
        taught_s = planned_s - seconds(turn.fixed)
        yield Observed("teaching", turn.name, taught_s, real_s, seconds(turn.fixed))
    elif segment.kind in HOLDS and segment.amount and not turn.flow:
        breath_s = seconds(breath_ticks(turn.pace))
        yield Observed("breath", "", breath_s, breath_s * real_s / planned_s)
    elif segment.kind in COUNTED and segment.amount and turn.unit:
        each_s = seconds(turn.unit)
        yield Observed("count", turn.name, each_s, each_s * real_s / planned_s)


def learnt(notes: Sequence[Notes], style: str = "") -> list[Learnt]:
    """What recordings teach, of one style or ("") of all; robust to one that was odd."""
    found: list[Learnt] = []
    mine = [one for one in notes if not style or one.style == style]
    for what in WHATS:
        per: list[float] = []
        ratios: list[float] = []
        kinds: dict[str, list[tuple[float, float]]] = defaultdict(list)
        for recording in mine:
            ways = next((one.ratio for one in found if one.what == "ways"), 1.0)
            here = [_without_way(one, ways) for one in recording.observed if one.what == what]
            if len(here) < LEAST_SEEN:
                continue
            per.append(_middle(here))
            ratios += [one.real_s / one.planned_s for one in here]
            for one in here:
                kinds[one.which].append((one.planned_s, one.real_s))
        if per:
            low, _, high = quantiles(ratios, n=4)
            rows = [
                (kind, round(median(p for p, _ in rows), 1), round(median(r for _, r in rows), 1), len(rows))
                for kind, rows in kinds.items()
                if kind
            ]
            rows.sort(key=lambda row: -abs(row[2] - row[1]) * row[3])
            found.append(
                Learnt(
                    what,
                    round(median(per), 3),
                    len(ratios),
                    len(per),
                    round(low, 2),
                    round(high, 2),
                    tuple(rows),
                )
            )
    return found


def _without_way(one: Observed, ratio: float) -> Observed:
    """An observation without the way that is in it."""
    if not one.way_s:
        return one
    return msgspec.structs.replace(one, real_s=max(0.0, one.real_s - one.way_s * ratio), way_s=0.0)


def _middle(here: Sequence[Observed]) -> float:
    """The middle of a recording's ratios, each weighing as much as it lasts."""
    ordered = sorted(here, key=lambda one: one.real_s / one.planned_s)
    half, passed = sum(one.planned_s for one in ordered) / 2, 0.0
    for one in ordered:
        passed += one.planned_s
        if passed >= half:
            return one.real_s / one.planned_s
    return 1.0


def adopted(plan: Plan, school: School, taken: Sequence[Learnt]) -> Plan:
    """A plan with her own seconds in place of the usual, within what a plan may have.

    school: of the plan, as its brief has it.
    """
    brief = plan.brief
    ways = dict(brief.ways)
    for one in taken:
        if one.what == "ways":
            ways["moving"] = _within("moving", school.moving * one.ratio)
        elif one.what == "teaching":
            ways["teaching"] = _within("teaching", school.teaching * one.ratio)
        elif one.what == "count":
            ways["count_s"] = _within("count_s", school.count_s * one.ratio)
        elif one.what == "breath":
            plan = _at_pace(plan, one.ratio)
            pace = brief.pace or school.pace
            brief = msgspec.structs.replace(brief, pace=_slower(pace, one.ratio))
        else:
            rate = min(1.6, max(0.6, brief.voice_rate / one.ratio))
            brief = msgspec.structs.replace(brief, voice_rate=round(rate, 2))
    return msgspec.structs.replace(plan, brief=msgspec.structs.replace(brief, ways=ways))


def _within(name: str, value: float) -> float:
    low, high = SCHOOL[name]
    return round(min(high, max(low, value)), 3)


def _at_pace(plan: Plan, ratio: float) -> Plan:
    """The paces of sections and steps that have their own, as much slower as her breath is."""

    def stepped(_: str, body: tuple[Node, ...]) -> tuple[Node, ...]:
        return tuple(
            msgspec.structs.replace(one, pace=_slower(one.pace, ratio))
            if isinstance(one, Step) and one.pace is not None else one
            for one in body
        )  # fmt: skip

    plan = rebuilt(plan, stepped)
    sections = tuple(
        msgspec.structs.replace(
            one,
            pace=_slower(one.pace, ratio) if one.pace is not None else None,
            glide_to=round(one.glide_to / ratio, 2) if one.glide_to is not None else None,
        )
        for one in plan.sections
    )
    return msgspec.structs.replace(plan, sections=sections)


def _slower(pace: Pace, ratio: float) -> Pace:
    return msgspec.structs.replace(pace, breaths_per_min=round(pace.breaths_per_min / ratio, 2))
