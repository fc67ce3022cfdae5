"""A recording brought in: what was said of it becomes the outline of a class, to be gone on with by hand."""

import math
import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import pairwise
from statistics import median
from types import MappingProxyType

import msgspec

from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.movement import Library, Movement
from yewhour.core.plan.plan import steps_of
from yewhour.core.review.brought_items import (
    BroughtItem,
    as_said,
    items_of,
    note_of,
    talk_lines,
    taught,
    title_of,
    without_places,
)
from yewhour.core.review.brought_kind import headers, style_of
from yewhour.core.review.listening.free_listener import FreeListener, HeardMovement
from yewhour.core.review.listening.path import repetition_s
from yewhour.core.review.listening.sides import TURN
from yewhour.core.review.review import breath_pace
from yewhour.core.review.without_plan import (
    CLOSING,
    sentences,
)
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.mentions import MentionIndex
from yewhour.core.transcript.transcript import (
    HeardWord,
    SpeechStretch,
    Transcript,
    plain_words,
)

SIDES_S = 480.0  # so soon the second side follows the first
PART_S, SILENCE_S = 150.0, 7.0  # the least length of a part of the class, and of the silence before one
EARLY_S = 1.5  # so long before a movement is named, what is said may be of it
LOST_S = 40.0  # so long after a movement was named, what is said may be of one that was not understood
AFTER_S = 10.0  # so long after something was said of a movement, what is said may be of it
NATURAL = 0.05  # so near is as long as the recording
LEAST_SHARE, MOST_SHARE = 0.5, 1.6  # of the usual seconds of ways and of teaching
ON_CHAIRS, ARRIVING = "chair-balance", {"standing": "arriving standing", "supine": "arriving lying"}
QUICK_S = 9.0  # what is held no longer is gone through
# What tells of both sides in one breath: "and then the left", "five on each side".
BOTH_SAID = re.compile(
    r"\b(?:and|then|now|same) (?:then )?(?:on |to |over )?(?:the |your )?(?:right|left)\b"
    r"(?! (?:hand|arm|leg|foot|knee|elbow|hip|ear|heel))"
    r"|\b(?:each|both|either) (?:sides?|ways?|arms?|legs?|one|directions?|feet|hands)\b|\bmore each\b"
)
OWN_WORDS = 6  # of hers, from which on a movement has enough to be said in them alone
BOTH = 0.5  # of the usual dose on each side, for both sides to have been done
BREATH_S, MOVES_S = 7.5, 12.0  # of a breath where none is heard, and what the way there takes


class HeardClass(msgspec.Struct, frozen=True):
    """What was heard of a recording, before it is written down. said: its sentences; heard: the movements of
    its path; spoken: the seconds that movements were named at; breath_s: of a breath."""

    hearing: Transcript
    said: list[SpeechStretch]
    heard: list[HeardMovement]
    items: list[BroughtItem]
    spoken: list[float]
    breath_s: float


class BroughtClass(msgspec.Struct, frozen=True):
    """The outline of a class, and what was found: movements in order, and how many notes were left. told: of
    its length, where it could not be kept. steps: the items that each step of the outline is of."""

    outline: str
    items: tuple[BroughtItem, ...]
    notes: int
    told: str = ""
    steps: tuple[tuple[BroughtItem, ...], ...] = ()


def heard_class(hearing: Transcript, listener: FreeListener) -> HeardClass:
    """What is heard of a recording."""
    said = sentences(hearing.talks)
    heard = listener.heard(hearing)
    mentions, sides = taught(hearing, heard, listener, said)
    mentions = without_places(mentions, sides, listener)
    items = items_of(hearing, mentions, sides, said, listener)
    breath_s = 60 / (breath_pace(hearing.words) or 60 / BREATH_S)
    return HeardClass(hearing, said, heard, items, [one.start_s for one in mentions], breath_s)


def brought_in(hearing: Transcript, listener: FreeListener, title: str) -> BroughtClass:
    """The outline that a recording becomes; what was not understood stands in it as a note at its time."""
    return written_down(heard_class(hearing, listener), listener, title)


