"""The station that looks back: recordings are chosen, looked at, mended by hand, learnt from and written."""

import re
from random import Random

import numpy as np
import pytest
import soundfile
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QPushButton

from tools.teachers import captions, taught
from yewhour.state.paths import learnt_file
from yewhour.state.takes.corrected_starts import corrected_starts
from yewhour.state.takes.learnt_seconds import all_notes, begun_with, read_learnt
from yewhour.ui.review.learning import Learning
from yewhour.ui.review.rows import review_rows


@pytest.fixture
def page(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "hers"))
    desk.press("to_back")
    return desk.window.pages.review()


@pytest.fixture
def late(desk, tmp_path):
    """Captions of the class, with one side held longer."""
    timed = desk.timed
    hold = next(one for one in timed.segments if one.use.pair and one.kind == "hold" and not one.use.second)
    path = tmp_path / "recording.vtt"
    own = {"ways": 1.2, "holds": 1.1}
    path.write_bytes(captions(taught(timed, Random(1), {hold.id: 20.0}, skipped=0.05, remarks=0.15, own=own)))
    return hold, path


def looked(desk, page, path):
    page.look_at_file(path)
    desk.qtbot.waitUntil(lambda: page.looked is not None and not page.reader.busy, timeout=20_000)
    desk.qtbot.waitUntil(learnt_file().is_file, timeout=5_000)
    desk.settle()


def test_before_there_is_a_recording_it_says_what_will_do(desk, page):
    assert "no take of this class yet" in page.begin.rows.itemAt(0).widget().text()
    assert page.begin.open_button.hasFocus()
    desk.click(page.begin.open_button)
    asking = desk.window._dialogs[-1]
    assert asking.windowTitle() == "Captions or a recording"
    assert desk.window.head.stations[4].isChecked()


def test_what_matters_stands_first(desk, page, late):
    hold, path = late
    looked(desk, page, path)
    assert "s over" in page.length.text()
    assert page.sides.text().startswith(f"{hold.use.name}: ")
    assert "lines were said" in page.words.text()
    rows = page.rows.rows
    assert rows[0].how == "heading"
    assert rows[1].how == "wrong"
    assert {row.how for row in rows} >= {"said", "unsaid", "extra"}
    assert rows == review_rows(page.looked.back, page.looked.found)
    moments = [row.at_s for row in rows if row.how in ("said", "extra")]
    assert moments == sorted(moments)


def test_rows_and_sprigs_show_the_same(desk, page, late):
    hold, path = late
    looked(desk, page, path)
    page.rows.setFocus()
    QTest.keyClick(page.rows, Qt.Key.Key_Down)
    assert page.rows.row == 1
    assert page.sprigs.segment == page.rows.rows[1].segment
    went = next(one for one in page.looked.back.segments if one.segment.id == hold.id)
    at = QPoint(round(page.sprigs.width() * 0.9), round(page.sprigs.y_of((went.start_s + went.end_s) / 2)))
    QTest.mouseClick(page.sprigs, Qt.MouseButton.LeftButton, pos=at)
    assert page.sprigs.segment == hold.id
    assert page.rows.rows[page.rows.row].segment == hold.id
    assert hold.use.name in page.here.text()
    QTest.keyClick(page.rows, Qt.Key.Key_End)
    assert page.rows.row == len(page.rows.rows) - 1


def test_an_edge_is_moved_by_hand_and_put_back(desk, page, late):
    hold, path = late
    looked(desk, page, path)
    before = page.looked
    went = next(one for one in before.back.segments if one.segment.id == hold.id)
    start, end = (
        QPoint(page.sprigs.width() - 20, round(page.sprigs.y_of(at_s)))
        for at_s in (went.start_s, went.start_s + 8)
    )
    desk.drag(page.sprigs, start, end)
    moved = next(one for one in page.looked.back.segments if page.sprigs.segment == one.segment.id)
    was = next(one for one in before.back.segments if one.segment.id == moved.segment.id)
    assert moved.start_s > was.start_s + 2
    assert page.undo_button.isVisible()
    page.looked = None
    looked(desk, page, path)  # looked at again, the edge is where it was put
    assert next(one for one in page.looked.back.segments if one.segment.id == moved.segment.id) == moved
    assert not page.before
    page.looked = None
    page.before = [(before, {})]
    desk.click(page.undo_button)
    assert page.looked is before
    assert corrected_starts(str(path.resolve())) == {}
    assert not page.undo_button.isVisible()


