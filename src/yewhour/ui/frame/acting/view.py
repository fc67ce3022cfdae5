"""The view: length, distance, colours, text size, and the windows that are opened over the class."""

from __future__ import annotations

import contextlib
from collections.abc import Callable
from typing import Protocol

from PySide6.QtCore import QSize, Qt, QTimer
from PySide6.QtWidgets import QDialog, QMenuBar, QWidget

from yewhour import __version__
from yewhour.background.jobs import Fault
from yewhour.core.problem import Problem
from yewhour.state.settings import change_settings
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.acting.registry import Commands
from yewhour.ui.frame.host import Host
from yewhour.ui.frame.pages import Pages
from yewhour.ui.frame.stations import Stations
from yewhour.ui.kit import theme as look
from yewhour.ui.kit.commands import Command
from yewhour.ui.sprig.actions import SprigActions
from yewhour.ui.sprig.gestures import STEP_S
from yewhour.ui.sprig.sprig import Sprig

MINUTE_S = 60.0
CHANGING = ("Length", "Draft")  # menus of what changes the class from wherever one is

ABOUT = (
    "It times and words a class. It does not clear anyone to take it.",
    "Work without pain, and stop if it hurts or you feel dizzy. "
    "Ask a doctor or a qualified teacher if you are unsure.",
    "Free software under the GNU General Public License, version 3 or later.",
)


class Shown(Host, Protocol):
    """A window, as who changes how it looks knows it."""

    dark: bool
    sprig: Sprig
    commands: Commands
    stations: Stations
    sprig_actions: SprigActions

    def dress(self) -> None:
        """Puts on the colours and the text size."""
        ...

    def menuBar(self) -> QMenuBar: ...

    def size(self) -> QSize: ...


