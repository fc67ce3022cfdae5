"""A class is seen at once as it was last time, and a glimpse that is no good is none."""

import pytest

from tests.conftest import demo_maker
from yewhour.store.glimpse import MOST, Glimpse, glimpse_of, keep_glimpse, prepare
from yewhour.store.glimpse_file import own_glimpses
from yewhour.store.paths import FIRST_DEMO, own_data


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setattr("yewhour.store.glimpse_file.prepared", lambda: tmp_path / "prepared")


def test_every_part_of_a_made_class_comes_back_as_it_was():
    assert glimpse_of(FIRST_DEMO) is None
    prepare(FIRST_DEMO, own_glimpses())
    solved = demo_maker("bell-ringers")
    assert glimpse_of(FIRST_DEMO) == Glimpse(solved.make(), solved.lengths)


def test_a_changed_file_or_a_damaged_glimpse_has_none(tmp_path):
    path = tmp_path / "a.yewhour"
    path.write_bytes(FIRST_DEMO.read_bytes())
    prepare(path, own_glimpses())
    assert glimpse_of(path) is not None
    next((own_data() / "glimpses").glob("*")).write_bytes(b"\xc1")
    assert glimpse_of(path) is None
    path.write_bytes(path.read_bytes() + b"\n")
    assert glimpse_of(path) is None
    assert glimpse_of(tmp_path / "none") is None


def test_what_was_prepared_beside_the_program_is_found_and_nothing_of_hers_is_written(tmp_path):
    prepare(FIRST_DEMO, tmp_path / "prepared")
    assert glimpse_of(FIRST_DEMO) is not None
    assert not own_data().exists()


def test_there_are_never_many(tmp_path):
    solved = demo_maker("bell-ringers")
    glimpse = Glimpse(solved.make(), solved.lengths)
    for number in range(MOST + 3):
        path = tmp_path / f"{number}"
        path.write_text(str(number))
        keep_glimpse(path, glimpse)
    assert len(list((own_data() / "glimpses").glob("*"))) == MOST
