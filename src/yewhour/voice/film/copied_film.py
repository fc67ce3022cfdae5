"""A film without encoding its picture anew: copied from key frame to key frame, the sound made even.

Quick, and as good as the camera's picture; but a cut can only fall where a picture stands for itself, so each
edge is moved outward to the next of those.
"""

import tempfile
from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av

from yewhour.core.film.cut_list import CutList, played
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.files.atomic_files import written_aside
from yewhour.voice.film.cut_film import OwnSound, WrittenFilm, cut_film
from yewhour.voice.film.cut_sound import Progress, cut_sound
from yewhour.voice.film.film_file import Beside, FilmText, StoredSound, cannot, kind_of
from yewhour.voice.film.laid_over import Over

COPIED = (".mp4", ".mkv", ".mov")
PLAYED = ("h264", "hevc")  # what a camera writes that everything plays
SAME_S = 0.005  # less than any frame


def key_frames(camera: Path) -> list[float]:
    """The seconds at which a picture of a camera's file stands for itself. Raises Problem."""
    try:
        with av.open(str(camera)) as file:
            if not file.streams.video:
                raise Problem("There is no picture in this file.", str(camera), "Name the camera's file.")
            stream = file.streams.video[0]
            return [
                float(packet.pts * packet.time_base)
                for packet in file.demux(stream)
                if packet.is_keyframe and packet.pts is not None
            ]
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, camera, "read", "Name the camera's file: a video.") from error


def on_key_frames(pieces: Sequence[Range], keys: Sequence[float], length_s: float) -> list[Range]:
    """The pieces that can be copied: each from the key frame at its start or before, to that at its end or
    after; those that touch then are one."""
    found: list[Range] = []
    for start_s, end_s in pieces:
        first = keys[max(0, bisect_right(keys, start_s + 1e-3) - 1)] if keys else 0.0
        last = bisect_left(keys, end_s - 1e-3)
        until_s = keys[last] if last < len(keys) else length_s
        if found and first <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], until_s))
        elif until_s > first:
            found.append((first, until_s))
    return found


def film_of(
    camera: Path,
    out: Path,
    cuts: CutList,
    text: FilmText,
    over: Over | None = None,
    progress: Progress = lambda share: None,
    own_sound: OwnSound | None = None,
) -> WrittenFilm:
    """Writes the film that cuts make, whole or not at all: copied where that is the same, and encoded anew
    where something lies over it or a cut does not fall on a key frame. Raises Problem where it can't be."""
    if over is None and not cuts.slower and _copied_is_the_same(camera, out, cuts):
        return copy_film(camera, out, cuts.pieces, text, progress, own_sound)
    return cut_film(camera, out, cuts.pieces, text, over, progress, own_sound, cuts.slower)


def _copied_is_the_same(camera: Path, out: Path, cuts: CutList) -> bool:
    if out.suffix.lower() not in COPIED or kind_of(out) != kind_of(Path(f"film{out.suffix}")):
        return False
    moved = on_key_frames(cuts.pieces, key_frames(camera), cuts.length_s)
    there = [at_s for piece in moved for at_s in piece]
    wanted = [at_s for piece in cuts.pieces for at_s in piece]
    if len(there) != len(wanted) or any(
        abs(one - other) > SAME_S for one, other in zip(there, wanted, strict=True)
    ):
        return False
    with av.open(str(camera)) as source:
        picture = source.streams.video[0]
        return picture.codec_context.name in PLAYED and not _lies(source, picture)


def copy_film(
    camera: Path,
    out: Path,
    pieces: Sequence[Range],
    text: FilmText,
    progress: Progress = lambda share: None,
    own_sound: OwnSound | None = None,
) -> WrittenFilm:
    """Writes pieces of a camera's file that begin and end on key frames, whole or not at all. Raises Problem
    where that can't be: for another kind of film, or a camera that was held on its side."""
    kind = kind_of(out)
    if kind != kind_of(Path(f"film{out.suffix}")):
        do = "Leave .av1 out of its name, or --quick."
        raise Problem("A picture that is copied stays as the camera's.", str(out), do)
    if out.suffix.lower() not in COPIED:
        raise Problem(f"A picture can't be copied into {out.suffix}.", str(out), "Name it .mp4 or .mkv.")
    long_s = sum(end - start for start, end in pieces)
    try:
        with tempfile.TemporaryFile() as kept, written_aside(out) as part, av.open(str(camera)) as source:
            picture = source.streams.video[0]
            if _lies(source, picture):
                raise Problem(
                    "This camera was held on its side, so its picture can't be copied.", str(camera),
                    "Leave --quick out.",
                )  # fmt: skip
            path, lies = own_sound if own_sound is not None else (camera, None)
            sound = StoredSound(
                cut_sound(path, played(pieces, ()), lies, lambda share: progress(0.5 * share)), kept
            )
            count = 0
            with av.open(str(part), "w", format=kind.format) as film:
                stream = film.add_stream_from_template(picture)
                beside = Beside(film, kind, sound, text)
                for at_s, packet in _copied(source, picture, pieces):
                    packet.stream = stream
                    film.mux(packet)
                    beside.until(at_s)
                    count += 1
                    progress(0.5 + 0.49 * min(1.0, at_s / long_s))
                beside.until(float("inf"))
            progress(1.0)
            return WrittenFilm(round(long_s, 3), count, round(sound.by_db, 2))
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, out, "written", "Choose another place, or leave --quick out.") from error


def _lies(source: Any, picture: Any) -> bool:
    """Whether the picture has to be turned to be seen upright."""
    frame = next(source.decode(picture), None)
    source.seek(0)
    return frame is not None and bool(frame.rotation % 360)


def _copied(source: Any, picture: Any, pieces: Sequence[Range]) -> Iterator[tuple[float, Any]]:
    """The packets of the pieces, moved to the film's seconds; each with its own."""
    before_s = 0.0
    for start_s, end_s in pieces:
        base: Fraction = picture.time_base
        source.seek(round(start_s / base), stream=picture)
        begin, end = round(start_s / base), round(end_s / base)
        by = round(before_s / base) - begin
        begun = False
        for packet in source.demux(picture):
            if packet.pts is None or packet.dts is None:
                continue
            if packet.is_keyframe and packet.pts >= end:
                break
            begun = begun or (packet.is_keyframe and packet.pts >= begin)
            if not begun or packet.pts < begin:
                continue
            packet.pts, packet.dts = packet.pts + by, packet.dts + by
            yield float(packet.pts * base), packet
        before_s += end_s - start_s
