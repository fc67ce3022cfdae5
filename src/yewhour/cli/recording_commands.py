"""The commands about what comes after a class: its take, its sound, a look back, and the shelf."""

import argparse
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from yewhour.cli.requested import teaching_data, timed_class
from yewhour.cli.terminal import may_write, progress, say, write_out
from yewhour.content.terms import load_voice
from yewhour.core.outline.reader import read_outline
from yewhour.core.problem import Problem
from yewhour.core.review.film_time import of_the_recording
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.files.late import late
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.paths import kept_shelf
from yewhour.state.takes.replayed_take import replay_take
from yewhour.state.takes.take_sounds import CLASS, MARKS, sounds_in

if TYPE_CHECKING:
    from yewhour.state import voices
    from yewhour.state.logbook import shelf_report as report
    from yewhour.state.takes import recordings
    from yewhour.voice.sound import speak_class as speaking
else:
    report = late("yewhour.state.logbook.shelf_report")  # SQLite
    speaking = late("yewhour.voice.sound.speak_class")  # likewise
    voices = late("yewhour.state.voices")  # codecs and NumPy
    recordings = late("yewhour.state.takes.recordings")  # the words that are compared, and NumPy


def take(options: argparse.Namespace) -> None:
    taken = replay_take(options.class_file, options.marks, options.length, teaching_data())
    for message in taken.messages:
        say(f"yewhour: {message}", file=sys.stderr)
    content = taken.json if options.format == "json" else taken.text
    write_out(content, options.out, options.class_file, options.marks, replace=options.replace)


def look_back(options: argparse.Namespace) -> None:
    path, marks = options.class_file, options.marks
    sounds: tuple[tuple[float, Path], ...] = ((0.0, options.sound),) if options.sound else ()
    if path is not None and path.is_dir():  # a take, as it is kept
        if not (path / CLASS).is_file():
            raise Problem("There is no take in this folder.", str(path), "Name a take's folder, or a class.")
        path, marks = path / CLASS, path / MARKS
        sounds = sounds or tuple(sounds_in(path.parent))
    source = recordings.RecordingSource(options.captions, sounds)
    if path is None and options.to is not None:
        raise Problem("Without its class nothing can be written as it was.", do="Name the class too.")
    if path is None and options.captions is None and not sounds:
        raise Problem("There is nothing to look back at.", do="Name a class, --captions or --sound.")
    sources = path, marks, options.captions, *(sound for _, sound in sounds)
    may_write(options.out, options.replace, *sources)  # before it is listened to
    words, timed, take = teaching_data(), None, None
    if path is not None and marks is not None:
        taken = replay_take(path, marks, options.length, words)
        for message in taken.messages:
            say(f"yewhour: {message}", file=sys.stderr)
        timed, take = taken.timed, taken.take
    elif path is not None:
        timed = timed_class(options)
    if take is not None:
        cues = of_the_recording(take.cues, take.cuts)
    else:
        cues = list(timed.cues) if timed is not None else recordings.any_line(words)
    hearing = recordings.heard_in(source, cues, progress())
    if timed is not None and (take is not None or hearing is not None):
        looked: recordings.ReviewedRecording | recordings.UnplannedRecording = recordings.told_whose(
            recordings.review_recording(timed, take, hearing), words, _shelved
        )
        if options.to is not None and isinstance(looked, recordings.ReviewedRecording):
            for written in recordings.write_real(looked, source, options.to, path.stem, options.replace):
                say(written, file=sys.stderr)
    elif hearing is not None:
        looked = recordings.review_unplanned(hearing, source.name)
    else:
        raise Problem("There is nothing to look back at.", do="Name --marks, --captions or --sound.")
    content = looked.json if options.format == "json" else looked.text
    write_out(content, options.out, *sources, replace=options.replace)


def _shelved() -> list[ClassSheet]:
    """The classes of her shelf, in numbers."""
    if not kept_shelf().is_dir():
        return []
    return [one.sheet for one in Logbook(kept_shelf()).shelf.classes.values()]


def bring_in(options: argparse.Namespace) -> None:
    may_write(options.out, options.replace, options.captions)  # before it is listened to
    words = teaching_data()
    hearing = recordings.captions_in(options.captions, options.length or 0.0)
    brought = recordings.brought_from(hearing, words, options.captions.stem)
    content = brought.outline.encode()
    if options.out is not None and options.out.suffix.lower() == ".yewhour":
        content = plan_bytes(read_outline(brought.outline, words.library, str(options.out)))
    write_out(content, options.out, options.captions, replace=options.replace)
    found, notes = len(brought.items), brought.notes
    say(f"yewhour: {found} movements found, {notes} lines left as notes", file=sys.stderr)
    if brought.told:
        say(f"yewhour: {brought.told}", file=sys.stderr)


def voice(options: argparse.Namespace) -> None:
    if options.install:
        voices.install_voice(lambda text: say(f"yewhour: {text}", file=sys.stderr))
        return
    if options.class_file is None or options.out is None:
        raise Problem(
            "A class and a file to speak it into are needed.", do="Say: voice FILE --out class.flac"
        )
    may_write(options.out, options.replace, options.class_file)
    timed = timed_class(options)
    slower = {str(name): value for name, value in load_voice().slower.items()}
    messages = speaking.speak_class(
        timed, options.out, voices.voice_named(options.voice), options.parts, slower, progress()
    )
    say(messages)


def shelf(options: argparse.Namespace) -> None:
    content = report.shelf_report(
        options.made_up,
        options.find,
        options.format,
        teaching_data(),
        lambda problem: say(problem, sys.stderr),
    )
    write_out(content, options.out, replace=options.replace)
