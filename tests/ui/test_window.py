"""The real window, driven: drag the handle, read the script, choose a line, export."""

import pytest
from PySide6.QtCore import QPoint, Qt

from yewhour.store.classfile import read_plan
from yewhour.store.paths import DEMO, kept_classes
from yewhour.ui import theme as look
from yewhour.ui.actions import DEEDS
from yewhour.ui.app import application, first_window, open_first


@pytest.fixture
def window(qtbot):
    application()
    look.set_scale(1.0)
    window = first_window(dark=False)
    open_first(window)
    qtbot.addWidget(window)
    window.resize(1280, 800)
    window.show()
    qtbot.waitExposed(window)
    return window


def drag_tip(qtbot, window, to_s):
    sprig = window.sprig
    start = sprig.handle_rect().center().toPoint()
    end = QPoint(start.x(), round(start.y() + sprig.y_at(to_s) - sprig.y_at(window.session.made.length_s)))
    qtbot.mousePress(sprig, Qt.MouseButton.LeftButton, pos=start)
    for step in range(1, 6):
        qtbot.mouseMove(sprig, start + (end - start) * (step / 5))
    qtbot.mouseRelease(sprig, Qt.MouseButton.LeftButton, pos=end)


def test_the_demo_opens_at_its_promised_length(window):
    assert window.title.text() == "Ropes and shoulders"
    assert "24:00 exactly, as promised" in window.promise.text()
    assert window.script.model().rowCount() == len(window.session.made.cues)


def test_dragging_the_tip_retimes_the_class_and_its_script(qtbot, window):
    before = [row.cue for row in window.script.lines.rows]
    drag_tip(qtbot, window, 21 * 60)
    assert window.session.made.length_s == pytest.approx(1260, abs=10)
    assert window.session.made.segments[-1].end == window.session.made.length
    assert [row.cue for row in window.script.lines.rows] != before


def test_the_tip_stops_where_the_class_cannot_follow_and_says_why(qtbot, window):
    drag_tip(qtbot, window, 60)
    assert window.session.made.length_s == window.session.maker.shortest_s
    assert "shortest" in window.message.text()


def test_keys_change_the_length(qtbot, window):
    qtbot.keyClick(window, Qt.Key.Key_Plus)
    assert window.session.made.length_s == 1500
    qtbot.keyClick(window, Qt.Key.Key_Minus)
    qtbot.keyClick(window, Qt.Key.Key_Minus)
    assert window.session.made.length_s == 1380
    qtbot.keyClick(window, Qt.Key.Key_0, Qt.KeyboardModifier.ControlModifier)
    assert window.session.made.length_s == 1440


def test_choosing_a_line_chooses_its_segment(qtbot, window):
    row = next(n for n, row in enumerate(window.script.lines.rows) if "left knee" in row.cue.text)
    index = window.script.lines.index(row)
    window.script.scrollTo(index)
    qtbot.mouseClick(
        window.script.viewport(), Qt.MouseButton.LeftButton, pos=window.script.visualRect(index).center()
    )
    assert window.session.selected == window.script.lines.rows[row].segment.id


def test_choosing_a_segment_brings_its_line_into_view(qtbot, window):
    segment = next(
        s for s in window.session.made.segments if s.turn.movement.id == "lying-twist" and s.kind == "hold"
    )
    y = window.sprig.y_at((segment.start + segment.end) / 20)
    qtbot.mouseClick(window.sprig, Qt.MouseButton.LeftButton, pos=QPoint(60, round(y)))
    assert window.session.selected == segment.id
    index = window.script.currentIndex()
    assert window.script.lines.rows[index.row()].segment.id == segment.id
    assert window.script.viewport().rect().intersects(window.script.visualRect(index))


def test_arrows_walk_the_sprig(qtbot, window):
    window.sprig.setFocus()
    qtbot.keyClick(window.sprig, Qt.Key.Key_Down)
    first = window.session.selected
    qtbot.keyClick(window.sprig, Qt.Key.Key_Down)
    assert first
    assert window.session.selected != first
    qtbot.keyClick(window.sprig, Qt.Key.Key_Up)
    assert window.session.selected == first


@pytest.mark.parametrize("suffix", [".txt", ".md", ".srt", ".vtt", ".json"])
def test_the_script_is_exported(window, tmp_path, suffix):
    path = tmp_path / f"script{suffix}"
    assert window.export_to(path)
    assert path.stat().st_size > 1000
    assert "Written" in window.message.text()


