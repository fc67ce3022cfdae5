"""A draft as a plan: its items as steps, pairs and blocks, in sections, with opening, rest and closing."""

import zlib
from collections.abc import Iterator, Mapping, Sequence

import msgspec

from yewhour.core.conditions.room import Room
from yewhour.core.draft.candidate_pool import PoolItem, able_flow, steps_in
from yewhour.core.draft.draft_model import DraftModel, DraftPart, DraftRequest, DraftStyle
from yewhour.core.library.movement import Movement
from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    Pair,
    Rounds,
    Step,
)
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.sides import fill
from yewhour.core.teaching_data import TeachingData

ON_THE_SIDE = "side close"  # the way back for who rests on a side
RESTS = (
    "evening-rest", "left-side-rest", "side-bolster", "propped-incline", "seated-silence",
    "chair-silence",
)  # fmt: skip
TELLINGS = 97
TAUGHT_FROM = 6  # movements of a flow whose first round is taught
ON_A_SIDE = 3  # shapes on one side before one rolls over: nobody does that for each of them
QUIET_S = 100.0  # of a hold that is announced where the style keeps quiet


def draft_plan(
    ask: DraftRequest,
    style: DraftStyle,
    opening: Node,
    found: Sequence[tuple[DraftPart, tuple[PoolItem, ...]]],
    rest_s: float,
    teaching_data: TeachingData,
    model: DraftModel,
) -> Plan:
    """The plan of what was found. rest_s: seconds of its rest, 0 for none."""
    brief = ask.brief
    if not brief.telling:  # two promises are not told alike, even where they have a movement in common
        promise = f"{ask.seed}/{ask.promised}/{brief.title}/{brief.cautions}/{brief.without}"
        told = 1 + zlib.crc32(promise.encode()) % TELLINGS
        brief = msgspec.structs.replace(brief, telling=told)
    sections = [Section(title="Arrive", role="arrive", body=(opening,))]
    taught = taught_flows(ask, teaching_data.blocks)
    for part, items in found:
        if items:
            between = flow_between(part, ask, teaching_data, model)
            body = tuple(nodes_of(items, part, style, taught, between))
            title = part.titled((base_of(one.start) for one in items), [one.title for one in sections])
            sections.append(Section(title=title, role=part.role, body=body))
    room = ask.room(teaching_data, model)
    here, rests = "", ""
    if rest_s and style.rest:
        rests = _rest(style, room, teaching_data)
    if rests:
        lying = teaching_data.library[rests]
        amount = round(rest_s / 5) * 5
        sections.append(Section(title="Rest", role="rest", body=(Step(movement=rests, amount=amount),)))
        here = lying.start
    elif found and any(items for _, items in found):
        here = next(items[-1] for _, items in reversed(found) if items).ends
    sections.append(
        Section(
            title="Close",
            role="close",
            body=(_close(style, brief, here, bool(rests) and not style.opens, room, teaching_data),),
        )
    )
    return with_ids(Plan(brief=brief, sections=tuple(sections)))


def _rest(style: DraftStyle, room: Room, teaching_data: TeachingData) -> str:
    """The rest of a class, as a condition has it or else the style; "" where there is none for everybody."""
    asked = [one for _, condition in room.rules.with_others(room.cautions) for one in condition.shapes]

    def able(name: str) -> bool:
        movement = teaching_data.library[name]
        met = any(tag in movement.cautions for tag in room.cautions)
        there = all(prop in room.props for prop in movement.props)
        return not met and there and room.left_out(movement) is None

    return next((name for name in (*asked, *style.rest, *RESTS) if able(name)), "")


def _close(
    style: DraftStyle, brief: Brief, here: str, rested: bool, room: Room, teaching_data: TeachingData
) -> Node:
    """The closing: the style's for that time of day, if the body may be where it goes; else a short
    farewell. Who has rested is not laid down again, unless all of it was rest."""
    name = style.closings.get(brief.time_of_day, style.closings[""])
    steps = list(steps_in(teaching_data.blocks[name])) if name in teaching_data.blocks else []
    movements = [teaching_data.library[step.movement] for step in steps]
    lies = here.startswith("supine")
    able = all(room.left_out(one) is None and not _sits_down(one, room) for one in movements)
    returns = any("returning" in one.marks for one in movements)
    if steps and able and (lies or not returns):
        again = rested and movements[0].behaviour.is_rest
        return Step(movement=movements[-1].id) if again else Block(name=name)
    evening = brief.time_of_day in ("evening", "night")
    if returns and here.startswith("on-") and not evening and _may_sit(room):
        return Block(name=ON_THE_SIDE)
    if here.startswith(("supine", "on-", "prone")) and (evening or not _may_sit(room)):
        return Step(movement="farewell-resting")
    if here.startswith(("supine", "on-", "prone", "seated", "chair")):
        return Step(movement="farewell")
    return Step(movement="farewell-short")


