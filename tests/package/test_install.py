"""What is given out is installed, run and taken away again, in a folder with a space in its name."""

import os
import re
import shutil
import subprocess
import sys
import sysconfig

import pytest

from tests.conftest import ROOT
from tools.package.__main__ import built, debian_package
from tools.package.environment import is_needed, requirements
from yewhour import __version__

WINDOW = """
import sys
from PySide6.QtCore import QTimer
from yewhour.ui.frame.app import application, first_window, open_first
qt = application()
window = first_window()
window.show()
open_first(window)
QTimer.singleShot(200, lambda: (print(window.head.title.text()), qt.quit()))
sys.exit(qt.exec())
"""


def run(*command, **environment):
    """What a command says, in an environment of its own; it must go well."""
    env = {"PATH": "/usr/bin:/bin", "LANG": "C.UTF-8", "QT_QPA_PLATFORM": "offscreen", **environment}
    done = subprocess.run([str(one) for one in command], capture_output=True, text=True, env=env, cwd="/")
    assert done.returncode == 0, done.stderr
    return done.stdout


def goes_about(program, room):
    """The commands a teacher would try, from an installed program."""
    home = {"HOME": str(room)}
    listed = [line.strip() for line in run(program, "list", **home).splitlines()]
    named = next(line for line in listed if "bell-ringers.yewhour" in line)
    demo = named.split(".yewhour")[0] + ".yewhour"
    assert "shortest" in run(program, "fit", demo, "--length", "24:00", **home)
    mine = room / "my class.yewhour"
    run(program, "draft", "20-minute gentle hatha, evening, about hips", "--out", mine, **home)
    assert mine.read_bytes().startswith(b"{")
    run(program, "export", mine, "--to", room, "--format", "pdf", "--format", "srt", **home)
    assert (room / "my class.pdf").read_bytes().startswith(b"%PDF")
    assert run(program, "--version", **home).strip() == f"yewhour {__version__}"
    assert "./yew" not in run(program, "what-went-wrong", **home)


@pytest.fixture(scope="module")
def wheel(tmp_path_factory):
    return built(tmp_path_factory.mktemp("dist"), "wheel")[0]


def test_a_wheel_is_installed_and_run(wheel, tmp_path):
    room = tmp_path / "a folder of hers"
    environment = room / "environment"
    subprocess.run([sys.executable, "-m", "venv", "--without-pip", environment], check=True)
    python = environment / "bin" / "python"
    pip = [sys.executable, "-m", "pip", "--python", python, "--disable-pip-version-check"]
    subprocess.run([*pip, "install", "-q", "--no-deps", "--no-index", "--no-compile", wheel], check=True)
    site = next(environment.glob("lib/python*/site-packages"))
    (site / "lent.pth").write_text(sysconfig.get_path("purelib"))  # what it needs, as it is locked
    program = environment / "bin" / "yewhour"
    goes_about(program, room)
    asked = "from yewhour.files.program import command; print(command())"
    assert run(python, "-I", "-c", asked).strip() == "yewhour"
    assert run(python, "-I", "-c", WINDOW, HOME=str(room)).strip() == "Ropes and shoulders"


@pytest.mark.long
@pytest.mark.skipif(not shutil.which("dpkg-deb") or os.geteuid(), reason="for Debian, and by root")
def test_the_debian_package_is_installed_run_and_removed_and_leaves_only_what_is_hers(tmp_path):
    package = debian_package(tmp_path, quick=True)
    room, hers = tmp_path / "a root", tmp_path / "her home"
    for folder in ("updates", "info", "triggers"):
        (room / "var/lib/dpkg" / folder).mkdir(parents=True)
    (room / "var/lib/dpkg/status").touch()
    hers.mkdir()
    dpkg = ["dpkg", f"--root={room}", "--force-depends", "--force-unsafe-io", "--log=/dev/null"]
    subprocess.run([*dpkg, "--install", package], check=True, capture_output=True)
    for there in (
        "bin/yewhour", "share/applications/yewhour.desktop", "share/icons/hicolor/scalable/apps/yewhour.svg",
        "share/mime/packages/yewhour.xml", "share/man/man1/yewhour.1.gz",
        "share/metainfo/example.yewhour.yewhour.metainfo.xml", "share/doc/yewhour/copyright",
    ):  # fmt: skip
        assert (room / "usr" / there).is_file(), there
    goes_about(room / "usr/bin/yewhour", hers)
    start = (room / "usr/bin/yewhour").read_text().split("from yewhour.__main__")[0]
    start = start.replace("__file__", repr(str(room / "usr/bin/yewhour")))
    code = f"{start}{WINDOW}"
    assert run("/usr/bin/python3", "-I", "-c", code, HOME=str(hers)).strip() == "Ropes and shoulders"
    subprocess.run([*dpkg, "--remove", "yewhour"], check=True, capture_output=True)
    left = [path for path in room.rglob("*") if path.is_file() and "var/lib/dpkg" not in str(path)]
    assert left == []
    assert (hers / "my class.yewhour").is_file()


def test_the_version_stands_in_one_place_and_is_the_latest_in_the_changelog():
    latest = re.search(r"^## (\S+), (\d{4}-\d\d-\d\d)$", (ROOT / "CHANGELOG.md").read_text(), re.M)
    assert latest is not None
    assert latest[1] == __version__
    written = [
        path
        for path in (ROOT / "pyproject.toml", ROOT / "README.md", ROOT / "yew")
        if __version__ in path.read_text()
    ]
    assert written == []


def test_every_package_in_the_lock_has_hashes_and_what_runs_needs_is_in_it():
    lock = (ROOT / "requirements.lock").read_text()
    for block in re.findall(r"^[A-Za-z0-9][^\n]*(?:\n    [^\n]*)*", lock, re.M):
        assert "--hash=sha256:" in block, block.split("\n")[0]
    locked = {name.lower().replace("_", "-") for name in re.findall(r"^([\w.-]+)==", lock, re.M)}
    needed = {one.metadata["Name"].lower().replace("_", "-") for one in requirements()}
    assert needed <= locked


@pytest.mark.parametrize(
    ("path", "needed"),
    [
        ("PySide6/QtWidgets.abi3.so", True),
        ("PySide6/QtQml.abi3.so", False),
        ("PySide6/Qt/lib/libQt6Widgets.so.6", True),
        ("PySide6/Qt/lib/libQt6Quick.so.6", False),
        ("PySide6/Qt/plugins/platforms/libqxcb.so", True),
        ("numpy/linalg/tests/test_linalg.py", False),
        ("numpy/testing/__init__.py", True),
        ("fontTools/ttLib/__init__.py", True),
        ("av/__init__.pyi", False),
    ],
)
def test_what_nothing_uses_is_left_out(path, needed):
    assert is_needed(path) is needed
