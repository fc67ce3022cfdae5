"""A take is on the disk as it happens: a kill loses a mark at most, a full disk nothing."""

import os
import signal
import subprocess
import time
from contextlib import suppress
from datetime import datetime
from random import Random

import pytest

from tests.conftest import plan_of
from tools.kills import in_another
from yewhour.content.paths import DEMO
from yewhour.core.plan.nodes import Step
from yewhour.core.problem import Problem
from yewhour.core.review.learning import RecordingNotes
from yewhour.core.take.marks import Mark, mark_line
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.paths import kept_takes
from yewhour.state.takes.finished_takes import finished_takes, is_keeper, keep_take, name_take
from yewhour.state.takes.interrupted_takes import interrupted_takes, leave
from yewhour.state.takes.learnt_seconds import all_notes, keep_notes
from yewhour.state.takes.replayed_take import key_of
from yewhour.state.takes.take_folder import TakeFolder
from yewhour.state.takes.take_sounds import CLASS, MARKS

PLAN = plan_of(Step(movement="child", amount=5), title="Ebb")
WHEN = datetime(2026, 3, 2, 7, 15)


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def begun(messages=print):
    file = TakeFolder(messages)
    file.begin(PLAN, WHEN)
    file.mark(Mark(0.0, "start", title="Ebb", key=key_of(PLAN), length_s=600.0))
    return file


def test_a_take_without_an_end_is_broken_off_and_one_with_it_is_not():
    file = begun()
    file.mark(Mark(61.5, "again"))
    file.beat(75.0)
    assert interrupted_takes() == []  # it is going on
    file.close()
    (broken,) = interrupted_takes()
    assert broken.plan == PLAN
    assert [mark.do for mark in broken.read.marks] == ["start", "again"]
    assert broken.until_s == 75.0
    assert broken.when == WHEN
    leave(broken)
    assert interrupted_takes() == []
    assert (broken.folder / "marks.jsonl").read_bytes().endswith(b'{"at_s":75.0,"do":"end"}\n')


@pytest.mark.parametrize("seed", range(12))
def test_a_kill_at_any_moment_loses_the_mark_being_written_at_most(seed, tmp_path):
    said = tmp_path / "said"

    def work():
        file = begun()
        with said.open("ab", buffering=0) as log:
            for number in range(1, 10**6):
                file.mark(Mark(float(number), "again"))
                log.write(b"%d\n" % number)
                time.sleep(0.0005)

    child = in_another(work)
    time.sleep(0.05 + Random(seed).uniform(0, 0.1))
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    known = len(said.read_bytes().splitlines()) if said.exists() else 0
    found = interrupted_takes()
    if known:
        (broken,) = found
        kept = sum(mark.do == "again" for mark in broken.read.marks)
        assert kept >= known - 1


def test_a_mark_cut_off_is_left_out_and_those_after_it_are_read():
    file = begun()
    file.close()
    folder = next(kept_takes().glob("2026*"))
    with (folder / "marks.jsonl").open("ab") as marks:
        marks.write(b'{"at_s": 12.0, "do": "ag')
    again = TakeFolder(print)
    again.go_on(folder)
    again.mark(Mark(30.0, "next"))
    again.close()
    (broken,) = interrupted_takes()
    assert [mark.do for mark in broken.read.marks] == ["start", "next"]
    assert "cut off" in broken.read.messages[0]


def test_two_takes_at_once_are_refused():
    file = begun()
    with pytest.raises(Problem, match="Another take"):
        begun()
    file.close()


def test_a_take_called_off_leaves_nothing():
    file = begun()
    file.discard()
    assert [one.name for one in kept_takes().iterdir()] == ["lock"]


def test_on_a_full_disk_it_is_told_once_and_nothing_is_lost(tmp_path, monkeypatch):
    disk = tmp_path / "disk"
    disk.mkdir()
    if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=64k", "tmpfs", str(disk)], check=False).returncode:
        pytest.skip("nothing can be mounted here")
    try:
        monkeypatch.setenv("XDG_DATA_HOME", str(disk))
        messages = []
        file = begun(messages.append)
        while file._disk.busy():
            time.sleep(0.01)
        with (disk / "full").open("wb", buffering=0) as full, suppress(OSError):
            while True:
                full.write(b"x" * 1024)
        for number in range(1, 400):
            file.mark(Mark(float(number), "note", text="x" * 40))
        while file._disk.busy():
            time.sleep(0.01)
        assert len(messages) == 1
        assert "no space left" in str(messages[0])
        (disk / "full").unlink()
        file.mark(Mark(500.0, "again"))
        file.close()
        (broken,) = interrupted_takes()
        assert len(broken.read.marks) == 401
        assert broken.read.messages == ()
    finally:
        subprocess.run(["umount", str(disk)], check=True)


def kept_take(name, *marks):
    """A take that is over, in its folder."""
    folder = kept_takes() / name
    folder.mkdir(parents=True)
    plan = read_plan(DEMO / "four-at-the-slip.yewhour")
    (folder / CLASS).write_bytes(plan_bytes(plan))
    (folder / MARKS).write_bytes(b"".join(mark_line(one) for one in marks))
    return folder, plan.brief.title


def test_a_take_has_a_length_a_name_and_only_keepers_teach(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    start = Mark(0.0, "start", length_s=240.0)
    cut = Mark(130.0, "resume", cut=(100.0, 130.0))
    whole, title = kept_take("2026-11-02-101500-000000", start, Mark(110.0, "pause"), cut, Mark(285.0, "end"))
    junk, _ = kept_take("2026-11-03-101500-000000", start, Mark(20.0, "end"))
    takes = finished_takes(title)
    told = [(one.folder, one.length_s, one.keeper) for one in takes]
    assert told == [(whole, 255.0, True), (junk, 20.0, False)]
    name_take(whole, "  The good one ")
    keep_take(junk, True)
    assert [one.keeper for one in finished_takes(title)] == [True, True]
    assert finished_takes(title)[1].name == "The good one"
    notes = RecordingNotes("mat-classical", ())
    keep_notes(str(whole), notes)
    assert len(all_notes()) == 1
    keep_take(whole, False)
    assert all_notes() == []
    assert not is_keeper(whole)
    keep_take(whole, True)  # got back, with what it showed
    assert all_notes() == [notes]
