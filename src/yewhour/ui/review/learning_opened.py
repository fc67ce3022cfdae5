"""Her own seconds, from her recordings into the class that is open and into new ones."""

from __future__ import annotations

from yewhour.core.review.learning import LearntShare, adopt, learnt_shares
from yewhour.state.takes.learnt_seconds import ALL, all_notes, begin_with, begun_with
from yewhour.ui.desk.session import Session
from yewhour.ui.review.learning import Learning


def learning_dialog(session: Session) -> Learning | None:
    """Her seconds beside the usual, for the class that is open; None where none is."""
    plan = session.plan
    if plan is None:
        return None
    found = learnt_shares(all_notes(), plan.brief.style) or learnt_shares(all_notes())
    dialog = Learning(found, plan.brief, bool(begun_with(plan.brief.style)), session.teaching_data.library)
    dialog.taken.connect(lambda taken, styles: take_seconds(session, taken, styles))
    dialog.given_back.connect(lambda: as_usual(session))
    return dialog


def as_usual(session: Session) -> None:
    """New classes begin as usual again."""
    for style in (session.plan.brief.style if session.plan is not None else ALL, ALL):
        begin_with(style, {})


def take_seconds(session: Session, taken: list[LearntShare], styles: list[str]) -> None:
    """Takes her own seconds into this class, and into new ones of the styles she wants that for."""
    plan = session.plan
    if plan is None:
        return
    anew = adopt(plan, taken)
    for style in styles:
        begin_with(style, anew.brief.own)
    session.do("Take your own seconds", anew)
