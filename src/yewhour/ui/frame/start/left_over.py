"""What was left over from last time, in words: work that was not saved, a take that was broken off."""

from yewhour.core.lengths import show_length
from yewhour.state.classes.unsaved_work import unsaved_work
from yewhour.state.takes.interrupted_takes import interrupted_takes


def left_over() -> str:
    """What there is, and where to go on with it; "" for nothing."""
    message = []
    if names := ", ".join(kept.about.title for kept in unsaved_work()):
        message.append(
            f"Kept from last time, not saved: {names}. Bring it back on the first page (Ctrl+Home)."
        )
    for broken in interrupted_takes()[:1]:
        until = show_length(broken.until_s)
        message.append(
            f"A take of {broken.plan.brief.title} was broken off at {until}. Go on with it in Take (F9)."
        )
    return " ".join(message)
