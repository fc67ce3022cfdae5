"""The window: how soon it is there, and how it keeps up with a hand."""

import compileall
import gc
import time
from statistics import median

from PySide6.QtCore import QEventLoop, QPoint, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest

from tools.bench.plans import ninety_minutes
from tools.bench.table import FRAME, ROOM, SRC, against, fresh, line, times
from yewhour.content.paths import DEMO, FIRST_DEMO
from yewhour.ui.frame.app import application, first_window, open_first

EMPTY = """
import time; start = time.perf_counter()
from PySide6.QtWidgets import QApplication, QMainWindow
qt = QApplication([]); window = QMainWindow(); window.resize(1280, 800); window.show(); qt.processEvents()
"""
# As the program starts: by its command line, and so with the core before Qt. PySide6 looks through the
# source of every module that is imported after it, which is a tenth of a start.
BEGUN = """
import time; start = time.perf_counter()
import gc; gc.disable()
from pathlib import Path
from yewhour.state.classes.prewarm import Prewarm
path, ahead = None, None
"""
SHOWN = """
import yewhour.cli.main
from yewhour.ui.frame.app import application, first_window, open_first
qt = application(); window = first_window(); window.show(); qt.processEvents()
"""
OPENED = """
from PySide6.QtCore import QEventLoop
open_first(window, path, ahead)
loop = QEventLoop(); window.session.made_changed.connect(lambda: window.session.timed and loop.quit())
if window.session.timed is None:
    loop.exec()
qt.processEvents()
assert window.session.timed is not None and window.sprig.scene.needles
"""
ANEW = """
while window.session.solved is None:
    loop.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents)
"""
PREPARED = (
    "from yewhour.content.paths import FIRST_DEMO;"
    "from yewhour.state.classes import preview_cache, preview_files;"
    "preview_cache.make_preview(FIRST_DEMO, preview_files.own_previews())"
)


def bench_window() -> None:
    """Our window against an empty one, taken in turns; both with their byte code already written."""
    compileall.compile_dir(SRC, quiet=2)
    home = ROOM / "home"
    fresh("import time; start = time.perf_counter()\n" + PREPARED, home)  # as ./yew does once
    new = ROOM / "never-opened.yewhour"
    new.write_bytes(FIRST_DEMO.read_bytes() + b"\n")  # of another content there is no glimpse
    loaded_code, never_code = (
        f"{BEGUN}path = Path({str(path)!r})\nahead = Prewarm(path)\n{SHOWN}{OPENED}"
        for path in (FIRST_DEMO, new)
    )
    uses = [
        (fresh(EMPTY), fresh(BEGUN + SHOWN, home), fresh(loaded_code, home), fresh(never_code))
        for _ in range(11)
    ]
    shown, loaded, first = (median(use[which][0] / use[0][0] for use in uses) for which in (1, 2, 3))
    small, large = median(use[0][1] for use in uses), fresh(never_code + ANEW)[1]
    line("window on screen / an empty window", f"{shown:.2f}", "at most 2", shown <= 2.0)
    line("   with the demo class loaded / an empty window", f"{loaded:.2f}", "at most 2.25", loaded <= 2.25)
    line("   with a class never opened before", f"{first:.2f}", "at most 2.5", first <= 2.5)
    empty_ms, *times_ms = (f"{median(use[which][0] for use in uses) * 1000:.0f}" for which in range(4))
    line("   the four times", f"{' '.join(times_ms)} / {empty_ms} ms")
    line("   peak memory / an empty window", f"{large / small:.2f}", "at most 2.5", large <= 2.5 * small)


def bench_hand() -> None:
    """The length handle dragged on the 26-minute demo, and the sprig of 90 minutes scrolled."""
    qt = application()
    window = first_window(dark=False)
    window.resize(1280, 800)
    window.show()
    loop = QEventLoop()
    session, sprig = window.session, window.sprig
    session.made_changed.connect(lambda: session.shown and loop.quit())
    open_first(window, DEMO / "hips-after-the-helm.yewhour")
    loop.exec()
    gc.collect()
    gc.freeze()  # as the program does once it has started
    start = sprig.hits.handle_rect().center().toPoint()
    QTest.mousePress(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    taken = []
    for number in range(40):  # up and down, five seconds or more each time
        at = start - QPoint(0, 20 + (number * 7) % 90)
        began = time.perf_counter()
        QTest.mouseMove(sprig, at)
        loop.exec()
        qt.processEvents()
        taken.append(time.perf_counter() - began)
    QTest.mouseRelease(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    frame = median(taken)
    against("a frame of dragging the length, 26 minutes / a yardstick", frame, 1.6)

    session.begin(ninety_minutes())
    while session.timed is None or session.busy:
        loop.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents)
    window.go_to("to_sprig")
    sprig.scene.viewport.zoom(4, 300)
    picture = QImage(sprig.size(), QImage.Format.Format_RGB32)
    frames = []
    for number in range(60):
        sprig.scene.viewport.scroll(37 if number < 45 else -61)
        began = time.perf_counter()
        sprig.render(picture)
        frames.append(time.perf_counter() - began)
    frame = median(frames)
    name = f"painting the sprig while scrolling, {len(session.timed.segments)} segments"
    against(f"{name} / a yardstick", frame, FRAME)
    sprig.show_all()
    whole = times(lambda: sprig.render(picture))
    line("   the whole class in view", f"{whole * 1000:.1f} ms")
    typed = iter(["l", "lu", "lun", "lung", "lunge", "lunge 5", "lunge 5b", "h", "hi", "hip", "hips"] * 3)

    def type_on() -> None:
        window.finder.field.setText(next(typed))
        qt.processEvents()

    qt.processEvents()
    slowest = times(type_on, 33, max)
    against("results while typing in the finder, the slowest / a yardstick", slowest, 1.4)
    window.close()
