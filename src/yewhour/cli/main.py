"""The command line. Exit 0 done, 1 the class can't be what was asked, 2 bad usage or a file trouble, 130
stopped by Ctrl+C.

One short function a command, beside the options they share: a newcomer reads it from top to bottom.
"""

import argparse
import gc
import sys
import traceback
from pathlib import Path
from typing import TYPE_CHECKING

from yewhour import __version__
from yewhour.background import log
from yewhour.cli.requested import solved_class, teaching_data, timed_class
from yewhour.cli.terminal import say, write_json, write_out
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.lengths import parse_length, show_length
from yewhour.core.outline.writer import write_outline
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.problem import CannotFit, Problem, Refused
from yewhour.files import program
from yewhour.files.atomic_files import write_whole
from yewhour.files.late import late
from yewhour.render.formats import FORMATS
from yewhour.state.classes.any_class import read_class
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.paths import own_data

if TYPE_CHECKING:
    from yewhour.cli import draft_command, film_command, recording_commands
    from yewhour.core.edits import cuts, remedies
    from yewhour.core.export import contract
    from yewhour.render import script_pdf
    from yewhour.state import desktop_entry, listing
    from yewhour.state.classes.prewarm import Prewarm
else:  # what one command needs is not brought in for all
    draft_command = late("yewhour.cli.draft_command")
    film_command = late("yewhour.cli.film_command")
    recording_commands = late("yewhour.cli.recording_commands")
    contract = late("yewhour.core.export.contract")
    cuts = late("yewhour.core.edits.cuts")
    desktop_entry = late("yewhour.state.desktop_entry")
    listing = late("yewhour.state.listing")
    remedies = late("yewhour.core.edits.remedies")
    script_pdf = late("yewhour.render.script_pdf")

CANNOT, USAGE, STOPPED = 1, 2, 130
TOGETHER = {"cards": ("cards", "cards-picture")}  # what is written with what

REPLACED = "write over what is there already"


def main(arguments: list[str] | None = None, ahead: "Prewarm | None" = None) -> int:
    """Runs one command and returns its exit code. ahead: the class that it opens, begun already."""
    options = command_line().parse_args(arguments, argparse.Namespace(ahead=ahead))
    try:
        if getattr(options, "length", None) is not None:
            options.length = parse_length(options.length)
        return int(options.run(options) or 0)
    except (CannotFit, Refused) as problem:
        say(f"yewhour: {problem}", file=sys.stderr)
        return CANNOT
    except Problem as problem:
        say(f"yewhour: {problem}", file=sys.stderr)
        return USAGE
    except BrokenPipeError:
        sys.stderr.close()
        return 0
    except KeyboardInterrupt:
        say("\nyewhour: stopped", file=sys.stderr)
        return STOPPED
    except OSError as error:  # standard output is closed or its disk is full
        reason = (error.strerror or str(error)).lower()
        say(f"yewhour: this can't be written: {reason}. Choose another place, with --out.", file=sys.stderr)
        return USAGE
    except Exception as error:  # never with the exit code of a class that can't be what was asked
        traceback.print_exc()
        log.fault(f"yewhour {' '.join(map(str, arguments or sys.argv[1:]))[:60]}", error)
        do = f"`{program.command()} what-went-wrong` writes down what is known of it, to be sent."
        say(f"yewhour: this is a fault of the program. {do}", file=sys.stderr)
        return USAGE


