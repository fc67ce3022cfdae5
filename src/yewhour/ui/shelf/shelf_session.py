"""The shelf of a window: its logbook, what is done to it and taken back, and classes put onto it."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import msgspec
from PySide6.QtCore import QObject, Signal

from yewhour.core.problem import Problem
from yewhour.core.shelf.records import Record, ShelfRecords
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.unsaved_work import stamp_of
from yewhour.state.logbook.demo_logbook import demo_logbook
from yewhour.state.logbook.logbook import FilePlace, Logbook
from yewhour.state.logbook.shelving import (
    path_of,
    shelve,
    shelve_takes,
    today,
)
from yewhour.state.paths import kept_shelf
from yewhour.ui.kit.undo_history import UndoHistory

Records = dict[str, Record | None]  # by id; None for one that is not there


class ShelfSession(QObject):
    """Holds the shelf. changed: something on it is other. troubled: a Problem to be told.

    book: another logbook than her own. today: the day it is. made_up: it is the one of the demo, which is
    kept nowhere.
    """

    changed = Signal()
    troubled = Signal(object)

    def __init__(
        self, book: Logbook | None = None, made_up: bool = False, today: Callable[[], int] = today
    ) -> None:
        super().__init__()
        self.made_up, self.today = made_up, today
        self._untold: list[Problem] = []
        self.book = book or self._book()
        self._lost: set[str] = set()  # classes that were looked for, and not found
        self.past: UndoHistory[Records] = UndoHistory()

    def _book(self) -> Logbook:
        if self.made_up:
            return demo_logbook(self.today())
        return Logbook(kept_shelf(), on_problem=self._tell)

    def _tell(self, problem: Problem) -> None:
        self._untold.append(problem)
        self.tell()

    def tell(self) -> None:
        """Tells what went wrong, as soon as somebody listens."""
        if self.receivers("2troubled(PyObject)"):
            for problem in self._untold:
                self.troubled.emit(problem)
            self._untold = []

    @property
    def shelf(self) -> ShelfRecords:
        """Everything on it."""
        return self.book.shelf

    def look(self) -> None:
        """Takes in what other windows, machines and takes have brought."""
        self._lost.clear()
        new = 0 if self.made_up else shelve_takes(self.book)
        if self.book.refresh() or new:
            self.changed.emit()
        self.book.flush()
        self.tell()

    def shelve(self, path: Path, timed: TimedClass, cut_of: str = "") -> str:
        """Puts a class onto the shelf; its id."""
        name = shelve(self.book, path, timed, cut_of)
        self._lost.discard(name)
        self.changed.emit()
        return name

    def path_of(self, name: str) -> Path | None:
        """Where a class lies now."""
        if name not in self._lost:
            path = path_of(self.book, name)
            if path is not None:
                return path
            self._lost.add(name)
        return None

    def found_at(self, name: str, path: Path) -> None:
        """Says where a class lies now."""
        self._lost.discard(name)
        self.book.place(name, FilePlace(str(path.resolve()), stamp_of(path), path.stat().st_ino))
        self.changed.emit()

    # --- what is done, and taken back -------------------------------------------------------------------

    def do(self, title: str, *records: Record) -> None:
        """Puts records onto the shelf, new ones or changed ones."""
        self._act(title, {one.id: one for one in records})

    def change(self, title: str, name: str, **fields: object) -> None:
        """Changes single fields of a record."""
        record = self.book.record(name)
        if record is not None:
            self.do(title, msgspec.structs.replace(record, **fields))

    def drop(self, title: str, *names: str) -> None:
        """Takes records off the shelf."""
        self._act(title, dict.fromkeys(names))

    def _act(self, title: str, after: Records) -> None:
        self.past.add(title, self._put(after))
        self.changed.emit()

    def _put(self, after: Records) -> Records:
        """Puts records as they should be; how they were."""
        before = {name: self.book.record(name) for name in after}
        self.book.put(*(one for one in after.values() if one is not None))
        self.book.drop(*(name for name, one in after.items() if one is None))
        return before

    @property
    def undo_titles(self) -> list[str]:
        """What can be taken back, the last act first."""
        return self.past.undo_titles

    @property
    def redo_titles(self) -> list[str]:
        """What can be done again."""
        return self.past.redo_titles

    def undo(self) -> str:
        """Takes the last act back; its title, "" where there is none."""
        title = self.past.back(self._put)
        self.changed.emit()
        return title

    def redo(self) -> str:
        """Does it again."""
        title = self.past.forward(self._put)
        self.changed.emit()
        return title

    def close(self) -> None:
        """Lets go of the logbook."""
        self.book.close()
