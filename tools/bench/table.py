"""A table of measures: rows, times, and code run in a Python of its own."""

import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Sequence
from pathlib import Path
from statistics import median

ROOT = Path(__file__).resolve().parent.parent.parent
SRC = ROOT / "src"
ROOM = Path(tempfile.mkdtemp(prefix="yewhour-bench-"))  # all that a bench writes; taken away at its end


def line(name: str, value: str, asked: str = "", holds: bool | None = None) -> None:
    """One row of the table."""
    verdict = {True: "holds", False: "DOES NOT HOLD", None: ""}[holds]
    print(f"{name:58} {value:>22}   {asked:18} {verdict}", flush=True)


def times(command, count: int = 9, of=median) -> float:
    """Seconds of a deed: the median of so many, or `of=min`."""
    taken = []
    for _ in range(count):
        start = time.perf_counter()
        command()
        taken.append(time.perf_counter() - start)
    return of(taken)


def _work() -> None:
    table: dict[int, int] = {}
    for number in range(60_000):
        table[number % 977] = table.get(number % 977, 0) + number * number % 7
    sorted(table.values())


def yardstick() -> float:
    """Seconds of a fixed piece of plain Python, as it goes just now: the median of nine."""
    return times(_work)


def against(name: str, took_s: float, most: float) -> None:
    """A row: a time in yardsticks measured beside it, and how many it may be."""
    ratio = took_s / yardstick()
    line(name, f"{ratio:.3g} ({took_s * 1000:.3g} ms)", f"at most {most:g}", ratio <= most)


FRAME = 0.75  # yardsticks: about a sixtieth of a second where this was set, so that a hand sees no step


def frames(name: str, took_s: Sequence[float]) -> None:
    """A row: how many of the frames take no longer than one may."""
    most_s = FRAME * yardstick()
    share = sum(one <= most_s for one in took_s) / len(took_s)
    line(name, f"{share:.2%} of {len(took_s)}", "at least 99 %", share >= 0.99)


# As for a teacher: typing_extensions, which msgspec looks for, comes with the packages of the tests.
AS_SHIPPED = "import sys; sys.modules['typing_extensions'] = None\n"
REPORT = """
import json
took = time.perf_counter() - start
# Not ru_maxrss, which a child takes over from its parent.
peak = next(int(line.split()[1]) for line in open("/proc/self/status") if line.startswith("VmHWM"))
print(json.dumps([took, peak]))
"""


def fresh(code: str, home: Path | None = None) -> tuple[float, float]:
    """Seconds and peak KiB of code in a Python of its own; `home`: the teacher's folder, else a new one."""
    home = home or Path(tempfile.mkdtemp(dir=ROOM))
    done = subprocess.run(
        [sys.executable, "-c", AS_SHIPPED + code + REPORT],
        env={**os.environ, "PYTHONPATH": str(SRC), "XDG_DATA_HOME": str(home)},
        capture_output=True,
        text=True,
        check=True,
    )
    seconds, memory = json.loads(done.stdout.splitlines()[-1])
    return seconds, memory
