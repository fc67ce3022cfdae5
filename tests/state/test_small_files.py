"""Whatever is in a small file of hers, everything else works, and what is damaged is set aside whole."""

import os

import pytest

from yewhour.files.small_files import DAMAGED, MOST_BYTES, read_small
from yewhour.state.classes.revisions import NAMES, folder_for, revisions_of
from yewhour.state.classes.unsaved_work import unsaved_work
from yewhour.state.paths import kept_classes, learnt_file, own_data
from yewhour.state.settings import Settings, change_settings, read_settings
from yewhour.state.takes.corrected_starts import corrected_starts
from yewhour.state.takes.learnt_seconds import LearntStore, read_learnt
from yewhour.state.takes.stumbles import stumbled_in

BAD = (
    b'{"recent":["\xff"]}', b'{"scale":"\xc3\x28"}', b"\xff\xfe", b"{broken", b"[1, 2", b"3", b"null", b"",
    b"[" * 200_000, b'{"scale": 1e999}', b'{"recordings": {"a": 5}}', b'{"a": {"b": "c"}}', b'{"a": "b" : 3}',
    b'{"left_out": 4}', b" " * (MOST_BYTES + 1),
)  # fmt: skip


@pytest.mark.parametrize("content", BAD, ids=range(len(BAD)))
def test_a_bad_byte_costs_its_own_file_alone(content, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    path = tmp_path / "ebb.yewhour"
    kept = kept_classes() / "0123456789ab.about"
    names = folder_for(path) / NAMES
    files = [
        own_data() / "habits.json",
        own_data() / "edges.json",
        own_data() / "rehearsed.json",
        learnt_file(),
    ]
    for file in (*files, kept, names):
        file.parent.mkdir(parents=True, exist_ok=True)
        file.write_bytes(content)
    kept.with_suffix(".yewhour").write_bytes(b"{")
    assert isinstance(read_settings(), Settings)
    assert isinstance(read_learnt(), LearntStore)
    assert corrected_starts("any") == {} == stumbled_in("any")
    assert len(unsaved_work()) == 1
    assert revisions_of(path) == []
    change_settings(scale=1.5)
    assert read_settings().scale == 1.5


def test_what_is_damaged_lies_beside_it(tmp_path):
    path = tmp_path / "habits.json"
    path.write_bytes(b"\xff")
    assert read_small(path, Settings, Settings()) == Settings()
    assert not path.exists()
    assert (tmp_path / f"habits.json{DAMAGED}").read_bytes() == b"\xff"


def test_a_folder_a_pipe_and_nothing_are_none(tmp_path):
    os.mkfifo(tmp_path / "pipe")
    for path in (tmp_path, tmp_path / "pipe", tmp_path / "nothing"):
        assert read_small(path, Settings, Settings()) == Settings()
