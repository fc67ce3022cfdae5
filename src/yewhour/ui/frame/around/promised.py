"""The promise of a class in a line, as the head of the window says it."""

from yewhour.core.lengths import show_length
from yewhour.ui.desk.session import Session


def promised(session: Session, roomy: bool) -> str:
    """What is promised, how it is kept, and how long the class can be. roomy: with who it is for,
    and with how long it can be."""
    timed, can, plan = session.shown, session.lengths, session.plan
    assert plan is not None
    audience = f"For {plan.brief.audience}. " if plan.brief.audience and roomy else ""
    if timed is None or can is None:
        empty = "" if session.busy else "; no movements yet"
        return f"{audience}{show_length(plan.brief.target_s)} promised{empty}."
    kept = abs(timed.length_s - can.promised_s) < 0.05
    asked = "exactly, as promised" if kept else f"now, promised {show_length(can.promised_s)}"
    if session.unfinished and session.trial is None:
        left = show_length(can.promised_s - timed.length_s)
        return f"{audience}{left} still to fill of {show_length(can.promised_s)}."
    between = f" It can be {show_length(can.shortest_s)} to {show_length(can.longest_s)}." if roomy else ""
    return f"{audience}{show_length(timed.length_s)} {asked}.{between}"
