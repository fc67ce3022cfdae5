"""Twigs: a class as a handful of strokes, small enough to stand on a shelf."""

from collections.abc import Iterable

import msgspec

from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

Strokes = tuple[tuple[float, float, str, float], ...]


class Thumbnail(msgspec.Struct, frozen=True):
    """What a card shows of a class. strokes: (start, end, side, reach), all but the side from 0 to 1."""

    title: str
    length_s: float
    about: str
    strokes: Strokes


def reach_of(effort: int) -> float:
    """How far across a needle reaches, as a share of the room: by how intense the work is."""
    return min(1.0, 0.3 + 0.14 * effort)


def thumbnail_of(timed: TimedClass, about: str) -> Thumbnail:
    """The twig of a timed class."""
    return Thumbnail(
        timed.plan.brief.title, timed.length_s, about, strokes_of(timed.segments, 0, timed.length)
    )


def strokes_of(segments: Iterable[Segment], start: int, end: int) -> Strokes:
    """The strokes of segments between two ticks."""
    length = max(1, end - start)
    strokes = [
        (round((s.start - start) / length, 3), round((s.end - start) / length, 3),
         s.side if s.side in ("left", "right") else "both", round(reach_of(s.use.movement.effort), 2))
        for s in segments if not s.behaviour.bare
    ]  # fmt: skip
    return tuple(_merged(strokes))


def _merged(
    strokes: Iterable[tuple[float, float, str, float]],
) -> Iterable[tuple[float, float, str, float]]:
    """Strokes with those of a flow, which are thinner than can be seen, put together."""
    last: tuple[float, float, str, float] | None = None
    for one in strokes:
        if last is not None and one[2] == last[2] and one[0] - last[1] < 0.004 and one[1] - last[0] < 0.03:
            last = (last[0], one[1], last[2], max(last[3], one[3]))
            continue
        if last is not None:
            yield last
        last = one
    if last is not None:
        yield last
