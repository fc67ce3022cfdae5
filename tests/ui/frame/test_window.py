"""The window as a whole: opening, the length, mending, undo, colours and sizes."""

import math

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, QSize, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton

from tests.ui.conftest import CTRL
from yewhour.core.lengths import show_length
from yewhour.core.plan.edit import with_brief
from yewhour.core.problem import Problem
from yewhour.ui.kit import theme as look
from yewhour.ui.kit.commands import COMMANDS


def test_the_demo_opens_at_its_promised_length(desk):
    assert desk.window.head.title.text() == "Ropes and shoulders"
    assert "24:00 exactly, as promised" in desk.window.head.promise.text()


def test_dragging_the_tip_promises_another_length_and_undo_takes_it_back(desk):
    before = desk.timed.cues
    desk.drag_tip(21 * 60)
    assert desk.timed.length_s == pytest.approx(1260, abs=10)
    assert desk.timed.segments[-1].end == desk.timed.length
    assert desk.timed.cues != before
    assert desk.window.commands.actions["undo"].text().startswith("Undo: Make it 2")
    desk.press("undo")
    assert desk.timed.length_s == 1440


def test_the_tip_stops_where_the_class_cannot_follow_and_says_why(desk):
    desk.drag_tip(60)
    assert desk.timed.length_s == desk.session.solved.shortest_s
    assert "shortest" in desk.window.foot.message.text()


def test_keys_change_the_length_and_a_row_of_them_is_one_act(desk):
    desk.window.sprig.setFocus()
    desk.key(Qt.Key.Key_Plus)
    assert desk.timed.length_s == 1500
    desk.key(Qt.Key.Key_Minus)
    desk.key(Qt.Key.Key_Minus)
    assert desk.timed.length_s == 1380
    desk.key(Qt.Key.Key_Z, CTRL)
    assert desk.timed.length_s == 1440
    desk.key(Qt.Key.Key_0, CTRL)
    assert desk.timed.length_s == pytest.approx(desk.session.solved.preferred_s, abs=15)


def test_what_was_refused_is_offered_a_remedy_that_is_one_key_away_and_can_be_undone(desk):
    desk.session.set_length(15 * 60.0)
    desk.settle()
    plan = desk.session.plan
    assert "shortest" in desk.window.foot.message.text()
    nearest_s = desk.timed.length_s
    assert f"Promise the nearest, {show_length(math.ceil(nearest_s))}" in desk.window.foot.mend_button.text()
    assert any("Leave out" in offer.title for offer in desk.session.offers)
    desk.key(Qt.Key.Key_M, CTRL)
    assert desk.timed.length_s == pytest.approx(nearest_s, abs=1)
    assert not desk.session.refusal
    assert desk.window.commands.actions["undo"].text().startswith("Undo: Promise")
    desk.key(Qt.Key.Key_Z, CTRL)
    assert desk.session.plan == plan
    desk.key(Qt.Key.Key_Y, CTRL)
    assert desk.timed.length_s == pytest.approx(nearest_s, abs=1)


def test_a_fix_is_seen_before_it_is_done_and_leaving_it_leaves_the_class(cold_desk):
    desk = cold_desk
    assert "strong work" in desk.window.foot.message.text()
    button = desk.window.foot.mend_button
    plan = desk.session.plan
    button.setFocus()
    desk.settle()
    assert desk.session.shown.segments[1].use.movement.id == "pelvic-tilt"
    assert "As it would be" in desk.window.foot.message.text()
    assert desk.session.plan is plan
    desk.window.sprig.setFocus()
    desk.settle()
    assert desk.session.shown is desk.timed
    desk.click(button)
    assert desk.timed.segments[1].use.movement.id == "pelvic-tilt"


def test_a_change_that_leaves_no_class_is_taken_back_and_told(desk):
    from yewhour.core.edits.arrange import with_node

    step = desk.segment("dart").use.step
    plan = desk.session.plan
    desk.session.do("Nothing of it", with_node(plan, step.id, amount=0))
    desk.settle()
    assert desk.session.plan == plan
    assert "amount can't be 0" in desk.window.foot.message.text()
    assert desk.session.past.undo_titles == []


def test_every_deed_is_in_a_menu_with_its_keys(desk):
    actions = desk.window.commands.actions
    assert set(actions) == {command.name for command in COMMANDS}
    for place in ("sprig", "script"):
        keys = [key for command in COMMANDS if command.at in ("window", place) for key in command.keys]
        assert len(set(keys)) == len(keys), place
    for command in COMMANDS:
        assert command.about
        assert actions[command.name].text()


