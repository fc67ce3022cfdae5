"""The whole story by keyboard alone: from an empty window to an exported script."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.ui.conftest import ALT, CTRL, SHIFT
from yewhour.core.plan.nodes import Pair, Rounds

KEY = Qt.Key

pytestmark = pytest.mark.painted


def tab_to(desk, name, most=60):
    """Goes on with Tab until the part of this name has the focus."""
    for _ in range(most):
        if QApplication.focusWidget().accessibleName().startswith(name):
            return
        desk.key(KEY.Key_Tab)
    raise AssertionError(f"Tab never comes to {name!r}")


def test_a_class_is_made_by_keyboard_alone(bare_desk, tmp_path, monkeypatch):
    desk = bare_desk
    window = desk.window

    # An empty class, and its promise.
    desk.key(KEY.Key_N, CTRL)
    desk.key(KEY.Key_A, CTRL)
    desk.type("Watch below")
    desk.key(KEY.Key_Return)
    tab_to(desk, "Length:")
    desk.key(KEY.Key_Return)
    desk.type("16:00")
    desk.key(KEY.Key_Return)
    tab_to(desk, "Level:")
    desk.key(KEY.Key_Return)
    desk.type("be")
    desk.key(KEY.Key_Return)
    brief = desk.session.plan.brief
    assert (brief.title, brief.target_s, brief.level) == ("Watch below", 960, "beginners")

    # Movements, by typed lines, from one field.
    desk.key(KEY.Key_K, CTRL)
    for line in ("welcome", "seated breath", "low lunge 4b pair"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    assert isinstance(desk.session.plan.sections[0].body[-1], Pair)

    # Into the pair, and the chain goes on.
    desk.key(KEY.Key_Escape)
    assert QApplication.focusWidget() is window.sprig
    desk.key(KEY.Key_Right)
    desk.key(KEY.Key_K, CTRL)
    desk.type("pyramid 3b")
    desk.key(KEY.Key_Return)
    pair = desk.session.plan.sections[0].body[-1]
    assert [step.movement for step in pair.body] == ["low-lunge", "pyramid"]

    # A part of its own, and a flow in it: three movements chosen with Shift, in rounds.
    desk.type("# Flow")
    desk.key(KEY.Key_Return)
    for line in ("arms overhead", "standing fold", "half lift"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    assert [section.title for section in desk.session.plan.sections] == ["Practice", "Flow"]
    desk.key(KEY.Key_Escape)
    desk.key(KEY.Key_Up, SHIFT)
    desk.key(KEY.Key_Up, SHIFT)
    assert len(desk.session.picked) == 3
    desk.key(KEY.Key_W)
    group = desk.session.plan.sections[1].body[0]
    assert isinstance(group, Rounds)
    desk.key(KEY.Key_M)
    assert desk.session.plan.sections[1].body[0].times == 4

    # A counted set, a rest, and the way back.
    desk.key(KEY.Key_K, CTRL)
    for line in ("rolling bridge 8x", "# Rest", "final rest 3:00", "coming back"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    assert desk.segment("bridge-roll").amount >= 4
    assert desk.timed.length_s == 960

    # More, kept, later, out of the class, and back.
    desk.key(KEY.Key_Escape)
    desk.key(KEY.Key_Home)
    for _ in range(40):
        if window.session.segment(desk.session.selected).use.movement.id == "bridge-roll":
            break
        desk.key(KEY.Key_Down)
    amount = desk.segment("bridge-roll").amount
    desk.key(KEY.Key_M)
    assert desk.segment("bridge-roll").amount == amount + 1
    assert desk.segment("bridge-roll").use.step.locked
    desk.key(KEY.Key_L)
    assert not desk.segment("bridge-roll").use.step.locked
    desk.key(KEY.Key_Up, ALT)
    assert "Move" in desk.session.past.undo_titles[0]
    desk.key(KEY.Key_Z, CTRL)
    desk.key(KEY.Key_Delete)
    assert not [s for s in desk.timed.segments if s.use.movement.id == "bridge-roll"]
    desk.key(KEY.Key_Z, CTRL)
    assert desk.segment("bridge-roll")

    # What is wrong is mended with one key, for as long as anything can be.
    for _ in range(8):
        if not window.foot.mend_button.isVisible():
            break
        before = desk.session.plan
        desk.key(KEY.Key_M, CTRL)
        assert desk.session.plan != before
    assert not [finding for finding in desk.timed.findings if finding.severity == "wrong"]

    # Another length.
    desk.key(KEY.Key_Plus)
    assert desk.session.plan.brief.target_s == 1020

    # Words: rewritten, mirrored, left unsaid, one taken in.
    desk.key(KEY.Key_F8)
    script = window.pages.words().script
    assert QApplication.focusWidget() is script
    desk.key(KEY.Key_Home)
    for _ in range(400):
        row = script.row
        if row is not None and row.cue and row.side == "right" and row.purpose in ("aim", "check", "place"):
            break
        desk.key(KEY.Key_Down)
    desk.key(KEY.Key_Return)
    QTest.keyClicks(QApplication.focusWidget(), "Right foot forward, left knee down.")
    desk.key(KEY.Key_Return)
    assert script.row.text == "Right foot forward, left knee down."
    assert script.row.cue.own
    desk.key(KEY.Key_M)
    assert any(cue.text == "Left foot forward, right knee down." for cue in desk.timed.cues)
    desk.key(KEY.Key_P)
    at = script.row.cue.start
    desk.key(KEY.Key_Down, ALT)
    assert script.row.cue.start == at + 5
    desk.key(KEY.Key_R)
    assert not script.row.cue.own

    # And written.
    desk.key(KEY.Key_E, CTRL)
    dialog = window._dialogs[-1]
    dialog.folder.setText(str(tmp_path))
    QTest.keyClick(dialog.write_button, KEY.Key_Return)
    desk.qtbot.waitUntil(dialog.folder_button.isVisible, timeout=5000)
    QTest.keyClick(QApplication.focusWidget(), KEY.Key_Return)
    assert not dialog.isVisible()
    assert (tmp_path / "watch-below.txt").exists()

    # Saved, so that nothing is left to keep. (There is no window manager here to give the focus back.)
    window.activateWindow()
    desk.settle()
    script.setFocus()
    desk.key(KEY.Key_S, CTRL)
    assert QApplication.focusWidget() is window._dialogs[-1].name
    desk.type(str(tmp_path / "watch"))
    desk.key(KEY.Key_Return)
    assert not desk.session.changed
    assert (tmp_path / "watch.yewhour").exists()


def test_a_first_class_takes_no_more_than_300_keystrokes(bare_desk, tmp_path, monkeypatch):
    """A promise, a two-sided chain of three, a flow, a counted set, rest, closing, a fix, three lines."""
    monkeypatch.chdir(tmp_path)
    desk = Counted(bare_desk)
    window = bare_desk.window
    desk.key((KEY.Key_N, CTRL))
    desk.type("Watch below")
    desk.key(KEY.Key_Return, KEY.Key_Tab, KEY.Key_Return)
    desk.type("16")
    desk.key(KEY.Key_Return, KEY.Key_F7)
    assert bare_desk.session.plan.brief.target_s == 960
    desk.key((KEY.Key_K, CTRL))
    for line in ("welc", "low lu", "half spl", "pyram"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    desk.key(KEY.Key_Escape, *[(KEY.Key_Up, SHIFT)] * 4, KEY.Key_B)
    chain = bare_desk.session.plan.sections[0].body[-1]
    assert isinstance(chain, Pair)
    assert len(chain.body) == 3
    desk.key(KEY.Key_Escape, (KEY.Key_K, CTRL))
    for line in ("arms up", "fold", "half li"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    desk.key(KEY.Key_Escape, (KEY.Key_Up, SHIFT), (KEY.Key_Up, SHIFT), KEY.Key_W)
    assert any(isinstance(node, Rounds) for node in bare_desk.session.plan.sections[0].body)
    desk.key(KEY.Key_Escape, (KEY.Key_K, CTRL))
    for line in ("bridge roll 8x", "final rest", "coming b", "farew"):
        desk.type(line)
        desk.key(KEY.Key_Return)
    desk.key((KEY.Key_M, CTRL), KEY.Key_F8, KEY.Key_Home)
    for words in (
        "Good morning to the watch below.",
        "Let the ropes go slack for once.",
        "Sit as if the boat were tied up.",
    ):
        desk.key(KEY.Key_Return)
        desk.type(words)
        desk.key(KEY.Key_Return, KEY.Key_Down)
    assert sum(cue.own for cue in bare_desk.timed.cues) == 3
    desk.key((KEY.Key_E, CTRL), KEY.Key_Return)
    assert window._dialogs
    assert desk.count <= 300


class Counted:
    """A desk whose keystrokes are counted."""

    def __init__(self, desk):
        self.desk, self.count = desk, 0

    def key(self, *keys):
        for one in keys:
            key, modifiers = one if isinstance(one, tuple) else (one, Qt.KeyboardModifier.NoModifier)
            self.desk.key(key, modifiers)
            self.count += 1

    def type(self, text):
        self.desk.type(text)
        self.count += len(text)
