"""Contact sheets of all figures, to be looked at: `python -m tools.figures FOLDER [left] [ID ...]`."""

import os
import sys
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import rtoml
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QGuiApplication, QImage, QPainter, QPolygonF

from yewhour.core.figure.body import Figure, mirrored
from yewhour.core.figure.drawn import drawing_of
from yewhour.core.figure.figures import figure_from
from yewhour.core.figure.settle import settled
from yewhour.core.figure.sound import faults
from yewhour.core.problem import Problem

COLOURS = {"far": "#b79a7e", "near": "#2c6a4b", "middle": "#7a5c43", "bud": "#7a5c43", "prop": "#cfc3a8", "line": "#a86200", "mat": "#efe6d2"}
CELL, ROW, COLUMNS, ROWS = 158, 150, 8, 5


def main(arguments: list[str]) -> None:
    from yewhour.store.words import load_words
    folder = Path(arguments[0]); rest = arguments[1:]
    left = "left" in rest
    ids = [one for one in rest if one != "left"]
    app = QGuiApplication([])
    data = Path("src/yewhour/data/figures")
    positions: dict[str, Figure] = {}
    for name, text in rtoml.load(data / "positions.toml").items():
        positions[name] = settled(figure_from(text, "", positions, name))
    words, _ = load_words()
    lines: dict[str, object] = {}
    for path in sorted(data.glob("*.toml")):
        if path.name != "positions.toml":
            lines.update(rtoml.load(path))
    rows: list[tuple[str, list[Figure]]] = []
    if ids == ["positions"]:
        rows = [(name, [one]) for name, one in positions.items()]
    else:
        for movement in words.library.values():
            if ids and movement.id not in ids and movement.family not in ids: continue
            if not ids and (movement.kind == "talk" or not movement.start): continue
            given = lines.get(movement.id)
            given = [given] if isinstance(given, str) else given
            if given is None:
                if "only" in os.environ.get("FIG", ""): continue
                figs = [f for f in [positions.get(__import__("yewhour.core.figure.figures", fromlist=["x"]).plain_position(movement.start))] if f]
                rows.append(("* " + movement.id, figs)); continue
            try:
                rows.append((movement.id, [settled(figure_from(t, movement.start, positions, movement.id)) for t in given]))
            except Problem as p:
                print("BAD", movement.id, p.what)
    for label, figs in rows:
        for n, f in enumerate(figs):
            for fault in faults(f):
                print(f"{label} {n}: {fault}")
    per = COLUMNS * ROWS
    for page in range(0, len(rows), per):
        image = QImage(CELL * COLUMNS, ROW * ROWS, QImage.Format.Format_RGB32)
        image.fill(QColor("#fbf8f1"))
        painter = QPainter(image); painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for index, (label, figs) in enumerate(rows[page:page + per]):
            x, y = index % COLUMNS * CELL, index // COLUMNS * ROW
            painter.setPen(QColor("#1f2a24")); painter.setFont(QFont("Atkinson Hyperlegible Next", 8))
            painter.drawText(QRectF(x + 3, y + ROW - 16, CELL - 6, 15), Qt.AlignmentFlag.AlignCenter, label)
            each = (CELL - 8) / max(1, len(figs))
            for n, figure in enumerate(figs):
                paint(painter, QRectF(x + 4 + n * each, y + 4, each - 2, ROW - 24), mirrored(figure) if left else figure)
        painter.end()
        image.save(str(folder / f"sheet-{page // per:02}.png"))
    print(len(rows), "rows")


def paint(painter: QPainter, box: QRectF, figure: Figure) -> None:
    drawing = drawing_of(figure)
    l, b, r, t = drawing.box
    size = min(box.width() / max(0.5, r - l), box.height() / max(0.5, t - b))
    size = min(size, box.height() / 0.75)
    def at(p): return QPointF(box.center().x() + (p[0] - (l + r) / 2) * size, box.bottom() - 2 - (p[1] - b) * size)
    painter.setPen(Qt.PenStyle.NoPen)
    if drawing.floor:
        painter.setPen(QColor("#d8d0bd")); painter.drawLine(QPointF(box.left(), at((0, 0)).y()), QPointF(box.right(), at((0, 0)).y())); painter.setPen(Qt.PenStyle.NoPen)
    for shape in drawing.shapes:
        painter.setBrush(QColor(COLOURS[shape.what]))
        painter.drawPolygon(QPolygonF([at(c) for c in shape.corners]), Qt.FillRule.WindingFill)


if __name__ == "__main__":
    main(sys.argv[1:])
