"""Whatever is done, the keys stay in the page: no deed gives them to the head of the window."""

import random

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QApplication

from yewhour.ui.kit.commands import COMMANDS

STATIONS = ("to_promise", "to_sprig", "to_words", "to_back", "to_shelf")
# What asks in a dialog of its own, leaves the window, or is a way to another station.
ELSEWHERE = {
    one.name for one in COMMANDS if one.menu in ("Class", "View", "Help") or one.name.startswith("to_")
}
GOES = ("Open", "Record it", "The ", "Begin")  # to another class or station
ELSEWHERE |= {
    "show_acts",
    "show_library",
    "draft_why",
    "draft_else",
    "open_find",
    "find_movement",
    "show_stand",
}


def in_the_head(desk):
    focus = QApplication.focusWidget()
    return focus is not None and desk.window.head.isAncestorOf(focus)


@pytest.mark.parametrize("station", ["to_sprig", "to_words", "to_back"])
def test_no_command_gives_the_keys_to_the_head(desk, station):
    desk.press(station)
    dice = random.Random(station)
    if station in ("to_sprig", "to_words"):
        desk.window.sprig_actions.chosen.session.pick(desk.segment("low-lunge").use.step.id)
        desk.settle()
    names = [one.name for one in COMMANDS if one.name not in ELSEWHERE and not one.name.startswith("draft")]
    dice.shuffle(names)
    for name in names:
        desk.press(name)
        assert not in_the_head(desk), name
        while desk.session.past.undo_titles and "undo" not in name:
            desk.session.undo()


@pytest.mark.parametrize("station", STATIONS)
def test_no_button_of_a_page_gives_the_keys_to_the_head(desk, station):
    desk.press(station)
    if station == "to_sprig":
        desk.choose("low-lunge")
    page = desk.window.stations.here.page()
    for number in range(30):
        presses = [
            one for one in page.findChildren(QAbstractButton)
            if one.isVisible() and one.isEnabled() and one.focusPolicy() & Qt.FocusPolicy.TabFocus
            and not one.text().endswith("…") and not one.text().startswith(GOES)
        ]  # fmt: skip
        if number >= len(presses):
            break
        presses[number].setFocus()
        desk.key(Qt.Key.Key_Space)
        if desk.window.stations.here is None or desk.window.stations.here.command != station:
            desk.press(station)
        assert not in_the_head(desk), presses[number].text()
