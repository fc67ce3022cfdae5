"""The first page: begin a class empty, from an outline or from a demo class; or go on with an earlier one."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import QGuiApplication, QKeyEvent, QKeySequence, QResizeEvent
from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from yewhour.content.demo_sheets import demo_sheets
from yewhour.content.paths import demo_classes
from yewhour.core.lengths import show_length
from yewhour.core.plan.plan import steps_of
from yewhour.core.problem import Problem
from yewhour.core.shelf.thumbnail import Thumbnail, thumbnail_of
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.preview_cache import preview_of
from yewhour.state.classes.unsaved_work import UnsavedWork, unsaved_work
from yewhour.state.settings import recent_classes
from yewhour.ui.desk.promise_line import PromiseLine
from yewhour.ui.frame.start.class_card import ClassCard
from yewhour.ui.kit.controls.controls import (
    button,
    card,
    emptied,
    label,
    page,
    quiet,
    row,
    wrapped,
)
from yewhour.ui.kit.controls.kept_focus import kept_focus
from yewhour.ui.kit.theme import Theme, scale

CARD = 460  # pixels of width for a card, at the usual text size


class FirstPage(QWidget):
    """The page. Each signal is a choice."""

    empty = Signal()
    outline = Signal()
    other = Signal()
    recording = Signal()
    path = Signal(object)
    pasted = Signal(str)
    kept = Signal(object)
    promised = Signal(str)
    typed = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self._across = 0
        self.promise = PromiseLine()
        self.promise.promised.connect(self.promised)
        self.promise.typed.connect(self.typed)
        self.first = self.promise.field
        self._all_kept = False  # all that is not saved is shown, not the latest alone
        area, self.body = page()
        self.body.setContentsMargins(round(60 / scale()), 28, round(60 / scale()), 40)
        self.body.setSpacing(10)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.theme = theme
        if self.isVisible():
            self.refresh()

    def paste(self) -> None:
        """A class from the lines on the clipboard."""
        self.pasted.emit(QGuiApplication.clipboard().text())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        else:
            super().keyPressEvent(event)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        """Looks what there is to go on with."""
        with kept_focus(self):
            self._fill()

    def _fill(self) -> None:
        self.promise.setParent(None)  # it stays, whatever else is made anew
        emptied(self.body)
        self.body.addWidget(label("What do you promise?", "heading"))
        self.body.addWidget(self.promise)
        self.promise.show()  # so that it can have the focus at once
        self.body.addWidget(
            label(
                "A class that keeps it to the second is drafted. Every movement of it can be another.", "soft"
            )
        )
        self._pile(unsaved_work())
        self.body.addSpacing(10)
        self.body.addWidget(label("Or begin by hand", "heading"))
        first = button("Empty", self.empty.emit, "State the promise, then add movements.")
        self.body.addLayout(
            wrapped(first, button("From an outline…", self.outline.emit, "A class written as plain text."),
                button("Paste an outline", self.paste, "Lines of a class from the clipboard (Ctrl+V)."),
                button("From a recording…", self.recording.emit, "A draft from a recording's captions."),
                button("Open a class…", self.other.emit))
        )  # fmt: skip
        recent = recent_classes()
        if recent:
            self.body.addSpacing(10)
            self.body.addWidget(label("Lately", "heading"))
            for path in recent[:6]:
                self.body.addLayout(row(self._lately(path), quiet(str(path.parent))))
        self.body.addSpacing(10)
        self.body.addWidget(label("From a demo class", "heading"))
        self.body.addWidget(
            label(
                "Made for the people of Saltmarsh Row. Change one as you like; it is saved as yours.", "soft"
            )
        )
        self._demos()
        self.body.addStretch(1)

    def _lately(self, path: Path) -> QPushButton:
        """What opens a class again: with its twig, where it was made before."""
        found = preview_of(path)
        if found is None:
            return button(path.stem, partial(self.path.emit, path), str(path))
        brief = found.timed.plan.brief
        card = ClassCard(thumbnail_of(found.timed, f"for {brief.audience or 'anyone'}"), self.theme)
        card.setMinimumWidth(round(420 * scale()))
        card.clicked.connect(partial(self.path.emit, path))
        return card

    def _pile(self, kept: list[UnsavedWork]) -> None:
        """What was not saved: the latest, and the others behind it; drafts that were tried are among them."""
        shown = kept if self._all_kept else kept[:1]
        for number, one in enumerate(shown):
            more = len(kept) - 1 if number == 0 and not self._all_kept else 0
            self._kept(one, more)

    def _kept(self, kept: UnsavedWork, more: int) -> None:
        frame, layout = card("look")
        layout.addWidget(label(f"Not saved: {kept.about.title}", "prompt"))
        layout.addWidget(label(_told_apart(kept), "soft"))
        if kept.about.tried:
            layout.addWidget(label("A draft as it came. It is kept a week.", "soft"))
        acts = [
            button("Bring it back", lambda: self.kept.emit(kept), name="accent"),
            button("Let it go", lambda: self._forget(kept)),
        ]
        if more:
            acts.append(button(f"And {more} more", self._show_all, "All that was tried, or not saved."))
        layout.addLayout(row(*acts))
        self.body.addWidget(frame)

    def _show_all(self) -> None:
        self._all_kept = True
        self.refresh()

    def _forget(self, kept: UnsavedWork) -> None:
        kept.forget()
        self.refresh()

    def _columns(self) -> int:
        """How many cards stand side by side."""
        return max(1, int(self.width() / (CARD * scale())))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self.isVisible() and self._columns() != self._across:
            QTimer.singleShot(0, self, self.refresh)

    def _demos(self) -> None:
        grid, box = QGridLayout(), QWidget()
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(8)
        self._across = across = self._columns()
        sheets = demo_sheets()
        for number, path in enumerate(demo_classes()):
            sheet = sheets.get(path.stem)
            if sheet is None:
                brief = read_plan(path).brief
                twig = Thumbnail(brief.title, brief.target_s, brief.audience or brief.style, ())
            else:
                twig = sheet.twig
            card = ClassCard(twig, self.theme)
            card.clicked.connect(partial(self.path.emit, path))
            grid.addWidget(card, number // across, number % across)
        box.setLayout(grid)
        self.body.addWidget(box)


def _told_apart(kept: UnsavedWork) -> str:
    """Which of several this is: when it was kept, its length, what it is made of, where it is from."""
    parts = [kept.when.strftime("%d %B, %H:%M:%S").lstrip("0")]
    try:
        plan = kept.plan()
    except Problem:
        parts.append("it is damaged")
    else:
        number = sum(1 for _ in steps_of(plan))
        parts += [show_length(plan.brief.target_s), "1 movement" if number == 1 else f"{number} movements"]
    return f"{', '.join(parts)}. {kept.about.path or 'It has no file yet.'}"
