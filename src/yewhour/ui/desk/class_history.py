"""What was done to a class, and to her movements while it was open: taken back, and done again."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from yewhour.core.plan.plan import Plan
from yewhour.state.classes.own_movements import OwnMovement, own_movement, put_back
from yewhour.ui.kit.undo_history import UndoHistory


class ClassState(NamedTuple):
    """How things were before an act: the class, and the movement of hers that the act changed, if any."""

    plan: Plan
    movement: OwnMovement | None = None


class ClassHistory(UndoHistory[ClassState]):
    """The acts of a class that is open."""

    def back_from(self, plan: Plan, times: int) -> tuple[Plan, bool]:
        """The class as it was so many acts ago, and whether her movements changed with it. Raises Problem."""
        return _gone(self.back, plan, times)

    def forward_from(self, plan: Plan, times: int) -> tuple[Plan, bool]:
        """The class as it was before so many acts were taken back; likewise."""
        return _gone(self.forward, plan, times)


def _gone(
    move: Callable[[Callable[[ClassState], ClassState], int], str], plan: Plan, times: int
) -> tuple[Plan, bool]:
    library = False

    def swap(other: ClassState) -> ClassState:
        nonlocal plan, library
        movement = None
        if other.movement is not None:
            movement, library = own_movement(other.movement.name), True
            put_back(other.movement)
        now, plan = ClassState(plan, movement), other.plan
        return now

    move(swap, times)
    return plan, library
