"""Chapters: for a video's description, for FFmpeg, for podcasts, and as labels for a sound editor."""

from typing import Any

import msgspec

from yewhour.core.lengths import seconds, show_length, ticks
from yewhour.core.timed_class import TimedClass

LEAST = ticks(10.0)  # shorter chapters are joined to the one before
FEWEST = 3


class Chapter(msgspec.Struct, frozen=True):
    """A titled stretch, in ticks."""

    title: str
    start: int
    end: int


def chapters(timed: TimedClass) -> list[Chapter]:
    """The sections as chapters from 0 to the end, each of 10 s or more.

    A class of fewer than three sections is parted at its movements, so that there are three where that
    can be.
    """
    found = _joined([(s.section, s.start) for s in timed.segments], timed.length)
    if len(found) < FEWEST:
        parted = _joined([(s.use.name, s.start) for s in timed.segments if not s.use.setup_for], timed.length)
        found = parted or found
    while len(found) < FEWEST and max(c.end - c.start for c in found) >= 2 * LEAST:
        found = _halved(found)
    return found


def _halved(found: list[Chapter]) -> list[Chapter]:
    """The longest chapter in two."""
    at = max(range(len(found)), key=lambda n: found[n].end - found[n].start)
    whole = found[at]
    middle = (whole.start + whole.end) // 2
    halves = [Chapter(whole.title, whole.start, middle), Chapter(f"{whole.title}, on", middle, whole.end)]
    return [*found[:at], *halves, *found[at + 1 :]]


def _joined(marks: list[tuple[str, int]], end: int) -> list[Chapter]:
    if not marks:
        return []
    starts: list[tuple[str, int]] = []
    for title, start in marks:
        if not starts or (title != starts[-1][0] and start - starts[-1][1] >= LEAST):
            starts.append((title, start))
    if len(starts) > 1 and end - starts[-1][1] < LEAST:
        starts.pop()
    ends = [start for _, start in starts[1:]] + [end]
    return [
        Chapter(title, 0 if number == 0 else start, stop)
        for number, ((title, start), stop) in enumerate(zip(starts, ends, strict=True))
    ]


def description_chapters(timed: TimedClass) -> str:
    """`0:00 Title` a line, as video descriptions have them; hours only where there are any."""
    return "".join(f"{show_length(seconds(c.start))} {_line(c.title)}\n" for c in chapters(timed))


def ffmetadata(timed: TimedClass) -> str:
    """FFmpeg's metadata file; read with `ffmpeg -i chapters.ffmeta ...`."""
    lines = [";FFMETADATA1", f"title={_escaped(timed.plan.brief.title)}"]
    for chapter in chapters(timed):
        lines += [
            "[CHAPTER]",
            "TIMEBASE=1/1000",
            f"START={chapter.start * 100}",
            f"END={chapter.end * 100}",
            f"title={_escaped(chapter.title)}",
        ]
    return "\n".join(lines) + "\n"


def podcast_chapters(timed: TimedClass) -> bytes:
    """JSON chapters, version 1.2.0."""
    document: dict[str, Any] = {
        "version": "1.2.0",
        "title": timed.plan.brief.title,
        "chapters": [
            {"startTime": seconds(c.start), "endTime": seconds(c.end), "title": c.title}
            for c in chapters(timed)
        ],
    }
    return msgspec.json.format(msgspec.json.encode(document), indent=1) + b"\n"


def labels(timed: TimedClass) -> str:
    """A label track: start, end and text, parted by tabs; one label a movement."""
    rows = []
    for segment in timed.segments:
        if not segment.use.setup_for:
            side = f" ({segment.side})" if segment.side in ("left", "right") else ""
            start, end = seconds(segment.start), seconds(segment.end)
            rows.append(f"{start:.6f}\t{end:.6f}\t{_line(segment.use.name)}{side}\n")
    return "".join(rows)


def _line(title: str) -> str:
    return " ".join(title.split())


def _escaped(text: str) -> str:
    for mark in "\\=;#":
        text = text.replace(mark, f"\\{mark}")
    return _line(text)
