"""The shell: what the parts of the window may ask of all of it. `window` is the one there is."""

from __future__ import annotations

from abc import abstractmethod
from functools import cached_property
from types import ModuleType
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QDialog, QMainWindow

from yewhour.core.problem import Problem
from yewhour.ui.kit.theme import Theme
from yewhour.ui.sprig.sprig import Sprig


class Shell(QMainWindow):
    """A window with a sprig in it. another_wanted: one more window, dark or light."""

    another_wanted = Signal(bool)

    dark: bool
    sprig: Sprig
    actions_by_name: dict[str, QAction]

    @cached_property
    def later(self) -> ModuleType:
        """The stations and dialogs that are not there at the start."""
        # 60 ms of importing widgets that a window at its start does not show.
        from yewhour.ui.frame import later

        return later

    @cached_property
    def rarely(self) -> ModuleType:
        """The dialogs that bring in what is slow to import."""
        # 85 ms that changing a station can do without.
        from yewhour.ui.frame import rarely

        return rarely

    @property
    @abstractmethod
    def theme(self) -> Theme:
        """The colours of now."""

    @abstractmethod
    def dress(self) -> None:
        """Puts on the colours and the text size."""

    @abstractmethod
    def say(self, words: str) -> None:
        """Says that something is done."""

    @abstractmethod
    def tell(self, problem: Problem) -> None:
        """Says what went wrong."""

    @abstractmethod
    def keep_open(self, dialog: QDialog) -> None:
        """Opens a dialog over the window."""

    @abstractmethod
    def show_first_page(self) -> None:
        """The first page."""

    @abstractmethod
    def to_promise(self) -> None:
        """The promise."""

    @abstractmethod
    def to_back(self) -> None:
        """What really happened."""

    @abstractmethod
    def to_take(self) -> None:
        """The take."""

    @property
    @abstractmethod
    def back_page(self) -> Any:
        """What really happened."""

    @property
    @abstractmethod
    def shelf_page(self) -> Any:
        """What was made, and what goes out when."""

    @property
    @abstractmethod
    def shelving(self) -> Any:
        """The shelf."""
