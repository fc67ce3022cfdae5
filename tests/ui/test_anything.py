"""Whatever is done in whatever order: a deed changes what it says and nothing else, undo goes all the way
back, what is saved, kept and written as an outline is the class, and what the window tells of it is true."""

import os
import random
from collections import Counter

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.ui.conftest import Desk
from yewhour.content.paths import demo_classes
from yewhour.content.terms import load_terms
from yewhour.core.lengths import show_length
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.plan.nodes import Step, walk
from yewhour.core.plan.places import nodes_of, whole
from yewhour.core.problem import Problem
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.classes.own_movements import table_of, write_own
from yewhour.ui.kit.commands import COMMANDS

# What closes, or begins another class.
QUIET = {
    "close", "new_window", "new_class", "show_start", "open_class", "undo", "redo",
    "draft_like", "draft_gentler", "draft_chair",
}  # fmt: skip
# Deeds to the numbers of what is chosen: no other step is another after them.
NUMBERS = {
    "more", "fewer", "lock", "gentler", "stronger", "clock", "inhale", "exhale",
    "second_more", "second_fewer", "second_out",
}  # fmt: skip
# Deeds that move, group or take apart: what is done, and with which own words, stays as it is.
ORDER = {"earlier", "later", "both_sides", "rounds"}
FREE = {
    "draft_another", "draft_rest", "draft_part", "draft_fill", "draft_not", "draft_else", "mend",
    "tell_otherwise",
}  # fmt: skip


def steps(plan):
    """Every step by its id."""
    return {name: node for name, node in nodes_of(plan).items() if isinstance(node, Step)}


def outline_of(desk, plan):
    return write_outline(plan, desk.session.teaching_data.library)


