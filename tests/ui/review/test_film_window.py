"""Making the film: cuts are seen, pulled, put back and looked over; one press writes it."""

import av
import msgspec
import pytest
from PySide6.QtCore import QPoint, Qt

from tests.films import BEFORE_S, film_class
from yewhour.core.film.cut_list import Slower
from yewhour.core.problem import Problem


@pytest.fixture(scope="module")
def filmed(tmp_path_factory):
    """A class, its captions, and the camera's file of it."""
    return film_class(tmp_path_factory.mktemp("filmed"), sound=True)


@pytest.fixture
def page(desk, filmed, qtbot):
    """The class looked back at by its captions."""
    desk.window.file_commands.open_file(filmed / "ebb.yewhour")
    desk.settle()
    desk.window.go_to("to_back")
    page = desk.window.pages.review()
    page.look_at_file(filmed / "ebb.vtt")
    qtbot.waitUntil(lambda: page.looked is not None, timeout=60_000)
    return page


@pytest.fixture
def making(page, desk, filmed, qtbot):
    """The window that makes its film, the camera's file named."""
    asked = []
    page.camera_wanted.connect(asked.append)
    page.make_film()
    window = desk.window._dialogs[0]
    for dialog in desk.window._dialogs[1:]:
        dialog.close()  # that asks for the camera's file
    asked[0](filmed / "camera.mp4")
    qtbot.waitUntil(lambda: window.cuts is not None, timeout=60_000)
    yield window
    window.close()


def reasons(window):
    return [one.why for one in window.cuts.cuts]


def test_the_film_is_as_promised_and_its_cuts_say_why(making, qtbot):
    assert making.length.text() == "The film lasts 4:00, as promised."
    assert (reasons(making)[0], reasons(making)[-1]) == ("before", "after")
    assert "still" in reasons(making)
    told = [making.list.item(number).text() for number in range(making.list.count())]
    assert "before the class begins, from 0:00" in told[0]
    assert making.sides.isHidden()
    qtbot.waitUntil(lambda: making.picture.image is not None, timeout=20_000)


def test_a_cut_is_put_back_and_that_taken_back(making):
    making.list.setCurrentRow(1)
    making.put_back()
    assert "still" not in reasons(making) or len(reasons(making)) == making.list.count()
    assert "longer than promised" in making.length.text()
    making.undo()
    assert making.length.text() == "The film lasts 4:00, as promised."
    assert not making.undo_button.isEnabled()


def test_an_edge_is_pulled_and_a_stretch_drawn_with_the_mouse(making, qtbot):
    making.resize(1100, 700)
    making.show()
    sprigs = making.sprigs
    before = making.cuts
    edge = before.cuts[0].end_s
    left = QPoint(round(0.27 * sprigs.width()), round(sprigs.y_of(edge)))
    qtbot.mousePress(sprigs, Qt.MouseButton.LeftButton, pos=left)
    down = QPoint(left.x(), round(sprigs.y_of(edge + 30)))
    qtbot.mouseMove(sprigs, down)
    qtbot.mouseRelease(sprigs, Qt.MouseButton.LeftButton, pos=down)
    assert making.cuts.cuts[0].end_s == pytest.approx(edge + 30, abs=3.0)
    assert "shorter than promised" in making.length.text()
    begin, end = (QPoint(left.x(), round(sprigs.y_of(at))) for at in (80.0, 110.0))
    count = len(making.cuts.cuts)
    qtbot.mousePress(sprigs, Qt.MouseButton.LeftButton, pos=begin)
    qtbot.mouseMove(sprigs, end)
    qtbot.mouseRelease(sprigs, Qt.MouseButton.LeftButton, pos=end)
    assert len(making.cuts.cuts) == count + 1
    assert "hers" in reasons(making)
    making.undo()
    making.undo()
    assert making.cuts == before


def test_sides_that_differ_by_a_cut_are_told(making):
    there = making.film.in_film(making.cuts)
    left = next(one for one in there.segments if one.side == "left" and not one.use.setup_for)
    begin = BEFORE_S + left.start / 10
    making.cut(begin + 3, begin + 14)
    assert "the left side" in making.sides.text()
    assert not making.sides.isHidden()
    making.undo()
    assert making.sides.isHidden()


def test_what_is_slower_is_a_row_and_an_opening_and_can_be_put_back(making, qtbot):
    before = making.cuts
    making._show(msgspec.structs.replace(before, slower=(Slower(60.0, 70.0, 8.0),)))
    assert making.list.count() == len(before.cuts) + 1
    last = making.list.item(len(before.cuts)).text()
    assert last == "0:08.0 longer: the quiet of a rest, seen slower, from 1:00 to 1:10"
    assert "8 seconds longer than promised" in making.length.text()
    sprigs = making.sprigs
    assert sprigs.cut_at(10, sprigs.y_of(65.0)) == len(before.cuts)
    making.list.setCurrentRow(len(before.cuts))
    assert making.at_s == 60.0
    sprigs.grab()
    making.put_back()
    assert making.cuts == before
    assert making.length.text().endswith("as promised.")


def test_looking_over_a_cut_shows_what_is_before_and_after(making, qtbot):
    making.list.setCurrentRow(1)
    found = []
    making.work.previewed.connect(found.append)
    making.look_over()
    qtbot.waitUntil(lambda: bool(found), timeout=30_000)
    pictures, sound = found[0]
    assert pictures[-1][0] == pytest.approx(3.9, abs=0.2)
    assert len(sound) / 48_000 == pytest.approx(4.0, abs=0.05)
    making.point(50.0)
    assert making.listen_button.text() == "Look over it"


def test_it_is_written_with_its_captions_and_the_cameras_file_stays(making, qtbot, tmp_path):
    out = tmp_path / "ebb.mp4"
    making.over.set_chosen(())
    making._lay_over(())
    making.cut(20.0, 215.0)  # a short film takes less time to write
    making.write(out)
    assert not making.write_button.isEnabled()
    qtbot.waitUntil(lambda: "is written" in making.length.text(), timeout=120_000)
    with av.open(str(out)) as file:
        assert float(file.duration / av.time_base) == pytest.approx(making.cuts.film_s, abs=0.6)
    assert making.cuts.film_s < 120
    assert out.with_suffix(".vtt").read_text().startswith("WEBVTT")
    assert making.write_button.isEnabled()


def test_what_goes_wrong_is_said_where_the_picture_would_be(making, qtbot, tmp_path):
    making.write(tmp_path / "no" / "ebb.mp4")
    qtbot.waitUntil(lambda: "can't be written" in making.picture.words, timeout=60_000)
    assert making.write_button.isEnabled()
    making.tell(Problem("Another class.", do="Name its own."))
    assert making.picture.words == "Another class. Name its own."


def test_a_camera_of_another_class_is_told(page, desk, filmed, qtbot, tmp_path):
    (tmp_path / "words.mp4").write_text("no film")
    asked = []
    page.camera_wanted.connect(asked.append)
    page.make_film()
    window = desk.window._dialogs[0]
    asked[0](tmp_path / "words.mp4")
    qtbot.waitUntil(lambda: bool(window.picture.words) and window.waiting.isHidden(), timeout=30_000)
    assert "can't be read" in window.picture.words
    assert window.length.text() == "There is no film of it yet."
    assert not window.write_button.isEnabled()
