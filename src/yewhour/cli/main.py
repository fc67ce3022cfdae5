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
from yewhour.cli.recording_options import REPLACED, add_recording_commands, file_and_length, length_option
from yewhour.cli.terminal import CANNOT, say, write_out
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.lengths import parse_length
from yewhour.core.problem import CannotFit, Problem, Refused
from yewhour.files import program
from yewhour.files.late import late
from yewhour.render.formats import FORMATS
from yewhour.state.paths import own_data

if TYPE_CHECKING:
    from yewhour.cli import class_commands, draft_command, recording_commands
    from yewhour.state import desktop_entry
    from yewhour.state.classes.prewarm import Prewarm
else:  # what one command needs is not brought in for all
    class_commands = late("yewhour.cli.class_commands")
    draft_command = late("yewhour.cli.draft_command")
    recording_commands = late("yewhour.cli.recording_commands")
    desktop_entry = late("yewhour.state.desktop_entry")

USAGE, STOPPED = 2, 130


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
    file_and_length(fit)
    fit.add_argument(
        "--explain", action="store_true", help="what changed against the preferred, and what binds"
    )
    fit.add_argument("--family", metavar="M:SS,...", help="several cuts of the class, whole parts left out")
    fit.add_argument("--format", choices=("text", "json"), default="text")
    fit.set_defaults(run=lambda options: class_commands.fit(options))

    check = commands.add_parser("check", help="what is noticed in a class, and what would mend it")
    file_and_length(check)
    check.add_argument("--explain", action="store_true", help="also what could be edited to mend it")
    check.add_argument("--format", choices=("text", "json"), default="text")
    check.set_defaults(run=lambda options: class_commands.check(options))

    export = commands.add_parser("export", help="write a class in every format, or in those named")
    file_and_length(export)
    export.add_argument("--to", type=Path, required=True, metavar="FOLDER")
    export.add_argument("--replace", action="store_true", help=REPLACED)
    export.add_argument("--format", action="append", choices=FORMATS, help="may be given again; default: all")
    export.set_defaults(run=lambda options: class_commands.export(options))

    script = commands.add_parser("script", help="write the script of a class")
    file_and_length(script)
    script.add_argument("--format", choices=FORMATS, default="text", help="default: text")
    script.add_argument("--states", action="store_true", help="the state of the body at each moment, as JSON")
    script.add_argument("--out", type=Path, metavar="PATH", help="write there, not to standard output")
    script.add_argument("--replace", action="store_true", help=REPLACED)
    script.set_defaults(run=lambda options: class_commands.script(options))

    shown = commands.add_parser("list", help="every movement, school, caution, block and demo class")
    shown.add_argument("--format", choices=("text", "json"), default="text")
    shown.set_defaults(run=lambda options: class_commands.list_classes(options))

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
    length_option(draft)
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
    outline.set_defaults(run=lambda options: class_commands.outline(options))

    convert = commands.add_parser("convert", help="make a class file of an outline")
    convert.add_argument("class_file", type=Path, metavar="OUTLINE")
    convert.add_argument("--out", type=Path, metavar="PATH", required=True, help="NAME.yewhour")
    convert.add_argument("--replace", action="store_true", help=REPLACED)
    convert.set_defaults(run=lambda options: class_commands.convert(options))

    desktop = commands.add_parser("desktop", help="put an entry for Yew Hour into the desktop's menus")
    desktop.add_argument("--command", default=sys.argv[0], help="what starts it; default: this program")
    desktop.set_defaults(run=_desktop)

    add_recording_commands(commands)

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


def _open(options: argparse.Namespace) -> int:
    gc.disable()  # start-up makes much that stays and nothing to throw away; run() turns it on again
    path = Path(options.class_file) if options.class_file else options.otherwise
    # The command line works without Qt.
    from yewhour.ui.frame.app import run

    return run(path, options.ahead, options.made_up)


def _desktop(options: argparse.Namespace) -> None:
    for path in desktop_entry.install(own_data().parent, str(Path(options.command).resolve())):
        say(path)
