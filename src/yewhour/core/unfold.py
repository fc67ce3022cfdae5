"""Unfold: rounds and pairs become a flat run of turns, mirrored where needed.

A turn is one use of a step: the step, its side, its round and its breath, with how many ticks each
of its whole numbers takes (`unit`) and how many it takes besides (`fixed`).
"""

from collections.abc import Iterator, Mapping

import msgspec

from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.movement import MEASURES, Kind, Library, Movement
from yewhour.core.pace import Pace, breath_ticks, check_pace, phase_ticks
from yewhour.core.plan import Block, Blocks, Node, Pair, Plan, Rounds, Section, Step, Variant, children, walk
from yewhour.core.problem import Problem
from yewhour.core.school import School, roll_side
from yewhour.core.sides import Side, fill, mirrored


class Turn(msgspec.Struct, frozen=True):
    """One unfolded use of a step. `unit` and `fixed` are in ticks; `node` counts top-level nodes.

    `flow` names the repeated group in which neighbours follow each other breath by breath, or is "".
    `pair` is the same for both sides of one pair, and `lead` the side they are on just now. `seen`: the
    movement came earlier in the class.
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
    unit: int = 0
    fixed: int = 0
    pair: str = ""
    second: bool = False
    switch: bool = False
    round: int = 0
    rounds: int = 0
    flow: str = ""
    taught: int = 0
    seen: bool = False
    setup_for: str = ""


class Context(msgspec.Struct, frozen=True):
    """Where in the nest a node is being unfolded."""

    path: str = ""
    lead: Side | None = None
    flip: bool = False
    pair: str = ""
    second: bool = False
    round: int = 0
    rounds: int = 0
    flow: str = ""
    teach: int = 0


class Unfolder:
    """Unfolds the nodes of one plan. Keeps no state between calls but what the plan fixes."""

    def __init__(self, plan: Plan, library: Library, school: School, blocks: Blocks | None = None) -> None:
        self.plan = plan
        self.blocks = {**(blocks or {}), **plan.blocks}
        self.library = library
        self.school = school
        self.nodes: list[tuple[int, Node]] = [
            (index, node) for index, section in enumerate(plan.sections) for node in section.body
        ]
        self._roll = roll_side(school, plan.brief.time_of_day)
        self._paces: dict[tuple[int, str], Pace] = {}
        for index, section in enumerate(plan.sections):
            self._set_paces(index, section)

    def node(self, index: int, rounds: Mapping[str, int] | None = None) -> list[Turn]:
        """The turns of the top-level node `index`, with so many rounds of the groups named."""
        section, node = self.nodes[index]
        self._rounds = rounds or {}
        self._section, self._index = section, index
        return list(self._turns((node,), Context()))

    # --- the walk -----------------------------------------------------------------------------------

    def _turns(self, nodes: tuple[Node, ...], at: Context) -> Iterator[Turn]:
        for node in nodes:
            if at.round and node.from_round > at.round:
                continue
            if isinstance(node, Step):
                if not (at.second and node.second is not None and node.second.leave_out):
                    yield self._turn(node, at)
            elif isinstance(node, Pair):
                yield from self._pair(node, at)
            elif isinstance(node, Rounds):
                yield from self._repeat(node, at)
            elif isinstance(node, Variant):
                yield from self._turns(way_of(node, self.plan.brief.lineage), at)
            else:
                inside = msgspec.structs.replace(at, path=f"{at.path}@{node.id}")
                yield from self._turns(self.block(node), inside)

    def _pair(self, pair: Pair, at: Context) -> Iterator[Turn]:
        lead: Side = pair.lead or self.school.lead
        name = pair.id + at.path
        inner = msgspec.structs.replace(at, path=at.path, lead=lead, flip=at.flip, pair=name, second=False)
        yield from self._turns(pair.body, inner)
        other = msgspec.structs.replace(inner, path=at.path + "'", flip=not at.flip, second=True)
        yield from self._turns(pair.body, other)

    def _repeat(self, group: Rounds, at: Context) -> Iterator[Turn]:
        times = self._rounds.get(group.id, group.times)
        flowing = any(isinstance(node, Step) and node.phase for node in walk(group.body))
        taught = 2 if self.alternates(group) else 1  # each side is taught once
        for number in range(1, times + 1):
            inner = msgspec.structs.replace(
                at,
                path=f"{at.path}.{number}",
                round=number,
                rounds=times,
                flow=f"{group.id}{at.path}" if flowing else "",
                teach=group.teach if number <= taught else 0,
            )
            if self.alternates(group):
                second = number % 2 == 0
                inner = msgspec.structs.replace(
                    inner,
                    lead=at.lead or self.school.lead,
                    flip=at.flip != second,
                    pair=f"{group.id}{at.path}+{(number - 1) // 2}",
                    second=second,
                )
            yield from self._turns(group.body, inner)

    def alternates(self, group: Rounds) -> bool:
        """Whether the lead side changes every round: as the group says, or else the school.

        A school's way is only followed where there is a lead side to change and an even number of rounds.
        """
        if group.alternate is not None:
            return group.alternate
        sided = any(
            isinstance(node, Step) and self.movement(node).sides == "one" and node.side is None
            for node in group.body
        )
        return self.school.alternate_lead and sided and group.times % 2 == 0

    def block(self, node: Block) -> tuple[Node, ...]:
        """What a block holds: the plan's own, or one kept for every class. Raises Problem for neither."""
        if node.name not in self.blocks:
            raise Problem(
                f"The block {node.name!r} is not there.",
                "plan, blocks",
                "Insert it again or take the line out.",
            )
        return self.blocks[node.name]

    # --- one step -------------------------------------------------------------------------------------

    def movement(self, step: Step) -> Movement:
        """The movement a step uses; the gentler or stronger entry when that is the one taught."""
        movement = self.library.get(step.movement)
        if movement is None:
            raise Problem(
                f"The movement {step.movement!r} is not in the library.",
                f"step {step.id}",
                "Choose another, or add it to your own movements.",
            )
        option = {"gentler": movement.gentler, "stronger": movement.stronger}.get(step.take)
        if option is not None and option.movement:
            return self.library.get(option.movement, movement)
        return movement

    def _turn(self, step: Step, at: Context) -> Turn:
        movement = self.movement(step)
        kind = kind_of(step, movement, self.school)
        side = self._side(step, movement, at)
        lead: Side = at.lead or self.school.lead
        pace = self._paces[self._section, step.id]
        count_s = step.count_s or movement.count_s or self.school.count_s
        unit, fixed = 0, 0
        if kind == "phase":
            inhale, full, exhale, empty = phase_ticks(pace)
            fixed = inhale + full if step.phase == "inhale" else exhale + empty
            fixed = at.teach * breath_ticks(pace) if at.teach else fixed
        else:
            unit = unit_ticks(kind, movement, pace, count_s)
        if at.second and step.second is not None:
            fixed += step.second.more * unit
        return Turn(
            key=step.id + at.path,
            step=step,
            movement=movement,
            kind=kind,
            name=shown_name(movement, self.school),
            side=side,
            lead=mirrored(lead) if at.flip else lead,
            section=self._section,
            node=self._index,
            pace=pace,
            start=fill(movement.start, side),
            end=fill(movement.end or movement.start, side),
            unit=unit,
            fixed=fixed,
            pair=at.pair if side in ("right", "left") else "",
            second=at.second,
            round=at.round,
            rounds=at.rounds,
            flow=at.flow,
            taught=at.teach if kind == "phase" else 0,
        )

    def _side(self, step: Step, movement: Movement, at: Context) -> Side:
        if movement.sides == "alternating":
            return "alternating"
        if movement.sides != "one":
            return "both"
        if movement.side_by == "roll" and step.side is None:
            return self._roll
        side: Side = step.side or at.lead or self.school.lead
        return mirrored(side) if at.flip else side

    # --- pace -----------------------------------------------------------------------------------------

    def _set_paces(self, index: int, section: Section) -> None:
        base = section.pace or self.school.pace
        if not self.school.retention and not section.pace:
            base = msgspec.structs.replace(base, ratio=(base.ratio[0], 0.0, base.ratio[2], 0.0))
        steps = list(self._steps(section.body, ()))
        for number, step in enumerate(steps):
            pace = step.pace or base
            if section.glide_to and not step.pace:
                share = number / max(1, len(steps) - 1)
                glided = base.breaths_per_min + (section.glide_to - base.breaths_per_min) * share
                pace = msgspec.structs.replace(base, breaths_per_min=glided)
            self._paces[index, step.id] = check_pace(pace, f"section {section.title!r}, pace")

    def _steps(self, nodes: tuple[Node, ...], inside: tuple[str, ...]) -> Iterator[Step]:
        """Every step a section can reach; raises Problem for a block that holds itself."""
        for node in nodes:
            if isinstance(node, Step):
                yield node
            elif isinstance(node, Block):
                if node.name in inside:
                    circle = " > ".join([*inside, node.name])
                    raise Problem(f"A block holds itself: {circle}.", "plan, blocks", "Take one of them out.")
                yield from self._steps(self.block(node), (*inside, node.name))
            else:
                yield from self._steps(children(node), inside)


