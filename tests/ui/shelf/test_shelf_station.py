"""The shelf, driven: half a made-up year, days given and moved, search, season, series, what it makes."""

import shutil
from datetime import date

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QPushButton

from tests.conftest import demo_maker
from yewhour.content.paths import DEMO
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.plan import steps_of
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.logbook.days import TypedDay
from yewhour.ui.shelf.making import read_series, told_series
from yewhour.ui.shelf.shelf_session import ShelfSession

MONDAY = date(2026, 11, 23).toordinal()


@pytest.fixture
def page(desk):
    """The shelf of Saltmarsh Row, on a Monday."""
    desk.window.pages.shelving.give(ShelfSession(made_up=True, today=lambda: MONDAY))
    desk.window.pages.shelving().changed.connect(desk.window.show_class)
    desk.press("to_shelf")
    return desk.window.pages.shelf()


def spot_of(page, name, day=None):
    return next(
        n for n, spot in enumerate(page.boards.shelves.spots)
        if spot.shelved.id == name and (day is None or (spot.outing and spot.outing.day == day))
    )  # fmt: skip


def middle_of(page, number):
    box = page.boards._box(page.boards.shelves.spots[number])
    return box.center().toPoint() - QPoint(0, page.boards.verticalScrollBar().value())


def press(desk, widget, words):
    """Presses the button that says so."""
    desk.settle()
    found = next(one for one in widget.findChildren(QPushButton) if one.isVisible() and one.text() == words)
    desk.click(found)


def test_on_a_monday_it_says_what_is_due_and_what_the_weeks_show(page):
    assert page.first.text() == (
        "The boat-builders' half hour goes out on Thursday at 18:30, and is to be recorded by tomorrow."
    )
    assert "Hips: 3 weeks running." in page.second.text()
    assert "Wrists and hands: not since August." in page.second.text()
    assert "nothing here is kept" in page.second.text()
    assert page.boards.current.shelved.id == "boat-builders-half-hour"
    titles = [board.title for board in page.boards.shelves.boards]
    assert titles[:2] == ["This week", "Next week"]
    assert "No day yet" in titles
    assert len(titles) > 25


def test_the_one_press_that_comes_next_goes_to_the_take(desk, page):
    desk.click(page.do_first)
    assert desk.session.plan.brief.title == "The boat-builders' half hour"
    assert desk.window.stations.body.currentWidget() is desk.window.pages.take()


def test_a_class_is_dragged_to_a_day_and_back(desk, page):
    number = spot_of(page, "boat-builders-half-hour")
    start = middle_of(page, number)
    wide = page.boards._day_wide
    desk.drag(page.boards.viewport(), start, start + QPoint(round(wide), 0))
    outing = page.boards.current.outing
    assert (outing.day, outing.by) == (MONDAY + 4, MONDAY + 2)
    assert "Friday" in page.first.text()
    desk.press("undo")
    assert page.shelving.shelf.outings[outing.id].day == MONDAY + 3
    desk.press("redo")
    assert page.shelving.shelf.outings[outing.id].day == MONDAY + 4


def test_a_class_without_a_day_is_dragged_onto_one(desk, page):
    page.boards.choose(spot_of(page, "hips-after-the-helm"))
    number = len(page.shelving.shelf.outings)
    page.move_to(page.boards.shelves.spots[spot_of(page, "the-way-back")], MONDAY + 5)
    assert len(page.shelving.shelf.outings) == number + 1
    assert page.boards.current.outing.day == MONDAY + 5


def test_keys_alone_go_about_move_and_take_off(desk, page):
    page.enter()
    desk.key(Qt.Key.Key_Home)
    first = page.boards.current
    desk.key(Qt.Key.Key_Right)
    assert page.boards.current is not first
    desk.key(Qt.Key.Key_Down)
    assert page.boards.current.board == 1
    desk.key(Qt.Key.Key_Up)
    assert page.boards.current.board == 0
    outing = page.boards.current.outing
    desk.key(Qt.Key.Key_Right, Qt.KeyboardModifier.AltModifier)
    assert page.shelving.shelf.outings[outing.id].day == outing.day + 1
    desk.key(Qt.Key.Key_Down, Qt.KeyboardModifier.AltModifier)
    assert page.shelving.shelf.outings[outing.id].day == outing.day + 8
    desk.key(Qt.Key.Key_Delete)
    assert outing.id not in page.shelving.shelf.outings
    desk.press("undo")
    assert outing.id in page.shelving.shelf.outings
    desk.key(Qt.Key.Key_End)
    assert page.boards.spot == len(page.boards.shelves.spots) - 1
    desk.key(Qt.Key.Key_Return)
    assert desk.session.path.stem == page.boards.current.shelved.id


