"""The benchmarks, as ratios and times measured in one run. Times on shared machines vary; ratios less."""

import json
import os
import subprocess
import sys
import time
from pathlib import Path
from statistics import median

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
SRC = Path(__file__).resolve().parent.parent / "src"


def line(name: str, value: str, asked: str = "", holds: bool | None = None) -> None:
    """One row of the table."""
    verdict = {True: "holds", False: "DOES NOT HOLD", None: ""}[holds]
    print(f"{name:58} {value:>22}   {asked:18} {verdict}", flush=True)


def times(deed, count: int = 9) -> float:
    """Median seconds of a deed."""
    taken = []
    for _ in range(count):
        start = time.perf_counter()
        deed()
        taken.append(time.perf_counter() - start)
    return median(taken)


EMPTY = """
import time; start = time.perf_counter()
from PySide6.QtWidgets import QApplication, QMainWindow
qt = QApplication([]); window = QMainWindow(); window.resize(1280, 800); window.show(); qt.processEvents()
"""
OURS = """
import time; start = time.perf_counter()
from yewhour.ui.app import application, first_window
qt = application(); window = first_window(); window.show(); qt.processEvents()
"""
REPORT = """
import json, resource
print(json.dumps([time.perf_counter() - start, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss]))
"""


def fresh(code: str) -> tuple[float, float]:
    """Seconds and peak KiB of some code in a Python of its own."""
    done = subprocess.run(
        [sys.executable, "-c", code + REPORT],
        env={**os.environ, "PYTHONPATH": str(SRC)},
        capture_output=True,
        text=True,
        check=True,
    )
    seconds, memory = json.loads(done.stdout.splitlines()[-1])
    return seconds, memory


def bench_window() -> None:
    """The window with the demo loaded against an empty one, taken in turns."""
    pairs = [(fresh(EMPTY), fresh(OURS)) for _ in range(7)]
    empty, ours = median(pair[0][0] for pair in pairs), median(pair[1][0] for pair in pairs)
    line(
        "window on screen, demo loaded / an empty window",
        f"{ours / empty:.2f}",
        "at most 2.5",
        ours <= 2.5 * empty,
    )
    line("   the two times", f"{ours * 1000:.0f} / {empty * 1000:.0f} ms")
    small, large = median(pair[0][1] for pair in pairs), median(pair[1][1] for pair in pairs)
    line("   peak memory / an empty window", f"{large / small:.2f}", "at most 2.5", large <= 2.5 * small)


def bench_demo() -> None:
    """The first demo class, after the first time."""
    from yewhour.core.export.contract import script_json
    from yewhour.core.made import Maker
    from yewhour.store.classfile import read_plan
    from yewhour.store.paths import FIRST_DEMO
    from yewhour.store.words import load_words

    words, _ = load_words()
    plan = read_plan(FIRST_DEMO)
    script_json(Maker(plan, words).make())
    both = times(lambda: script_json(Maker(plan, words).make()))
    line("fit and script of the first demo class", f"{both * 1000:.1f} ms", "under 60 ms", both < 0.06)
    maker = Maker(plan, words)
    again = times(lambda: maker.make(1260))
    line("   another length of it, script included", f"{again * 1000:.1f} ms")


def main() -> None:
    """Every benchmark."""
    bench_demo()
    bench_window()


if __name__ == "__main__":
    main()
