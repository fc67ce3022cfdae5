"""Choice: a gentler and a stronger way, offered as of equal worth, in one breath where there are both.

Never the stronger one where a caution is met or the level is gentle, and none that needs a prop nobody has.
"""

import re

from yewhour.core.library.movement import Option, Wordings
from yewhour.core.library.names import plain_name
from yewhour.core.sides import fill
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.cautions import caution_lines
from yewhour.core.wording.phrasing import Phrasing, filled_line

GENTLE_LEVELS = ("gentle", "beginners")


def offer_wordings(manner: Phrasing, index: int, segment: Segment) -> Wordings:
    """The wordings that offer what a movement may be instead, or none."""
    turn, movement, wording = segment.turn, segment.turn.movement, manner.wording
    met = set(movement.cautions) & set(manner.brief.cautions)
    gentler = movement.gentler if _possible(manner, turn, movement.gentler) else None
    stronger = movement.stronger if _possible(manner, turn, movement.stronger) else None
    if met or manner.brief.level in GENTLE_LEVELS:
        stronger = None
    if caution_lines(manner, turn):  # it has offered the gentler way already
        gentler = None
    if gentler is None and stronger is None:
        return ()
    less = _lowered(filled_line(gentler.line, turn)[0]) if gentler else ""
    more = _lowered(filled_line(stronger.line, turn)[0]) if stronger else ""
    single = wording.option_gentler if gentler else wording.option_stronger
    one = fill(single[(index + manner.habit) % len(single)][0], "both", line=less or more)
    if not (less and more):
        return (one if not _says_if(less or more) else _raised(less or more),)
    both = wording.option_both[(index + manner.habit) % len(wording.option_both)][0]
    return fill(both, "both", less=less.rstrip("."), more=more), one


def _possible(manner: Phrasing, turn: StepUse, option: Option | None) -> bool:
    """Whether a way is there, and needs nothing that is not."""
    if option is None:
        return False
    there = {plain_name(prop).split()[-1] for prop in (*manner.brief.props, *turn.movement.props)}
    named = {plain_name(prop).split()[-1] for prop in manner.props} & set(plain_name(option.line[0]).split())
    return named <= there


def _says_if(line: str) -> bool:
    return bool(re.search(r"\b(if|is fine|enough|welcome|is just as good)\b", line))


def _lowered(line: str) -> str:
    return line[0].lower() + line[1:]


def _raised(line: str) -> str:
    return line[0].upper() + line[1:]
