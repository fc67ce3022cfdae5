"""A cut list in words, as data that can be changed and read again, and for other programs."""

from collections.abc import Callable
from typing import NamedTuple

import msgspec

from yewhour.core.film.cut_list import TOLD, Cut, CutList, Reason
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem

EDL_FPS = 25  # frames a second of an edit decision list
OTIO_RATE = 1000.0  # of the time values of a timeline
LONGEST_REEL = 8  # characters of a reel's name


class WrittenCut(msgspec.Struct, frozen=True):
    """A cut as it is written; `hers` where nobody says why."""

    start_s: float
    end_s: float
    why: Reason = "hers"


class WrittenCuts(msgspec.Struct, frozen=True):
    """What is read of a cut list; what follows from the cuts is made anew."""

    cuts: tuple[WrittenCut, ...]


class CutFormat(NamedTuple):
    """A way to write a cut list: what it is for, and the function that writes it of a named recording."""

    about: str
    write: Callable[[CutList, str, str], str]


def text(cuts: CutList, recording: str, title: str) -> str:
    """The cuts, to be read."""
    rows = [f"{show_length(cuts.length_s, True)} recorded, {show_length(cuts.film_s, True)} in the film."]
    rows += [
        f"{show_length(one.start_s, True):>9} to {show_length(one.end_s, True):>9}  cut: {TOLD[one.why]}"
        for one in cuts.cuts
    ]
    return "\n".join(rows) + "\n"


def data(cuts: CutList, recording: str, title: str) -> str:
    """The cuts as JSON; `cuts` alone is read back, by `read_cuts`."""
    value = {
        "length_s": round(cuts.length_s, 3),
        "film_s": round(cuts.film_s, 3),
        "promised_s": cuts.promised_s,
        "cuts": [WrittenCut(round(one.start_s, 3), round(one.end_s, 3), one.why) for one in cuts.cuts],
        "pieces": [[round(start, 3), round(end, 3)] for start, end in cuts.pieces],
    }
    return msgspec.json.format(msgspec.json.encode(value), indent=2).decode() + "\n"


def read_cuts(content: bytes, length_s: float, promised_s: float) -> CutList:
    """The cuts of a recording so long, as somebody has written or changed them.

    Raises Problem for what is no cut list, and for cuts that lie over each other or outside the recording.
    """
    do = "Take the list of --list --format json, and change its cuts."
    try:
        written = msgspec.json.decode(content, type=WrittenCuts).cuts
    except (msgspec.MsgspecError, UnicodeDecodeError, RecursionError) as error:
        raise Problem(f"This is no list of cuts: {error}.", do=do) from error
    found, before_s = list[Cut](), 0.0
    for number, one in enumerate(sorted(written, key=lambda one: one.start_s), 1):
        where = f"cut {number}, {show_length(max(0.0, one.start_s), True)}"
        if not 0 <= one.start_s < one.end_s:
            raise Problem("This cut ends before it begins.", where, "Its start_s is to be before its end_s.")
        if one.start_s > length_s:
            told = show_length(length_s, True)
            raise Problem(f"This cut lies outside the recording, which is {told} long.", where, do)
        if one.start_s < before_s - 1e-6:
            raise Problem("This cut lies over the one before.", where, "Make one of both.")
        before_s = min(length_s, one.end_s)
        found.append(Cut(one.start_s, before_s, one.why))
    return CutList(length_s, tuple(found), promised_s)


def edl(cuts: CutList, recording: str, title: str) -> str:
    """An edit decision list (CMX 3600), at 25 frames a second."""
    reel = "".join(letter for letter in recording.upper() if letter.isalnum())[:LONGEST_REEL] or "CAMERA"
    rows, at = [f"TITLE: {_line(title)}", "FCM: NON-DROP FRAME", ""], 0
    for number, (start_s, end_s) in enumerate(cuts.pieces, 1):
        start, end = round(start_s * EDL_FPS), round(end_s * EDL_FPS)
        times = " ".join(map(_frames, (start, end, at, at + end - start)))
        rows += [
            f"{number:03}  {reel:<8} AA/V  C        {times}",
            f"* FROM CLIP NAME: {_line(recording)}",
            "",
        ]
        at += end - start
    return "\n".join(rows)


def ffconcat(cuts: CutList, recording: str, title: str) -> str:
    """The list that FFmpeg's concat reads."""
    name = recording.replace("'", "'\\''")
    rows = ["ffconcat version 1.0"]
    for start_s, end_s in cuts.pieces:
        rows += [f"file '{name}'", f"inpoint {start_s:.3f}", f"outpoint {end_s:.3f}"]
    return "\n".join(rows) + "\n"


def labels(cuts: CutList, recording: str, title: str) -> str:
    """A label track over the recording: each cut with its reason."""
    return "".join(f"{one.start_s:.6f}\t{one.end_s:.6f}\tcut: {TOLD[one.why]}\n" for one in cuts.cuts)


def otio(cuts: CutList, recording: str, title: str) -> str:
    """An OpenTimelineIO timeline: the pieces of the recording one after another."""
    # 200 ms and a shared library; only a timeline needs it.
    import opentimelineio

    schema, opentime = opentimelineio.schema, opentimelineio.opentime

    def span(start_s: float, end_s: float) -> "opentimelineio.opentime.TimeRange":
        start, end = (round(at * OTIO_RATE) for at in (start_s, end_s))
        return opentime.TimeRange(
            opentime.RationalTime(start, OTIO_RATE), opentime.RationalTime(end - start, OTIO_RATE)
        )

    whole = schema.ExternalReference(target_url=recording, available_range=span(0.0, cuts.length_s))
    timeline = schema.Timeline(name=title)
    track = schema.Track(name="Film", kind=schema.TrackKind.Video)
    for number, (start_s, end_s) in enumerate(cuts.pieces, 1):
        track.append(
            schema.Clip(
                name=f"{title} {number}", source_range=span(start_s, end_s), media_reference=whole.clone()
            )
        )
    timeline.tracks.append(track)
    return str(timeline.to_json_string()) + "\n"


CUT_FORMATS: dict[str, CutFormat] = {
    "text": CutFormat("to be read", text),
    "json": CutFormat("to be changed and read again", data),
    "otio": CutFormat("OpenTimelineIO", otio),
    "edl": CutFormat("edit decision list (CMX 3600)", edl),
    "ffconcat": CutFormat("FFmpeg's concat list", ffconcat),
    "labels": CutFormat("label track for a sound editor", labels),
}


def _frames(count: int) -> str:
    whole, frames = divmod(count, EDL_FPS)
    return f"{whole // 3600:02}:{whole // 60 % 60:02}:{whole % 60:02}:{frames:02}"


def _line(words: str) -> str:
    return " ".join(words.split())
