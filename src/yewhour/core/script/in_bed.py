"""A class that is done in bed: what is said of mat and floor is said of the bed."""

import re
from collections.abc import Iterable, Iterator, Sequence

import msgspec

from yewhour.core.script.cue import Candidate
from yewhour.core.timing.layout import Segment

IN_BED = "anything not done in bed"
# As many syllables, so that a line takes as long as before; "the floor of the pelvis" is none.
_LAIN_ON = re.compile(r"\b([Tt]he|[Yy]our|a) (?:mat|floor|ground)\b(?! of)")
FRAMED = frozenset(("welcome", "farewell"))


def lying_in_bed(candidates: Iterable[Candidate], segments: Sequence[Segment]) -> Iterator[Candidate]:
    """The lines with the bed in place of mat and floor, but for what is said before and after the class."""
    for one in candidates:
        if FRAMED.isdisjoint(segments[one.segment].use.movement.marks):
            wordings = tuple(_LAIN_ON.sub(r"\1 bed", text) for text in one.wordings)
            one = msgspec.structs.replace(one, wordings=wordings)
        yield one
