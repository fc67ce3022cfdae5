"""Every saved state is kept, once, and the oldest go."""

from datetime import datetime, timedelta

import pytest

from tests.conftest import plan_of
from yewhour.core.plan.nodes import Step
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.classes.revisions import (
    MOST,
    folder_for,
    keep_revision,
    name_revision,
    revisions_of,
)

NOON = datetime(2026, 5, 1, 12, 0, 0)


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def state(amount):
    return plan_of(Step(movement="downward-dog", amount=amount))


def test_versions_come_latest_first_and_the_same_state_only_once(tmp_path):
    path = tmp_path / "ebb.yewhour"
    for number in (3, 4, 4, 5):
        keep_revision(path, plan_bytes(state(number)), NOON + timedelta(minutes=number))
    found = revisions_of(path)
    assert [version.plan() for version in found] == [state(5), state(4), state(3)]
    assert found[0].when == NOON + timedelta(minutes=5)
    assert revisions_of(tmp_path / "other.yewhour") == []


def test_two_saved_in_one_second_are_both_kept(tmp_path):
    for number in (3, 4):
        keep_revision(tmp_path / "a.yewhour", plan_bytes(state(number)), NOON)
    assert len(revisions_of(tmp_path / "a.yewhour")) == 2


def test_the_oldest_go_when_there_are_many(tmp_path):
    for number in range(MOST + 5):
        keep_revision(tmp_path / "a.yewhour", plan_bytes(state(number + 1)), NOON + timedelta(minutes=number))
    found = revisions_of(tmp_path / "a.yewhour")
    assert len(found) == MOST
    assert found[0].plan() == state(MOST + 5)


def test_versions_go_by_what_came_after_what_even_when_a_clock_was_ahead(tmp_path):
    path = tmp_path / "a.yewhour"
    for number in range(MOST):
        keep_revision(path, plan_bytes(state(number + 1)), NOON + timedelta(days=4000, minutes=number))
    for number in range(10):
        keep_revision(path, plan_bytes(state(100 + number)), NOON + timedelta(minutes=number))
    found = revisions_of(path)
    assert len(found) == MOST
    assert [version.plan() for version in found[:10]] == [state(109 - number) for number in range(10)]


def test_a_state_with_a_name_stays_whatever_comes_after_it(tmp_path):
    path = tmp_path / "a.yewhour"
    keep_revision(path, plan_bytes(state(1)), NOON)
    name_revision(path, revisions_of(path)[0], " Before the bell ")
    for number in range(1, MOST + 5):
        keep_revision(path, plan_bytes(state(number + 1)), NOON)
    found = revisions_of(path)
    assert found[-1].name == "Before the bell"
    assert len(found) == MOST + 1
    name_revision(path, found[-1], "")
    assert revisions_of(path)[-1].name == ""


def test_a_damaged_file_of_names_names_nothing_and_loses_no_state(tmp_path):
    path = tmp_path / "a.yewhour"
    keep_revision(path, plan_bytes(state(1)), NOON)
    (folder_for(path) / "names.json").write_bytes(b"[")
    assert [one.name for one in revisions_of(path)] == [""]
