"""The command that makes a film of a class: of a camera's file, of figures alone, or what lies over one."""

import argparse
import os
import re
import sys
from collections.abc import Collection
from pathlib import Path
from typing import TYPE_CHECKING, get_args

import msgspec

from yewhour.cli.requested import teaching_data, timed_class
from yewhour.cli.terminal import may_write, progress, say, write_out
from yewhour.core.export.captions import captions
from yewhour.core.export.chapters import chapters
from yewhour.core.film.cut_files import CUT_FORMATS, read_cuts
from yewhour.core.film.cut_list import CutList, between
from yewhour.core.film.on_screen import Part
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import read_all
from yewhour.files.late import late
from yewhour.state import voices
from yewhour.state.takes.camera_film import CameraFilm, CameraSource, look_at_camera
from yewhour.state.takes.recording_kinds import CAMERAS
from yewhour.state.takes.take_sounds import CLASS, MARKS, has_sound, sounds_in
from yewhour.voice.film import copied_film, drawn_film, overlay_file
from yewhour.voice.film import cut_film as cutting
from yewhour.voice.film.film_file import FilmText, kind_of

if TYPE_CHECKING:
    from yewhour.ui.frame import app
    from yewhour.ui.kit.film import beside as besides
    from yewhour.ui.kit.film import class_film
    from yewhour.ui.kit.film import painter as painting
else:  # Qt; only what is painted needs it
    app = late("yewhour.ui.frame.app")
    besides = late("yewhour.ui.kit.film.beside")
    class_film = late("yewhour.ui.kit.film.class_film")
    painting = late("yewhour.ui.kit.film.painter")

NEAR_S = 0.5  # to the promise
SMALLEST, LARGEST = 160, 4096  # pixels


def film(options: argparse.Namespace) -> None:
    """A film, a list of its cuts, or what lies over it. Raises Problem for what can't be."""
    parts, size = parse_over(options.over), parse_size(options.size)
    if options.take is not None:
        _of_take(options)
    if options.class_file is None:
        options.class_file = options.recording
        _without_camera(options, parts, size or class_film.SIZE)
    else:
        _of_camera(options, parts, size or cutting.camera_size(options.recording))


def parse_over(said: str | None) -> tuple[Part, ...]:
    """The parts in a list with commas, `all` for each. Raises Problem for one there is not."""
    every: tuple[Part, ...] = get_args(Part)
    names = {name.strip() for name in (said or "").split(",") if name.strip()}
    for name in sorted(names - {*every, "all"}):
        raise Problem(f"{name!r} can't lie over the picture.", do=f"Use some of: {', '.join(every)}, all.")
    return every if "all" in names else tuple(part for part in every if part in names)


def parse_size(said: str | None) -> tuple[int, int] | None:
    """A size as 1280x720, in even numbers; None for none said. Raises Problem for one that is none."""
    if said is None:
        return None
    found = re.fullmatch(r"(\d{1,5})[x×](\d{1,5})", said.strip())
    sizes = tuple(int(one) for one in found.groups()) if found else ()
    if not all(SMALLEST <= one <= LARGEST and one % 2 == 0 for one in sizes) or not sizes:
        do = f"Write it as 1280x720: even numbers from {SMALLEST} to {LARGEST}."
        raise Problem(f"{said!r} is no size of a picture.", do=do)
    return sizes[0], sizes[1]


def _without_camera(options: argparse.Namespace, parts: Collection[Part], size: tuple[int, int]) -> None:
    if options.out is None:
        raise Problem("Where the film goes is not said.", str(options.recording), "Add --out class.mp4.")
    if options.recording.suffix.lower() in CAMERAS:
        raise Problem(
            "Which class this is a film of is not said.", str(options.recording), "Add --class FILE."
        )
    timed = timed_class(options)
    if options.alone:
        may_write(options.out, options.replace, options.recording)
        _alone(options, timed, parts, size)
        return
    _may_write(options, options.recording)
    kind_of(options.out)
    _painted()
    made = class_film.film_of_class(
        timed, options.out, voices.voice_named(options.voice), progress(), parts or class_film.USUAL, size
    )
    _told(options, timed, made)


