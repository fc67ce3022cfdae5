"""Nothing is lost: not by a crash, not by another's hand, not by a folder that can't be written."""

import os
import signal
import subprocess
import sys
from pathlib import Path

import av
import msgspec
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QDesktopServices, QFontInfo
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from tests.conftest import ROOT, plan_of
from tests.ui.conftest import Desk
from yewhour.content.paths import DEMO
from yewhour.core.edits.groups import with_section
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step
from yewhour.files.atomic_files import write_whole
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.classes.revisions import revisions_of
from yewhour.state.classes.unsaved_work import unsaved_work
from yewhour.state.paths import kept_classes
from yewhour.ui.desk.class_files import KEEP_MS


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


@pytest.fixture
def mine(tmp_path):
    path = tmp_path / "ebb.yewhour"
    path.write_bytes((DEMO / "four-at-the-slip.yewhour").read_bytes())
    return path


def rename(desk, title):
    desk.session.do(f"Call it {title}", with_brief(desk.session.plan, title=title))
    desk.settle()


TEACHER = """
import sys, time
from pathlib import Path
from PySide6.QtCore import QTimer
from yewhour.ui.frame.app import application, first_window, open_first
from yewhour.core.edits.groups import with_section
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step
qt = application()
window = first_window(dark=False)
window.show()
open_first(window, Path(sys.argv[1]))
number = 0
def change():
    global number
    number += 1
    window.session.do("Call it", with_brief(window.session.plan, title=f"Change {number}"))
    print(number, flush=True)
timer = QTimer()
timer.timeout.connect(change)
timer.start(100)
qt.exec()
"""


def test_killing_the_program_at_any_moment_loses_at_most_five_seconds(mine, tmp_path):
    done = []
    for more in (7, 16):  # changes after it was first kept, until it is killed
        running = subprocess.Popen(
            [sys.executable, "-c", TEACHER, str(mine)],
            env={**os.environ, "QT_QPA_PLATFORM": "offscreen", "PYTHONPATH": str(ROOT / "src")},
            stdout=subprocess.PIPE,
            text=True,
        )
        assert running.stdout is not None
        number = int(running.stdout.readline())
        while len(list(kept_classes().glob("*.yewhour"))) <= len(done):
            number = int(running.stdout.readline())
        for _ in range(more):
            number = int(running.stdout.readline())
        running.send_signal(signal.SIGKILL)
        done.append(int(([str(number), *running.stdout.read().split()])[-1]))
        running.wait()
    kept = unsaved_work()
    assert len(kept) == 2
    for changes, one in zip(
        sorted(done), sorted(int(k.plan().brief.title.split()[1]) for k in kept), strict=True
    ):
        assert changes - one <= 25  # a change every tenth of a second; kept after one second, by promise five
        assert one >= 1
    assert all(one.about.path == str(mine) for one in kept)
    assert read_plan(mine).brief.title == "Four minutes at the slip"


def test_work_left_behind_is_offered_on_the_first_page_and_brought_back(bare_desk, mine):
    desk = bare_desk
    desk.window.file_commands.open_file(mine)
    desk.settle()
    rename(desk, "Nearly lost")
    desk.window.files.keep()
    desk.window.files.keeper.close()  # as if the program had been killed
    desk.window.show_first_page()
    desk.settle()
    from PySide6.QtWidgets import QPushButton

    back = next(
        b
        for b in desk.window.pages.start().findChildren(QPushButton)
        if b.text() == "Bring it back" and b.isVisible()
    )
    desk.click(back)
    assert desk.session.plan.brief.title == "Nearly lost"
    assert desk.session.path == mine
    assert desk.session.changed
    assert desk.window.file_commands.save_to(mine)
    assert read_plan(mine).brief.title == "Nearly lost"
    assert unsaved_work() == []


