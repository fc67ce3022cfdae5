"""Child processes run our own code, whatever lies in the folder beside a class."""

import subprocess
import sys

import pytest

from yewhour.background import children
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.problem import Problem
from yewhour.core.script.cue import Cue
from yewhour.state.classes.prewarm import Prewarm
from yewhour.state.voices import install_voice
from yewhour.voice.recognition.recording_words import recognise_apart

PLANT = "from pathlib import Path\nPath({marker!r}).write_text('run')\nraise SystemExit(3)\n"
NAMES = ("av", "numpy", "msgspec", "pip", "runpy", "sitecustomize", "usercustomize", "platformdirs")


@pytest.fixture
def planted(tmp_path, monkeypatch):
    """A folder in which packages lie that must not run, stood in, and named in the environment."""
    folder, marker = tmp_path / "classes", tmp_path / "it ran"
    (folder / "yewhour").mkdir(parents=True)
    code = PLANT.format(marker=str(marker))
    (folder / "yewhour" / "__init__.py").write_text(code)
    for name in NAMES:
        (folder / f"{name}.py").write_text(code)
    monkeypatch.chdir(folder)
    for name in ("PYTHONPATH", "PYTHONHOME", "PYTHONSTARTUP"):
        monkeypatch.setenv(name, str(folder))
    return folder, marker


def test_a_class_beside_a_package_of_our_name_is_opened_without_running_it(planted, tmp_path, monkeypatch):
    folder, marker = planted
    monkeypatch.setattr("yewhour.state.classes.preview_files.prepared_folder", lambda: tmp_path / "none")
    path = folder / "mine.yewhour"
    path.write_bytes(FIRST_DEMO.read_bytes() + b"\n" * 7)
    ahead = Prewarm(path)
    work = ahead._work
    assert work is not None
    ahead.wait(60.0)
    assert work.returncode == 0
    assert not marker.exists()


def test_a_recording_beside_one_is_listened_to_without_running_it(planted):
    folder, marker = planted
    sound = folder / "take.wav"
    sound.write_bytes(b"RIFF nothing")
    with pytest.raises(Problem, match="can't be read"):
        recognise_apart(sound, [Cue(0, 30, "Breathe in.", "say", "both", "", True)])
    assert not marker.exists()


def test_a_voice_is_installed_without_running_it(planted):
    folder, marker = planted
    lock = folder / "neural.lock"
    lock.write_text("")  # nothing to fetch
    install_voice(lambda text: None, lock)
    assert not marker.exists()


def test_a_child_has_our_code_a_neutral_folder_and_no_names_of_pythons_own(planted):
    names = "[name for name in os.environ if name.startswith('PY')]"
    code = f"import os, yewhour; print(yewhour.__file__, os.getcwd(), {names}, sep='|')"
    *command, whole = children.command("x")
    begin = whole.split("; import runpy")[0]
    done = subprocess.run(
        [*command, f"{begin}; {code}"], capture_output=True, text=True, check=True, cwd=children.FOLDER,
        env=children.environment(),
    )  # fmt: skip
    assert done.stdout.strip().split("|") == [str(children.HERE / "yewhour" / "__init__.py"), "/", "[]"]
    assert command[:2] == [sys.executable, "-I"]


def test_a_proxy_is_told_to_who_needs_the_network_alone(monkeypatch):
    monkeypatch.setenv("https_proxy", "somewhere")
    monkeypatch.setenv("PIP_INDEX_URL", "somewhere")
    assert not {"https_proxy", "PIP_INDEX_URL"} & children.environment().keys()
    assert {"https_proxy", "PIP_INDEX_URL"} <= children.environment(network=True).keys()
