"""A made class: what the pipeline gives, as a value. `maker` makes it."""

import msgspec

from yewhour.core.choice import Choice
from yewhour.core.cue import Cue, Dropped
from yewhour.core.finding import Finding
from yewhour.core.layout import Segment
from yewhour.core.lengths import seconds
from yewhour.core.plan import LineEdit, Plan


class Lengths(msgspec.Struct, frozen=True):
    """How long a class can be, and what is promised, in seconds.

    extra_s: what comes on top of the brief's target, where that counts the practice alone.
    """

    shortest_s: float
    preferred_s: float
    longest_s: float
    promised_s: float
    extra_s: float = 0.0


class Made(msgspec.Struct, frozen=True):
    """A class made to a length: segments and cues in ticks, and what was dropped."""

    plan: Plan
    length: int
    choice: Choice
    segments: tuple[Segment, ...]
    cues: tuple[Cue, ...]
    dropped: tuple[Dropped, ...]
    findings: tuple[Finding, ...] = ()
    lost_edits: tuple[LineEdit, ...] = ()

    @property
    def props(self) -> list[str]:
        """The props the class uses, in the order they come."""
        return list(dict.fromkeys(prop for segment in self.segments for prop in segment.turn.movement.props))

    @property
    def length_s(self) -> float:
        """Seconds from the first word to the end."""
        return seconds(self.length)
