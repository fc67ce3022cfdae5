"""Write: the lines that could be said for every segment, with the windows they belong in.

What is said while moving into a use makes the set-up (`entry`), so it always fits. Counts and times to go
are made from the fitted numbers, so they are always true.
"""

from collections.abc import Iterator, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.script.alignment import alignment_lines
from yewhour.core.script.counts import count_lines
from yewhour.core.script.cue import LEAD, Candidate
from yewhour.core.script.entry_cues import entry_cues, talk_cues
from yewhour.core.script.flow import flow_line, linking_line
from yewhour.core.script.teaching import Teaching
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.entry import EntryLines
from yewhour.core.transitions.ways import same_posture
from yewhour.core.wording.phrasing import (
    Phrasing,
    filled_line,
    lines_of,
    pattern_words,
    variants,
)
from yewhour.core.wording.speech import GAP

STAGE_EARLY = ticks(3)  # before a stage, while the last of what was there is still done


def candidate_lines(segments: Sequence[Segment], entries: EntryLines) -> list[Candidate]:
    """Every line that could be said, in the order of the segments."""
    phrasing = entries.phrasing
    found: list[Candidate] = []
    entered: set[str] = set()
    waiting = dict(_school_lines(phrasing))
    before: StepUse | None = None
    teaching = Teaching(phrasing)
    quiet = ""  # the segment that nothing is said in
    for index, segment in enumerate(segments):
        use = segment.use
        if use.setup_for:
            if use.step.phase is None:
                entered.add(use.setup_for)
                amount = segments[index + 1].amount if index + 1 < len(segments) else 0
                found += entry_cues(entries, index, segment, before, amount)
            elif before is not None:
                found.append(linking_line(phrasing, index, segment, before))
            continue
        last, before = before, use
        if segment.behaviour.framing:
            promised = promised_quiet(segments, index)
            found += talk_cues(entries, index, segment, promised.length if promised else 0)
            quiet = promised.id if promised else quiet
            continue
        called = segment.id in entered
        if use.flow and (segment.behaviour.is_phase or not called):
            found += flow_line(phrasing, index, segment, last, called)
        elif not called and last is not None and same_posture(last, use):
            found += _stage_lines(phrasing, index, segment, last)
        if segment.id == quiet:  # it was promised
            continue
        if last is not None and _begins_round(last, use):
            found.append(_round_line(phrasing, segments, index))
        for name in [name for name in waiting if _suits(name, segment)]:
            found.append(_school_line(index, segment, waiting.pop(name)))
        found += teaching.lines(index, segment)
        found += alignment_lines(phrasing, index, segment)
        found += count_lines(phrasing, index, segment)
    found += _closing(segments, entries)
    return found


def _closing(segments: Sequence[Segment], entries: EntryLines) -> Iterator[Candidate]:
    """The way out of what a class ends with, where nothing comes that would say it."""
    index = next((n for n, one in reversed([*enumerate(segments)]) if not one.is_closing_pause), 0)
    segment = segments[index]
    if words := entries.closing(segment.use):
        takes = entries.phrasing.duration(words[0], "leave")
        at = max(segment.start, segment.end - takes)
        yield Candidate("leave", index, segment.side, words, segment.start, at, segments[-1].end, at)


def _begins_round(before: StepUse, use: StepUse) -> bool:
    """Whether a use is the first of another round, on the side the last one was on."""
    if not use.within or not before.within or use.switch:
        return False
    (here, number), (there, earlier) = use.within[-1], before.within[-1]
    return here == there and number == earlier + 1 and (not use.flow or number == use.rounds)


def _round_line(phrasing: Phrasing, segments: Sequence[Segment], index: int) -> Candidate:
    """That it goes round again, or for the last time, as the round before ends; in a flow only the last."""
    use = segments[index].use
    first = index - 1 if segments[index - 1].use.setup_for == segments[index].id else index
    before, start = segments[first - 1], segments[first].start
    lines = phrasing.wording.last_round if use.round == use.rounds else phrasing.wording.next_round
    words = filled_line(phrasing.variants(lines, use.round), use)
    earliest, aim = max(before.start, start - ticks(4)), start - ticks(2.5)
    return Candidate("count", first - 1, before.side, words, earliest, start, start + ticks(2), aim)


def promised_quiet(segments: Sequence[Segment], index: int) -> Segment | None:
    """The segment that a talk promises to be quiet: the rest or the hold that comes next."""
    if "quiet ahead" not in segments[index].use.movement.marks:
        return None
    coming = next((segment for segment in segments[index + 1 :] if not segment.behaviour.framing), None)
    return coming if coming is not None and coming.behaviour.still else None


# --- the school's ways of breathing and lying, said once ----------------------------------------------------


def _school_lines(phrasing: Phrasing) -> Iterator[tuple[str, Wordings]]:
    school, wording = phrasing.school, phrasing.wording
    breathing = {"nose": wording.breathe_nose, "nose and mouth": wording.breathe_nose_and_mouth}
    if school.breathe_by in breathing:
        yield "breathe", phrasing.told_way(breathing[school.breathe_by], "breathe")
    pelvis = {"neutral": wording.pelvis_neutral, "imprint": wording.pelvis_imprint}
    if school.pelvis in pelvis:
        yield "pelvis", pelvis[school.pelvis][0]
    if school.mirror:
        yield "mirror", wording.mirror[0]


def _suits(name: str, segment: Segment) -> bool:
    """Whether a segment is the one to say a school's line in: the first that it matters for."""
    if not segment.behaviour.company:
        return False
    if name == "breathe" and segment.use.movement.family.startswith("breath"):
        return False  # a practice of breath says itself how one breathes
    if name == "pelvis":
        return segment.behaviour.is_reps and segment.use.movement.start == "supine"
    return name != "mirror" or segment.side in ("left", "right")


def _school_line(index: int, segment: Segment, line: Wordings) -> Candidate:
    low, high = segment.start + GAP, segment.end - GAP
    return Candidate("align", index, segment.side, line, low, high, high, low, True, 20)


def _stage_lines(phrasing: Phrasing, index: int, segment: Segment, before: StepUse) -> Iterator[Candidate]:
    """The lines of a stage, where a movement goes on in its next one, each at its moment."""
    at = segment.start
    for words in _stage_words(phrasing, index, segment.use, before):
        aim = max(0, at - LEAD)
        yield Candidate(
            "call", index, segment.side, words, max(0, at - STAGE_EARLY), at + 2 * GAP, segment.end, aim
        )


def _stage_words(phrasing: Phrasing, index: int, use: StepUse, before: StepUse) -> Iterator[Wordings]:
    if "call" in use.step.lines:
        yield from (filled_line(line, use) for line in lines_of(use, "call"))
    elif use.step.pattern is not None:
        yield (f"Now {pattern_words(phrasing, use)}",)
    elif use.kind != before.kind and use.step.done is not None:
        lines = {
            "hold": phrasing.wording.stage_held, "clock": phrasing.wording.stage_held,
            "counted": phrasing.wording.stage_held, "pulses": phrasing.wording.stage_pulsed,
        }.get(use.kind, phrasing.wording.stage_repeated)  # fmt: skip
        yield filled_line(variants(lines, index), use)
