"""The commands about a class: fitted, checked, written out, and listed."""

import argparse
import sys
from typing import TYPE_CHECKING

from yewhour.cli.requested import solved_class, teaching_data, timed_class
from yewhour.cli.terminal import CANNOT, say, write_json, write_out
from yewhour.core.lengths import parse_length, show_length
from yewhour.core.outline.writer import write_outline
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.problem import CannotFit, Problem
from yewhour.files.atomic_files import write_whole
from yewhour.files.late import late
from yewhour.render.formats import FORMATS
from yewhour.state.classes.any_class import read_class
from yewhour.state.classes.class_file import plan_bytes

if TYPE_CHECKING:
    from yewhour.core.edits import cuts, remedies
    from yewhour.core.export import contract
    from yewhour.render import script_pdf
    from yewhour.state import listing
else:  # what one command needs is not brought in for all
    contract = late("yewhour.core.export.contract")
    cuts = late("yewhour.core.edits.cuts")
    listing = late("yewhour.state.listing")
    remedies = late("yewhour.core.edits.remedies")
    script_pdf = late("yewhour.render.script_pdf")

TOGETHER = {"cards": ("cards", "cards-picture")}  # what is written with what


def fit(options: argparse.Namespace) -> int:
    """What a class becomes at a length."""
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


def check(options: argparse.Namespace) -> int:
    """What is noticed in a class."""
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


def export(options: argparse.Namespace) -> None:
    """A class in every format, or in those named."""
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


def script(options: argparse.Namespace) -> None:
    """A class in one format."""
    timed = timed_class(options)
    for one in timed.findings:
        if one.code == "stand-in":
            say(f"yewhour: {options.class_file}: {one.message}", sys.stderr)
    content = contract.states_json(timed) if options.states else FORMATS[options.format].write(timed)
    write_out(content, options.out, options.class_file, replace=options.replace)


def outline(options: argparse.Namespace) -> None:
    """A class as an outline."""
    words = teaching_data()
    write_out(
        write_outline(read_class(options.class_file, words), words.library, words.blocks).encode(),
        options.out,
        options.class_file,
        replace=options.replace,
    )


def convert(options: argparse.Namespace) -> None:
    """A class file of an outline, or the other way."""
    write_out(
        plan_bytes(read_class(options.class_file, teaching_data())),
        options.out,
        options.class_file,
        replace=options.replace,
    )


def list_classes(options: argparse.Namespace) -> None:
    """What a file or a folder has."""
    found = listing.listing(teaching_data())
    if options.format == "json":
        write_json(found)
    else:
        say(listing.listing_text(found))
