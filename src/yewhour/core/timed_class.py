"""A timed class: what the pipeline gives, as a value. `pipeline` makes it."""

import msgspec

from yewhour.core.finding import Finding
from yewhour.core.lengths import seconds
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.plan.plan import Plan
from yewhour.core.script.cue import Cue, Dropped
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.layout import Segment


class LengthRange(msgspec.Struct, frozen=True):
    """How long a class can be, and what is promised, in seconds.

    extra_s: what comes on top of the brief's target, where that counts the practice alone.
    """

    shortest_s: float
    preferred_s: float
    longest_s: float
    promised_s: float
    extra_s: float = 0.0


class TimedClass(msgspec.Struct, frozen=True):
    """A class made to a length: segments and cues in ticks, what was dropped, and what was noticed.

    promised: ticks of the whole recording that its brief promises.
    """

    plan: Plan
    promised: int
    length: int
    choice: FittedNumbers
    segments: tuple[Segment, ...]
    cues: tuple[Cue, ...]
    dropped: tuple[Dropped, ...]
    findings: tuple[Finding, ...] = ()
    lost_edits: tuple[LineEdit, ...] = ()

    @property
    def props(self) -> list[str]:
        """The props the class uses, in the order they come."""
        return list(dict.fromkeys(prop for segment in self.segments for prop in segment.use.movement.props))

    @property
    def promised_s(self) -> float:
        """Seconds of the whole recording that the brief promises."""
        return seconds(self.promised)

    @property
    def length_s(self) -> float:
        """Seconds from the first word to the end."""
        return seconds(self.length)
