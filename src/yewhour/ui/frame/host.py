"""What the parts of a window may ask of it, and no more."""

from typing import Protocol

from PySide6.QtWidgets import QDialog

from yewhour.core.problem import Problem
from yewhour.ui.kit.theme import Theme


class Host(Protocol):
    """A window, as its parts know it."""

    @property
    def theme(self) -> Theme:
        """The colours of now."""
        ...

    def say(self, words: str) -> None:
        """Says that something is done."""
        ...

    def tell(self, problem: Problem) -> None:
        """Says what went wrong."""
        ...

    def keep_open(self, dialog: QDialog) -> None:
        """Opens a dialog over the window."""
        ...

    def go_to(self, station: str) -> None:
        """To a station, by the command that goes there."""
        ...

    def show_first_page(self) -> None:
        """The shelf or every way to begin a class."""
        ...

    def show_beginnings(self) -> None:
        """Every way to begin a class."""
        ...

    def open_another(self) -> None:
        """One more window."""
        ...