def written_down(
    found: HeardClass, listener: FreeListener, title: str, doses: Mapping[float, int] = MappingProxyType({})
) -> BroughtClass:
    """The outline of what was heard. doses: of movements by the second they begin at, where they are known
    better than by their time alone."""
    known, hearing, items, said = listener.names, found.hearing, found.items, found.said
    rows = [f"title: {title_of(title)}", f"length: {show_length(max(60, round(hearing.length_s)))}"]
    rows += [*headers(items, said, known.library, listener.descriptions), ""]
    notes = 0
    groups = list(_paired(items, known))
    parts = _parts(groups, hearing.words)
    opening = [talk for talk in said if items and talk.end_s <= items[0].start_s + 0.2]
    if opening and parts:
        rows += ["# Opening | role arrive", *talk_lines(_arriving(items, known.library), opening)]
    closing = _closing(said, found.spoken)
    under = _under(items, [talk for talk in said if talk not in opening and talk not in closing])
    for number, part in enumerate(parts):
        rows += ["", f"# {_heading(part, known, number)}"]
        for group in part:
            rows += _group(group, known, found.breath_s, under, doses)
            last = group[0][-1]
            until_s = max(item.end_s for side in group for item in side)
            lost = [
                talk
                for talk in said
                if last.start_s + LOST_S < talk.start_s < until_s
                and not any(one.start_s <= talk.start_s <= one.last_s + AFTER_S for one in found.heard)
                and not group[1:]
                and talk not in closing
                and not any(talk.start_s <= at_s < talk.end_s for at_s in found.spoken)
            ]
            notes += len(lost)
            rows += [f"// {show_length(round(talk.start_s))} {note_of(talk.text)}" for talk in lost]
    if items and closing:
        rows += ["", "# Close | role close", *talk_lines("farewell", closing)]
    if not items:
        rows += [
            "# All of it",
            *(f"// {show_length(round(talk.start_s))} {note_of(talk.text)}" for talk in said),
        ]
        notes += len(said)
    steps = [
        (item, *(other for other in second if other.movement == item.movement))
        for first, *more in groups
        for second in (more[0] if more else [],)
        for item in first
        if not item.block
    ]
    return BroughtClass("\n".join(rows).rstrip() + "\n", tuple(items), notes, steps=tuple(steps))


def doses_of(brought: BroughtClass, timed: TimedClass, library: Library) -> dict[float, int]:
    """What each movement was given, by the second it begins at: so much that with its way and teaching, as
    they are in a class that was made of it, it lasts as long as it did. What was counted stays."""
    steps = [one for one in steps_of(timed.plan) if not library[one.movement].behaviour.is_talk]
    lasts: dict[str, float] = {}
    doing: dict[str, float] = {}
    for segment in timed.segments:
        name, length_s = segment.use.step.id, seconds(segment.length)
        lasts[name] = lasts.get(name, 0.0) + length_s
        if segment.amount and not segment.use.setup_for:
            doing[name] = doing.get(name, 0.0) + length_s
    found: dict[float, int] = {}
    for step, items in zip(steps, brought.steps, strict=False):
        first, done_s = items[0], doing.get(step.id, 0.0)
        lasted_s = sum(one.end_s - one.start_s for one in items)
        if step.movement != first.movement or first.count or not step.amount or not done_s:
            continue
        found[first.start_s] = max(1, round(step.amount * (done_s + lasted_s - lasts[step.id]) / done_s))
    return found


def _arriving(items: Sequence[BroughtItem], library: Library) -> str:
    """The talk of arriving where the first thing is done."""
    done = [one for one in items if not one.block]
    if style_of(done, library) == ON_CHAIRS:
        return "arriving chair"
    first = library[done[0].movement].start if done else ""
    return next((name for base, name in ARRIVING.items() if first.startswith(base)), "arriving")


def own_share_of(lasted_s: float, natural_s: Callable[[float], float]) -> float:
    """The share of the usual seconds of ways and teaching with which a class is naturally as long as its
    recording, or as near as people are; 1 where it is so already.

    natural_s: the length at a share.
    """
    at, natural = 1.0, natural_s(1.0)
    if abs(natural / lasted_s - 1) <= NATURAL:
        return at
    other = LEAST_SHARE if natural > lasted_s else MOST_SHARE
    slope = (natural_s(other) - natural) / (other - at)
    share = at + (lasted_s - natural) / slope if slope > 0 else at
    return round(min(MOST_SHARE, max(LEAST_SHARE, share)), 2)


def with_own_seconds(outline: str, share: float) -> str:
    """An outline with a share of the usual seconds of ways and teaching; the same for 1."""
    if share == 1:
        return outline
    own = f"own ways: {share:g}\nown teaching: {share:g}"
    return re.sub(r"(?m)^(length: .*)$", rf"\1\n{own}", outline, count=1)