class View:
    """Commands about what is shown and how."""

    def __init__(self, window: Shown, session: Session, pages: Pages) -> None:
        self.window, self.session, self.pages = window, session, pages
        self.reading_view: QWidget | None = None
        self._resizing = QTimer()
        self._resizing.setSingleShot(True)
        self._resizing.timeout.connect(self._resized)
        self._faults: QDialog | None = None

    # --- the length -------------------------------------------------------------------------------------

    def _change(self, by_s: float) -> None:
        if self.session.lengths is not None and self.session.plan is not None:
            asked_s = self.session.plan.brief.target_s + self.session.lengths.extra_s
            self.session.set_length(max(STEP_S, asked_s + by_s))

    def longer_minute(self) -> None:
        """A minute more."""
        self._change(MINUTE_S)

    def shorter_minute(self) -> None:
        """A minute less."""
        self._change(-MINUTE_S)

    def longer_bit(self) -> None:
        """Five seconds more."""
        self._change(STEP_S)

    def shorter_bit(self) -> None:
        """Five seconds less."""
        self._change(-STEP_S)

    def by_itself(self) -> None:
        """The length with everything as preferred, to the nearest half minute."""
        if self.session.lengths is not None:
            self.session.set_length(max(30.0, round(self.session.lengths.preferred_s / 30) * 30.0))

    # --- distance, colours, text ------------------------------------------------------------------------

    def closer(self) -> None:
        """Closer to the class."""
        self.window.sprig.zoom(1.6)

    def further(self) -> None:
        """Further from it."""
        self.window.sprig.zoom(1 / 1.6)

    def whole_class(self) -> None:
        """All of it."""
        self.window.sprig.show_all()

    def other_light(self) -> None:
        """Light to dark and back."""
        self.window.dark = not self.window.dark
        self.window.dress()
        change_settings(dark=self.window.dark)

    def larger_text(self) -> None:
        """Text a step larger."""
        self._scale(0.25)

    def smaller_text(self) -> None:
        """Text a step smaller."""
        self._scale(-0.25)

    def _scale(self, by: float) -> None:
        before = look.chosen_scale()
        look.set_scale(before + by)
        if look.chosen_scale() != before:
            self._resizing.start()  # however often it is pressed, the window dresses once

    def _resized(self) -> None:
        self.window.dress()
        change_settings(scale=look.chosen_scale())

    # --- over the class ---------------------------------------------------------------------------------

    def show_acts(self) -> None:
        """Every change, the last first; the class goes to the one that is chosen."""
        past = self.session.past
        if past.undo_titles or past.redo_titles:
            self.window.keep_open(self.pages.later.UndoList(self.session))
        else:
            self.window.say("Nothing was changed yet.")

    def undo(self, on_shelf: bool) -> None:
        """Takes the last change back, and says which; on the shelf, what was done there."""
        if on_shelf:
            self.pages.shelf().undo()
        else:
            self._move(self.session.past.undo_titles, self.session.undo, "Taken back")

    def redo(self, on_shelf: bool) -> None:
        """Does it again, and says what."""
        if on_shelf:
            self.pages.shelf().redo()
        else:
            self._move(self.session.past.redo_titles, self.session.redo, "Done again")

    def _move(self, titles: list[str], move: Callable[[], object], said: str) -> None:
        if titles:
            move()
            self.window.say(f"{said}: {titles[0]}.")

    def unseen(self, command: Command) -> Problem | None:
        """Why a command that would change the class, or a line, can't be done here: it is out of view."""
        title, stations = command.title.rstrip("…"), self.window.stations
        if self.session.plan is None:
            return None
        if command.at == "script" and (stations.here is None or stations.here.command != "to_words"):
            return Problem(f"“{title}” is done to a line of the script.", do="Go to the words first (F8).")
        changes = command.at == "sprig" or (command.at == "window" and command.menu in CHANGING)
        if changes and not stations.show_class:
            return Problem(
                f"“{title}” changes the class, which is not in view.", do="Go to its sprig first (F7)."
            )
        return None

    def try_out(self, command: str) -> None:
        """Shows what a grouping that is pointed at in a menu would do; "" for none any more."""
        self.session.drop_trial()
        if command and self.session.plan is not None and self.window.stations.show_class:
            with contextlib.suppress(Problem):  # pressing it says why
                self.window.sprig_actions.try_out(command)

    def show_library(self) -> None:
        """The library of movements."""
        self.window.keep_open(self.pages.rarely.LibraryView(self.session, self.window.theme))

    def make_movement(self, name: str) -> None:
        """The library, with a new movement of this name to be made."""
        library = self.pages.rarely.LibraryView(self.session, self.window.theme)
        self.window.keep_open(library)
        library.new(name)

    def show_stand(self) -> None:
        """The reading view."""
        if self.session.timed is not None:
            view = self.pages.later.ReadingView(self.session.timed, self.window.theme)
            view.setWindowFlag(Qt.WindowType.Window)
            view.resize(self.window.size())
            view.show()
            self.reading_view = view

    def show_keys(self) -> None:
        """Every action and its keys, and the way to any of them by name."""
        self.window.keep_open(self.pages.later.CommandPalette(self.window.commands.actions))

    def open_menus(self) -> None:
        """To the first menu; arrows go on."""
        bar = self.window.menuBar()
        bar.setFocus()
        bar.setActiveAction(bar.actions()[0])

    def show_about(self) -> None:
        """What this program is, and what it is not."""
        self.window.keep_open(self.pages.later.Telling(f"Yew Hour {__version__}", ABOUT))

    def what_went_wrong(self) -> None:
        """What is known of what went wrong, to be read, and written into a file that she may send."""
        self.window.keep_open(self.pages.later.WentWrong(self.session, None))

    def show_fault(self, fault: Fault) -> None:
        """Tells of a fault of ours. Nothing is put over a take: it is told there, and waits in the log."""
        take = self.pages.take.made
        if take is not None and take.busy:
            take.tell(str(fault))
        elif self._faults is None or not self._faults.isVisible():  # one at a time is enough
            self._faults = self.pages.later.WentWrong(self.session, fault)
            self.window.keep_open(self._faults)
