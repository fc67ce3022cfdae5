"""The command line. Exit 0 done, 1 the class can't be what was asked, 2 bad usage or a file trouble, 130
stopped by Ctrl+C.

One short function a command, beside the options they share: a newcomer reads it from top to bottom.
"""

import argparse
import gc
import re
import sys
import traceback
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

import msgspec

from yewhour import __version__
from yewhour.core.edits import cuts, report
from yewhour.core.edits.cuts import with_given_pace
from yewhour.core.lengths import parse_length, show_length
from yewhour.core.made import Made
from yewhour.core.pipeline import Solved, solve
from yewhour.core.plan.known import unknown_fields
from yewhour.core.plan.outline_read import read_outline
from yewhour.core.plan.outline_write import write_outline
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.words import Words
from yewhour.store.anyclass import read_class
from yewhour.store.atomic import write_whole
from yewhour.store.classfile import plan_bytes
from yewhour.store.desktop import install
from yewhour.store.formats import FORMATS
from yewhour.store.listing import listing, listing_text
from yewhour.store.paths import FIRST_DEMO, own_data
from yewhour.store.stand import told_unprinted
from yewhour.store.takes import replayed
from yewhour.store.takesounds import CLASS, MARKS, sounds_in
from yewhour.store.terms import load_voice
from yewhour.store.words import load_words

if TYPE_CHECKING:
    from yewhour.store.ahead import Ahead

CANNOT, USAGE, STOPPED = 1, 2, 130
_STEERING = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f]")
_CONTROL = re.compile(rb"[\x00-\x08\x0b-\x1f\x7f]|\xc2[\x80-\x9f]")  # what would steer a terminal
# The names of store.formats, which is not imported before it is needed (a test compares them).
FORMAT_NAMES = (
    "text", "pdf", "markdown", "csv", "srt", "vtt", "chapters", "ffmetadata", "podcast", "labels",
    "description", "otio", "json",
)  # fmt: skip


def main(arguments: list[str] | None = None, ahead: "Ahead | None" = None) -> int:
    """Runs one command and returns its exit code. ahead: the class that it opens, begun already."""
    parser = _parser()
    options = parser.parse_args(arguments, argparse.Namespace(ahead=ahead))
    try:
        if getattr(options, "length", None) is not None:
            options.length = parse_length(options.length)
        return int(options.run(options) or 0)
    except CannotFit as problem:
        _say(f"yewhour: {problem}", file=sys.stderr)
        return CANNOT
    except Problem as problem:
        _say(f"yewhour: {problem}", file=sys.stderr)
        return USAGE
    except BrokenPipeError:
        sys.stderr.close()
        return 0
    except KeyboardInterrupt:
        _say("\nyewhour: stopped", file=sys.stderr)
        return STOPPED
    except OSError as error:  # standard output is closed or its disk is full
        reason = (error.strerror or str(error)).lower()
        _say(f"yewhour: this can't be written: {reason}. Choose another place, with --out.", file=sys.stderr)
        return USAGE
    except Exception:  # never with the exit code of a class that can't be what was asked
        traceback.print_exc()
        _say("yewhour: this is a fault of the program: please send what stands above", file=sys.stderr)
        return USAGE