def way_of(node: Variant, lineage: str) -> tuple[Node, ...]:
    """The way the brief's lineage has, or else the chosen one, or else the first."""
    for name in (lineage, node.chosen):
        if name in node.ways:
            return node.ways[name]
    return next(iter(node.ways.values()), ())


def kind_of(step: Step, movement: Movement, school: School) -> Kind:
    """The kind of step: its movement's, but one phase in a flow, or by the clock where so asked."""
    if step.phase:
        return "phase"
    if movement.kind == "hold" and (step.clock if step.clock is not None else school.holds == "clock"):
        return "clock"
    return movement.kind


def unit_ticks(kind: Kind, movement: Movement, pace: Pace, count_s: float) -> int:
    """Ticks one whole number of a step takes: a breath, a repetition, a cycle, a count, a second."""
    if kind == "hold":
        return breath_ticks(pace)
    if kind in ("clock", "rapid", "stillness"):
        return TICKS_PER_S
    if kind in ("reps", "cycles"):
        rhythms = movement.stages or (movement.rhythm,)
        counts = sum(counts for rhythm in rhythms for _, counts in rhythm)
        return max(1, round(counts * count_s * TICKS_PER_S))
    if kind in ("pulses", "counted"):
        return max(1, round(count_s * TICKS_PER_S))
    return 0


