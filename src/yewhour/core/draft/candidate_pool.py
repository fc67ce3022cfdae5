"""The pool: the movements that may be in a draft, how long each takes; and why others may not."""

from collections.abc import Iterator
from functools import cached_property

import msgspec

from yewhour.core.conditions.groups import is_in
from yewhour.core.conditions.room import Room
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftPart,
    DraftRequest,
    DraftRoute,
    DraftStyle,
    PeakSteps,
)
from yewhour.core.lengths import seconds
from yewhour.core.library.movement import Movement
from yewhour.core.library.names import plain_name
from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import Level as Take
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.school import School, school_of
from yewhour.core.sides import fill
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timing.doses import amount_range, kind_of, unit_ticks

SETTLING_S = 4.0  # of a movement besides its teaching: the least that a way takes
ENOUGH = 1.6  # times the length promised that all of a pool has to last, as not all can follow on all
QUALIFIED = frozenset(
    ("long", "baby", "half", "supported", "held", "preparation", "prep")
)  # a name, no other
BREATH_S = 7.5  # of a usual breath
FEET = ("standing", "wide", "split", "folded")
BREATH_MARKS = ("breath held", "rapid breath")


class PoolItem(msgspec.Struct, frozen=True, dict=True):
    """A movement or a block as it may stand in a class.

    lasts: seconds of its dose, both sides; costs: those and its teaching. areas: what it works or opens.
    start: the position it needs; ends: the one it leaves, each with its side filled in. early: a class that
    isn't about it doesn't settle with it; small: nor is it its highest point. amount: its dose, where it is
    not the usual one. near: bases that do, as it is asked for.
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
    groups: frozenset[str] = frozenset()
    early: bool = False
    small: bool = False
    amount: int | None = None
    near: tuple[str, ...] = ()

    @cached_property
    def names(self) -> frozenset[str]:
        """What it is called, without what tells it from others of the name: a frog is a long frog, too."""
        if self.movement is None:
            return frozenset()
        called = (self.movement.name, *self.movement.aliases)
        words = (plain_name(one).split() for one in called)
        return frozenset(" ".join(word for word in name if word not in QUALIFIED) for name in words)

    @cached_property
    def costs(self) -> float:
        """Seconds of all of it."""
        return self.lasts + self.teach + SETTLING_S

    @cached_property
    def folds(self) -> bool:
        """Whether it folds forward, and is no curl."""
        return "folds" in self.groups and "curls" not in self.groups

    @cached_property
    def on_feet(self) -> bool:
        """Whether it can be done standing."""
        return any(base_of(one) in FEET for one in self.bases)

    @cached_property
    def warms(self) -> bool:
        """Whether it prepares a cold body."""
        return "warming" in self.marks

    @cached_property
    def strong(self) -> bool:
        """Whether no cold body should do it."""
        return "strong work" in self.marks and self.effort >= 3


class CandidatePool(msgspec.Struct, frozen=True, dict=True):
    """What there is to choose from, by id; a tradition's order; why others are not there: (code, word)."""

    items: dict[str, PoolItem]
    order: dict[str, int]
    turned_down: dict[str, tuple[str, str]]

    def suited(self, part: DraftPart) -> tuple[PoolItem, ...]:
        """The movements that may stand in a part; worked out once."""
        known: dict[DraftPart, tuple[PoolItem, ...]] = self.__dict__.setdefault("_suited", {})
        if part not in known:
            items = (one for one in self.items.values() if one.movement is not None)
            known[part] = tuple(one for one in items if suits(one, part, self.order))
        return known[part]


def style_of(ask: DraftRequest, model: DraftModel, route: DraftRoute | None = None) -> DraftStyle:
    """The style of a promise; on a route that any style goes, with what that has instead of its own."""
    style = model.styles[ask.brief.style]
    if route is None or not route.families:
        return style
    return msgspec.structs.replace(
        style, families=route.families, rest=route.rest, closings={"": route.closing}, only=(), order="",
        needs=route.needs, kinds=style.kinds or route.kinds, restful=False, between="", routes=(route,),
        few=min(style.few, 120), stretch=route.stretch or max(1.3, style.stretch),
        opens=route.opens, rests=route.rests,
    )  # fmt: skip