def _say(text: object, file: TextIO | None = None) -> None:
    """A line on the terminal; what is in a file can't steer it."""
    print(_STEERING.sub("", str(text)), file=file or sys.stdout)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="yewhour", description="Fits a guided class to its promised length and writes its script."
    )
    parser.add_argument("--version", action="version", version=f"yewhour {__version__}")
    commands = parser.add_subparsers(title="commands", required=True, metavar="COMMAND")

    demo = commands.add_parser("demo", help="open the window on a demo class")
    demo.add_argument("class_file", nargs="?", metavar="FILE", help="another class to open")
    demo.set_defaults(run=_open, otherwise=FIRST_DEMO, made_up=True)
    opening = commands.add_parser("open", help="open the window on a class, or on the first page")
    opening.add_argument("class_file", nargs="?", metavar="FILE")
    opening.set_defaults(run=_open, otherwise=None, made_up=False)

    fit = commands.add_parser("fit", help="what a class becomes at a length")
    _file_and_length(fit)
    fit.add_argument(
        "--explain", action="store_true", help="what changed against the preferred, and what binds"
    )
    fit.add_argument("--family", metavar="M:SS,...", help="several cuts of the class, whole parts left out")
    fit.add_argument("--format", choices=("text", "json"), default="text")
    fit.set_defaults(run=_fit)

    check = commands.add_parser("check", help="what is noticed in a class, and what would mend it")
    _file_and_length(check)
    check.add_argument("--explain", action="store_true", help="also what could be edited to mend it")
    check.add_argument("--format", choices=("text", "json"), default="text")
    check.set_defaults(run=_check)

    export = commands.add_parser("export", help="write a class in every format, or in those named")
    _file_and_length(export)
    export.add_argument("--to", type=Path, required=True, metavar="FOLDER")
    export.add_argument("--replace", action="store_true", help="write over files that are there already")
    export.add_argument(
        "--format", action="append", choices=FORMAT_NAMES, help="may be given again; default: all"
    )
    export.set_defaults(run=_export)

    script = commands.add_parser("script", help="write the script of a class")
    _file_and_length(script)
    script.add_argument("--format", choices=FORMAT_NAMES, default="text", help="default: text")
    script.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    script.set_defaults(run=_script)

    listing = commands.add_parser("list", help="every movement, school, caution, block and demo class")
    listing.add_argument("--format", choices=("text", "json"), default="text")
    listing.set_defaults(run=_list)

    outline = commands.add_parser("outline", help="write a class as an outline, in plain text")
    outline.add_argument("class_file", type=Path, metavar="FILE")
    outline.add_argument("--out", type=Path, metavar="PATH")
    outline.set_defaults(run=_outline)

    convert = commands.add_parser("convert", help="make a class file of an outline")
    convert.add_argument("class_file", type=Path, metavar="OUTLINE")
    convert.add_argument("--out", type=Path, metavar="PATH", required=True, help="NAME.yewhour")
    convert.set_defaults(run=_convert)

    desktop = commands.add_parser("desktop", help="put an entry for Yew Hour into the desktop's menus")
    desktop.add_argument("--command", default=sys.argv[0], help="what starts it; default: this program")
    desktop.set_defaults(run=_desktop)

    take = commands.add_parser("take", help="what a class becomes with the marks of a take")
    _file_and_length(take)
    take.add_argument("--marks", type=Path, required=True, metavar="M", help="one mark a line (JSON Lines)")
    take.add_argument("--format", choices=("text", "json"), default="text")
    take.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    take.set_defaults(run=_take)

    voice = commands.add_parser("voice", help="speak a class into a sound file, every line at its moment")
    voice.add_argument("class_file", type=Path, nargs="?", metavar="FILE", help="a class (.yewhour)")
    _length(voice)
    voice.add_argument("--out", type=Path, metavar="PATH", help="NAME.flac, wav, ogg, mp3 ...")
    voice.add_argument("--voice", default="en", metavar="NAME", help="default: en; joe, once installed")
    voice.add_argument("--install", action="store_true", help="fetch the neural voice, joe (121 MB)")
    voice.add_argument(
        "--with", dest="parts", default="lines", metavar="PARTS", help="lines,sides,counts,tones,breath,bells"
    )
    voice.set_defaults(run=_voice)

    back = commands.add_parser("look-back", help="what really happened in a recording, beside its plan")
    back.add_argument(
        "class_file", type=Path, nargs="?", metavar="FILE", help="its class, or the folder of a take"
    )
    _length(back)
    back.add_argument("--marks", type=Path, metavar="M", help="the marks of the take (JSON Lines)")
    back.add_argument(
        "--captions", type=Path, metavar="C", help="SubRip, WebVTT, or text with times as [1:05]"
    )
    back.add_argument("--sound", type=Path, metavar="S", help="the recording: sound, or a video")
    back.add_argument("--format", choices=("text", "json"), default="text")
    back.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    back.add_argument("--to", type=Path, metavar="FOLDER", help="write captions, chapters ... as it was, too")
    back.add_argument("--replace", action="store_true", help="write over files that are there already")
    back.set_defaults(run=_look_back)

    bring = commands.add_parser("bring-in", help="make a draft of a class from a recording's captions")
    bring.add_argument("captions", type=Path, metavar="CAPTIONS", help="SubRip, WebVTT, or text with times")
    bring.add_argument("--out", type=Path, metavar="PATH", help="NAME.txt for an outline, NAME.yewhour")
    bring.set_defaults(run=_bring_in)

    commands.add_parser("help", help="show this").set_defaults(run=lambda _: parser.print_help())
    return parser


