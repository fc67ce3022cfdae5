"""Figures: how quickly one is drawn, how much they add to the library and to a take's frames."""

import time
from statistics import mean

from tools.bench.table import FRAME, against, line

SIZES = (20, 100, 190)  # pixels: beside a name, on a plate, in the take


def bench_figures() -> None:
    """Every figure of the library, drawn at three sizes; the file read; the sheet of cards of an hour."""
    from PySide6.QtCore import QRectF
    from PySide6.QtGui import QImage, QPainter

    from yewhour.content.figure_files import load_figures
    from yewhour.state.teaching_data import load_teaching_data
    from yewhour.ui.frame.app import application
    from yewhour.ui.kit.figure_view import moving_of, paint_figure, pictures_of
    from yewhour.ui.kit.theme import LIGHT

    application()
    library = load_teaching_data()[0].library
    load_figures.cache_clear()
    before = time.perf_counter()
    load_figures()
    line("the figures read, when the first is drawn", f"{(time.perf_counter() - before) * 1000:.1f} ms")
    before = time.perf_counter()
    timed = [one for movement in library.values() for one in pictures_of(movement, "right")]
    each = (time.perf_counter() - before) / len(timed) * 1000
    line(f"   {len(timed)} figures made ready, each once", f"{each:.2f} ms each")
    image = QImage(600, 600, QImage.Format.Format_ARGB32_Premultiplied)
    for size in SIZES:
        took = []
        for one in timed:
            painter = QPainter(image)
            before = time.perf_counter()
            paint_figure(painter, QRectF(0, 0, size, size), one, LIGHT, "right")
            took.append((time.perf_counter() - before) * 1000)
            painter.end()
        against(f"   drawn at {size} pixels, mean / a yardstick", mean(took) / 1000, 0.014)
    before = time.perf_counter()
    states = [moving_of(one, "right")[0] for one in library.values() if len(pictures_of(one, "right")) > 1]
    slow = (time.perf_counter() - before) / len(states) * 1000
    against("   a figure that moves, its first frame / a yardstick", slow / 1000, FRAME)
