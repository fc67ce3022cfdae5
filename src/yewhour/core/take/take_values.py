"""A take as plain values, for other programs. docs/formats.md describes every field."""

from typing import Any

import msgspec

from yewhour.core.export.contract import cue_value, segment_values
from yewhour.core.lengths import seconds
from yewhour.core.take.take import Take
from yewhour.core.take.take_remedies import unmet_promises


def take_values(take: Take) -> dict[str, Any]:
    """What happened and what will; seconds are on the film's clock, of notes and cuts on the recording's."""
    return {
        "title": take.solved.plan.brief.title,
        "target_s": seconds(take.target - take.start),
        "end_s": seconds(take.end),
        "segments": [
            _as_tried(value, one.attempt)
            for one, value in zip(take.segments, segment_values(take.segments), strict=True)
        ],
        "cues": [cue_value(cue) for cue in take.cues],
        "retimed": [
            {
                "at_s": seconds(one.at),
                "late_s": seconds(one.late),
                "changes": [
                    {"segment": c.segment, "from": c.before, "to": c.after, "unit": c.unit}
                    for c in one.changes
                ],
            }
            for one in take.retimed
        ],
        "unmet": [
            {
                "code": one.code, "message": one.message, "segment": one.segment, "end_s": one.end_s,
                "choices": [{"title": choice.title, "end_s": choice.end_s} for choice in one.choices],
            }
            for one in unmet_promises(take)
        ],
        "notes": [{"at_s": note.at_s, "text": note.text} for note in take.notes],
        "cuts": [{"from_s": from_s, "to_s": to_s} for from_s, to_s in take.cuts],
        "told": list(take.messages),
    }  # fmt: skip


def _as_tried(segment: dict[str, Any], attempt: int) -> dict[str, Any]:
    """A segment that was only tried has no other side, and nobody knows where it left the body."""
    return {**segment, "pair": None, "to": ""} if attempt else segment


def take_json(take: Take) -> bytes:
    """The same as JSON, indented."""
    return msgspec.json.format(msgspec.json.encode(take_values(take)), indent=1) + b"\n"
