"""A use: one use of a step in a class, unfolded. What a class is timed with."""

import msgspec

from yewhour.core.library.facets import shape_on
from yewhour.core.library.kinds import BEHAVIOURS, Kind, StepKind
from yewhour.core.library.movement import Movement
from yewhour.core.pace import Pace
from yewhour.core.plan.nodes import Step
from yewhour.core.sides import Side
from yewhour.core.timing.doses import AmountRange


class StepUse(msgspec.Struct, frozen=True, gc=False):
    """One unfolded use of a step. `unit` and `fixed` are in ticks; `node` counts top-level nodes.

    start, end: the positions it is begun and left in, once `transitions` has found them; before, what it
    needs and leaves. stayed: where those wait who did not go on to it. span: the whole numbers of a set-up.
    number: the key of the whole number it takes: its step, and the blocks it was put in by. within: the
    groups it is in, each with its round, the outermost first. flow names the repeated group in which
    neighbours follow each other breath by breath, or is "". pair is the same for both sides of one pair, and
    lead the side they are on just now. seen: how many steps of it came earlier in the class. recalled: so
    long ago that the essentials are said again. blocks: the ids of the blocks it was put in by. place:
    counts the steps. mat: the end of the mat that is faced, "" for the front. Keys are opaque: nothing is
    read out of them.
    """

    key: str
    step: Step
    movement: Movement
    kind: Kind
    name: str
    side: Side
    lead: Side
    section: int
    node: int
    pace: Pace
    start: str
    end: str
    number: str = ""
    unit: int = 0
    fixed: int = 0
    pair: str = ""
    second: bool = False
    switch: bool = False
    round: int = 0
    rounds: int = 0
    within: tuple[tuple[str, int], ...] = ()
    flow: str = ""
    taught: int = 0
    seen: int = 0
    recalled: bool = False
    stayed: str = ""
    mat: str = ""
    place: int = 0
    setup_for: str = ""
    blocks: tuple[str, ...] = ()
    span: AmountRange | None = None

    @property
    def behaviour(self) -> StepKind:
        """How its kind behaves."""
        return BEHAVIOURS[self.kind]

    @property
    def told_side(self) -> Side:
        """The side its lines are filled for: its own, or the lead of what goes from side to side."""
        return self.side if self.side in ("right", "left") else self.lead

    @property
    def shape(self) -> dict[str, str]:
        """What of the body is otherwise than its position says in it, on its side; it stays so after it."""
        return shape_on(self.movement.shape, self.told_side)

    @property
    def by_clock(self) -> bool:
        """Whether what is usually counted goes by the clock here, and its numbers are seconds."""
        return self.behaviour.is_clock and self.movement.behaviour.by_clock_too

    @property
    def needed(self) -> str:
        """The position that must be reached before its movement can begin."""
        return self.end if self.setup_for else self.start


class RoundGroup(msgspec.Struct, frozen=True, gc=False):
    """A repeated group, of a node: the rounds it may have, those it prefers, and the step between two."""

    key: str
    node: str
    times: int
    options: tuple[int, ...]
    by: int = 1

    @property
    def least(self) -> int:
        """The fewest rounds it may have."""
        return min(self.options)

    @property
    def most(self) -> int:
        """The most rounds it may have."""
        return max(self.options)


RoundGroups = dict[str, RoundGroup]


def is_present(use: StepUse, rounds: dict[str, int], groups: RoundGroups) -> bool:
    """Whether a use is there with so many rounds of the groups; what is not said is as preferred."""
    return all(round_ <= rounds.get(key, groups[key].times) for key, round_ in use.within)


def uses_with_rounds(uses: tuple[StepUse, ...], rounds: dict[str, int], groups: RoundGroups) -> list[StepUse]:
    """The uses that are there with so many rounds, each knowing how many there are."""
    result = []
    for use in uses:
        if not use.within:
            result.append(use)
        elif is_present(use, rounds, groups):
            key = use.within[-1][0]
            times = rounds.get(key, groups[key].times)
            result.append(use if times == use.rounds else msgspec.structs.replace(use, rounds=times))
    return result


def is_certain(use: StepUse, given: StepUse, groups: RoundGroups) -> bool:
    """Whether a use is there whenever another one is, whatever the rounds."""
    if not use.within:
        return True
    known = dict(given.within)
    return all(round_ <= max(groups[key].least, known.get(key, 0)) for key, round_ in use.within)
