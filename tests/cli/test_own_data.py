"""Tests, benchmarks and pictures leave the teacher's own data alone."""

import os
import subprocess

import pytest

from tests.conftest import ROOT


@pytest.mark.parametrize(
    "command",
    [
        ["test", "tests/state/classes/test_unsaved_work.py", "-p", "no:cacheprovider"],
        ["bench", "demo"],
        ["shots", "OUT", "first-page"],
    ],
)
def test_her_data_are_neither_read_nor_written(command, tmp_path):
    home = tmp_path / "home"
    command = [str(tmp_path / "out") if word == "OUT" else word for word in command]
    hers = home / ".local/share/yewhour"
    (hers / "movements").mkdir(parents=True)
    (hers / "habits.json").write_text('{"scale": 2.0}')
    (hers / "movements/mine.toml").write_text("[nothing]\n")  # would be complained about, were it read
    before = {path: path.stat().st_mtime_ns for path in home.rglob("*")}
    env = {name: value for name, value in os.environ.items() if not name.startswith(("XDG_", "PYTEST"))}
    env["HOME"] = str(home)
    done = subprocess.run([ROOT / "yew", *command], env=env, capture_output=True, text=True, timeout=120)
    assert done.returncode == 0, done.stdout + done.stderr
    assert "mine.toml" not in done.stdout + done.stderr
    assert {path: path.stat().st_mtime_ns for path in home.rglob("*")} == before
