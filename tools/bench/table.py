"""A table of measures: rows, times, and code run in a Python of its own."""

import json
import os
import subprocess
import sys
import tempfile
import time
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