def test_a_place_that_cannot_be_written_is_said_and_the_window_stays(window, tmp_path):
    assert not window.export_to(tmp_path / "no" / "script.txt")
    assert "can't be written" in window.message.text()
    assert not window.export_to(tmp_path / "script.xyz")
    assert "kind of script" in window.message.text()
    assert window.isVisible()


def test_a_strangers_file_leaves_the_class_open(window, tmp_path):
    for name, content in (("a.yewhour", b"hello"), ("b.yewhour", b""), ("c.yewhour", b'{"yewhour": 77}')):
        path = tmp_path / name
        path.write_bytes(content)
        assert not window.open_file(path)
        assert str(path) in window.message.text()
        assert window.session.made.plan.brief.title == "Ropes and shoulders"


def test_every_deed_is_in_a_menu_with_its_keys(window):
    assert set(window.actions_by_name) == {deed.name for deed in DEEDS}
    shown = [key for action in window.actions_by_name.values() for key in action.shortcuts()]
    assert len({key.toString() for key in shown}) == len(shown)
    for deed in DEEDS:
        assert callable(getattr(window, deed.name))
        assert deed.about


def test_light_dark_and_large_text_are_painted(window):
    pictures = []
    for deed in ("other_light", "larger_text", "smaller_text"):
        getattr(window, deed)()
        pictures.append(window.grab().toImage())
    assert pictures[0] != pictures[1]


def test_needles_stand_on_the_side_they_are_for(window):
    by_side = {needle.segment.side: needle.sides for needle in window.sprig._needles if needle.sides}
    assert by_side["left"] == ("left",)
    assert by_side["right"] == ("right",)
    assert by_side["both"] == ("left", "right")
    changes = [needle for needle in window.sprig._needles if needle.aril]
    assert len(changes) == sum(
        1 for _ in {n.segment.turn.pair for n in window.sprig._needles if n.segment.turn.pair}
    )


def test_at_twice_the_size_needles_still_stand_on_their_side(window):
    for _ in range(4):
        window.larger_text()
    assert look.scale() == 2.0
    assert window.sprig._needle_room > 0
    window.grab()
    for _ in range(4):
        window.smaller_text()


def test_a_pair_with_work_on_both_sides_inside_still_has_its_aril(window):
    assert window.open_file(DEMO / "round-the-compass.yewhour")
    chain = [n for n in window.sprig._needles if n.segment.section == "Front of the mat"]
    assert [n.segment.side for n in chain if n.aril] == ["left"]


def test_what_was_refused_is_offered_a_remedy_that_is_one_key_away_and_can_be_undone(qtbot, window):
    before = window.session.maker.plan
    window.session.set_length(15 * 60.0)
    assert "shortest" in window.message.text()
    qtbot.waitUntil(window.mend_button.isVisible, timeout=3000)
    assert "Leave out" in window.mend_button.text()
    qtbot.keyClick(window, Qt.Key.Key_M, Qt.KeyboardModifier.ControlModifier)
    assert window.session.made.length_s == 900
    assert window.actions_by_name["undo"].text().startswith("Undo: Leave out")
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.session.maker.plan == before
    qtbot.keyClick(window, Qt.Key.Key_Y, Qt.KeyboardModifier.ControlModifier)
    assert window.session.made.length_s == 900


def test_what_is_noticed_is_said_and_its_fix_offered(qtbot, window):
    assert window.open_file(DEMO / "four-at-the-slip.yewhour")
    assert "strong work" in window.message.text()
    qtbot.waitUntil(window.mend_button.isVisible, timeout=3000)
    qtbot.mouseClick(window.mend_button, Qt.MouseButton.LeftButton)
    assert window.session.made.segments[1].turn.movement.id == "pelvic-tilt"


def test_a_mended_class_is_saved_and_opened_again(qtbot, window, tmp_path):
    window.session.set_length(15 * 60.0)
    window.show_offer()
    window.mend()
    path = tmp_path / "mine.yewhour"
    assert window.save_to(path)
    assert not window.session.changed
    plan = window.session.maker.plan
    assert window.open_file(path)
    assert window.session.maker.plan == plan
    assert not window.save_to(tmp_path / "no" / "mine.yewhour")
    assert "can't be written" in window.message.text()


def test_closing_keeps_what_was_not_saved_and_says_so_next_time(qtbot, window):
    window.session.set_length(15 * 60.0)
    window.show_offer()
    window.mend()
    plan = window.session.maker.plan
    window.close()
    kept = kept_classes() / "bell-ringers.yewhour"
    assert read_plan(kept) == plan
    again = first_window(dark=False)
    qtbot.addWidget(again)
    open_first(again)
    assert "Kept from last time" in again.message.text()
    kept.unlink()
