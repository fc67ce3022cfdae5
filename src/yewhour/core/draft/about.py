"""How much there is about what a class is about, and what goes with it where that is too little."""

from collections.abc import Set

from yewhour.core.draft.candidate_pool import CandidatePool
from yewhour.core.draft.draft_model import DraftModel, DraftRequest, DraftRoute


def focus_of(ask: DraftRequest) -> frozenset[str]:
    """The areas that a class is about; none where it is about all of the body."""
    return frozenset(ask.brief.focus) - {"whole body"}


def about_s(areas: Set[str], pool: CandidatePool, route: DraftRoute) -> float:
    """Seconds of what is about some areas, wherever it may stand on a way."""
    there = {one.id: one for part in route.parts for one in pool.suited(part) if one.areas & areas}
    return sum(one.costs for one in there.values())


def goes_with(ask: DraftRequest, pool: CandidatePool, route: DraftRoute, model: DraftModel) -> frozenset[str]:
    """Areas that go with the focus, where a class could not be filled with that alone: a neck's shoulders."""
    focus = focus_of(ask)
    if about_s(focus, pool, route) > ask.brief.target_s:
        return frozenset()
    return frozenset(one for area in focus for one in model.next_to.get(area, ())) - focus
