"""What the head and the foot of a window show: what is promised, what is next, what was said."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer

from yewhour.ui.desk.session import Session
from yewhour.ui.frame.around.foot import Foot
from yewhour.ui.frame.around.head import Head
from yewhour.ui.frame.around.promised import promised
from yewhour.ui.kit.theme import Theme

if TYPE_CHECKING:
    from yewhour.ui.frame.stations import Stations

ANYTHING = "Classes that last exactly as long as they say."


class Status:
    """Shows how things stand. Told what was said last, until the class changes."""

    def __init__(self, session: Session, head: Head, foot: Foot) -> None:
        self.session, self.head, self.foot = session, head, foot
        self._fresh = False  # said just now, in one go with what else is done

    def show(self, stations: Stations, theme: Theme, roomy: bool, at_start: bool, hint: str) -> None:
        """The promise in the head, and in the foot what is next, or a station's own hint."""
        session = self.session
        self.head.mark(stations.number, stations.able())
        self.head.export.setEnabled(session.timed is not None)
        if session.plan is None:
            self.head.title.setText("Yew Hour")
            self.head.promise.setText(ANYTHING)
            words, trouble = self.foot.note or ("", False)
            self.foot.put(words, theme.trouble if trouble else theme.soft)
            return
        self.head.title.setText(session.plan.brief.title)
        self.head.promise.setText(promised(session, roomy))
        if not at_start or self.foot.note is not None:
            self.foot.show_next(theme, hint)
        else:
            title = session.plan.brief.title
            self.foot.put(f"{title} is still open: choose Promise, Sprig or Words.", theme.soft)
            self.foot.mend_button.setVisible(False)

    def say(self, words: str) -> None:
        """Something is done; said until the class changes, or one goes elsewhere."""
        self._put(words, False)

    def tell(self, words: str) -> None:
        """Something went wrong."""
        self._put(words, True)

    def _put(self, words: str, trouble: bool) -> None:
        self.foot.note, self._fresh = (words, trouble), True
        QTimer.singleShot(0, self.foot, self._told)

    def _told(self) -> None:
        self._fresh = False

    def forget(self) -> None:
        """What was said is about another station; what is said on the way is about the one gone to."""
        if not self._fresh:
            self.foot.note = None
