"""What a film tells beside its picture at a moment: the movement and its side, what is left, what comes."""

from bisect import bisect_right
from typing import Literal

import msgspec

from yewhour.core.export.captions import Caption, captions
from yewhour.core.lengths import TICKS_PER_S, seconds, show_length
from yewhour.core.take.moment import Moment, class_moment
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

Part = Literal["side", "name", "left", "next", "breath", "figure", "title", "end", "captions", "fade"]
PARTS: dict[Part, str] = {
    "title": "the title, as it begins", "end": "thanks, as it ends",
    "name": "the movement, as it begins", "side": "the side, on its edge",
    "left": "what is left of it", "next": "what comes next", "breath": "the breath", "figure": "a figure",
    "captions": "the words", "fade": "out of the dark as it begins, and back as it ends",
}  # fmt: skip
TITLE_S = 5.0  # that the title stands
END_S = 6.0  # from the end, that thanks stand
NAME_S = 7.0  # that a name stands from where its movement begins
FADE_S = (0.8, 1.5)  # that the picture comes in, and that it goes
NEXT_S = 12.0  # before it, that the next movement is told
SIDES = ("left", "right")


class OnScreen(msgspec.Struct, frozen=True):
    """What there is to tell at a moment.

    shown: the movement that is on, or that the way goes to; None while she only talks. side: of what is on,
    or of the stroke that is on, "" for both. left: how much of it is left in words, "" on a way; share: the
    same, from 1 to 0. coming: the movement that comes next, in its last seconds, None otherwise. breath: how
    full the breath is, 0 to 1, None where nobody breathes by the class. caption: what is said. dark: how much
    of the picture is gone, 0 to 1, as it begins and as it ends.
    """

    moment: Moment
    title: bool
    end: bool
    named: bool
    shown: Segment | None
    side: str
    left: str
    share: float
    coming: Segment | None
    breath: float | None
    caption: str
    dark: float


class ScreenFacts:
    """What a class has to tell on a screen, moment by moment. alone: there is no picture under it, so that
    its title stands until there is something to see."""

    def __init__(self, timed: TimedClass, alone: bool = False) -> None:
        self.timed = timed
        self._captions: list[Caption] = captions(timed)
        begun = (seconds(one.start) for one in timed.segments if not one.behaviour.is_talk)
        self._titled_s = max(TITLE_S, next(begun, 0.0) if alone else 0.0)

    def at(self, at_s: float) -> OnScreen:
        """What there is to tell at a second of the class."""
        here = class_moment(self.timed, at_s * TICKS_PER_S)
        on = here.segment
        way = on is not None and bool(on.use.setup_for)
        shown = here.coming if way else on
        if shown is not None and shown.behaviour.is_talk:
            shown = None
        side = here.side if on is not None and not way else shown.side if shown is not None else ""
        left_s = here.left / TICKS_PER_S
        following = here.coming
        near = following is not None and not way and left_s <= NEXT_S
        return OnScreen(
            moment=here,
            title=at_s < self._titled_s,
            end=at_s >= max(self.timed.length_s - END_S, 2 * self._titled_s),
            named=shown is not None and self._since_s(here, shown) < NAME_S,
            shown=shown,
            side=side if side in SIDES and shown is not None else "",
            left="" if on is None or way or shown is None else left_words(here, on),
            share=0.0 if on is None or way or shown is None else here.left / max(1, on.length),
            coming=following if near and following is not None and not following.behaviour.is_talk else None,
            breath=None if shown is None else breath_of(here),
            caption=self._caption(round(at_s * 1000)),
            dark=max(0.0, 1 - at_s / FADE_S[0], 1 - (self.timed.length_s - at_s) / FADE_S[1]),
        )

    def _since_s(self, here: Moment, shown: Segment) -> float:
        """Seconds since the movement began, or since one was on the way to it."""
        if here.at >= shown.start:
            return seconds(round(here.at) - shown.start)
        return seconds(round(here.at) - (here.segment.start if here.segment is not None else 0))

    def _caption(self, at_ms: int) -> str:
        number = bisect_right(self._captions, at_ms, key=lambda one: one.start_ms) - 1
        if number < 0 or at_ms >= self._captions[number].end_ms:
            return ""
        return self._captions[number].text


def left_words(here: Moment, segment: Segment) -> str:
    """How much is left of a segment, as somebody on the mat counts it."""
    if here.of:
        unit = segment.behaviour.unit
        left = here.of - here.number + 1
        if segment.behaviour.lasts == "rhythm":
            return f"{left} more" if left > 1 else "the last"
        return f"{left} {unit if left != 1 else unit.rstrip('s')}"
    return show_length(seconds(round(here.left)))


def breath_of(here: Moment) -> float | None:
    """How full the breath is, 0 to 1, eased as a breath is; None outside one."""
    if here.span is None:
        return None
    eased = here.phase * here.phase * (3 - 2 * here.phase)
    return {"inhale": eased, "full": 1.0, "exhale": 1.0 - eased, "empty": 0.0}[here.span.phase]
