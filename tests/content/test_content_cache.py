"""The library that ships is read once, and anew when a file has changed."""

import os
import shutil

import pytest

from tests.conftest import shipped
from yewhour.content import content_cache
from yewhour.content.paths import DATA
from yewhour.state import teaching_data


@pytest.fixture
def place(tmp_path, monkeypatch):
    monkeypatch.setattr(content_cache, "prepared_folder", lambda: tmp_path / "prepared")
    return tmp_path


def test_what_was_prepared_is_the_library_that_ships(place):
    assert content_cache.read_content_cache() is None
    loaded, problems = teaching_data.load_teaching_data(place / "none")  # makes it
    assert problems == []
    assert content_cache.read_content_cache().library == loaded.library == shipped().library
    assert list(content_cache.read_content_cache().library) == list(loaded.library)
    again, _ = teaching_data.load_teaching_data(place / "none")
    assert again.library == loaded.library


def test_it_is_not_taken_when_a_file_has_changed_or_it_is_damaged(place):
    data = place / "data"
    shutil.copytree(DATA / "movements", data)
    content_cache.write_content_cache(shipped().library, shipped().blocks, {}, data)
    assert content_cache.read_content_cache(data) is not None
    os.utime(data / "rest/rest.toml")
    assert content_cache.read_content_cache(data) is None
    content_cache.write_content_cache(shipped().library, shipped().blocks, {}, data)
    (place / "prepared" / content_cache.FILE).write_bytes(b"\xc1")
    assert content_cache.read_content_cache(data) is None


def test_her_own_movements_come_on_top_of_it_and_what_is_wrong_with_them_is_told(place):
    hers = place / "movements"
    hers.mkdir()
    (hers / "mine.toml").write_text(
        '[child]\nname = "My child"\nkind = "hold"\ndose = [1, 2, 3]\ncall = "Down."\n[oar]\n'
    )
    for _ in range(2):
        loaded, problems = teaching_data.load_teaching_data(place)
        assert loaded.library["child"].name == "My child"
        assert len(problems) == 1
