"""A file is there whole or not at all; what is no regular file is never replaced."""

import os
import stat
import threading

import pytest

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import read_all, write_whole


def test_the_null_device_stays_a_device(tmp_path):
    device = tmp_path / "null"
    try:
        os.mknod(device, stat.S_IFCHR | 0o666, os.makedev(1, 3))
        device.write_bytes(b"")
    except OSError:
        pytest.skip("no device can be made here")
    write_whole(device, b"a class")
    assert stat.S_ISCHR(device.stat().st_mode)
    assert os.listdir(tmp_path) == ["null"]
    with pytest.raises(Problem, match="device"):
        read_all(device)


def test_a_pipe_is_written_into_and_read_from(tmp_path):
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    got = []
    reader = threading.Thread(target=lambda: got.append(read_all(pipe)))
    reader.start()
    write_whole(pipe, b"a class")
    reader.join(timeout=5)
    assert got == [b"a class"]
    assert stat.S_ISFIFO(pipe.stat().st_mode)


def test_a_file_keeps_its_mode_and_a_link_keeps_pointing(tmp_path):
    real, link = tmp_path / "real", tmp_path / "link"
    real.write_bytes(b"old")
    real.chmod(0o640)
    link.symlink_to(real)
    write_whole(link, b"new")
    assert link.is_symlink()
    assert real.read_bytes() == b"new"
    assert stat.S_IMODE(real.stat().st_mode) == 0o640


def test_attributes_of_a_file_stay(tmp_path):
    path = tmp_path / "a"
    path.write_bytes(b"old")
    try:
        os.setxattr(path, "user.shelf", b"3")
    except OSError:
        pytest.skip("this disk has no attributes")
    write_whole(path, b"new")
    assert os.getxattr(path, "user.shelf") == b"3"


def test_a_file_marked_as_not_to_be_changed_is_not(tmp_path):
    path = tmp_path / "a"
    path.write_bytes(b"old")
    path.chmod(0o444)
    with pytest.raises(Problem, match="not to be changed"):
        write_whole(path, b"new")
    assert path.read_bytes() == b"old"


@pytest.mark.parametrize("kind", ["folder", "circle", "long", "nowhere"])
def test_what_cannot_be_written_is_told_and_leaves_nothing(tmp_path, kind):
    path = tmp_path / "a"
    if kind == "folder":
        path.mkdir()
    elif kind == "circle":
        path.symlink_to(tmp_path / "b")
        (tmp_path / "b").symlink_to(path)
    elif kind == "long":
        path = tmp_path / ("a" * 300)
    else:
        path = tmp_path / "none" / "a"
    before = sorted(os.listdir(tmp_path))
    with pytest.raises(Problem) as refused:
        write_whole(path, b"new")
    assert refused.value.do
    assert sorted(os.listdir(tmp_path)) == before


def test_an_endless_file_is_not_read_to_its_end(tmp_path):
    path = tmp_path / "huge"
    with path.open("wb") as file:
        file.truncate(100 * 1024 * 1024)
    with pytest.raises(Problem, match="too large"):
        read_all(path)


@pytest.mark.skipif(os.geteuid() != 0, reason="only root may give a file to somebody else")
def test_a_file_stays_its_owners(tmp_path):
    path = tmp_path / "a"
    path.write_bytes(b"old")
    os.chown(path, 1234, 1234)
    write_whole(path, b"new")
    assert (path.stat().st_uid, path.stat().st_gid) == (1234, 1234)


def test_the_folder_is_flushed_after_the_file_is_in_its_place(tmp_path, monkeypatch):
    done, replace, fsync = [], os.replace, os.fsync
    monkeypatch.setattr(os, "replace", lambda *a: (replace(*a), done.append("replace")))
    monkeypatch.setattr(
        os, "fsync", lambda handle: (fsync(handle), done.append("folder" if _is_folder(handle) else "file"))
    )
    write_whole(tmp_path / "a", b"new")
    assert done == ["file", "replace", "folder"]


def _is_folder(handle):
    return stat.S_ISDIR(os.fstat(handle).st_mode)
