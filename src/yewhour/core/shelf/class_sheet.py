"""A sheet: what the shelf has to know of a timed class, so that it need not be made again to be found."""

from collections import defaultdict

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.library.position import base_of
from yewhour.core.shelf.thumbnail import (
    Strokes,
    Thumbnail,
    strokes_of,
)
from yewhour.core.timed_class import TimedClass

EFFORTS = 6  # from 0 to 5


class ClassSheet(msgspec.Struct, frozen=True, omit_defaults=True, gc=False):
    """A class in numbers, all of them seconds.

    works, opens: by area, each movement in full to every area it names. sides: right and left. effort: at
    each effort from 0 to 5. bases: by what the body rests on. movements: by id, in the order they come.
    """

    title: str
    style: str = ""
    level: str = ""
    audience: str = ""
    time_of_day: str = ""
    length_s: float = 0.0
    target_s: float = 0.0
    focus: tuple[str, ...] = ()
    props: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    works: dict[str, float] = {}
    opens: dict[str, float] = {}
    sides: tuple[float, float] = (0.0, 0.0)
    effort: tuple[float, ...] = ()
    bases: dict[str, float] = {}
    movements: dict[str, float] = {}
    strokes: Strokes = ()

    @property
    def kind(self) -> str:
        """Its style in words."""
        return self.style.replace("-", " ")

    @property
    def twig(self) -> Thumbnail:
        """What a card shows of it."""
        about = ", ".join(part for part in (self.kind, self.audience and f"for {self.audience}") if part)
        return Thumbnail(self.title, self.length_s, about, self.strokes)

    @property
    def strong(self) -> float:
        """The mean effort of what is done, from 0 to 5; 0 for nothing."""
        total_s = sum(self.effort)
        return sum(number * each_s for number, each_s in enumerate(self.effort)) / total_s if total_s else 0.0


def sheet_of(timed: TimedClass) -> ClassSheet:
    """The sheet of a timed class."""
    brief = timed.plan.brief
    works: dict[str, float] = defaultdict(float)
    opens: dict[str, float] = defaultdict(float)
    bases: dict[str, float] = defaultdict(float)
    movements: dict[str, float] = defaultdict(float)
    sides = {"right": 0.0, "left": 0.0}
    effort = [0.0] * EFFORTS
    for one in timed.segments:
        if one.behaviour.bare:
            continue
        movement, each_s = one.use.movement, seconds(one.length)
        for areas, found in ((movement.works, works), (movement.opens, opens)):
            for area in areas:
                found[area] += each_s
        if one.side in sides:
            sides[one.side] += each_s
        effort[min(EFFORTS - 1, max(0, movement.effort))] += each_s
        bases[base_of(one.use.end)] += each_s
        movements[movement.id] += each_s
    return ClassSheet(
        title=brief.title,
        style=brief.style,
        level=brief.level,
        audience=brief.audience,
        time_of_day=brief.time_of_day,
        length_s=timed.length_s,
        target_s=brief.target_s,
        focus=brief.focus,
        props=tuple(timed.props),
        cautions=brief.cautions,
        works=_rounded(works),
        opens=_rounded(opens),
        sides=(round(sides["right"], 1), round(sides["left"], 1)),
        effort=tuple(round(each_s, 1) for each_s in effort),
        bases=_rounded(bases),
        movements=_rounded(movements),
        strokes=strokes_of(timed.segments, 0, timed.length),
    )


def _rounded(found: dict[str, float]) -> dict[str, float]:
    return {name: round(each_s, 1) for name, each_s in found.items()}
