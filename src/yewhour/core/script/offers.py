"""Choice: a gentler and a stronger way, offered as of equal worth, in one breath where there are both.

Never the stronger one where a caution is met or the level is gentle, and none that needs a prop nobody has.
"""

import re

from yewhour.core.library.movement import Option, Wordings
from yewhour.core.library.names import plain_name
from yewhour.core.plan.vocabulary import GENTLE_LEVELS
from yewhour.core.sides import fill
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.cautions import caution_lines
from yewhour.core.wording.phrasing import Phrasing, filled_line


def offer_wordings(phrasing: Phrasing, index: int, segment: Segment) -> Wordings:
    """The wordings that offer what a movement may be instead, or none."""
    use, movement, wording = segment.use, segment.use.movement, phrasing.wording
    met = phrasing.room.met(movement)
    gentler = movement.gentler if _possible(phrasing, use, movement.gentler) else None
    stronger = movement.stronger if _possible(phrasing, use, movement.stronger) else None
    if met or phrasing.brief.level in GENTLE_LEVELS:
        stronger = None
    if caution_lines(phrasing, use):  # it has offered the gentler way already
        gentler = None
    if gentler is None and stronger is None:
        return ()
    less = _lowered(filled_line(gentler.line, use)[0]) if gentler else ""
    more = _lowered(filled_line(stronger.line, use)[0]) if stronger else ""
    single = wording.option_gentler if gentler else wording.option_stronger
    one = fill(single[(index + phrasing.habit) % len(single)][0], "both", line=less or more)
    if not (less and more):
        return (one if not _says_if(less or more) else _raised(less or more),)
    both = wording.option_both[(index + phrasing.habit) % len(wording.option_both)][0]
    return fill(both, "both", less=less.rstrip("."), more=more), one


def _possible(phrasing: Phrasing, use: StepUse, option: Option | None) -> bool:
    """Whether a way is there, and needs nothing that is not."""
    if option is None or not phrasing.room.offers(option):
        return False
    there = {plain_name(prop).split()[-1] for prop in (*phrasing.brief.props, *use.movement.props)}
    named = {plain_name(prop).split()[-1] for prop in phrasing.props} & set(
        plain_name(option.line[0]).split()
    )
    return named <= there


def _says_if(line: str) -> bool:
    return bool(re.search(r"\b(if|is fine|enough|welcome|is just as good)\b", line))


def _lowered(line: str) -> str:
    return line[0].lower() + line[1:]


def _raised(line: str) -> str:
    return line[0].upper() + line[1:]