def with_length(brought: BroughtClass, lasted_s: float, nearest_s: float) -> BroughtClass:
    """The same with the nearest length the class can have, where it can't be as long as its recording."""
    if abs(lasted_s - nearest_s) < 1.0:
        return brought
    length = show_length(math.ceil(nearest_s) if nearest_s > lasted_s else math.floor(nearest_s))
    outline = re.sub(r"(?m)^length: .*$", f"length: {length}", brought.outline, count=1)
    told = f"The recording lasts {show_length(lasted_s)}; with all that was found it is a class of {length}."
    return msgspec.structs.replace(brought, outline=outline, told=told)


def _under(items: Sequence[BroughtItem], said: Sequence[SpeechStretch]) -> dict[int, list[SpeechStretch]]:
    """What was said while each movement was done, by its id as an object; no sentence is left over."""
    found: dict[int, list[SpeechStretch]] = {}
    for talk in said if items else ():
        on = [item for item in items if item.start_s <= talk.start_s + EARLY_S]
        found.setdefault(id(on[-1] if on else items[0]), []).append(talk)
    return found


def _words(item: BroughtItem, side: str, under: dict[int, list[SpeechStretch]]) -> list[str]:
    """Her own words for a movement, each at its second of it. side: where the other side stands there too."""
    lines = []
    for talk in under.get(id(item), ()):
        at_s = max(0, round(talk.start_s - item.start_s))
        where = f", {side}" if side in ("left", "right") else ""
        step = ", of 1" if item.block else ""
        lines.append(f"  add say{where}{step}, at {at_s}s: {as_said(talk.text)}")
    return lines


def _closing(said: Sequence[SpeechStretch], spoken: Sequence[float]) -> list[SpeechStretch]:
    """What is said to bring them back and to end, behind the last movement that is named."""
    after = [talk for talk in said if spoken and talk.start_s > spoken[-1] + 0.5]
    ends = [n for n, talk in enumerate(after) if CLOSING.search(" ".join(plain_words(talk.text)))]
    return after[ends[0] :] if ends else []


# --- in pairs -------------------------------------------------------------------------------------------

Group = list[list[BroughtItem]]  # the items of one side, and of the other where it was found


def _paired(items: Sequence[BroughtItem], known: MentionIndex) -> Iterator[Group]:
    """Items in groups: what was done on one side and again on the other belongs together."""
    at = 0
    while at < len(items):
        size = _block(items, at, known)
        if size:
            first = list(items[at : at + size])
            second = items[at + size : at + 2 * size]
            taken = 0
            for item in first:  # what the second side leaves out is passed over
                taken += taken < len(second) and item.movement == second[taken].movement
            yield [first, list(second[:taken])]
            at += size + taken
        else:
            yield [[items[at]]]
            at += 1


def _block(items: Sequence[BroughtItem], at: int, known: MentionIndex) -> int:
    """How many items from one on are done again, on the other side, right after; 0 for none."""
    here = items[at]
    if not _one_sided(here, known):
        return 0
    for later in range(at + 1, min(len(items), at + 9)):
        other = items[later]
        if other.start_s - here.start_s > SIDES_S:
            return 0
        if other.movement == here.movement:
            turned = bool(here.side and other.side and here.side != other.side)
            return (
                later - at if turned or other.again or any(i.again for i in items[at + 1 : later + 1]) else 0
            )
    return 0


def _one_sided(item: BroughtItem, known: MentionIndex) -> bool:
    return not item.block and known.library[item.movement].sides == "one"


# --- written down ---------------------------------------------------------------------------------------


def _parts(groups: Sequence[Group], words: Sequence[HeardWord]) -> list[list[Group]]:
    """The parts of a class: a new one begins behind a silence, when the one before is long enough."""
    ends = [(two.start_s, two.start_s - one.end_s) for one, two in pairwise(words)]
    silences = sorted(gap for _, gap in ends)
    usual = median(silences) if silences else 0.0
    parts: list[list[Group]] = []
    begun_s = 0.0
    for group in groups:
        start_s = group[0][0].start_s
        quiet = max((gap for at_s, gap in ends if start_s - 12 <= at_s <= start_s + 0.1), default=0.0)
        if not parts or (start_s - begun_s >= PART_S and quiet >= max(SILENCE_S, 3 * usual)):
            parts.append([])
            begun_s = start_s
        parts[-1].append(group)
    return parts


