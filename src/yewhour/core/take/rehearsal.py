"""What is gone through in a rehearsal: all of a class from a movement on, or only what needs it."""

from collections.abc import Collection, Iterable

from yewhour.core.lengths import ticks
from yewhour.core.take.take import Take
from yewhour.core.timing.layout import Segment

ONLY = {
    "all": "all of it",
    "sides": "only the changes of side",
    "reworded": "only what you reworded",
    "stumbled": "only where you stumbled",
}
AFTER = ticks(8.0)  # how long one stays after a change of side
BEFORE_LINE, AFTER_LINE = ticks(4.0), ticks(2.0)
Stretch = tuple[int, int]  # from one tick to another


def stretches(take: Take, only: str, stumbled: Collection[str] = ()) -> list[Stretch]:
    """The stretches of a class that are gone through, in order, none into another.

    only: of ONLY. stumbled: ids of segments. Empty where there is nothing of the kind.
    """
    return _joined(_stretches(take, only, stumbled))


def carried_along(stretches: Iterable[Stretch], before: Take, after: Take) -> list[Stretch]:
    """Stretches of a take where they are once it goes otherwise: as far into the same segments."""
    places = {segment.id: segment for segment in after.segments}

    def carried(tick: int) -> int:
        index = before.index_at(tick)
        if index is None:
            return tick + after.end - before.end
        was = before.segments[index]
        now = places.get(was.id)
        return tick if now is None else now.start + min(tick - was.start, now.length)

    moved = [(carried(start), carried(end)) for start, end in stretches]
    return [(start, end) for start, end in moved if end > start]


def _stretches(take: Take, only: str, stumbled: Collection[str]) -> Iterable[Stretch]:
    if only == "all":
        yield take.start, take.end
    elif only == "sides":
        for segment in take.segments:
            if segment.use.switch and segment.use.setup_for:
                yield segment.start, min(take.end, segment.end + AFTER)
    elif only == "reworded":
        for cue in take.cues:
            if cue.own:
                yield max(take.start, cue.start - BEFORE_LINE), min(take.end, cue.end + AFTER_LINE)
    else:
        for segment in take.segments:
            if segment.id in stumbled or segment.use.setup_for in stumbled:
                yield segment.start, segment.end


def _joined(found: Iterable[Stretch]) -> list[Stretch]:
    joined: list[Stretch] = []
    for start, end in sorted(found):
        if joined and start <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        else:
            joined.append((start, end))
    return joined


def beginnings(take: Take) -> list[Segment]:
    """The movements a rehearsal can begin with, each by the first segment of it: its way in, or itself."""
    found: list[Segment] = []
    last = ""
    for segment in take.segments:
        name = segment.use.setup_for or segment.use.key
        if name != last and not (segment.behaviour.is_phase and segment.use.round > 1):
            found.append(segment)
        last = name
    return found
