"""A window is within its screen, frame and all, and a path that was typed is the one that is taken."""

import pytest
from PySide6.QtCore import QRect, Qt
from PySide6.QtTest import QTest

from yewhour.ui.frame.app import fitted
from yewhour.ui.frame.dialogs.choose_file import ChooseFile
from yewhour.ui.frame.dialogs.file_request import FileRequest

ROOMS = QRect(0, 0, 1280, 800), QRect(0, 28, 1366, 740), QRect(1280, 0, 1920, 1080)


@pytest.mark.parametrize("room", ROOMS)
@pytest.mark.parametrize("at", [(0, 0), (100, 60), (-20, -30), (1400, 40)])
def test_a_window_and_its_frame_fit_the_screen(room, at):
    window = QRect(*at, 1280, 800)
    frame = window.adjusted(-3, -26, 3, 3)
    result = fitted(window, frame, room)
    assert room.contains(result.adjusted(-3, -26, 3, 3))
    assert result.size() == window.size().boundedTo(result.size())
    again = fitted(result, result.adjusted(-3, -26, 3, 3), room)
    assert again == result


def test_a_path_that_is_typed_is_opened_and_not_what_is_pointed_at(desk, tmp_path):
    for name in ("one.yewhour", "two.yewhour"):
        (tmp_path / name).write_text("{}")
    dialog = ChooseFile(FileRequest("Open", "Open", (".yewhour",)), tmp_path)
    taken = []
    dialog.chosen.connect(taken.append)
    desk.window.keep_open(dialog)
    QTest.keyClick(dialog.list, Qt.Key.Key_Slash)
    assert dialog.path.text() == "/"
    dialog.path.setText(str(tmp_path / "two.yewhour"))
    dialog.go_button.click()
    assert taken == [tmp_path / "two.yewhour"]
    dialog = ChooseFile(FileRequest("Open", "Open", (".yewhour",)), tmp_path)
    desk.window.keep_open(dialog)
    dialog.path.setText("nowhere.yewhour")
    dialog.go_button.click()
    assert "There is no file" in dialog.message.text()
    dialog.reject()
