"""A draft as a plan: its items as steps, pairs and blocks, in sections, with opening, rest and closing."""

from collections.abc import Iterator, Sequence

from yewhour.core.draft.candidate_pool import PoolItem
from yewhour.core.draft.draft_model import DraftPart, DraftRequest, DraftStyle
from yewhour.core.plan.nodes import (
    Block,
    Node,
    Pair,
    Step,
)
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.teaching_data import TeachingData

QUIET_S = 100.0  # of a hold that is announced where the style keeps quiet


def draft_plan(
    ask: DraftRequest,
    style: DraftStyle,
    opening: Node,
    found: Sequence[tuple[DraftPart, tuple[PoolItem, ...]]],
    rest_s: float,
    teaching_data: TeachingData,
) -> Plan:
    """The plan of what was found. rest_s: seconds of its rest, 0 for none."""
    brief = ask.brief
    sections = [Section(title="Arrive", role="arrive", body=(opening,))]
    for part, items in found:
        if items:
            body = tuple(nodes_of(items, part, style))
            sections.append(Section(title=part.title, role=part.role, body=body))
    lying = False
    if rest_s and style.rest:
        rest = _rest(style, brief, teaching_data)
        lying = "seated" not in teaching_data.library[rest].start
        amount = round(rest_s / 5) * 5
        sections.append(Section(title="Rest", role="rest", body=(Step(movement=rest, amount=amount),)))
    name = style.closings.get(brief.time_of_day, style.closings[""])
    close: Node = Block(name=name) if name in teaching_data.blocks else Step(movement=name)
    if not lying and style.rest and "seated" not in name:
        close = Step(movement="farewell-short")
    sections.append(Section(title="Close", role="close", body=(close,)))
    return with_ids(Plan(brief=brief, sections=tuple(sections)))


def _rest(style: DraftStyle, brief: Brief, teaching_data: TeachingData) -> str:
    def able(name: str) -> bool:
        movement = teaching_data.library[name]
        met = set(movement.cautions) & set(brief.cautions)
        return not met and all(prop in brief.props for prop in movement.props)

    return next((name for name in style.rest if able(name)), style.rest[-1])


def nodes_of(items: Sequence[PoolItem], part: DraftPart, style: DraftStyle) -> Iterator[Node]:
    """The items as nodes: one-sided ones in pairs, several of them in one where the part has chains."""
    chain: list[Step] = []
    stance: tuple[str, ...] = ()
    balances = 0
    for item in items:
        if item.movement is None:
            yield from _paired(chain)
            yield Block(name=item.id)
            continue
        step = Step(movement=item.id, take=item.take)
        if item.sided:
            balances += "balance" in item.marks
            if chain and (item.bases != stance or ("balance" in item.marks and balances > 1)):
                yield from _paired(chain)
                balances = int("balance" in item.marks)
            stance = item.bases
            chain += [Step(movement=style.quiet), step] if style.quiet else [step]
            if len(chain) >= part.chain:
                yield from _paired(chain)
            continue
        yield from _paired(chain)
        if style.quiet and item.lasts >= QUIET_S:
            yield Step(movement=style.quiet)
        yield step
        if style.between and (item.effort >= 2 or set(item.marks) & {"breath held", "rapid breath"}):
            yield Step(movement=style.between)
    yield from _paired(chain)


def _paired(chain: list[Step]) -> Iterator[Node]:
    if chain:
        yield Pair(body=tuple(chain))
        chain.clear()
