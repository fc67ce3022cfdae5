"""Parts of drafts: some of a class kept and the rest changed, a section anew, what is empty filled, something
else in one place; and one more class like this one, a gentler one, one on a chair."""

from collections.abc import Iterable

import msgspec

from yewhour.core.draft.about import focus_of, goes_with
from yewhour.core.draft.build import BuiltPlan, items_for
from yewhour.core.draft.candidate_pool import (
    FEET,
    CandidatePool,
    PoolItem,
    beside,
    fits_base,
    order_of,
    pool_of,
    style_of,
)
from yewhour.core.draft.choices import choices
from yewhour.core.draft.draft import Draft, draft_class, ways_of
from yewhour.core.draft.draft_model import (
    DraftModel,
    DraftPart,
    DraftRequest,
    DraftRoute,
    DraftStyle,
)
from yewhour.core.draft.repair import above, fit_draft, repair
from yewhour.core.draft.search import MovementJudge, SearchState, fill_part
from yewhour.core.draft.to_plan import flow_between, nodes_of, taught_flows
from yewhour.core.lengths import seconds
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import (
    Node,
    Pair,
    Step,
    Variant,
    walk,
)
from yewhour.core.plan.plan import Plan, Section, movements_of, steps_in_order, with_ids
from yewhour.core.plan.stand_ins import with_stand_ins
from yewhour.core.problem import Problem
from yewhour.core.sides import fill
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass

TRIES, CHOICES, LOOKED_AT = 6, 3, 12
KEEPS = ("arrive", "rest", "close")  # roles whose sections stay as they are


class Alternative(msgspec.Struct, frozen=True):
    """Something else in one place: its movement, and the class with it."""

    movement: str
    name: str
    plan: Plan


class _Desk(msgspec.Struct, frozen=True):
    """What every partial draft needs: the way the class goes, what there is for it, and the judge."""

    ask: DraftRequest
    teaching_data: TeachingData
    model: DraftModel
    route: DraftRoute
    style: DraftStyle
    pool: CandidatePool
    judge: MovementJudge


def _desk(ask: DraftRequest, teaching_data: TeachingData, model: DraftModel, plan: Plan) -> _Desk:
    """The desk of a class: by the way it goes, as the titles of its parts tell. Raises Problem for none."""
    if ask.brief.style not in model.styles:
        raise Problem(
            f"No class of style {ask.brief.style!r} can be drafted.", "draft", "Choose another style."
        )
    titles = {section.title for section in plan.sections}
    pool = pool_of(ask, teaching_data, model)
    own = [(route, pool) for route in model.styles[ask.brief.style].routes]
    ways = [*ways_of(ask, teaching_data, model), *own]
    route, pool = max(ways, key=lambda way: len(titles & {part.title for part in way[0].parts}))
    style = style_of(ask, model, route)
    blocks = frozenset(one.id for one in pool.items.values() if one.movement is None)
    judge = MovementJudge(
        ask,
        model.weights,
        ask.room(teaching_data, model).positions(teaching_data.positions),
        focus_of(ask),
        next_to=goes_with(ask, pool, route, model),
        order=order_of(style, teaching_data),
        beside=beside(style),
        few=style.few,
        blocks=blocks,
        kin=model.kin_of(),
        grows=model.grows,
        grown=model.grown_of(),
    )
    return _Desk(ask, teaching_data, model, route, style, pool, judge)


# --- some kept, the rest changed ------------------------------------------------------------------------


