"""Checks of the body: sides, order of work, positions, breath and cautions."""

import math
from collections.abc import Iterator
from itertools import pairwise

import msgspec

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.position import base_of
from yewhour.core.pace import breath_ticks
from yewhour.core.plan.edit import Drop, Edit, Insert, PairUp, SetAmount, SetMost, SetPace, TakeGentler
from yewhour.core.plan.vocabulary import GENTLE_LEVELS
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.side_totals import movement_sides

NEUTRALISES_WITHIN = 4  # movements
WARM_AFTER_S = 240.0  # a body that has moved this long counts as warm
WRIST_S = 240.0
FLOOR_CHANGES = 8  # down and up again five times are ten
PACE_JUMP = 1.5


def work(timed: TimedClass) -> list[Segment]:
    """The segments that are movements, set-ups and talk left out."""
    return [s for s in timed.segments if not s.behaviour.framing and not s.is_closing_pause]


@check("uneven")
def uneven(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A movement done longer on one side than on the other, undeclared."""
    for one in movement_sides(timed.segments):
        if one.differ and not one.meant:
            sides = {"left": one.left, "right": one.right}
            words = {side: show_length(seconds(ticks)) for side, ticks in sides.items()}
            first = one.first
            yield Notice(first.id, {"name": first.name, **words}, _evened(timed, first, sides))


def _evened(timed: TimedClass, first: Segment, sides: dict[str, int]) -> Edit | None:
    """Both sides of what had one; or else the most that either side has, on both."""
    if not min(sides.values()):
        if first.use.pair:
            return None
        return PairUp(node=first.use.step.id, title=f"Do {first.name} on both sides")
    alike = [s for s in work(timed) if s.use.movement.id == first.use.movement.id and s.amount]
    most = max((segment.amount for segment in alike), default=0)
    steps = list(dict.fromkeys(segment.use.step.id for segment in alike))
    title, by_clock = f"Do {first.name} alike on both sides", first.use.by_clock
    edits = [
        kind(node=step, title=title, amount=most, clock=by_clock)
        for step in steps
        for kind in (SetAmount, SetMost)
    ]
    return msgspec.structs.replace(edits[0], also=tuple(edits[1:])) if edits else None


@check("unprepared")
def unprepared(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A peak without any of what prepares it before it."""
    seen: set[str] = set()
    for segment in work(timed):
        movement = segment.use.movement
        prepared_by = movement.prepared_by
        if (
            "peak" in movement.marks
            and prepared_by
            and movement.id not in seen
            and not seen & set(prepared_by)
        ):
            before = prepared_by[0]
            edit = Insert(
                node=segment.use.step.id, title=f"Prepare {segment.name}", movement=before, before=True
            )
            yield Notice(segment.id, {"name": segment.name, "movement": _name(prepared, before)}, edit)
        seen.add(movement.id)


@check("not-neutralised")
def not_neutralised(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A deep backbend that nothing neutral follows."""
    segments = work(timed)
    for index, segment in enumerate(segments):
        movement = segment.use.movement
        if "deep backbend" not in movement.marks:
            continue
        after = segments[index + 1 : index + 1 + NEUTRALISES_WITHIN]
        wanted = set(movement.neutralised_by)
        if not any(s.use.movement.id in wanted or _neutral(s) for s in after):
            there = {s.use.movement.id for s in segments}
            ways = movement.neutralised_by or ("knees-to-chest",)
            what = next((one for one in ways if one not in there), ways[0])
            edit = Insert(node=segment.use.step.id, title=f"Neutralise {segment.name}", movement=what)
            yield Notice(segment.id, {"name": segment.name, "movement": _name(prepared, what)}, edit)


def _neutral(segment: Segment) -> bool:
    """Whether a back is let go of: said to be so, a rest, or easy on the back or over the heels."""
    movement = segment.use.movement
    eased = movement.effort <= 1 and segment.use.end.startswith(("supine", "kneeling child"))
    return "neutralising" in movement.marks or segment.behaviour.is_rest or eased


@check("cold")
def cold(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Strong work before anything warmed the body."""
    moved = 0
    for segment in work(timed):
        marks = segment.use.movement.marks
        if "warming" in marks or (segment.use.movement.effort >= 2 and "strong work" not in marks):
            moved += segment.length
        if "strong work" in marks and "warming" not in marks and segment.use.movement.effort >= 3:
            if not moved and seconds(segment.start) < WARM_AFTER_S:
                edit = Insert(
                    node=segment.use.step.id,
                    title=f"Warm up before {segment.name}",
                    movement="pelvic-tilt",
                    before=True,
                )
                words = {"name": segment.name, "minutes": f"{seconds(segment.start) / 60:.0f}"}
                yield Notice(segment.id, {**words, "movement": _name(prepared, "pelvic-tilt")}, edit)
            return


@check("level")
def level(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """An inversion in a gentle class."""
    if timed.plan.brief.level not in GENTLE_LEVELS:
        return
    for segment in work(timed):
        if "inversion" in segment.use.movement.marks and segment.use.step.take != "gentler":
            edit = _gentler(segment)
            yield Notice(segment.id, {"name": segment.name, "level": timed.plan.brief.level}, edit)


@check("wrists")
def wrists(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Weight on the wrists for minutes without a pause; a breath or two off them is none."""
    run: list[Segment] = []
    rest = 0
    for segment in [*work(timed), None]:
        if segment is not None and "wrist" in segment.use.movement.loads:
            run.append(segment)
            rest = 0
            continue
        rest += segment.length if segment is not None else 1000
        if rest > 150:
            loaded = seconds(sum(s.length for s in run))
            if loaded > WRIST_S:
                middle = run[len(run) // 2 - 1].use.step.id
                edit = (
                    Insert(node=middle, title="A rest for the wrists", movement="child")
                    if len({s.use.step.id for s in run}) > 1
                    else SetMost(
                        node=middle,
                        title=f"A shorter {run[0].name}",
                        amount=_within(run[0], WRIST_S),
                        clock=run[0].use.by_clock,
                    )
                )
                words = {
                    "minutes": f"{loaded / 60:.1f}",
                    "name": run[0].name,
                    "movement": _name(prepared, "child"),
                }
                yield Notice(run[0].id, words, edit)
            run = []


@check("up-and-down")
def up_and_down(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Sent to the floor and up again too often; what a flow does breath by breath does not count."""
    floor = prepared.teaching_data.positions.floor - {"four-point", "plank", "inverted"}
    stays: list[list[Segment]] = []  # runs of segments up, and of segments down
    down = None
    for segment in timed.segments:
        place = base_of(segment.use.end)
        if segment.use.flow or not place or place in ("wall", "split", "four-point", "plank", "inverted"):
            continue
        here = place in floor or place.startswith("on-")
        if down is None or here != down:
            stays.append([])
        stays[-1].append(segment)
        down = here
    changes = len(stays) - 1
    if changes > FLOOR_CHANGES:
        least = min(stays[1:-1], key=lambda stay: stay[-1].end - stay[0].start)
        steps = dict.fromkeys((s.use.step.id, s.use.movement.name) for s in least)
        drops = [Drop(node=step, title=f"Leave out {name}") for step, name in steps]
        yield Notice("", {"times": changes}, msgspec.structs.replace(drops[0], also=tuple(drops[1:])))


@check("pace-jump")
def pace_jump(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Neighbours led by breath whose breath differs by half and more."""
    led = [s for s in work(timed) if s.behaviour.breath_led]
    for before, segment in pairwise(led):
        one, other = breath_ticks(before.use.pace), breath_ticks(segment.use.pace)
        if max(one, other) / min(one, other) >= PACE_JUMP and not segment.use.step.pace:
            words = {"before": f"{600 / one:.1f}", "after": f"{600 / other:.1f}", "name": segment.name}
            between = msgspec.structs.replace(
                segment.use.pace, breaths_per_min=round(600 / math.sqrt(one * other), 1)
            )
            edit = SetPace(
                node=segment.use.step.id, title=f"A breath between, in {segment.name}", pace=between
            )
            yield Notice(segment.id, words, edit)


@check("breath")
def breath(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Held or rapid breath while somebody cautioned against it may be there and no line is said for them."""
    room = prepared.teaching_data.room(timed.plan.brief)
    said = {cue.segment for cue in timed.cues if cue.purpose == "caution"}
    noticed = set()
    for segment in work(timed):
        movement = segment.use.movement
        marks = {"breath held": "the breath is held", "rapid breath": "the breath is quick"}
        met = [what for mark, what in marks.items() if mark in movement.marks]
        against = sorted(room.met(movement))
        gentle = segment.use.step.take == "gentler"
        if met and against and not gentle and movement.id not in noticed and f"{segment.id}/into" not in said:
            if any(s.use.movement.id == movement.id and f"{s.id}/into" in said for s in timed.segments):
                continue
            noticed.add(movement.id)
            words = {"name": segment.name, "what": met[0], "caution": against[0]}
            yield Notice(segment.id, words, _gentler(segment))


def _gentler(segment: Segment) -> Edit:
    step, gentler = segment.use.step, segment.use.movement.gentler
    if gentler is not None and step.take != "gentler":
        return TakeGentler(node=step.id, title=f"Teach the gentler way of {segment.name}")
    return Drop(node=step.id, title=f"Leave out {segment.name}")


def _within(segment: Segment, most_s: float) -> int:
    """The most of a segment's own unit that lasts no longer than so many seconds."""
    return max(1, int(most_s * 10 // max(1, segment.use.unit)))


def _name(prepared: PreparedPlan, movement: str) -> str:
    found = prepared.teaching_data.library.get(movement)
    return found.name if found else movement