def test_typing_finds_and_enter_goes_there(desk, page):
    page.search.setFocus()
    desk.type("lamps")
    assert [spot.shelved.id for spot in page.boards.shelves.spots] == ["lamps-out"]
    desk.key(Qt.Key.Key_Return)
    assert page.boards.current.shelved.id == "lamps-out"
    page.search.setText("trapeze")
    assert page.boards.shelves.spots == []
    assert page.boards.shelves.boards[0].title == "Nothing found"
    page.search.clear()
    assert len(page.boards.shelves.boards) > 25


def test_a_day_is_given_by_typing_it(desk, page):
    page.boards.choose(spot_of(page, "lamps-out"))
    desk.settle()
    page.beside.field.setFocus()
    desk.type("fri 7:00 the loop")
    desk.key(Qt.Key.Key_Return)
    outing = page.boards.current.outing
    assert (outing.day, outing.at, outing.where) == (MONDAY + 4, "07:00", "the loop")
    page.beside.field.setText("someday")
    page.beside.field.returnPressed.emit()
    assert "is no day" in desk.window.foot.message.text()


def test_what_is_recorded_is_said_and_then_out(desk, page):
    page.boards.choose(spot_of(page, "boat-builders-half-hour"))
    name = page.boards.current.outing.id
    press(desk, page.beside, "A day sooner")
    assert page.shelving.shelf.outings[name].by == MONDAY
    press(desk, page.beside, "It is recorded")
    assert page.boards.current.state == "recorded"
    press(desk, page.beside, "It is out")
    assert page.boards.current.state == "out"


def test_how_it_went_is_kept_and_found(desk, page):
    page.boards.choose(spot_of(page, "lamps-out"))
    page.beside._note.setPlainText("The kettle sang in the rest.")
    page.boards.choose(spot_of(page, "low-water"))
    assert page.shelving.shelf.classes["lamps-out"].note == "The kettle sang in the rest."
    page.search.setText("kettle sang")
    assert [spot.shelved.id for spot in page.boards.shelves.spots] == ["lamps-out"]


def test_the_season_tells_every_place_in_words(desk, page):
    page.show_view(1)
    desk.settle()
    season = page.season
    assert "Drag the tip" not in desk.window.foot.message.text()
    assert len(season.weeks) == 26
    assert season.marked == {"wrists", "hips"}
    row = list(season.areas).index("hips")
    at = QPoint(round(season._x(25)), round(28 + 17 * (row + 0.5)))
    assert season.told_at(at).startswith("Week of 23 November, hips: ")
    assert "Keel and ballast" in season.told_at(QPoint(at.x(), 600))
    assert season.told_at(QPoint(5, 5)) == ""
    assert season.grab().toImage().pixelColor(at) != season.grab().toImage().pixelColor(QPoint(at.x(), 2))


def test_a_series_shows_its_places_and_begins_the_next(desk, page):
    page.show_view(2)
    desk.settle()
    cards = page.courses.cards
    assert len(cards) == 12
    assert "Again" in " ".join(cards[3].lines)
    last = read_plan(DEMO / "back-on-deck.yewhour")
    desk.click(cards[7])
    plan = desk.session.plan
    assert plan.brief.title == "Back on deck 2"
    assert {one.movement for one in steps_of(plan)} < {one.movement for one in steps_of(last)}
    desk.press("draft_fill")
    desk.qtbot.waitUntil(lambda: not desk.session.jobs.busy(), timeout=20_000)
    desk.settle()
    assert {one.movement for one in steps_of(desk.session.plan)} - {one.movement for one in steps_of(last)}
    assert desk.window.pages.shelf().making.coming.series == "series"


