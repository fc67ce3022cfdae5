"""The foot of the window: what is wrong, what is next, and one press that does it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QWidget

from yewhour.core.edits.remedies import differences
from yewhour.core.plan.edit import Edit
from yewhour.ui.desk.finding_cards import FixButton
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import button
from yewhour.ui.kit.theme import Theme

HINT = "Drag the tip of the stem, or press + and −, to change the length."
FIRST = "Add a first movement: press Ctrl+K and type part of its name."


class Foot(QWidget):
    """One line, and what it offers."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.note: tuple[str, bool] | None = None  # what was told last, and whether it is trouble
        self._colour = ""
        self.message = QLabel()
        self.message.setObjectName("message")
        self.message.setWordWrap(True)
        self.message.setContentsMargins(18, 6, 18, 8)
        self.message.setTextFormat(Qt.TextFormat.PlainText)
        self.mend_button = FixButton(session, "", ())
        self.mend_button.setObjectName("mend")
        self.stop_button = button("Stop", session.stop, "Stops what takes long; the class stays as it was.")
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 4, 18, 6)
        layout.addWidget(self.message, 1)
        layout.addWidget(self.mend_button, 0, Qt.AlignmentFlag.AlignVCenter)
        layout.addWidget(self.stop_button, 0, Qt.AlignmentFlag.AlignVCenter)
        self.mend_button.setVisible(False)
        self.stop_button.setVisible(False)

    def put(self, words: str, colour: str) -> None:
        """Says something."""
        self.message.setText(words)
        if colour != self._colour:
            self._colour = colour
            self.message.setStyleSheet(f"color: {colour}")

    def show_working(self, stage: str, theme: Theme) -> None:
        """Says what takes long; "" when it is done."""
        self.stop_button.setVisible(bool(stage))
        if stage:
            self.put(f"Working on it: {stage}…", theme.soft)

    def show_next(self, theme: Theme, hint: str = HINT) -> None:
        """A trial, a refusal, what was told, what was noticed, or a hint: the first there is."""
        session = self.session
        trial = session.trial
        if trial is not None:
            if trial.refusal:
                self.put(trial.refusal, theme.ink if trial.unfinished else theme.trouble)
            elif session.trial_title and trial.timed is not None and session.timed is not None:
                words = differences(session.timed, trial.timed)
                gone = session.trial_loses
                lost = f" {gone} line{'s' if gone > 1 else ''} of your own would go." if gone else ""
                self.put(f"As it would be – {session.trial_title}: {words}.{lost}", theme.ink)
            return
        self._show_offer()
        found = [one for one in session.timed.findings if one.severity != "note"] if session.timed else []
        if self.note is not None:
            self.put(self.note[0], theme.trouble if self.note[1] else theme.ink)
        elif session.refusal:
            self.put(session.refusal, theme.ink if session.unfinished else theme.trouble)
        elif session.trouble is not None:
            self.put(str(session.trouble), theme.trouble)
        elif found:
            worst = found[0]
            serious = worst.severity == "wrong" and worst.code != "length"
            words = f"{worst.message} {worst.fix[:1].upper()}{worst.fix[1:]}."
            self.put(words, theme.trouble if serious else theme.ink)
        elif session.timed is None:
            self.put("" if session.busy else FIRST, theme.soft)
        else:
            self.put(hint, theme.soft)

    def _show_offer(self) -> None:
        session = self.session
        fixes = [one.edit for one in session.timed.findings if one.edit is not None] if session.timed else []
        if session.refusal and session.offers:
            self._offer(session.offers[0].title, session.offers[0].edits)
        elif fixes and not session.refusal:
            self._offer(fixes[0].title, (fixes[0],))
        else:
            self.mend_button.setVisible(False)

    def _offer(self, title: str, edits: tuple[Edit, ...]) -> None:
        self.mend_button.set_fix(title, edits)
        self.mend_button.setVisible(True)
