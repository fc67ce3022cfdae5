"""The first page: begin a class empty, from an outline or from a demo class; or go on with an earlier one."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from yewhour.core.lengths import show_length
from yewhour.store.classfile import read_plan
from yewhour.store.habits import recent_classes
from yewhour.store.keeping import Kept, kept_work
from yewhour.store.paths import demo_classes
from yewhour.ui.kit.controls import button, card, emptied, label, page, quiet, row
from yewhour.ui.kit.theme import scale


class Start(QWidget):
    """The page. Each signal is a choice."""

    empty = Signal()
    outline = Signal()
    other = Signal()
    path = Signal(object)
    kept = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        area, self.body = page()
        self.body.setContentsMargins(60, 28, 60, 40)
        self.body.setSpacing(10)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        """Looks what there is to go on with."""
        emptied(self.body)
        for kept in kept_work():
            self._kept(kept)
        self.body.addWidget(label("A new class", "heading"))
        first = button("Empty", self.empty.emit, "State the promise, then add movements.", "accent")
        self.body.addLayout(
            row(first, button("From an outline…", self.outline.emit, "A class written as plain text."),
                button("Open a class…", self.other.emit))
        )  # fmt: skip
        self.first = first
        first.show()  # so that it can have the focus at once
        recent = recent_classes()
        if recent:
            self.body.addSpacing(10)
            self.body.addWidget(label("Lately", "heading"))
            for path in recent[:6]:
                self.body.addLayout(row(button(path.stem, partial(self.path.emit, path), str(path)),
                                        quiet(str(path.parent))))  # fmt: skip
        self.body.addSpacing(10)
        self.body.addWidget(label("From a demo class", "heading"))
        self.body.addWidget(
            label(
                "Made for the people of Saltmarsh Row. Change one as you like; it is saved as yours.", "soft"
            )
        )
        self._demos()
        self.body.addStretch(1)

    def _kept(self, kept: Kept) -> None:
        frame, layout = card("look")
        layout.addWidget(label(f"Not saved last time: {kept.about.title}", "prompt"))
        layout.addWidget(label(kept.about.path or "It has no file yet.", "soft"))
        layout.addLayout(row(button("Bring it back", lambda: self.kept.emit(kept), name="accent"),
                             button("Let it go", lambda: self._forget(kept))))  # fmt: skip
        self.body.addWidget(frame)

    def _forget(self, kept: Kept) -> None:
        kept.forget()
        self.refresh()

    def _demos(self) -> None:
        grid, box = QGridLayout(), QWidget()
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(8)
        across = 2 if self.width() > 820 * scale() else 1
        for number, path in enumerate(demo_classes()):
            brief = read_plan(path).brief
            words = f"{brief.title}  {show_length(brief.target_s)}\n{brief.audience or brief.style}"
            made = button(words, partial(self.path.emit, path), brief.reason)
            made.setStyleSheet("text-align: left;")
            grid.addWidget(made, number // across, number % across)
        box.setLayout(grid)
        self.body.addWidget(box)
