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
import gc; gc.disable()
from yewhour.ui.app import application, first_window, open_first
qt = application(); window = first_window(); window.show(); qt.processEvents()
"""
LOADED = (
    OURS
    + """
open_first(window); qt.processEvents()
"""
)
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
    """Our window against an empty one, taken in turns."""
    turns = [(fresh(EMPTY), fresh(OURS), fresh(LOADED)) for _ in range(7)]
    empty, shown, loaded = (median(turn[which][0] for turn in turns) for which in range(3))
    small, large = (median(turn[which][1] for turn in turns) for which in (0, 2))
    line("window on screen / an empty window", f"{shown / empty:.2f}", "at most 2.5", shown <= 2.5 * empty)
    ratio = loaded / empty
    line("   with the demo class loaded / an empty window", f"{ratio:.2f}", "at most 2.5", ratio <= 2.5)
    line("   the three times", f"{shown * 1000:.0f} {loaded * 1000:.0f} / {empty * 1000:.0f} ms")
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


def bench_library() -> None:
    """Loading everything, and opening each demo class to a laid-out plan, the first time."""
    from yewhour.core.lengths import ticks
    from yewhour.core.made import Maker
    from yewhour.store.classfile import read_plan
    from yewhour.store.paths import demo_classes
    from yewhour.store.words import load_words

    load = times(load_words)
    line("loading the whole library and its data", f"{load * 1000:.1f} ms", "under 60 ms", load < 0.06)
    words, _ = load_words()
    slowest = 0.0, ""
    for path in demo_classes():
        start = time.perf_counter()
        maker = Maker(read_plan(path), words)
        maker.laid_out(maker.fit.at(ticks(maker.plan.brief.target_s)))
        slowest = max(slowest, (time.perf_counter() - start, path.stem))
    took, name = slowest
    line("opening a demo class, the slowest", f"{took * 1000:.1f} ms", "under 40 ms", took < 0.04)
    line("   which is", name)


def main() -> None:
    """Every benchmark."""
    bench_library()
    bench_demo()
    bench_window()


if __name__ == "__main__":
    main()
