"""The class as sound from the window: off the interface thread, with its progress, stopped when asked."""

import pytest
import soundfile
from PySide6.QtCore import Qt

from tests.conftest import made_of
from yewhour.core.plan.nodes import Step
from yewhour.state.classes.class_file import plan_bytes
from yewhour.ui.frame.dialogs.exporting import SOUNDS


@pytest.fixture
def exporting(desk, tmp_path):
    short = made_of(Step(movement="child", amount=2, locked=True), length_s=None, title="Slip", target_s=41)
    (tmp_path / "hers").mkdir()
    path = tmp_path / "hers" / "slip.yewhour"
    path.write_bytes(plan_bytes(short.plan))
    desk.window.file_commands.open_file(path)
    desk.settle()
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    folder = tmp_path / "out"
    folder.mkdir()
    dialog.folder.setText(str(folder))
    dialog.name.setText("slip")
    for number in range(dialog.list.count()):
        item = dialog.list.item(number)
        wanted = item.data(Qt.ItemDataRole.UserRole) == "sound"
        item.setCheckState(Qt.CheckState.Checked if wanted else Qt.CheckState.Unchecked)
        if wanted:
            dialog.list.setCurrentRow(number)
    return dialog


def test_the_sound_is_written_and_as_long_as_the_class(exporting, desk, tmp_path):
    assert "0:41 of sound" in exporting.preview.text.toPlainText()
    assert "slip.flac" in exporting.names.text()
    said = []
    shown = exporting._show_progress
    exporting._show_progress = lambda number, name: (said.append(name), shown(number, name))
    exporting.write_button.click()
    desk.qtbot.waitUntil(lambda: not exporting.busy, timeout=60_000)
    assert "Written" in exporting.names.text()
    sound, rate = soundfile.read(tmp_path / "out" / "slip.flac")
    assert len(sound) == 41 * rate
    assert any("50 %" in one or "60 %" in one for one in said)


def test_a_stop_leaves_no_file(exporting, desk, tmp_path):
    exporting.write_button.click()
    exporting.stop_button.click()
    desk.qtbot.waitUntil(lambda: not exporting.busy, timeout=60_000)
    assert "Stopped" in exporting.names.text()
    assert list((tmp_path / "out").iterdir()) == []


def test_the_ways_to_write_sound_are_among_the_ways(exporting):
    keys = [exporting.list.item(n).data(Qt.ItemDataRole.UserRole) for n in range(exporting.list.count())]
    assert set(SOUNDS) <= set(keys)
