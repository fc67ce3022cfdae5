"""Lengths of time: ticks of a tenth of a second inside, `M:SS` or `H:MM:SS` outside."""

import math
import re

from yewhour.core.problem import Problem

TICKS_PER_S = 10
LONGEST_S = 4 * 3600  # beyond four hours a class is taken for a mistyped one


def ticks(seconds: float) -> int:
    """Seconds as whole ticks, nearest."""
    return round(seconds * TICKS_PER_S)


def seconds(count: int) -> float:
    """Ticks as seconds, exact to a tenth."""
    return round(count / TICKS_PER_S, 1)


def parse_length(text: str) -> float:
    """Seconds from `M:SS`, `H:MM:SS`, or seconds with or without an `s`; Problem for anything else."""
    said = re.sub(r"(?<=\d)\s?s$", "", text.strip())
    parts = said.split(":")
    written = all(re.fullmatch(r"\d+", part) for part in parts[:-1]) and re.fullmatch(
        r"\d+(\.\d+)?" if len(parts) == 1 else r"[0-5]?\d(\.\d+)?", parts[-1]
    )
    if not written or not 1 <= len(parts) <= 3 or (len(parts) == 3 and int(parts[1]) > 59):
        raise Problem(
            f"{text!r} is not a length.", do="Write it as 24:00, as 1:05:00, or in seconds, as 1440s."
        )
    total = 0.0
    for part in parts:
        total = total * 60 + float(part)
    if total <= 0:
        raise Problem(
            f"A class can't last {text.strip()!r}.", do="Ask for a length longer than zero, as 24:00."
        )
    if total > LONGEST_S:
        raise Problem(f"{text.strip()!r} is longer than four hours.", do="Ask for a length up to 4:00:00.")
    return total


def show_length(total_s: float, tenths: bool = False) -> str:
    """`M:SS`, or `H:MM:SS` from an hour on; with tenths, `M:SS.t`."""
    count = ticks(total_s)
    whole, tenth = divmod(count, TICKS_PER_S) if tenths else (round(count / TICKS_PER_S), 0)
    minutes, secs = divmod(whole, 60)
    text = f"{minutes // 60}:{minutes % 60:02}:{secs:02}" if minutes >= 60 else f"{minutes}:{secs:02}"
    return f"{text}.{tenth}" if tenths else text


NUMBERS = (
    "no",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
)


def said_length(total_s: float) -> str:
    """A length as somebody says it: `20 seconds`, `a minute`, `two and a half minutes`, `seven minutes`."""
    total_s = abs(total_s)
    if total_s < 52:
        count = max(1, round(total_s))
        return "a second" if count == 1 else f"{count} seconds"
    if total_s < 75:
        return "a minute"
    halves = round(total_s / 30)
    if halves == 3:
        return "a minute and a half"
    whole, half = divmod(halves if total_s < 270 else round(total_s / 60) * 2, 2)
    name = NUMBERS[whole] if whole < len(NUMBERS) else str(whole)
    return f"{name} and a half minutes" if half else f"{name} minutes"


def shown_number(value: float) -> str:
    """A number as it is written: `4`, `4.5`."""
    short = f"{value + 0.0:g}"  # nothing is nothing, below or above
    return f"{value:.12f}".rstrip("0").rstrip(".") if "e" in short else short


def finite(text: str) -> float:
    """A written number. Raises ValueError for one that is none, or without end."""
    number = float(text)
    if not math.isfinite(number):
        raise ValueError(text)
    return number
