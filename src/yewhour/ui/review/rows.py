"""What was said beside what was meant, in the order of time, and what is to be noticed."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, NamedTuple

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QAbstractScrollArea

from yewhour.core.lengths import show_length
from yewhour.core.review.findings import ReviewFinding
from yewhour.core.review.review import Review
from yewhour.ui.kit.theme import (
    Theme,
    cut_to,
    font,
    metrics,
    scale,
)

SIZE = 11.5  # points
TALL = 27.0  # pixels of a row, at the usual text size
CLOCK = 66.0
OWN_SHARE = 0.3  # for the movement's name, where she spoke in her own words
BOLD = 0.91  # of the room is left for bold words, which are wider
How = Literal["said", "reworded", "unsaid", "extra", "wrong", "look", "note", "heading"]


class ReviewRow(NamedTuple):
    """One row: its moment (None for a heading), what was meant, what was said, and its segment. share: of the
    width, that what was meant takes."""

    at_s: float | None
    meant: str
    said: str
    how: How
    segment: str = ""
    share: float = 0.6


def review_rows(back: Review, found: Sequence[ReviewFinding]) -> list[ReviewRow]:
    """What is to be noticed first, then every line."""
    rows: list[ReviewRow] = []
    if found:
        rows.append(ReviewRow(None, "To look at", "", "heading"))
        rows += [ReviewRow(one.at_s, one.message, one.fix, one.severity, one.segment) for one in found]
    if back.own_words:
        return [*rows, *_own_rows(back)]
    lines: list[ReviewRow] = []
    instead = {one.instead for one in back.extra}
    for number, line in enumerate(back.lines):
        if number in instead:
            continue  # it stands beside what was said in its place
        where = back.moments.get(line.cue.segment, line.planned_s)
        at_s = (
            line.said_s if line.said_s is not None else max(where, line.planned_s if not back.heard else 0.0)
        )
        said = {"said": "", "reworded": line.words, "unsaid": "not said"}[line.how]
        lines.append(ReviewRow(at_s, line.cue.text, said, line.how, line.cue.segment))
    lines += [
        ReviewRow(
            one.start_s,
            back.lines[one.instead].cue.text if one.instead is not None else "",
            (one.again and f"again: {one.again}") or one.text,
            "extra" if one.instead is None else "reworded",
            _segment_at(back, one.start_s),
        )
        for one in back.extra
    ]
    lines.sort(key=lambda row: row.at_s or 0.0)
    if lines:
        rows += [ReviewRow(None, "What you meant to say", "What you said", "heading"), *lines]
    return rows


def _own_rows(back: Review) -> list[ReviewRow]:
    """What she said in her own words, the movement it was said of before it where another begins."""
    rows = [ReviewRow(None, "Movement", "What you said", "heading", share=OWN_SHARE)]
    names = {one.segment.id: one.segment for one in back.segments}
    told = ""
    for one in back.extra:
        segment = names.get(_segment_at(back, one.start_s))
        side = f", {segment.side}" if segment is not None and segment.side in ("left", "right") else ""
        name = f"{segment.use.name}{side}" if segment is not None else ""
        key = segment.id if segment is not None else ""
        rows.append(
            ReviewRow(one.start_s, name if name != told else "", one.text, "said", key, share=OWN_SHARE)
        )
        told = name
    return rows


def _segment_at(back: Review, at_s: float) -> str:
    on = [one.segment.id for one in back.segments if one.start_s <= at_s]
    return on[-1] if on else ""


class ReviewRows(QAbstractScrollArea):
    """The rows. chosen: a row's number is another. played: a row was asked to be heard."""

    chosen = Signal(int)
    played = Signal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.rows: list[ReviewRow] = []
        self.row = -1
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setAccessibleName("What was said, beside what was meant")

    @property
    def tall(self) -> int:
        """Pixels of a row."""
        return round(TALL * scale())

    def show_rows(self, rows: Sequence[ReviewRow]) -> None:
        """Other rows."""
        self.rows = list(rows)
        self.row = -1
        self.verticalScrollBar().setValue(0)
        self._fit()

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self.theme = theme
        self._fit()

    def _fit(self) -> None:
        bar = self.verticalScrollBar()
        bar.setRange(0, max(0, len(self.rows) * self.tall - self.viewport().height()))
        bar.setPageStep(max(1, self.viewport().height()))
        bar.setSingleStep(self.tall)
        self.viewport().update()

    def choose(self, number: int, tell: bool = True) -> None:
        """Goes to a row that has a moment."""
        if not 0 <= number < len(self.rows) or self.rows[number].at_s is None:
            return
        self.row = number
        bar, top = self.verticalScrollBar(), number * self.tall
        if top < bar.value():
            bar.setValue(top - self.tall)
        elif top + self.tall > bar.value() + self.viewport().height():
            bar.setValue(top + 2 * self.tall - self.viewport().height())
        self.viewport().update()
        row = self.rows[number]
        self.setAccessibleDescription(f"{show_length(round(row.at_s or 0))} {row.meant} {row.said}".strip())
        if tell:
            self.chosen.emit(number)

    def choose_segment(self, segment: str) -> None:
        """Goes to the first line of a segment."""
        lines = [number for number, row in enumerate(self.rows) if row.segment == segment]
        spoken = [number for number in lines if self.rows[number].how not in ("wrong", "look", "note")]
        if spoken or lines:
            self.choose((spoken or lines)[0], tell=False)

    # --- painting -----------------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._fit()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self.viewport())
        painter.fillRect(self.viewport().rect(), QColor(self.theme.paper))
        tall, down = self.tall, self.verticalScrollBar().value()
        first = down // tall
        for number in range(first, min(len(self.rows), (down + self.viewport().height()) // tall + 1)):
            self._paint(painter, number, QRectF(0, number * tall - down, self.viewport().width(), tall))

    def _paint(self, painter: QPainter, number: int, box: QRectF) -> None:
        row, theme, gap = self.rows[number], self.theme, 10 * scale()
        if number == self.row:
            painter.fillRect(box, QColor(theme.chosen))
            painter.fillRect(QRectF(0, box.top(), 3 * scale(), box.height()), QColor(theme.focus))
        clock = CLOCK * scale()
        noticed = row.how in ("wrong", "look", "note")
        half = (box.width() - clock - gap) * (0.68 if noticed else row.share)
        down = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft
        if row.how == "heading":
            painter.setFont(font(11.0, bold=True))
            painter.setPen(QColor(theme.soft))
            for x, words in ((clock, row.meant), (clock + half, row.said)):
                painter.drawText(QRectF(x, box.top(), half, box.height()), down, words)
            return
        painter.setFont(font(SIZE))
        painter.setPen(QColor(theme.soft))
        at = show_length(round(row.at_s or 0.0))
        wide = metrics(SIZE).horizontalAdvance(at)
        painter.drawText(QRectF(clock - gap - wide, box.top(), wide + 2, box.height()), down, at)
        colour = {"wrong": theme.trouble, "unsaid": theme.soft}.get(row.how, theme.ink)
        painter.setPen(QColor(colour))
        painter.setFont(font(SIZE, bold=row.how == "wrong"))
        words, _ = cut_to(row.meant, SIZE, (half - gap) * (BOLD if row.how == "wrong" else 1))
        painter.drawText(QRectF(clock, box.top(), half, box.height()), down, words)
        said = theme.trouble if row.how == "unsaid" else theme.soft if noticed else theme.ink
        painter.setPen(QColor(said))
        painter.setFont(font(SIZE, italic=row.how == "extra"))
        rest = box.width() - clock - half - gap
        words, _ = cut_to(row.said, SIZE, rest)
        painter.drawText(QRectF(clock + half, box.top(), rest, box.height()), down, words)

    # --- the hand -----------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.choose((round(event.position().y()) + self.verticalScrollBar().value()) // self.tall)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.played.emit(self.row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_PageDown: 15, Qt.Key.Key_PageUp: -15}
        key = Qt.Key(event.key())
        if key in steps:
            self._go(steps[key])
        elif key in (Qt.Key.Key_Home, Qt.Key.Key_End):
            self._go(-len(self.rows) if key == Qt.Key.Key_Home else len(self.rows))
        elif key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.played.emit(self.row)
        else:
            super().keyPressEvent(event)

    def _go(self, by: int) -> None:
        there = [number for number, row in enumerate(self.rows) if row.at_s is not None]
        if not there:
            return
        wanted = min(max(there[0], self.row + by), there[-1])
        if wanted not in there:
            wanted += 1 if by > 0 else -1
        self.choose(min(max(there[0], wanted), there[-1]))
