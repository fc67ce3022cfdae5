"""The library that ships is read once, and anew when a file has changed."""

import os
import shutil

import pytest

from tests.conftest import shipped
from yewhour.store import ready, words
from yewhour.store.paths import DATA


@pytest.fixture
def place(tmp_path, monkeypatch):
    monkeypatch.setattr(ready, "prepared", lambda: tmp_path / "prepared")
    return tmp_path


def test_what_was_prepared_is_the_library_that_ships(place):
    assert ready.ready_data() is None
    loaded, problems = words.load_words(place / "none")  # makes it
    assert problems == []
    assert ready.ready_data().library == loaded.library == shipped().library
    assert list(ready.ready_data().library) == list(loaded.library)
    again, _ = words.load_words(place / "none")
    assert again.library == loaded.library


def test_it_is_not_taken_when_a_file_has_changed_or_it_is_damaged(place):
    data = place / "data"
    shutil.copytree(DATA / "movements", data)
    ready.make_ready(shipped().library, shipped().blocks, {}, data)
    assert ready.ready_data(data) is not None
    os.utime(data / "rest/rest.toml")
    assert ready.ready_data(data) is None
    ready.make_ready(shipped().library, shipped().blocks, {}, data)
    (place / "prepared" / ready.FILE).write_bytes(b"\xc1")
    assert ready.ready_data(data) is None


def test_her_own_movements_come_on_top_of_it_and_what_is_wrong_with_them_is_told(place):
    hers = place / "movements"
    hers.mkdir()
    (hers / "mine.toml").write_text(
        '[child]\nname = "My child"\nkind = "hold"\ndose = [1, 2, 3]\ncall = "Down."\n[oar]\n'
    )
    for _ in range(2):
        loaded, problems = words.load_words(place)
        assert loaded.library["child"].name == "My child"
        assert len(problems) == 1
