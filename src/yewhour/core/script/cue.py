"""Cues, and what a line can be for. Everything about a purpose is declared here once."""

from collections.abc import Callable

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.plan.movement import Wordings
from yewhour.core.script.speech import Delivery
from yewhour.core.sides import Side

GAP = ticks(0.4)  # the least silence between two lines
LEAD = ticks(1.0)  # a line for a phase may start this long before it
Duration = Callable[[str, str], int]  # (text, purpose) -> ticks


class Purpose(msgspec.Struct, frozen=True):
    """must: it has to be said. priority: what is kept first when room is short. about: for a reader."""

    must: bool
    priority: int
    delivery: Delivery
    about: str


PURPOSES: dict[str, Purpose] = {
    "say": Purpose(True, 100, "calm", "talk, said in order"),
    "side": Purpose(True, 99, "instruct", "a change of side"),
    "call": Purpose(True, 98, "instruct", "names the movement and starts it"),
    "flow": Purpose(True, 97, "instruct", "the movement of one breath phase"),
    "prop": Purpose(True, 96, "instruct", "a prop to have ready"),
    "caution": Purpose(True, 95, "instruct", "a caution, before the movement"),
    "half": Purpose(True, 94, "instruct", "a change halfway"),
    "remind": Purpose(True, 93, "instruct", "a reminder, before counted work starts"),
    "count": Purpose(False, 90, "count", "breaths or repetitions to go"),
    "time": Purpose(False, 89, "count", "time to go"),
    "setup": Purpose(False, 80, "instruct", "how to get there"),
    "option": Purpose(False, 75, "instruct", "a gentler or a stronger way"),
    "breath": Purpose(False, 70, "instruct", "words for one phase of the breath"),
    "exit": Purpose(False, 65, "instruct", "how to leave"),
    "align": Purpose(False, 60, "instruct", "how the body is arranged"),
    "stay": Purpose(False, 40, "calm", "company while holding"),
    "rest": Purpose(False, 30, "rest", "a line into the silence of a rest"),
}

# What a movement's file may hold lines for, and the purpose they are said with.
LINE_PURPOSES: dict[str, str] = {
    "call": "call",
    "flow": "flow",
    "setup": "setup",
    "align": "align",
    "stay": "stay",
    "on_inhale": "breath",
    "on_full": "breath",
    "on_exhale": "breath",
    "on_empty": "breath",
    "on_effort": "breath",
    "on_ease": "breath",
    "remind": "remind",
    "half": "half",
    "caution": "caution",
    "prop": "prop",
    "exit": "exit",
    "rest": "rest",
    "say": "say",
}


class Candidate(msgspec.Struct, frozen=True):
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
    spare: bool = False  # may be dropped although its purpose must be said: another line says it too

    @property
    def must(self) -> bool:
        """Whether it has to be said."""
        return self.own or (PURPOSES[self.purpose].must and not self.spare)

    @property
    def rank(self) -> int:
        """What is kept first."""
        return PURPOSES[self.purpose].priority + self.bonus


class Cue(msgspec.Struct, frozen=True):
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


class Dropped(msgspec.Struct, frozen=True):
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
