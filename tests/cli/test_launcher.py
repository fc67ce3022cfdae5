"""A real window on a virtual screen, started as a teacher starts it."""

import importlib
import os
import re
import shutil
import subprocess
import sys
import time

import pytest

from tests.conftest import ROOT

SCREEN = """
import sys
from PySide6.QtCore import QTimer
from yewhour.ui.frame.app import application, first_window, open_first
qt = application()
window = first_window()
window.show()
open_first(window)
QTimer.singleShot(400, lambda: (print(qt.platformName(), window.head.title.text()), qt.quit()))
sys.exit(qt.exec())
"""


@pytest.mark.skipif(not shutil.which("Xvfb"), reason="Xvfb is installed by ./yew test")
def test_a_real_window_opens_on_a_virtual_screen(tmp_path):
    read, write = os.pipe()
    screen = subprocess.Popen(
        ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
        pass_fds=[write],
        stderr=subprocess.DEVNULL,
    )
    try:
        os.close(write)
        display = os.read(read, 20).decode().strip()
        deadline = time.monotonic() + 10
        while not display and time.monotonic() < deadline:
            display = os.read(read, 20).decode().strip()
        env = {**os.environ, "DISPLAY": f":{display}", "QT_QPA_PLATFORM": "xcb"}
        done = subprocess.run(
            [sys.executable, "-c", SCREEN], env=env, capture_output=True, text=True, timeout=60
        )
        assert done.returncode == 0, done.stderr
        assert done.stdout.strip() == "xcb Ropes and shoulders"
    finally:
        screen.terminate()
        screen.wait()


COPIED = """
from PySide6.QtWidgets import QApplication
from yewhour.ui.frame.app import application, first_window
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.plan import Plan, Section, with_ids
qt = application()
window = first_window()
window.session.begin(with_ids(Plan(sections=(Section(title="All", body=(Step(movement="child"),)),))))
window.session.pick("n1")
window.sprig_actions.copy()
window.close()
assert QApplication.clipboard().text()
"""


def test_the_program_ends_well_with_something_on_the_clipboard():
    env = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    done = subprocess.run([sys.executable, "-c", COPIED], env=env, capture_output=True, text=True, timeout=60)
    assert (done.returncode, done.stderr) == (0, "")


PYTHON = """#!/usr/bin/env bash
case "$*" in
"-m venv "*)
    echo made >>"$NOTES"
    sleep 1
    mkdir -p "$3/bin"
    for name in python pip yewhour; do printf '#!/bin/sh\\nexit 0\\n' >"$3/bin/$name"; done
    chmod +x "$3"/bin/*
    touch "$3/whole"
    ;;
-V) echo "Python $VERSION" ;;
esac
"""


def test_two_first_starts_make_one_environment_and_another_python_leaves_it(tmp_path):
    """The launcher with a python3 that only notes what it is asked; the real one takes a minute."""
    house, shims = tmp_path / "a house", tmp_path / "shims"
    house.mkdir()
    shims.mkdir()
    shutil.copy(ROOT / "yew", house)
    for name in ("requirements.lock", "requirements-test.lock"):
        (house / name).write_text("")
    (shims / "python3").write_text(PYTHON)
    (shims / "python3").chmod(0o755)
    notes = tmp_path / "notes"
    env = {**os.environ, "PATH": f"{shims}:{os.environ['PATH']}", "NOTES": str(notes), "VERSION": "3.11.7"}
    starts = [subprocess.Popen([house / "yew", "list"], env=env, stderr=subprocess.DEVNULL) for _ in range(2)]
    assert [start.wait(timeout=30) for start in starts] == [0, 0]
    assert notes.read_text() == "made\n"
    assert (house / ".venv/whole").exists()
    subprocess.run([house / "yew", "list"], env={**env, "VERSION": "3.13.1"}, check=True)
    assert notes.read_text() == "made\n"


def test_what_the_launcher_imports_is_there():
    imported = re.findall(r"from (yewhour[\w.]*) import ([\w, ]+)", (ROOT / "yew").read_text())
    assert imported
    for module, names in imported:
        for name in names.split(", "):
            assert hasattr(importlib.import_module(module), name), f"{module}.{name}"
