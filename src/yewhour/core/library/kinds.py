"""The kinds of step there are, and how each behaves: one row a kind, asked by all that tells them apart.

A new kind is a row here, what one whole number of it lasts (`timing.doses`), its phases (`timing.layout`) and
its calls (`script.counts`).
"""

from typing import Literal, get_args

import msgspec

Kind = Literal[
    "hold",
    "clock",
    "phase",
    "reps",
    "pulses",
    "cycles",
    "rapid",
    "counted",
    "talk",
    "setup",
    "stillness",
]
KINDS: tuple[Kind, ...] = get_args(Kind)
Lasts = Literal["breath", "second", "rhythm", "count", "phase", "lines"]


class StepKind(msgspec.Struct, frozen=True, gc=False):
    """How a kind of step behaves.

    lasts: what one whole number of it takes: a breath, a second, a repetition in its rhythm, a count; a phase
    of a flow and what is said have none. unit, letter, by: its numbers as they are named, written in an
    outline, and stepped. stage: least, preferred and most where a movement has no dose of its own for it.
    teach_s: seconds from the call to being settled, the first time (measured figures: median 9-21).

    still: the body stays. effortful: work that ends. numbered: its numbers are told as it goes. time_told:
    the time to go is. by_clock_too: it can be done for so many seconds instead. company: lines that keep
    company suit it.
    """

    name: Kind
    lasts: Lasts
    unit: str = ""
    letter: str = ""
    by: int = 1
    stage: tuple[int, int, int] | None = None
    teach_s: int = 0
    still: bool = False
    effortful: bool = False
    numbered: bool = False
    time_told: bool = False
    by_clock_too: bool = False
    company: bool = False

    @property
    def is_hold(self) -> bool:
        """Held by the breath."""
        return self.name == "hold"

    @property
    def is_clock(self) -> bool:
        """Done for so many seconds."""
        return self.name == "clock"

    @property
    def is_phase(self) -> bool:
        """One movement on one phase of the breath, in a flow."""
        return self.name == "phase"

    @property
    def is_reps(self) -> bool:
        """Repeated in its rhythm."""
        return self.name == "reps"

    @property
    def is_cycles(self) -> bool:
        """A breathing practice in its pattern."""
        return self.name == "cycles"

    @property
    def is_rapid(self) -> bool:
        """Rapid breathing."""
        return self.name == "rapid"

    @property
    def is_counted(self) -> bool:
        """A hold that is counted down."""
        return self.name == "counted"

    @property
    def is_talk(self) -> bool:
        """Words alone."""
        return self.name == "talk"

    @property
    def is_setup(self) -> bool:
        """On the way from one thing to the next."""
        return self.name == "setup"

    @property
    def is_rest(self) -> bool:
        """Stillness."""
        return self.name == "stillness"

    @property
    def framing(self) -> bool:
        """What is around the work: as long as its lines."""
        return self.lasts == "lines"

    @property
    def bare(self) -> bool:
        """No work of the body: bare stem on the sprig."""
        return self.framing or self.is_rest

    @property
    def rhythmic(self) -> bool:
        """It can't be without a rhythm."""
        return self.lasts == "rhythm"

    @property
    def beaten(self) -> bool:
        """It goes by a beat."""
        return self.lasts == "count"

    @property
    def by_second(self) -> bool:
        """Its numbers are seconds."""
        return self.lasts == "second"

    @property
    def repeated(self) -> bool:
        """Done again and again, which may go from side to side."""
        return self.name in ("reps", "pulses")

    @property
    def told_by_number(self) -> bool:
        """Who does it counts along."""
        return self.repeated or self.is_counted

    @property
    def breath_led(self) -> bool:
        """It goes with the breath as it comes."""
        return self.is_hold or self.is_phase

    @property
    def held(self) -> bool:
        """A posture held, by breath or clock."""
        return self.is_hold or self.is_clock

    @property
    def notched(self) -> bool:
        """Its parts can be seen one by one."""
        return self.is_phase or (self.numbered and self.name != "pulses")


BEHAVIOURS: dict[Kind, StepKind] = {
    one.name: one
    for one in (
        StepKind("hold", "breath", "breaths", "b", stage=(1, 3, 8), teach_s=10, still=True,
                 numbered=True, by_clock_too=True, company=True),
        StepKind("clock", "second", "seconds", "s", 5, stage=(15, 40, 120), teach_s=16, still=True,
                 time_told=True, company=True),
        StepKind("phase", "phase"),
        StepKind("reps", "rhythm", "reps", "x", stage=(3, 6, 12), teach_s=10, effortful=True,
                 numbered=True, by_clock_too=True, company=True),
        StepKind("pulses", "count", "pulses", "x", stage=(6, 10, 20), teach_s=6, effortful=True,
                 numbered=True, by_clock_too=True),
        StepKind("cycles", "rhythm", "cycles", "x", teach_s=10, effortful=True, numbered=True,
                 company=True),
        StepKind("rapid", "second", "seconds", "s", 5, teach_s=10, effortful=True, time_told=True),
        StepKind("counted", "count", "counts", "n", stage=(5, 8, 20), teach_s=8, effortful=True),
        StepKind("talk", "lines"),
        StepKind("setup", "lines"),
        StepKind("stillness", "second", "seconds", "s", 5, teach_s=14, still=True),
    )
}  # fmt: skip

# The kind of a step that is done so (`Step.done`).
DONE: dict[str, Kind] = {"held": "hold", "pulsed": "pulses", "repeated": "reps", "counted": "counted"}