def command_line() -> argparse.ArgumentParser:
    """Every command with its options."""
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
    export.add_argument("--replace", action="store_true", help=REPLACED)
    export.add_argument("--format", action="append", choices=FORMATS, help="may be given again; default: all")
    export.set_defaults(run=_export)

    script = commands.add_parser("script", help="write the script of a class")
    _file_and_length(script)
    script.add_argument("--format", choices=FORMATS, default="text", help="default: text")
    script.add_argument("--states", action="store_true", help="the state of the body at each moment, as JSON")
    script.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    script.add_argument("--replace", action="store_true", help=REPLACED)
    script.set_defaults(run=_script)

    shown = commands.add_parser("list", help="every movement, school, caution, block and demo class")
    shown.add_argument("--format", choices=("text", "json"), default="text")
    shown.set_defaults(run=_list)

    shelf = commands.add_parser("shelf", help="what goes out and what is to be recorded; what the weeks show")
    shelf.add_argument("--made-up", action="store_true", help="the shelf of Saltmarsh Row, not your own")
    shelf.add_argument("--find", metavar="WORDS", help="the classes that have these words instead")
    shelf.add_argument("--format", choices=("text", "ics", "csv", "pdf"), default="text")
    shelf.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    shelf.add_argument("--replace", action="store_true", help=REPLACED)
    shelf.set_defaults(run=lambda options: recording_commands.shelf(options))

    draft = commands.add_parser("draft", help="draft a whole class from its promise")
    draft.add_argument("promise", nargs="?", metavar="PROMISE", help="in words: 25-minute gentle hatha, hips")
    for name, about in (
        ("style", "see: list"), ("level", "beginners, gentle, mixed or experienced"), ("title", "its title"),
        ("for", "who it is for"), ("time", "morning, midday, evening or night"),
        ("focus", "areas, with commas"), ("cautions", "who may be there, with commas"),
        ("props", "what is at hand, with commas"),
        ("without", "movements and groups that are not wanted, with commas"),
    ):  # fmt: skip
        draft.add_argument(f"--{name}", metavar="WORDS", help=about, dest=f"asked_{name}")
    _length(draft)
    draft.add_argument("--seed", type=int, default=0, help="which of the many classes; default: 0")
    draft.add_argument("--why", action="store_true", help="also say why each movement is there")
    draft.add_argument(
        "--yes", action="store_true", help="take what was guessed without asking; never what asks back"
    )
    draft.add_argument("--format", choices=("outline", "json"), default="outline")
    draft.add_argument(
        "--series", action="store_true", help="a course: four weeks of three classes; --out is a folder"
    )
    draft.add_argument(
        "--shelf", action="store_true", help="with --series: put the course on the shelf as well"
    )
    draft.add_argument("--out", type=Path, metavar="PATH", help="NAME.yewhour, or NAME.txt for an outline")
    draft.add_argument("--replace", action="store_true", help=REPLACED)
    draft.set_defaults(run=lambda options: draft_command.draft(options))

    outline = commands.add_parser("outline", help="write a class as an outline, in plain text")
    outline.add_argument("class_file", type=Path, metavar="FILE")
    outline.add_argument("--out", type=Path, metavar="PATH")
    outline.add_argument("--replace", action="store_true", help=REPLACED)
    outline.set_defaults(run=_outline)

    convert = commands.add_parser("convert", help="make a class file of an outline")
    convert.add_argument("class_file", type=Path, metavar="OUTLINE")
    convert.add_argument("--out", type=Path, metavar="PATH", required=True, help="NAME.yewhour")
    convert.add_argument("--replace", action="store_true", help=REPLACED)
    convert.set_defaults(run=_convert)

    desktop = commands.add_parser("desktop", help="put an entry for Yew Hour into the desktop's menus")
    desktop.add_argument("--command", default=sys.argv[0], help="what starts it; default: this program")
    desktop.set_defaults(run=_desktop)

    take = commands.add_parser("take", help="what a class becomes with the marks of a take")
    _file_and_length(take)
    take.add_argument("--marks", type=Path, required=True, metavar="M", help="one mark a line (JSON Lines)")
    take.add_argument("--format", choices=("text", "json"), default="text")
    take.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    take.add_argument("--replace", action="store_true", help=REPLACED)
    take.set_defaults(run=lambda options: recording_commands.take(options))

    voice = commands.add_parser("voice", help="speak a class into a sound file, every line at its moment")
    voice.add_argument("class_file", type=Path, nargs="?", metavar="FILE", help="a class (.yewhour)")
    _length(voice)
    voice.add_argument("--out", type=Path, metavar="PATH", help="NAME.flac, wav, ogg, mp3 ...")
    voice.add_argument("--replace", action="store_true", help=REPLACED)
    voice.add_argument("--voice", default="en", metavar="NAME", help="default: en; joe, once installed")
    voice.add_argument("--install", action="store_true", help="fetch the neural voice, joe (121 MB)")
    voice.add_argument(
        "--with", dest="parts", default="lines", metavar="PARTS", help="lines,sides,counts,tones,breath,bells"
    )
    voice.set_defaults(run=lambda options: recording_commands.voice(options))

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
    back.add_argument("--replace", action="store_true", help=REPLACED)
    back.set_defaults(run=lambda options: recording_commands.look_back(options))

    film = commands.add_parser("film", help="the film of a class: the camera's file cut to it, or drawn")
    film.add_argument(
        "recording", type=Path, metavar="CAMERA", help="the camera's file; or a class, to be drawn and spoken"
    )
    film.add_argument("--class", dest="class_file", type=Path, metavar="FILE", help="the camera's class")
    _length(film)
    film.add_argument("--marks", type=Path, metavar="M", help="the marks of the take (JSON Lines)")
    film.add_argument("--captions", type=Path, metavar="C", help="its captions; else its sound is heard")
    film.add_argument("--sound", type=Path, metavar="S", help="sound recorded apart, to be heard instead")
    film.add_argument("--take", type=Path, metavar="FOLDER", help="its take: class, marks and sound")
    film.add_argument("--list", action="store_true", help="tell what would be cut, and make nothing")
    film.add_argument(
        "--format", choices=("text", "json", "otio", "edl", "ffconcat", "labels"), default="text",
        help="of the list",
    )  # fmt: skip
    film.add_argument("--cuts", type=Path, metavar="F", help="cut as this list says (--list --format json)")
    film.add_argument(
        "--over", metavar="PARTS", help="title,name,side,left,next,breath,figure,captions; or all"
    )
    film.add_argument("--alone", action="store_true", help="only what lies over it: .webm, .mov, or a folder")
    film.add_argument("--beside", default="captions", metavar="WHAT", help="captions,text,still,page")
    film.add_argument("--quick", action="store_true", help="copy the picture: cuts fall on key frames")
    film.add_argument("--size", metavar="WxH", help="of what is drawn; else 1280x720, or the camera's")
    film.add_argument("--voice", default="en", metavar="NAME", help="of a class without a camera")
    film.add_argument("--out", type=Path, metavar="PATH", help="NAME.mp4, mkv, webm; captions come beside it")
    film.add_argument("--replace", action="store_true", help=REPLACED)
    film.set_defaults(run=lambda options: film_command.film(options))

    bring = commands.add_parser("bring-in", help="make a draft of a class from a recording's captions")
    bring.add_argument("captions", type=Path, metavar="CAPTIONS", help="SubRip, WebVTT, or text with times")
    bring.add_argument("--out", type=Path, metavar="PATH", help="NAME.txt for an outline, NAME.yewhour")
    bring.add_argument("--replace", action="store_true", help=REPLACED)
    bring.set_defaults(run=lambda options: recording_commands.bring_in(options))

    wrong = commands.add_parser(
        "what-went-wrong", help="what is known of the last faults, to be read and sent"
    )
    wrong.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    wrong.add_argument("--replace", action="store_true", help=REPLACED)
    wrong.set_defaults(
        run=lambda options: write_out(log.report().encode(), options.out, replace=options.replace)
    )

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
    for path in desktop_entry.install(own_data().parent, str(Path(options.command).resolve())):
        say(path)