def test_opening_another_class_over_unsaved_work_keeps_it(desk, mine):
    for leave in (lambda: desk.window.file_commands.open_file(mine), desk.window.file_commands.new_class):
        title = f"Unsaved {len(unsaved_work())}"
        rename(desk, title)
        leave()
        desk.settle()
        assert title in [kept.plan().brief.title for kept in unsaved_work()]
        assert f"{title} was not saved; it is kept" in desk.window.foot.message.text()
    assert not desk.window.file_commands.open_file(mine.with_name("none.yewhour"))
    assert len(unsaved_work()) == 2


def test_closing_keeps_what_was_not_saved_and_the_next_window_says_so(desk, qtbot):
    from tests.ui.conftest import Desk

    rename(desk, "Half done")
    desk.window.close()
    assert [kept.plan().brief.title for kept in unsaved_work()] == ["Half done"]
    again = Desk(qtbot)
    assert "Kept from last time" in again.window.foot.message.text()
    again.leave()


def test_a_change_is_kept_within_a_second_without_being_asked(desk, qtbot):
    rename(desk, "Soon kept")
    file = desk.window.files.keeper.file
    qtbot.waitUntil(file.exists, timeout=KEEP_MS + 2000)
    assert read_plan(file).brief.title == "Soon kept"


def test_saving_makes_versions_and_any_of_them_comes_back_as_an_act(desk, mine):
    desk.window.file_commands.open_file(mine)
    desk.settle()
    for title in ("One", "Two"):
        rename(desk, title)
        assert desk.window.file_commands.save_to(mine)
    assert [version.plan().brief.title for version in revisions_of(mine)] == ["Two", "One"]
    desk.press("show_versions")
    dialog = desk.window._dialogs[-1]
    assert "The same" in dialog.message.text()
    dialog.list.setCurrentRow(1)
    assert "1 thing is other; as long as before." in dialog.message.text()
    desk.settle()
    said = [one.text() for one in dialog.findChildren(QLabel) if not one.isHidden()]
    assert "Title: One → Two" in said
    assert [drawn.twig.title for drawn in dialog.drawn] == ["One", "Two"]
    desk.click(dialog.name)
    desk.type("Before the bell")
    assert revisions_of(mine)[1].name == "Before the bell"
    assert "Before the bell" in dialog.list.item(1).text()
    dialog.list.selectAll()
    assert dialog.heads[0].text().startswith("Before the bell")
    assert not dialog.back.isEnabled()
    dialog.list.setCurrentRow(1)
    dialog.bring()
    desk.settle()
    assert desk.session.plan.brief.title == "One"
    assert desk.session.past.undo_titles[0].startswith("Go on from Before the bell")


def test_a_file_changed_by_somebody_else_is_not_written_over_unasked(desk, mine):
    desk.window.file_commands.open_file(mine)
    desk.settle()
    theirs = with_brief(read_plan(mine), title="Theirs")
    write_whole(mine, plan_bytes(theirs))
    rename(desk, "Mine")
    assert not desk.window.file_commands.save_to(mine)
    assert "Somebody else has changed this file" in desk.window.foot.message.text()
    assert read_plan(mine) == theirs
    both = desk.window._dialogs[-1]
    assert [drawn.twig.title for drawn in both.drawn] == ["Theirs", "Mine"]
    both.reject()
    assert desk.window.file_commands.save_to(mine)
    assert read_plan(mine).brief.title == "Mine"
    assert "Theirs" in [version.plan().brief.title for version in revisions_of(mine)]


def test_of_what_somebody_else_did_a_part_is_taken_and_the_rest_is_hers(desk, mine):
    desk.window.file_commands.open_file(mine)
    desk.settle()
    first = desk.session.plan.sections[0]
    theirs = with_section(desk.session.plan, 0, body=first.body[:-1])
    write_whole(mine, plan_bytes(theirs))
    rename(desk, "Mine")
    assert not desk.window.file_commands.save_to(mine)
    both = desk.window._dialogs[-1]
    takes = [one for one in both.findChildren(QPushButton) if one.text().startswith("Take “")]
    assert [one.text() for one in takes] == [f"Take “{first.title}”"]
    desk.click(takes[0])
    assert desk.session.plan.brief.title == "Mine"
    assert desk.session.plan.sections == theirs.sections
    still = [one for one in both.findChildren(QPushButton) if one.text().startswith("Take “")]
    assert not [one for one in still if one.isVisible()]
    both.reject()
    desk.press("undo")
    assert desk.session.plan.sections[0] == first


