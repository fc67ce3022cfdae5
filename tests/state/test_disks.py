"""Kills, full disks, other users and other writers: a file is whole, the old one or the new one."""

import os
import shutil
import signal
import subprocess
import tempfile
import time
from pathlib import Path
from random import Random

import pytest

from tests.conftest import plan_of
from tools.kills import in_another, kill_saves
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step
from yewhour.core.problem import Problem
from yewhour.state.classes.class_file import plan_bytes, read_plan, write_plan

PLAN = plan_of(Step(movement="child", amount=5), Step(movement="low-lunge", amount=5))


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def test_a_saving_process_that_is_killed_leaves_the_class_whole_and_nothing_piles_up(tmp_path):
    folder = tmp_path / "classes"
    folder.mkdir()
    assert kill_saves(PLAN, folder / "ebb.yewhour", 40, Random(1)) == []


@pytest.fixture
def small_disk(tmp_path):
    """A disk of 64 KiB."""
    folder = tmp_path / "disk"
    folder.mkdir()
    if subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=64k", "tmpfs", str(folder)], check=False
    ).returncode:
        pytest.skip("nothing can be mounted here")
    yield folder
    subprocess.run(["umount", str(folder)], check=True)


def test_on_a_full_disk_the_old_file_stays_and_it_is_told(small_disk):
    path = small_disk / "ebb.yewhour"
    write_plan(PLAN, path)
    before = path.read_bytes()
    (small_disk / "full").write_bytes(b"x" * (56 * 1024))
    long = with_brief(PLAN, title="x" * 30_000)
    with pytest.raises(Problem, match="no space left"):
        write_plan(long, path)
    assert path.read_bytes() == before
    assert sorted(one.name for one in small_disk.iterdir()) == ["ebb.yewhour", "full"]
    (small_disk / "full").unlink()
    write_plan(long, path)
    assert read_plan(path) == long


@pytest.mark.skipif(os.geteuid() != 0, reason="only root can be another user")
def test_another_user_is_refused_and_told_and_nothing_is_changed(request):
    open_to_all = Path(tempfile.mkdtemp(dir="/tmp"))
    open_to_all.chmod(0o755)
    request.addfinalizer(lambda: shutil.rmtree(open_to_all))
    folder = open_to_all / "hers"
    folder.mkdir(mode=0o755)
    path = folder / "ebb.yewhour"
    write_plan(PLAN, path)
    before = path.read_bytes()
    messages = open_to_all / "told"
    messages.touch()
    messages.chmod(0o666)

    def work():
        os.setgid(65534)
        os.setuid(65534)
        try:
            write_plan(with_brief(PLAN, title="Theirs"), path)
        except Problem as problem:
            messages.write_text(str(problem))

    os.waitpid(in_another(work), 0)
    assert "permission denied" in messages.read_text()
    assert path.read_bytes() == before
    assert [one.name for one in folder.iterdir()] == ["ebb.yewhour"]


def test_two_writers_at_once_leave_one_whole_file_and_no_parts(tmp_path):
    path = tmp_path / "ebb.yewhour"
    states = [with_brief(PLAN, title=title * 2000) for title in "ab"]
    write_plan(states[0], path)

    def writer(state):
        def work():
            for _ in range(10**6):
                write_plan(state, path)

        return work

    children = [in_another(writer(state)) for state in states]
    seen = set()
    start = time.monotonic()
    while time.monotonic() < start + 0.5 or (len(seen) < 2 and time.monotonic() < start + 20):
        seen.add(path.read_bytes())
    for child in children:
        os.kill(child, signal.SIGTERM)
        os.waitpid(child, 0)
    assert seen <= {plan_bytes(state) for state in states}
    assert len(seen) == 2
