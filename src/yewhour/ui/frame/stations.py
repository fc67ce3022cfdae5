"""The stations of the window in the order of the work, and which of them is shown."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import NamedTuple, cast

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtWidgets import QApplication, QSplitter, QStackedWidget, QWidget

from yewhour.ui.kit.controls.kept_focus import FocusGuard
from yewhour.ui.kit.lazy import Lazy
from yewhour.ui.kit.station import Station
from yewhour.ui.kit.theme import scale

BOTH = 760  # pixels of width that the sprig and another page need, at the usual text size


class StationPlace(NamedTuple):
    """A station: the command that goes there, its title, and its page.

    alone: it has the screen to itself. always: it is there without a class. wide: it has the whole window,
    not the half beside the sprig. folds: the sprig makes room for it where there is no room for both. hint:
    what the foot says there when nothing else is to be said, "" for the usual.
    """

    command: str
    title: str
    page: Lazy[Station]
    alone: bool = False
    always: bool = False
    wide: bool = False
    folds: bool = False
    hint: str = ""


class Stations(QObject):
    """Shows one at a time. changed: another one, or none. left: one goes to another. frame: what is around
    them, not for one alone."""

    changed = Signal()
    left = Signal()

    def __init__(
        self,
        window: QWidget,
        sprig: QWidget,
        places: Sequence[StationPlace],
        frame: Sequence[QWidget],
        open_: Callable[[], bool],
    ) -> None:
        super().__init__(window)
        self.window, self.places, self.frame, self._open = window, tuple(places), frame, open_
        self.sprig = sprig
        self._guards = [FocusGuard(part, self.enter) for part in frame]
        self.here: StationPlace | None = None
        self.beside = QStackedWidget()
        self.bench = QSplitter(Qt.Orientation.Horizontal)
        self.bench.addWidget(sprig)
        self.bench.addWidget(self.beside)
        self.bench.setChildrenCollapsible(False)
        self.bench.setSizes([610, 670])
        self.body = QStackedWidget()
        self.body.addWidget(self.bench)
        for place in self.places:
            place.page.when_made(partial(self._put, self.body if place.wide else self.beside))

    def _put(self, stack: QStackedWidget, page: Station) -> None:
        stack.addWidget(cast(QWidget, page))

    def able(self) -> list[bool]:
        """Which can be gone to."""
        return [self._open() or place.always for place in self.places]

    @property
    def number(self) -> int:
        """The number of the one that is shown, -1 for none."""
        return self.places.index(self.here) if self.here is not None else -1

    @property
    def show_class(self) -> bool:
        """Whether the class is in view: on its sprig, with what stands beside it."""
        return self.here is not None and not self.here.wide

    def go(self, command: str) -> None:
        """To a station, if it is there just now."""
        place = next(one for one in self.places if one.command == command)
        if self._open() or place.always:
            self._leave(place)
            page = place.page()
            self.fill_screen(place.alone)
            self.body.setCurrentWidget(cast(QWidget, page) if place.wide else self.bench)
            if not place.wide:
                self.beside.setCurrentWidget(cast(QWidget, page))
            self.here = place
            self.fold()
            page.enter()
        self.changed.emit()

    def enter(self) -> None:
        """The keys go to the page that is shown."""
        if self.here is not None and self.here.page.made is not None:
            self.here.page.made.enter()

    def fold(self) -> None:
        """Puts the sprig away where what stands beside it needs the room, and brings it back."""
        folded = self.here is not None and self.here.folds and self.window.width() < BOTH * scale()
        self.sprig.setVisible(not folded)

    def show_other(self, widget: QWidget) -> None:
        """Something that is no station, over all of the window's body."""
        self._leave(None)
        self.fill_screen(False)
        self.here = None
        self.body.setCurrentWidget(widget)
        self.changed.emit()

    def _leave(self, place: StationPlace | None) -> None:
        if self.here is not place:
            self.left.emit()
        if self.here is not None and self.here is not place and self.here.page.made is not None:
            self.here.page.made.leave()

    def fill_screen(self, alone: bool) -> None:
        """Leaves the whole screen to a station, or gives the window back what is around it."""
        for part in self.frame:
            part.setVisible(not alone)
        if QApplication.platformName() != "offscreen" and alone != self.window.isFullScreen():
            self.window.setWindowState(self.window.windowState() ^ Qt.WindowState.WindowFullScreen)
