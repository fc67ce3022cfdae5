"""Onward: what is said where a movement goes on in its next stage, held or pulsed where it was repeated."""

from collections.abc import Iterator

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.script.cue import LEAD, Candidate
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.phrasing import (
    Phrasing,
    filled_line,
    lines_of,
    pattern_words,
    variants,
)
from yewhour.core.wording.speech import GAP

EARLY = ticks(3)  # before the stage, while the last of what was there is still done


def stage_lines(phrasing: Phrasing, index: int, segment: Segment, before: StepUse) -> Iterator[Candidate]:
    """The lines of a stage, each at its moment."""
    at = segment.start
    for words in _words(phrasing, index, segment.use, before):
        aim = max(0, at - LEAD)
        yield Candidate(
            "call", index, segment.side, words, max(0, at - EARLY), at + 2 * GAP, segment.end, aim
        )


def _words(phrasing: Phrasing, index: int, use: StepUse, before: StepUse) -> Iterator[Wordings]:
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