def _fit(options: argparse.Namespace) -> int:
    solved = solved_class(options.class_file, keep=True)
    length_s = options.length if options.length is not None else solved.promised_s
    if options.family:
        return _family(solved, options)
    try:
        given = cuts.with_given_pace(solved, length_s)
        timed = given.make(length_s)
    except CannotFit as problem:
        say(f"yewhour: {problem}", file=sys.stderr)
        for remedy in remedies.remedies(solved, length_s):
            say(f"yewhour:   {remedy.title}: {show_length(remedy.gives_s, True)}", file=sys.stderr)
        return CANNOT
    if options.format == "json":
        write_json(
            {
                "length_s": timed.length_s, "shortest_s": given.shortest_s, "preferred_s": given.preferred_s,
                "longest_s": given.longest_s, "cost": timed.choice.cost,
                "breaths_per_min": given.prepared.school.pace.breaths_per_min,
                "changes": remedies.changes(given, timed.choice),
            }
        )  # fmt: skip
        return 0
    say(f"{solved.plan.brief.title}: {show_length(timed.length_s, True)}")
    if given is not solved:
        say(f"pace given: {given.prepared.school.pace.breaths_per_min:.2f} breaths a minute")
    if options.explain:
        say(remedies.explain(given, timed.choice))
    else:
        say(
            f"shortest {show_length(solved.shortest_s, True)}   "
            f"preferred {show_length(solved.preferred_s, True)}   "
            f"longest {show_length(solved.longest_s, True)}"
        )
    for segment in timed.segments:
        side = "" if segment.side == "both" else segment.side
        say(f"{show_length(segment.start / 10, True):>9}  {segment.dose:>10}  {side:11}  {segment.name}")
    return 0


