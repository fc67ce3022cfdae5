"""Why each movement of a draft is where it is, as codes and words."""

from collections.abc import Iterator, Sequence

import msgspec

from yewhour.core.draft.build import BuiltPlan
from yewhour.core.draft.candidate_pool import (
    PoolItem,
)
from yewhour.core.draft.draft_model import (
    DraftPart,
)
from yewhour.core.plan.nodes import (
    Block,
    Step,
    walk,
)
from yewhour.core.plan.plan import Plan


class DraftChoice(msgspec.Struct, frozen=True):
    """Why a movement is there: its step, the part it is in, and what speaks for it, as codes and words."""

    step: str
    movement: str
    part: str
    reasons: tuple[tuple[str, str], ...]


def choices(plan: Plan, built: BuiltPlan) -> tuple[DraftChoice, ...]:
    """What speaks for each movement of a plan, in its order."""
    items = {item.id: (item, part) for part, own in built.parts for item in own}
    steps = [
        node
        for section in plan.sections
        for node in walk(section.body)
        if (isinstance(node, Step) and node.movement in items)
        or (isinstance(node, Block) and node.name in items)
    ]
    order = [node.movement if isinstance(node, Step) else node.name for node in steps]
    return tuple(
        DraftChoice(
            node.id,
            name,
            items[name][1].title,
            tuple(_reasons(items[name][0], items[name][1], order, at, items, built)),
        )
        for at, (node, name) in enumerate(zip(steps, order, strict=True))
    )


def _reasons(
    item: PoolItem,
    part: DraftPart,
    order: Sequence[str],
    at: int,
    items: dict[str, tuple[PoolItem, DraftPart]],
    built: BuiltPlan,
) -> Iterator[tuple[str, str]]:
    """What speaks for a movement at its place, the strongest first, as (code, word)."""
    later = [items[name][0] for name in order[at + 1 :] if name in items]
    before = [items[name][0] for name in order[:at] if name in items]
    for one in later:
        if item.id in one.prepared_by:
            yield "prepares", one.name
    for one in before[-4:]:
        if item.id in one.neutralised_by:
            yield "neutralises", one.name
    for area in sorted(item.areas & built.judge.focus):
        yield "focus", area
    if part.about == "peak" and item.effort >= 3:
        yield "peak", ""
    if item.props:
        yield "prop", item.props[0]
    if part.about == "warm" and "warming" in item.marks:
        shared = sorted(item.areas & frozenset(area for one in later for area in one.areas))
        yield from (("warms", area) for area in shared)
        yield "warm", ""
    if part.about == "ease" and item.effort <= 1:
        yield "ease", ""
    if part.about == "order":
        yield "order", ""
    if item.take == "gentler":
        yield "gentler", ""
    if before and not built.judge._way_s(before[-1].ends, item.start):
        yield "near", before[-1].name