@pytest.mark.painted
def test_every_deed_can_be_done_with_nothing_chosen_and_nothing_breaks(desk):
    for command in COMMANDS:
        if command.name not in ("close", "new_window"):
            desk.press(command.name)
            for dialog in desk.window._dialogs:
                dialog.close()
    assert desk.window.isVisible()


@pytest.mark.painted
def test_light_dark_and_large_text_are_painted(desk):
    pictures = []
    for command in ("other_light", "larger_text", "smaller_text"):
        desk.press(command)
        pictures.append(desk.window.grab().toImage())
    assert pictures[0] != pictures[1]


@pytest.mark.parametrize(("width", "height"), [(1100, 700), (3840, 2160)])
def test_every_station_fits_the_window_at_every_size_and_twice_the_text(desk, width, height):
    desk.window.resize(width, height)
    for scale in (1.0, 2.0):
        look.set_scale(scale)
        desk.window.dress()
        for station in ("to_promise", "to_sprig", "to_words"):
            desk.press(station)
            assert desk.window.width() <= width
            for page in (desk.window.pages.promise(), desk.window.inspector):
                if page.isVisible():
                    inside = page.findChild(object, "page").widget()
                    assert inside.width() <= page.width() + 1, station
    look.set_scale(1.0)


def test_a_strangers_file_dropped_on_the_window_is_refused_and_the_class_stays(desk, tmp_path):
    for name, content in (("a.yewhour", b"hello"), ("b.yewhour", b""), ("c.yewhour", b'{"yewhour": 77}'),
                          ("picture.png", b"\x89PNG\r\n\x1a\n")):  # fmt: skip
        path = tmp_path / name
        path.write_bytes(content)
        drop(desk, path)
        assert str(path) in desk.window.foot.message.text()
        assert desk.session.plan.brief.title == "Ropes and shoulders"


def test_an_outline_dropped_on_the_window_becomes_a_class(desk, tmp_path):
    path = tmp_path / "mine.txt"
    path.write_text("title: From a list\nlength: 5:00\n\n# All\nlow lunge 4b pair\nfinal rest 2:00\n")
    drop(desk, path)
    assert desk.window.head.title.text() == "From a list"
    assert desk.session.path is None
    assert desk.session.changed


def drop(desk, path):
    mime = QMimeData()
    mime.setUrls([QUrl.fromLocalFile(str(path))])
    keys = Qt.KeyboardModifier.NoModifier
    event = QDropEvent(QPointF(5, 5), Qt.DropAction.CopyAction, mime, Qt.MouseButton.LeftButton, keys)
    desk.window.dropEvent(event)
    desk.settle()


def test_everything_can_be_found_by_name_and_done_from_the_keyboard(desk):
    desk.key(Qt.Key.Key_F1)
    sheet = desk.window._dialogs[-1]
    assert sheet.list.topLevelItemCount() == len(COMMANDS)
    sheet.field.setText("reading view")
    sheet.do()
    desk.settle()
    assert desk.window.view.reading_view.isVisible()
    desk.window.view.reading_view.close()


def test_the_key_that_mends_says_what_it_did_or_that_nothing_is_offered(cold_desk):
    desk = cold_desk
    offered = desk.window.foot.mend_button.text()
    desk.key(Qt.Key.Key_M, CTRL)
    assert f"Done: {offered}" in desk.window.foot.message.text()
    while desk.window.foot.mend_button.isVisible():
        desk.key(Qt.Key.Key_M, CTRL)
    desk.key(Qt.Key.Key_M, CTRL)
    assert "Nothing is offered" in desk.window.foot.message.text()


