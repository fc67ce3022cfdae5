"""Checks of the film: what the camera sees.

A facing is where the teacher's front is turned: front (to the camera), back, side (either edge of the
picture), left or right (that edge; lying down, where her head is), or near: she turns with each change of
side, so that the working side is the near one.
"""

from collections.abc import Iterator

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.plan.edit import Edit
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

SIDEWAYS = ("side", "left", "right", "near")


@check("turned-away")
def turned_away(made: TimedClass, setting: PreparedPlan) -> Iterator[Notice]:
    """A facing of the plan's own that the movement is not shown best from, or a face turned away."""
    told = set()
    for segment in made.segments:
        step, best = segment.turn.step, segment.turn.movement.facing
        facing = step.facing or (made.plan.brief.facing if made.plan.brief.facing == "back" else "")
        seen = facing == best or (best == "side" and facing in SIDEWAYS)
        if segment.kind == "setup" or not facing or not best or seen or step.id in told:
            continue
        told.add(step.id)
        edit = Edit("face", step.id, f"Turn to the {best} for {segment.name}", text=best)
        yield Notice(segment.id, {"name": segment.name, "best": best, "facing": facing}, edit)


@check("hidden-side")
def hidden_side(made: TimedClass, setting: PreparedPlan) -> Iterator[Notice]:
    """Work on the side that is away from the camera, the near side in front of it."""
    told = set()
    for segment in made.segments:
        turn = segment.turn
        facing = turn.step.facing or made.plan.brief.facing
        if segment.kind == "setup" or turn.movement.facing != "side" or turn.step.id in told:
            continue
        near = near_side(segment, facing)
        if near and segment.side in ("left", "right") and segment.side != near:
            told.add(turn.step.id)
            edit = Edit(
                "face", turn.step.id, f"Turn round for {turn.name} on the {segment.side}", text="near"
            )
            yield Notice(segment.id, {"name": segment.name, "side": segment.side, "near": near}, edit)


def near_side(segment: Segment, facing: str) -> str:
    """The side of her body that is towards the camera; "" when neither is, or when she turns."""
    if facing not in ("left", "right") or segment.turn.end.startswith("on-"):
        return ""
    if segment.turn.end == "supine":  # lying on the back the other side comes to the front
        return "right" if facing == "left" else "left"
    return facing
