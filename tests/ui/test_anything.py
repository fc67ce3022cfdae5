"""Whatever is done in whatever order, there is a class or a reason, and undo goes all the way back."""

import os
import random

import pytest
from PySide6.QtWidgets import QApplication

from tests.ui.conftest import Desk
from yewhour.content.paths import demo_classes
from yewhour.core.plan.places import nodes_of
from yewhour.ui.kit.commands import COMMANDS

QUIET = {"close", "new_window", "new_class", "show_start", "open_class", "undo", "redo"}
FEW = {
    "show_library",
    "show_keys",
    "show_about",
    "show_stand",
    "export_script",
    "show_versions",
    "save_class",
}


def act(desk, dice):
    """One act at random: something chosen, something typed, something done."""
    window, session = desk.window, desk.session
    kind = dice.random()
    if kind < 0.3 and session.shown is not None:
        segment = dice.choice(session.shown.segments)
        session.select(segment.id, extend=dice.random() < 0.2, toggle=dice.random() < 0.2)
    elif kind < 0.36 and session.plan is not None and session.plan.sections:
        session.pick_section(dice.randrange(len(session.plan.sections)))
    elif kind < 0.42 and session.plan is not None and nodes_of(session.plan):
        session.pick(dice.choice(list(nodes_of(session.plan))))
    elif kind < 0.5:
        window.finder.field.setText(
            dice.choice(["lunge", "hips 4b", "final rest 2:00", "# Part", "cobra 3b pair", "zz"])
        )
        window.finder.add()
    elif kind < 0.6:
        window.go_to("to_words")
        script = window.pages.words().script
        if script.lines.rows:
            script.setCurrentIndex(script.lines.index(dice.randrange(len(script.lines.rows))))
            if script.row is not None and dice.random() < 0.4:
                window.pages.words().line_actions.reword(
                    script.row, dice.choice(["", "Left, then right.", "Two more.", "a " * 90])
                )
    else:
        command = dice.choice([command for command in COMMANDS if command.name not in QUIET | FEW])
        window.commands.actions[command.name].trigger()
        for dialog in window._dialogs:
            dialog.close()
        if command.name == "add_line" and window.pages.words().line_actions.asking is not None:
            window.pages.words().line_actions.asking.field.setText("A line of mine.")
            window.pages.words().line_actions.asking.accept()
        popup = QApplication.activePopupWidget()
        if popup is not None:
            popup.close()


@pytest.mark.parametrize("seed", range(int(os.environ.get("YEW_ACTS", "2"))))
def test_whatever_is_done_the_class_holds(qtbot, seed):
    dice = random.Random(seed)
    desk = Desk(qtbot, dice.choice(demo_classes()))
    first = desk.session.plan
    for _ in range(60):
        act(desk, dice)
        if dice.random() < 0.5:
            desk.settle()
            timed = desk.timed
            assert (
                timed is not None
                or desk.session.trouble is not None
                or not any(section.body for section in desk.session.plan.sections)
            )
            if timed is not None:
                assert timed.segments[-1].end == timed.length
                for cue, after in zip(timed.cues, timed.cues[1:], strict=False):
                    assert cue.end <= after.start
    desk.settle()
    desk.window.grab()
    desk.session.undo(500)
    desk.settle()
    assert desk.session.plan == first
    desk.leave()
