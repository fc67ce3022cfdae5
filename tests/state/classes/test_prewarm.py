"""A class never opened before is made in another process, and nobody waits for one that can't be."""

import os
from pathlib import Path

import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import FIRST_DEMO
from yewhour.state.classes.preview_cache import ClassPreview, preview_of
from yewhour.state.classes.prewarm import Prewarm, prewarm_for


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setattr("yewhour.state.classes.preview_files.prepared_folder", lambda: tmp_path / "prepared")


def test_a_class_never_opened_is_made_ahead_in_another_process(tmp_path):
    path = tmp_path / "a.yewhour"
    path.write_bytes(FIRST_DEMO.read_bytes())
    Prewarm(path).wait(60)
    solved = demo_maker("bell-ringers")
    assert preview_of(path) == ClassPreview(solved.make(), solved.lengths)


def test_what_can_t_be_made_ahead_has_no_glimpse_and_keeps_nobody_waiting(tmp_path):
    for name, content in (("no.yewhour", b"{"), ("an outline.txt", b"for 10:00\nchild 5b\n")):
        (tmp_path / name).write_bytes(content)
        Prewarm(tmp_path / name).wait(60)
        assert preview_of(tmp_path / name) is None
    Prewarm(tmp_path / "nowhere.yewhour").wait(60)
    Prewarm(Path("/dev/zero")).wait(60)  # without end
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    Prewarm(pipe).wait(60)  # what is in it can be read once only
    path = tmp_path / "a.yewhour"
    path.write_bytes(FIRST_DEMO.read_bytes())
    Prewarm(path).wait(0)  # it would take longer: given up
    assert preview_of(path) is None


@pytest.mark.parametrize(
    ("arguments", "there"),
    [
        (["demo"], True),
        (["open"], False),
        (["open", "a.yewhour"], True),
        (["check", "a.yewhour"], False),
        ([], False),
    ],
)
def test_what_a_command_line_opens_is_begun(arguments, there, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    found = prewarm_for(arguments)
    assert (found is not None) == there
    if found is not None:
        found.wait(0)