def pool_of(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel, route: DraftRoute | None = None
) -> CandidatePool:
    """The pool of a promise. Every movement that is neither in it nor turned down is of another style.

    route: one that any style goes, with families of its own. Where what one can stay in would not fill the
    length promised, shorter holds are in it too, and on such a route what is not held.
    """
    style = style_of(ask, model, route)
    kinds = route.kinds if route is not None and route.families else style.kinds
    pool = _pool(ask, teaching_data, model, style)
    for wider in ({"stay": 0}, {"stay": 0, "kinds": kinds}):
        if sum(one.costs for one in pool.items.values()) >= ENOUGH * ask.brief.target_s:
            break
        other = msgspec.structs.replace(style, **wider)
        if other != style:
            pool = _pool(ask, teaching_data, model, other)
    return pool


def _pool(
    ask: DraftRequest, teaching_data: TeachingData, model: DraftModel, style: DraftStyle
) -> CandidatePool:
    brief, room = ask.brief, ask.room(teaching_data, model)
    school = school_of(brief, teaching_data.schools)
    more = {family for one in style.routes for part in one.parts for family in part.more}
    families = frozenset((*style.families, *more))
    order, stretch = order_of(style, teaching_data), style.stretch * room.stretch
    asked = {brief.peak, *brief.wanted, *model.peaks.get(brief.peak, PeakSteps()).stages}
    told = teaching_data.told_to(room)
    items: dict[str, PoolItem] = {}
    down: dict[str, tuple[str, str]] = {}
    for movement in teaching_data.library.values():
        wished = (
            movement.id in asked and movement.id not in style.rest
        )  # there it comes by itself, at the end
        never = movement.id in model.never and (told is None or movement.behaviour.is_rest)
        if movement.behaviour.framing or not movement.start or (never and not wished):
            continue
        if told is not None and movement.id not in told.movements and not wished:
            continue  # it would be told as to others
        of_style = movement.family in families and movement.id not in style.not_here
        if not (of_style or movement.id in style.also or wished) or (
            movement.side_by and movement.sides == "one"
        ):
            continue
        if movement.family == "classical-mat" and order and movement.id not in order and not wished:
            continue
        why = _why_not(movement, ask, model, style, school, room, wished, movement.id in order)
        if why is not None and why[0] != "gentler":
            down[movement.id] = why
            continue
        item = _item(
            movement,
            "gentler" if why else "base",
            school,
            ask,
            teaching_data,
            stretch,
            movement.id in model.early,
            movement.id in model.small,
            model.weights.focus_longer,
        )
        if wished:
            near = tuple(dict.fromkeys(one for base in item.bases for one in model.near.get(base, ())))
            item = msgspec.structs.replace(item, near=near)
        items[movement.id] = item
    for name, flow in model.blocks.items():
        if able_flow(name, ask, room, teaching_data, model) and not items.keys() & {*flow.unless}:
            movements = _movements_of(name, teaching_data)
            loads = tuple({load for one in movements for load in one.loads})
            ends = "four-point" if "four-point" in flow.bases else "standing"
            items[name] = PoolItem(
                name, name, None, flow.seconds, 20.0, frozenset(flow.areas), flow.effort, flow.bases,
                flow.bases[0], ends, loads=loads, marks=("warming",), groups=frozenset(flow.of),
            )  # fmt: skip
    return CandidatePool(items, order, down)


def able_flow(
    name: str, ask: DraftRequest, room: Room, teaching_data: TeachingData, model: DraftModel
) -> bool:
    """Whether everybody can do a flow."""
    movements = _movements_of(name, teaching_data)
    met = any(room.met(one) or room.left_out(one) for one in movements)
    most = min(room.most, model.levels[ask.brief.level].most + 1)
    return bool(movements) and not met and model.blocks[name].effort <= most


def _movements_of(flow: str, teaching_data: TeachingData) -> list[Movement]:
    return [teaching_data.library[one.movement] for one in steps_in(teaching_data.blocks.get(flow, ()))]


