"""Classes from those on the shelf: the same again, a cut, the next of a series, one that names another."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any, NamedTuple

import msgspec
from PySide6.QtCore import QObject, Signal

from yewhour.core.edits.compare import nearest_class
from yewhour.core.edits.cuts import cut
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.own_shares import WHATS
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.review.learning import LearntShare
from yewhour.core.shelf.records import Series
from yewhour.core.shelf.search import search
from yewhour.core.shelf.series import (
    if_more,
    minutes_of,
    next_of,
    next_title,
    spoken_of,
)
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.revisions import revisions_of
from yewhour.state.logbook.shelving import new_id
from yewhour.state.takes.learnt_seconds import ALL, begun_with, learnt_by_month
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.small_dialogs import Asking
from yewhour.ui.shelf.shelf_session import ShelfSession

MOST_WEEKS, MOST_EACH = 52, 7
_SERIES = re.compile(r"(?P<title>.+?),?\s*(?P<weeks>\d{1,2})\s*weeks?\s*(?:of|x|×)\s*(?P<each>\d)\b", re.I)


class Coming(NamedTuple):
    """What a class that is begun from the shelf will be there: a cut of another, a place in a series."""

    cut_of: str = ""
    series: str = ""
    at: int = 0


class Making(QObject):
    """Makes classes of others. begun: a class that is in no file yet, and what is said of it.

    coming: what the class that was begun last will be on the shelf, once it is saved.
    """

    begun = Signal(object, str)
    changed = Signal(object, str)

    def __init__(self, session: Session, shelving: ShelfSession, page: Any) -> None:
        super().__init__()
        self.session, self.shelving, self.page = session, shelving, page
        self.coming = Coming()
        self._by_month: dict[str, list[LearntShare]] | None = None

    def _plan_of(self, name: str) -> Plan | None:
        """A class of the shelf, read anew; told where it can't be."""
        path = self.shelving.path_of(name)
        try:
            if path is None:
                raise Problem("The file of this class is not there.", do="Find it first.")
            return read_plan(path)
        except Problem as problem:
            self.page.troubled.emit(problem)
            return None

    def _begin(self, plan: Plan, said: str, coming: Coming) -> None:
        self.begun.emit(plan, said)
        self.coming = coming

    def shelve(self, path: Path, timed: Any) -> None:
        """Puts the class that is open onto the shelf, where it is saved, with what it was begun as."""
        coming, self.coming = self.coming, Coming()
        name = self.shelving.shelve(path, timed, coming.cut_of)
        series = self.shelving.shelf.series.get(coming.series)
        if series is not None and name not in series.classes:
            self.put_in(series, name, coming.at)

    # --- many at once -----------------------------------------------------------------------------------

    def adopt(self, folder: Path) -> None:
        """Puts every class of a folder onto the shelf; what can't be read is told, and left where it is."""
        paths = sorted(folder.glob("*.yewhour"))
        if not paths:
            what = f"There is no class in {folder}."
            self.page.troubled.emit(Problem(what, do="Choose the folder that your .yewhour files are in."))
            return
        self.page.message.emit(f"Looking at {len(paths)} classes …")
        self.session.jobs.run(
            "adopt", lambda job: [self._read(path) for path in paths], self._adopted, doing="Reading classes",
            lost="Nothing was put on the shelf; the files are as they were.",
            failed=self.page.troubled.emit, owner=self.page,
        )  # fmt: skip

    def _read(self, path: Path) -> tuple[Path, TimedClass | Problem]:
        try:
            return path, nearest_class(solve(read_plan(path), self.session.teaching_data))
        except Problem as problem:
            return path, problem

    def _adopted(self, read: list[tuple[Path, TimedClass | Problem]]) -> None:
        troubles = [(path, one) for path, one in read if isinstance(one, Problem)]
        for path, one in read:
            if not isinstance(one, Problem):
                self.shelving.shelve(path, one)
        self.page.refresh()
        put = len(read) - len(troubles)
        said = f"{put} class{'' if put == 1 else 'es'} of {read[0][0].parent.name} on the shelf."
        for path, problem in troubles[:1]:
            more = f", and {len(troubles) - 1} more" if len(troubles) > 1 else ""
            said += f" {path.name} could not be read{more}: {problem.what}"
        self.page.message.emit(said)

    # --- one class from another -------------------------------------------------------------------------

    def again(self, name: str) -> None:
        """A copy, under another title."""
        plan = self._plan_of(name)
        if plan is not None:
            title = next_title(plan.brief.title, self._titles())
            self._begin(with_brief(plan, title=title), f"A copy of {plan.brief.title}.", Coming(name))

    def next_one(self, name: str) -> None:
        """One that begins with what this one did; in the series of this one, where there is one."""
        series = next((one for one in self.shelving.shelf.series.values() if name in one.classes), None)
        self._next(name, series, series.classes.index(name) + 1 if series is not None else 0)

    def next_in(self, series_id: str, at: int) -> None:
        """The class for a place of a series."""
        series = self.shelving.shelf.series[series_id]
        before = [one for one in series.classes[:at] if one in self.shelving.shelf.classes]
        if before:
            self._next(before[-1], series, at)
        else:
            first = Problem("There is no class in this series yet.", do="Choose one, and put it in.")
            self.page.troubled.emit(first)

    def _next(self, name: str, series: Series | None, at: int) -> None:
        plan = self._plan_of(name)
        if plan is not None:
            room = self.session.teaching_data.room(plan.brief)
            after = next_of(plan, next_title(plan.brief.title, self._titles()), room)
            said = f"It begins with what {plan.brief.title} did. Ctrl+G drafts what is new this time."
            self._begin(after, said, Coming(series=series.id if series is not None else "", at=at))

    def last_state(self, name: str) -> None:
        """Begins with the last saved state of a class whose file is gone."""
        place = self.shelving.book.place_of(name)
        states = revisions_of(Path(place.path)) if place is not None else []
        try:
            if not states:
                raise Problem("No saved state of this class is kept here.", do="Look for its file.")
            self._begin(states[0].plan(), f"As it was saved on {states[0].when:%d %B, %H:%M}.", Coming())
        except Problem as problem:
            self.page.troubled.emit(problem)

    def _titles(self) -> list[str]:
        return [one.sheet.title for one in self.shelving.shelf.classes.values()]

    # --- cuts, which take a while -----------------------------------------------------------------------

    def cut(self, name: str, minutes: int) -> None:
        """A cut of a class, of so many minutes."""
        plan = self._plan_of(name)
        if plan is not None:
            self.page.message.emit(f"Making {minutes} minutes of {plan.brief.title} …")
            self.session.jobs.run(
                "shelf cut", lambda job: self._cut(plan, minutes),
                lambda found: self._begin_cut(found, name, minutes), doing="Cutting the class",
                lost="The class on the shelf is as it was.", failed=self.page.troubled.emit, owner=self.page,
            )  # fmt: skip

    def _cut(self, plan: Plan, minutes: int) -> Any:
        return cut(plan, solve(plan, self.session.teaching_data), minutes * 60.0)

    def _begin_cut(self, found: Any, name: str, minutes: int) -> None:
        left = f"; left out: {', '.join(found.left_out)}" if found.left_out else ""
        plan = with_brief(found.plan, target_s=minutes * 60.0)
        self._begin(plan, f"{minutes} minutes of {plan.brief.title}{left}.", Coming(name))

    # --- one that names another -------------------------------------------------------------------------

    def ask_other(self, name: str) -> None:
        """Asks which class is to be named at the end of this one."""
        dialog = Asking(
            self.page.window(), "Name another at its end", lambda text: self._told(name, text), "Say it"
        )
        dialog.accepted.connect(lambda: self.name_other(name, dialog.text()))
        self.page.opens.emit(dialog)

    def _other(self, name: str, text: str) -> str:
        """The class that is meant by what was typed, "" for none."""
        rows = self.page.index.rows(self.shelving.shelf.classes)
        found = [one.id for one in search(rows, text) if one.id != name] if text.strip() else []
        return found[0] if found else ""

    def _told(self, name: str, text: str) -> str:
        other = self._other(name, text)
        return self._line(name, other) if other else "Type part of the name of the other class."

    def _line(self, name: str, other: str) -> str:
        classes = self.shelving.shelf.classes
        this, that = classes[name].sheet, classes[other].sheet
        return if_more(this, that, self.session.teaching_data.number_word(minutes_of(this, that)))

    def name_other(self, name: str, text: str) -> None:
        """The class says at its end that there is another; it is opened, to be looked at and saved."""
        other, words = self._other(name, text), self.session.teaching_data
        plan = self._plan_of(name)
        if plan is None or not other:
            self.page.troubled.emit(Problem("No other class is called that.", do="Type part of its name."))
            return
        line = self._line(name, other)
        self.page.open_class(name)
        self.changed.emit(spoken_of(plan, line, words.library, words.blocks), line)

    # --- series -----------------------------------------------------------------------------------------

    def ask_series(self) -> None:
        """Asks what a new series is to be."""
        dialog = Asking(self.page.window(), "A new series", told_series, "Begin it")
        dialog.accepted.connect(lambda: self.begin_series(dialog.text()))
        self.page.opens.emit(dialog)

    def begin_series(self, text: str) -> None:
        """A new series, as typed: `Hips in spring, 4 weeks of 3`."""
        try:
            title, weeks, each = read_series(text)
        except Problem as problem:
            self.page.troubled.emit(problem)
            return
        self.shelving.do("A new series", Series(new_id(), title, weeks, each, begins=self.shelving.today()))

    def put_in(self, series: Series, name: str, at: int = -1) -> None:
        """Puts a class into the place of a series, or into the first that is free."""
        classes = [*series.classes, *[""] * (series.weeks * series.each - len(series.classes))]
        free = next((n for n, one in enumerate(classes) if not one), None)
        place = at if 0 <= at < len(classes) and not classes[at] else free
        if place is None:
            full = Problem(f"{series.title} is full.", do="Begin another series, or let it have more weeks.")
            self.page.troubled.emit(full)
            return
        classes[place] = name
        self.shelving.do("Put into a series", msgspec.structs.replace(series, classes=tuple(classes)))

    # --- what was learnt --------------------------------------------------------------------------------

    def learnt_of(self, month: str) -> str:
        """What the takes of a month taught of her own seconds, in a few words; "" for nothing."""
        if self._by_month is None:
            self._by_month = learnt_by_month()
        found = [one for one in self._by_month.get(month, []) if not one.slight]
        return ", ".join(f"{WHATS[one.what]} {one.ratio:g}" for one in found)

    def learnt_words(self) -> str:
        """What new classes begin with of her own seconds, in a line; "" for nothing."""
        own = begun_with(ALL)
        parts = [
            f"{words} {own[what]:g} times as long as usual" for what, words in WHATS.items() if what in own
        ]
        return f"New classes begin with your own seconds: {', '.join(parts)}." if parts else ""


def read_series(text: str) -> tuple[str, int, int]:
    """Title, weeks and classes a week of a series as typed. Raises Problem for what can't be one."""
    found = _SERIES.fullmatch(text.strip())
    if (
        found is None
        or not 1 <= int(found["weeks"]) <= MOST_WEEKS
        or not 1 <= int(found["each"]) <= MOST_EACH
    ):
        raise Problem(
            f"{text.strip() or 'Nothing'} can't be read as a series.", "the shelf",
            "Write it as: Hips in spring, 4 weeks of 3.",
        )  # fmt: skip
    return found["title"].strip(), int(found["weeks"]), int(found["each"])


def told_series(text: str) -> str:
    """What is meant by it, as it is typed."""
    try:
        title, weeks, each = read_series(text)
    except Problem:
        return "Its title and how often: Hips in spring, 4 weeks of 3."
    return f"{title}: {weeks * each} classes, {each} a week."
