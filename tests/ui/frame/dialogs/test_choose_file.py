"""Asking where: folders are gone into, paths typed, and nothing is written over unasked."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from yewhour.ui.frame.dialogs.choose_file import ChooseFile
from yewhour.ui.frame.dialogs.file_request import FileRequest

KEY = Qt.Key
OPEN = FileRequest("Open a class", "Open", (".yewhour",))
SAVE = FileRequest("Save the class", "Save", (".yewhour",), save=True)
FOLDER = FileRequest("Where to", "This folder", folder=True)


@pytest.fixture
def ask(qtbot, tmp_path):
    """Opens the dialog over a small tree of folders; what it chose is in `taken`."""
    (tmp_path / "inner/deep").mkdir(parents=True)
    (tmp_path / ".hidden").mkdir()
    for name in ("ebb.yewhour", "flood.YEWHOUR", "notes.txt", "inner/neap.yewhour"):
        (tmp_path / name).write_text("{}")

    def opened(wanted, name=""):
        dialog = ChooseFile(wanted, tmp_path, name)
        dialog.taken = []
        dialog.chosen.connect(dialog.taken.append)
        qtbot.addWidget(dialog)
        dialog.show()
        return dialog

    return opened


def names(dialog):
    return [dialog._at(number).name for number in range(dialog.list.count())]


def test_folders_come_first_and_only_files_that_are_meant(ask):
    assert names(ask(OPEN)) == ["inner", "ebb.yewhour", "flood.YEWHOUR"]
    assert names(ask(FOLDER)) == ["inner"]


def test_a_file_is_gone_to_and_taken_by_keys_alone(ask, tmp_path):
    dialog = ask(OPEN)
    QTest.keyClick(dialog.list, KEY.Key_Return)
    assert dialog.folder == tmp_path / "inner"
    assert names(dialog) == ["deep", "neap.yewhour"]
    QTest.keyClick(dialog.list, KEY.Key_Backspace)
    assert dialog.folder == tmp_path
    assert dialog.list.currentItem().text().startswith("inner")  # where one came from
    QTest.keyClick(dialog.list, KEY.Key_Down)
    QTest.keyClick(dialog.list, KEY.Key_Return)
    assert dialog.taken == [tmp_path / "ebb.yewhour"]
    assert not dialog.isVisible()


def test_a_path_is_typed_and_what_is_not_there_is_told(ask, tmp_path):
    dialog = ask(OPEN)
    for typed, said in ((tmp_path / "no", "no file"), (tmp_path / "no/more", "no folder")):
        dialog.path.setText(str(typed))
        QTest.keyClick(dialog.path, KEY.Key_Return)
        assert said in dialog.message.text()
        assert dialog.isVisible()
    dialog.path.setText(str(tmp_path / "inner"))
    QTest.keyClick(dialog.path, KEY.Key_Return)
    assert dialog.folder == tmp_path / "inner"
    dialog.path.setText(str(tmp_path / "inner/neap.yewhour"))
    QTest.keyClick(dialog.path, KEY.Key_Return)
    assert dialog.taken == [tmp_path / "inner/neap.yewhour"]


def test_a_new_name_gets_its_ending_and_one_that_is_there_is_asked_about(ask, tmp_path):
    dialog = ask(SAVE, "spring.yewhour")
    assert dialog.name.selectedText() == "spring"
    QTest.keyClicks(dialog.name, "slack")
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert dialog.taken == [tmp_path / "slack.yewhour"]
    dialog = ask(SAVE, "ebb")
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert dialog.taken == []
    assert "ebb.yewhour is there already" in dialog.message.text()
    QTest.keyClick(dialog.name, KEY.Key_End)
    QTest.keyClicks(dialog.name, "x")  # another name is asked about anew
    QTest.keyClick(dialog.name, KEY.Key_Backspace)
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert dialog.taken == []
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert dialog.taken == [tmp_path / "ebb.yewhour"]
    dialog = ask(SAVE, "no/such/place")
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert "There is no folder" in dialog.message.text()
    assert dialog.isVisible()
    dialog = ask(SAVE, "")
    QTest.keyClick(dialog.name, KEY.Key_Return)
    assert "Give it a name" in dialog.message.text()


def test_a_folder_that_can_t_be_read_is_told(ask, tmp_path, monkeypatch):
    dialog = ask(FOLDER)
    gone = tmp_path / "inner"

    def refuse(self):
        raise PermissionError(13, "Permission denied", str(self))

    monkeypatch.setattr(type(gone), "iterdir", refuse)
    QTest.keyClick(dialog.list, KEY.Key_Return)
    assert "can't be read: permission denied" in dialog.message.text()
    assert dialog.folder == tmp_path
    dialog.go()
    assert dialog.taken == [tmp_path]
