"""Stand-ins: what a class names and the library has not. The class is made all the same, and kept as it is.

A movement of her own may have been taken away since, or not have come along to this computer. What its step
says is all that is known of it: its name, how much of it, whether it has sides, her own lines.
"""

from collections.abc import Iterator

from yewhour.core.library.kinds import BEHAVIOURS, DONE, Kind
from yewhour.core.library.movement import Library, Movement
from yewhour.core.pace import Rhythm
from yewhour.core.plan.nodes import Block, Blocks, Node, Pair, Step, children
from yewhour.core.plan.plan import Plan

MARK = "not in the library"
DOSE = (1, 5, 12)  # breaths, where the step says nothing
RHYTHM: Rhythm = (("inhale", 2.0), ("exhale", 2.0))  # of what is repeated or breathed


def with_stand_ins(plan: Plan, library: Library, blocks: Blocks) -> tuple[Library, Blocks]:
    """The library and the blocks with something for every name of the plan that they have not."""
    names = {**blocks, **plan.blocks}
    bodies = [*(section.body for section in plan.sections), *plan.blocks.values()]
    found: dict[str, Movement] = {}
    empty: Blocks = {}
    for body in bodies:
        for node, paired in _paired(body, False):
            if isinstance(node, Step) and node.movement not in library:
                found.setdefault(node.movement, stand_in(node, paired))
            elif isinstance(node, Block) and node.name not in names:
                empty[node.name] = ()
    return ({**library, **found} if found else library), ({**blocks, **empty} if empty else blocks)


def is_stand_in(movement: Movement) -> bool:
    """Whether a movement only stands for one that the library has not."""
    return MARK in movement.marks


def missing_blocks(plan: Plan, blocks: Blocks) -> tuple[str, ...]:
    """The names of the blocks that a plan puts in and nobody has; `blocks`: those of the library."""
    names = {**blocks, **plan.blocks}
    bodies = [*(section.body for section in plan.sections), *plan.blocks.values()]
    nodes = (node for body in bodies for node, _ in _paired(body, False))
    missing = (node.name for node in nodes if isinstance(node, Block) and not names.get(node.name))
    return tuple(dict.fromkeys(missing))


def stand_in(step: Step, paired: bool) -> Movement:
    """Something for the movement of a step that the library has not. paired: it is done on both sides."""
    name = step.movement.replace("-", " ").strip().capitalize() or "A movement"
    kind: Kind = "cycles" if step.pattern else DONE.get(step.done or "", "hold")
    return Movement(
        id=step.movement,
        name=name,
        kind=kind,
        sides="one" if paired or step.side else "both",
        dose=DOSE,
        rhythm=RHYTHM if BEHAVIOURS[kind].rhythmic else (),
        marks=(MARK,),
        lines={"call": (("{name}.",),)},
    )


def _paired(nodes: tuple[Node, ...], paired: bool) -> Iterator[tuple[Node, bool]]:
    """Every node at any depth, and whether a pair is around it."""
    for node in nodes:
        yield node, paired
        yield from _paired(children(node), paired or isinstance(node, Pair))
