"""The cards of a class on a sheet to lay beside the mat: as a PDF, and as a picture."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from typing import TYPE_CHECKING

import msgspec

from yewhour.content.figure_files import portrait
from yewhour.core.export.cards import Card, cards, in_parts
from yewhour.core.lengths import show_length
from yewhour.core.timed_class import TimedClass
from yewhour.files.late import late
from yewhour.render.pdf_page import (
    INK,
    SIDE_INK,
    Pdf,
    new_pdf,
    print_figure,
    printable,
)

if TYPE_CHECKING:
    import pypdfium2
else:
    pypdfium2 = late("pypdfium2")  # only a picture needs it

# Millimetres on A4.
WIDE = 210.0
LEFT, TOP, BOTTOM = 14.0, 20.0, 284.0
ACROSS, CELL, ROW, FIGURE_HIGH = 5, 36.6, 47.5, 23.0
PART = 8.0  # of the title of a part
DPM = 4.0  # dots of a picture to a millimetre
TITLE, NAME, SMALL = 20.0, 10.5, 9.0  # points


class CardCell(msgspec.Struct, frozen=True):
    """Where a card, or the title of a part, stands: its page, and its upper left corner."""

    page: int
    x: float
    y: float
    card: Card | None = None
    part: str = ""


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


def cards_pdf(timed: TimedClass, one_page: bool = False) -> bytes:
    """The sheet as a PDF: A4, or as long as it needs to be."""
    pdf = new_pdf()
    pdf.set_title(timed.plan.brief.title)
    pdf.set_creator("Yew Hour")
    cells = layout(timed, math.inf if one_page else BOTTOM)
    foot = max((cell.y for cell in cells), default=TOP) + ROW + 4
    for page in range(1 + max((cell.page for cell in cells), default=0)):
        pdf.add_page(format=(WIDE, foot) if one_page else "A4")
        sheet = _Page(pdf)
        if not page:
            _head(sheet, timed)
        for cell in cells:
            if cell.page == page:
                _cell(sheet, cell)
    return bytes(pdf.output())


def cards_picture(timed: TimedClass) -> bytes:
    """The sheet as a PNG: one long page."""
    page = pypdfium2.PdfDocument(cards_pdf(timed, one_page=True))[0]
    out = io.BytesIO()
    page.render(scale=round(WIDE * DPM) / page.get_width()).to_pil().save(out, "PNG", optimize=True)
    return out.getvalue()


def _head(sheet: _Page, timed: TimedClass) -> None:
    brief = timed.plan.brief
    about = f"{show_length(timed.length_s)}{', for ' + brief.audience if brief.audience else ''}"
    sheet.text(LEFT, TOP, _cut(sheet, brief.title, TITLE, True, WIDE - 2 * LEFT), TITLE, True, INK)
    things = f"{about}. At hand: {', '.join(timed.props)}." if timed.props else f"{about}."
    sheet.text(LEFT, TOP + 7, _cut(sheet, things, SMALL, False, WIDE - 2 * LEFT), SMALL, False, INK)


def _cell(sheet: _Page, cell: CardCell) -> None:
    if cell.card is None:
        sheet.text(cell.x, cell.y + PART * 0.6, cell.part, NAME + 2, True, INK)
        return
    card, room = cell.card, CELL - 4
    sides = card.sides or ("both",)
    wide = room / len(sides)
    for number, side in enumerate(sides):
        sheet.figure(card, side, (cell.x + number * wide, cell.y + 1, wide - 1, FIGURE_HIGH))
    y = cell.y + FIGURE_HIGH + 6
    for line in _two_lines(sheet, card.name, room):
        sheet.text(cell.x, y, line, NAME, True, INK)
        y += 4.4
    x = cell.x
    for words, ink, bold in _when(card):
        sheet.text(x, y, words, SMALL, bold, ink)
        x += sheet.width(words, SMALL, bold) + 1.2
    sheet.text(cell.x, y + 4, _cut(sheet, card.dose, SMALL, False, room), SMALL, False, INK)


def _when(card: Card) -> Iterator[tuple[str, tuple[int, int, int], bool]]:
    for number in range(max(len(card.times), len(card.sides))):
        if card.sides:
            side = card.sides[number]
            yield side[0].upper(), SIDE_INK[side], True
        if card.times:
            yield card.times[number], INK, False


def _two_lines(sheet: _Page, words: str, room: float) -> list[str]:
    """Words in two lines at most."""
    lines = [""]
    for word in words.split():
        longer = f"{lines[-1]} {word}".strip()
        if len(lines) < 2 and lines[-1] and sheet.width(longer, NAME, True) > room:
            lines.append(word)
        else:
            lines[-1] = longer
    return [_cut(sheet, line, NAME, True, room) for line in lines]


def _cut(sheet: _Page, words: str, size: float, bold: bool, room: float) -> str:
    if sheet.width(words, size, bold) <= room:
        return words
    while words and sheet.width(f"{words}…", size, bold) > room:
        words = words[:-1]
    return f"{words}…"


class _Page:
    """A page that is printed on; all of it in millimetres."""

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
