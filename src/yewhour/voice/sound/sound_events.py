"""What is to be heard of a class, and when: its lines, or some of them, and signs."""

from collections.abc import Iterable, Sequence

import msgspec

from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.problem import Problem
from yewhour.core.purpose import PURPOSES
from yewhour.core.script.cue import Cue
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.speech import GAP

# What may be heard. Those with words choose among the lines; the others are signs.
PARTS = {
    "lines": "every line",
    "sides": "names of movements and changes of side, and a tone for each side",
    "counts": "counts, and time to go",
    "tones": "a tone for each side, and no words",
    "breath": "a soft tone for each breath",
    "bells": "a low bell for each section",
}
NAMED = ("call", "place", "side", "flow", "prop")
COUNTED = ("count", "time", "half")


class SoundEvent(msgspec.Struct, frozen=True):
    """One thing to be heard: a line or a sign, from a tick on, with room up to another.

    kind: "line", "bell", "right", "left", or the phase of a breath.
    """

    at: int
    room: int
    kind: str
    text: str = ""
    slower: str = "instruct"


def parse_parts(said: str) -> frozenset[str]:
    """The parts in a list with commas. Raises Problem for one there is not."""
    found = frozenset(part.strip() for part in said.split(",") if part.strip())
    if not found:
        raise Problem("Nothing would be heard.", do=f"Use some of: {', '.join(PARTS)}.")
    for part in sorted(found - PARTS.keys()):
        raise Problem(f"{part!r} can't be heard.", do=f"Use some of: {', '.join(PARTS)}.")
    return found


def sound_events(segments: Sequence[Segment], cues: Sequence[Cue], parts: Iterable[str]) -> list[SoundEvent]:
    """All that is heard, in the order of time."""
    parts = set(parts)
    wanted = [cue for cue in cues if _wanted(cue, parts)]
    end = segments[-1].end if segments else 0
    followed = [*(cue.start for cue in wanted[1:]), end + GAP][: len(wanted)]
    found = [
        SoundEvent(
            cue.start, max(1, following - GAP - cue.start), "line", cue.text, PURPOSES[cue.purpose].delivery
        )
        for cue, following in zip(wanted, followed, strict=True)
    ]
    section = ""
    for segment in segments:
        if "bells" in parts and segment.section != section:
            found.append(SoundEvent(segment.start, 3 * TICKS_PER_S, "bell"))
        section = segment.section
        sided = segment.side in ("left", "right") and not segment.use.setup_for
        if parts & {"sides", "tones"} and sided:
            found.append(SoundEvent(segment.start, TICKS_PER_S, segment.side))
        if "breath" in parts:
            found += [SoundEvent(span.start, span.end - span.start, span.phase) for span in segment.spans]
    return sorted(found, key=lambda one: one.at)


def _wanted(cue: Cue, parts: set[str]) -> bool:
    if "lines" in parts:
        return True
    return ("sides" in parts and cue.purpose in NAMED) or ("counts" in parts and cue.purpose in COUNTED)
