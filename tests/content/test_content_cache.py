"""The library that ships is read once, and anew when a file has changed."""

import os
import shutil

import pytest
import rtoml

from tests.conftest import shipped
from yewhour.content import content_cache
from yewhour.content.paths import DATA
from yewhour.state import teaching_data


@pytest.fixture
def place(tmp_path, monkeypatch):
    monkeypatch.setattr(content_cache, "prepared_folder", lambda: tmp_path / "prepared")
    return tmp_path


def kept(data=DATA):
    return content_cache.read_content_cache(content_cache.content_stamps(data))


def keep(data):
    stamps = content_cache.content_stamps(data)
    content_cache.write_content_cache(shipped().library, shipped().blocks, {}, stamps)


def test_what_was_prepared_is_the_library_that_ships(place):
    assert kept() is None
    loaded, problems = teaching_data.load_teaching_data(place / "none")  # makes it
    assert problems == []
    assert kept().library == loaded.library == shipped().library
    assert list(kept().library) == list(loaded.library)
    again, _ = teaching_data.load_teaching_data(place / "none")
    assert again.library == loaded.library


def test_it_is_not_taken_when_a_file_has_changed_or_it_is_damaged(place):
    data = place / "data"
    shutil.copytree(DATA / "movements", data)
    keep(data)
    assert kept(data) is not None
    os.utime(data / "rest/rest.toml")
    assert kept(data) is None
    keep(data)
    (place / "prepared" / content_cache.FILE).write_bytes(b"\xc1")
    assert kept(data) is None


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


def test_what_was_given_before_is_not_kept_as_what_the_files_hold_now(place, monkeypatch):
    """A program that runs on while its files are replaced keeps nothing old under their new stamps."""
    teaching_data.load_teaching_data(place / "none")
    teaching_data.load_teaching_data(place / "none")  # by what was kept
    stamps = {**content_cache.content_stamps(), "positions.toml": (1, 1)}
    monkeypatch.setattr(teaching_data, "content_stamps", lambda: stamps)
    read = []
    monkeypatch.setattr("yewhour.files.toml_files.rtoml", Reading(read))
    teaching_data.load_teaching_data(place / "none")
    assert any("squat -> standing" in text for text in read)
    assert content_cache.read_content_cache(stamps) is not None


class Reading:
    """A reader of TOML that tells what it reads."""

    TomlParsingError = rtoml.TomlParsingError

    def __init__(self, read):
        self.read = read

    def loads(self, text):
        self.read.append(text)
        return rtoml.loads(text)
