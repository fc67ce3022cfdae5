"""A class is seen at once as it was last time, and a glimpse that is no good is none."""

import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import FIRST_DEMO
from yewhour.state.classes.preview_cache import (
    MOST,
    ClassPreview,
    keep_preview,
    make_preview,
    preview_of,
)
from yewhour.state.classes.preview_files import own_previews
from yewhour.state.paths import own_data


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setattr("yewhour.state.classes.preview_files.prepared_folder", lambda: tmp_path / "prepared")


def test_every_part_of_a_made_class_comes_back_as_it_was():
    assert preview_of(FIRST_DEMO) is None
    make_preview(FIRST_DEMO, own_previews())
    solved = demo_maker("bell-ringers")
    assert preview_of(FIRST_DEMO) == ClassPreview(solved.make(), solved.lengths)


def test_a_changed_file_or_a_damaged_glimpse_has_none(tmp_path):
    path = tmp_path / "a.yewhour"
    path.write_bytes(FIRST_DEMO.read_bytes())
    make_preview(path, own_previews())
    assert preview_of(path) is not None
    next((own_data() / "glimpses").glob("*")).write_bytes(b"\xc1")
    assert preview_of(path) is None
    path.write_bytes(path.read_bytes() + b"\n")
    assert preview_of(path) is None
    assert preview_of(tmp_path / "none") is None


def test_what_was_prepared_beside_the_program_is_found_and_nothing_of_hers_is_written(tmp_path):
    make_preview(FIRST_DEMO, tmp_path / "prepared")
    assert preview_of(FIRST_DEMO) is not None
    assert not own_data().exists()


def test_there_are_never_many(tmp_path):
    solved = demo_maker("bell-ringers")
    glimpse = ClassPreview(solved.make(), solved.lengths)
    for number in range(MOST + 3):
        path = tmp_path / f"{number}"
        path.write_text(str(number))
        keep_preview(path, glimpse)
    assert len(list((own_data() / "glimpses").glob("*"))) == MOST