def _family(solved: "SolvedPlan", options: argparse.Namespace) -> int:
    code, found = 0, []
    for text in options.family.split(","):
        length_s = parse_length(text)
        say(f"yewhour: cutting to {show_length(length_s)}", file=sys.stderr)
        try:
            cut = cuts.cut(solved.plan, solved, length_s)
        except CannotFit as problem:
            say(f"yewhour: {problem}", file=sys.stderr)
            code = CANNOT
            continue
        found.append({"length_s": length_s, "left_out": cut.left_out})
        if options.format == "text":
            left = "; ".join(cut.left_out) or "nothing"
            say(f"{show_length(length_s)}  without: {left}")
    if options.format == "json":
        write_json(found)
    return code


def _check(options: argparse.Namespace) -> int:
    timed = timed_class(options)
    if options.format == "json":
        write_json(timed.findings)
        return 0
    names = {segment.id: segment for segment in timed.segments}
    for finding in timed.findings:
        segment = names.get(finding.segment)
        at = show_length(segment.start / 10) if segment else "-"
        say(f"{at:>7}  {finding.severity:5}  {finding.code}: {finding.message}")
        say(f"{'':16}{finding.fix}.{' [can be applied]' if options.explain and finding.edit else ''}")
    say(f"{len(timed.findings)} found" if timed.findings else "Nothing to say about it.")
    return 0


def _export(options: argparse.Namespace) -> None:
    if not options.to.is_dir():
        raise Problem("There is no such folder.", str(options.to), "Make it first, or name another.")
    stem = options.class_file.stem
    names = [one for name in options.format or FORMATS for one in TOGETHER.get(name, (name,))]
    paths = {name: options.to / f"{stem}{FORMATS[name].suffix}" for name in names}
    for path in paths.values():
        if path.exists() and path.samefile(options.class_file):
            do = "Write into another folder, or name the formats you want with --format."
            raise Problem("This is the class itself; it is not written over.", str(path), do)
        if path.exists() and not options.replace:
            do = "Write into another folder, or say --replace."
            raise Problem("This is there already; nothing was written.", str(path), do)
    timed = timed_class(options)
    for name, path in paths.items():
        say(f"yewhour: writing {FORMATS[name].about}", file=sys.stderr)
        write_whole(path, FORMATS[name].write(timed))
        say(path)
        if name == "pdf" and (message := script_pdf.unprintable_message(timed)):
            say(f"yewhour: {message}", file=sys.stderr)


def _script(options: argparse.Namespace) -> None:
    timed = timed_class(options)
    for one in timed.findings:
        if one.code == "stand-in":
            say(f"yewhour: {options.class_file}: {one.message}", sys.stderr)
    content = contract.states_json(timed) if options.states else FORMATS[options.format].write(timed)
    write_out(content, options.out, options.class_file, replace=options.replace)


def _outline(options: argparse.Namespace) -> None:
    words = teaching_data()
    write_out(
        write_outline(read_class(options.class_file, words), words.library, words.blocks).encode(),
        options.out,
        options.class_file,
        replace=options.replace,
    )


def _convert(options: argparse.Namespace) -> None:
    write_out(
        plan_bytes(read_class(options.class_file, teaching_data())),
        options.out,
        options.class_file,
        replace=options.replace,
    )


def _list(options: argparse.Namespace) -> None:
    found = listing.listing(teaching_data())
    if options.format == "json":
        write_json(found)
    else:
        say(listing.listing_text(found))
