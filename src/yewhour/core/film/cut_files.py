"""A cut list in words, as data that can be changed and read again, and for other programs."""

from collections.abc import Callable, Sequence
from typing import NamedTuple

import msgspec

from yewhour.core.film.cut_list import TOLD, Cut, CutList, Reason, Slower, clear_of
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem

EDL_FPS = 25  # frames a second of an edit decision list
OTIO_RATE = 1000.0  # of the time values of a timeline
MOST_SLOWER = 10  # times its own length, that what is slower in a list of hers can be longer by
LONGEST_REEL = 8  # characters of a reel's name


class WrittenCut(msgspec.Struct, frozen=True):
    """A cut as it is written; `hers` where nobody says why."""

    start_s: float
    end_s: float
    why: Reason = "hers"


class WrittenCuts(msgspec.Struct, frozen=True):
    """What is read of a cut list; what follows from the cuts is made anew."""

    cuts: tuple[WrittenCut, ...]
    slower: tuple[Slower, ...] = ()


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
    rows += [
        f"{show_length(one.start_s, True):>9} to {show_length(one.end_s, True):>9}  {told_slower(one)}"
        for one in cuts.slower
    ]
    return "\n".join(rows) + "\n"


def told_slower(one: Slower) -> str:
    """What is slower, in words."""
    return f"{show_length(round(one.by_s, 1), True)} longer: the quiet of a rest, seen slower"


def data(cuts: CutList, recording: str, title: str) -> str:
    """The cuts as JSON; `cuts` and `slower` alone are read back, by `read_cuts`."""
    value = {
        "length_s": round(cuts.length_s, 3),
        "film_s": round(cuts.film_s, 3),
        "promised_s": cuts.promised_s,
        "cuts": [WrittenCut(round(one.start_s, 3), round(one.end_s, 3), one.why) for one in cuts.cuts],
        "slower": [Slower(*(round(one, 3) for one in msgspec.structs.astuple(slow))) for slow in cuts.slower],
        "pieces": [[round(start, 3), round(end, 3)] for start, end in cuts.pieces],
    }
    return msgspec.json.format(msgspec.json.encode(value), indent=2).decode() + "\n"


def read_cuts(content: bytes, length_s: float, promised_s: float) -> CutList:
    """The cuts of a recording so long, as somebody has written or changed them.

    Raises Problem for what is no cut list, for cuts that lie over each other or outside the recording, and
    for what can't be slower.
    """
    do = "Take the list of --list --format json, and change its cuts."
    try:
        written = msgspec.json.decode(content, type=WrittenCuts)
    except (msgspec.MsgspecError, UnicodeDecodeError, RecursionError) as error:
        raise Problem(f"This is no list of cuts: {error}.", do=do) from error
    found, before_s = list[Cut](), 0.0
    for number, one in enumerate(sorted(written.cuts, key=lambda one: one.start_s), 1):
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
    return CutList(length_s, tuple(found), promised_s, _read_slower(written.slower, found, length_s))


def _read_slower(written: Sequence[Slower], cuts: Sequence[Cut], length_s: float) -> tuple[Slower, ...]:
    """What is slower. Raises Problem for what is nothing, lies over something, or is shorter in the film."""
    before_s = 0.0
    for number, one in enumerate(sorted(written, key=lambda one: one.start_s), 1):
        where = f"slower {number}, {show_length(max(0.0, one.start_s), True)}"
        if not before_s - 1e-6 <= one.start_s < one.end_s <= length_s + 1e-6 or not clear_of([one], cuts):
            raise Problem(
                "What is slower has to lie in what is kept.",
                where,
                "Move it clear of the cuts, or leave it out.",
            )
        if not 0 < one.by_s <= MOST_SLOWER * (one.end_s - one.start_s):
            do = f"Its by_s is to be more than nothing, and no more than {MOST_SLOWER} times its length."
            raise Problem("So much longer it can't be.", where, do)
        before_s = one.end_s
    return clear_of(written, ())


def edl(cuts: CutList, recording: str, title: str) -> str:
    """An edit decision list (CMX 3600), at 25 frames a second."""
    reel = "".join(letter for letter in recording.upper() if letter.isalnum())[:LONGEST_REEL] or "CAMERA"
    rows, at = [f"TITLE: {_line(title)}", "FCM: NON-DROP FRAME", ""], 0.0
    for number, piece in enumerate(cuts.played, 1):
        source = [round(second * EDL_FPS) for second in (piece.start_s, piece.end_s)]
        there = [round(second * EDL_FPS) for second in (at, at + piece.long_s)]
        rows += [
            f"{number:03}  {reel:<8} AA/V  C        {' '.join(map(_frames, [*source, *there]))}",
            f"* FROM CLIP NAME: {_line(recording)}",
        ]
        if piece.slow != 1:
            rows.append(f"M2   {reel:<8} {EDL_FPS / piece.slow:05.1f}                {_frames(source[0])}")
        rows.append("")
        at += piece.long_s
    return "\n".join(rows)


def ffconcat(cuts: CutList, recording: str, title: str) -> str:
    """The list that FFmpeg's concat reads."""
    name = recording.replace("'", "'\\''")
    rows = ["ffconcat version 1.0"]
    for start_s, end_s in cuts.pieces:
        rows += [f"file '{name}'", f"inpoint {start_s:.3f}", f"outpoint {end_s:.3f}"]
    rows += [
        f"# {one.start_s:.3f} to {one.end_s:.3f}, {told_slower(one)}: no word for it here"
        for one in cuts.slower
    ]
    return "\n".join(rows) + "\n"


def labels(cuts: CutList, recording: str, title: str) -> str:
    """A label track over the recording: each cut with its reason."""
    named = [(one.start_s, one.end_s, f"cut: {TOLD[one.why]}") for one in cuts.cuts]
    named += [(one.start_s, one.end_s, told_slower(one)) for one in cuts.slower]
    return "".join(f"{start_s:.6f}\t{end_s:.6f}\t{words}\n" for start_s, end_s, words in sorted(named))


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
    for number, piece in enumerate(cuts.played, 1):
        slowed = [schema.LinearTimeWarp(time_scalar=1 / piece.slow)] if piece.slow != 1 else []
        track.append(
            schema.Clip(
                name=f"{title} {number}", source_range=span(piece.start_s, piece.end_s),
                media_reference=whole.clone(), effects=slowed,
            )
        )  # fmt: skip
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
