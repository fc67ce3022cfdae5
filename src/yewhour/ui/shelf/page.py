"""The shelf: what goes out this week and what is still to be recorded, the season, and series."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import Path

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import QHideEvent, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QHBoxLayout, QStackedWidget, QVBoxLayout, QWidget

from yewhour.content.shelf_wording import load_shelf_wording
from yewhour.content.terms import load_terms
from yewhour.core.problem import Problem
from yewhour.core.shelf.records import Outing, week_of
from yewhour.core.shelf.search import ShelfIndex, search
from yewhour.core.shelf.weekly_notes import ShelfNote, due, shelf_notes
from yewhour.core.shelf.weeks import given_classes, months_of, weeks_of
from yewhour.files.atomic_files import write_whole
from yewhour.state.classes.unsaved_work import unsaved_work
from yewhour.state.logbook.days import TypedDay, month_and_year, month_name
from yewhour.state.logbook.outings import written_out
from yewhour.state.logbook.shelving import new_id
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    emptied,
    label,
    page,
)
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.shelf.board import Spot, found_shelves, shelf_boards
from yewhour.ui.shelf.boards import Boards
from yewhour.ui.shelf.class_details import ClassDetails
from yewhour.ui.shelf.head import ShelfHead
from yewhour.ui.shelf.making import Making
from yewhour.ui.shelf.season import Season, months_table
from yewhour.ui.shelf.series_page import SeriesLadders
from yewhour.ui.shelf.shelf_session import ShelfSession

SEASON = 26  # weeks
MOST_NOTICED = 4
WARM_MS = 100
AHEAD_DAYS = 60  # that are written out
VIEWS = (("Weeks", "What goes out, and what is to be recorded."),
         ("Season", "What the weeks worked and opened."),
         ("Series", "Classes that build on each other."))  # fmt: skip
NO_SEASON = (
    "No week of the last ones had a class. Give a class a day among the weeks, and the season shows what "
    "each week worked and opened, its styles, its effort, and what came back."
)


class ShelfPage(QWidget):
    """The station. Each signal is a wish of hers, for the window.

    opened: a class file is to be opened; to_record: and taken. begin: the way a class begins otherwise.
    folder_wanted: where it is to be written out. message, troubled: to be said. opens: a dialog.
    viewed: another view is shown.
    """

    opened = Signal(object)
    to_record = Signal(object)
    begin = Signal()
    folder_wanted = Signal()
    adopt_wanted = Signal()
    message = Signal(str)
    troubled = Signal(object)
    opens = Signal(object)
    find_wanted = Signal(str)
    viewed = Signal()

    def __init__(self, session: Session, shelving: ShelfSession, theme: Theme) -> None:
        super().__init__()
        self.session, self.shelving, self.theme = session, shelving, theme
        self.today = shelving.today()
        self.saying = load_shelf_wording()
        terms = load_terms(session.teaching_data.positions).areas
        self.areas = {one: name for one, name in terms.items() if one not in self.saying.quiet}
        self.terms = terms
        self.index = ShelfIndex(session.teaching_data.library, terms)
        self.making = Making(session, shelving, self)
        self._build()
        shelving.changed.connect(self._soon)
        shelving.troubled.connect(self.troubled)
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self.refresh)

    def _build(self) -> None:
        self.head = head = ShelfHead(VIEWS)
        self.promise, self.first, self.second = head.promise, head.first, head.second
        self.search, self.do_first, self.views = head.search, head.do_first, head.views
        head.first_wanted.connect(self._open_due)
        head.viewed.connect(self.show_view)
        head.begin.connect(self.begin)
        head.folder_wanted.connect(self.folder_wanted)
        head.adopt_wanted.connect(self.adopt_wanted)
        self.search.textChanged.connect(self._search)
        self.search.returnPressed.connect(self._to_first)
        self.boards = Boards(self.theme)
        self.boards.chosen.connect(self._show_beside)
        self.boards.wanted.connect(self._open_chosen)
        self.boards.moved.connect(self.move_to)
        self.boards.shifted.connect(self._shift)
        self.boards.dropped.connect(self._drop)
        self.season = Season(self.theme)
        season, self.season_body = page()
        self.season_words = QVBoxLayout()
        self.season_body.addLayout(self.season_words)
        self.season_body.addWidget(self.season)
        self.months = QVBoxLayout()
        self.season_body.addLayout(self.months)
        self.season_body.addStretch(1)
        self.courses = SeriesLadders(self.theme)
        self.courses.opened.connect(self.open_class)
        self.courses.begun.connect(self.making.next_in)
        self.courses.new_wanted.connect(self.making.ask_series)
        self.courses.put_in.connect(self._put_in)
        self.courses.dropped.connect(lambda name: self.shelving.drop("Let a series go", name))
        self.stack = QStackedWidget()
        for part in (self.boards, season, self.courses):
            self.stack.addWidget(part)
        self.beside = ClassDetails(self.shelving, self.session.teaching_data.library, self.theme, self.today)
        self.beside.areas = self.terms
        self.beside.opened.connect(self.open_class)
        self.beside.to_record.connect(lambda name: self._with_path(name, self.to_record.emit))
        self.beside.again.connect(self.making.again)
        self.beside.cut.connect(self.making.cut)
        self.beside.next_one.connect(self.making.next_one)
        self.beside.spoken.connect(self.making.ask_other)
        self.beside.found.connect(self.find_wanted)
        self.beside.last_state.connect(self.making.last_state)
        self.beside.planned.connect(self.plan)
        self.beside.troubled.connect(self.troubled)
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.stack, 1)
        below.addWidget(self.beside)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.head)
        whole.addLayout(below, 1)
        self.show_view(0)

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self.theme = theme
        for part in (self.boards, self.season):
            part.set_theme(theme)
        self.courses.theme = self.beside.theme = theme
        self._soon()

    @property
    def on_weeks(self) -> bool:
        """Whether the weeks are shown, in which classes can be moved."""
        return self.stack.currentIndex() == 0

    def leave(self) -> None:
        """Another station takes its place."""
        self.beside.keep_note()

    def enter(self) -> None:
        """The keys go to the shelf."""
        self.boards.setFocus()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.shelving.look()
        self.refresh()
        if self.boards.current is None:
            self._choose_due()
        QTimer.singleShot(WARM_MS, self, self._warm)

    def _warm(self) -> None:
        """Gets ready to search before anything is typed."""
        self.index.rows(self.shelving.shelf.classes)

    def hideEvent(self, event: QHideEvent) -> None:
        self.beside.keep_note()
        super().hideEvent(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._soon()

    def _soon(self) -> None:
        if self.isVisible():
            self._later.start(0)

    # --- showing ----------------------------------------------------------------------------------------

    def show_view(self, number: int) -> None:
        """The weeks, the season, or series."""
        self.stack.setCurrentIndex(number)
        for at, one in enumerate(self.views):
            one.setChecked(at == number)
        self.beside.setVisible(number == 0)
        self.viewed.emit()
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Shows the shelf as it is now."""
        self.today = self.beside.today = self.shelving.today()
        shelf = self.shelving.shelf
        weeks = weeks_of(given_classes(shelf), week_of(self.today) - SEASON + 1, week_of(self.today))
        self._due = due(shelf, self.today, self.saying)
        seen = shelf_notes(weeks, self.session.teaching_data.library, self.terms, self.saying, month_name)
        self._show_words(seen)
        view = self.stack.currentIndex()
        if view == 0:
            self._show_boards()
        elif view == 1:
            said = " ".join(one.words.lower() for one in seen)
            marked = frozenset(area for area, name in self.areas.items() if name.lower() in said)
            self.season.show_weeks(weeks, self.areas, marked)
            empty = not any(week.given for week in weeks)
            self.season.setVisible(not empty)
            if empty:
                self.season_words.insertWidget(0, label(NO_SEASON, "reading"))
            self._show_months(seen)
        else:
            spot = self.boards.current
            title = spot.shelved.sheet.title if spot is not None else ""
            self.courses.show_series(shelf, self.session.teaching_data.library, title)

    def _show_words(self, seen: list[ShelfNote]) -> None:
        """The first thing that is due, in large type; what the weeks show, below it."""
        kept = unsaved_work()
        made_up = "Made-up weeks of Saltmarsh Row; nothing here is kept. " if self.shelving.made_up else ""
        first = self._due[0].words if self._due else "Nothing is to go out this week or the next."
        self.first.setText(first)
        parts = [one.words for one in seen[:MOST_NOTICED]]
        if kept:
            parts.insert(0, f"{kept[0].about.title} was not saved; it waits under Begin a class.")
        self.second.setText(made_up + " ".join(parts))
        self.do_first.setVisible(bool(self._due))
        if self._due:
            self.do_first.setText("Record it" if self._due[0].code != "ready" else "Open it")

    def _show_boards(self) -> None:
        size, shelf = scale(), self.shelving.shelf
        width = float(self.boards.viewport().width())
        text = self.search.text().strip()
        if text:
            classes = search(self.index.rows(shelf.classes), text)
            title = "Found" if classes else "Nothing found"
            boards = found_shelves(title, classes, shelf, width, size)
        else:
            boards = shelf_boards(shelf, self.today, width, size)
        self.boards.show_shelves(boards, self.today)
        self._show_beside()

    def _to_first(self) -> None:
        """The first class that was found."""
        self.boards.choose(0)
        self.boards.setFocus()

    def _search(self) -> None:
        if self.stack.currentIndex() != 0:
            self.show_view(0)
        self._show_boards()

    def _show_beside(self) -> None:
        spot = self.boards.current
        outing = spot.outing if spot is not None else None
        if spot is not None:
            outing = self.shelving.shelf.outings.get(outing.id) if outing is not None else None
        self.beside.show_class(spot.shelved if spot is not None else None, outing)

    def _show_months(self, seen: list[ShelfNote]) -> None:
        emptied(self.season_words)
        for one in seen[MOST_NOTICED:]:
            self.season_words.addWidget(label(one.words))
        emptied(self.months)
        months = months_of(self.shelving.shelf, month_and_year)[-12:]
        if not months:
            return
        self.months.addWidget(label("Promised and recorded", "heading"))
        self.months.addWidget(months_table(months, self.making.learnt_of))
        learnt = self.making.learnt_words()
        if learnt:
            self.months.addWidget(label(learnt, "soft"))

    # --- deeds ------------------------------------------------------------------------------------------

    def _choose_due(self) -> None:
        if self._due:
            self.boards.choose_class(self._due[0].of, self._due[0].day)

    def _open_due(self) -> None:
        self._choose_due()
        if self._due:
            wish = self.to_record if self._due[0].code != "ready" else self.opened
            self._with_path(self._due[0].of, wish.emit)

    def _open_chosen(self) -> None:
        spot = self.boards.current
        if spot is not None:
            self.open_class(spot.shelved.id)

    def open_class(self, name: str) -> None:
        """Opens a class of the shelf."""
        self._with_path(name, self.opened.emit)

    def _with_path(self, name: str, do: object) -> None:
        path = self.shelving.path_of(name)
        if path is None:
            title = self.shelving.shelf.classes[name].sheet.title
            what = f"The file of {title} is not where it was, nor near by."
            self.troubled.emit(Problem(what, do="Find it, or begin with its last saved state, at the right."))
            return
        assert callable(do)
        do(path)

    def plan(self, name: str, wanted: Sequence[TypedDay]) -> None:
        """A class is to go out on a day, or on several; one act to undo."""
        outings = [Outing(new_id(), name, one.day, one.at, one.where) for one in wanted]
        many = f"Give it {len(outings)} days" if len(outings) > 1 else "Give it a day"
        self.shelving.do(many, *outings)
        self.refresh()
        self.boards.choose_class(name, wanted[0].day)

    def move_to(self, spot: Spot, day: int) -> None:
        """A class was let go over a day: it goes out then."""
        if spot.outing is None:
            self.plan(spot.shelved.id, (TypedDay(day, "", ""),))
        elif day != spot.outing.day:
            by = spot.outing.by + day - spot.outing.day if spot.outing.by else 0
            self.shelving.change("Move to another day", spot.outing.id, day=day, by=by)
            self.refresh()
            self.boards.choose_class(spot.shelved.id, day)

    def _shift(self, days: int) -> None:
        spot = self.boards.current
        if spot is not None and spot.outing is not None:
            self.move_to(spot, spot.outing.day + days)

    def _drop(self) -> None:
        spot = self.boards.current
        if spot is None:
            return
        if spot.outing is not None:
            self.shelving.drop("Take off this day", spot.outing.id)
            self.message.emit(f"{spot.shelved.sheet.title} does not go out then. Ctrl+Z takes it back.")
        else:
            self.shelving.drop("Off the shelf", spot.shelved.id)
            self.message.emit(
                f"{spot.shelved.sheet.title} is off the shelf; its file stays. Ctrl+Z: back again."
            )

    def _put_in(self, series: str) -> None:
        spot, there = self.boards.current, self.shelving.shelf.series.get(series)
        if spot is not None and there is not None:
            self.making.put_in(there, spot.shelved.id)

    def undo(self) -> None:
        """Takes back what was done last on the shelf."""
        self._say_moved(self.shelving.undo(), "Taken back")

    def redo(self) -> None:
        """Does it again."""
        self._say_moved(self.shelving.redo(), "Done again")

    def _say_moved(self, title: str, how: str) -> None:
        self.message.emit(f"{how}: {title}." if title else "Nothing to take back on the shelf.")

    def write_into(self, folder: Path) -> None:
        """Writes what goes out from this week on: a calendar and a table, and this week as a page."""
        contents = written_out(self.shelving.shelf, self.today, AHEAD_DAYS, datetime.now(UTC))
        try:
            for name, content in contents.items():
                write_whole(folder / name, content)
        except Problem as problem:
            self.troubled.emit(problem)
            return
        self.message.emit(f"Written into {folder}: {', '.join(contents)}.")

    def shut(self) -> None:
        """The window goes."""
        self.beside.keep_note()