def shown_name(movement: Movement, school: School) -> str:
    """The name as this school says it."""
    if school.names == "traditional" and movement.traditional:
        return movement.traditional
    if school.names == "both" and movement.traditional:
        return f"{movement.name} ({movement.traditional})"
    return movement.name


class Range(msgspec.Struct, frozen=True):
    """The whole numbers a step may have, and how unwilling it is to leave the preferred one."""

    least: int
    preferred: int
    most: int
    by: int
    weight: float


def range_of(step: Step, movement: Movement, kind: Kind) -> Range:
    """What fit may choose from; a locked step has one number only.

    A dose by breath that is held by the clock is taken at 8 breaths a minute, in steps of 5 s.
    """
    by = max(movement.by, MEASURES[kind].by)
    least, preferred, most = movement.dose
    if kind == "clock" and movement.kind == "hold":
        least, preferred, most = (int(breaths * 7.5 // 5) * 5 for breaths in movement.dose)
    if movement.sides == "alternating" or step.halves:
        by = by if by % 2 == 0 else by * 2
    if step.amount is not None:
        preferred = step.amount
        least, most = min(least, preferred), max(most, preferred)
    least = step.least if step.least is not None else least
    most = step.most if step.most is not None else most
    weight = step.weight if step.weight is not None else movement.weight
    if step.locked:
        least = most = preferred
    return Range(least, preferred, most, by, weight)


def check_steps(plan: Plan) -> None:
    """Raises Problem for the first step whose numbers contradict each other."""
    for section in plan.sections:
        for node in walk(section.body):
            where = f"section {section.title!r}"
            if isinstance(node, Step):
                given = [n for n in (node.least, node.amount, node.most) if n is not None]
                if any(number < 1 for number in given):
                    raise Problem(
                        f"{node.movement} can't be done {min(given)} times.",
                        where,
                        "Use a number above zero.",
                    )
                if given != sorted(given):
                    raise Problem(
                        f"{node.movement} has a least, preferred and most out of order: {given}.",
                        where,
                        "Write them as least, preferred, most.",
                    )
            elif isinstance(node, Rounds) and not (
                1 <= (node.least or node.times) <= node.times <= (node.most or node.times)
            ):
                raise Problem(
                    f"A group has its rounds out of order: least {node.least}, preferred {node.times}, "
                    f"most {node.most}.",
                    where,
                    "Use at least one round, and write least, preferred, most in order.",
                )
