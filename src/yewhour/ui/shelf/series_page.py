"""Series: each as a ladder of weeks, with what a class repeats, what is new in it, and what it prepares."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from yewhour.core.lengths import show_length
from yewhour.core.library.movement import Library
from yewhour.core.library.names import listed
from yewhour.core.shelf.records import Series, ShelfRecords
from yewhour.core.shelf.series import SeriesPlace, places_of
from yewhour.ui.kit.controls.controls import (
    Press,
    button,
    emptied,
    label,
    page,
    row,
)
from yewhour.ui.kit.controls.kept_focus import kept_focus
from yewhour.ui.kit.theme import (
    Theme,
    cut_to,
    font,
    metrics,
    scale,
)
from yewhour.ui.kit.thumbnail import paint_thumbnail
from yewhour.ui.shelf.board import tall

TALL, TWIG = 132.0, 46.0  # pixels of a place, and across a sprig
NAMED = 2  # movements that are named; the others are counted


class PlaceCard(Press):
    """One place of a series: its class as a sprig, with what it brings; or an empty place."""

    def __init__(self, place: SeriesPlace, library: Library, theme: Theme) -> None:
        super().__init__("")
        self.place, self.theme = place, theme
        self.lines = _lines(place, library)
        self.setFixedHeight(round(TALL * scale()))
        title = place.shelved.sheet.title if place.shelved is not None else "Still to be made"
        self.title = title
        self.setAccessibleName(f"Week {place.week}, class {place.number}: {title}. {'. '.join(self.lines)}")

    def sizeHint(self) -> QSize:
        return QSize(round(220 * scale()), round(TALL * scale()))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, size = self.theme, scale()
        lit = self.underMouse() or self.hasFocus()
        box = QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5)
        empty = self.place.shelved is None
        edge = theme.focus if self.hasFocus() else theme.accent if lit else theme.line
        painter.setPen(QPen(QColor(edge), 1.5, Qt.PenStyle.DashLine if empty else Qt.PenStyle.SolidLine))
        painter.setBrush(QColor(theme.paper))
        painter.drawRoundedRect(box, 8, 8)
        left = box.left() + 12 * size
        if self.place.shelved is not None:
            high = min(box.height() - 16, tall(self.place.shelved.sheet.length_s, 1.25 * size))
            twig = QRectF(left, box.bottom() - 8 - high, TWIG * size, high)
            paint_thumbnail(painter, twig, self.place.shelved.sheet.twig, theme)
            left += (TWIG + 10) * size
        room = box.right() - left - 8
        y = box.top() + 10 * size
        for number, words in enumerate((self.title, *self.lines)):
            points = 11.0 if number == 0 else 9.3
            painter.setPen(QColor(theme.ink if number == 0 else theme.soft))
            painter.setFont(font(points, title=number == 0))
            high = metrics(points).height() + 2
            shown = words if number == 0 else cut_to(words, points, room)[0]
            painter.drawText(QRectF(left, y, room, high), Qt.AlignmentFlag.AlignLeft, shown)
            y += high + 1


def _lines(place: SeriesPlace, library: Library) -> list[str]:
    if place.shelved is None:
        return ["Press to begin it", "with what the last one did."]
    sheet = place.shelved.sheet
    lines = [show_length(sheet.length_s)]
    for said, names in (("New", place.new), ("Again", place.repeats), ("For later", place.prepares)):
        if names:
            lines.append(f"{said}: {_named(names, library)}")
    return lines


def _named(names: Sequence[str], library: Library) -> str:
    shown = [library[one].name for one in names if one in library]
    more = len(shown) - NAMED
    return listed([*shown[:NAMED], f"{more} more"]) if more > 0 else listed(shown)


class SeriesLadders(QWidget):
    """Every series. opened: a class of one. begun: the next class of one is to be begun (its id, its place).

    wanted: another series, or this one changed.
    """

    opened = Signal(str)
    begun = Signal(str, int)
    new_wanted = Signal()
    put_in = Signal(str)
    dropped = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        area, self.body = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)
        self.cards: list[PlaceCard] = []

    def show_series(self, shelf: ShelfRecords, library: Library, chosen: str) -> None:
        """Every series; chosen: the title of the class that could be put into one, "" for none."""
        with kept_focus(self):
            self._fill(shelf, library, chosen)

    def _fill(self, shelf: ShelfRecords, library: Library, chosen: str) -> None:
        emptied(self.body)
        self.cards = []
        series = sorted(shelf.series.values(), key=lambda one: (one.begins, one.title))
        for one in series:
            self._series(one, shelf, library, chosen)
        if not series:
            self.body.addWidget(label("A series is classes that build on each other, over some weeks."))
        self.body.addLayout(row(button("A new series…", self.new_wanted.emit)))
        self.body.addStretch(1)

    def _series(self, one: Series, shelf: ShelfRecords, library: Library, chosen: str) -> None:
        places = places_of(one, shelf.classes, library)
        there = [place.shelved.sheet for place in places if place.shelved is not None]
        total = show_length(sum(sheet.length_s for sheet in there))
        self.body.addWidget(label(one.title, "heading"))
        note = f" {one.note}" if one.note else ""
        message = f"{len(there)} of {len(places)} classes, {total} in all.{note}"
        self.body.addWidget(label(message, "soft"))
        grid, box = QGridLayout(), QWidget()
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(8)
        for at, place in enumerate(places):
            if place.number == 1:
                grid.addWidget(label(f"Week {place.week}", "prompt"), place.week, 0)
            card = PlaceCard(place, library, self.theme)
            if place.shelved is not None:
                card.clicked.connect(partial(self.opened.emit, place.shelved.id))
            else:
                card.clicked.connect(partial(self.begun.emit, one.id, at))
            self.cards.append(card)
            grid.addWidget(card, place.week, place.number)
        grid.setColumnStretch(0, 0)
        for column in range(1, one.each + 1):
            grid.setColumnStretch(column, 1)
        box.setLayout(grid)
        self.body.addWidget(box)
        parts = [button("Let this series go", partial(self.dropped.emit, one.id), "Its classes stay.")]
        if chosen and len(there) < len(places):
            parts.insert(0, button(f"Put {chosen} in next", partial(self.put_in.emit, one.id)))
        self.body.addLayout(row(*parts))
        self.body.addSpacing(10)