def keep_sections(
    plan: Plan, sections: Iterable[int], ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> Draft:
    """The same class with other movements in every part but these, which stay in place, with their lines.

    How it begins, rests and closes stays too. Where there is too little else, some of what was there comes
    again. Raises Problem where there is nothing.
    """
    stay = {*sections}
    timed = solve(plan, teaching_data).make()
    rooms = {
        n: sum(seconds(one.length) for one in timed.segments if one.use.section == n)
        for n, one in enumerate(plan.sections)
        if n not in stay and one.role not in KEEPS and one.body
    }
    if not rooms:
        raise Problem("There is nothing besides what stays.", "draft", "Keep less of it.")
    there = movements_of(plan, [plan.sections[n] for n in rooms])
    try:
        others = msgspec.structs.replace(ask, without=ask.without | there)
        after = _written(plan, rooms, others, teaching_data, model)
    except Problem:
        rather = msgspec.structs.replace(ask, lately={**ask.lately, **dict.fromkeys(there, 1.0)})
        after = _written(plan, rooms, rather, teaching_data, model)
    return drafted_from(after, ask, teaching_data, model)


def drafted_from(plan: Plan, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> Draft:
    """A plan that was drafted in parts as a draft, with why each movement is there."""
    desk = _desk(ask, teaching_data, model, plan)
    items = desk.pool.items
    parts = tuple(
        (_part(section, desk), tuple(items[name] for name in movements_of(plan, [section]) if name in items))
        for section in plan.sections
    )
    built = BuiltPlan(plan, parts, desk.judge, 0.0, 0.0, 0.0)
    timed = solve(plan, teaching_data).make()
    return Draft(
        plan,
        timed,
        choices(plan, built),
        desk.pool.turned_down,
        0.0,
        0.0,
        desk.route.any_style,
        frozenset(desk.pool.items),
        desk.judge.next_to,
    )


# --- a section anew, and what is empty --------------------------------------------------------------------


def redraft_section(
    plan: Plan,
    timed: TimedClass,
    index: int,
    ask: DraftRequest,
    teaching_data: TeachingData,
    model: DraftModel,
) -> Plan:
    """The class with other movements in one section, which lasts as long. What is locked there stays.

    Raises Problem where there is nothing else for it.
    """
    section = plan.sections[index]
    room_s = sum(seconds(one.length) for one in timed.segments if one.use.section == index)
    there = movements_of(plan, [section])
    return _written(
        plan, {index: room_s}, msgspec.structs.replace(ask, without=ask.without | there), teaching_data, model
    )


def fill_empty(
    plan: Plan, missing_s: float, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> Plan:
    """The class with its empty sections filled, or with more at the end of those that build, for so many
    seconds. What stands there stays. Raises Problem where there is nothing for it."""
    empty = [n for n, one in enumerate(plan.sections) if not one.body and one.role not in KEEPS]
    if not empty:
        empty = [n for n, one in enumerate(plan.sections) if one.role not in KEEPS]
    if not empty:
        raise Problem("There is no part to fill.", "draft", "Start a part with N, and give it a role.")
    desk = _desk(ask, teaching_data, model, plan)
    shares = [_part(plan.sections[n], desk).share for n in empty]
    rooms = {n: missing_s * share / sum(shares) for n, share in zip(empty, shares, strict=True)}
    return _written(plan, rooms, ask, teaching_data, model)


def _written(
    plan: Plan, rooms: dict[int, float], ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> Plan:
    """The plan with sections filled for so many seconds each, what is locked in them kept; the first of some
    tries that fits and passes the checks."""
    last: Problem | None = None
    for number in range(TRIES):
        tried = msgspec.structs.replace(ask, seed=ask.seed * 31 + number)
        desk = _desk(tried, teaching_data, model, plan)
        after = plan
        for index, room_s in rooms.items():
            after = _with_section(after, index, room_s, desk)
        try:
            done, timed = repair(with_ids(after), teaching_data, desk.pool)
        except Problem as problem:
            last = problem
            continue
        if not above(timed.findings, plan.edits):
            return done
    raise last or Problem(
        "Nothing else passes the checks here.", "draft", "Change its neighbours, or its role."
    )


def _with_section(plan: Plan, index: int, room_s: float, desk: _Desk) -> Plan:
    section = plan.sections[index]
    part = _part(section, desk)
    stays = tuple(node for node in section.body if not section.body or _stays(node, desk))
    others = [one for n, one in enumerate(plan.sections) if n != index]
    used = movements_of(plan, others) | movements_of(plan, [Section(title="", body=stays)])
    came = _came(plan, index, used, desk)
    items = [item for item in items_for(part, desk.pool, desk.judge) if item.id not in used]
    path = fill_part(items, part, desk.judge, came, room_s)
    if not path.items:  # something that it is not about, before there is nothing at all
        path = fill_part(items, part, msgspec.structs.replace(desk.judge, focus=frozenset()), came, room_s)
    if not path.items:
        raise Problem(f"There is nothing else for {section.title}.", "draft", "Give it another role.")
    taught = taught_flows(desk.ask, desk.teaching_data.blocks)
    between = flow_between(part, desk.ask, desk.teaching_data, desk.model)
    body = (*stays, *nodes_of(path.items, part, desk.style, taught, between))
    changed = msgspec.structs.replace(section, body=body)
    return msgspec.structs.replace(
        plan, sections=(*plan.sections[:index], changed, *plan.sections[index + 1 :])
    )


def _stays(node: Node, desk: _Desk) -> bool:
    """Whether a node is hers: locked, or with words or a dose of her own."""
    steps = [one for one in walk((node,)) if isinstance(one, Step)]
    return any(one.locked or one.lines or one.amount is not None for one in steps) or isinstance(
        node, Variant
    )


def _part(section: Section, desk: _Desk) -> DraftPart:
    """The part of the style's routes that a section is: by its title, then by its role."""
    parts = [part for route in (desk.route, *desk.style.routes) for part in route.parts]
    same = [
        part for part in parts if section.title in (part.title, part.named[1]) and part.role == section.role
    ]
    alike = [part for part in parts if part.role == section.role]
    return (same or alike or [one for one in parts if one.role == "build"] or parts)[0]


def _came(plan: Plan, index: int, used: frozenset[str], desk: _Desk) -> SearchState:
    """Where the body is at the beginning of a section, and what is used elsewhere."""
    here, warmed, stood = "start", 0, False
    for section in plan.sections[:index]:
        for step in steps_in_order(plan, section, desk.teaching_data.blocks):
            movement = desk.teaching_data.library.get(step.movement)
            if movement is not None and movement.start:
                need = fill(movement.end or movement.start, "left")
                here = desk.teaching_data.positions.usual(need)
                warmed += movement.effort >= 1
                stood = stood or movement.start.startswith(FEET)
    return SearchState(here=here, used=used, warmed=warmed, stood=stood)


# --- something else here ----------------------------------------------------------------------------------


def alternatives_for(
    plan: Plan, node: str, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel
) -> list[Alternative]:
    """Three things that could be done in place of a movement, the class with each; fewer where there are.

    What is done in the same place comes first; where that is too little, what does the same elsewhere.

    Raises Problem where the node is no movement.
    """
    index, step, pair = _found(plan, node)
    desk = _desk(ask, teaching_data, model, plan)
    section = plan.sections[index]
    part = _part(section, desk)
    used = movements_of(plan, plan.sections)
    library, _ = with_stand_ins(plan, teaching_data.library, teaching_data.blocks)
    old = library[step.movement]
    bases = tuple(dict.fromkeys(one.partition(" ")[0] for one in fill(old.start, "right").split(" or ")))
    came = _came(plan, index, used, desk)
    chained = pair is not None and len(pair.body) > 1
    about = frozenset((*old.works, *old.opens))
    able = [
        item
        for item in desk.pool.items.values()
        if item.id not in used and item.movement is not None and abs(item.effort - old.effort) <= 1
        and (fits_base(item, bases) >= 0 or (not chained and _near(item, part, about)))
        and (item.sided or not chained)
    ]  # fmt: skip
    able.sort(
        key=lambda item: (fits_base(item, part.bases) < 0, -_like(item, about, bases, part, came, desk))
    )
    found: list[Alternative] = []
    for item in able[:LOOKED_AT]:
        after = _swapped(plan, index, step, pair, item)
        try:
            timed = fit_draft(solve(after, teaching_data))
        except Problem:
            continue
        if not above(timed.findings):
            found.append(Alternative(item.id, item.name, after))
            if len(found) == CHOICES:
                break
    return found


def _near(item: PoolItem, part: DraftPart, about: frozenset[str]) -> bool:
    """Whether an item is where the part is, or does elsewhere some of what is wanted."""
    return fits_base(item, part.bases) >= 0 or bool(item.areas & about)


def _like(
    item: PoolItem,
    about: frozenset[str],
    bases: tuple[str, ...],
    part: DraftPart,
    came: SearchState,
    desk: _Desk,
) -> float:
    same = len(item.areas & about) / max(1, len(item.areas | about))
    return desk.judge.alone(item, part) + 2.0 * same + 1.0 * (fits_base(item, bases) >= 0)


def _found(plan: Plan, node: str) -> tuple[int, Step, Pair | None]:
    for index, section in enumerate(plan.sections):
        for top in section.body:
            for one in walk((top,)):
                if one.id == node and isinstance(one, Step):
                    return index, one, top if isinstance(top, Pair) else None
                if one.id == node and isinstance(one, Pair) and len(one.body) == 1:
                    inner = one.body[0]
                    if isinstance(inner, Step):
                        return index, inner, one
    raise Problem("That is no movement of its own.", "draft", "Choose a movement on the sprig.")


def _swapped(plan: Plan, index: int, step: Step, pair: Pair | None, item: PoolItem) -> Plan:
    """The plan with another movement in the place of a step, on both sides where it has two."""
    new = Step(movement=item.id, id=step.id, take=item.take)
    alone = pair is None or len(pair.body) == 1
    gone = pair.id if pair is not None and alone else step.id

    def change(node: Node) -> Node:
        if node.id == gone and alone:
            return Pair(body=(new,), id=pair.id if pair is not None else "") if item.sided else new
        if node.id == step.id:
            return new
        if isinstance(node, Pair):
            return msgspec.structs.replace(node, body=tuple(map(change, node.body)))
        return node

    section = plan.sections[index]
    changed = msgspec.structs.replace(section, body=tuple(map(change, section.body)))
    return with_ids(
        msgspec.structs.replace(plan, sections=(*plan.sections[:index], changed, *plan.sections[index + 1 :]))
    )


# --- one more like this one -------------------------------------------------------------------------------


def one_like(plan: Plan, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> Draft:
    """One more class of the same promise, with as little of this one in it as can be."""
    lately = dict.fromkeys(movements_of(plan, plan.sections), 1.0)
    return draft_class(msgspec.structs.replace(ask, lately={**ask.lately, **lately}), teaching_data, model)


def gentler_class(plan: Plan, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> Draft:
    """The same class for a gentler level: each movement, or what is gentler in its place."""
    liked: dict[str, float] = {}
    for name in movements_of(plan, plan.sections):
        liked[name] = 0.8
        movement = teaching_data.library.get(name)
        if movement is not None and movement.gentler is not None and movement.gentler.movement:
            liked[movement.gentler.movement] = 1.0
    level = "gentle" if ask.brief.level != "gentle" else ask.brief.level
    brief = msgspec.structs.replace(ask.brief, level=level)
    return draft_class(msgspec.structs.replace(ask, brief=brief, liked=liked), teaching_data, model)


def seated_class(plan: Plan, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> Draft:
    """The same class on a chair: for each movement what is most like it there."""
    props = tuple(dict.fromkeys((*ask.brief.props, "chair")))
    brief = msgspec.structs.replace(ask.brief, style="chair-balance", props=props)
    areas = [
        frozenset((*teaching_data.library[name].works, *teaching_data.library[name].opens))
        for name in movements_of(plan, plan.sections)
        if name in teaching_data.library
    ]
    pool = pool_of(msgspec.structs.replace(ask, brief=brief), teaching_data, model)
    liked = {
        item.id: max((len(item.areas & one) / max(1, len(item.areas | one)) for one in areas), default=0.0)
        for item in pool.items.values()
    }
    return draft_class(msgspec.structs.replace(ask, brief=brief, liked=liked), teaching_data, model)
