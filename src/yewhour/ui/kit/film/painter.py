"""What lies over a film's picture, painted: each part in its place, and painted anew only when it changes.

Over a camera's picture each part stands on a plate of its own, so that it can be read on light, dark and busy
ground; on paper (a class without a camera) the figure is large and nothing needs a plate.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Sequence

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPen

from yewhour.core.film.on_screen import SIDES, OnScreen, Part, ScreenFacts
from yewhour.core.lengths import said_length
from yewhour.core.take.moment import gone_there
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.ui.kit.figure_view import FigurePicture, mixed, moving_of, paint_figure, portrait_of
from yewhour.ui.kit.film.brush import Brush, lying_needle, paint_breath
from yewhour.ui.kit.film.places import ALONE, OVER
from yewhour.ui.kit.theme import LIGHT, Theme, side_colour
from yewhour.ui.kit.thumbnail import needle
from yewhour.voice.film.laid_over import LaidPicture, laid_picture

HIGH = 720.0  # pixels of the picture that sizes are given for
STEPS = 120  # that a needle empties in
FILLS = 40  # steps that a breath fills in
DARKER = 16  # and that the picture comes and goes in


BAND = 64.0  # pixels wide, of the edge that a side is told on


class FilmPainter:
    """Gives the pictures that lie over a film at each of its seconds. alone: on paper, without a camera."""

    def __init__(
        self,
        timed: TimedClass,
        wide: int,
        high: int,
        parts: Collection[Part],
        theme: Theme = LIGHT,
        alone: bool = False,
    ) -> None:
        self.facts = ScreenFacts(timed, alone)
        self.wide, self.high, self.theme, self.alone = wide, high, theme, alone
        self.unit = high / HIGH
        self.brush = Brush(theme, plates=not alone)
        self.parts = [part for part in _PAINTED if part in parts]
        self._last: dict[Part, tuple[Hashable, LaidPicture | None]] = {}

    def __call__(self, at_s: float) -> list[LaidPicture]:
        """What lies over the picture at a second of the film, the lowest first."""
        seen = self.facts.at(at_s)
        found = (self._laid(part, seen) for part in self.parts)
        return [one for one in found if one is not None]

    def _laid(self, part: Part, seen: OnScreen) -> LaidPicture | None:
        key, paint = _PAINTED[part](self, seen)
        before = self._last.get(part)
        if before is None or before[0] != key:
            x, y, wide, high = self._box(part, seen)
            picture = None
            if paint is not None:
                image = QImage(wide, high, QImage.Format.Format_ARGB32_Premultiplied)
                image.fill(Qt.GlobalColor.transparent)
                painter = QPainter(image)
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.scale(self.unit, self.unit)
                paint(painter, QRectF(0, 0, wide / self.unit, high / self.unit))
                painter.end()
                straight = image.convertToFormat(QImage.Format.Format_RGBA8888)
                picture = laid_picture(x, y, wide, high, bytes(straight.constBits()))
            before = self._last[part] = (key, picture)
        return before[1]

    def _box(self, part: Part, seen: OnScreen) -> tuple[int, int, int, int]:
        """Where a part stands, in whole even pixels."""
        if part == "side":
            wide = _even(BAND * self.unit)
            return (0 if seen.side == "left" else self.wide - wide, 0, wide, self.high)
        if part == "fade":
            return (0, 0, self.wide, self.high)
        place = (ALONE if self.alone else OVER)[part]
        wide, high = min(self.wide, _even(place.wide * self.unit)), _even(place.high * self.unit)
        x = place.x * self.unit if place.x >= 0 else self.wide + place.x * self.unit
        if part in ("title", "end", "captions"):
            x = (self.wide - wide) / 2
        if part == "figure" and self.alone:
            x = (self.wide - wide) / 2
        return (_even(min(max(0, x), self.wide - wide)), _even(place.y * self.unit), wide, high)

    # --- the parts: what tells one picture of them from the next, and how it is painted

    def title(self, seen: OnScreen) -> _Painted:
        """The title of the class, for whom it is, and how long."""
        brief = self.facts.timed.plan.brief
        about = [said_length(self.facts.timed.length_s), f"for {brief.audience}" if brief.audience else ""]
        return self._sheet(brief.title, ", ".join(one for one in about if one), seen.title)

    def end(self, seen: OnScreen) -> _Painted:
        """Thanks, and what it was."""
        return self._sheet("Thank you", self.facts.timed.plan.brief.title, seen.end)

    def _sheet(self, large: str, small: str, there: bool) -> _Painted:
        """A line and a smaller one in the middle of the picture."""
        if not there:
            return "", None

        def paint(painter: QPainter, box: QRectF) -> None:
            self.brush.plate(painter, box)
            middle = Qt.AlignmentFlag.AlignHCenter
            self.brush.words(painter, large, box.adjusted(24, 20, -24, -78), 50, title=True, align=middle)
            self.brush.words(painter, small, box.adjusted(24, 118, -24, -20), 27, align=middle, soft=True)

        return large, paint

    def _covered(self, seen: OnScreen) -> bool:
        """Whether the title or the thanks stand there, and nothing else is told."""
        return (seen.title and "title" in self.parts) or (seen.end and "end" in self.parts)

    def name(self, seen: OnScreen) -> _Painted:
        """The movement that is on, or that the way goes to."""
        shown = seen.shown
        if shown is None or self._covered(seen) or not (seen.named or self.alone):
            return "", None
        name = shown.use.name
        return name, lambda painter, box: self._named(painter, box, name, 38, seen.side)

    def _named(self, painter: QPainter, box: QRectF, name: str, size: float, side: str) -> None:
        wide = self.brush.fitted(name, size, box.width() - 44, title=True)[1]
        self.brush.plate(painter, QRectF(box.left(), box.top(), wide + 44, box.height()))
        self.brush.words(painter, name, box.adjusted(0 if self.alone else 22, 8, -22, -8), size, title=True)

    def left(self, seen: OnScreen) -> _Painted:
        """What is left of it: a needle that empties, and a number."""
        if not seen.left or self._covered(seen):
            return "", None
        share = round(seen.share * STEPS) / STEPS

        def paint(painter: QPainter, box: QRectF) -> None:
            self.brush.plate(painter, box)
            inside = box.adjusted(0 if self.alone else 20, 8, -20, -8)
            shape = lying_needle(QRectF(inside.left(), inside.center().y() - 9, 128, 18))
            painter.fillPath(shape, mixed(self.theme.line, self.theme.paper, 0.2))
            painter.save()
            painter.setClipRect(QRectF(inside.left(), inside.top(), 128 * share, inside.height()))
            painter.fillPath(shape, side_colour(self.theme, seen.side or "both"))
            painter.restore()
            self.brush.words(painter, seen.left, inside.adjusted(142, 0, 0, 0), 27)

        return (share, seen.left, seen.side), paint

    def next(self, seen: OnScreen) -> _Painted:
        """What comes next, and on which side."""
        coming = seen.coming
        if coming is None or self._covered(seen):
            return "", None
        words = f"then {coming.use.name}"
        side = coming.side if coming.side in SIDES else ""

        def paint(painter: QPainter, box: QRectF) -> None:
            self.brush.plate(painter, QRectF(box.left(), box.top(), box.width(), 74))
            row = QRectF(box.left() + 18, box.top() + 6, box.width() - 36, 36)
            self.brush.words(painter, words, row, 25)
            told = f"on the {side}" if side else ""
            self.brush.words(painter, told, row.translated(0, 31), 21, soft=True, colour=side)
            one = portrait_of(coming.use.movement, side or "both", coming.use.start)
            if self.alone and one is not None:
                paint_figure(
                    painter, QRectF(box.left(), box.top() + 80, 150, 104), one, self.theme, side or "both"
                )

        return (words, side), paint

    def side(self, seen: OnScreen) -> _Painted:
        """The side, on its own edge of the picture: a needle along it, with its letter."""
        if not seen.side or self._covered(seen):
            return "", None

        def paint(painter: QPainter, box: QRectF) -> None:
            at_left = seen.side == "left"
            stem, tip = (0.0, box.width() - 8) if at_left else (box.width(), 8.0)
            outline = QPen(QColor(self.theme.paper), 5)
            painter.setPen(outline)
            painter.setBrush(side_colour(self.theme, seen.side))
            painter.drawPath(needle(stem, tip, 24, box.height() - 24))
            middle = QRectF((stem + tip) / 2 - 24, box.center().y() - 30, 48, 60)
            letter = seen.side[0].upper()
            centred = Qt.AlignmentFlag.AlignHCenter
            self.brush.words(painter, letter, middle, 40, bold=True, align=centred, colour="paper")

        return seen.side, paint

    def breath(self, seen: OnScreen) -> _Painted:
        """The breath: a twig whose needles open as it comes and close as it goes."""
        if seen.breath is None or self._covered(seen):
            return "", None
        full = round(seen.breath * FILLS) / FILLS

        def paint(painter: QPainter, box: QRectF) -> None:
            self.brush.plate(painter, box)
            paint_breath(painter, box.adjusted(14, 12, -14, -12), full, self.theme)

        return full, paint

    def figure(self, seen: OnScreen) -> _Painted:
        """The movement, drawn, and moving as it does."""
        if seen.shown is None or self._covered(seen):
            return "", None
        one, number, side = moving_picture(seen.shown, seen)
        if one is None:
            return "", None

        def paint(painter: QPainter, box: QRectF) -> None:
            self.brush.plate(painter, box)
            inside = box.adjusted(8, 8, -8, -8)
            paint_figure(painter, inside, one, self.theme, side, letter=False)

        return (seen.shown.use.movement.id, seen.shown.use.start, side, number), paint

    def captions(self, seen: OnScreen) -> _Painted:
        """What is said, in two lines at most."""
        if not seen.caption:
            return "", None
        rows = seen.caption.split("\n")

        def paint(painter: QPainter, box: QRectF) -> None:
            wide = max(self.brush.fitted(row, 29, box.width() - 40)[1] for row in rows) + 40
            high = 16 + 40 * len(rows)
            plate = QRectF((box.width() - wide) / 2, box.height() - high, wide, high)
            self.brush.plate(painter, plate)
            for number, row in enumerate(rows):
                line = QRectF(0, plate.top() + 8 + 40 * number, box.width(), 40)
                self.brush.words(painter, row, line, 29, align=Qt.AlignmentFlag.AlignHCenter)

        return seen.caption, paint

    def fade(self, seen: OnScreen) -> _Painted:
        """What covers the whole picture as it begins and as it ends: the dark, or the paper that it is on."""
        dark = min(1.0, round(seen.dark * DARKER) / DARKER)
        if not dark:
            return "", None
        colour = QColor(self.theme.paper if self.alone else "#000000")
        colour.setAlphaF(dark)
        return dark, lambda painter, box: painter.fillRect(box, colour)


_Painted = tuple[Hashable, Callable[[QPainter, QRectF], None] | None]
# The order in which they lie upon one another.
_PAINTED: dict[Part, Callable[[FilmPainter, OnScreen], _Painted]] = {
    "figure": FilmPainter.figure, "side": FilmPainter.side, "name": FilmPainter.name,
    "left": FilmPainter.left, "next": FilmPainter.next, "breath": FilmPainter.breath,
    "captions": FilmPainter.captions, "title": FilmPainter.title, "end": FilmPainter.end,
    "fade": FilmPainter.fade,
}  # fmt: skip


def paper(painter: FilmPainter) -> LaidPicture:
    """The whole picture with nothing on it."""
    colour = QColor(painter.theme.paper)
    pixel = bytes([colour.red(), colour.green(), colour.blue(), 255])
    return laid_picture(0, 0, painter.wide, painter.high, pixel * (painter.wide * painter.high))


def lay_on(image: QImage, pictures: Sequence[LaidPicture]) -> None:
    """Lays pictures on an image, one after another."""
    brush = QPainter(image)
    for laid in pictures:
        high, wide = laid.pixels.shape[:2]
        over = QImage(laid.pixels.tobytes(), wide, high, 4 * wide, QImage.Format.Format_RGBA8888)
        brush.drawImage(laid.x, laid.y, over)
    brush.end()


def moving_picture(shown: Segment, seen: OnScreen) -> tuple[FigurePicture | None, int, str]:
    """The drawing of a movement at a moment, which of its states that is, and the side it is on.

    What goes from side to side is not turned round with each stroke: nobody on a mat is.
    """
    side = shown.side if shown.side in SIDES else "both"
    movement, position = shown.use.movement, shown.use.start
    states = moving_of(movement, side, position)
    here = seen.moment
    if len(states) > 1 and shown is not here.segment:
        return states[0], 0, side  # it begins there
    if len(states) < 2 or here.span is None:
        return portrait_of(movement, side, position), -1, side
    number = round(gone_there(here, shown) * (len(states) - 1))
    return states[number], number, side


def _even(value: float) -> int:
    return 2 * round(value / 2)
