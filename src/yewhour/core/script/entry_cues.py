"""The lines of a way in, and those of a talk, as candidates at their moments."""

from collections.abc import Iterator

from yewhour.core.lengths import ticks
from yewhour.core.script.cue import Candidate
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.entry import BREATHER, LONGEST_QUIET, EntryLines
from yewhour.core.transitions.passage import LONGEST_NUMBER
from yewhour.core.wording.phrasing import about_as_long

DONE_FIRST = {
    "exit",
    "way",
    "prop",
    "leave",
    "place",
    "protect",
}  # what the body does before it can follow the next line
SETTLING = 2  # parts of the spare time of a way in that are left at its end
LONGEST_PAUSE = ticks(6.0)  # after one of its lines


def entry_cues(
    entries: EntryLines, index: int, segment: Segment, before: StepUse | None, amount: int = 0
) -> Iterator[Candidate]:
    """The lines of a way in, one after another; where there is time, each is done before the next.

    amount: of what comes, for the line that tells it.
    """
    use, at = segment.use, segment.start
    lines = entries.entry(before, use)
    rooms = entries.slots(use, lines)
    moved = sum(purpose in DONE_FIRST for purpose, _ in lines)
    spare = segment.end - segment.start - sum(rooms) - BREATHER
    pause = min(LONGEST_PAUSE, max(0, spare) // (moved + SETTLING))
    for (purpose, wordings), room in zip(lines, rooms, strict=True):
        if LONGEST_NUMBER in wordings[0].lower():
            word = entries.phrasing.number_word(amount)
            told = wordings[0].replace(LONGEST_NUMBER, word)
            wordings = (told.replace(LONGEST_NUMBER.capitalize(), word.capitalize()),)
        yield Candidate(purpose, index, use.side, wordings, at, segment.end, segment.end, at)
        at += room + (pause if purpose in DONE_FIRST else 0)


def talk_cues(entries: EntryLines, index: int, segment: Segment, quiet: int = 0) -> Iterator[Candidate]:
    """The lines of a talk, or of a set-up of the plan's own, one after another, with their pauses.

    quiet: ticks of the quiet that it promises, if it does.
    """
    use, at = segment.use, segment.start
    lines, pauses = entries.own(use), [pause for _, pause in entries.talk(use)]
    rooms = entries.slots(use, lines, pauses)
    if quiet:
        words = about_as_long(quiet, entries.phrasing.number_word)
        lines = [(purpose, (line[0].replace(LONGEST_QUIET, words),)) for purpose, line in lines]
    for (purpose, wordings), room in zip(lines, rooms, strict=True):
        latest = at if use.behaviour.is_talk else segment.end
        yield Candidate(purpose, index, segment.side, wordings, at, latest, segment.end, at)
        at += room
