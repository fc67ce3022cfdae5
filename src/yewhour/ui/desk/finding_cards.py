"""Cards for what was noticed: what, why, and one press that mends it, seen before it is done."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent
from PySide6.QtGui import QEnterEvent, QFocusEvent
from PySide6.QtWidgets import QFrame

from yewhour.core.finding import Finding
from yewhour.core.lengths import show_length
from yewhour.core.plan.edit import Edit
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import Press, button, card, label


class TrialButton(Press):
    """Does something when pressed; while it has the pointer or the focus, the class is shown as it would be.

    look: begins the trial, and raises Problem when it can't be done.
    """

    def __init__(self, session: Session, title: str, look: Callable[[], object]) -> None:
        super().__init__(title)
        self.session, self._begin_trial = session, look
        self.setObjectName("small")

    def _look(self) -> None:
        try:
            self._begin_trial()
        except Problem:
            self.session.drop_trial()  # the press says why

    def enterEvent(self, event: QEnterEvent) -> None:
        super().enterEvent(event)
        self._look()

    def leaveEvent(self, event: QEvent) -> None:
        super().leaveEvent(event)
        if not self.hasFocus():
            self.session.drop_trial()

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self._look()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if not self.underMouse():
            self.session.drop_trial()


class FixButton(TrialButton):
    """Does edits when pressed."""

    def __init__(self, session: Session, title: str, edits: tuple[Edit, ...]) -> None:
        super().__init__(session, title, lambda: session.try_edits(self.title, self.edits))
        self.set_fix(title, edits)
        self.setToolTip("The sprig shows what it would do. Press to do it; undo takes it back.")
        self.clicked.connect(self._do)

    def set_fix(self, title: str, edits: tuple[Edit, ...]) -> None:
        """Offers something else."""
        self.title, self.edits = title, edits
        self.setText(title if len(title) < 52 else f"{title[:50]}…")
        self.setAccessibleName(f"Mend: {title}")

    def _do(self) -> None:
        try:
            self.session.apply(self.title, self.edits)
        except Problem as problem:
            self.session.refused.emit(problem)


def finding_card(session: Session, finding: Finding) -> QFrame:
    """One finding."""
    frame, layout = card(finding.severity)
    layout.addWidget(label(finding.message))
    if finding.edit is not None:
        layout.addWidget(FixButton(session, finding.edit.title, (finding.edit,)))
    else:
        layout.addWidget(label(f"{finding.fix}.", "soft"))
    frame.setAccessibleName(finding.message)
    return frame


def refusal_card(session: Session) -> QFrame:
    """Why the class can't be as long as was asked, and what could be done."""
    frame, layout = card("look" if session.unfinished else "wrong")
    layout.addWidget(label(session.refusal))
    if session.unfinished:
        tip = "Movements that fit the promise, in the parts that are still empty; undo takes them out."
        layout.addWidget(button("Draft what is missing", session.fill_wanted.emit, tip))
    for offer in session.offers:
        fix = FixButton(session, offer.title, offer.edits)
        fix.setText(f"{fix.text()}   {show_length(offer.length_s)}")
        layout.addWidget(fix)
    frame.setAccessibleName(session.refusal)
    return frame
