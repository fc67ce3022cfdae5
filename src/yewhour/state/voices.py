"""The voices of this machine: the best there is, and the neural one put in place."""

import subprocess
from collections.abc import Callable
from pathlib import Path

from yewhour.background import children
from yewhour.content.paths import DATA
from yewhour.core.problem import Problem
from yewhour.files import program
from yewhour.state.paths import installed_voice, spoken_lines
from yewhour.voice.sound.voices import SpeakingVoice, VoicePlaces
from yewhour.voice.sound.voices import voice_named as voice_in

LOCK = DATA / "voice" / "neural.lock"
SIZE = "121 MB to fetch, 190 MB on the disk"  # measured when the lock was made


def voice_named(name: str = "") -> SpeakingVoice:
    """A voice; "" for the best there is. Raises Problem for one there is not."""
    return voice_in(name, VoicePlaces(installed_voice(), spoken_lines()))


def install_voice(on_message: Callable[[str], object], lock: Path = LOCK) -> None:
    """Fetches the neural voice into the teacher's folder, from a lock. Raises Problem where that fails."""
    folder = installed_voice()
    on_message(
        f"The neural voice: {SIZE}, into {folder}. Ctrl+C stops it; delete that folder to be rid of it."
    )
    command = children.installer(
        "install", "--disable-pip-version-check", "-q", "--no-deps", "--upgrade",
        "--target", str(folder), "-r", str(lock.resolve()),
    )  # fmt: skip
    done = subprocess.run(
        command, capture_output=True, text=True, check=False, cwd=children.FOLDER,
        env=children.environment(network=True),
    )  # fmt: skip
    if done.returncode != 0:
        lines = [line for line in done.stderr.splitlines() if line.startswith("ERROR")] or [
            done.stderr[-200:]
        ]
        raise Problem(
            f"The neural voice could not be installed: {lines[-1]}", str(folder), "Check the network."
        )
    on_message(f"It is there: {program.command()} voice FILE --voice joe, and in your ear in Take.")
