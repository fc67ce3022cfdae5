"""The class as sound from the window: off the interface thread, with its progress, stopped when asked."""

import pytest
import soundfile
from PySide6.QtCore import Qt

from yewhour.content.paths import DEMO
from yewhour.ui.frame.dialogs.exporting import SOUNDS


@pytest.fixture
def exporting(desk, tmp_path):
    desk.window.file_commands.open_file(DEMO / "four-at-the-slip.yewhour")
    desk.settle()
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    dialog.folder.setText(str(tmp_path))
    dialog.name.setText("slip")
    for number in range(dialog.list.count()):
        item = dialog.list.item(number)
        wanted = item.data(Qt.ItemDataRole.UserRole) == "sound"
        item.setCheckState(Qt.CheckState.Checked if wanted else Qt.CheckState.Unchecked)
        if wanted:
            dialog.list.setCurrentRow(number)
    return dialog


def test_the_sound_is_written_and_as_long_as_the_class(exporting, desk, tmp_path):
    assert "4:00 of sound" in exporting.preview.text.toPlainText()
    assert "slip.flac" in exporting.names.text()
    said = []
    shown = exporting._show_progress
    exporting._show_progress = lambda number, name: (said.append(name), shown(number, name))
    exporting.write_button.click()
    desk.qtbot.waitUntil(lambda: not exporting.busy, timeout=60_000)
    assert "Written" in exporting.names.text()
    sound, rate = soundfile.read(tmp_path / "slip.flac")
    assert len(sound) == 240 * rate
    assert any("50 %" in one or "60 %" in one for one in said)


def test_a_stop_leaves_no_file(exporting, desk, tmp_path):
    exporting.write_button.click()
    exporting.stop_button.click()
    desk.qtbot.waitUntil(lambda: not exporting.busy, timeout=60_000)
    assert "Stopped" in exporting.names.text()
    assert list(tmp_path.iterdir()) == []


def test_the_ways_to_write_sound_are_among_the_ways(exporting):
    keys = [exporting.list.item(n).data(Qt.ItemDataRole.UserRole) for n in range(exporting.list.count())]
    assert set(SOUNDS) <= set(keys)
