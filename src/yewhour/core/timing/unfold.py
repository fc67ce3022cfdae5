"""Unfold: rounds and pairs become a flat run of uses, mirrored where needed.

A group whose rounds may vary is unfolded to its most; every use knows its rounds, so that the class with
fewer of them is the uses that are left (`use.chosen`). A class is unfolded once.
"""

from collections.abc import Iterator

import msgspec

from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.library.kinds import BEHAVIOURS
from yewhour.core.library.movement import Library, Movement
from yewhour.core.pace import (
    PHASES,
    Pace,
    breath_ticks,
    check_pace,
    phase_ticks,
)
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    Pair,
    Rounds,
    Step,
    Variant,
    children,
    walk,
)
from yewhour.core.plan.own_shares import own_share
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.plan.school import School, roll_side
from yewhour.core.problem import Problem
from yewhour.core.sides import Side, fill, mirrored
from yewhour.core.timing.doses import (
    amount_range,
    kind_of,
    round_options,
    unit_ticks,
)
from yewhour.core.timing.step_use import (
    RoundGroup,
    RoundGroups,
    StepUse,
    is_certain,
)


class UnfoldedClass(msgspec.Struct, frozen=True):
    """The uses of a class in order, and its groups; `nodes` are the top-level ones, with their section."""

    nodes: tuple[tuple[int, Node], ...]
    uses: tuple[StepUse, ...]
    groups: RoundGroups


def unfold(plan: Plan, library: Library, school: School, blocks: Blocks) -> UnfoldedClass:
    """Every use of a class, at the most rounds it may have.

    Raises Problem for a movement or a block that is not there, a block that holds itself, and an odd number
    of rounds that change sides.
    """
    walker = _Walk(plan, library, school, {**blocks, **plan.blocks})
    nodes = tuple((index, node) for index, section in enumerate(plan.sections) for node in section.body)
    uses = [use for place, (section, node) in enumerate(nodes) for use in walker.node(place, section, node)]
    return UnfoldedClass(nodes, tuple(_recalled(list(_with_seen(uses, walker.groups)))), walker.groups)


class _At(msgspec.Struct, frozen=True):
    """Where in the nest a node is being unfolded.

    `blocks` is the path of the blocks it was put in by, `inside` their ids.
    """

    section: int
    node: int
    path: str = ""
    blocks: str = ""
    inside: tuple[str, ...] = ()
    lead: Side | None = None
    flip: bool = False
    pair: str = ""
    second: bool = False
    round: int = 0
    rounds: int = 0
    within: tuple[tuple[str, int], ...] = ()
    flow: str = ""
    teach: int = 0


FORGOTTEN = ticks(90)  # between the two sides of a movement; its essentials are said again after that
ABOUT_A_WAY = ticks(8)


