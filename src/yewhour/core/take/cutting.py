"""What is cut out of a take: it goes on as if that had not been, from where the film takes it up again.

The clock of a class is the film's: what is cut out, or was not recorded, is in it no more than in the film. A
recording that ran on has it still; `in_film` and `in_recording` say where a moment of one lies in the other.
"""

from collections.abc import Iterable, Sequence
from typing import Literal

import msgspec

from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.take.take import Take
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse

From = Literal["line", "side", "movement"]
NEAR = ticks(0.5)  # two places so near each other are one
Range = tuple[float, float]  # seconds of the recording


class BackTo(msgspec.Struct, frozen=True):
    """Where it can be gone on from: the start of the line, the side or the movement; a tick of the class."""

    what: From
    at: int
    name: str
    side: str


def piece_of(use: StepUse) -> tuple[str, int]:
    """What one goes back to, or over: a movement with the way into it, or a round of a flow."""
    if use.flow and (use.behaviour.is_phase or use.step.phase):
        return use.flow, use.round
    return use.setup_for or use.key, 0


def begin_of(segments: Sequence[Segment], index: int) -> int:
    """The first segment of the piece that a segment is in."""
    piece = piece_of(segments[index].use)
    while index and piece_of(segments[index - 1].use) == piece and not segments[index - 1].attempt:
        index -= 1
    return index


def places_to_go_back(take: Take, at: int) -> list[BackTo]:
    """Where it could be gone on from at a moment of the class, the nearest first; none before its start."""
    index = take.index_at(at)
    index = len(take.segments) - 1 if index is None else index
    if index < 0 or at <= take.start:
        return []
    segment = take.segments[index]
    first = take.segments[begin_of(take.segments, index)]
    spoken = [cue.start for cue in take.cues if first.start <= cue.start <= at]
    found = [BackTo("line", spoken[-1], segment.name, segment.side)] if spoken else []
    found += [BackTo("side", segment.start, segment.name, segment.side)]
    found += [BackTo("movement", first.start, segment.name, segment.side)]
    kept: list[BackTo] = []
    for one in found:
        if one.at < at and all(abs(one.at - other.at) > NEAR for other in kept):
            kept.append(one)
    return kept


def recorded(take: Take, at: int) -> float:
    """The second of the recording at which a tick of the class was, that is past."""
    for _, state in reversed(take.history):
        if state.now <= at:
            return (at + state.out) / TICKS_PER_S
    return at / TICKS_PER_S


def cut_out(take: Take, span: Range) -> Take:
    """The take as if what lies in a span of the recording had not been: as it was at its start, from now on.

    What was marked in the span is undone with it, her notes apart.
    """
    begun, ended = ticks(span[0]), ticks(span[1])
    for one in take.cuts:  # what is cut out already can't be begun with
        if ticks(one[0]) <= begun <= ticks(one[1]):
            begun = ticks(one[0])
    kept = [(when, state) for when, state in take.history if when <= begun]
    state = kept[-1][1] if kept else take
    at = state.paused if state.paused is not None else max(state.now, begun - state.out)
    cuts = joined_ranges([*take.cuts, (begun / TICKS_PER_S, ended / TICKS_PER_S)])
    return msgspec.structs.replace(
        state, state="running", now=at, paused=None, camera_stopped=False, out=ended - at, notes=take.notes,
        messages=take.messages, history=tuple(kept), cuts=cuts, did="",
    )  # fmt: skip


# --- the recording and the film -------------------------------------------------------------------------


def joined_ranges(ranges: Iterable[Range]) -> tuple[Range, ...]:
    """Ranges in order, those that touch or overlap as one."""
    joined: list[Range] = []
    for start, end in sorted(ranges):
        if joined and start <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        elif end > start:
            joined.append((start, end))
    return tuple(joined)


def in_film(cuts: Sequence[Range], at_s: float) -> float:
    """Where a second of the recording lies in the film; what is cut out lies at its cut."""
    return at_s - sum(min(at_s, end) - start for start, end in cuts if start < at_s)


def in_recording(cuts: Sequence[Range], film_s: float) -> float:
    """Where a second of the film lies in the recording: at a cut, behind it."""
    for start, end in cuts:
        if film_s < start:
            break
        film_s += end - start
    return film_s


def is_cut(cuts: Sequence[Range], at_s: float) -> bool:
    """Whether a second of the recording is cut out."""
    return any(start <= at_s < end for start, end in cuts)
