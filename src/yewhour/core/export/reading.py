"""The script to be read: plain text for the music stand, and Markdown."""

from collections.abc import Iterator

from yewhour.core.lengths import seconds, show_length
from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

SHOWN_S = 1.5  # a pause that is shorter makes the length even, and is nobody's
MARGIN = {"right": "R", "left": "L", "both": " ", "alternating": "↔"}


def blocks(timed: TimedClass) -> Iterator[tuple[Segment, list[Cue]]]:
    """Every segment that is not a set-up, nor nothing, with the lines said for it, those of set-ups too."""
    said: dict[str, list[Cue]] = {}
    for cue in timed.cues:
        said.setdefault(cue.segment, []).append(cue)
    waiting: list[Cue] = []
    for segment in timed.segments:
        waiting += said.get(segment.id, [])
        if not segment.use.setup_for and (waiting or seconds(segment.length) >= SHOWN_S):
            yield segment, waiting
            waiting = []
    if waiting:  # a class may end on its way somewhere
        yield timed.segments[-1], waiting


def text(timed: TimedClass) -> str:
    """Time, side in the margin, line; a blank line between movements."""
    brief = timed.plan.brief
    lines = [brief.title, f"{show_length(timed.length_s)}   {brief.audience}".rstrip(), ""]
    if timed.props:
        lines += [f"Props: {', '.join(timed.props)}", ""]
    section = flow = ""
    for segment, cues in blocks(timed):
        if segment.section != section:
            section = segment.section
            lines += ["", section.upper(), ""]
        # The breaths of a flow stand together; everything else has its own heading.
        if not segment.behaviour.is_phase or segment.use.flow != flow:
            side = f"  {segment.side}" if segment.side in ("right", "left") else ""
            dose = "" if segment.behaviour.is_phase else f", {segment.dose}"
            lines += ["", f"        {segment.name}{side}{dose}"]
        flow = segment.use.flow
        for cue in cues:
            lines.append(f"{show_length(seconds(cue.start)):>7} {MARGIN[cue.side]} {cue.text}")
    return "\n".join(_single_blanks(lines)) + "\n"


def markdown(timed: TimedClass) -> str:
    """A heading for each section, a bold line for each movement, a list item for each line."""
    brief = timed.plan.brief
    lines = [f"# {_plain(brief.title)}", ""]
    lines += [
        f"{show_length(timed.length_s)}{' · for ' + _plain(brief.audience) if brief.audience else ''}",
        "",
    ]
    if timed.props:
        lines += [f"Props: {', '.join(timed.props)}", ""]
    section = flow = ""
    for segment, cues in blocks(timed):
        if segment.section != section:
            section = segment.section
            lines += ["", f"## {_plain(section)}", ""]
        if not segment.behaviour.is_phase or segment.use.flow != flow:
            side = f", {segment.side}" if segment.side in ("right", "left") else ""
            dose = "" if segment.behaviour.is_phase else f", {segment.dose}"
            start = show_length(seconds(segment.start))
            lines += ["", f"**{start} {_plain(segment.name)}{side}**{dose}", ""]
        flow = segment.use.flow
        for cue in cues:
            margin = f" **{MARGIN[cue.side]}**" if MARGIN[cue.side].strip() else ""
            lines.append(f"- `{show_length(seconds(cue.start))}`{margin} {_plain(cue.text)}")
    return "\n".join(_single_blanks(lines)) + "\n"


def _plain(words: str) -> str:
    """The words with Markdown's own marks made harmless."""
    for mark in "\\`*_[]<>#|":
        words = words.replace(mark, f"\\{mark}")
    return words


def _single_blanks(lines: list[str]) -> list[str]:
    return [line for index, line in enumerate(lines) if line or index == 0 or lines[index - 1]]
