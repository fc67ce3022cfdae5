"""The pool: the movements that may be in a draft, how long each takes; and why others may not."""

from collections.abc import Iterator
from functools import cached_property

import msgspec

from yewhour.core.draft.draft_model import DraftModel, DraftRequest, DraftStyle
from yewhour.core.lengths import seconds
from yewhour.core.library.movement import Movement
from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import Level as Take
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.school import School, school_of
from yewhour.core.sides import fill
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timing.doses import amount_range, kind_of, unit_ticks

SETTLING_S = 4.0  # of a movement besides its teaching: the least that a way takes
BREATH_MARKS = ("breath held", "rapid breath")


class PoolItem(msgspec.Struct, frozen=True, dict=True):
    """A movement or a block as it may stand in a class.

    lasts: seconds of its dose, both sides; costs: those and its teaching. areas: what it works or opens.
    start: the position it needs; ends: the one it leaves, each with its side filled in.
    """

    id: str
    name: str
    movement: Movement | None
    lasts: float
    teach: float
    areas: frozenset[str]
    effort: int
    bases: tuple[str, ...]
    start: str
    ends: str
    sided: bool = False
    take: Take = "base"
    props: tuple[str, ...] = ()
    marks: tuple[str, ...] = ()
    loads: tuple[str, ...] = ()
    prepared_by: tuple[str, ...] = ()
    neutralised_by: tuple[str, ...] = ()
    family: str = ""

    @cached_property
    def costs(self) -> float:
        """Seconds of all of it."""
        return self.lasts + self.teach + SETTLING_S


class CandidatePool(msgspec.Struct, frozen=True):
    """What there is to choose from, by id; a tradition's order; why others are not there: (code, word)."""

    items: dict[str, PoolItem]
    order: dict[str, int]
    turned_down: dict[str, tuple[str, str]]


