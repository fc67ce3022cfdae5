"""The cards of a class on a sheet to lay beside the mat: as a PDF, and as a picture."""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

import msgspec

from yewhour.content.figure_files import shown
from yewhour.core.export.cards import Card, cards, in_parts
from yewhour.core.lengths import show_length
from yewhour.core.timed_class import TimedClass
from yewhour.files.late import late
from yewhour.render.pdf_page import (
    INK,
    SIDE_INK,
    SOFT,
    Pdf,
    new_pdf,
    print_drawing,
    printable,
)

if TYPE_CHECKING:
    import pypdfium2
else:
    pypdfium2 = late("pypdfium2")  # only a picture needs it

# Millimetres on A4.
WIDE = 210.0
LEFT, TOP, HEAD, BOTTOM = 12.0, 18.0, 32.0, 288.0
LARGE_ROW, ACROSS = 52.0, 5  # of the picture, which is as long as it needs to be
MOST = 24  # cards of a page, of a class longer than half an hour
HALF_HOUR_S = 31 * 60
COLUMNS = (3, 4, 5, 6)
PART, LINE, FOOT = 5.0, 5.4, 9.6  # of a row: the title of a part, a line of a name, when and how much
GAP = 3.0
LIES = 1.5  # times as wide as high
FIGURE_SHAPE = 0.75  # as high as wide, a figure on the average
DPM = 4.0  # dots of a picture to a millimetre
TITLE, NAME, SMALL = 20.0, 14.0, 10.0  # points; a name is read from where one stands
LEAST_NAME = 10.0  # of a word that is wider than its card


class CardCell(msgspec.Struct, frozen=True):
    """Where a card stands: its page, its box in millimetres. part: the title of the part that it begins."""

    page: int
    x: float
    y: float
    wide: float
    high: float
    card: Card
    part: str = ""


def layout(timed: TimedClass, one_page: bool = False) -> list[CardCell]:
    """Where everything stands: a class of half an hour on one page, a longer one on pages with as many cards
    each. one_page: all on a page as long as it needs to be."""
    found = [(title if not number else "", card) for title, own in in_parts(cards(timed))
             for number, card in enumerate(own)]  # fmt: skip
    if not found:
        return []
    long = timed.length_s > HALF_HOUR_S and len(found) > MOST and not one_page
    pages = math.ceil(len(found) / MOST) if long else 1
    most = math.ceil(len(found) / pages)
    across = ACROSS if one_page else max(COLUMNS, key=lambda columns: _figure_room(most, columns))
    wide = (WIDE - 2 * LEFT) / across
    cells = []
    for index, (title, card) in enumerate(found):
        page, place = divmod(index, most)
        top = HEAD if not page else TOP
        high = LARGE_ROW if one_page else (BOTTOM - top) / math.ceil(most / across)
        row, column = divmod(place, across)
        cells.append(CardCell(page, LEFT + column * wide, top + row * high, wide, high, card, title))
    return cells


def _figure_room(count: int, columns: int) -> float:
    """How high a figure can be where so many cards stand in so many columns; in millimetres."""
    high = (BOTTOM - HEAD) / math.ceil(count / columns) - PART - 2 * LINE - FOOT
    return min(high, FIGURE_SHAPE * ((WIDE - 2 * LEFT) / columns - GAP))


def cards_pdf(timed: TimedClass, one_page: bool = False) -> bytes:
    """The sheet as a PDF: A4, or as long as it needs to be."""
    pdf = new_pdf()
    pdf.set_title(timed.plan.brief.title)
    pdf.set_creator("Yew Hour")
    cells = layout(timed, one_page)
    foot = max((cell.y + cell.high for cell in cells), default=HEAD) + 4
    for page in range(1 + max((cell.page for cell in cells), default=0)):
        pdf.add_page(format=(WIDE, foot) if one_page else "A4")
        sheet = _Page(pdf)
        if not page:
            _head(sheet, timed)
        for number, cell in enumerate(cells):
            if cell.page == page:
                row = [one for one in cells if (one.page, one.y) == (page, cell.y)]
                most = max(len(_lines(sheet, one.card.name, one.wide - GAP)) for one in row)
                _cell(sheet, cell, _part_room(cells[number:]), most)
    return bytes(pdf.output())


def _part_room(cells: Sequence[CardCell]) -> float:
    """How wide the title of a part may be: up to the next title in its row, or the end of that."""
    own = cells[0]
    for cell in cells[1:]:
        if cell.part or (cell.page, cell.y) != (own.page, own.y):
            return (cell.x if cell.y == own.y and cell.page == own.page else WIDE - LEFT) - own.x - GAP
    return WIDE - LEFT - own.x


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


def _cell(sheet: _Page, cell: CardCell, part_room: float, most: int) -> None:
    """A card, in a row whose names have so many lines at most."""
    card, room = cell.card, cell.wide - GAP
    if cell.part:
        sheet.text(cell.x, cell.y + 3.6, _cut(sheet, cell.part, SMALL, False, part_room), SMALL, False, SOFT)
    lines = _lines(sheet, card.name, room)
    high = cell.high - PART - most * LINE - FOOT
    _figures(sheet, card, (cell.x, cell.y + PART, room, high))
    y = cell.y + PART + high + 0.85 * LINE
    for words, size in lines:
        sheet.text(cell.x, y, words, size, True, INK)
        y += LINE
    x = cell.x
    for words, ink, bold in _when(card):
        sheet.text(x, y - 0.6, words, SMALL, bold, ink)
        x += sheet.width(words, SMALL, bold) + 1.2
    beside = x > cell.x and x + sheet.width(card.dose, SMALL, False) <= cell.x + room
    x, y = (x + 0.8, y - 0.6) if beside else (cell.x, y + (3.6 if x > cell.x else -0.6))
    sheet.text(x, y, _cut(sheet, card.dose, SMALL, False, room), SMALL, False, INK)


def _figures(sheet: _Page, card: Card, box: tuple[float, float, float, float]) -> None:
    """The figure of a card, or those of both its sides: beside each other, or lying above each other."""
    left, top, wide, high = box
    drawn = [(side, shown(card.movement, side, card.position)) for side in card.sides or ("both",)]
    there = [(side, one) for side, one in drawn if one is not None]
    lying = len(there) > 1 and all(
        one.box[2] - one.box[0] > LIES * (one.box[3] - one.box[1]) for _, one in there
    )
    for number, (side, one) in enumerate(there):
        if lying:
            place = left, top + number * high / len(there), wide, high / len(there) - 1
        else:
            place = left + number * wide / len(there), top, wide / len(there) - 1, high
        print_drawing(sheet.pdf, one, place, side)


def _when(card: Card) -> Iterator[tuple[str, tuple[int, int, int], bool]]:
    for number in range(max(len(card.times), len(card.sides))):
        if card.sides:
            side = card.sides[number]
            yield side[0].upper(), SIDE_INK[side], True
        if card.times:
            yield card.times[number], INK, False


def _lines(sheet: _Page, name: str, room: float) -> list[tuple[str, float]]:
    """A name in lines that fit, each with its size in points: broken between words and after hyphens, never
    cut; a word that is too wide is smaller."""
    lines = [""]
    for word in re.findall(r"[^\s-]+-?|-", name):
        joint = "" if lines[-1].endswith("-") or not lines[-1] else " "
        if lines[-1] and sheet.width(lines[-1] + joint + word, NAME, True) > room:
            lines.append(word)
        else:
            lines[-1] += joint + word
    return [
        (line, max(LEAST_NAME, min(NAME, NAME * room / max(1.0, sheet.width(line, NAME, True)))))
        for line in lines
    ]


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
