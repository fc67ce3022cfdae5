"""Checks of the lines: side words, counts, density, silence, and what found no room."""

import math
import re
from collections.abc import Iterator, Sequence
from itertools import zip_longest

import msgspec

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import seconds, ticks
from yewhour.core.pace import SLOWEST
from yewhour.core.plan.edit import Edit, EditLines, SetAmount, SlowSection
from yewhour.core.preparation import PreparedPlan
from yewhour.core.purpose import PURPOSES
from yewhour.core.script.cue import Cue, Dropped
from yewhour.core.script.own_lines import edit_behind
from yewhour.core.sides import fill
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions, tokenised
from yewhour.core.wording.own_words import line_edit
from yewhour.core.wording.phrasing import about_as_long

SHORTEST_CALL = 12  # ticks: nobody can call a phase in less
DENSE = 0.85
SILENCE_S = 75.0
HARD_S = 8.0
_SENTENCE = re.compile(r"(?<=[.!?])\s+")
NUMBERS = ("zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
_MORE = re.compile(rf"\b({'|'.join(NUMBERS)}|\d+) more\b(?! (?:second|minute|round))", re.IGNORECASE)


@check("side-word")
def side_word(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A line of the teacher's own, in the class or in the library, that names only the other side."""
    by_id = _by_id(timed)
    for cue in timed.cues:
        segment = by_id[cue.segment]
        if segment.side not in ("left", "right"):
            continue
        named = directions(cue.text)
        if len(named) == 1 and segment.side not in named and (cue.own or _one_sided(cue, segment)):
            word = named.pop()
            words = {"word": word, "name": segment.use.name, "side": segment.side, "line": cue.text}
            text = fill(tokenised(cue.text, word), segment.side)
            yield Notice(
                segment.id, words, _reworded(timed, cue, segment, text, f"Say {segment.side} instead")
            )


def _one_sided(cue: Cue, segment: Segment) -> bool:
    """Whether a line stands in the library with a side in plain words, the same whichever side it is."""
    movement = segment.use.movement
    card = movement.card.lines() if movement.card is not None else ()
    texts = [text for lines in movement.lines.values() for one in lines for text in one]
    texts += [text for _, text in card]
    return any(
        directions(text) and fill(text, segment.side, name=movement.name) == cue.text for text in texts
    )


@check("count-word")
def count_word(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A line of the teacher's own whose "two more" is not two more."""
    by_id = _by_id(timed)
    for cue in timed.cues:
        segment = by_id[cue.segment]
        found = _MORE.search(cue.text) if cue.own else None
        if found and segment.amount and segment.use.unit:
            word = found[1].lower()
            noticed = int(word) if word.isdigit() else NUMBERS.index(word)
            left = (segment.end - cue.start) / segment.use.unit
            if not noticed - 0.5 <= left <= noticed + 0.6:
                words = {"name": segment.name, "said": noticed, "left": round(left), "line": cue.text}
                text = " ".join(part for part in _SENTENCE.split(cue.text) if not _MORE.search(part))
                yield Notice(segment.id, words, _reworded(timed, cue, segment, text, "Take the count out"))


@check("unsaid")
def unsaid(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A line that must be said and found no room."""
    by_id = _by_id(timed)
    for line in timed.dropped:
        if line.must:
            remedy = line.reason.rsplit("; ", 1)[-1]
            words = {"line": line.text, "remedy": remedy[:1].upper() + remedy[1:]}
            yield Notice(line.segment, words, roomier(by_id[line.segment], line.short))


@check("dense")
def dense(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A movement with hardly a breath free of words."""
    spoken: dict[str, int] = {}
    for cue in timed.cues:
        spoken[cue.segment] = spoken.get(cue.segment, 0) + cue.end - cue.start
    for segment in timed.segments:
        if segment.behaviour.still and not segment.use.flow:
            share = spoken.get(segment.id, 0) / segment.length
            if share > DENSE:
                words = {"name": segment.name, "share": round(100 * share)}
                short = round(spoken.get(segment.id, 0) / (DENSE - 0.1)) - segment.length
                yield Notice(segment.id, words, roomier(segment, short))


@check("short-phase")
def short_phase(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A phase of a flow too short to call."""
    noticed = set()
    for segment in timed.segments:
        if (
            segment.behaviour.is_phase
            and segment.length < SHORTEST_CALL
            and segment.use.step.id not in noticed
        ):
            noticed.add(segment.use.step.id)
            words = {"name": segment.name, "length": f"{seconds(segment.length):.1f}"}
            yield Notice(segment.id, words, roomier(segment, SHORTEST_CALL - segment.length + 1))


@check("long-silence")
def long_silence(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Silence in a movement, rests apart, with nobody told how long it will be."""
    by_id, promised = _by_id(timed), _promised(timed)
    orientation = False
    for cue, after in zip_longest(timed.cues, timed.cues[1:]):
        segment = by_id[cue.segment]
        gap = seconds((after.start if after else timed.length) - cue.end)
        orientation = cue.purpose in ("time", "count") or "minute" in cue.text.lower()
        resting = segment.behaviour.is_rest or "rest" in segment.use.movement.works
        resting = resting or segment.id in promised
        if gap > SILENCE_S and not resting and not orientation:
            while segment.behaviour.is_setup or segment.end <= cue.end:  # the silence is in what comes after
                following = timed.segments.index(segment) + 1
                if following == len(timed.segments):
                    break
                segment = timed.segments[following]
            step = segment.use.step.id
            quiet = about_as_long(ticks(gap), prepared.teaching_data.number_word)
            text = fill(prepared.teaching_data.wording.silence[0][0], "both", quiet=quiet)
            at_s = max(0.0, seconds(cue.end - segment.start)) + 1.0
            line = line_edit(segment.use, "time", "add", text=text, at_s=at_s)
            edit = EditLines(step=step, title="Say how long the silence will be", say=(line,))
            yield Notice(segment.id, {"length": round(gap), "name": segment.name}, edit)


def _promised(timed: TimedClass) -> set[str]:
    """The segments before which it was said how long it will be quiet, the ways into them too."""
    found: set[str] = set()
    quiet = False
    for segment in timed.segments:
        if segment.behaviour.is_talk:
            quiet = "quiet ahead" in segment.use.movement.marks
        elif quiet:
            found.add(segment.id)
            quiet = segment.behaviour.is_setup
    return found


@check("hard-to-speak")
def hard_to_speak(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Much to say at a stretch upside down, face down or in strong effort."""
    for segment in timed.segments:
        if segment.use.movement.speaks or segment.behaviour.is_setup:
            continue
        most = 0.5 if segment.use.movement.effort >= 4 else 0.75
        spoken = [
            c for c in timed.cues if c.segment == segment.id and c.purpose not in ("count", "time", "flow")
        ]
        total = seconds(sum(cue.end - cue.start for cue in spoken))
        if total > HARD_S and total > most * seconds(segment.length):
            yield Notice(
                segment.id, {"seconds": round(total), "name": segment.name}, _quieter(timed, segment, spoken)
            )


@check("lost-edit")
def lost_edit(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A line of the teacher's own whose place is gone."""
    for edit in timed.lost_edits:
        let_go = EditLines(title="Let that line go", unsay=(edit,))
        yield Notice("", {"line": edit.text or edit.was}, let_go)


# --- what mends a line -------------------------------------------------------------------------------------


def _reworded(timed: TimedClass, cue: Cue, segment: Segment, text: str, title: str) -> Edit | None:
    """The teacher's line in other words, or taken out where none are left."""
    old = edit_behind(timed.plan, segment, cue)
    side = str(segment.side)
    if old is None:
        hers = line_edit(
            segment.use, cue.purpose, "rewrite", number=cue.number, side=side, text=text, was=cue.text
        )
        return EditLines(step=hers.step, title=title, say=(hers,)) if text else None
    new = (msgspec.structs.replace(old, text=text, side=str(segment.side)),) if text else ()
    return EditLines(step=old.step, title=title, unsay=(old,), say=new)


def roomier(segment: Segment, short: int) -> Edit | None:
    """So many ticks more for a segment: a greater amount, or a slower breath for its section."""
    use = segment.use
    if not segment.behaviour.is_phase and use.unit:
        more = max(1, -(-short // use.unit))
        amount = segment.amount + more
        return SetAmount(node=use.step.id, title=f"Longer in {use.name}", amount=amount, clock=use.by_clock)
    if segment.behaviour.is_phase:
        rate = use.pace.breaths_per_min * segment.length / (segment.length + short)
        slower = msgspec.structs.replace(use.pace, breaths_per_min=max(SLOWEST, math.floor(rate * 10) / 10))
        return SlowSection(node=use.step.id, title=f"A slower breath in {segment.section}", pace=slower)
    return None


def _quieter(timed: TimedClass, segment: Segment, spoken: Sequence[Cue]) -> Edit:
    """What is not necessary goes unsaid here, and the teacher's own lines go to the movement before."""
    step = segment.use.step.id
    index = timed.segments.index(segment)
    places = [s for s in [*timed.segments[:index][::-1], *timed.segments[index:]]
              if s.use.step.id != step and not (s.behaviour.framing or s.behaviour.is_phase)]  # fmt: skip
    unsay, say = [], []
    for cue in spoken:
        own = edit_behind(timed.plan, segment, cue) if cue.own else None
        if own is not None:
            unsay.append(own)
            say += [
                msgspec.structs.replace(
                    own, step=place.use.step.id, block=next(iter(place.use.blocks), ""), at_s=0.0
                )
                for place in places[:1]
            ]
    left: list[Cue | Dropped] = [*spoken, *(line for line in timed.dropped if line.segment == segment.id)]
    soft = {(line.purpose, line.number) for line in left if not line.own and not PURPOSES[line.purpose].must}
    say += [line_edit(segment.use, purpose, "mute", number=number) for purpose, number in sorted(soft)]
    return EditLines(step=step, title=f"Say less in {segment.name}", unsay=tuple(unsay), say=tuple(say))


def _by_id(timed: TimedClass) -> dict[str, Segment]:
    return {segment.id: segment for segment in timed.segments}
