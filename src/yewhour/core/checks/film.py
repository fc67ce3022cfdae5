"""Checks of the film: what the camera sees.

A facing is where the teacher's front is turned: front (to the camera), back, side (either edge of the
picture), left or right (that edge; lying down, where her head is), or near: she turns with each change of
side, so that the working side is the near one.
"""

from collections.abc import Iterator

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.plan.edit import Face
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

SIDEWAYS = ("side", "left", "right", "near")


@check("turned-away")
def turned_away(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A facing of the plan's own that the movement is not shown best from, or a face turned away."""
    noticed = set()
    for segment in timed.segments:
        step, best = segment.use.step, segment.use.movement.facing
        facing = step.facing or (timed.plan.brief.facing if timed.plan.brief.facing == "back" else "")
        seen = facing == best or (best == "side" and facing in SIDEWAYS)
        if segment.behaviour.is_setup or not facing or not best or seen or step.id in noticed:
            continue
        noticed.add(step.id)
        edit = Face(node=step.id, title=f"Turn to the {best} for {segment.name}", facing=best)
        yield Notice(segment.id, {"name": segment.name, "best": best, "facing": facing}, edit)


@check("hidden-side")
def hidden_side(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Work on the side that is away from the camera, the near side in front of it."""
    noticed = set()
    for segment in timed.segments:
        use = segment.use
        facing = use.step.facing or timed.plan.brief.facing
        if segment.behaviour.is_setup or use.movement.facing != "side" or use.step.id in noticed:
            continue
        near = near_side(segment, facing)
        if near and segment.side in ("left", "right") and segment.side != near:
            noticed.add(use.step.id)
            edit = Face(
                node=use.step.id, title=f"Turn round for {use.name} on the {segment.side}", facing="near"
            )
            yield Notice(segment.id, {"name": segment.name, "side": segment.side, "near": near}, edit)


def near_side(segment: Segment, facing: str) -> str:
    """The side of her body that is towards the camera; "" when neither is, or when she turns."""
    if facing not in ("left", "right") or segment.use.end.startswith("on-"):
        return ""
    if segment.use.end == "supine":  # lying on the back the other side comes to the front
        return "right" if facing == "left" else "left"
    return facing
