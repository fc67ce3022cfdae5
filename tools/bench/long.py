"""The long runs: many damaged inputs, many kills, many acts; and mutants of the core."""

import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path
from random import Random

from tools import fuzz
from tools.kills import kill_saves, kill_writer, writers
from yewhour.content.paths import FIRST_DEMO
from yewhour.state.classes.class_file import read_plan

ROOT = Path(__file__).resolve().parent.parent.parent
DAMAGED, KILLS, ACTS = 100_000, 1000, 60
EXAMPLES = 25  # of a property, for each in `./yew test`


def long(first: int = 0, damaged: int = DAMAGED, kills: int = KILLS, acts: int = ACTS) -> int:
    """All three; 0 when nothing was found. first: the number of the first damaged input."""
    faults = fuzz.run(first, damaged)
    with tempfile.TemporaryDirectory() as folder:
        os.environ["XDG_DATA_HOME"] = f"{folder}/data"
        (Path(folder) / "classes").mkdir()
        path = Path(folder) / "classes" / "class.yewhour"
        wrong = kill_saves(read_plan(FIRST_DEMO), path, kills, Random(first))
        print(f"{kills} kills of a saving process, {len(wrong)} faults", *wrong[:10], sep="\n  ")
        for writer in writers():
            room = Path(folder) / writer.name
            room.mkdir()
            found = kill_writer(writer, room, kills // 5, Random(first))
            print(f"{kills // 5} kills, {writer.name}: {len(found)} faults", *found[:10], sep="\n  ")
            wrong += found
    done = subprocess.run(
        [sys.executable, "-m", "pytest", "-n", "2", "-m", "long or hypothesis", "tests"],
        cwd=ROOT,
        env={**os.environ, "YEW_EXAMPLES": str(EXAMPLES)},
        check=False,
    )
    print(f"tests of hundreds: {'no fault' if not done.returncode else 'faults, see above'}")
    wrong += ["tests"] * bool(done.returncode)
    done = subprocess.run(
        [sys.executable, "-m", "pytest", "-n", "2", "tests/ui/test_anything.py"],
        cwd=ROOT,
        env={**os.environ, "YEW_ACTS": str(acts)},
        check=False,
    )
    print(f"{acts} times 60 acts in the window: {'no fault' if not done.returncode else 'faults, see above'}")
    return int(bool(faults or wrong or done.returncode))


def drawn(mutmut: Path, number: int) -> list[str]:
    """The names of so many mutants, drawn at random; the same ones each time."""
    # It makes them all before it finds that none is called so.
    subprocess.run([str(mutmut), "run", "none-of-them"], cwd=ROOT, capture_output=True, check=False)
    found = []
    for file in sorted((ROOT / "mutants" / "src").rglob("*.meta")):
        found += sorted(json.loads(file.read_text())["exit_code_by_key"])
    return Random(1).sample(found, min(number, len(found)))


def mutants(names: list[str]) -> int:
    """Runs mutmut over the rooms named in pyproject.toml, or over some of their modules; tells the ratio.

    A number in place of names: so many of all mutants, drawn at random, as all of them take a day.
    """
    lock = ROOT / "requirements-mutants.lock"
    subprocess.run([sys.executable, "-m", "pip", "install", "-q", "--no-deps", "-r", str(lock)], check=True)
    mutmut = Path(sys.executable).with_name("mutmut")
    if names and names[0].isdigit():
        patterns = drawn(mutmut, int(names[0]))
    else:
        patterns = [f"yewhour.core.{name}*" for name in names]
    ran = subprocess.run([str(mutmut), "run", *patterns], cwd=ROOT, check=False)
    messages = subprocess.run(
        [str(mutmut), "results", "--all", "true"], cwd=ROOT, capture_output=True, text=True, check=False
    )
    states = [line.rsplit(": ", 1)[1] for line in messages.stdout.splitlines() if ": " in line]
    tried = [state for state in states if state not in ("not checked", "skipped")]
    noticed = [state for state in tried if state in ("killed", "timeout", "segfault")]
    print(f"{len(noticed)} of {len(tried)} mutants noticed ({100 * len(noticed) / max(1, len(tried)):.0f} %)")
    print(
        "\n".join(line for line in messages.stdout.splitlines() if "survived" in line or "no tests" in line)
    )
    return ran.returncode
