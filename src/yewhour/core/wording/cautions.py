"""What is said to those who are cautioned for, after a movement is named."""

from collections.abc import Iterator, Sequence

from yewhour.core.conditions.room import Room
from yewhour.core.library.movement import Movement, Wordings
from yewhour.core.sides import fill
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.phrasing import Phrasing, lines_of


def spoken_for(room: Room, uses: Sequence[StepUse]) -> Iterator[tuple[str, bool]]:
    """(step, whether its caution was spoken for before) of every step that somebody is cautioned for."""
    met: set[str] = set()
    for use in uses:
        tag = next(iter(room.met(use.movement)), "")
        if tag and not use.second:
            yield use.step.id, tag in met
            met.add(tag)


def caution_lines(phrasing: Phrasing, use: StepUse, again: bool = False) -> tuple[Wordings, ...]:
    """What is said after a movement is named that somebody who may be in the room is cautioned for.

    Its caution line, or else the line of its gentler way, or what is to be kept in mind for them; nothing
    when nobody is. again: they have been spoken to before, and are so more briefly.
    """
    movement = use.movement
    met = phrasing.room.met(movement)
    if not met:
        return ()
    tag = met[0]
    gentler = movement.gentler if phrasing.room.offers(movement.gentler) else None
    lines = tuple(one for one in lines_of(use, "caution") if not phrasing.room.unwanted(one[0]))
    lines = lines or ((gentler.line,) if gentler else ())
    own = use.step.lines.get("caution") is not None
    if not own and tag in phrasing.watch and (not lines or _of_another(tag, lines[0][0], movement)):
        lines = () if again else ((phrasing.watch[tag],),)  # what holds for all that load it is said once
    frame = f"{to_whom(phrasing, use, tag, again)} {{line}}".lstrip()
    if gentler is not None and lines == (gentler.line,) and phrasing.room.theirs:
        frames = phrasing.wording.option_gentler  # they are everybody, and each chooses
        frame = frames[use.place % len(frames)][0]
    return tuple(tuple(_spoken_to(frame, text) for text in line) for line in lines)


def to_whom(phrasing: Phrasing, use: StepUse, tag: str, again: bool) -> str:
    """How those are spoken to that a line is for; in fewer words where they have been before, and "" in a
    class that is theirs by its title: everybody there is meant."""
    condition = phrasing.room.rules.conditions.get(tag)
    brief = phrasing.brief
    if condition is not None and brief.cautions == (tag,) and brief.title.endswith(f" for {condition.whom}"):
        return ""
    if (again or use.second) and condition is not None and condition.again:
        return f"{condition.again},"
    return f"For {phrasing.cautions.get(tag, tag)}:"


def _of_another(tag: str, line: str, movement: Movement) -> bool:
    """Whether a line speaks of the part of the body of another caution of its movement, not of this one's."""
    named = {one for one in movement.cautions if _part(one) in line.lower()}
    return bool(named) and tag not in named


def _part(tag: str) -> str:
    """The part of the body in a caution's tag: `knee` of knees, `back` of low-back."""
    return tag.split("-")[-1].rstrip("s")


def _spoken_to(frame: str, text: str) -> str:
    """The line said to those it is for, unless it says so itself."""
    if " if " in f" {text.lower()}" or text.startswith("{"):
        return text
    whole = frame == "{line}"
    return fill(frame, "both", line=text if whole else text[0].lower() + text[1:])