def test_a_class_open_in_two_windows_is_told(desk, mine, qtbot):
    from tests.ui.conftest import Desk

    desk.window.file_commands.open_file(mine)
    desk.settle()
    other = Desk(qtbot, mine)
    assert "open in another window" in other.window.foot.message.text()
    other.leave()


def test_a_folder_that_cannot_be_written_and_a_full_disk_keep_the_work(desk, mine, monkeypatch, tmp_path):
    rename(desk, "Kept whatever happens")
    assert not desk.window.file_commands.save_to(tmp_path / "no" / "such.yewhour")
    assert "can't be written" in desk.window.foot.message.text()
    full = OSError(28, "No space left on device")
    monkeypatch.setattr("tempfile.mkstemp", lambda **k: (_ for _ in ()).throw(full))
    assert not desk.window.file_commands.save_to(mine)
    assert "no space left" in desk.window.foot.message.text()
    monkeypatch.undo()
    assert desk.session.changed
    assert desk.session.plan.brief.title == "Kept whatever happens"
    assert read_plan(mine).brief.title == "Four minutes at the slip"
    assert desk.window.file_commands.save_to(mine)


def where(desk, path):
    """Answers the dialog that asks where to save; the dialog."""
    asking = desk.window._dialogs[-1]
    assert QApplication.focusWidget() is asking.name
    asking.name.selectAll()
    desk.type(str(path))
    desk.key(Qt.Key.Key_Return)
    return asking


def test_a_demo_class_is_never_written(desk, tmp_path):
    rename(desk, "Mine now")
    desk.press("save_class")
    where(desk, DEMO / "another")
    assert "stay as they ship" in desk.window.foot.message.text()
    assert not (DEMO / "another.yewhour").exists()
    desk.press("save_class")
    where(desk, tmp_path / "mine")
    assert read_plan(tmp_path / "mine.yewhour").brief.title == "Mine now"
    assert read_plan(DEMO / "bell-ringers.yewhour").brief.title == "Ropes and shoulders"


def tick(dialog, key):
    """Ticks one way to write a class, and no other, and shows it."""
    for number in range(dialog.list.count()):
        item = dialog.list.item(number)
        chosen = item.data(Qt.ItemDataRole.UserRole) == key
        item.setCheckState(Qt.CheckState.Checked if chosen else Qt.CheckState.Unchecked)
        if chosen:
            dialog.list.setCurrentRow(number)


@pytest.mark.parametrize("suffix", [".txt", ".md", ".srt", ".vtt", ".json", ".pdf", ".otio"])
def test_what_is_shown_in_the_export_is_what_is_written(desk, tmp_path, suffix, monkeypatch):
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    key = next(key for key, form in dialog.formats.items() if form.suffix == suffix)
    tick(dialog, key)
    desk.settle()
    shown = dialog.preview.text.toPlainText()
    if suffix == ".pdf":
        desk.qtbot.waitUntil(lambda: dialog.preview.currentWidget() is dialog.preview.area, timeout=20_000)
        desk.settle()
        drawn = [one for one in dialog.preview.findChildren(QLabel) if not one.pixmap().isNull()]
        assert len(drawn) > 4
        assert drawn[0].width() > 300
    else:
        assert len(shown) > 500
        assert QFontInfo(dialog.preview.text.font()).fixedPitch()
    dialog.folder.setText(str(tmp_path / "nowhere"))
    dialog.write()
    desk.qtbot.waitUntil(lambda: "can't be written" in dialog.names.text(), timeout=5000)
    dialog.folder.setText(str(tmp_path))
    dialog.write()
    desk.qtbot.waitUntil(dialog.folder_button.isVisible, timeout=10_000)
    assert QApplication.focusWidget() is dialog.stop_button
    opened = []
    monkeypatch.setattr(QDesktopServices, "openUrl", lambda url: opened.append(url.toLocalFile()) or False)
    desk.click(dialog.folder_button)
    assert opened == [str(tmp_path)]
    assert str(tmp_path) in dialog.names.text()
    dialog.name.setText("another")
    assert dialog.write_button.isVisible()
    written = Path(tmp_path / f"bell-ringers{suffix}")
    if suffix == ".pdf":
        assert written.read_bytes().startswith(b"%PDF")
    else:
        assert written.read_text().startswith(shown[:400])
    QApplication.processEvents()


