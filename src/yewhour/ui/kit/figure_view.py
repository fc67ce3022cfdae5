"""A figure drawn in the window: twigs for limbs and a bud for the head, in the colours of the sprig."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache
from math import inf
from typing import Any, NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import (
    QColor,
    QFontMetricsF,
    QIcon,
    QImage,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPixmap,
    QPolygonF,
    QTransform,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from yewhour.content.figure_files import figures_of
from yewhour.core.figure.body import Figure, between, mirrored
from yewhour.core.figure.drawing import LEAST_HIGH, LEAST_WIDE, LYING, FigureDrawing, drawing_of
from yewhour.core.figure.figures import best
from yewhour.core.figure.shapes import What
from yewhour.core.figure.stages import in_one_place, overlaid, working
from yewhour.core.library.movement import Movement
from yewhour.ui.kit.theme import (
    Theme,
    font,
    scale,
    side_colour,
)

MOST_KNOWN = 2000  # drawings remembered
STATES = 24  # drawings on the way from one figure to the next
MOST_GROWN = 1.4  # a strip grows no further with the text
ARROWED = 56.0  # pixels to the body's height from which on its arrows are drawn
LETTER = 0.10  # of the body's height, that a letter is high
LEAST_LETTER, MOST_LETTER, CAPITAL = 7.5, 15.0, 15.0  # pixels
BREATHED = 80.0  # pixels to the body's height from which on the breath is said
BREATHS = {"inhale": "in", "exhale": "out"}
LETTERED = 44.0  # pixels of a box from which on the side's letter is drawn


class FigurePicture(NamedTuple):
    """A figure ready to be painted: the box it fills, whether it stands on a floor, its parts, one above
    another, the tip of the limb that works, and where from there the letter of its side stands; in shares of
    the body's height, y down. breath: what it goes with, and where that is said."""

    box: QRectF
    floor: bool
    parts: tuple[tuple[What, QPainterPath], ...]
    tip: QPointF
    letter: QPointF
    breath: tuple[str, QPointF] | None = None


def pictures_of(movement: Movement, side: str, position: str = "") -> Sequence[FigurePicture]:
    """The drawings of a movement on a side: one to three, and two stages in one place in one; none where it
    has no figure."""
    return _remembered(_each, movement, side, position)


def moving_of(movement: Movement, side: str, position: str = "") -> Sequence[FigurePicture]:
    """The drawings on the way from a movement's first figure to its last; one for a movement that rests."""
    return _remembered(_states, movement, side, position)


_known: dict[tuple[object, ...], Sequence[FigurePicture]] = {}


def _remembered(
    draw: Callable[[Sequence[Figure]], Sequence[FigurePicture]], movement: Movement, side: str, position: str
) -> Sequence[FigurePicture]:
    key = (draw, movement.id, movement.figure, movement.start, side == "left", position)
    if key not in _known:
        if len(_known) > MOST_KNOWN:
            _known.clear()
        figures = working(figures_of(movement, position))
        drawn = draw([mirrored(one) for one in figures] if side == "left" else figures)
        _known[key] = tuple(_breathing(one, movement) for one in drawn) if draw is _each else drawn
    return _known[key]


def _each(figures: Sequence[Figure]) -> tuple[FigurePicture, ...]:
    if in_one_place(figures):
        return (_ready(overlaid(figures)),)
    return tuple(figure_picture(one) for one in figures)


def _breathing(one: FigurePicture, movement: Movement) -> FigurePicture:
    """With the breath on which it goes where it goes to, if there is one."""
    word = BREATHS.get(movement.rhythm[0][0], "") if movement.rhythm else ""
    return one._replace(breath=(word, one.breath[1]) if one.breath is not None and word else None)


def _best(figures: Sequence[Figure]) -> tuple[FigurePicture, ...]:
    one = best(figures)
    return (figure_picture(one),) if one is not None else ()


