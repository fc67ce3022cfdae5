"""Where movements are used: the class in hand, the teacher's own of late, and the demo classes."""

import contextlib
from collections.abc import Iterable
from pathlib import Path

from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Step,
    walk,
)
from yewhour.core.plan.plan import Plan, steps_of
from yewhour.core.problem import Problem
from yewhour.state.classes.class_file import read_plan

MovementUses = dict[str, list[str]]  # movement -> titles of classes


def movements_of(plan: Plan, blocks: Blocks) -> set[str]:
    """The movements a class is made of, with those of the blocks it takes in by their name."""
    nodes = [node for section in plan.sections for node in walk(section.body)]
    named = [blocks.get(node.name, ()) for node in nodes if isinstance(node, Block)]
    taken = (node for body in named for node in walk(body) if isinstance(node, Step))
    return {step.movement for step in (*steps_of(plan), *taken)}


def uses_in(paths: Iterable[Path], blocks: Blocks) -> MovementUses:
    """The classes of these files that each movement is in; a file that can't be read is left out."""
    found: MovementUses = {}
    for path in paths:
        with contextlib.suppress(Problem):
            plan = read_plan(path)
            for movement in movements_of(plan, blocks):
                titles = found.setdefault(movement, [])
                if plan.brief.title not in titles:
                    titles.append(plan.brief.title)
    return found
