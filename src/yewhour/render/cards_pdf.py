"""The cards of a class on a sheet to lay beside the mat: as a PDF, and as a picture."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from typing import Any, Protocol

import msgspec

from yewhour.content.figure_files import portrait
from yewhour.content.paths import FONTS
from yewhour.core.export.cards import Card, cards, in_parts
from yewhour.core.figure.drawing import drawing_of, placed
from yewhour.core.lengths import show_length
from yewhour.core.timed_class import TimedClass
from yewhour.render.pdf_page import (
    INK,
    SIDE_INK,
    Pdf,
    figure_ink,
    new_pdf,
    print_figure,
    printable,
)

# Millimetres on A4.
WIDE = 210.0
LEFT, TOP, BOTTOM = 14.0, 20.0, 284.0
ACROSS, CELL, ROW, FIGURE_HIGH = 5, 36.6, 47.5, 23.0
PART = 8.0  # of the title of a part
DPM = 8.0  # dots of a picture to a millimetre
TITLE, NAME, SMALL = 20.0, 10.5, 9.0  # points


class CardCell(msgspec.Struct, frozen=True):
    """Where a card, or the title of a part, stands: its page, and its upper left corner."""

    page: int
    x: float
    y: float
    card: Card | None = None
    part: str = ""


class CardCanvas(Protocol):
    """What a sheet is drawn on; all of it in millimetres."""

    def text(
        self, x: float, y: float, words: str, size: float, bold: bool, ink: tuple[int, int, int]
    ) -> None: ...
    def width(self, words: str, size: float, bold: bool) -> float: ...
    def figure(self, card: Card, side: str, box: tuple[float, float, float, float]) -> None: ...


def layout(timed: TimedClass, bottom: float = BOTTOM) -> list[CardCell]:
    """Where everything stands: a part begins on a line of its own, and its title never stands alone.

    bottom: how far down a page goes, in millimetres.
    """
    found: list[CardCell] = []
    page, y = 0, TOP + 14.0
    for title, own in in_parts(cards(timed)):
        if y + PART + ROW > bottom:
            page, y = page + 1, TOP
        found.append(CardCell(page, LEFT, y, part=title))
        y += PART
        for number, card in enumerate(own):
            column = number % ACROSS
            if number and not column:
                y += ROW
            if not column and y + ROW > bottom:
                page, y = page + 1, TOP
            found.append(CardCell(page, LEFT + column * CELL, y, card))
        y += ROW
    return found


def cards_pdf(timed: TimedClass) -> bytes:
    """The sheet as a PDF, A4."""
    pdf = new_pdf()
    pdf.set_title(timed.plan.brief.title)
    pdf.set_creator("Yew Hour")
    cells = layout(timed)
    for page in range(1 + max((cell.page for cell in cells), default=0)):
        pdf.add_page()
        canvas = _Page(pdf)
        if not page:
            _head(canvas, timed)
        for cell in cells:
            if cell.page == page:
                _cell(canvas, cell)
    return bytes(pdf.output())


def cards_picture(timed: TimedClass) -> bytes:
    """The sheet as a PNG: one long page."""
    # 60 ms to import; only a picture needs it.
    from PIL import Image, ImageDraw

    cells = layout(timed, math.inf)
    foot = max((cell.y for cell in cells), default=TOP) + ROW + 4
    picture = Image.new("RGB", (round(WIDE * DPM), round(foot * DPM)), "white")
    canvas = _Picture(ImageDraw.Draw(picture))
    _head(canvas, timed)
    for cell in cells:
        _cell(canvas, cell)
    small = picture.resize((picture.width // 2, picture.height // 2), Image.Resampling.LANCZOS)
    out = io.BytesIO()
    small.save(out, "PNG", optimize=True)
    return out.getvalue()


def _head(canvas: CardCanvas, timed: TimedClass) -> None:
    brief = timed.plan.brief
    about = f"{show_length(timed.length_s)}{', for ' + brief.audience if brief.audience else ''}"
    canvas.text(LEFT, TOP, _cut(canvas, brief.title, TITLE, True, WIDE - 2 * LEFT), TITLE, True, INK)
    things = f"{about}. At hand: {', '.join(timed.props)}." if timed.props else f"{about}."
    canvas.text(LEFT, TOP + 7, _cut(canvas, things, SMALL, False, WIDE - 2 * LEFT), SMALL, False, INK)


def _cell(canvas: CardCanvas, cell: CardCell) -> None:
    if cell.card is None:
        canvas.text(cell.x, cell.y + PART * 0.6, cell.part, NAME + 2, True, INK)
        return
    card, room = cell.card, CELL - 4
    sides = card.sides or ("both",)
    wide = room / len(sides)
    for number, side in enumerate(sides):
        canvas.figure(card, side, (cell.x + number * wide, cell.y + 1, wide - 1, FIGURE_HIGH))
    y = cell.y + FIGURE_HIGH + 6
    for line in _two_lines(canvas, card.name, room):
        canvas.text(cell.x, y, line, NAME, True, INK)
        y += 4.4
    x = cell.x
    for words, ink, bold in _when(card):
        canvas.text(x, y, words, SMALL, bold, ink)
        x += canvas.width(words, SMALL, bold) + 1.2
    canvas.text(cell.x, y + 4, _cut(canvas, card.dose, SMALL, False, room), SMALL, False, INK)


def _when(card: Card) -> Iterator[tuple[str, tuple[int, int, int], bool]]:
    for number in range(max(len(card.times), len(card.sides))):
        if card.sides:
            side = card.sides[number]
            yield side[0].upper(), SIDE_INK[side], True
        if card.times:
            yield card.times[number], INK, False


def _two_lines(canvas: CardCanvas, words: str, room: float) -> list[str]:
    """Words in two lines at most."""
    lines = [""]
    for word in words.split():
        longer = f"{lines[-1]} {word}".strip()
        if len(lines) < 2 and lines[-1] and canvas.width(longer, NAME, True) > room:
            lines.append(word)
        else:
            lines[-1] = longer
    return [_cut(canvas, line, NAME, True, room) for line in lines]


def _cut(canvas: CardCanvas, words: str, size: float, bold: bool, room: float) -> str:
    if canvas.width(words, size, bold) <= room:
        return words
    while words and canvas.width(f"{words}…", size, bold) > room:
        words = words[:-1]
    return f"{words}…"


class _Page:
    """A page of a PDF."""

    def __init__(self, pdf: Pdf) -> None:
        self.pdf = pdf

    def _font(self, size: float, bold: bool) -> None:
        family = "Title" if size == TITLE else "Body"
        self.pdf.set_font(family, "B" if bold and family == "Body" else "", size)

    def text(
        self, x: float, y: float, words: str, size: float, bold: bool, ink: tuple[int, int, int]
    ) -> None:
        self._font(size, bold)
        self.pdf.set_text_color(*ink)
        self.pdf.text(x, y, printable(self.pdf, words))

    def width(self, words: str, size: float, bold: bool) -> float:
        self._font(size, bold)
        return float(self.pdf.get_string_width(printable(self.pdf, words)))

    def figure(self, card: Card, side: str, box: tuple[float, float, float, float]) -> None:
        one = portrait(card.movement, side, card.position)
        if one is not None:
            print_figure(self.pdf, one, box, side)


class _Picture:
    """A picture, so many dots to a millimetre."""

    def __init__(self, draw: Any) -> None:
        self.draw = draw

    def _font(self, size: float, bold: bool) -> Any:
        return _picture_font(size, bold)

    def text(
        self, x: float, y: float, words: str, size: float, bold: bool, ink: tuple[int, int, int]
    ) -> None:
        at = (x * DPM, y * DPM)
        self.draw.text(at, words, font=self._font(size, bold), fill=ink, anchor="ls")

    def width(self, words: str, size: float, bold: bool) -> float:
        return float(self.draw.textlength(words, font=self._font(size, bold))) / DPM

    def figure(self, card: Card, side: str, box: tuple[float, float, float, float]) -> None:
        one = portrait(card.movement, side, card.position)
        if one is None:
            return
        for shape in placed(drawing_of(one), box):
            corners = [(x * DPM, y * DPM) for x, y in shape.corners]
            self.draw.polygon(corners, fill=figure_ink(shape.what, side))


def _picture_font(size: float, bold: bool) -> Any:
    from PIL import ImageFont

    name = "AtkinsonHyperlegibleNext_600SemiBold" if bold else "AtkinsonHyperlegibleNext_400Regular"
    file = "YoungSerif_400Regular" if size == TITLE else name
    return ImageFont.truetype(str(FONTS / f"{file}.ttf"), round(size * 25.4 / 72 * DPM))