def test_what_is_wrong_with_her_own_movements_is_told_when_the_window_opens(qtbot, tmp_path):
    from tests.ui.conftest import Desk

    folder = tmp_path / "data/yewhour/movements"
    folder.mkdir(parents=True)
    (folder / "mine.toml").write_text('[oar]\nname = "Oar"\nkind = "hold"\n')
    desk = Desk(qtbot)
    assert "mine.toml, line 1: oar: it has no dose" in desk.window.foot.message.text()
    assert desk.timed is not None
    desk.leave()


def test_a_name_typed_without_its_ending_never_writes_over_a_class_unasked(desk, mine, tmp_path):
    there = mine
    before = there.read_bytes()
    rename(desk, "Another")
    desk.press("save_class_as")
    asking = where(desk, tmp_path / "ebb")
    assert "ebb.yewhour is there already" in asking.message.text()
    assert there.read_bytes() == before
    desk.key(Qt.Key.Key_Return)  # once more, and it is meant
    assert not asking.isVisible()
    assert read_plan(there).brief.title == "Another"
    assert "Four minutes at the slip" in [version.plan().brief.title for version in revisions_of(there)]


def test_where_nothing_of_hers_can_be_kept_the_program_works_and_says_so(qtbot, monkeypatch, tmp_path):
    (tmp_path / "file").write_text("in the place of a folder")
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "file" / "data"))
    path = tmp_path / "mine.yewhour"
    path.write_bytes((DEMO / "four-at-the-slip.yewhour").read_bytes())
    desk = Desk(qtbot, path)
    assert desk.timed is not None
    assert "Nothing can be kept safe here" in desk.window.foot.message.text()
    assert str(tmp_path / "file" / "data") in desk.window.foot.message.text()
    rename(desk, "Saved all the same")
    desk.press("show_start")
    desk.press("to_sprig")
    other = tmp_path / "other.yewhour"
    assert desk.window.file_commands.save_to(other)
    assert desk.session.path == other
    assert not desk.session.changed
    assert read_plan(other).brief.title == "Saved all the same"
    desk.leave()


def test_a_format_that_fails_does_not_leave_the_export_waiting(desk, monkeypatch, tmp_path):
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    dialog.folder.setText(str(tmp_path))
    broken = msgspec.structs.replace(dialog.formats["text"], write=lambda timed: [][0])
    monkeypatch.setitem(dialog.formats, "text", broken)
    dialog.write()
    desk.qtbot.waitUntil(lambda: not dialog.busy, timeout=10_000)
    assert f"Writing {dialog.name.text()}.txt broke off" in dialog.names.text()
    assert dialog.write_button.isEnabled()
    dialog.close()


def test_a_film_of_figures_is_shown_and_written(desk, tmp_path, monkeypatch):
    short = plan_of(Step(movement="child", amount=1), title="Ebb", target_s=36.0)
    desk.session.begin(short)
    desk.settle()
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    monkeypatch.setattr("yewhour.ui.kit.film.class_film.SIZE", (320, 180))
    tick(dialog, "film")
    desk.qtbot.waitUntil(lambda: dialog.preview.currentWidget() is dialog.preview.area, timeout=20_000)
    dialog.folder.setText(str(tmp_path))
    dialog.name.setText("ebb")
    dialog.write()
    desk.qtbot.waitUntil(dialog.folder_button.isVisible, timeout=120_000)
    with av.open(str(tmp_path / "ebb.figures.mp4")) as file:
        assert float(file.duration / av.time_base) == pytest.approx(36.0, abs=0.1)
