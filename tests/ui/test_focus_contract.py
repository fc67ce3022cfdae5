"""Whatever is done, the keys stay in the page: no deed gives them to the head of the window.

Every key of the table is pressed where each part of each station has the focus. Few of them here; all of them
with YEW_KEYS=1 (some twenty minutes).
"""

import os
import random

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QLineEdit, QPlainTextEdit, QTextEdit, QWidget

from yewhour.ui.kit.commands import COMMANDS

EVERY = bool(os.environ.get("YEW_KEYS"))
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
    for name in names if EVERY else names[: len(names) // 2]:
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


TYPED = (QLineEdit, QPlainTextEdit, QTextEdit)
# What closes, opens a window of its own, or has the screen to itself.
APART = {"close", "new_window", "show_stand", "open_menus", "to_take"}
KEYS = [(one.name, key) for one in COMMANDS if one.name not in APART for key in one.keys]
PLAIN = (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ShiftModifier)
KEY_ESCAPE = Qt.Key.Key_Escape  # and what comes after it: keys that type nothing
FEW = 12  # presses at a station, else


def parts_of(page, sprig):
    """Everything of a station that can have the focus, the sprig too where it is beside it."""
    found = [*page.findChildren(QWidget), *([sprig] if sprig.isVisible() else [])]
    seen = set()
    for one in found:
        if one.isVisible() and one.isEnabled() and one.focusPolicy() & Qt.FocusPolicy.TabFocus:
            name = (type(one), one.accessibleName(), one.objectName())
            if name not in seen:
                seen.add(name)
                yield one


def there_again(desk, station, plan):
    """Back to where the test stands: no dialog, the class as it was, the station."""
    for dialog in desk.window._dialogs:
        dialog.close()
    popup = QApplication.activePopupWidget()
    if popup is not None:
        popup.close()
    desk.window.activateWindow()  # there is no window manager that would
    desk.settle()
    desk.qtbot.waitUntil(lambda: not desk.session.jobs.busy("draft"), timeout=20_000)
    desk.settle()
    if desk.session.plan is not plan:
        desk.session.undo(200)
        if desk.session.plan != plan:
            desk.session.begin(plan)
        desk.settle()
    if desk.window.stations.here is None or desk.window.stations.here.command != station:
        desk.press(station)


@pytest.mark.parametrize("station", STATIONS)
def test_every_key_acts_on_what_has_the_focus_and_on_nothing_else(desk, station):
    dice = random.Random(station)
    desk.press(station)
    if station in ("to_sprig", "to_words"):
        desk.choose("low-lunge")
    window, plan, pressed = desk.window, desk.session.plan, 0
    number = len(list(parts_of(window.stations.here.page(), window.sprig)))
    cases = [(part, *key) for part in range(number) for key in KEYS]
    cases = cases if EVERY else dice.sample(cases, min(FEW, len(cases)))
    for at, name, key in cases:
        there_again(desk, station, plan)
        parts = list(parts_of(window.stations.here.page(), window.sprig))
        part = parts[at % len(parts)]
        part.setFocus()
        part = QApplication.focusWidget()
        if part is None:
            continue
        pressed += 1
        before, picked = desk.session.plan, desk.session.picked
        what = f"{name} ({key}) at {part.accessibleName() or type(part).__name__}"
        stroke = QKeySequence(key)[0]
        QTest.keyClick(part, stroke.key(), stroke.keyboardModifiers())
        desk.settle()
        assert QApplication.focusWidget() is not None, what
        assert not in_the_head(desk), what
        if stroke.keyboardModifiers() in PLAIN and isinstance(part, TYPED) and stroke.key() < KEY_ESCAPE:
            assert desk.session.plan.sections == before.sections, what  # it is typed, and does nothing else
        if station in ("to_back", "to_shelf") and not window.stations.show_class:
            assert desk.session.plan == before, what  # the class is out of view
        if station == "to_promise" and part is not window.sprig and at_of(name) != "window":
            assert desk.session.picked == picked, what
        if desk.session.trial is None and desk.session.section is None and desk.session.selected:
            mine = desk.session.segments_of(desk.session.picked)
            assert not mine or desk.session.selected in [one.id for one in mine], what
    assert pressed > 0.8 * len(cases)


def at_of(name):
    """Where a command's keys work."""
    return next(one.at for one in COMMANDS if one.name == name)