def test_series_are_begun_filled_and_let_go(desk, page):
    page.boards.choose(spot_of(page, "low-water"))
    page.show_view(2)
    page.making.begin_series("Hips in spring, 2 weeks of 2")
    desk.settle()
    timed = next(one for one in page.shelving.shelf.series.values() if one.title == "Hips in spring")
    assert (timed.weeks, timed.each) == (2, 2)
    page.courses.put_in.emit(timed.id)
    assert page.shelving.shelf.series[timed.id].classes[0] == "low-water"
    page.courses.dropped.emit(timed.id)
    assert timed.id not in page.shelving.shelf.series
    desk.press("undo")
    assert timed.id in page.shelving.shelf.series
    page.making.begin_series("nonsense")
    assert "can't be read as a series" in desk.window.foot.message.text()
    assert read_series("A course 4 weeks x 3") == ("A course", 4, 3)
    assert told_series("A course, 4 weeks of 3") == "A course: 12 classes, 3 a week."


def test_a_class_names_another_at_its_end(desk, page):
    page.making.name_other("ten-on-the-lockside", "lamps")
    desk.settle()
    said = [cue.text for cue in desk.session.timed.cues]
    assert "If you have twenty-eight minutes more, go on with Lamps out on the river." in said
    desk.press("to_sprig")
    desk.press("undo")
    assert not any("Lamps out" in cue.text for cue in desk.session.timed.cues)


# --- her own shelf ---------------------------------------------------------------------------------------


@pytest.fixture
def hers(bare_desk, tmp_path):
    """A desk with a data folder of its own, and a class of hers in a folder."""
    path = tmp_path / "classes" / "hips.yewhour"
    path.parent.mkdir()
    shutil.copy(DEMO / "hips-after-the-helm.yewhour", path)
    return bare_desk, path


def opened(desk, path):
    desk.window.file_commands.open_file(path)
    desk.settle()
    desk.window.shelve()
    desk.press("to_shelf")
    return desk.window.pages.shelf()


def test_the_first_page_becomes_the_shelf_as_soon_as_there_is_something_on_it(hers):
    desk, path = hers
    assert desk.window.stations.body.currentWidget() is desk.window.pages.start()
    page = opened(desk, path)
    assert [spot.shelved.file for spot in page.boards.shelves.spots] == ["hips.yewhour"]
    desk.press("to_sprig")
    desk.press("show_start")
    assert desk.window.stations.body.currentWidget() is page
    desk.click(next(one for one in page.findChildren(QPushButton) if one.text() == "Begin a class…"))
    assert desk.window.stations.body.currentWidget() is desk.window.pages.start()


def test_a_cut_is_a_class_of_its_own_that_knows_where_it_came_from(hers, tmp_path):
    desk, path = hers
    page = opened(desk, path)
    (origin,) = page.shelving.shelf.classes
    page.beside.cut.emit(origin, 10)
    desk.qtbot.waitUntil(lambda: desk.session.path is None, timeout=20_000)
    desk.settle()
    assert desk.session.timed.length_s == 600
    assert desk.window.file_commands.save_to(tmp_path / "classes" / "hips-10.yewhour")
    desk.window.shelve()
    cut = next(one for one in page.shelving.shelf.classes.values() if one.cut_of)
    assert cut.cut_of == origin
    assert cut.sheet.length_s == 600
    assert read_plan(path) == read_plan(DEMO / "hips-after-the-helm.yewhour")


def test_a_class_that_is_deleted_under_it_is_told_and_its_last_state_is_there(hers):
    desk, path = hers
    desk.window.file_commands.open_file(path)
    desk.settle()
    desk.session.do("Title", with_brief(desk.session.plan, title="Hips again"))
    desk.settle()
    desk.window.file_commands.save_to(path)
    page = opened(desk, path)
    (name,) = page.shelving.shelf.classes
    path.unlink()
    page.boards.choose(0)
    page._open_chosen()
    page.refresh()
    assert "is not where it was" in desk.window.foot.message.text()
    press(desk, page.beside, "Its last saved state")
    desk.settle()
    assert desk.session.plan.brief.title == "Hips again"
    assert desk.session.path is None
    assert name in page.shelving.shelf.classes


def test_a_class_whose_file_was_moved_opens_all_the_same(hers, tmp_path):
    desk, path = hers
    page = opened(desk, path)
    there = tmp_path / "elsewhere" / "hips renamed.yewhour"
    there.parent.mkdir()
    path.rename(there)
    page.boards.choose(0)
    page._open_chosen()
    desk.settle()
    assert desk.session.path == there