def test_her_seconds_are_learnt_taken_undone_and_new_classes_begin_with_them(desk, page, late):
    looked(desk, page, late[1])
    assert len(all_notes()) == 1
    plan = desk.session.plan
    desk.click(page.learn_button)
    dialog = desk.window._dialogs[-1]
    assert isinstance(dialog, Learning)
    words = [box.text() for box, _ in dialog.boxes]
    told = re.compile(r"Getting from one position to the next: (1[89]|2\d) % longer")
    assert any(told.match(word) for word in words), words
    dialog.always.setChecked(True)
    desk.click(dialog.take_button)
    assert desk.session.plan.brief.own["ways"] == pytest.approx(1.2, rel=0.06)
    assert desk.session.past.undo_titles[0] == "Take your own seconds"
    desk.press("undo")
    assert desk.session.plan == plan
    assert begun_with(plan.brief.style)
    assert read_learnt().own.keys() == {plan.brief.style}
    style = plan.brief.style
    desk.press("to_back")
    page.learn()
    again = desk.window._dialogs[-1]
    back = next(one for one in again.findChildren(QPushButton) if one.text() == "New classes as usual again")
    desk.click(back)
    assert begun_with(style) == {}


def test_it_is_written_as_it_was(desk, page, late, tmp_path):
    looked(desk, page, late[1])
    page.write_into(tmp_path)
    assert (tmp_path / "bell-ringers.as-it-was.vtt").read_text().startswith("WEBVTT")
    assert "Written into" in desk.window.foot.message.text()
    page.write_into(tmp_path)
    assert "there already" in desk.window.foot.message.text()


def test_what_can_not_be_looked_at_is_told_and_the_page_stays(desk, page, tmp_path):
    path = tmp_path / "notes.txt"
    path.write_text("no times at all")
    page.look_at_file(path)
    desk.qtbot.waitUntil(lambda: not page.reader.busy, timeout=10_000)
    desk.settle()
    assert "no time in these captions" in desk.window.foot.message.text()
    assert page.begin.isVisible()


def test_a_recording_is_heard_with_its_progress_and_can_be_stopped(desk, page, tmp_path):
    path = tmp_path / "noise.wav"
    soundfile.write(path, np.random.default_rng(1).normal(0, 0.05, 22050 * 90).astype(np.float32), 22050)
    page.look_at_file(path)
    assert page.waiting.isVisible()
    assert page.stop_button.hasFocus()
    desk.click(page.stop_button)
    assert not page.reader.busy
    assert page.begin.isVisible()


def test_a_take_that_is_over_is_offered(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "hers"))
    desk.press("to_take")
    runner = desk.window.pages.take().runner
    now = [100.0]
    runner.clock = lambda: now[0]
    desk.window.pages.take().do("stand")
    for _ in range(60):
        now[0] += 1
        desk.window.pages.take().frame()
    runner.act("end")
    desk.window.pages.take().frame()
    assert "Enter looks back at it" in desk.window.pages.take().hints.text().replace("\u00a0", " ")
    desk.press("to_back")
    page = desk.window.pages.review()
    assert page.first.text().startswith("The take of")
    assert page.first.hasFocus()
    desk.key(Qt.Key.Key_Return)
    desk.qtbot.waitUntil(lambda: page.looked is not None, timeout=20_000)
    assert "marks of the take alone" in page.words.text()
    assert page.length.text().endswith("early: 0:54 of 24:00.") or "early" in page.length.text()


def test_another_class_has_other_recordings(desk, page, late, tmp_path):
    looked(desk, page, late[1])
    desk.window.file_commands.new_class()
    desk.settle()
    assert page.looked is None


def brought(desk):
    desk.qtbot.waitUntil(lambda: not desk.session.jobs.busy("bring in"), timeout=20_000)
    desk.settle()


def test_the_stem_tells_how_surely_something_was_heard(desk, page, late):
    looked(desk, page, late[1])
    pens = [page.sprigs._as_sure(sure) for sure in (0.9, 0.6, 0.3)]
    assert [pen.style() for pen in pens] == [
        Qt.PenStyle.SolidLine,
        Qt.PenStyle.SolidLine,
        Qt.PenStyle.DotLine,
    ]
    assert pens[0].color().alpha() > pens[1].color().alpha()


def test_a_recording_becomes_a_draft(desk, late, tmp_path):
    desk.window.file_commands.bring_in_file(late[1])
    brought(desk)
    assert "movements were brought in" in desk.window.foot.message.text()
    assert desk.session.plan.brief.title == "Recording"
    assert any(section.body for section in desk.session.plan.sections)


def test_what_was_not_understood_is_shown_with_its_time(desk, tmp_path):
    path = tmp_path / "talk.txt"
    said = (
        "[0:05] Into your first downward facing dog. [1:00] Now wobble the elbows about. [3:00] Child's pose."
    )
    path.write_text(said)
    desk.window.file_commands.bring_in_file(path)
    brought(desk)
    telling = desk.window._dialogs[-1]
    assert telling.windowTitle() == "Not understood"
    assert any(one.text() == "1:00 Now wobble the elbows about." for one in telling.findChildren(QLabel))


def test_a_recording_that_is_dropped_is_looked_back_at(desk, late):
    desk.window.file_commands.take_dropped([str(late[1])])
    page = desk.window.pages.review()
    desk.qtbot.waitUntil(lambda: page.looked is not None, timeout=20_000)
    assert page.isVisible()