def _file_and_length(command: argparse.ArgumentParser) -> None:
    command.add_argument("class_file", type=Path, metavar="FILE", help="a class (.yewhour)")
    _length(command)


def _length(command: argparse.ArgumentParser) -> None:
    command.add_argument("--length", metavar="M:SS", help="as 24:00, 1:05:00 or 1440; default: its target")


def _open(options: argparse.Namespace) -> int:
    gc.disable()  # start-up makes much that stays and nothing to throw away; run() turns it on again
    path = Path(options.class_file) if options.class_file else options.otherwise
    # The command line works without Qt.
    from yewhour.ui.frame.app import run

    return run(path, options.ahead, options.made_up)


def _desktop(options: argparse.Namespace) -> None:
    for path in install(own_data().parent, str(Path(options.command).resolve())):
        _say(path)


def _words() -> "Words":
    words, problems = load_words()
    for problem in problems:
        _say(f"yewhour: {problem}", file=sys.stderr)
    return words


def _solved(path: Path, keep: bool = False) -> "Solved":
    words = _words()
    plan = read_class(path, words)
    for problem in unknown_fields(plan):
        _say(f"yewhour: {problem}", file=sys.stderr)
    try:
        return solve(plan, words, keep)
    except CannotFit:
        raise
    except Problem as problem:
        problem.where = f"{path}{', ' + problem.where if problem.where else ''}"
        raise


def _made(options: argparse.Namespace) -> "Made":
    """The class at the length asked for, its pace given where the brief lets it."""
    solved = _solved(options.class_file)
    length_s = options.length if options.length is not None else solved.promised_s
    return with_given_pace(solved, length_s).make(length_s)


def _fit(options: argparse.Namespace) -> int:
    solved = _solved(options.class_file, keep=True)
    length_s = options.length if options.length is not None else solved.promised_s
    if options.family:
        return _family(solved, options)
    try:
        given = cuts.with_given_pace(solved, length_s)
        made = given.make(length_s)
    except CannotFit as problem:
        _say(f"yewhour: {problem}", file=sys.stderr)
        for remedy in report.remedies(solved, length_s):
            _say(f"yewhour:   {remedy.title}: {show_length(remedy.gives_s, True)}", file=sys.stderr)
        return CANNOT
    if options.format == "json":
        _put_json(
            {
                "length_s": made.length_s, "shortest_s": given.shortest_s, "preferred_s": given.preferred_s,
                "longest_s": given.longest_s, "cost": made.choice.cost,
                "breaths_per_min": given.setting.school.pace.breaths_per_min,
                "changes": report.changes(given, made.choice),
            }
        )  # fmt: skip
        return 0
    _say(f"{solved.plan.brief.title}: {show_length(made.length_s, True)}")
    if given is not solved:
        _say(f"pace given: {given.setting.school.pace.breaths_per_min:.2f} breaths a minute")
    if options.explain:
        _say(report.explain(given, made.choice))
    else:
        _say(
            f"shortest {show_length(solved.shortest_s, True)}   "
            f"preferred {show_length(solved.preferred_s, True)}   "
            f"longest {show_length(solved.longest_s, True)}"
        )
    for segment in made.segments:
        side = "" if segment.side == "both" else segment.side
        _say(f"{show_length(segment.start / 10, True):>9}  {segment.dose:>10}  {side:11}  {segment.name}")
    return 0


