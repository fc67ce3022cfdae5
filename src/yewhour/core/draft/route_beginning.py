"""Where a class begins: on the feet, sitting, kneeling, lying, as it was asked for."""

from collections.abc import Mapping

from yewhour.core.draft.draft_model import DraftRoute
from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import Node, Step, walk
from yewhour.core.teaching_data import TeachingData

BASES: Mapping[str, frozenset[str]] = {
    "standing": frozenset(("standing", "wide", "wall")),
    "sitting": frozenset(("seated", "chair")),
    "kneeling": frozenset(("kneeling", "four-point")),
    "lying": frozenset(("supine", "prone", "on-right", "on-left", "on-side", "wall-lying")),
}


def begins_so(place: str, begins: str) -> bool:
    """Whether a class that begins at a place begins as asked; "floor": not on the feet or a chair."""
    if begins == "floor":
        return not place.startswith(("standing", "wide", "wall", "chair", "start"))
    return base_of(place) in BASES.get(begins, frozenset())


def place_after(nodes: tuple[Node, ...], teaching_data: TeachingData) -> str:
    """Where an opening leaves the body."""
    here = "start"
    for node in walk(nodes):
        if isinstance(node, Step) and (need := teaching_data.library[node.movement].start):
            here = teaching_data.positions.way(here, need).end
    return here


def openings_for(route: DraftRoute, begins: str, teaching_data: TeachingData) -> list[str]:
    """The openings of a way that begin as asked; all of them where nothing is."""
    known = [name for name in route.opening if name in teaching_data.blocks]
    if not begins:
        return known
    return [
        name for name in known
        if begins_so(place_after(teaching_data.blocks[name], teaching_data), begins)
    ]  # fmt: skip
