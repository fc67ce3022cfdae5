"""Cues: the lines that could be said, those that are, and those that found no room."""

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.purpose import PURPOSES
from yewhour.core.sides import Side

LEAD = ticks(1.0)  # a line for a phase may start this long before it


class Candidate(msgspec.Struct, frozen=True, gc=False):
    """A line that could be said, in ticks: where it may start, where it would best, where it must end.

    wordings: from full to bare, tokens filled. body: it may be anywhere, spread with its fellows.
    """

    purpose: str
    segment: int
    side: Side
    wordings: Wordings
    earliest: int
    latest: int
    end_by: int
    aim: int
    body: bool = False
    bonus: int = 0
    own: bool = False  # the teacher's own words
    number: int = 0  # counts the lines of its purpose in its segment
    company: bool = False  # one of many that would do as well; nothing is lost with it
    spare: bool = False  # may be dropped although its purpose must be said: another line says it too

    @property
    def must(self) -> bool:
        """Whether it has to be said."""
        return self.own or (PURPOSES[self.purpose].must and not self.spare)

    @property
    def rank(self) -> int:
        """What is kept first."""
        return PURPOSES[self.purpose].priority + self.bonus


class Cue(msgspec.Struct, frozen=True, gc=False):
    """One line to be spoken, with purpose, side, start and end in ticks, and its segment's id."""

    start: int
    end: int
    text: str
    purpose: str
    side: Side
    segment: str
    must: bool
    own: bool = False
    number: int = 0


class Dropped(msgspec.Struct, frozen=True, gc=False):
    """A line that found no room, why, and what would make room for it; `short`: ticks it lacks."""

    text: str
    segment: str
    reason: str
    must: bool = False
    purpose: str = ""
    side: Side = "both"
    number: int = 0
    own: bool = False
    start: int = 0  # where it would best have been said
    short: int = 0