def _heading(part: Sequence[Group], known: MentionIndex, number: int) -> str:
    item = part[0][0][0]
    if not item.block and known.library[item.movement].behaviour.is_rest:
        return "Rest"
    name = item.movement.capitalize() if item.block else known.library[item.movement].name
    return f"Part {number + 1}, from {name}".replace("|", " ")


def _group(
    group: Group,
    known: MentionIndex,
    breath_s: float,
    under: dict[int, list[SpeechStretch]],
    doses: Mapping[float, int],
) -> list[str]:
    first = group[0]
    second = {item.movement: item for item in group[1]} if len(group) > 1 else {}
    if len(first) == 1:
        item = first[0]
        words = _both(item, second.get(item.movement), under)
        told = " ".join(talk.text for talk in under.get(id(item), ()))
        step = _step(item, known, breath_s, doses) + _sides(item, second, known, told)
        return [step + _told_by(item, words), *words]
    rows = [f"pair{f' {first[0].side}' if first[0].side else ''}"]
    for item in first:
        words = _both(item, second.get(item.movement), under)
        rows.append(f"  {_step(item, known, breath_s, doses)}{_told_by(item, words)}")
        rows += [f"  {line}" for line in words]
    return rows


def _told_by(item: BroughtItem, words: Sequence[str]) -> str:
    """That a movement is told in her own words alone, where there are enough of them."""
    said = sum(len(line.partition(": ")[2].split()) for line in words)
    return " own words" if not item.block and said >= OWN_WORDS else ""


def _sides(item: BroughtItem, second: Mapping[str, BroughtItem], known: MentionIndex, said: str) -> str:
    """Both sides where the other one was heard, or there was time for it and none was told; else one. said:
    what was said while it was done."""
    if not _one_sided(item, known):
        return ""
    told = item.side if item.side in ("left", "right") else ""
    words = " ".join(plain_words(said))
    heard = item.movement in second or TURN.search(words) or BOTH_SAID.search(words)
    if heard or (not told and _has_time_for_both(item, known.library[item.movement])):
        return f" pair {told}".rstrip()
    return f" {told or 'right'}"


def _has_time_for_both(item: BroughtItem, movement: Movement) -> bool:
    """Whether a movement lasted so long that it may have been done on both sides."""
    _, usual, _ = movement.dose
    each_s = {"b": BREATH_S, "s": 1.0}.get(movement.behaviour.letter, repetition_s(movement))
    return item.end_s - item.start_s >= MOVES_S + 2 * BOTH * usual * each_s


def _both(item: BroughtItem, other: BroughtItem | None, under: dict[int, list[SpeechStretch]]) -> list[str]:
    """Her words on one side, and on the other where there is one."""
    if other is None:
        return _words(item, "", under)
    side = item.side if item.side in ("left", "right") else "right"
    return [*_words(item, side, under), *_words(other, "left" if side == "right" else "right", under)]


def _step(item: BroughtItem, known: MentionIndex, breath_s: float, doses: Mapping[float, int]) -> str:
    if item.block:
        return f"insert {item.movement}"
    movement = known.library[item.movement]
    return f"{item.movement.replace('-', ' ')}{_dose(item, movement, breath_s, doses)}"


def _dose(item: BroughtItem, movement: Movement, breath_s: float, doses: Mapping[float, int]) -> str:
    """What it was given, within what the movement may have: as it was said, else from its time."""
    least, preferred, most = movement.dose
    doing_s = max(0.0, item.end_s - item.start_s - MOVES_S)
    letter = movement.behaviour.letter
    if not letter:
        return ""
    if letter == "s":
        amount = round(doses.get(item.start_s, doing_s) / 5) * 5
        return f" {min(most, max(least, amount))}s"
    if movement.behaviour.is_hold and item.end_s - item.start_s <= QUICK_S:
        return " ex" if movement.enter == "exhale" else " in"  # gone through, in a breath
    each_s = breath_s if letter == "b" else repetition_s(movement)
    amount = item.count or doses.get(item.start_s, 0) or (round(doing_s / each_s) if doing_s else preferred)
    amount = min(most, max(least, amount))
    by = movement.by if movement.sides != "alternating" else max(2, movement.by)
    return f" {max(by, amount - amount % by)}{letter}"
