"""Marks: what happened in a take, one a line, and when."""

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import Any, Literal, get_args

import msgspec

from yewhour.core.lengths import LONGEST_S
from yewhour.core.problem import Problem, told_kind

VERSION = 1
MarkKind = Literal["start", "next", "again", "fewer", "pause", "resume", "back", "skip", "note", "end"]
DOES: tuple[MarkKind, ...] = get_args(MarkKind)
CUTTING: tuple[MarkKind, ...] = ("resume", "back")  # what can cut out what was before it
LATEST_S = 6 * LONGEST_S  # a class of four hours with the machine asleep for a night


class Mark(msgspec.Struct, frozen=True, omit_defaults=True):
    """One thing that happened in a take, at seconds since its start.

    text: of a note. segment: for `skip`, what is left out instead of what is being done; for `fewer`, a
    stillness ahead that gives what the class runs over, under its least if need be. camera: "stopped" for a
    `pause`, or its `resume`, where the recording stood still too: what lies between them is in no clock. cut:
    for `resume` and `back`, the seconds of the recording that are cut out: the class goes on as it was at the
    first. On `start`: version, the title of the class, its key (see `state.takes`) and the length it is taken
    at in seconds.
    """

    at_s: float
    do: MarkKind
    text: str = ""
    segment: str = ""
    camera: Literal["", "stopped"] = ""
    cut: bool | tuple[float, float] = False
    version: int = VERSION
    title: str = ""
    key: str = ""
    length_s: float = 0.0


class MarkFile(msgspec.Struct, frozen=True):
    """The marks of a file in their order, and what was wrong with it that could be got over."""

    marks: tuple[Mark, ...]
    messages: tuple[str, ...] = ()


def later(marks: Sequence[Mark], by_s: float) -> tuple[Mark, ...]:
    """Marks so many seconds later, what they cut out too."""
    if not by_s:
        return tuple(marks)
    return tuple(
        msgspec.structs.replace(
            one,
            at_s=one.at_s + by_s,
            cut=(one.cut[0] + by_s, one.cut[1] + by_s) if isinstance(one.cut, tuple) else one.cut,
        )
        for one in marks
    )  # fmt: skip


def mark_line(mark: Mark) -> bytes:
    """A mark as its line."""
    return msgspec.json.encode(mark) + b"\n"


def read_marks(lines: Iterable[bytes], where: str = "") -> MarkFile:
    """The marks of a file, line by line.

    A line that was cut off is left out and told, and so is what comes before the start; marks out of
    order are put in order and told. Raises Problem for a line that is no mark, and for a newer version.
    """
    found: list[Mark] = []
    messages: list[str] = []
    written = [(number, line.strip()) for number, line in enumerate(lines, 1) if line.strip()]
    for number, line in written:
        place = f"{where}, line {number}" if where else f"line {number}"
        try:
            found.append(_read(line, place))
        except Problem:
            if not _cut_off(line):
                raise
            messages.append(f"{place}: this mark was cut off while it was written; it is left out.")
    if any(later.at_s < earlier.at_s for earlier, later in pairwise(found)):
        messages.append(
            f"{where or 'the marks'}: the marks are not in the order of time; they were put in order."
        )
        found.sort(key=lambda mark: mark.at_s)
    starts = [number for number, mark in enumerate(found) if mark.do == "start"]
    if starts and starts[0]:
        messages.append(
            f"{where or 'the marks'}: {starts[0]} marks come before the start; they are left out."
        )
        found = found[starts[0] :]
    if len(starts) > 1:
        raise Problem(
            "Two takes stand in one file.", where, "Keep the lines of one: each begins with a `start`."
        )
    return MarkFile(tuple(found), tuple(messages))


def _cut_off(line: bytes) -> bool:
    """Whether a line was written and not to its end; a word of it may end as a whole mark does."""
    if not line.startswith(b"{"):
        return False
    try:
        msgspec.json.decode(line)
    except msgspec.DecodeError as error:
        return not line.endswith(b"}") or "truncated" in str(error)
    except (UnicodeDecodeError, RecursionError):
        return not line.endswith(b"}")
    return False


def _read(line: bytes, place: str) -> Mark:
    try:
        raw: Any = msgspec.json.decode(line)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        raise Problem(
            f"This is no mark: {error}.", place, 'A mark is {"at_s": 312.4, "do": "again"}.'
        ) from None
    newer = raw.get("version") if isinstance(raw, dict) else None
    if isinstance(newer, int) and newer > VERSION:
        raise Problem("These marks are of a newer version of Yew Hour.", place, "Open them with that.")
    do = raw.get("do") if isinstance(raw, dict) else None
    if isinstance(do, str) and do not in DOES:
        raise Problem(f"A mark can't {do[:40]!r}.", place, f"It does one of: {', '.join(DOES)}.")
    try:
        mark = msgspec.convert(raw, Mark)
    except msgspec.ValidationError as error:
        raise Problem(told_kind(error) + ".", place, 'A mark is {"at_s": 312.4, "do": "again"}.') from None
    if not (math.isfinite(mark.at_s) and 0 <= mark.at_s <= LATEST_S):
        raise Problem(f"{mark.at_s:g} is no moment of a take.", place, "Give seconds since its start.")
    if mark.cut is True:  # as it was written once
        mark = msgspec.structs.replace(mark, camera="stopped" if mark.do == "pause" else "", cut=False)
    if isinstance(mark.cut, tuple):
        begun_s, ended_s = mark.cut
        if mark.do not in CUTTING or not 0 <= begun_s <= ended_s <= mark.at_s:
            example = '{"at_s": 90, "do": "resume", "cut": [61.5, 90]}'
            raise Problem("This is no cut.", place, f"A cut is {example}, on `back` too.")
    if not (math.isfinite(mark.length_s) and 0 <= mark.length_s <= LONGEST_S):
        raise Problem(f"{mark.length_s:g} is no length.", place, "Give seconds, up to four hours.")
    return mark
