"""Body: what may be said while a segment lasts: alignment, company, options, leave to rest.

Each line may come in its full wording again where there is room: a listener needs whole sentences, and what
has been said already gives way to what has not (`place`). In a flow the short ones are enough.
"""

from collections.abc import Iterator

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.script.cue import Candidate
from yewhour.core.script.offers import offer_wordings
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.phrasing import (
    Phrasing,
    filled_line,
    from_tier,
    lines_of,
)
from yewhour.core.wording.speech import GAP

COMPANY, MOST_COMPANY = 2, 5  # lines for one segment that are not its movement's own; in a long hold more
LONG_HOLD, MORE_EVERY = ticks(40), ticks(15)
STRONG, EASY = 4, 1  # effort
LONG_WORK = ticks(40)  # of strong work, after which one is given leave to rest
PARTS = frozenset({"jaw", "face", "eyes", "shoulders", "ground"})  # said once of a movement


def alignment_lines(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Candidate]:
    """The lines of one segment that may be anywhere in it."""
    use = segment.use
    if segment.behaviour.is_phase and not use.taught:
        return
    low, high = segment.start + GAP, segment.end - GAP
    if segment.behaviour.is_hold and segment.amount >= 3:
        high = segment.end - use.unit  # the last breath is for the last breath's own lines
    elif segment.behaviour.repeated and segment.amount >= 3:
        high = segment.end - use.unit  # nothing is put right after the last count
    middle = (low + high) // 2
    early = min(high, segment.start + segment.length // 3)  # a choice comes in the first third
    for ways in _choices(phrasing, index, segment) if use.movement.card is None else ():
        yield Candidate("option", index, segment.side, ways, low, early, high, low, True, 1)
    if use.second and phrasing.school.second_side == "wordless":
        return
    lines = list(_lines(phrasing, index, segment))
    company = list(_company(phrasing, segment)) if use.movement.card is None else []
    for number, (purpose, words) in enumerate([*lines, *company]):
        yield Candidate(
            purpose, index, segment.side, words, low, high, high, middle, True, -number,
            company=number >= len(lines),
        )  # fmt: skip


def _choices(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[Wordings]:
    """What may be done instead, and leave to rest where the work is long and strong."""
    use = segment.use
    offers = use.step.offer and use.step.take == "base" and use.step.pattern is None
    offered = use.round > 1 or (use.seen and not use.second)  # not each time round
    if (
        phrasing.tier(use) == 0
        and offers
        and not offered
        and (ways := offer_wordings(phrasing, index, segment))
    ):
        yield ways
    if use.movement.effort >= STRONG and segment.length >= LONG_WORK and not use.second:
        rest = phrasing.voice.rest
        yield rest[use.place % len(rest)]


def _lines(phrasing: Phrasing, index: int, segment: Segment) -> Iterator[tuple[str, Wordings]]:
    """(purpose, wordings) of alignment and company, what comes first first."""
    use, tier = segment.use, phrasing.tier(segment.use)
    purposes = ("rest",) if segment.behaviour.is_rest else ("align", "stay")
    lines = [
        (purpose, filled_line(line, use), purpose in use.step.lines)
        for purpose in purposes
        for line in lines_of(use, purpose)
        if use.movement.card is None or purpose in use.step.lines
    ]
    if tier and len(lines) > 1:  # start elsewhere in the list than the time before
        first = max(1, use.round - 1) % len(lines)
        lines = lines[first:] + lines[:first]
    for number, (purpose, line, own) in enumerate(lines):
        if use.flow:
            line = from_tier(tier, line)
        elif use.second and not own:
            again = phrasing.voiced(phrasing.voice.again, line, index + number, 1)
            line = tuple(dict.fromkeys((line[0], again[0])))
        elif purpose != "rest" and not own and number:
            line = phrasing.voiced(phrasing.voice.align, line, index + number, 2)
        yield purpose, line


def _company(phrasing: Phrasing, segment: Segment) -> Iterator[tuple[str, Wordings]]:
    """Lines that suit anything of its kind and effort; others each time, until all have been said."""
    use = segment.use
    voice, effort = phrasing.voice, use.movement.effort
    alone = "stay" in use.step.lines or not use.movement.speaks  # in her own words, or hardly any breath to
    if not segment.behaviour.company or use.flow or alone:
        return
    if use.behaviour.is_reps or use.movement.behaviour.is_reps:
        lines = voice.counted
    elif use.behaviour.is_cycles:
        lines = voice.easy
    else:
        lines = voice.easy if effort <= EASY else voice.strong if effort >= STRONG else voice.held
    lines = _of_other_parts(lines, use)
    first = 5 * use.place + COMPANY * (use.second + max(0, use.round - 1))  # 5: so that all have their turn
    longer = max(0, segment.length - LONG_HOLD) // MORE_EVERY if use.behaviour.held else 0
    for number in range(min(MOST_COMPANY, COMPANY + longer)):
        yield "stay", lines[(first + number) % len(lines)]


def _of_other_parts(lines: tuple[Wordings, ...], use: StepUse) -> tuple[Wordings, ...]:
    """The lines that speak of no part of the body that the movement's own lines speak of already."""
    own = " ".join(line[0] for purpose in ("align", "stay") for line in lines_of(use, purpose)).lower()
    said = {part for part in PARTS if part in own}
    return tuple(line for line in lines if not any(part in line[0] for part in said)) or lines
