"""The JSON script: a contract others build on. docs/formats.md describes every field."""

from collections.abc import Sequence
from typing import Any

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.library.position import START, base_of
from yewhour.core.script.body_state import state_of
from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.transitions.ways import flows_on

VERSION = 2  # of what this module writes: 2 has the state of the body and the purposes of cards


def script(timed: TimedClass) -> dict[str, Any]:
    """The script as plain values; seconds are numbers from the start of the class."""
    brief = timed.plan.brief
    return {
        "version": VERSION,
        "title": brief.title,
        "target_s": seconds(timed.length),
        "length_s": seconds(timed.segments[-1].end),
        "tolerance_s": brief.tolerance_s,
        "props": timed.props,
        "segments": segment_values(timed.segments),
        "cues": [cue_value(cue) for cue in timed.cues],
        "dropped": [{"text": d.text, "segment": d.segment, "reason": d.reason} for d in timed.dropped],
        "findings": [
            {
                "code": finding.code, "severity": finding.severity, "segment": finding.segment,
                "message": finding.message, "fix": finding.fix,
            }
            for finding in timed.findings
        ],
    }  # fmt: skip


def segment_values(segments: Sequence[Segment]) -> list[dict[str, Any]]:
    """The segments as the contract has them."""
    return [_segment(before, one) for before, one in zip((None, *segments), segments, strict=False)]


def cue_value(cue: Cue) -> dict[str, Any]:
    """A cue as the contract has it."""
    return {
        "start_s": seconds(cue.start), "end_s": seconds(cue.end), "text": cue.text,
        "purpose": cue.purpose, "side": cue.side, "segment": cue.segment, "must": cue.must,
    }  # fmt: skip


def _segment(before: Segment | None, segment: Segment) -> dict[str, Any]:
    # In a flow the body moves within the phase, so that it begins where the one before ended.
    moving = before is not None and flows_on(before.use, segment.use)
    start = before.use.end if before is not None and moving else segment.use.start
    return {
        "id": segment.id,
        "name": segment.name,
        "movement": segment.use.movement.id,
        "section": segment.section,
        "kind": segment.kind,
        "side": segment.side,
        # A movement whose second side is meant to differ has no partner to be equal to.
        "pair": None if segment.use.step.second else segment.use.pair or None,
        "round": segment.use.round or None,
        "from": base_of(start) if start != START else "",
        "to": base_of(segment.use.end) if segment.use.end != START else "",
        "state": state_of(segment).values(),
        "start_s": seconds(segment.start),
        "end_s": seconds(segment.end),
        "teach_s": seconds(segment.amount * segment.use.unit) if segment.use.setup_for else 0.0,
        "breaths": segment.breaths,
        "reps": segment.reps,
        "phases": [
            {"phase": span.phase, "start_s": seconds(span.start), "end_s": seconds(span.end)}
            for span in segment.spans
        ],
    }


def states_json(timed: TimedClass) -> bytes:
    """The state of the body at the end of every segment, as JSON."""
    states = [{"at_s": seconds(one.end), **state_of(one).values()} for one in timed.segments]
    values = {"version": VERSION, "title": timed.plan.brief.title, "states": states}
    return msgspec.json.format(msgspec.json.encode(values), indent=1) + b"\n"


def script_json(timed: TimedClass) -> bytes:
    """The script as JSON, indented."""
    return msgspec.json.format(msgspec.json.encode(script(timed)), indent=1) + b"\n"