class _Walk:
    """Goes through the nodes of one plan once, and notes the groups it meets."""

    def __init__(self, plan: Plan, library: Library, school: School, blocks: Blocks) -> None:
        self.plan = plan
        self.library = library
        self.school = school
        self.blocks = blocks
        self.groups: RoundGroups = {}
        self._roll = roll_side(school, plan.brief.time_of_day)
        self._paces: dict[tuple[int, str], Pace] = {}
        self._places: dict[str, int] = {}
        for index, section in enumerate(plan.sections):
            self._set_paces(index, section)

    def node(self, place: int, section: int, node: Node) -> Iterator[StepUse]:
        """The uses of one top-level node."""
        return self._turns((node,), _At(section, place))

    # --- the walk -----------------------------------------------------------------------------------

    def _turns(self, nodes: tuple[Node, ...], at: _At) -> Iterator[StepUse]:
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
                yield from self._turns(variant_way(node, self.plan.brief.lineage), at)
            else:
                path, blocks = f"{at.path}@{node.id}", f"{at.blocks}@{node.id}"
                inside = msgspec.structs.replace(at, path=path, blocks=blocks, inside=(*at.inside, node.id))
                yield from self._turns(block_nodes(node, self.blocks), inside)

    def _pair(self, pair: Pair, at: _At) -> Iterator[StepUse]:
        lead: Side = pair.lead or self.school.lead
        inner = msgspec.structs.replace(at, lead=lead, pair=pair.id + at.path, second=False)
        yield from self._turns(pair.body, inner)
        other = msgspec.structs.replace(inner, path=at.path + "'", flip=not at.flip, second=True)
        yield from self._turns(pair.body, other)

    def _repeat(self, node: Rounds, at: _At) -> Iterator[StepUse]:
        key = node.id + at.blocks
        alternates = self._alternates(node, at)
        group = RoundGroup(key, node.id, node.times, round_options(node, alternates), 2 if alternates else 1)
        self.groups[key] = group
        flowing = any(isinstance(inner, Step) and inner.phase for inner in walk(node.body))
        taught = 2 if alternates else 1  # each side is taught once
        for number in range(1, group.most + 1):
            inner = msgspec.structs.replace(
                at,
                path=f"{at.path}.{number}",
                round=number,
                rounds=group.most,
                within=(*at.within, (key, number)),
                flow=f"{node.id}{at.path}" if flowing else "",
                teach=node.teach if number <= taught else 0,
            )
            if alternates:
                second = number % 2 == 0
                inner = msgspec.structs.replace(
                    inner,
                    lead=at.lead or self.school.lead,
                    flip=at.flip != second,
                    pair=f"{node.id}{at.path}+{(number - 1) // 2}",
                    second=second,
                )
            yield from self._turns(node.body, inner)

    def _alternates(self, group: Rounds, at: _At) -> bool:
        """Whether the lead side changes every round: as the group says, or else the school.

        A school's way is only followed where there is a lead side to change and an even number of rounds, and
        not within a pair, which stays on its side.
        """
        if group.alternate is not None:
            return group.alternate
        if at.lead is not None:
            return False
        sided = any(
            isinstance(node, Step)
            and movement_of_step(node, self.library).sides == "one"
            and node.side is None
            for node in group.body
        )
        return self.school.alternate_lead and sided and group.times % 2 == 0

    # --- one step -------------------------------------------------------------------------------------

    def _turn(self, step: Step, at: _At) -> StepUse:
        movement = patterned(step, movement_of_step(step, self.library))
        kind = kind_of(step, movement, self.school)
        side = self._side(step, movement, at)
        lead: Side = at.lead or self.school.lead
        pace = self._paces[at.section, step.id]
        unit, fixed = 0, 0
        if BEHAVIOURS[kind].is_phase:
            inhale, full, exhale, empty = phase_ticks(pace)
            fixed = inhale + full if step.phase == "inhale" else exhale + empty
            fixed = at.teach * breath_ticks(pace) if at.teach else fixed
        else:
            count_s = step.count_s or movement.count_s or self.school.count_s
            count_s *= own_share(self.plan.brief.own, "count", movement.id)
            unit = unit_ticks(kind, movement, pace, count_s)
        if at.second and step.second is not None:
            fixed += step.second.more * unit
        return StepUse(
            key=step.id + at.path,
            step=step,
            movement=movement,
            kind=kind,
            name=shown_name(movement, self.school),
            side=side,
            lead=mirrored(lead) if at.flip else lead,
            section=at.section,
            node=at.node,
            pace=pace,
            start=fill(movement.start, side),
            end=fill(movement.end or movement.start, side),
            number=step.id + at.blocks,
            unit=unit,
            fixed=fixed,
            pair=at.pair if side in ("right", "left") else "",
            second=at.second,
            round=at.round,
            rounds=at.rounds,
            within=at.within,
            blocks=at.inside,
            flow=at.flow,
            taught=at.teach if BEHAVIOURS[kind].is_phase else 0,
            mat=step.mat or self.plan.sections[at.section].mat,
            place=self._places.setdefault(step.id + at.blocks, len(self._places)),
        )

    def _side(self, step: Step, movement: Movement, at: _At) -> Side:
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
        given = section.pace or self.plan.brief.pace  # what she asks for herself is breathed as she asks
        if not self.school.retention and not given:
            base = msgspec.structs.replace(base, ratio=(base.ratio[0], 0.0, base.ratio[2], 0.0))
        steps = list(self._steps(section.body, ()))
        breath = own_share(self.plan.brief.own, "breath")
        for number, step in enumerate(steps):
            pace = step.pace or base
            if section.glide_to and not step.pace:
                along = number / max(1, len(steps) - 1)
                glided = base.breaths_per_min + (section.glide_to - base.breaths_per_min) * along
                pace = msgspec.structs.replace(base, breaths_per_min=glided)
            if breath != 1:
                pace = msgspec.structs.replace(pace, breaths_per_min=pace.breaths_per_min / breath)
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
                yield from self._steps(block_nodes(node, self.blocks), (*inside, node.name))
            else:
                yield from self._steps(children(node), inside)


