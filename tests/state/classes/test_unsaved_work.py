"""What was not saved is kept, found again, and nobody else's."""

import os

import pytest

from tests.conftest import plan_of
from yewhour.core.plan.nodes import Step
from yewhour.core.problem import Problem
from yewhour.state.classes.unsaved_work import (
    WorkKeeper,
    lock_class,
    stamp_of,
    sweep,
    unsaved_work,
)
from yewhour.state.paths import kept_classes, own_data
from yewhour.state.settings import (
    change_settings,
    read_settings,
    recent_classes,
    remember_opened,
)


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


@pytest.fixture
def plan():
    return plan_of(Step(movement="downward-dog"), title="Ebb")


def test_work_that_is_being_done_is_not_offered_and_work_left_behind_is(plan, tmp_path):
    keeper = WorkKeeper()
    keeper.keep(plan, tmp_path / "ebb.yewhour")
    assert unsaved_work() == []
    keeper.close()  # as when the program ends, however it ends
    kept = unsaved_work()
    assert [(one.about.title, one.about.path) for one in kept] == [("Ebb", str(tmp_path / "ebb.yewhour"))]
    assert kept[0].plan() == plan
    kept[0].forget()
    assert unsaved_work() == []


def test_saved_work_leaves_nothing_behind(plan):
    keeper = WorkKeeper()
    keeper.keep(plan, None)
    keeper.saved()
    assert [path for path in kept_classes().iterdir() if path.suffix != ".lock"] == []
    assert unsaved_work() == []


def test_a_class_open_twice_is_noticed_until_one_is_closed(tmp_path):
    path = tmp_path / "ebb.yewhour"
    first = lock_class(path)
    assert first is not None
    assert lock_class(path) is None
    assert lock_class(tmp_path / "flow.yewhour") is not None
    first.close()
    assert lock_class(path) is not None


def test_a_place_that_cannot_be_written_is_told_with_what_to_do(plan, monkeypatch, tmp_path):
    (tmp_path / "data").write_text("a file where the folder should be")
    with pytest.raises((Problem, OSError)) as caught:
        WorkKeeper().keep(plan, None)
    assert "Save the class now" in str(caught.value)


def test_a_stamp_tells_whether_a_file_is_as_it_was(tmp_path):
    path = tmp_path / "a"
    path.write_text("one")
    before = stamp_of(path)
    path.write_text("two")
    assert stamp_of(path) != before
    assert stamp_of(tmp_path / "none") == stamp_of(None) == ""


def test_classes_opened_lately_are_remembered_while_they_are_there(tmp_path):
    for name in ("a", "b", "a"):
        path = tmp_path / f"{name}.yewhour"
        path.touch()
        remember_opened(path)
    assert [path.stem for path in recent_classes()] == ["a", "b"]
    os.unlink(tmp_path / "a.yewhour")
    assert [path.stem for path in recent_classes()] == ["b"]


def test_damaged_habits_are_as_usual():
    change_settings(scale=1.5)
    assert read_settings().scale == 1.5
    (own_data() / "habits.json").write_text("{")
    assert read_settings().scale == 1.0


def test_what_killed_programs_left_is_swept_and_nothing_else(plan, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    keeper = WorkKeeper()
    keeper.keep(plan, None)
    folder = keeper.file.parent
    old = [
        folder / "gone.lock",
        folder / "gone.about",
        folder / ".x.yewhour.abc.part",
        own_data() / "open/a.lock",
    ]
    for file in old:
        file.parent.mkdir(parents=True, exist_ok=True)
        file.write_bytes(b"")
    young = folder / ".y.yewhour.abc.part"
    young.write_bytes(b"")
    now_s = young.stat().st_mtime
    sweep(now_s)
    assert all(file.exists() for file in [*old, young, keeper.file])
    sweep(now_s + 2 * 3600)
    assert not any(file.exists() for file in [*old, young])
    assert keeper.file.exists()
    assert keeper.file.with_suffix(".lock").exists()


def test_a_draft_that_was_only_tried_is_kept_a_week_and_work_for_ever(plan, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    tried, worked = WorkKeeper(), WorkKeeper()
    tried.keep(plan, None, tried=True)
    worked.keep(plan, None)
    now_s = tried.file.stat().st_mtime
    sweep(now_s + 8 * 24 * 3600)
    assert tried.file.exists()  # a window has it
    tried.close()
    worked.close()
    sweep(now_s + 6 * 24 * 3600)
    assert tried.file.exists()
    sweep(now_s + 8 * 24 * 3600)
    assert not tried.file.exists()
    assert [one.file for one in unsaved_work()] == [worked.file]


def test_where_nothing_can_be_kept_it_is_told_and_nothing_breaks(plan, tmp_path, monkeypatch):
    (tmp_path / "file").write_text("no folder")
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "file" / "data"))
    assert unsaved_work() == []
    sweep(0.0)
    with pytest.raises(Problem, match="can't be kept safe"):
        WorkKeeper().keep(plan, None)
    with pytest.raises(Problem, match="can't be made"):
        lock_class(tmp_path / "a.yewhour")
