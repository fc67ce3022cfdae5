"""Classes and takes on the shelf; a class is found again wherever its file went."""

import shutil
from datetime import datetime

import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import DEMO
from yewhour.core.plan.edit import with_brief
from yewhour.core.take.marks import Mark, mark_line
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.logbook.shelving import path_of, shelve, shelve_takes


@pytest.fixture
def book(tmp_path):
    timed = Logbook(tmp_path / "shelf", "here")
    yield timed
    timed.close()


def put(tmp_path, book, name="bell-ringers", folder="classes"):
    path = tmp_path / folder / f"{name}.yewhour"
    path.parent.mkdir(exist_ok=True)
    shutil.copy(DEMO / f"{name}.yewhour", path)
    return path, shelve(book, path, demo_maker(name).make())


def test_a_class_is_one_however_often_it_is_opened(tmp_path, book):
    path, name = put(tmp_path, book)
    assert shelve(book, path, demo_maker("bell-ringers").make()) == name
    assert len(book.shelf.classes) == 1
    assert path_of(book, name) == path


@pytest.mark.parametrize("where", ["elsewhere/other.yewhour", "classes/renamed.yewhour"])
def test_a_file_that_was_moved_or_renamed_is_found(tmp_path, book, where):
    path, name = put(tmp_path, book)
    there = tmp_path / where
    there.parent.mkdir(exist_ok=True)
    path.rename(there)
    assert path_of(book, name) == there
    assert path_of(book, name) == there  # and known from now on
    assert book.shelf.classes[name].file == there.name


def test_a_file_that_was_moved_and_changed_is_found_by_its_name_and_title(tmp_path, book):
    path, name = put(tmp_path, book)
    there = tmp_path / "moved" / path.name
    there.parent.mkdir()
    plan = demo_maker("bell-ringers").plan
    there.write_bytes(plan_bytes(with_brief(plan, audience="somebody else")))
    path.unlink()
    assert path_of(book, name) == there


def test_a_moved_file_that_is_opened_itself_is_the_same_class(tmp_path, book):
    path, name = put(tmp_path, book)
    there = tmp_path / "far" / "away"
    there.mkdir(parents=True)
    moved = path.rename(there / "x.yewhour")
    assert shelve(book, moved, demo_maker("bell-ringers").make()) == name


def test_a_class_that_is_deleted_stays_on_the_shelf_and_no_other_is_taken_for_it(tmp_path, book):
    path, name = put(tmp_path, book)
    _, other = put(tmp_path, book, "lamps-out")
    path.unlink()
    assert path_of(book, name) is None
    assert path_of(book, other) is not None
    assert len(book.shelf.classes) == 2


def take_in(folder, name, end=True, when=datetime(2031, 3, 5, 7, 30)):
    there = folder / when.strftime("%Y-%m-%d-%H%M%S-%f")
    there.mkdir(parents=True)
    shutil.copy(DEMO / f"{name}.yewhour", there / "class.yewhour")
    marks = [Mark(0.0, "start", length_s=1440.0)] + ([Mark(1451.5, "end")] if end else [])
    (there / "marks.jsonl").write_bytes(b"".join(map(mark_line, marks)))


def test_takes_come_onto_the_shelf_once_with_their_day_and_lengths(tmp_path, book):
    _, name = put(tmp_path, book)
    takes = tmp_path / "takes"
    take_in(takes, "bell-ringers")
    take_in(takes, "bell-ringers", end=False, when=datetime(2031, 3, 6, 7, 30))
    assert shelve_takes(book, takes) == 1
    assert shelve_takes(book, takes) == 0
    (taken,) = book.shelf.takes_of[name]
    assert (taken.day, taken.length_s, taken.promised_s) == (datetime(2031, 3, 5).toordinal(), 1451.5, 1440.0)


def test_a_take_of_a_class_that_comes_later_is_of_it_then(tmp_path, book):
    takes = tmp_path / "takes"
    take_in(takes, "lamps-out")
    assert shelve_takes(book, takes) == 1
    _, name = put(tmp_path, book, "lamps-out")
    assert len(book.shelf.takes_of[name]) == 1


def test_a_damaged_take_stops_nothing(tmp_path, book):
    takes = tmp_path / "takes"
    take_in(takes, "bell-ringers")
    (takes / "no date").mkdir()
    broken = takes / "2031-01-01-000000-000000"
    broken.mkdir()
    (broken / "class.yewhour").write_text("{")
    assert shelve_takes(book, takes) == 1