class Act:
    """One act at random: something chosen, typed, pulled, done; and what it may change."""

    def __init__(self, desk, dice):
        self.desk, self.dice = desk, dice
        self.name = ""

    def do(self):
        desk, dice, session = self.desk, self.dice, self.desk.session
        kind = dice.random()
        if kind < 0.22 and session.shown is not None:
            segment = dice.choice(session.shown.segments)
            session.select(segment.id, extend=dice.random() < 0.2, toggle=dice.random() < 0.2)
        elif kind < 0.27 and session.plan is not None and session.plan.sections:
            session.pick_section(dice.randrange(len(session.plan.sections)))
        elif kind < 0.33 and session.plan is not None and nodes_of(session.plan):
            session.pick(dice.choice(list(nodes_of(session.plan))))
        elif kind < 0.40:
            self.name = "find"
            lines = ["lunge", "hips 4b", "final rest 2:00", "# Part", "cobra 3b pair", "zz"]
            desk.window.finder.field.setText(dice.choice(lines))
            desk.window.finder.add()
        elif kind < 0.50:
            self.name = "words"
            self.words()
        elif kind < 0.55:
            self.name = "drag"
            self.drag()
        elif kind < 0.59:
            self.name = "library"
            self.library()
        else:
            self.name = dice.choice([one for one in COMMANDS if one.name not in QUIET]).name
            self.command()

    def words(self):
        self.desk.window.go_to("to_words")
        page = self.desk.window.pages.words()
        if page.script.lines.rows:
            row = self.dice.randrange(len(page.script.lines.rows))
            page.script.setCurrentIndex(page.script.lines.index(row))
            if page.script.row is not None and self.dice.random() < 0.6:
                said = ["", "Left, then right.", "Two more.", "a " * 90, "Right hand up the mast."]
                page.line_actions.reword(page.script.row, self.dice.choice(said))

    def drag(self):
        sprig = self.desk.window.sprig
        if not sprig.isVisible() or sprig.height() < 60:
            return
        start = QPoint(
            self.dice.randrange(20, sprig.width() - 20), self.dice.randrange(20, sprig.height() - 20)
        )
        end = start + QPoint(self.dice.randrange(-120, 120), self.dice.randrange(-120, 120))
        QTest.mousePress(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
        for part in (0.3, 0.7, 1.0):
            QTest.mouseMove(sprig, start + (end - start) * part)
        QTest.mouseRelease(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, end)

    def library(self):
        """A movement of the class is made hers, with other words."""
        session = self.desk.session
        if session.timed is None or session.busy:
            return
        words = session.teaching_data
        here = sorted({one.use.movement.id for one in session.timed.segments} & set(words.library))
        movement = words.library[self.dice.choice(here)]
        try:
            table = {**table_of(movement), "effort": self.dice.randrange(1, 5)}
            terms = load_terms(words.positions)
            session.change_library("Keep it", movement.id, lambda: write_own(movement.id, table, terms))
        except Problem:
            return

    def command(self):
        window = self.desk.window
        window.commands.actions[self.name].trigger()
        for dialog in window._dialogs:
            dialog.close()
        adding = window.pages.words.made
        if self.name == "add_line" and adding is not None and adding.line_actions.asking is not None:
            adding.line_actions.asking.field.setText("A line of mine.")
            adding.line_actions.asking.accept()
        popup = QApplication.activePopupWidget()
        if popup is not None:
            popup.close()

    def holds(self, before, picked, after):
        """What a deed by this name may have changed of a plan."""
        old, new = steps(before), steps(after)
        if self.name in NUMBERS:
            mine = {inner.id for node in whole(before, picked) for inner in walk((node,))}
            assert {name for name in old if old[name] != new.get(name)} <= mine, self.name
            assert old.keys() == new.keys(), self.name
        elif self.name in ORDER:
            assert Counter(one.movement for one in old.values()) == Counter(
                one.movement for one in new.values()
            ), self.name
            assert said(before) == said(after), self.name
        elif self.name in ("leave_out", "cut"):
            mine = {inner.id for node in whole(before, picked) for inner in walk((node,))}
            assert old.keys() - new.keys() <= mine, self.name
            assert all(new[name] == old[name] for name in new), self.name
        elif self.name in ("again", "paste", "find"):
            assert all(new.get(name) == old[name] for name in old), self.name
        elif self.name == "words":
            assert {n: s.movement for n, s in old.items()} == {n: s.movement for n, s in new.items()}
            assert sum((said(before) - said(after)).values()) <= 2, self.name
        elif self.name == "library":
            assert before == after


def said(plan):
    """Every own word in a plan."""
    return Counter(edit.text for edit in plan.edits)


def told_is_true(desk):
    """What the window says of the class, counted once more."""
    session, window = desk.session, desk.window
    if session.plan is not None:
        mark = " *" if session.plan != session.saved else ""
        assert window.windowTitle() == f"{session.plan.brief.title}{mark} – Yew Hour"
    timed = session.timed
    if timed is None or session.trial is not None or session.trouble is not None:
        return
    length_s = sum(segment.length for segment in timed.segments) / 10
    assert abs(length_s - timed.length_s) < 0.05
    if session.unfinished:
        assert "still to fill" in window.head.promise.text()
    else:
        assert show_length(length_s) in window.head.promise.text()
    known = nodes_of(session.plan)
    assert all(name in known for name in session.picked)
    if session.selected:
        assert session.segment(session.selected) is not None


def kept_is_the_class(desk, dice, tmp_path):
    """Killed now, saved now, or written as an outline: the same class comes back."""
    plan = desk.session.plan
    if plan is None:
        return
    if desk.session.changed:
        desk.window.files.keep()
        assert read_plan(desk.window.files.keeper.file) == plan
    path = tmp_path / f"fuzz-{dice.randrange(10**9)}.yewhour"
    path.write_bytes(plan_bytes(plan))
    assert read_plan(path) == plan
    path.unlink()
    text = outline_of(desk, plan)
    words = desk.session.teaching_data
    assert outline_of(desk, read_outline(text, words.library, "fuzz", words.known)) == text


@pytest.mark.parametrize("seed", range(int(os.environ.get("YEW_ACTS", "1"))))
def test_whatever_is_done_the_class_holds(qtbot, seed, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    dice = random.Random(seed)
    desk = Desk(qtbot, dice.choice(demo_classes()))
    first = desk.session.plan
    for _ in range(60):
        qtbot.waitUntil(lambda: not desk.session.jobs.busy("draft"), timeout=20_000)
        act = Act(desk, dice)
        before, picked = desk.session.plan, desk.session.picked
        acts = list(desk.session.past.undo_titles)
        act.do()
        after, now = desk.session.plan, desk.session.past.undo_titles
        if now == acts and act.name not in FREE:
            assert before == after, act.name  # nothing was done, and nothing is another
        elif before != after and act.name not in FREE:
            act.holds(before, picked, after)
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
                for cue, later in zip(timed.cues, timed.cues[1:], strict=False):
                    assert cue.end <= later.start
            told_is_true(desk)
            if dice.random() < 0.2:
                kept_is_the_class(desk, dice, tmp_path)
        if dice.random() < 0.1 and desk.session.past.undo_titles:
            was = outline_of(desk, desk.session.plan)
            desk.session.undo()
            desk.session.redo()
            assert outline_of(desk, desk.session.plan) == was
    desk.settle()
    qtbot.waitUntil(lambda: not desk.session.jobs.busy("draft"), timeout=20_000)  # one may be on its way
    desk.settle()
    desk.window.grab()
    desk.session.undo(500)
    desk.settle()
    assert desk.session.plan == first
    desk.leave()