def _family(solved: "Solved", options: argparse.Namespace) -> int:
    code, found = 0, []
    for text in options.family.split(","):
        length_s = parse_length(text)
        _say(f"yewhour: cutting to {show_length(length_s)}", file=sys.stderr)
        try:
            cut = cuts.cut(solved.plan, solved, length_s)
        except CannotFit as problem:
            _say(f"yewhour: {problem}", file=sys.stderr)
            code = CANNOT
            continue
        found.append({"length_s": length_s, "left_out": cut.left_out})
        if options.format == "text":
            left = "; ".join(cut.left_out) or "nothing"
            _say(f"{show_length(length_s)}  without: {left}")
    if options.format == "json":
        _put_json(found)
    return code


def _check(options: argparse.Namespace) -> int:
    made = _made(options)
    if options.format == "json":
        _put_json(made.findings)
        return 0
    names = {segment.id: segment for segment in made.segments}
    for finding in made.findings:
        segment = names.get(finding.segment)
        at = show_length(segment.start / 10) if segment else "-"
        _say(f"{at:>7}  {finding.severity:5}  {finding.code}: {finding.message}")
        _say(f"{'':16}{finding.fix}.{' [can be applied]' if options.explain and finding.edit else ''}")
    _say(f"{len(made.findings)} found" if made.findings else "Nothing to say about it.")
    return 0


def _export(options: argparse.Namespace) -> None:
    if not options.to.is_dir():
        raise Problem("There is no such folder.", str(options.to), "Make it first, or name another.")
    stem = options.class_file.stem
    paths = {name: options.to / f"{stem}{FORMATS[name].suffix}" for name in options.format or FORMATS}
    for path in paths.values():
        if path.exists() and path.samefile(options.class_file):
            do = "Write into another folder, or name the formats you want with --format."
            raise Problem("This is the class itself; it is not written over.", str(path), do)
        if path.exists() and not options.replace:
            do = "Write into another folder, or say --replace."
            raise Problem("This is there already; nothing was written.", str(path), do)
    made = _made(options)
    for name, path in paths.items():
        _say(f"yewhour: writing {FORMATS[name].about}", file=sys.stderr)
        write_whole(path, FORMATS[name].write(made))
        _say(path)
        if name == "pdf" and (told := told_unprinted(made)):
            _say(f"yewhour: {told}", file=sys.stderr)


def _put_json(value: object) -> None:
    _put(msgspec.json.format(msgspec.json.encode(value), indent=1) + b"\n", None)


def _script(options: argparse.Namespace) -> None:
    content = FORMATS[options.format].write(_made(options))
    _put(content, options.out, options.class_file)


def _put(content: bytes, out: Path | None, source: Path | None = None) -> None:
    """Writes to a path, whole or not at all, or to standard output; never over what it was made from."""
    if out and source and out.exists() and out.samefile(source):
        raise Problem("This is the class itself; it is not written over.", str(out), "Name another file.")
    if out:
        write_whole(out, content)
    elif sys.stdout is None:
        raise Problem("Standard output is closed.", do="Name a file, with --out.")
    else:
        sys.stdout.buffer.write(_CONTROL.sub(b"", content) if sys.stdout.isatty() else content)
        sys.stdout.flush()


def _outline(options: argparse.Namespace) -> None:
    words = _words()
    _put(
        write_outline(read_class(options.class_file, words), words.library).encode(),
        options.out,
        options.class_file,
    )


def _convert(options: argparse.Namespace) -> None:
    _put(plan_bytes(read_class(options.class_file, _words())), options.out, options.class_file)


def _take(options: argparse.Namespace) -> None:
    taken = replayed(options.class_file, options.marks, options.length, _words())
    for told in taken.told:
        _say(f"yewhour: {told}", file=sys.stderr)
    _put(taken.json if options.format == "json" else taken.text, options.out, options.class_file)


