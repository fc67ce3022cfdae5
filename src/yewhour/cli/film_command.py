"""The command that makes a film of a class: what is kept of the camera's file, to the length promised."""

import argparse
import json
import sys

from yewhour.cli.requested import teaching_data, timed_class
from yewhour.cli.terminal import may_write, progress, say, write_out
from yewhour.core.export.chapters import chapters
from yewhour.core.film.class_in_film import class_in_film
from yewhour.core.film.cut_list import TOLD, CutList, cuts_of
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.review.actual_class import actual_class
from yewhour.core.review.film_time import of_the_recording
from yewhour.files.atomic_files import write_whole
from yewhour.render.formats import FORMATS
from yewhour.state.takes import recordings
from yewhour.state.takes.replayed_take import replay_take
from yewhour.voice.film.cut_film import camera_length_s, cut_film

LEAST_OF_IT = 0.7  # of the promised length, that a recording of the class has


def film(options: argparse.Namespace) -> None:
    """What is kept of a camera's file, told or made. Raises Problem for what can't be."""
    camera = options.recording
    length_s = camera_length_s(camera)
    words, take = teaching_data(), None
    if options.marks is not None:
        taken = replay_take(options.class_file, options.marks, options.length, words)
        timed, take = taken.timed, taken.take
    else:
        timed = timed_class(options)
    cues = of_the_recording(take.cues, take.cuts) if take is not None else list(timed.cues)
    source = recordings.RecordingSource(options.captions, () if options.captions else ((0.0, camera),))
    hearing = recordings.heard_in(source, cues, progress())
    back = recordings.review_recording(timed, take, hearing).back
    if back.stranger:
        raise Problem(
            f"Hardly a line of {timed.plan.brief.title} was heard in it: this seems to be another class.",
            str(camera), "Name its own class, and its captions.",
        )  # fmt: skip
    cuts = cuts_of(back, hearing, length_s)
    if cuts.film_s < LEAST_OF_IT * cuts.promised_s:
        found, whole = (show_length(round(one)) for one in (cuts.film_s, cuts.promised_s))
        raise Problem(
            f"Only {found} of {whole} lie in this recording: it ends early, or is of another class.",
            str(camera), "Name the whole recording, and its own class.",
        )  # fmt: skip
    if options.list:
        write_out(told_cuts(cuts, options.format == "json"), options.out, camera, replace=options.replace)
        return
    if options.out is None:
        raise Problem("Where the film goes is not said.", str(camera), "Add --out class.mp4, or --list.")
    captions = options.out.with_suffix(".vtt")
    may_write(options.out, options.replace, camera)
    may_write(captions, options.replace, options.captions)
    there = class_in_film(actual_class(back, True), back.cuts, cuts)
    made = cut_film(camera, options.out, cuts.pieces, timed.plan.brief.title, chapters(there), progress())
    write_whole(captions, FORMATS["vtt"].write(there))
    say(f"yewhour: {options.out}: {show_length(made.length_s, True)}, {made.frames} frames", file=sys.stderr)
    say(f"yewhour: {captions}: its captions", file=sys.stderr)
    if abs(cuts.film_s - cuts.promised_s) > 0.5:
        said = show_length(cuts.promised_s, True)
        say(f"yewhour: {said} were promised; nothing more of it is still without words.", file=sys.stderr)


def told_cuts(cuts: CutList, as_json: bool) -> bytes:
    """A cut list, to be read or for other programs."""
    if as_json:
        value = {
            "length_s": round(cuts.length_s, 3), "film_s": round(cuts.film_s, 3),
            "promised_s": cuts.promised_s,
            "cuts": [
                {"start_s": round(one.start_s, 3), "end_s": round(one.end_s, 3), "why": one.why}
                for one in cuts.cuts
            ],
            "pieces": [[round(start, 3), round(end, 3)] for start, end in cuts.pieces],
        }  # fmt: skip
        return (json.dumps(value, indent=2) + "\n").encode()
    rows = [f"{show_length(cuts.length_s, True)} recorded, {show_length(cuts.film_s, True)} in the film."]
    rows += [
        f"{show_length(one.start_s, True):>9} to {show_length(one.end_s, True):>9}  cut: {TOLD[one.why]}"
        for one in cuts.cuts
    ]
    return ("\n".join(rows) + "\n").encode()
