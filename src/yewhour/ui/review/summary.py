"""What a recording shows, in three lines: on time, both sides, all said."""

from yewhour.core.lengths import said_length, show_length
from yewhour.core.review.findings import UNEVEN, UNEVEN_S, ReviewFinding
from yewhour.state.takes.recordings import (
    ReviewedRecording,
)

ON_TIME_S = 5.0


def on_time(looked: ReviewedRecording) -> str:
    """Whether it was on time, in a line."""
    back = looked.back
    length = show_length(round(back.length_s))
    if back.heard and not back.pace_words:
        return "Not a word was heard."
    if back.stranger:
        return "This seems to be another recording."
    if back.cut:
        return f"The recording ends at {length}, before the class does."
    length = show_length(round(back.ran_s))
    late_s = back.ran_s - back.target_s
    promised = show_length(round(back.target_s))
    event = _event(looked)
    if event is not None:  # what happened comes first
        at = f", at {show_length(round(event.at_s))}" if event.segment else ""
        return f"{event.message.rstrip('.')}{at}. {length} of {promised}."
    if abs(late_s) < ON_TIME_S:
        return f"{length}, as promised."
    how = "over" if late_s > 0 else "early"
    return f"{said_length(late_s)[:1].upper()}{said_length(late_s)[1:]} {how}: {length} of {promised}."


def _event(looked: ReviewedRecording) -> ReviewFinding | None:
    """What tells of the gravest thing that happened: itself, or that a side is longer for it."""
    if not looked.back.causes:
        return None
    cause = looked.back.causes[0]
    code = cause.kind if any(one.code == cause.kind for one in looked.found) else "uneven"
    return next((one for one in looked.found if one.code == code), None)


def both_sides(looked: ReviewedRecording) -> str:
    """Whether both sides got the same, in a line."""
    found = looked.found
    event = _event(looked)
    uneven = [one.message.rstrip(".") for one in found if one.code == "uneven" and one is not event]
    if any(one.code in ("stranger", "nothing") for one in found):
        return ""
    if not uneven:
        return "" if event is not None and event.code == "uneven" else _side_by_side(looked)
    more = f" And {len(uneven) - 1} more." if len(uneven) > 1 else ""
    return f"{uneven[0]}.{more}"


def all_said(looked: ReviewedRecording) -> str:
    """Whether everything was said, in a line."""
    back = looked.back
    if back.own_words:
        return "Your class, in your own words."
    due = [line for line in back.lines if back.went(line)]
    if not due or back.stranger:
        return "" if back.heard else "From the marks of the take alone; nothing was heard."
    said = sum(line.said_s is not None for line in due)
    count = len(back.extra)
    remarks = f" {count} remark{'s' if count > 1 else ''} besides." if count else ""
    return f"{said} of {len(due)} lines were said.{remarks}"


def _side_by_side(looked: ReviewedRecording) -> str:
    """What each side got, where no difference was noticed that was not meant."""
    done = {"left": 0.0, "right": 0.0}
    meant = False
    for one in looked.back.segments:
        use = one.segment.use
        if one.segment.side in done and use.pair and not use.setup_for and not one.segment.attempt:
            done[one.segment.side] += one.end_s - one.start_s
            meant = meant or use.step.second is not None
    if not any(done.values()):
        return ""
    most = max(done.values())
    if abs(done["left"] - done["right"]) <= max(UNEVEN_S, UNEVEN * most):
        return "Both sides got the same, as far as can be told."
    told = ", ".join(f"{side} {show_length(round(length_s))}" for side, length_s in done.items())
    return f"{told[:1].upper()}{told[1:]}{', as was meant' if meant else ''}."
