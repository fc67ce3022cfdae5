"""Captions, through pysubs2: lines of at most 42 characters, two to a caption, split at clauses."""

import math
import re
from collections.abc import Callable
from itertools import zip_longest
from typing import Any

import msgspec

from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass

WIDTH = 42
LINES = 2
READ_PER_S = 20  # characters a second a viewer can read
SHORT = 18  # characters; the last part of a line is no shorter
LEAST_MS = 800  # a caption is on screen at least so long
EARLY_MS = 1000  # a caption may start this long before its line
_PAUSE = re.compile(r"\[\d+(?:\.\d+)?s\]")
_CLAUSE = re.compile(r"(?<=[,;:.!?])\s+")


class Caption(msgspec.Struct, frozen=True):
    """Words on the screen, in one line or two, in milliseconds."""

    start_ms: int
    end_ms: int
    text: str


def srt(timed: TimedClass) -> str:
    """SubRip. It has no way to write its own signs, so that others stand for them."""
    return str(_file(timed, lambda text: text.replace("<", "‹").replace(">", "›")).to_string("srt"))


def vtt(timed: TimedClass) -> str:
    """WebVTT, which writes its own signs as HTML does."""
    return str(_file(timed, _escaped).to_string("vtt"))


def _escaped(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def captions(timed: TimedClass) -> list[Caption]:
    """What is said, in captions one after another; none lies over the next."""
    found, free = list[Caption](), 0
    spoken = [cue for cue in timed.cues if _spoken(cue.text)]
    for cue, following in zip_longest(spoken, spoken[1:]):
        # A caption may stay a little after its line, to be read, but not into the next one.
        limit = following.start if following else timed.length
        for part in _parts(cue, limit, free):
            found.append(part)
            free = part.end_ms
    return found


def _file(timed: TimedClass, written: Callable[[str], str]) -> Any:
    # 40 ms; only files of captions need it.
    import pysubs2

    file = pysubs2.SSAFile()
    file.events = [
        pysubs2.SSAEvent(start=one.start_ms, end=one.end_ms, text=written(one.text).replace("\n", "\\N"))
        for one in captions(timed)
    ]
    return file


def _parts(cue: Cue, limit: int, free: int) -> list[Caption]:
    """The captions of one cue; a long line is parted, its time by characters.

    Where somebody speaks faster than a viewer reads, a caption starts up to a second before its line, and
    runs over its end rather than faster than can be read. free: ms where the caption before ends.
    """
    pieces = _pieces(cue.text)
    start, whole = max(cue.start * 100, free), sum(map(len, pieces))
    needed = max(LEAST_MS, math.ceil(whole * 1000 / READ_PER_S))
    total = max(cue.end * 100 - start, min(needed, limit * 100 - start))
    if total < needed:
        start = max(free, start - min(EARLY_MS, needed - total))
        total = needed
    parts = []
    done = 0
    for piece in pieces:
        end = start + total * (done + len(piece)) // max(1, whole)
        parts.append(Caption(start + total * done // max(1, whole), end, _two_lines(piece)))
        done += len(piece)
    return parts


def _pieces(text: str) -> list[str]:
    """The text in pieces that fit two lines, parted at clauses where that is possible."""
    pieces = [""]
    for clause in _CLAUSE.split(_spoken(text)):
        for word in [clause] if len(clause) <= WIDTH * LINES - 4 else clause.split():
            joined = f"{pieces[-1]} {word}".strip()
            if pieces[-1] and _wrapped(joined) is None:
                pieces.append(word)
            else:
                pieces[-1] = joined
    while len(pieces) > 1 and len(pieces[-1]) < SHORT and " " in pieces[-2]:
        pieces[-2], _, word = pieces[-2].rpartition(" ")  # a word or two alone would be gone at once
        pieces[-1] = f"{word} {pieces[-1]}"
    return pieces


def _spoken(text: str) -> str:
    """What is said of a line, without pauses, on one line; a backslash would be a sign of the format's."""
    return " ".join(_PAUSE.sub(" ", text).replace("\\", "/").split())


def _wrapped(text: str) -> list[str] | None:
    """The text in at most two lines of at most 42 characters, as even as can be; None if it is too long."""
    if len(text) <= WIDTH:
        return [text]
    breaks = [match.start() for match in re.finditer(" ", text)]
    fitting = [at for at in breaks if at <= WIDTH and len(text) - at - 1 <= WIDTH]
    if not fitting:
        return None
    clause = [at for at in fitting if text[at - 1] in ",;:.!?"]
    at = min(clause or fitting, key=lambda one: abs(2 * one - len(text)))
    return [text[:at], text[at + 1 :]]


def _two_lines(text: str) -> str:
    lines = _wrapped(text) or [text[:WIDTH], text[WIDTH : WIDTH * LINES]]
    return "\n".join(line.replace("{", "(").replace("}", ")") for line in lines)