def _painted() -> None:
    """From here on something can be painted, though nothing is shown."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    app.application()


def _painter(timed: TimedClass, size: tuple[int, int], parts: Collection[Part]) -> "painting.FilmPainter":
    _painted()
    return painting.FilmPainter(timed, *size, parts)


def _alone(
    options: argparse.Namespace, timed: TimedClass, parts: Collection[Part], size: tuple[int, int]
) -> None:
    """What lies over the picture, by itself and on nothing, at the seconds of the film."""
    painter = _painter(timed, size, parts or get_args(Part))
    count = overlay_file.write_overlay(options.out, painter, size, timed.length_s, drawn_film.FPS, progress())
    say(f"yewhour: {options.out}: {count} pictures, {drawn_film.FPS} a second", file=sys.stderr)


def _of_camera(options: argparse.Namespace, parts: Collection[Part], size: tuple[int, int]) -> None:
    camera = options.recording
    source = CameraSource(
        camera, options.class_file, options.captions, options.marks, options.sound, options.length
    )
    seen = look_at_camera(source, lambda: timed_class(options), teaching_data(), progress())
    if seen.told:
        say(f"yewhour: the beginning of the take was found {seen.told}.", file=sys.stderr)
    if seen.tracks:
        say(f"yewhour: {seen.tracks}", file=sys.stderr)
    cuts = seen.cuts() if options.cuts is None else _cuts_of_hers(options.cuts, seen)
    if options.quick:
        cuts = _quick(camera, cuts, parts)
    title = seen.timed.plan.brief.title
    if options.list:
        content = CUT_FORMATS[options.format].write(cuts, camera.name, title).encode()
        write_out(content, options.out, camera, replace=options.replace)
        return
    if options.out is None:
        raise Problem("Where the film goes is not said.", str(camera), "Add --out class.mp4, or --list.")
    there = seen.in_film(cuts)
    if options.alone:
        may_write(options.out, options.replace, camera)
        _alone(options, there, parts, size)
        return
    _may_write(options, camera, options.sound, options.captions)
    text = FilmText(title, chapters(there), captions(there))
    over = _painter(there, size, parts) if parts else None
    if options.quick:
        made = copied_film.copy_film(camera, options.out, cuts.pieces, text, progress(), seen.own_sound)
    else:
        made = copied_film.film_of(camera, options.out, cuts, text, over, progress(), seen.own_sound)
    _told(options, there, made, besides.Seen(camera, cuts.in_recording))
    over_s = cuts.film_s - cuts.promised_s
    if options.quick and over_s >= -NEAR_S:
        more = show_length(max(0.0, over_s), True)
        say(
            f"yewhour: {more} over the promise, for cuts to fall where a picture can be copied.",
            file=sys.stderr,
        )
    elif abs(over_s) > NEAR_S:
        said = show_length(cuts.promised_s, True)
        why = "nothing more of it is still without words" if over_s > 0 else "there is not enough quiet in it"
        say(f"yewhour: {said} were promised; {why}.", file=sys.stderr)


def _quick(camera: Path, cuts: CutList, parts: Collection[Part]) -> CutList:
    """Cuts whose edges fall where the picture can be copied. Raises Problem where something lies over it."""
    if parts:
        raise Problem("What is copied can have nothing over its picture.", do="Leave out --over, or --quick.")
    keys = copied_film.key_frames(camera)
    pieces = copied_film.on_key_frames(cuts.pieces, keys, cuts.length_s)
    return msgspec.structs.replace(cuts, cuts=tuple(between(pieces, cuts)), slower=())


def _cuts_of_hers(path: Path, seen: CameraFilm) -> CutList:
    """The cuts of a list that somebody wrote. Raises Problem."""
    try:
        return read_cuts(read_all(path), seen.length_s, seen.back.target_s)
    except Problem as problem:
        problem.where = f"{path}{', ' + problem.where if problem.where else ''}"
        raise


def _of_take(options: argparse.Namespace) -> None:
    """What lies in the folder of a take, where it is not named by itself. Raises Problem for no take."""
    folder = options.take
    if not (folder / CLASS).is_file():
        raise Problem("There is no take in this folder.", str(folder), "Name the folder of a take.")
    options.class_file = options.class_file or folder / CLASS
    options.marks = options.marks or folder / MARKS
    if options.sound is None and has_sound(folder):
        options.sound = sounds_in(folder)[0][1]


def parse_beside(said: str) -> tuple[str, ...]:
    """What goes with the film, in a list with commas. Raises Problem for what there is not."""
    names = tuple(name.strip() for name in said.split(",") if name.strip())
    for name in names:
        if name not in besides.BESIDE:
            do = f"Use some of: {', '.join(besides.BESIDE)}."
            raise Problem(f"{name!r} can't lie beside a film.", do=do)
    return names


def _may_write(options: argparse.Namespace, *sources: Path | None) -> None:
    """Raises Problem where the film, or what goes with it, would be written over something."""
    may_write(options.out, options.replace, *sources)
    for _, path in besides.places_beside(options.out, parse_beside(options.beside)):
        may_write(path, options.replace, *sources)


def _told(
    options: argparse.Namespace,
    timed: TimedClass,
    made: cutting.WrittenFilm,
    seen: "besides.Seen | None" = None,
) -> None:
    """What goes with the film, and what was made."""
    say(f"yewhour: {options.out}: {show_length(made.length_s, True)}, {made.frames} frames", file=sys.stderr)
    _painted()
    for path in besides.write_beside(timed, options.out, parse_beside(options.beside), seen):
        say(f"yewhour: {path}", file=sys.stderr)
