"""How fast a class breathes, and how one breath divides into its phases."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Any, Literal, get_args

import msgspec

from yewhour.core.lengths import TICKS_PER_S, finite, shown_number
from yewhour.core.problem import Problem

Phase = Literal["inhale", "full", "exhale", "empty"]
PHASES: tuple[Phase, ...] = get_args(Phase)
SLOWEST, FASTEST = 1.0, 60.0
MOST_SHARE = 1000.0


class Pace(msgspec.Struct, frozen=True, omit_defaults=True):
    """Breaths a minute, and the shares of inhale, full hold, exhale and empty hold in one breath."""

    breaths_per_min: float = 8.0
    ratio: tuple[float, float, float, float] = (4.0, 0.0, 4.0, 0.0)
    extra: dict[str, Any] = {}  # fields of the file that we don't know, kept


def check_pace(pace: Pace, where: str = "") -> Pace:
    """The same pace; raises Problem when nobody could breathe it."""
    if not SLOWEST <= pace.breaths_per_min <= FASTEST:
        raise Problem(
            f"A pace of {pace.breaths_per_min:g} breaths a minute is not one.",
            where,
            f"Choose between {SLOWEST:g} and {FASTEST:g}; a calm class has 4 to 10.",
        )
    fit = all(0 <= share <= MOST_SHARE for share in pace.ratio)  # not a number is no share either
    if not fit or pace.ratio[0] <= 0 or pace.ratio[2] <= 0:
        raise Problem(
            "A breath needs an inhale and an exhale longer than zero, and no share over 1000.",
            where,
            "Write the ratio as 4:0:5:0.",
        )
    return pace


def breath_ticks(pace: Pace) -> int:
    """One breath, T = 60 / b, rounded to a whole tick of 0.1 s so that every sum is exact."""
    return round(60 * TICKS_PER_S / pace.breaths_per_min)


def phase_ticks(pace: Pace) -> tuple[int, int, int, int]:
    """The four phases of one breath in ticks; they sum to breath_ticks exactly."""
    return split(breath_ticks(pace), pace.ratio)


def split(total: int, shares: tuple[float, float, float, float]) -> tuple[int, int, int, int]:
    """A number of ticks divided by shares, by rounding the running sum."""
    whole, done, run, parts = sum(shares), 0, 0.0, []
    for share in shares:
        run += share
        edge = round(total * run / whole)
        parts.append(edge - done)
        done = edge
    return parts[0], parts[1], parts[2], parts[3]


def opposite(phase: Phase) -> Phase:
    """The other of inhale and exhale."""
    return "exhale" if phase == "inhale" else "inhale"


# In a rhythm, `effort` and `ease` are the exhale and the inhale of a school that breathes out on the
# effort, and the reverse in one that breathes in.
Beat = Literal["inhale", "full", "exhale", "empty", "effort", "ease"]
_BEAT = re.compile(r"(inhale|full|exhale|empty|effort|ease)\s+(\d+(?:\.\d+)?)")
Rhythm = tuple[tuple[Beat, float], ...]


def parse_rhythm(text: str) -> Rhythm:
    """`exhale 4 inhale 4` as ((phase, counts), ...); raises Problem when it can't be read."""
    beats = _BEAT.findall(text)
    if text.strip() and (not beats or _BEAT.sub("", text).strip(" ,")):
        raise Problem(
            f"The rhythm {text!r} can't be read.", do='Write it as "exhale 4 inhale 4" (phase, then counts).'
        )
    return tuple((phase, float(counts)) for phase, counts in beats)


def show_pace(pace: Pace) -> str:
    """`8` or `8/4:0:5:0`."""
    ratio = "" if pace.ratio == Pace().ratio else "/" + ":".join(map(shown_number, pace.ratio))
    return f"{shown_number(pace.breaths_per_min)}{ratio}"


def read_pace(text: str) -> Pace:
    """As show_pace writes it."""
    rate, _, ratio = text.partition("/")
    parts = [finite(part) for part in ratio.split(":")] if ratio else list(Pace().ratio)
    if len(parts) != 4:
        raise ValueError(text)
    return Pace(finite(rate), (parts[0], parts[1], parts[2], parts[3]))


def tapped_rate(taps_s: Sequence[float]) -> float:
    """Breaths a minute from the moments (seconds) at which inhales were tapped, to half a breath.

    The median of the intervals, so that one missed or doubled tap does no harm. Raises Problem for fewer
    than four taps, or taps that nobody could breathe.
    """
    gaps = sorted(later - earlier for earlier, later in pairwise(taps_s))
    if len(gaps) < 3:
        raise Problem("Too few taps to go by.", "pace", "Tap the start of each inhale at least four times.")
    middle = len(gaps) // 2
    gap_s = gaps[middle] if len(gaps) % 2 else (gaps[middle - 1] + gaps[middle]) / 2
    rate = round(2 * 60 / gap_s) / 2 if gap_s > 0 else 2 * FASTEST
    return check_pace(Pace(rate), "the taps").breaths_per_min
