"""Figures: makes data/figures.json of their lines; and contact sheets of all of them, to be looked at.

python -m tools.figures                       makes the file, and tells what is wrong in the lines
python -m tools.figures FOLDER [left] [ID ...]  draws sheets of forty: of all, of these ids or families
"""

import os
import sys
from pathlib import Path

import msgspec

from yewhour.content.figure_files import MADE, figures_from_lines
from yewhour.core.figure.figures import Figures
from yewhour.core.library.movement import Movement
from yewhour.state.teaching_data import load_teaching_data

CELL, ROW, COLUMNS, ROWS = 158, 150, 8, 5


def main(arguments: list[str]) -> None:
    """Makes the file, or draws the sheets."""
    words, _ = load_teaching_data()
    if not arguments:
        timed, problems = figures_from_lines(words.library)
        for problem in problems:
            print(problem)
        MADE.write_bytes(as_written(timed))
        print(f"{len(timed.positions)} positions, {len(timed.own)} movements with their own")
        return
    chosen = [one for one in arguments[1:] if one != "left"]
    movements = [
        one
        for one in words.library.values()
        if (one.id in chosen or one.family in chosen) or (not chosen and one.kind != "talk" and one.start)
    ]
    draw_sheets(Path(arguments[0]), movements, "left" if "left" in arguments else "right")


def as_written(figures: Figures) -> bytes:
    """The bytes of the file: a movement to a line."""
    pieces = msgspec.json.format(msgspec.json.encode(figures, order="deterministic"), indent=0)
    return pieces.replace(b'],"', b'],\n"') + b"\n"


def draw_sheets(folder: Path, movements: list[Movement], side: str) -> None:
    """PNGs of forty movements each."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PySide6.QtCore import QRectF, Qt
    from PySide6.QtGui import QColor, QGuiApplication, QImage, QPainter

    from yewhour.ui.kit.figure_view import paint_figure, pictures_of, stages
    from yewhour.ui.kit.theme import LIGHT, font, load_fonts

    app = QGuiApplication.instance() or QGuiApplication([])
    load_fonts()
    assert app is not None
    for first in range(0, len(movements), COLUMNS * ROWS):
        image = QImage(CELL * COLUMNS, ROW * ROWS, QImage.Format.Format_RGB32)
        image.fill(QColor(LIGHT.paper))
        painter = QPainter(image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for index, movement in enumerate(movements[first : first + COLUMNS * ROWS]):
            x, y = index % COLUMNS * CELL, index // COLUMNS * ROW
            painter.setPen(QColor(LIGHT.ink))
            painter.setFont(font(8))
            painter.drawText(
                QRectF(x + 3, y + ROW - 16, CELL - 6, 15), Qt.AlignmentFlag.AlignCenter, movement.id
            )
            shown = side if movement.sides == "one" else "both"
            drawn = pictures_of(movement, shown)
            boxes, most = stages(drawn, QRectF(x + 4, y + 4, CELL - 8, ROW - 24))
            for box, one in zip(boxes, drawn, strict=False):
                paint_figure(painter, box, one, LIGHT, shown, most=most)
        painter.end()
        image.save(str(folder / f"sheet-{first // (COLUMNS * ROWS):02}.png"))


if __name__ == "__main__":
    main(sys.argv[1:])
