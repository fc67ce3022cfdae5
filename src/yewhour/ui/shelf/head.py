"""The head of the shelf: what is promised next, what comes first, and the way to each view of it."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from yewhour.ui.desk.promise_line import PromiseLine
from yewhour.ui.kit.controls.controls import button, label

PROMPT = "What do you promise? 25-minute gentle hatha for the lock-keepers, evening"
OUT = "The next weeks as iCalendar, as a table, and as a page."


class ShelfHead(QWidget):
    """The head. views: (name, about) of each, in order. viewed: the number of one that is wanted."""

    viewed = Signal(int)
    begin = Signal()
    folder_wanted = Signal()
    first_wanted = Signal()
    adopt_wanted = Signal()

    def __init__(self, views: Sequence[tuple[str, str]]) -> None:
        super().__init__()
        self.promise = PromiseLine(PROMPT)
        self.first, self.second = label("", "heading"), label("", "message")
        self.do_first = button("Open it", self.first_wanted.emit, "The class that comes first.", "accent")
        self.search = QLineEdit()
        self.search.setObjectName("finder")
        self.search.setPlaceholderText("Find: hips 20, pigeon, bolster, beginners …")
        self.search.setAccessibleName("Find a class on the shelf")
        self.views = [
            button(name, partial(self.viewed.emit, number), about, "chip")
            for number, (name, about) in enumerate(views)
        ]
        words = QVBoxLayout()
        words.setSpacing(2)
        words.addWidget(self.first)
        words.addWidget(self.second)
        due = QHBoxLayout()
        due.setSpacing(12)
        due.addLayout(words, 1)
        due.addWidget(self.do_first)
        tools = QHBoxLayout()
        tools.setSpacing(8)
        for one in self.views:
            one.setCheckable(True)
            tools.addWidget(one)
        tools.addSpacing(8)
        tools.addWidget(self.search, 1)
        about = "Empty, from an outline, from a demo class."
        tools.addWidget(button("Begin a class…", self.begin.emit, about))
        tools.addWidget(button("Take in a folder…", self.adopt_wanted.emit, "All the classes of a folder."))
        tools.addWidget(button("Write it out…", self.folder_wanted.emit, OUT))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 8, 18, 8)
        layout.setSpacing(6)
        layout.addWidget(self.promise)
        layout.addLayout(due)
        layout.addLayout(tools)
