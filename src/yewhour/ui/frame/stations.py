"""The stations of the window, in the order of the work."""

from collections.abc import Callable
from typing import Any, NamedTuple


class Station(NamedTuple):
    """One station: the deed that goes there, its title, the window's page, what takes the focus to it, and
    whether it has the screen to itself, and whether it is there without a class."""

    deed: str
    title: str
    page: str
    focus: Callable[[Any], object]
    alone: bool = False
    always: bool = False


STATIONS = (
    Station("to_promise", "Promise", "promise_page", lambda window: window.promise_page.take_focus()),
    Station("to_sprig", "Sprig", "build_page", lambda window: window.sprig.setFocus()),
    Station("to_words", "Words", "words", lambda window: window.words.script.setFocus()),
    Station("to_take", "Take", "take_page", lambda window: window.take_page.take_focus(), True),
    Station("to_back", "Look back", "back_page", lambda window: window.back_page.take_focus()),
    Station("to_shelf", "Shelf", "shelf_page", lambda window: window.shelf_page.take_focus(), always=True),
)
