"""What is known of the class that is chosen on the shelf, and what can be done with it."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QLineEdit, QPlainTextEdit, QVBoxLayout, QWidget

from yewhour.core.lengths import show_length
from yewhour.core.library.movement import Library
from yewhour.core.library.names import listed
from yewhour.core.problem import Problem
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import Outing, ShelvedClass
from yewhour.core.shelf.search import main_areas
from yewhour.core.shelf.weekly_notes import record_by
from yewhour.state.classes.revisions import revisions_of
from yewhour.state.logbook.days import read_days, shown_date
from yewhour.ui.kit.controls.controls import (
    button,
    card,
    emptied,
    label,
    page,
    row,
    wrapped,
)
from yewhour.ui.kit.controls.kept_focus import kept_focus
from yewhour.ui.kit.figure_view import FigureStrip
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.shelf.shelf_session import ShelfSession

CUTS = (10, 20, 30, 45)  # minutes
WIDE = 330  # pixels at the usual text size
MOST_TAKES = 3
MOST_FIGURES, FIGURE_HIGH = 5, 52.0  # pixels


class ClassDetails(QWidget):
    """The panel. Each signal is a wish about the class that is chosen, by its id.

    planned: it is to go out on a day, as typed. troubled: a Problem to be told.
    """

    opened = Signal(str)
    to_record = Signal(str)
    again = Signal(str)
    cut = Signal(str, int)
    next_one = Signal(str)
    spoken = Signal(str)
    found = Signal(str)
    last_state = Signal(str)
    planned = Signal(str, object)
    troubled = Signal(object)

    def __init__(self, shelving: ShelfSession, library: Library, theme: Theme, today: int) -> None:
        super().__init__()
        self.shelving, self.library, self.theme, self.today = shelving, library, theme, today
        self.areas: dict[str, str] = {}
        self.field: QLineEdit | None = None
        self.name, self.outing = "", ""
        area, self.body = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)
        self.setFixedWidth(round(WIDE * min(1.2, scale())))
        self._note: QPlainTextEdit | None = None
        self._shown: object = self  # what the panel was made of

    def show_class(self, shelved: ShelvedClass | None, outing: Outing | None) -> None:
        """Another class, and the day of it that is meant."""
        there = self._known_of(shelved, outing)
        if there == self._shown:
            return  # what is being typed stays
        self.keep_note()
        self._shown = there
        self.name, self.outing = (shelved.id if shelved else ""), (outing.id if outing else "")
        self.setFixedWidth(round(WIDE * min(1.2, scale())))
        with kept_focus(self):
            self._fill(shelved)

    def _fill(self, shelved: ShelvedClass | None) -> None:
        emptied(self.body)
        self._note = None
        self.field = None
        if shelved is None:
            self.body.addWidget(label("Choose a class to see what is known of it.", "soft"))
            self.body.addStretch(1)
            return
        self._head(shelved)
        self._deeds(shelved)
        self._days(shelved)
        self._more(shelved)
        self._notes(shelved)
        self.body.addStretch(1)

    def _known_of(self, shelved: ShelvedClass | None, outing: Outing | None) -> object:
        """All that the panel shows."""
        if shelved is None:
            return None
        shelf, name = self.shelving.shelf, shelved.id
        days, takes = shelf.outings_of.get(name), shelf.takes_of.get(name)
        return shelved, outing, days, takes, self.today, self.shelving.path_of(name)

    def _head(self, shelved: ShelvedClass) -> None:
        sheet = shelved.sheet
        self.body.addWidget(label(sheet.title, "heading"))
        about = [show_length(sheet.length_s), sheet.kind, sheet.audience and f"for {sheet.audience}"]
        self.body.addWidget(label(", ".join(part for part in about if part), "soft"))
        self._figures(sheet)
        there = [self.areas.get(one, one) for one in main_areas(sheet)[:4]]
        if there:
            self.body.addWidget(label(f"Mostly {listed(there)}.", "soft"))
        origin = self.shelving.shelf.classes.get(shelved.cut_of)
        if origin is not None:
            words = f"A cut of {origin.sheet.title}, {show_length(origin.sheet.length_s)}."
            self.body.addWidget(label(words, "soft"))
        cuts = [one for one in self.shelving.shelf.classes.values() if one.cut_of == shelved.id]
        if cuts:
            parts = [
                button(
                    f"{one.sheet.length_s / 60:.0f} min", partial(self.opened.emit, one.id), one.sheet.title
                )
                for one in sorted(cuts, key=lambda one: one.sheet.length_s)
            ]
            self.body.addLayout(wrapped(label("Its cuts:", "soft"), *parts))
        place = self.shelving.book.place_of(shelved.id)
        states = len(revisions_of(Path(place.path))) if place is not None else 0
        if states > 1:
            self.body.addWidget(label(f"{states} saved states (Ctrl+Shift+V shows them).", "soft"))

    def _figures(self, sheet: ClassSheet) -> None:
        """What it is made of: its longest movements, in their order."""
        known = {
            name: length_s
            for name, length_s in sheet.movements.items()
            if name in self.library and not self.library[name].behaviour.bare
        }
        longest = sorted(known, key=lambda name: -known[name])[:MOST_FIGURES]
        strip = FigureStrip(self.theme, FIGURE_HIGH)
        strip.show_several([self.library[name] for name in known if name in longest], "Its movements, drawn")
        if strip.shown:
            self.body.addWidget(strip)

    def _deeds(self, shelved: ShelvedClass) -> None:
        name = shelved.id
        if self.shelving.path_of(name) is None:
            frame, layout = card("look")
            layout.addWidget(label("Its file is not where it was, nor near by."))
            layout.addLayout(
                wrapped(
                    button("Find it…", partial(self.found.emit, name)),
                    button("Its last saved state", partial(self.last_state.emit, name)),
                )
            )
            self.body.addWidget(frame)
            return
        self.body.addLayout(
            row(
                button("Open", partial(self.opened.emit, name), "The class, on its sprig (Enter).", "accent"),
                button("Record it", partial(self.to_record.emit, name), "Opens it and goes to the take."),
            )
        )

    def _days(self, shelved: ShelvedClass) -> None:
        shelf = self.shelving.shelf
        for one in shelf.outings_of.get(shelved.id, []):
            if one.id == self.outing or one.day >= self.today:
                self._day(one)
        field = QLineEdit()
        field.setPlaceholderText("Goes out: thu 18:30 the letter; every tue and thu 07:00")
        field.setAccessibleName("The day it goes out, its time, and where")
        field.returnPressed.connect(lambda: self._plan(shelved.id, field))
        self.field = field
        self.body.addWidget(field)

    def _plan(self, name: str, field: QLineEdit) -> None:
        try:
            given = read_days(field.text(), self.today)
        except Problem as problem:
            self.troubled.emit(problem)
            return
        field.clear()
        self.planned.emit(name, given)

    def _day(self, one: Outing) -> None:
        shelving, state = self.shelving, self.shelving.shelf.state_of(one, self.today)
        frame, layout = card("look" if state in ("planned", "late") else "")
        where = f", {one.where}" if one.where else ""
        layout.addWidget(label(f"{shown_date(one.day)}{f' {one.at}' if one.at else ''}{where}", "prompt"))
        said = {
            "planned": f"To be recorded by {shown_date(record_by(one))}.",
            "late": f"Not recorded; it was to be by {shown_date(record_by(one))}.",
            "recorded": "Recorded.",
            "out": "Out.",
        }[state]
        layout.addWidget(label(said))
        parts = []
        if state in ("planned", "late"):
            by = record_by(one)
            parts.append(button("A day sooner", lambda: shelving.change("Record sooner", one.id, by=by - 1)))
            parts.append(button("It is recorded", lambda: shelving.change("Recorded", one.id, recorded=True)))
        elif state == "recorded":
            parts.append(button("It is out", lambda: shelving.change("Out", one.id, out=True)))
        parts.append(button("Take off this day", lambda: shelving.drop("Take off this day", one.id)))
        layout.addLayout(wrapped(*parts))
        self.body.addWidget(frame)

    def _more(self, shelved: ShelvedClass) -> None:
        name = shelved.id
        takes = self.shelving.shelf.takes_of.get(name, [])
        for one in takes[-MOST_TAKES:]:
            off_s = one.length_s - one.promised_s
            message = (
                f"{abs(off_s):.0f} s {'over' if off_s > 0 else 'short'}" if abs(off_s) >= 1 else "as promised"
            )
            words = f"Recorded {shown_date(one.day)}: {show_length(round(one.length_s))}, {message}."
            self.body.addWidget(label(words, "soft"))
        self.body.addWidget(label("Make of it", "prompt"))
        cuts = [
            button(f"{minutes} min", partial(self.cut.emit, name, minutes), "A cut as a class of its own.")
            for minutes in CUTS
            if minutes * 60 < shelved.sheet.length_s - 30
        ]
        self.body.addLayout(
            wrapped(
                button("The same again", partial(self.again.emit, name), "A copy to change."),
                button("The next one", partial(self.next_one.emit, name), "Begins with what this one did."),
                *cuts,
            )
        )
        if any(other.id != name for other in self.shelving.shelf.classes.values()):
            words = "Name another at its end…"
            self.body.addWidget(
                button(words, partial(self.spoken.emit, name), "“If you have ten minutes more …”"), 0,
                Qt.AlignmentFlag.AlignLeft,
            )  # fmt: skip

    def _notes(self, shelved: ShelvedClass) -> None:
        self.body.addWidget(label("How it went", "prompt"))
        note = QPlainTextEdit(shelved.note)
        note.setAccessibleName("How it went")
        note.setTabChangesFocus(True)
        note.setFixedHeight(round(84 * scale()))
        self._note = note
        self.body.addWidget(note)

    def keep_note(self) -> None:
        """Keeps the note as it is typed."""
        shelved = self.shelving.shelf.classes.get(self.name)
        if self._note is None or shelved is None:
            return
        words = self._note.toPlainText().strip()
        if words != shelved.note:
            self.shelving.change("How it went", self.name, note=words)
