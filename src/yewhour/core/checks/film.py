"""Checks of the film: what the camera sees."""

from collections.abc import Iterator

from yewhour.core.checks import Notice, check
from yewhour.core.made import Made, Maker


@check("turned-away")
def turned_away(made: Made, maker: Maker) -> Iterator[Notice]:
    """A step whose own facing is not the one it is shown best from."""
    told = set()
    for segment in made.segments:
        step, best = segment.turn.step, segment.turn.movement.facing
        if segment.kind != "setup" and step.facing and best and step.facing != best and step.id not in told:
            told.add(step.id)
            yield Notice(segment.id, {"name": segment.name, "best": best, "facing": step.facing})