def test_two_windows_show_the_same_shelf(hers, qtbot):
    from yewhour.ui.frame.app import another_window

    desk, path = hers
    page = opened(desk, path)
    other = another_window(dark=False)
    other.go_to("to_shelf")
    (name,) = page.shelving.shelf.classes
    other.pages.shelf().shelving.change("How it went", name, note="from the other")
    page.shelving.look()
    assert page.shelving.shelf.classes[name].note == "from the other"
    other.close()


def test_it_is_written_out_as_calendar_table_and_page(desk, page, tmp_path):
    page.write_into(tmp_path)
    names = sorted(one.name for one in tmp_path.iterdir())
    assert names == ["going-out-2026-11-23.csv", "going-out-2026-11-23.ics", "week-2026-11-23.pdf"]
    assert "Written into" in desk.window.foot.message.text()
    page.write_into(tmp_path / "missing")
    assert "can't be written" in desk.window.foot.message.text()


def test_nothing_is_written_into_class_files(hers):
    desk, path = hers
    before = path.read_bytes()
    page = opened(desk, path)
    page.plan(next(iter(page.shelving.shelf.classes)), (TypedDay(MONDAY, "", ""),))
    assert path.read_bytes() == before == plan_bytes(demo_maker("hips-after-the-helm").plan)


def test_the_hint_below_is_of_what_is_shown(desk, page):
    desk.window.foot.note = None  # what was left over from another test
    desk.window.show_class()
    assert "Drag a class to a day" in desk.window.foot.message.text()
    page.show_view(1)
    desk.settle()
    assert "Drag a class" not in desk.window.foot.message.text()
    page.show_view(0)
    desk.settle()
    assert "Drag a class to a day" in desk.window.foot.message.text()


def test_the_same_again_is_a_copy_under_the_next_title(desk, page):
    page.making.again("lamps-out")
    desk.settle()
    assert desk.session.plan.brief.title == "Lamps out on the river 2"
    assert desk.session.path is None
    assert page.making.coming.cut_of == "lamps-out"


def test_a_class_that_was_lost_is_found_where_she_says(hers, tmp_path):
    desk, path = hers
    page = opened(desk, path)
    (name,) = page.shelving.shelf.classes
    away = tmp_path / "a" / "b" / "c" / "far.yewhour"
    away.parent.mkdir(parents=True)
    path.rename(away)
    page.shelving.look()
    assert page.shelving.path_of(name) is None
    page.shelving.found_at(name, away)
    assert page.shelving.path_of(name) == away


def test_keys_of_the_class_leave_it_alone_where_it_is_not_in_view(desk):
    plan = desk.session.plan
    for station in ("to_shelf", "to_back", "show_start"):
        desk.press(station)
        for name in ("shorter_minute", "longer_bit", "by_itself", "draft_another", "draft_fill"):
            desk.press(name)
            assert desk.session.plan is plan
            assert "not in view" in desk.window.foot.message.text()
    desk.press("to_sprig")
    desk.press("shorter_minute")
    assert desk.session.plan.brief.target_s == plan.brief.target_s - 60
    desk.press("undo")
    assert desk.window.foot.message.text().startswith("Taken back: ")


def test_a_folder_of_classes_is_taken_in_at_once_and_what_can_t_be_read_is_told(hers, tmp_path):
    desk, path = hers
    page = opened(desk, path)
    folder = tmp_path / "older"
    folder.mkdir()
    for name in ("low-water", "slack-tide"):
        (folder / f"{name}.yewhour").write_bytes((DEMO / f"{name}.yewhour").read_bytes())
    (folder / "broken.yewhour").write_text("{")
    before = len(page.shelving.shelf.classes)
    page.making.adopt(folder)
    there = before + 2  # what was read arrives a moment after the work is done
    desk.qtbot.waitUntil(lambda: len(page.shelving.shelf.classes) == there, timeout=60_000)
    desk.settle()
    said = desk.window.foot.message.text()
    assert said.startswith("2 classes of older on the shelf. broken.yewhour could not be read")
    page.making.adopt(tmp_path / "nothing")
    assert "no class in" in desk.window.foot.message.text()
