"""A figure on its plate: a joint is pulled by pointer or key, taken back, kept as hers, given back."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from yewhour.core.figure.validate import figure_faults
from yewhour.state.classes.own_movements import own_file

KEY, SHIFT, CONTROL = Qt.Key, Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def view(desk, tmp_path, monkeypatch):
    """The library on the tree, over a folder of her own that is empty."""
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    view.choose("tree")
    desk.settle()
    return view


def pull(board, joint, by, index=0):
    """A joint taken hold of and let go of elsewhere."""
    start = board.at(index, joint).toPoint()
    QTest.mousePress(board, Qt.MouseButton.LeftButton, pos=start)
    for part in (2, 1):
        QTest.mouseMove(board, start + QPoint(by[0] // part, by[1] // part))
    QTest.mouseRelease(board, Qt.MouseButton.LeftButton, pos=start + QPoint(*by))


def test_a_joint_is_pulled_and_what_rests_stays(desk, view):
    panel, board = view.plate.figure, view.plate.figure.board
    before, foot = board.figures, board.at(0, "ankle")
    pull(board, "wrist", (40, 50))
    assert board.figures != before
    assert (board.at(0, "ankle") - foot).manhattanLength() < 12
    assert view.plate.table["figure"][0].startswith("whole, front")
    assert view.keep_button.isEnabled()
    assert not panel.undo_button.isHidden()
    panel.undo_button.click()
    assert board.figures == before
    assert not board.can_undo
    assert "figure" not in view.plate.table  # as it was, not a line that says the same
    assert not view.keep_button.isEnabled()


def test_it_is_kept_as_hers_drawn_everywhere_and_given_back(desk, view):
    board = view.plate.figure.board
    before = board.figures
    pull(board, "wrist", (40, 50))
    changed = board.figures
    view.keep()
    assert "figure" in own_file().read_text()
    board = view.plate.figure.board
    assert board.figures[0].angle("arm") == pytest.approx(changed[0].angle("arm"), abs=2)
    assert desk.session.teaching_data.library["tree"].figure
    view.plate.figure.usual_button.click()
    view.keep()
    assert "figure" not in own_file().read_text()
    assert board.figures == before


def test_keys_alone_choose_a_joint_pull_it_and_take_it_back(desk, view):
    board = view.plate.figure.board
    board.setFocus()
    before = board.figures
    while board.accessibleDescription() != "the hand":
        QTest.keyClick(board, KEY.Key_Right)
    for _ in range(3):
        QTest.keyClick(board, KEY.Key_Down, SHIFT)
    assert board.figures != before
    for _ in range(3):
        QTest.keyClick(board, KEY.Key_Z, CONTROL)
    assert board.figures == before
    assert not board.can_undo


def test_what_nobody_can_do_is_told_and_not_drawn(desk, view):
    board = view.plate.figure.board
    board.pull(0, "head", (1.5, 0.1))
    assert "can't be" in view.plate.figure.hint.text()
    assert not list(figure_faults(board.figures[0]))


def test_a_click_without_a_move_changes_nothing(desk, view):
    board = view.plate.figure.board
    pull(board, "wrist", (0, 0))
    assert "figure" not in view.plate.table
    assert not board.can_undo