def test_escape_while_the_tip_is_drawn_leaves_the_length_as_it_was(desk):
    sprig, plan = desk.window.sprig, desk.session.plan
    start = sprig.hits.handle_rect().center().toPoint()
    QTest.mousePress(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    for step in range(1, 4):
        QTest.mouseMove(sprig, start - QPoint(0, 20 * step))
    desk.key(Qt.Key.Key_Escape)
    QTest.mouseRelease(
        sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start - QPoint(0, 60)
    )
    desk.settle()
    assert desk.session.plan is plan
    assert desk.timed.length_s == 1440


def test_escape_goes_out_of_a_field_to_the_class_and_then_to_the_whole_of_it(desk):
    desk.choose("low-lunge")
    desk.press("to_promise")
    desk.key(Qt.Key.Key_Return)
    desk.key(Qt.Key.Key_Escape)
    desk.key(Qt.Key.Key_Escape)
    assert QApplication.focusWidget() is desk.window.sprig
    assert desk.session.picked
    desk.key(Qt.Key.Key_Escape)
    assert not desk.session.picked
    assert not desk.session.selected


def test_the_menus_open_by_keys_and_each_has_a_letter_of_its_own(desk):
    titles = [action.text() for action in desk.window.menuBar().actions()]
    letters = [title[title.index("&") + 1].lower() for title in titles]
    assert len(set(letters)) == len(titles)
    desk.press("open_menus")
    assert desk.window.menuBar().activeAction() is desk.window.menuBar().actions()[0]


def test_where_the_right_button_is_pressed_what_can_be_done_is_offered(desk):
    sprig = desk.window.sprig
    at = desk.at(desk.segment("dart"))
    sprig.customContextMenuRequested.emit(at)
    menu = QApplication.activePopupWidget()
    assert desk.session.node_at(desk.segment("dart").id) in desk.session.picked
    texts = [action.text() for action in menu.actions()]
    assert "Do it again" in texts
    next(action for action in menu.actions() if action.text() == "Do it again").trigger()
    menu.close()
    desk.settle()
    assert sum(s.use.movement.id == "dart" and not s.use.setup_for for s in desk.timed.segments) == 2


def test_keys_of_the_window_work_from_a_field_that_does_not_need_them(desk):
    desk.key(Qt.Key.Key_Plus)
    desk.key(Qt.Key.Key_K, CTRL)
    assert QApplication.focusWidget() is desk.window.finder.field
    desk.key(Qt.Key.Key_Z, CTRL)
    assert desk.session.plan.brief.target_s == 1440
    desk.type("do")
    desk.key(Qt.Key.Key_Z, CTRL)  # what was typed, first
    assert desk.window.finder.field.text() != "do"
    desk.key(Qt.Key.Key_E, CTRL)
    assert desk.window._dialogs[-1].isVisible()


def test_enter_presses_the_button_that_has_the_focus(desk):
    desk.choose("low-lunge")
    again = next(b for b in desk.window.inspector.findChildren(QPushButton) if b.text() == "Do it again")
    again.setFocus()
    desk.key(Qt.Key.Key_Return)
    assert "Again" in desk.session.past.undo_titles[0]


def test_several_acts_are_taken_back_and_done_again_from_the_list(desk):
    first = desk.session.plan
    for title in ("One", "Two", "Three"):
        desk.session.do(f"Call it {title}", with_brief(desk.session.plan, title=title))
    last = desk.session.plan
    desk.press("show_acts")
    acts = desk.window._dialogs[-1]
    assert acts.list.count() == 4
    acts.list.setFocus()
    desk.key(Qt.Key.Key_End)
    assert desk.session.plan == first  # it goes there as it is chosen
    desk.key(Qt.Key.Key_Up)
    assert desk.session.plan != first
    desk.key(Qt.Key.Key_Escape)
    assert desk.session.plan == last
    desk.press("show_acts")
    acts = desk.window._dialogs[-1]
    acts.list.setCurrentRow(2)
    desk.key(Qt.Key.Key_Return)
    assert not acts.isVisible()
    assert len(desk.session.past.undo_titles) == 1
    desk.press("show_acts")  # those taken back are still in it, and one is where one was
    acts = desk.window._dialogs[-1]
    assert acts.list.currentRow() == 2
    acts.list.setCurrentRow(0)
    acts.accept()
    desk.settle()
    assert desk.session.plan == last


def test_text_grows_with_the_window_and_shrinks_with_it(desk):
    assert look.scale() == 1.0
    for size, scale in (
        (QSize(1920, 1080), 1.3),
        (QSize(2600, 1600), look.MOST_GROWN),
        (QSize(1280, 800), 1.0),
    ):
        desk.window.resize(size)
        desk.qtbot.waitUntil(lambda scale=scale: look.scale() == scale, timeout=3000)
    assert look.chosen_scale() == 1.0  # what the teacher wants is another thing


def test_the_size_of_text_is_put_on_once_however_often_it_is_pressed(desk, monkeypatch):
    dressed = []
    dress = desk.window.dress
    monkeypatch.setattr(desk.window, "dress", lambda: (dressed.append(look.scale()), dress()))
    larger = desk.window.commands.actions["larger_text"]
    for _ in range(10):
        larger.trigger()
    desk.settle()
    assert dressed == [2.0]
    larger.trigger()
    desk.settle()
    assert dressed == [2.0]
    look.set_scale(1.0)
    dress()


def test_what_was_told_stays_in_the_room_it_is_about(desk):
    desk.window.tell(Problem("This can't be done here."))
    assert "can't be done" in desk.window.foot.message.text()
    desk.settle()
    desk.press("to_words")
    assert "can't be done" not in desk.window.foot.message.text()
