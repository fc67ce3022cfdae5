"""Focus that outlives what has it: a page is filled anew, and the keys are where they were."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from PySide6.QtCore import QObject, Qt, QTimer
from PySide6.QtWidgets import QAbstractButton, QApplication, QWidget
from shiboken6 import isValid


def _called(widget: QWidget) -> str:
    """What a widget is known by: its name to those who don't see it, or its words."""
    words = widget.text() if isinstance(widget, QAbstractButton) else ""
    return widget.accessibleName() or words


@contextmanager
def kept_focus(around: QWidget) -> Iterator[None]:
    """While a page is filled anew; then what is called as it was has the keys again, or the page's first."""
    focus = QApplication.focusWidget()
    if focus is None or not around.isAncestorOf(focus):
        yield
        return
    name, before = _called(focus), set(around.findChildren(QWidget))
    yield
    if isValid(focus) and focus.isVisibleTo(around) and focus in around.findChildren(QWidget):
        focus.setFocus()
        return
    new = [one for one in around.findChildren(QWidget) if one not in before and _takes_keys(one)]
    same = [one for one in new if name and _called(one) == name]
    for one in (same or new)[:1]:
        one.show()  # so that it can have the focus at once
        one.setFocus()


def _takes_keys(widget: QWidget) -> bool:
    return widget.isEnabled() and bool(widget.focusPolicy() & Qt.FocusPolicy.TabFocus)


class FocusGuard(QObject):
    """Brings the keys back to the page when what had them is gone, and Qt gave them to what is around it.

    around: what is no page. back: gives the keys to the page.
    """

    def __init__(self, around: QWidget, back: Callable[[], object]) -> None:
        super().__init__(around)
        self.around, self.back = around, back
        QApplication.instance().focusChanged.connect(self._moved)  # type: ignore[union-attr]

    def _moved(self, old: QWidget | None, now: QWidget | None) -> None:
        if now is None or not self.around.isAncestorOf(now):
            return
        if old is not None and (not isValid(old) or not old.isVisible() or not old.isEnabled()):
            QTimer.singleShot(0, self, self._bring_back)  # when the page is filled again

    def _bring_back(self) -> None:
        focus = QApplication.focusWidget()
        if focus is not None and self.around.isAncestorOf(focus):
            self.back()
