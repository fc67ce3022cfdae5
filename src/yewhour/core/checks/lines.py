"""Checks of the lines: side words, counts, density, silence, and what found no room."""

import re
from collections.abc import Iterator

from yewhour.core.checks import Notice, check
from yewhour.core.directions import directions
from yewhour.core.layout import Segment
from yewhour.core.lengths import seconds
from yewhour.core.made import Made, Maker

SHORTEST_CALL = 12  # ticks: nobody can call a phase in less
DENSE = 0.85
SILENCE_S = 75.0
HARD_S = 8.0
NUMBERS = ("zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
_MORE = re.compile(rf"\b({'|'.join(NUMBERS)}|\d+) more\b(?! (?:second|minute|round))", re.IGNORECASE)


@check("side-word")
def side_word(made: Made, maker: Maker) -> Iterator[Notice]:
    """A line of the teacher's own that names only the other side than its segment's."""
    by_id = _by_id(made)
    for cue in made.cues:
        segment = by_id[cue.segment]
        if not cue.own or segment.side not in ("left", "right"):
            continue
        named = directions(cue.text)
        if len(named) == 1 and segment.side not in named:
            words = {"word": named.pop(), "name": segment.turn.name, "side": segment.side, "line": cue.text}
            yield Notice(segment.id, words)


@check("count-word")
def count_word(made: Made, maker: Maker) -> Iterator[Notice]:
    """A line of the teacher's own whose "two more" is not two more."""
    by_id = _by_id(made)
    for cue in made.cues:
        segment = by_id[cue.segment]
        found = _MORE.search(cue.text) if cue.own else None
        if found and segment.amount and segment.turn.unit:
            word = found[1].lower()
            said = int(word) if word.isdigit() else NUMBERS.index(word)
            left = (segment.end - cue.start) / segment.turn.unit
            if not said - 0.5 <= left <= said + 0.6:
                words = {"name": segment.name, "said": said, "left": round(left), "line": cue.text}
                yield Notice(segment.id, words)


@check("unsaid")
def unsaid(made: Made, maker: Maker) -> Iterator[Notice]:
    """A line that must be said and found no room."""
    for line in made.dropped:
        if line.must:
            remedy = line.reason.rsplit("; ", 1)[-1]
            yield Notice(line.segment, {"line": line.text, "remedy": remedy[:1].upper() + remedy[1:]})


@check("dense")
def dense(made: Made, maker: Maker) -> Iterator[Notice]:
    """A movement with hardly a breath free of words."""
    spoken: dict[str, int] = {}
    for cue in made.cues:
        spoken[cue.segment] = spoken.get(cue.segment, 0) + cue.end - cue.start
    for segment in made.segments:
        if segment.kind in ("hold", "clock", "stillness") and not segment.turn.flow:
            share = spoken.get(segment.id, 0) / segment.length
            if share > DENSE:
                yield Notice(segment.id, {"name": segment.name, "share": round(100 * share)})


@check("short-phase")
def short_phase(made: Made, maker: Maker) -> Iterator[Notice]:
    """A phase of a flow too short to call."""
    told = set()
    for segment in made.segments:
        if segment.kind == "phase" and segment.length < SHORTEST_CALL and segment.turn.step.id not in told:
            told.add(segment.turn.step.id)
            yield Notice(segment.id, {"name": segment.name, "length": f"{seconds(segment.length):.1f}"})


@check("long-silence")
def long_silence(made: Made, maker: Maker) -> Iterator[Notice]:
    """Silence in a movement, rests apart, with nobody told how long it will be."""
    by_id = _by_id(made)
    orientation = False
    for cue, after in zip(made.cues, [*made.cues[1:], None], strict=True):
        segment = by_id[cue.segment]
        gap = seconds((after.start if after else made.length) - cue.end)
        orientation = cue.purpose in ("time", "count") or "minute" in cue.text.lower()
        resting = segment.kind == "stillness" or "rest" in segment.turn.movement.works
        if gap > SILENCE_S and not resting and not orientation:
            yield Notice(segment.id, {"length": round(gap), "name": segment.name})


@check("hard-to-speak")
def hard_to_speak(made: Made, maker: Maker) -> Iterator[Notice]:
    """Much to say at a stretch upside down, face down or in strong effort."""
    for segment in made.segments:
        if segment.turn.movement.speaks or segment.kind == "setup":
            continue
        most = 0.5 if segment.turn.movement.effort >= 4 else 0.75
        spoken = [
            c for c in made.cues if c.segment == segment.id and c.purpose not in ("count", "time", "flow")
        ]
        total = seconds(sum(cue.end - cue.start for cue in spoken))
        if total > HARD_S and total > most * seconds(segment.length):
            yield Notice(segment.id, {"seconds": round(total), "name": segment.name})


@check("lost-edit")
def lost_edit(made: Made, maker: Maker) -> Iterator[Notice]:
    """A line of the teacher's own whose place is gone."""
    for edit in made.lost_edits:
        yield Notice("", {"line": edit.text or edit.was})


def _by_id(made: Made) -> dict[str, Segment]:
    return {segment.id: segment for segment in made.segments}
