"""The first page: begin a class empty, from an outline or from a demo class; or go on with an earlier one."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import QGuiApplication, QKeyEvent, QKeySequence, QResizeEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

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
from yewhour.ui.frame.start.class_card import ClassCard
from yewhour.ui.frame.start.understood import Understood
from yewhour.ui.kit.controls.controls import (
    button,
    card,
    emptied,
    label,
    page,
    quiet,
    row,
)
from yewhour.ui.kit.theme import Theme, scale

PROMISE = "25-minute gentle hatha for the lock-keepers, evening, about hips, mind knees, a block at hand"
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
        self.promise: QLineEdit | None = None
        self.understood = Understood()
        self.understood.answered.connect(self._answer)
        self._soon = QTimer(self)  # what is understood is said when the typing rests
        self._soon.setSingleShot(True)
        self._soon.setInterval(250)
        self._soon.timeout.connect(self._read)
        area, self.body = page()
        self.body.setContentsMargins(60, 28, 60, 40)
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
        typed = self.promise.text() if self.promise is not None else ""
        self.understood.setParent(None)  # it stays, whatever else is made anew
        emptied(self.body)
        for kept in unsaved_work():
            self._kept(kept)
        self.body.addWidget(label("What do you promise?", "heading"))
        self.promise = QLineEdit()
        self.promise.setObjectName("finder")
        self.promise.setPlaceholderText(PROMISE)
        self.promise.setAccessibleName("The promise, in a sentence; Enter drafts the class")
        self.promise.setText(typed)
        self.promise.returnPressed.connect(self._promise)
        self.promise.textChanged.connect(lambda _: self._soon.start())
        line = QHBoxLayout()
        line.addWidget(self.promise, 1)
        line.addWidget(button("Draft it", self._promise, "A class that keeps the promise (Enter).", "accent"))
        self.body.addLayout(line)
        self.body.addWidget(self.understood)
        self.understood.show()
        self.body.addWidget(
            label(
                "A class that keeps it to the second is drafted. Every movement of it can be another.", "soft"
            )
        )
        self.body.addSpacing(10)
        self.body.addWidget(label("Or begin by hand", "heading"))
        first = button("Empty", self.empty.emit, "State the promise, then add movements.")
        self.body.addLayout(
            row(first, button("From an outline…", self.outline.emit, "A class written as plain text."),
                button("Paste an outline", self.paste, "Lines of a class from the clipboard (Ctrl+V)."),
                button("From a recording…", self.recording.emit, "A draft from a recording's captions."),
                button("Open a class…", self.other.emit))
        )  # fmt: skip
        self.first = self.promise
        self.promise.show()  # so that it can have the focus at once
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

    def _kept(self, kept: UnsavedWork) -> None:
        frame, layout = card("look")
        layout.addWidget(label(f"Not saved last time: {kept.about.title}", "prompt"))
        layout.addWidget(label(_told_apart(kept), "soft"))
        layout.addLayout(row(button("Bring it back", lambda: self.kept.emit(kept), name="accent"),
                             button("Let it go", lambda: self._forget(kept))))  # fmt: skip
        self.body.addWidget(frame)

    def _forget(self, kept: UnsavedWork) -> None:
        kept.forget()
        self.refresh()

    def _promise(self) -> None:
        """A class from what was typed; the example where nothing was."""
        assert self.promise is not None
        self.promised.emit(self.promise.text().strip() or PROMISE)

    def _read(self) -> None:
        """Says what is understood of what is typed so far."""
        text = self.promise.text().strip() if self.promise is not None else ""
        if text:
            self.typed.emit(text)
        else:
            self.understood.put(None)

    def _answer(self, asked: str, words: str) -> None:
        """What was asked about is said otherwise."""
        assert self.promise is not None
        after = self.promise.text().replace(asked, words, 1)
        self.promise.setText(" ".join(after.replace("mind mind", "mind").replace("no no ", "no ").split()))
        self.promise.setFocus()
        self._read()

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