def _look_back(options: argparse.Namespace) -> None:
    # The words that are compared, and NumPy, which no other command needs.
    from yewhour.store.lookback import (
        Alone,
        Looked,
        Source,
        any_line,
        heard_in,
        looked_alone,
        looked_back,
        write_real,
    )

    path, marks = options.class_file, options.marks
    sounds: tuple[tuple[float, Path], ...] = ((0.0, options.sound),) if options.sound else ()
    if path is not None and path.is_dir():  # a take, as it is kept
        if not (path / CLASS).is_file():
            raise Problem("There is no take in this folder.", str(path), "Name a take's folder, or a class.")
        path, marks = path / CLASS, path / MARKS
        sounds = sounds or tuple(sounds_in(path.parent))
    source = Source(options.captions, sounds)
    if path is None and options.to is not None:
        raise Problem("Without its class nothing can be written as it was.", do="Name the class too.")
    if path is None and options.captions is None and not sounds:
        raise Problem("There is nothing to look back at.", do="Name a class, --captions or --sound.")
    words, made, take = _words(), None, None
    if path is not None and marks is not None:
        taken = replayed(path, marks, options.length, words)
        for told in taken.told:
            _say(f"yewhour: {told}", file=sys.stderr)
        made, take = taken.made, taken.take
    elif path is not None:
        made = _made(options)
    cues = take.cues if take is not None else made.cues if made is not None else any_line(words)
    hearing = heard_in(source, cues, _progress())
    if made is not None and (take is not None or hearing is not None):
        looked: Looked | Alone = looked_back(made, take, hearing)
        if options.to is not None and isinstance(looked, Looked):
            for written in write_real(looked, source, options.to, path.stem, options.replace):
                _say(written, file=sys.stderr)
    elif hearing is not None:
        looked = looked_alone(hearing, source.name)
    else:
        raise Problem("There is nothing to look back at.", do="Name --marks, --captions or --sound.")
    _put(looked.json if options.format == "json" else looked.text, options.out, path)


def _bring_in(options: argparse.Namespace) -> None:
    # The words that are compared, which no other command needs.
    from yewhour.store.lookback import brought_from, captions_in

    words = _words()
    hearing = captions_in(options.captions)
    for told in hearing.told:
        _say(f"yewhour: {told}", file=sys.stderr)
    brought = brought_from(hearing, words, options.captions.stem)
    content = brought.outline.encode()
    if options.out is not None and options.out.suffix.lower() == ".yewhour":
        content = plan_bytes(read_outline(brought.outline, words.library, str(options.out)))
    _put(content, options.out, options.captions)
    found, notes = len(brought.items), brought.notes
    _say(f"yewhour: {found} movements found, {notes} lines left as notes", file=sys.stderr)


def _progress() -> Callable[[float], None]:
    """Shows on a terminal how far something is."""
    shown = -1

    def progress(share: float) -> None:
        nonlocal shown
        percent = int(share * 100)
        if sys.stderr is not None and sys.stderr.isatty() and percent != shown:
            shown = percent
            print(f"\ryewhour: {percent} %", end="" if percent < 100 else "\n", file=sys.stderr, flush=True)

    return progress


def _voice(options: argparse.Namespace) -> None:
    # Codecs and NumPy, which no other command needs.
    from yewhour.store.voices import install_voice, voice_named
    from yewhour.voice.sound.speak import speak

    if options.install:
        install_voice(lambda text: _say(f"yewhour: {text}", file=sys.stderr))
        return
    if options.class_file is None or options.out is None:
        raise Problem(
            "A class and a file to speak it into are needed.", do="Say: voice FILE --out class.flac"
        )
    made = _made(options)
    if options.out.exists() and options.out.samefile(options.class_file):
        raise Problem("This is the class itself; it is not written over.", str(options.out), "Name another.")
    slower = {str(name): value for name, value in load_voice().slower.items()}
    told = speak(made, options.out, voice_named(options.voice), options.parts, slower, _progress())
    _say(told)


def _list(options: argparse.Namespace) -> None:
    found = listing(_words())
    if options.format == "json":
        _put_json(found)
    else:
        _say(listing_text(found))
