"""What a take says of itself in words, to be read at a glance."""

from yewhour.core.lengths import seconds, show_length
from yewhour.core.take.moment import Moment
from yewhour.core.take.take import Take

TOLD_S = 25.0  # how long it is told that something was late

PHASES = {"inhale": "in", "full": "hold", "exhale": "out", "empty": "wait"}
BETWEEN = {"talk": "speak", "setup": "get there", "stillness": "rest", "clock": "stay", "rapid": "quick"}


def late_words(take: Take, here: Moment) -> str:
    """Early or late, and who gives it back."""
    late = seconds(round(here.late))
    if abs(late) >= 0.5:
        return f"{_long(late)} {'late' if late > 0 else 'early'}" + (
            "; standing still" if take.paused is not None else " at the end"
        )
    last = take.retimed[-1] if take.retimed else None
    if last is None or abs(last.late) < 5 or here.at - last.at > TOLD_S * 10:
        return "on time"
    how, does = ("late", "gives") if last.late > 0 else ("early", "takes")
    return f"{_long(seconds(last.late))} {how}; the rest {does} them"


def _long(length_s: float) -> str:
    return f"{abs(length_s):.0f} s" if abs(length_s) < 60 else show_length(abs(length_s))


def phase_words(here: Moment) -> str:
    """What the breath does, or what there is to do without one."""
    if here.segment is None:
        return ""
    if here.segment.use.setup_for:
        return BETWEEN["setup"]
    if here.span is not None:
        return PHASES[here.span.phase]
    return BETWEEN.get(here.segment.kind, "stay")


def count_words(here: Moment) -> str:
    """Which of how many."""
    return f"{here.number} of {here.of}" if here.of else ""


def coming_words(here: Moment) -> str:
    """What comes when this is over."""
    coming = here.coming
    segment = here.segment
    if segment is None:
        return ""
    if segment.use.setup_for and coming is not None:
        return "and you are there"
    if coming is None:
        return "to the end"
    side = f", {coming.side}" if coming.side in ("left", "right") else ""
    return f"to {coming.name}{side}"
