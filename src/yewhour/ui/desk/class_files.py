"""A window's class and its file: opened, saved, kept while it is not, and noticed when others have it too."""

from __future__ import annotations

import contextlib
from datetime import datetime
from pathlib import Path
from typing import IO

from PySide6.QtCore import QObject, QTimer, Signal

from yewhour.content.paths import DEMO
from yewhour.core.plan.plan import Plan
from yewhour.core.plan.vocabulary import unknown_fields
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import read_all, write_whole
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.classes.revisions import keep_revision
from yewhour.state.classes.unsaved_work import (
    UnsavedWork,
    WorkKeeper,
    lock_class,
    stamp_of,
)
from yewhour.state.settings import remember_opened
from yewhour.ui.desk.session import Session

KEEP_MS = 1000  # a change is kept this long after it at the latest


class ChangedOutside(Problem):
    """A file is not as it was when it was opened; as it is now, it is among its versions, the latest."""


class ClassFiles(QObject):
    """Keeps a session's class safe.

    said: something went well. troubled: a Problem to be told. opened: another class is in the window.
    """

    said = Signal(str)
    troubled = Signal(object)
    opened = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.keeper = WorkKeeper()
        self.stamp = ""  # of the file as it was read or written last
        self._warned = ""  # the stamp of another's change that was told
        self._lock: IO[bytes] | None = None
        self._brought: UnsavedWork | None = None
        self._tried = False  # it is a draft, as it came
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(KEEP_MS)
        self._timer.timeout.connect(self.keep)
        session.plan_changed.connect(self._start_keeping)

    # --- opening -------------------------------------------------------------------------------------------

    def open(self, path: Path) -> None:
        """Opens a class or an outline. Raises Problem, and keeps the class before, when it can't be."""
        session, unsaved = self.session, self._left_behind()
        session.open(path)
        self._arrive(session.path, unsaved)
        if session.path is not None and not self.is_demo(path):
            remember_opened(path)
        unknown = unknown_fields(session.plan) if session.plan is not None else []
        if unknown:
            self.troubled.emit(unknown[0])
        if session.path is None:
            self.said.emit(f"Made from the outline {path.name}; not saved as a class yet.")

    def begin(self, plan: Plan, tried: bool = False) -> None:
        """A class that is in no file yet. tried: a draft, kept a week unless something is changed in it."""
        unsaved = self._left_behind()
        self.session.begin(plan)
        self._arrive(None, unsaved)
        self._tried = tried

    def bring_back(self, kept: UnsavedWork) -> None:
        """Goes on with work that was not saved. Raises Problem when it is damaged."""
        plan = kept.plan()
        path = Path(kept.about.path) if kept.about.path else None
        unsaved = self._left_behind()
        self.session.begin(plan, path)
        try:
            self.session.saved = read_plan(path) if path is not None else None
        except Problem:
            self.session.saved = None
        self._arrive(path, unsaved)
        self._brought, self._tried = kept, kept.about.tried
        self.keep()
        self.said.emit(f"Brought back as it was: {plan.brief.title}. Save it with Ctrl+S.")

    def _left_behind(self) -> str:
        """The title of the class in the window, kept now, if it is not saved; else ""."""
        self.keep()
        return self.session.plan.brief.title if self.session.plan is not None and self.session.changed else ""

    def _arrive(self, path: Path | None, unsaved: str) -> None:
        """A new class is in the window: its lock, its stamp, a keeper of its own.

        unsaved: the title of the class that was there before, when it stays kept.
        """
        if unsaved:
            self.keeper.close()
        else:
            self.keeper.saved()
        self.keeper, self._tried = WorkKeeper(), False
        self.stamp, self._warned = stamp_of(path), ""
        self._let_go()
        self.opened.emit()
        if unsaved:
            self.said.emit(f"{unsaved} was not saved; it is kept, and waits on the first page (Ctrl+Home).")
        if path is not None and not self.is_demo(path):
            self._take_lock(path)

    def _take_lock(self, path: Path) -> None:
        """Marks a class as open here; tells when it is open elsewhere, or when that can't be known."""
        self._let_go()
        try:
            self._lock = lock_class(path)
        except Problem as problem:
            what = "Nothing can be kept safe here: changes are lost unless you save them."
            self.troubled.emit(Problem(what, problem.where, problem.what))
            return
        if self._lock is None:
            do = "Close one of them, or save this one under another name."
            self.troubled.emit(Problem("This class is open in another window too.", str(path), do))

    def _let_go(self) -> None:
        if self._lock is not None:
            self._lock.close()
            self._lock = None

    @staticmethod
    def is_demo(path: Path) -> bool:
        """Whether a path is one of the demo classes, which are never written."""
        return path.resolve().parent == DEMO.resolve()

    # --- keeping -------------------------------------------------------------------------------------------

    def _start_keeping(self) -> None:
        if self.session.changed and not self._timer.isActive():
            self._timer.start()

    def keep(self) -> None:
        """Keeps what is not saved, now."""
        self._timer.stop()
        session = self.session
        if session.plan is None or not session.changed:
            return
        try:
            self.keeper.keep(session.plan, session.path, self._tried and not session.past.undo_titles)
        except (Problem, OSError) as problem:
            self.troubled.emit(problem if isinstance(problem, Problem) else Problem(str(problem)))
            return
        if self._brought is not None:
            self._brought.forget()
            self._brought = None

    # --- saving --------------------------------------------------------------------------------------------

    @property
    def needs_name(self) -> bool:
        """Whether the class has no file of its own yet."""
        path = self.session.path
        return path is None or self.is_demo(path)

    def save(self, path: Path) -> None:
        """Writes the class and keeps it among its versions. Raises Problem when it can't, or when somebody
        else has changed the file meanwhile; saved again, it is written over, and theirs is kept.
        """
        session = self.session
        if session.plan is None:
            return
        if self.is_demo(path):
            do = "Save it in another folder."
            raise Problem(
                "The demo classes stay as they ship; none can be saved there.", str(path.parent), do
            )
        there = stamp_of(path)
        ours = session.path is not None and path.resolve() == session.path.resolve()
        theirs = bool(there) and (not ours or there != self.stamp)
        if theirs:
            with contextlib.suppress(Problem, OSError):
                keep_revision(path, read_all(path), datetime.now())
        if theirs and ours and self._warned != there:
            self._warned = there
            raise ChangedOutside(
                "Somebody else has changed this file since you opened it.",
                str(path),
                "Go on with theirs, take a part of it, or save again to write over it.",
            )
        content = plan_bytes(session.plan)
        try:
            write_whole(path, content)
        except Problem:
            self.keep()  # it can't be lost
            raise
        session.path, session.saved = path, session.plan
        if not ours:
            self._take_lock(path)
        self.stamp, self._warned = stamp_of(path), ""
        self.keeper.saved()
        if self._brought is not None:
            self._brought.forget()
            self._brought = None
        try:
            keep_revision(path, content, datetime.now())
            remember_opened(path)
        except (Problem, OSError) as problem:
            self.troubled.emit(Problem(f"Saved, but no version of it could be kept: {problem}."))
            return
        self.said.emit(f"Saved: {path}")

    def close(self) -> None:
        """The window goes: what is not saved is kept for next time."""
        self.keep()
        if self.session.changed:
            self.keeper.close()
        else:
            self.keeper.saved()
        self._let_go()
