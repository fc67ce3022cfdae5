"""What was found in a recording, as plain values. docs/formats.md describes every field."""

from collections.abc import Sequence
from typing import Any

import msgspec

from yewhour.core.review.findings import ReviewFinding
from yewhour.core.review.review import Review


def review_values(back: Review, found: Sequence[ReviewFinding]) -> dict[str, Any]:
    """Seconds are of the recording; `sure` is from 0 to 1."""
    return {
        "title": back.timed.plan.brief.title,
        "length_s": back.length_s,
        "target_s": back.target_s,
        "segments": [
            {
                "id": one.segment.id, "name": one.segment.name, "side": one.segment.side,
                "planned_start_s": one.planned_start_s, "planned_end_s": one.planned_end_s,
                "start_s": one.start_s, "end_s": one.end_s, "sure": round(one.sure, 2),
            }
            for one in back.segments
            if one.planned_start_s is not None
        ],
        "tried": [
            {"id": one.segment.id, "start_s": one.start_s, "end_s": one.end_s}
            for one in back.segments
            if one.planned_start_s is None
        ],
        "lines": [
            {
                "text": line.cue.text, "segment": line.cue.segment, "planned_s": line.planned_s,
                "said_s": line.said_s, "sure": line.sure, "how": line.how, "words": line.words,
            }
            for line in back.lines
        ],
        "extra": [
            {
                "text": one.text, "start_s": round(one.start_s, 2), "again": one.again,
                "instead_of": back.lines[one.instead].cue.text if one.instead is not None else "",
            }
            for one in back.extra
        ],
        "own_words": back.own_words,
        "drift": back.drift,
        "causes": [
            {
                "kind": one.kind, "at_s": one.at_s, "seconds": one.seconds, "segment": one.segment,
                "until": one.until or one.segment, "share": one.share,
            }
            for one in back.causes
        ],
        "cuts": [{"from_s": from_s, "to_s": to_s} for from_s, to_s in back.cuts],
        "notes": [{"at_s": round(at_s, 1), "cut": cut} for at_s, cut in back.notes],
        "pace": back.pace,
        "findings": [finding_value(one) for one in found],
        "told": list(back.messages),
    }  # fmt: skip


def finding_value(one: ReviewFinding) -> dict[str, Any]:
    """A finding as others get it."""
    return {
        "code": one.code, "severity": one.severity, "at_s": one.at_s, "message": one.message, "fix": one.fix,
        "segment": one.segment, "sure": one.sure,
    }  # fmt: skip


def as_json(value: dict[str, Any]) -> bytes:
    """The same as JSON, indented."""
    return msgspec.json.format(msgspec.json.encode(value), indent=1) + b"\n"
