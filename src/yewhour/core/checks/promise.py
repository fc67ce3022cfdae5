"""Checks of the promise: length, props, rest and closing."""

from collections.abc import Iterator, Sequence
from itertools import takewhile

import msgspec

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.names import listed
from yewhour.core.library.position import base_of
from yewhour.core.plan.edit import Append, BringProp, Drop, EditLines, Forget, Insert, SetAmount, SetTarget
from yewhour.core.plan.nodes import Block
from yewhour.core.plan.plan import nodes_in, steps_of
from yewhour.core.plan.stand_ins import is_stand_in, missing_blocks
from yewhour.core.plan.vocabulary import unknown_words
from yewhour.core.preparation import PreparedPlan
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.own_words import is_of

# Measured figures: classes under half an hour have up to 80 s of rest, many none; sitting up takes 16-48 s.
REST_FROM_S = 1800.0
LEAVING_S = 16.0
NAMED = 4  # movements in one message


@check("length")
def length(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Made to another length than the title promises."""
    brief = timed.plan.brief
    if abs(timed.length_s - timed.promised_s) > brief.tolerance_s + 0.11:
        target = show_length(timed.promised_s)
        edit = SetTarget(title=f"Promise {show_length(timed.length_s)}", target_s=round(timed.length_s))
        yield Notice("", {"length": show_length(timed.length_s), "target": target}, edit)


@check("prop")
def prop(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A prop in use that the brief, when it names any, does not have at hand."""
    at_hand, noticed = set(timed.plan.brief.props), set()
    for segment in timed.segments:
        for prop in segment.use.movement.props:
            if at_hand and prop not in at_hand and prop not in noticed:
                noticed.add(prop)
                edit = BringProp(title=f"Have {prop} at hand", prop=prop)
                yield Notice(segment.id, {"name": segment.use.name, "prop": prop}, edit)


@check("left-out")
def left_out(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Movements that are left out for somebody who may be in the room, or that the promise does without."""
    teaching_data = prepared.teaching_data
    room = teaching_data.room(timed.plan.brief)
    met: dict[str, list[Segment]] = {}
    for segment in timed.segments:
        left = room.left_out(segment.use.movement)
        if left is not None:
            met.setdefault(_whom(left.tag, left.why, teaching_data), []).append(segment)
    for whom, segments in met.items():
        all_names = list(dict.fromkeys(one.use.movement.name for one in segments))
        more = len(all_names) - NAMED
        names = listed([*all_names[:NAMED], f"{more} more"] if more > 1 else all_names)
        title = f"Leave out {names}"
        first, *others = dict.fromkeys(one.use.step.id for one in segments)
        edit = Drop(node=first, title=title, also=tuple(Drop(node=one, title=title) for one in others))
        yield Notice(segments[0].id, {"names": names, "whom": whom}, edit)


def _whom(tag: str, why: str, teaching_data: TeachingData) -> str:
    """Whom, or what for, something is left out."""
    if why == "caution":
        return f"for {teaching_data.cautions.get(tag, tag)}"
    group, movement = teaching_data.conditions.groups.get(tag), teaching_data.library.get(tag)
    return f"in a class without {group.name if group else movement.name if movement else tag}"


@check("placeholder")
def placeholder(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A caution or a prop of the brief that means nothing here: nothing is left out for it, nothing uses
    it."""
    for what, word in unknown_words(timed.plan.brief, prepared.teaching_data.known):
        so = "nothing is left out for it" if what == "caution" else "nothing uses it"
        edit = Forget(title=f"Take {word} out of the promise", what=what, word=word)
        yield Notice("", {"what": what, "word": word, "so": so}, edit)


@check("stand-in")
def stand_in(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A movement, or a block, that the class names and the library has not."""
    noticed: set[str] = set()
    for segment in timed.segments:
        movement = segment.use.movement
        if is_stand_in(movement) and movement.id not in noticed and not segment.behaviour.is_setup:
            noticed.add(movement.id)
            kept = "with its seconds and your own lines"
            ids = [one.id for one in steps_of(timed.plan) if one.movement == movement.id]
            words = {"what": "movement", "name": movement.name, "kept": kept}
            yield Notice(segment.id, words, _all_out(movement.name, ids))
    for name in missing_blocks(timed.plan, prepared.teaching_data.blocks):
        ids = [one.id for one in nodes_in(timed.plan) if isinstance(one, Block) and one.name == name]
        shown = name.capitalize()
        words = {"what": "block", "name": shown, "kept": "though nothing is done there"}
        yield Notice("", words, _all_out(shown, ids))


def _all_out(name: str, ids: Sequence[str]) -> Drop | None:
    """Every use of what is not there left out, as one edit."""
    drops = [Drop(node=one, title=f"Leave out {name}") for one in ids]
    return msgspec.structs.replace(drops[0], also=tuple(drops[1:])) if drops else None


@check("prop-unsaid")
def prop_unsaid(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A prop that no line up to its movement names, its prop line muted or dropped."""
    noticed = set()
    for segment in timed.segments:
        for prop in segment.use.movement.props if not segment.behaviour.is_setup else ():
            word = prop.split()[-1].rstrip("s")
            before = (cue for cue in timed.cues if cue.start <= segment.start)
            if prop not in noticed and not any(word in c.text.lower() or c.purpose == "prop" for c in before):
                step = segment.use.step.id
                muted = tuple(e for e in timed.plan.edits if is_of(e, segment.use) and e.purpose == "prop")
                edit = EditLines(step=step, title=f"Say {prop} again", unsay=muted) if muted else None
                yield Notice(segment.id, {"name": segment.use.name, "prop": prop}, edit)
            noticed.add(prop)


@check("no-rest")
def no_rest(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """No final rest where the style asks for one and there is one for all who may be there; short classes
    often have none, and are good ones."""
    wanted = prepared.school.least_rest and timed.length_s >= REST_FROM_S and not _rest_ticks(timed)
    room = prepared.teaching_data.room(timed.plan.brief)
    library = prepared.teaching_data.library.values()
    if wanted and any("final rest" in one.marks and room.left_out(one) is None for one in library):
        yield Notice("", {}, Append(section="Rest", title="Add a final rest", movement="final-rest"))


@check("short-rest")
def short_rest(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A rest too short for the length of the class."""
    rest, least = _rest_ticks(timed), prepared.school.least_rest
    if rest and timed.length_s >= REST_FROM_S and rest < least * timed.length * 0.9:
        last = next(s for s in reversed(timed.segments) if "final rest" in s.use.movement.marks)
        asked = round(seconds(int(least * timed.length)) / 5) * 5
        words = {
            "length": show_length(seconds(rest)), "share": round(100 * rest / timed.length),
            "least": round(100 * least), "asked": show_length(asked),
        }  # fmt: skip
        yield Notice(
            last.id, words, SetAmount(node=last.use.step.id, title="Lengthen the rest", amount=asked)
        )


def _rest_ticks(timed: TimedClass) -> int:
    return sum(
        segment.length
        for segment in timed.segments
        if not segment.behaviour.is_setup and "final rest" in segment.use.movement.marks
    )


@check("quick-close")
def quick_close(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """After a lying rest, less than 16 s to the end or to the next movement."""
    rests = [
        s
        for s in timed.segments
        if s.behaviour.is_rest and base_of(s.use.end) == "supine" and not s.is_closing_pause
    ]
    if not rests or not rests[-1].use.movement.marks:
        return
    rest = rests[-1]
    after = [s for s in timed.segments if s.start >= rest.end]
    if any("staying" in one.use.movement.marks for one in after):
        return  # nobody is asked up
    leaving = list(takewhile(lambda segment: segment.behaviour.framing, after))
    left = seconds(sum(segment.length for segment in leaving))
    if left < LEAVING_S:
        edit = Insert(node=rest.use.step.id, title="Add the slow return", movement="return")
        yield Notice(rest.id, {"length": round(left)}, edit)