def order_of(style: DraftStyle, teaching_data: TeachingData) -> dict[str, int]:
    """The place of each movement in the order of the style's tradition, and of what may stand beside it."""
    from_block = teaching_data.blocks.get(style.order, ())
    names = [one.movement for one in steps_in(from_block)]
    placed = [
        one for name in names for one in (*style.before.get(name, ()), name, *style.after.get(name, ()))
    ]
    return {name: number for number, name in enumerate(placed)}


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
    movement: Movement,
    ask: DraftRequest,
    model: DraftModel,
    style: DraftStyle,
    school: School,
    room: Room,
    wished: bool,
    ordered: bool,
) -> tuple[str, str] | None:
    """Why a movement is not for this class; "gentler" where it is in its gentler way.

    wished: the promise names it. ordered: it stands in a tradition's order, which all do in the way they can.
    """
    brief, level = ask.brief, model.levels[ask.brief.level]
    if movement.id in ask.without:
        return "unwanted", ""
    left = room.left_out(movement)
    if left is not None:
        return ("caution" if left.why == "caution" else "without"), left.tag
    missing = [prop for prop in movement.props if not at_hand(prop, brief.props)]
    if missing:
        return "prop", missing[0]
    gentle = movement.gentler is not None and not movement.gentler.movement and room.offers(movement.gentler)
    barred = [mark for mark in movement.marks if mark in level.without]
    above = movement.effort - min(level.most, room.most)
    if wished:
        return ("gentler", "level") if (barred or above > 0) and gentle else None
    if style.only and not any(word in " ".join((movement.id, *movement.props)) for word in style.only):
        return "style", ""
    restless = style.restful and "rest" not in movement.works
    if restless or movement.effort > style.most or (style.kinds and movement.kind not in style.kinds):
        return "style", ""
    if style.stay and _longest_s(movement) < style.stay:
        return "style", ""
    if barred or above > (1 if ordered and gentle else 0):
        return "level", barred[0] if barred else ""
    if "breath held" in movement.marks and not school.retention:
        return "school", "breath held"
    met = room.troubled(movement)
    if above > 0 and not met:
        return "gentler", "level"
    if met:
        if gentle and not any(mark in movement.marks for mark in (*BREATH_MARKS, "peak", "inversion")):
            return "gentler", met[0]
        return "caution", met[0]
    return None


def _longest_s(movement: Movement) -> float:
    """Seconds that a movement is held for at most, on a side."""
    return movement.dose[2] * (BREATH_S if movement.behaviour.is_hold else 1.0)


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
    early: bool,
    small: bool,
    longer: float,
) -> PoolItem:
    step = Step(movement=movement.id)
    kind = kind_of(step, movement, school)
    areas = frozenset((*movement.works, *movement.opens))
    about = areas & (set(ask.brief.focus) - {"whole body"})
    amount = _longer(movement, longer) if about else None
    step = Step(movement=movement.id, amount=amount)
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
        areas,
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
        teaching_data.conditions.groups_of(movement),
        early and not about,
        small and not about,
        amount,
    )


def _longer(movement: Movement, longer: float) -> int | None:
    """The amount of a hold that the class is about: so much longer than usual, no longer than it may be."""
    if not movement.behaviour.is_hold:
        return None
    by = max(movement.by, movement.behaviour.by)
    amount = min(movement.dose[2], round(movement.dose[1] * longer / by) * by)
    return amount if amount > movement.dose[1] else None


def fits_base(item: PoolItem, bases: tuple[str, ...]) -> int:
    """The place of an item's base among those of a part, after them for one near it; -1 where it has none."""
    options = item.start.split(" or ")
    own = next((n for n, base in enumerate(bases) if any(is_in(one, base) for one in options)), -1)
    return len(bases) if own < 0 and any(one in bases for one in item.near) else own


def suits(item: PoolItem, part: DraftPart, order: dict[str, int]) -> bool:
    """Whether a movement may stand in a part: where it is, how hard, and what for."""
    low, high = part.effort
    if fits_base(item, part.bases) < 0:
        return False
    if item.early and part.about == "ease" and "chair" not in part.bases:
        return False
    if item.small and part.about == "peak":
        return False
    breath = item.family in ("breath-practices", "breathing")
    if part.areas and not breath and item.areas.isdisjoint(part.areas):
        return False
    if breath != (part.about == "breath") and not (breath and part.about == "warm" and item.effort == 0):
        return False
    if part.about == "warm" and item.effort > 1 and "warming" not in item.marks:
        return False  # what is asked of a cold body is small
    ordered = not order or part.about != "order" or item.id in order
    return ordered and low <= item.effort <= high