class States(Sequence[FigurePicture]):
    """The drawings on the way from a first figure to a last, each made when it is first asked for."""

    def __init__(self, figures: Sequence[Figure]) -> None:
        self.figures = figures
        self._made: dict[int, FigurePicture] = {}
        self._box = QRectF()  # they all stand in one place
        for number in (0, STATES // 2, STATES):
            self._box |= _box_of(drawing_of(self._between(number)))

    def __len__(self) -> int:
        return STATES + 1

    def __getitem__(self, number: Any) -> Any:
        if not 0 <= number < len(self):
            raise IndexError(number)
        if number not in self._made:
            self._made[number] = figure_picture(self._between(number))._replace(box=self._box)
        return self._made[number]

    def _between(self, number: int) -> Figure:
        at = number / STATES * (len(self.figures) - 1)
        first = min(int(at), len(self.figures) - 2)
        return between(self.figures[first], self.figures[first + 1], at - first)


def _states(figures: Sequence[Figure]) -> Sequence[FigurePicture]:
    return States(figures) if len(figures) > 1 else _best(figures)


def portrait_of(movement: Movement, side: str, position: str = "") -> FigurePicture | None:
    """The one drawing that shows a movement best: where it goes to."""
    return next(iter(_remembered(_best, movement, side, position)), None)


def figure_picture(figure: Figure) -> FigurePicture:
    """A figure made ready to be painted."""
    return _ready(drawing_of(figure))


def _ready(drawing: FigureDrawing) -> FigurePicture:
    parts: list[tuple[What, QPainterPath]] = []
    for shape in drawing.shapes:
        if not parts or parts[-1][0] != shape.what:
            path = QPainterPath()
            path.setFillRule(Qt.FillRule.WindingFill)
            parts.append((shape.what, path))
        parts[-1][1].addPolygon(QPolygonF([QPointF(x, -y) for x, y in shape.corners]))
        parts[-1][1].closeSubpath()
    # Its outline alone is painted in two thirds of the time.
    outlines = tuple(_with_edges([(what, path.simplified()) for what, path in parts]))
    (x, y), (u, v) = drawing.mark
    breath = ("", QPointF(drawing.breath[0], -drawing.breath[1])) if drawing.breath is not None else None
    return FigurePicture(_box_of(drawing), drawing.floor, outlines, QPointF(x, -y), QPointF(u, -v), breath)


def _box_of(drawing: FigureDrawing) -> QRectF:
    """The box a drawing fills, y down."""
    left, bottom, right, top = drawing.box
    return QRectF(left, -top, right - left, top - bottom)


def _with_edges(parts: Sequence[tuple[What, QPainterPath]]) -> list[tuple[What, QPainterPath]]:
    """The parts, each cut away where what crosses it leaves an edge free."""
    found: list[tuple[What, QPainterPath]] = []
    for what, path in parts:
        if what != "edge":
            found.append((what, path))
            continue
        box = path.boundingRect()
        found = [
            (
                under,
                below.subtracted(path) if under != "mat" and below.boundingRect().intersects(box) else below,
            )
            for under, below in found
        ]
    return found


def stages(pictures: Sequence[FigurePicture], box: QRectF) -> tuple[list[QRectF], float]:
    """A box for each stage of a movement, and the pixels to the body's height that all are drawn in: beside
    each other, each as wide as it needs, or, as of who lies, above each other, whichever is larger."""
    count = max(1, len(pictures))
    most = min(box.width() / LEAST_WIDE, box.height() / LEAST_HIGH)
    wides, highs = [one.box.width() for one in pictures], [one.box.height() for one in pictures]
    if not pictures:
        return [box], most
    gap = 0.06
    beside = min(most, box.width() / (sum(wides) + gap * count), (box.height() - 2) / max(highs))
    above = min(most, box.width() / max(wides), box.height() / (sum(highs) + gap * count))
    boxes, at = [], 0.0
    if beside >= above:
        share = box.width() / (sum(wides) + gap * count)
        for wide in wides:
            boxes.append(QRectF(box.left() + at, box.top(), (wide + gap) * share, box.height()))
            at += (wide + gap) * share
        return boxes, beside
    share = box.height() / (sum(highs) + gap * count)
    for high in highs:
        boxes.append(QRectF(box.left(), box.top() + at, box.width(), (high + gap) * share))
        at += (high + gap) * share
    return boxes, above


def place_of(one: FigurePicture, box: QRectF, most: float = inf) -> tuple[float, QPointF]:
    """Pixels to the body's height, at most so many, and where its seat and the floor meet, of a figure in a
    box. most: as `stages` gives it, of a stage among others."""
    under = max(1.0, 0.02 * box.height())
    wide, high = one.box.width(), one.box.height()
    size = min(box.width() / wide, (box.height() - under) / high, most)
    if most == inf:
        size = min(size, box.width() / LEAST_WIDE, (box.height() - under) / LEAST_HIGH)
        if wide > LYING * high:
            size = min(box.width() / wide, (box.height() - under) / high)  # who lies fills what there is
    foot = box.bottom() - under
    if not one.floor:
        foot -= (box.height() - high * size) / 2
    return size, QPointF(box.center().x() - one.box.center().x() * size, foot - one.box.bottom() * size)


def paint_figure(
    painter: QPainter,
    box: QRectF,
    one: FigurePicture,
    theme: Theme,
    side: str = "both",
    letter: bool = True,
    most: float = inf,
) -> None:
    """Paints a figure into a box, on its floor at the foot of it. most: pixels to the body's height."""
    lettered = letter and side in ("left", "right") and box.height() >= LETTERED
    if lettered:
        one = one._replace(box=one.box.united(_letter_room(one)))
    size, origin = place_of(one, box, most)
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.translate(origin)
    painter.scale(size, size)
    if one.floor:
        painter.setPen(QPen(QColor(theme.line), 1.2 / size))
        half = max(LEAST_WIDE, one.box.width()) / 2 + 0.02
        middle = one.box.center().x()
        painter.drawLine(QPointF(middle - half, 0.006), QPointF(middle + half, 0.006))
    painter.setPen(Qt.PenStyle.NoPen)
    for what, path in one.parts:
        if what == "arrow" and size < ARROWED:
            continue
        painter.fillPath(path, colour_of(what, theme, side))
    painter.restore()
    if lettered:
        _paint_word(
            painter,
            side[0].upper(),
            origin + _letter_room(one).center() * size,
            size,
            side_colour(theme, side),
        )
    if one.breath is not None and one.breath[0] and size >= BREATHED:
        _paint_word(painter, one.breath[0], origin + one.breath[1] * size, size, QColor(theme.focus))


def _paint_word(painter: QPainter, word: str, at: QPointF, size: float, colour: QColor) -> None:
    """Paints a letter or a short word with its middle at a place."""
    shape = _outlined(word)
    high = max(LEAST_LETTER, min(MOST_LETTER, LETTER * size)) * scale() / CAPITAL
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.translate(at)
    painter.scale(high, high)
    painter.translate(-shape.boundingRect().center())
    painter.fillPath(shape, colour)
    painter.restore()


@lru_cache(8)
def _outlined(word: str) -> QPainterPath:
    """The outline of a word, a capital as high as CAPITAL: painted in a third of the time that text takes."""
    path = QPainterPath()
    path.addText(0, 0, font(20, bold=True), word)
    high = QFontMetricsF(font(20, bold=True)).capHeight()
    return QTransform.fromScale(CAPITAL / high, CAPITAL / high).map(path.simplified())


def _letter_room(one: FigurePicture) -> QRectF:
    """Where the letter of a side stands: by the tip of the limb that works."""
    at = one.tip + one.letter
    return QRectF(at.x() - LETTER / 2, at.y() - LETTER / 2, LETTER, LETTER)


def figure_icon(movement: Movement, theme: Theme, high: float) -> QIcon:
    """A figure as an icon, sharp at twice the size; an empty one where there is none."""
    one = portrait_of(movement, "right")
    if one is None:
        return QIcon()
    return QIcon(QPixmap.fromImage(figure_image(one, theme, "both", high)))


def figure_image(one: FigurePicture, theme: Theme, side: str, high: float) -> QImage:
    """A figure as an image half as wide again as high, sharp at twice the size."""
    picture = QImage(round(high * 3), round(high * 2), QImage.Format.Format_ARGB32_Premultiplied)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    paint_figure(painter, QRectF(picture.rect()), one, theme, side, letter=False)
    painter.end()
    return picture


class FigureStrip(QWidget):
    """The figures of a movement beside each other, or one of each of several."""

    def __init__(self, theme: Theme, height: float) -> None:
        super().__init__()
        self.theme = theme
        self.shown: tuple[tuple[FigurePicture, str], ...] = ()
        self._staged = False  # whether they are the stages of one movement
        self.setFixedHeight(round(height * min(MOST_GROWN, scale())))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_movement(self, movement: Movement, sides: Sequence[str], position: str = "") -> None:
        """The figures of a movement on each of these sides, or on both at once."""
        of_side = pictures_of if len(sides) < 2 else portraits  # of two sides one of each
        self._put([(one, side) for side in sides or ("both",) for one in of_side(movement, side, position)])
        self._staged = len(sides) < 2
        self.setAccessibleName(f"{movement.name}, drawn")

    def show_several(self, movements: Sequence[Movement], name: str) -> None:
        """One figure of each."""
        found = [(portrait_of(one, "right"), "both") for one in movements]
        self._put([(one, side) for one, side in found if one is not None])
        self._staged = False
        self.setAccessibleName(name)

    def _put(self, shown: Sequence[tuple[FigurePicture, str]]) -> None:
        self.shown = tuple(shown)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        high = float(self.height())
        wide = min(self.width() / max(1, len(self.shown)), high * 1.5)
        if self._staged:
            boxes, most = stages(
                [one for one, _ in self.shown], QRectF(2, 2, wide * len(self.shown) - 6, high - 4)
            )
            for box, (one, side) in zip(boxes, self.shown, strict=True):
                paint_figure(painter, box, one, self.theme, side, most=most)
            return
        for number, (one, side) in enumerate(self.shown):
            paint_figure(painter, QRectF(number * wide + 2, 2, wide - 8, high - 4), one, self.theme, side)


def portraits(movement: Movement, side: str, position: str = "") -> Sequence[FigurePicture]:
    """The one drawing of a movement that shows it best, or none."""
    one = portrait_of(movement, side, position)
    return (one,) if one is not None else ()


def colour_of(what: What, theme: Theme, side: str) -> QColor:
    """The colour of a part of a figure: near limbs in that of their side, far ones fainter."""
    if what == "near":
        return side_colour(theme, side)
    if what == "other" and side == "both":
        return side_colour(theme, side)
    if what == "other":
        return mixed(theme.bark, theme.paper, 0.3)
    if what == "far":
        return mixed(theme.bark, theme.paper, 0.5)
    if what == "still":
        return side_colour(theme, side) if side == "both" else mixed(theme.bark, theme.paper, 0.16)
    if what == "face":
        return mixed(theme.bark, theme.paper, 0.5)
    if what == "ghost":
        return mixed(theme.bark, theme.paper, 0.8)
    if what == "prop":
        return mixed(theme.bark, theme.paper, 0.72)
    if what == "mat":
        return mixed(theme.line, theme.paper, 0.45)
    return QColor(theme.focus if what in ("line", "arrow") else theme.bark)


@lru_cache(100)
def mixed(one: str, other: str, share: float) -> QColor:
    """A colour between two."""
    first, second = QColor(one), QColor(other)
    return QColor(
        *(
            round(a + (b - a) * share)
            for a, b in zip(first.getRgb()[:3], second.getRgb()[:3], strict=True)  # type: ignore[index]
        )
    )