def pool_of(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> CandidatePool:
    """The pool of a promise. Every movement that is neither in it nor turned down is of another style."""
    brief = ask.brief
    style, school = model.styles[brief.style], school_of(brief, teaching_data.schools)
    more = {family for route in style.routes for part in route.parts for family in part.more}
    families = {*style.families, *more}
    order = order_of(style, teaching_data)
    items: dict[str, PoolItem] = {}
    down: dict[str, tuple[str, str]] = {}
    for movement in teaching_data.library.values():
        if movement.behaviour.framing or movement.id in model.never or not movement.start:
            continue
        if movement.family not in families or (movement.side_by and movement.sides == "one"):
            continue
        if movement.family == "classical-mat" and order and movement.id not in order:
            continue
        why = _why_not(movement, ask, model, style, school, movement.id in order)
        if why is not None and why[0] != "gentler":
            down[movement.id] = why
            continue
        items[movement.id] = _item(
            movement, "gentler" if why else "base", school, ask, teaching_data, style.stretch
        )
    for name, flow in model.blocks.items():
        steps = steps_in(teaching_data.blocks.get(name, ()))
        minded = {one for step in steps for one in teaching_data.library[step.movement].cautions}
        met = minded & set(brief.cautions)
        loads = tuple({one for step in steps for one in teaching_data.library[step.movement].loads})
        if name in teaching_data.blocks and not met and flow.effort <= model.levels[brief.level].most + 1:
            ends = "four-point" if "four-point" in flow.bases else "standing"
            items[name] = PoolItem(
                name, name, None, flow.seconds, 20.0, frozenset(flow.areas), flow.effort, flow.bases,
                flow.bases[0], ends, loads=loads, marks=("warming",),
            )  # fmt: skip
    return CandidatePool(items, order, down)


def order_of(style: DraftStyle, teaching_data: TeachingData) -> dict[str, int]:
    """The place of each movement in the order of the style's tradition, and of what may stand beside it."""
    from_block = teaching_data.blocks.get(style.order, ())
    names = [one.movement for one in steps_in(from_block)]
    placed = [
        row for name in names for row in (style.before.get(name, ()), (name,), style.after.get(name, ()))
    ]
    return {name: number for number, row in enumerate(placed) for name in row}


def beside(style: DraftStyle) -> frozenset[str]:
    """What may stand beside the movements of the style's tradition, and is not of it."""
    return frozenset(name for row in (*style.before.values(), *style.after.values()) for name in row)


def steps_in(nodes: tuple[object, ...]) -> Iterator[Step]:
    """Every step of nodes, groups and all."""
    for node in nodes:
        if isinstance(node, Step):
            yield node
        elif hasattr(node, "body"):
            yield from steps_in(node.body)


def _why_not(
    movement: Movement, ask: DraftRequest, model: DraftModel, style: DraftStyle, school: School, ordered: bool
) -> tuple[str, str] | None:
    """Why a movement is not for this class; "gentler" where it is in its gentler way.

    ordered: it stands in a tradition's order, which all do in the way they can.
    """
    brief, level = ask.brief, model.levels[ask.brief.level]
    if movement.id in ask.without:
        return "unwanted", ""
    missing = [prop for prop in movement.props if not at_hand(prop, brief.props)]
    if missing:
        return "prop", missing[0]
    if style.only and not any(word in " ".join((movement.id, *movement.props)) for word in style.only):
        return "style", ""
    restless = style.restful and "rest" not in movement.works
    if restless or (style.kinds and movement.kind not in style.kinds):
        return "style", ""
    barred = [mark for mark in movement.marks if mark in level.without]
    gentle = movement.gentler is not None and not movement.gentler.movement
    above = movement.effort - level.most
    if barred or above > (1 if ordered and gentle else 0):
        return "level", barred[0] if barred else ""
    if "breath held" in movement.marks and not school.retention:
        return "school", "breath held"
    met = [one for one in movement.cautions if one in brief.cautions]
    if above > 0 and not met:
        return "gentler", "level"
    if met:
        if gentle and not any(mark in movement.marks for mark in (*BREATH_MARKS, "peak", "inversion")):
            return "gentler", met[0]
        return "caution", met[0]
    return None


def at_hand(prop: str, props: tuple[str, ...]) -> bool:
    """Whether a prop is at hand: two blocks are a block as well."""
    return prop in props or (prop == "block" and "two blocks" in props)


def _item(
    movement: Movement,
    take: Take,
    school: School,
    ask: DraftRequest,
    teaching_data: TeachingData,
    stretch: float,
) -> PoolItem:
    step = Step(movement=movement.id)
    kind = kind_of(step, movement, school)
    unit = unit_ticks(kind, movement, school.pace, movement.count_s or school.count_s)
    lasts = seconds(unit) * amount_range(step, movement, kind, 60 / school.pace.breaths_per_min).preferred
    lasts *= stretch
    sided, level = movement.sides == "one", ask.brief.level
    usual = movement.teach or {"clock": 16, "stillness": 14}.get(kind, 10)
    teach = usual * school.teaching * (1.3 if level in ("gentle", "beginners") else 1.0)
    start, end = fill(movement.start, "right"), fill(movement.end or movement.start, "left")
    first = start.split(" or ")
    ends = teaching_data.positions.usual(end) if end else ""
    return PoolItem(
        movement.id,
        movement.name,
        movement,
        lasts * (2 if sided else 1),
        max(teach, movement.moving_s) + (9.0 if sided else 0.0),
        frozenset((*movement.works, *movement.opens)),
        movement.effort,
        tuple(dict.fromkeys(base_of(one) for one in first)),
        start,
        ends,
        sided,
        take,
        movement.props,
        movement.marks,
        movement.loads,
        movement.prepared_by,
        movement.neutralised_by,
        movement.family,
    )


def fits_base(item: PoolItem, bases: tuple[str, ...]) -> int:
    """The place of an item's base among those of a part, -1 where it has none of them."""
    options = item.start.split(" or ")
    return next((n for n, base in enumerate(bases) if any(_is(one, base) for one in options)), -1)


def _is(position: str, wanted: str) -> bool:
    """Whether a position is of a base, and of a form where one is named: `split low` of `split right low`."""
    base, _, form = wanted.partition(" ")
    return base_of(position) == base and (not form or form in position.split()[1:])
