"""The shelf with two thousand classes and five thousand takes: opened, searched, scrolled."""

import gc
import tempfile
import time
from pathlib import Path
from random import Random
from statistics import median

import msgspec

from tools.bench.table import against, frames
from yewhour.content.demo_sheets import demo_sheets
from yewhour.core.shelf.records import Outing, ShelvedClass, TakeRecord
from yewhour.state.logbook.logbook import Logbook
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.app import application
from yewhour.ui.kit.theme import LIGHT
from yewhour.ui.shelf.page import ShelfPage
from yewhour.ui.shelf.shelf_session import ShelfSession

CLASSES, TAKES, OUTINGS = 2000, 5000, 3000
TODAY = 739_943  # a Monday
TYPED = ("h", "hi", "hip", "hips", "hips 2", "hips 20", "pigeon", "under 30 bolster", "the lock", "beginners")


def bench_shelf() -> None:
    """What a full shelf costs beside an empty one."""
    application()
    session = Session()
    _ = session.teaching_data
    with tempfile.TemporaryDirectory() as room:
        full, empty = Path(room) / "full", Path(room) / "empty"
        _fill(full)
        Logbook(empty, "here").close()
        opened: dict[Path, list[float]] = {full: [], empty: []}
        for _ in range(5):
            for folder, took in opened.items():
                page, took_s = _opened(folder, session)
                took.append(took_s)
                if folder is full:
                    _measure(page)
                page.close()
                page.shelving.close()
        more = median(opened[full]) - median(opened[empty])
        title = f"a shelf of {CLASSES} classes, {TAKES} takes, opened: more than an empty one"
        against(f"{title} / a yardstick", more, 14)
    against("   a keystroke of a search, slowest / a yardstick", max(_keystrokes), 1.4)
    frames("   frames while it scrolls, within three quarters of a yardstick", _frames)


_keystrokes: list[float] = []
_frames: list[float] = []


def _opened(folder: Path, session: Session) -> tuple[ShelfPage, float]:
    before = time.perf_counter()
    shelving = ShelfSession(Logbook(folder, "here"), today=lambda: TODAY)
    page = ShelfPage(session, shelving, LIGHT)
    page.resize(1280, 700)
    page.show()
    application().processEvents()
    page.boards.viewport().grab()
    return page, time.perf_counter() - before


def _measure(page: ShelfPage) -> None:
    qt = application()
    page._warm()
    gc.collect()
    gc.freeze()  # as the program does once it has started
    for text in TYPED:
        before = time.perf_counter()
        page.search.setText(text)
        page.boards.viewport().repaint()
        _keystrokes.append(time.perf_counter() - before)
    page.search.clear()
    qt.processEvents()
    bar = page.boards.verticalScrollBar()
    for at in range(0, bar.maximum(), bar.singleStep()):
        before = time.perf_counter()
        bar.setValue(at)
        page.boards.viewport().repaint()
        _frames.append(time.perf_counter() - before)


def _fill(folder: Path) -> None:
    """Classes made up of the demo ones, each a little other."""
    dice, sheets = Random(3), list(demo_sheets().values())
    book = Logbook(folder, "here")
    records = []
    for number in range(CLASSES):
        sheet = dice.choice(sheets)
        title = f"{sheet.title} {number}"
        sheet = msgspec.structs.replace(sheet, title=title, length_s=sheet.length_s + number % 90)
        records.append(ShelvedClass(f"c{number}", sheet, TODAY - dice.randrange(1500)))
    records += [
        TakeRecord(f"t{n}", f"c{dice.randrange(CLASSES)}", TODAY - dice.randrange(1500), "", 1200.0, 1190.0)
        for n in range(TAKES)
    ]
    records += [
        Outing(f"o{n}", f"c{dice.randrange(CLASSES)}", TODAY - dice.randrange(1500) + 14, "18:30", "the page")
        for n in range(OUTINGS)
    ]
    book.put(*records)
    book.close()
