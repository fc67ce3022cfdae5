"""The plate of a movement: read as a page, and changed where it stands.

What is changed is tried at once in the last sound table; what can't be is told beside its field, and waits.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QLabel, QLineEdit, QVBoxLayout, QWidget

from yewhour.content.terms import Terms
from yewhour.core.library.movement import Movement
from yewhour.core.problem import Problem
from yewhour.core.sides import Side
from yewhour.state.classes.own_movements import checked, id_for
from yewhour.ui.kit.controls.chips import Chips, OneOf
from yewhour.ui.kit.controls.controls import label, page, quiet
from yewhour.ui.kit.controls.editable_sentence import EditableSentence
from yewhour.ui.kit.controls.field_keys import with_field_keys
from yewhour.ui.kit.controls.fields import prompted, spin_box
from yewhour.ui.kit.theme import Theme
from yewhour.ui.library.figure_panel import FigurePanel
from yewhour.ui.library.line_table import LineTable
from yewhour.ui.library.plate_words import (
    CARD_WORDS,
    EFFORT_WORDS,
    KIND_WORDS,
    RHYTHMIC,
    SENTENCE,
    SIDE_WORDS,
    USUAL_RHYTHM,
    plate_words,
    position_words,
    positions_for,
    talk_with,
    wordings_of,
)
from yewhour.ui.library.relations import Relations

IN_ORDER = "From the least to the most: the one by itself lies between them."


class Plate(QWidget):
    """The page. changed: something is other than it was. wanted: another movement is to be shown."""

    changed = Signal()
    wanted = Signal(str)

    def __init__(self, terms: Terms, theme: Callable[[], Theme]) -> None:
        super().__init__()
        self.terms = terms
        self.id = ""
        self.table: dict[str, Any] = {}
        self._refused: dict[str, Any] = {}  # field -> what was put in and can't be
        self._beat = ""  # of the card, that was written last
        self._putting = False
        self.area, body = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.area)
        self.faults: dict[str, QLabel] = {}
        self.name = self._line("Name", "name", "plate", "What it is called")
        self.traditional = self._line("Traditional name", "traditional", "plate-2", "Its traditional name")
        self.also = label("", "soft")
        for widget in (self.name, self._fault("name"), self.traditional, self.also):
            body.addWidget(widget)
        self.figure = FigurePanel(theme())
        self.figure.changed.connect(self._pulled)
        body.addWidget(self.figure)
        self.editor = EditableSentence("The movement", SENTENCE, theme(), self.area)
        body.addWidget(self.editor)
        self._panels()
        body.addWidget(label("What is said", "heading"))
        self.lines = LineTable(theme)
        self.lines.changed.connect(self._lines_written)
        body.addWidget(self.lines)
        body.addWidget(self._fault("lines"))
        self.beside = Relations(terms)
        self.beside.wanted.connect(self.wanted)
        body.addWidget(self.beside)
        body.addStretch(1)

    # --- its parts ----------------------------------------------------------------------------------------

    def _line(self, name: str, field: str, style: str, prompt: str) -> QLineEdit:
        entry = with_field_keys(QLineEdit())
        entry.setObjectName(style)
        entry.setAccessibleName(name)
        entry.setPlaceholderText(prompt)
        entry.setMaxLength(120)
        entry.textEdited.connect(lambda text: self.put_in(field, text.strip()))
        return entry

    def _fault(self, field: str) -> QLabel:
        fault = self.faults[field] = label("", "fault")
        fault.hide()
        return fault

    def _one(self, key: str, title: str, options: list[tuple[str, str, str]]) -> OneOf:
        choice = OneOf(title, options)
        choice.chosen.connect(lambda chosen: self.put_in(key, chosen))
        return choice

    def _panels(self) -> None:
        editor = self.editor
        self.kind = self._one("kind", "Kind", [(k, w.capitalize(), a) for k, (w, a) in KIND_WORDS.items()])
        self.rhythm = with_field_keys(QLineEdit())
        self.rhythm.setAccessibleName("One of them")
        self.rhythm.textEdited.connect(lambda text: self.put_in("rhythm", text.strip()))
        self._one_of_them = QWidget()
        self._one_of_them.setLayout(prompted("One of them", self.rhythm))
        editor.panel(
            "kind", self.kind, self.kind, self._one_of_them, self._fault("kind"), self._fault("rhythm")
        )
        self.sides = self._one(
            "sides", "Sides", [(key, words.capitalize(), about) for key, (words, about) in SIDE_WORDS.items()]
        )
        editor.panel("sides", self.sides, self.sides, self._fault("sides"))
        self.places: dict[str, OneOf] = {}
        for key, title, usual in (("start", "Starts in", "anywhere"), ("end", "Ends in", "where it began")):
            named = {
                place: position_words(place, usual)
                for sides in ("one", "none")
                for place in ("", *positions_for(self.terms, sides, ""))
            }
            self.places[key] = self._one(key, title, [
                (place, words[0].upper() + words[1:], "") for place, words in named.items()])  # fmt: skip
            editor.panel(key, self.places[key], self.places[key], self._fault(key))
        self.dose = [spin_box(1, 3600, 1, 0, "", name) for name in ("least", "by itself", "most")]
        for spin in self.dose:
            spin.valueChanged.connect(
                lambda _: self.put_in("dose", [round(one.value()) for one in self.dose])
            )
        least, best, most = self.dose
        numbers = prompted("How much", quiet("least"), least, quiet("by itself"), best, quiet("most"), most)
        editor.panel("dose", best, numbers, self._fault("dose"))
        self.effort = OneOf("Effort", [(str(n), w.capitalize(), "") for n, w in enumerate(EFFORT_WORDS)])
        self.effort.chosen.connect(lambda chosen: self.put_in("effort", int(chosen)))
        editor.panel("effort", self.effort, self.effort)
        self.cautions = self._many("cautions", "Matters for", [
            (key, one.name, one.about) for key, one in self.terms.cautions.items()])  # fmt: skip
        self.props = self._many(
            "props", "Props", [(k, w.capitalize(), "") for k, w in self.terms.props.items()]
        )

    def _dosed(self) -> None:
        self.put_in("dose", [round(spin.value()) for spin in self.dose])

    def _many(self, key: str, title: str, options: list[tuple[str, str, str]]) -> Chips:
        chips = Chips(title, options)
        chips.changed.connect(lambda keys: self.put_in(key, list(keys)))
        self.editor.panel(key, chips, chips)
        return chips

    # --- showing ------------------------------------------------------------------------------------------

    def show_movement(self, name: str, table: dict[str, Any], beside: Callable[[Movement], None]) -> None:
        """Shows a movement as its table has it. Raises Problem when the table is none."""
        movement = checked(name or id_for(table["name"]), table, self.terms)
        self.id, self.table, self._refused = name, dict(table), {}
        self._putting = True
        for fault in self.faults.values():
            fault.hide()
        self.editor.close_panel()
        self.name.setText(movement.name)
        self.traditional.setText(movement.traditional)
        above = {movement.name.lower(), movement.traditional.lower()}
        also = [one for one in dict.fromkeys(movement.aliases) if one.lower() not in above]
        self.also.setText(f"Also: {', '.join(also)}" if also else "")
        self.also.setVisible(bool(movement.aliases))
        self._show_lines(movement)
        self.figure.show_movement(movement, anew=True)
        beside(movement)
        self._refresh(movement)
        self._putting = False
        self.area.verticalScrollBar().setValue(0)

    def _show_lines(self, movement: Movement) -> None:
        sides: tuple[Side, ...] = ("right", "left") if movement.sides == "one" else ("both",)
        self.lines.put(self.table, sides, movement.name)

    def _refresh(self, movement: Movement) -> None:
        """The sentence and what is chosen behind its words."""
        self.editor.sentence.put(plate_words(movement, self.terms))
        self.kind.put(movement.kind)
        if not self.rhythm.hasFocus():  # what is being typed is left alone
            self.rhythm.setText(str(self.table.get("rhythm", "")))
        self._one_of_them.setVisible(movement.behaviour.rhythmic)
        self.sides.put(movement.sides)
        for key, chips in self.places.items():
            now = getattr(movement, key)
            chips.put(now)
            chips.offer(("", *positions_for(self.terms, movement.sides, now)))
        for spin, value in zip(self.dose, movement.dose, strict=True):
            spin.blockSignals(True)
            spin.setValue(value)
            spin.blockSignals(False)
        self.effort.put(str(movement.effort))
        self.cautions.set_chosen(movement.cautions)
        self.props.set_chosen(movement.props)

    # --- changing -----------------------------------------------------------------------------------------

    @property
    def sound(self) -> bool:
        """Whether all that was put in can be kept."""
        return not self._refused

    @property
    def trouble(self) -> str:
        """What keeps it from being kept, or ""."""
        return next((self.faults[self._beside(field)].text() for field in self._refused), "")

    def put_in(self, field: str, value: Any) -> None:
        """Tries another value for a field; what was refused before is tried again with it."""
        if self._putting:
            return
        if field == "kind" and value in RHYTHMIC and not self.table.get("rhythm"):
            self.table["rhythm"] = USUAL_RHYTHM
        for tried, wanted in {**self._refused, field: value}.items():
            self._try(tried, wanted)
        self.changed.emit()

    def _try(self, field: str, value: Any) -> None:
        empty = value in ("", []) and field != "name"
        table = {key: old for key, old in self.table.items() if key != field}
        if not empty:
            table[field] = value
        try:
            if field == "name" and not value:
                raise Problem("A movement needs a name.", do="Give it one.")
            movement = checked(self.id or id_for(table["name"]), table, self.terms)
        except Problem as problem:
            self._refused[field] = value
            self._tell(field, problem)
            return
        self.table = table
        self._refused.pop(field, None)
        self._tell(field, None)
        self._putting = True
        self._refresh(movement)
        if field in ("sides", "name"):
            self._show_lines(movement)
        if field == "start":
            self.figure.show_movement(movement, anew=True)
        self._putting = False

    def _pulled(self, lines: list[str]) -> None:
        """The figures that were pulled into another shape, or none: those of the position."""
        self.put_in("figure", lines)
        movement = checked(self.id or id_for(self.table["name"]), self.table, self.terms)
        self.figure.show_movement(movement, anew=not lines)

    def _beside(self, field: str) -> str:
        return field if field in self.faults else "lines"

    def _tell(self, field: str, problem: Problem | None) -> None:
        words = ""
        if problem is not None:
            what = problem.what.partition(": ")[2] or problem.what
            words = IN_ORDER if field == "dose" else f"{what[:1].upper()}{what[1:]} {problem.do}"
        rows = self.lines.of(self._beat if field == "talk" else field)
        for row in rows:
            row.tell(words if row.is_open else "")
        fault = self.faults[self._beside(field)]
        fault.setText(words)
        fault.setVisible(bool(words) and not any(not row.fault.isHidden() for row in rows))

    def _lines_written(self, purpose: str, texts: list[str]) -> None:
        if purpose in CARD_WORDS:
            self._beat = purpose
            self.put_in("talk", talk_with(self.table.get("talk", {}), purpose, texts))
            return
        before = wordings_of(self.table.get(purpose))
        if texts != before:
            self.put_in(purpose, texts[0] if len(texts) == 1 else texts)
        elif purpose in self._refused:
            self.put_in(purpose, self.table[purpose])