def _sits_down(movement: Movement, room: Room) -> bool:
    """Whether a way out of the rest ends where nobody is to be."""
    end = fill(movement.end, "left") if movement.end else ""
    return bool(end) and _barred(end, room)


def _may_sit(room: Room) -> bool:
    return not _barred("seated crossed", room)


def _barred(place: str, room: Room) -> bool:
    """Whether a class does without being in a place."""
    groups = [room.rules.groups[one] for one in room.without if one in room.rules.groups]
    return any(group.bars(place) for group in groups)


def nodes_of(
    items: Sequence[PoolItem],
    part: DraftPart,
    style: DraftStyle,
    taught: Mapping[str, Rounds],
    between: str,
) -> Iterator[Node]:
    """The items as nodes: one-sided ones in pairs, several of them in one where the part has chains, and
    between two chains a flow that leads to the next.

    Silence is promised before one long shape of a part, the last that has no sides; in the others somebody
    is spoken to, now and then.
    """
    chains = 0
    for node in _nodes_of(items, part, style, taught):
        if between and chains and _is_chain(node):
            yield Block(name=between)
        chains += _is_chain(node)
        yield node


def flow_between(part: DraftPart, ask: DraftRequest, teaching_data: TeachingData, model: DraftModel) -> str:
    """The flow that leads from one chain of a part to the next; "" where there is none for everybody."""
    room = ask.room(teaching_data, model)
    return next((name for name in part.between if able_flow(name, ask, room, teaching_data, model)), "")


def _is_chain(node: Node) -> bool:
    return isinstance(node, Pair) and len(node.body) > 1


def _nodes_of(
    items: Sequence[PoolItem], part: DraftPart, style: DraftStyle, taught: Mapping[str, Rounds]
) -> Iterator[Node]:
    long = [item for item in items if style.quiet and not item.sided and item.lasts >= QUIET_S]
    chain: list[Step] = []
    stance: tuple[str, ...] = ()
    balances = 0
    for number, item in enumerate(items):
        if item.movement is None:
            yield from _paired(chain)
            if item.id in taught:
                yield Step(movement="teach-round")
            yield taught.get(item.id, Block(name=item.id))
            continue
        step = Step(movement=item.id, take=item.take, amount=item.amount)
        if item.sided:
            balances += "balance" in item.marks
            if chain and (item.bases != stance or ("balance" in item.marks and balances > 1)):
                yield from _paired(chain)
                balances = int("balance" in item.marks)
            stance = item.bases
            chain.append(step)
            lying = all(base.startswith("on-") for base in item.bases) and not style.few
            if len(chain) >= (max(part.chain, ON_A_SIDE) if lying else part.chain):
                yield from _paired(chain)
            continue
        yield from _paired(chain)
        if long and item is long[-1]:
            yield Step(movement=style.quiet)
        yield step
        comes = items[number + 1].id if number + 1 < len(items) else ""
        if style.between not in ("", comes) and (
            item.effort >= 2 or set(item.marks) & {"breath held", "rapid breath"}
        ):
            yield Step(movement=style.between)
    yield from _paired(chain)


def taught_flows(ask: DraftRequest, blocks: Blocks) -> dict[str, Rounds]:
    """The flows whose first round is taught, by name: the long ones, where somebody may not know them."""
    if ask.brief.level == "experienced":
        return {}
    flows = {name: body[0] for name, body in blocks.items() if len(body) == 1 and isinstance(body[0], Rounds)}
    return {
        name: msgspec.structs.replace(flow, teach=1)
        for name, flow in flows.items()
        if len(flow.body) >= TAUGHT_FROM
    }


def _paired(chain: list[Step]) -> Iterator[Node]:
    if chain:
        yield Pair(body=tuple(chain))
        chain.clear()