def _with_seen(uses: list[StepUse], groups: RoundGroups) -> Iterator[StepUse]:
    """The uses, each knowing whether its movement surely came before it, and as how many steps."""
    earlier: dict[str, list[StepUse]] = {}
    steps: dict[str, list[str]] = {}
    for use in uses:
        before = earlier.setdefault(use.movement.id, [])
        seen = any(is_certain(one, use, groups) for one in before)
        if not before or not is_certain(before[0], before[0], groups) or not seen:
            before.append(use)
        told = steps.setdefault(use.movement.id, [])
        if use.step.id not in told:
            told.append(use.step.id)
        yield msgspec.structs.replace(use, seen=max(1, told.index(use.step.id))) if seen else use


def _recalled(uses: list[StepUse]) -> Iterator[StepUse]:
    """The uses, each second side knowing whether its first was so long ago that it needs to hear it again.

    The time between is estimated from the doses that are preferred.
    """
    now, begun = 0, dict[str, int]()
    for use in uses:
        silence = use.behaviour.is_clock  # long and quiet: nobody is there to be looked at or asked
        long_ago = use.second and (silence or now - begun.get(use.number, now) >= FORGOTTEN)
        yield msgspec.structs.replace(use, recalled=True) if long_ago and not use.behaviour.is_phase else use
        if not use.second:
            begun[use.number] = now
        now += use.fixed + (0 if use.behaviour.is_phase else ABOUT_A_WAY)
        if use.unit:
            wanted = amount_range(use.step, use.movement, use.kind, breath_ticks(use.pace) / TICKS_PER_S)
            now += use.unit * wanted.preferred


def variant_way(node: Variant, lineage: str) -> tuple[Node, ...]:
    """The way the brief's lineage has, or else the chosen one, or else the first."""
    for name in (lineage, node.chosen):
        if name in node.ways:
            return node.ways[name]
    return next(iter(node.ways.values()), ())


def block_nodes(node: Block, blocks: Blocks) -> tuple[Node, ...]:
    """What a block holds. Raises Problem for one that is not there."""
    if node.name not in blocks:
        raise Problem(
            f"The block {node.name!r} is not there.", "plan, blocks", "Insert it again or take the line out."
        )
    return blocks[node.name]


def movement_of_step(step: Step, library: Library) -> Movement:
    """The movement a step uses; the gentler or stronger one, or its gentler form, when that is taught.

    Raises Problem for one that is not in the library.
    """
    movement = library.get(step.movement)
    if movement is None:
        raise Problem(
            f"The movement {step.movement!r} is not in the library.",
            "the class",
            "Choose another, or add it to your own movements.",
        )
    option = {"gentler": movement.gentler, "stronger": movement.stronger}.get(step.take)
    if option is not None and option.movement:
        return library.get(option.movement, movement)
    if not step.carded and movement.card is not None:
        return msgspec.structs.replace(movement, card=movement.card.without_talk())
    if step.take == "gentler" and movement.card is not None and movement.card.gentle is not None:
        card, shape = movement.card.in_gentle_form(), movement.card.gentle.shape
        kept = movement.shape if shape is None else shape
        return msgspec.structs.replace(movement, card=card, shape=kept, gentler=None)
    return movement


def patterned(step: Step, movement: Movement) -> Movement:
    """The movement in the pattern of a step. Raises Problem where it is no breathing practice."""
    if step.pattern is None:
        return movement
    if not movement.behaviour.is_cycles:
        raise Problem(
            f"{movement.name} is no breathing practice, so it has no pattern.",
            "the class",
            "Give it a pace instead.",
        )
    rhythm = tuple((phase, counts) for phase, counts in zip(PHASES, step.pattern, strict=True) if counts)
    return msgspec.structs.replace(movement, rhythm=rhythm, stages=())


def shown_name(movement: Movement, school: School) -> str:
    """The name as this school says it."""
    if school.names == "traditional" and movement.traditional:
        return movement.traditional
    if school.names == "both" and movement.traditional not in ("", movement.name):
        return f"{movement.name} ({movement.traditional})"
    return movement.name
