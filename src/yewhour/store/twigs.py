"""Twigs: a class as a handful of strokes, small enough for a card; those of the demo classes ship."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from pathlib import Path

import msgspec

from yewhour.core.made import Made
from yewhour.core.timing.layout import Segment
from yewhour.store.paths import DATA

FILE = DATA / "twigs.json"
BARE = ("talk", "setup", "stillness")


class Twig(msgspec.Struct, frozen=True):
    """What a card shows of a class. strokes: (start, end, side, reach), all but the side from 0 to 1."""

    title: str
    length_s: float
    about: str
    strokes: tuple[tuple[float, float, str, float], ...]


def reach_of(effort: int) -> float:
    """How far across a needle reaches, as a share of the room: by how intense the work is."""
    return min(1.0, 0.3 + 0.14 * effort)


def twig_of(made: Made, about: str) -> Twig:
    """The twig of a made class."""
    return Twig(made.plan.brief.title, made.length_s, about, strokes_of(made.segments, 0, made.length))


def strokes_of(
    segments: Iterable[Segment], start: int, end: int
) -> tuple[tuple[float, float, str, float], ...]:
    """The strokes of segments between two ticks."""
    length = max(1, end - start)
    strokes = [
        (round((s.start - start) / length, 3), round((s.end - start) / length, 3),
         s.side if s.side in ("left", "right") else "both", round(reach_of(s.turn.movement.effort), 2))
        for s in segments if s.kind not in BARE
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


@cache
def demo_twigs(path: Path = FILE) -> dict[str, Twig]:
    """The twigs of the demo classes, by the names of their files; none where they can't be read."""
    try:
        return msgspec.json.decode(path.read_bytes(), type=dict[str, Twig])
    except (OSError, msgspec.DecodeError):
        return {}
