"""A class that stands still: how long, what going on would do, and from where it would go on."""

from __future__ import annotations

import time
from typing import Literal

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.take.cutting import BackTo, places_to_go_back, recorded
from yewhour.core.take.take import Take

CUT_AFTER_S = 10.0  # what stood still longer is cut out, unless she says otherwise
GoingOn = Literal["usual", "cut", "film", "camera"]
FROM = {"line": "the start of this line", "side": "the start of this side", "movement": "the way into it"}


def awake_and_asleep() -> float:
    """Seconds on a clock that goes on while the machine sleeps, as a camera's does."""
    return time.clock_gettime(time.CLOCK_BOOTTIME)


def asleep() -> float:
    """Seconds that the machine has slept since it was started; a stall of it is none."""
    return time.clock_gettime(time.CLOCK_BOOTTIME) - time.clock_gettime(time.CLOCK_MONOTONIC)


class Interruption:
    """One time of standing still. The places it could be gone on from are those of the moment it began."""

    def __init__(self, take: Take) -> None:
        at = take.paused if take.paused is not None else take.now
        self.since_s = (at + take.out) / TICKS_PER_S
        self.places = places_to_go_back(take, at)
        self._at, self._take, self._number = at, take, 0

    def lasts_s(self, now_s: float) -> float:
        """Seconds it has stood still."""
        return max(0.0, now_s - self.since_s)

    def cuts(self, now_s: float, how: GoingOn = "usual") -> bool:
        """Whether going on cuts it out."""
        return how == "cut" or (how == "usual" and self.lasts_s(now_s) >= CUT_AFTER_S)

    @property
    def place(self) -> BackTo | None:
        """Where it is gone on from when it is cut out; None for where it stands."""
        return self.places[self._number] if self.places else None

    def elsewhere(self, by: int) -> None:
        """From further back, or nearer."""
        self._number = min(max(0, self._number + by), max(0, len(self.places) - 1))

    @property
    def from_s(self) -> float:
        """The second of the recording at which a cut begins."""
        return recorded(self._take, self.place.at if self.place is not None else self._at)

    def place_words(self) -> str:
        """Where it goes on from, in words."""
        place = self.place
        if place is None:
            return "where it stands"
        side = f", {place.side}" if place.side in ("left", "right") else ""
        return f"{FROM[place.what]}: {place.name}{side}"

    def words(self, now_s: float) -> tuple[str, str]:
        """What Space does, and what else there is."""
        long = show_length(int(self.lasts_s(now_s)))  # as the large figures count
        if self.cuts(now_s):
            one = f"Space: cut {long} out, and go on from {self.place_words()}."
            other = "F: it stays in the film.   S: the camera stood still too."
        else:
            one = f"Space: go on; {long} stay in the film, and the rest gives them."
            other = f"C: cut it out, from {self.place_words()}.   S: the camera stood still too."
        return one, f"{other}   ↑ ↓ from where."
