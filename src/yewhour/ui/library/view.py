"""The library: read every movement, change one, add one's own; both sides' lines beside it."""

from __future__ import annotations

from html import escape
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QComboBox,
    QDialog,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPlainTextEdit,
    QSpinBox,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.plan.find import Finder
from yewhour.core.plan.movement import KINDS, Behaviour, Movement
from yewhour.core.plan.purpose import LINE_PURPOSES
from yewhour.core.problem import Problem
from yewhour.store.own import (
    checked,
    forget_own,
    id_for,
    is_own,
    lines_text,
    read_lines,
    spoken_on,
    table_of,
    write_own,
)
from yewhour.store.terms import load_terms
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.chips import Chips
from yewhour.ui.kit.controls import button, calm, label, page, row
from yewhour.ui.kit.theme import Theme, scale

NEW: dict[str, Any] = {
    "name": "New movement", "kind": "hold", "sides": "both", "dose": [3, 5, 8], "effort": 2,
    "call": "Come into {name}.",
}  # fmt: skip


class LibraryView(QDialog):
    """The dialog. `changed` when the library on disk is another."""

    changed = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.theme = theme
        self.terms = load_terms(session.words.positions)
        self._finder = Finder(session.words.library, session.words.positions)
        self._table: dict[str, Any] = {}
        self._id = ""
        self._showing = False
        self._shown: object = None
        self._warned = False
        self.setWindowTitle("The library of movements")
        self.resize(round(1120 * min(1.2, scale())), round(720 * min(1.2, scale())))
        self.search = QLineEdit()
        self.search.setPlaceholderText("Find a movement")
        self.search.setAccessibleName("Find a movement")
        self.search.textChanged.connect(self.fill)
        self.list = QListWidget()
        self.list.setAccessibleName("Movements")
        self.list.currentItemChanged.connect(self._choose)
        left, left_side = QVBoxLayout(), QWidget()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.search)
        left.addWidget(self.list, 1)
        left.addWidget(button("A new movement", self.new))
        left_side.setLayout(left)
        left_side.setFixedWidth(round(250 * scale()))
        self._form()
        self.preview = QTextBrowser()
        self.preview.setAccessibleName("What is said on each side")
        self.preview.setMinimumWidth(round(260 * scale()))
        whole = QHBoxLayout()
        whole.addWidget(left_side)
        whole.addWidget(self.area, 1)
        whole.addWidget(self.preview)
        self.said = label("", "soft")
        self.keep_button = button("Keep it as mine", self.keep, "Written to your own movements.", "accent")
        self.forget_button = button("As it ships", self.forget, "Takes your own version out.")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addLayout(whole, 1)
        layout.addWidget(self.said)
        layout.addLayout(row(self.keep_button, self.forget_button, button("Close", self.accept)))
        self.fill()

    def _form(self) -> None:
        self.area, body = page()
        form, box = QFormLayout(), QWidget()
        form.setFieldGrowthPolicy(QFormLayout.FieldGrowthPolicy.ExpandingFieldsGrow)
        self.name, self.traditional = QLineEdit(), QLineEdit()
        self.kind, self.sides, self.start, self.end = QComboBox(), QComboBox(), QComboBox(), QComboBox()
        self.kind.addItems(list(KINDS))
        self.sides.addItems(list(Behaviour.__args__))  # type: ignore[attr-defined]
        for combo in (self.start, self.end):
            combo.setEditable(True)
            combo.addItems(["", *self.terms.positions])
        self.dose = [QSpinBox() for _ in range(3)]
        for spin in self.dose:
            spin.setRange(1, 3600)
            calm(spin)
        self.effort = QSpinBox()
        self.effort.setRange(0, 5)
        self.cautions = Chips(
            "Matters for", [(k, one.name, one.about) for k, one in self.terms.cautions.items()]
        )
        self.props = Chips("Props", [(k, words, "") for k, words in self.terms.props.items()])
        self.lines = QPlainTextEdit()
        self.lines.setMinimumHeight(round(190 * scale()))
        for words, widget in (
            ("Name", self.name), ("Traditional name", self.traditional), ("Kind", self.kind),
            ("Sides", self.sides), ("Starts in", self.start), ("Ends in", self.end),
            ("Effort, 0 to 5", self.effort), ("Matters for", self.cautions), ("Props", self.props),
        ):  # fmt: skip
            widget.setAccessibleName(words)
            form.addRow(words, widget)
            if isinstance(widget, QComboBox | QSpinBox):
                calm(widget)
        doses = QWidget()
        doses.setLayout(row(*self.dose))
        for spin, words in zip(self.dose, ("least", "preferred", "most"), strict=True):
            spin.setAccessibleName(f"Dose, {words}")
        form.insertRow(4, "Least, preferred, most", doses)
        box.setLayout(form)
        body.addWidget(box)
        body.addWidget(label("Lines: what for, a colon, the wordings from full to bare with | between. "
                             "{side} and {other} are filled for each side.", "soft"))  # fmt: skip
        self.lines.setAccessibleName("Lines")
        body.addWidget(self.lines, 1)
        self.lines.textChanged.connect(self._check)
        for line in (self.name, self.traditional):
            line.textChanged.connect(lambda _: self._check())
        for combo in (self.kind, self.sides, self.start, self.end):
            combo.currentTextChanged.connect(lambda _: self._check())
        for spin in (*self.dose, self.effort):
            spin.valueChanged.connect(lambda _: self._check())
        for chips in (self.cautions, self.props):
            chips.changed.connect(lambda _: self._check())

    def fill(self) -> None:
        """Lists what fits the search, in the order of names without one."""
        typed = self.search.text()
        hits, _ = self._finder.find(typed, most=500)
        movements = [hit.movement for hit in hits]
        if not typed:
            movements.sort(key=lambda movement: movement.name)
        self.list.clear()
        for movement in movements:
            item = QListWidgetItem(movement.name)
            item.setData(Qt.ItemDataRole.UserRole, movement.id)
            self.list.addItem(item)
        if movements:
            self.list.setCurrentRow(0)

    def _choose(self, item: QListWidgetItem | None, before: QListWidgetItem | None = None) -> None:
        if item is None:
            return
        if not self._left():
            self.list.blockSignals(True)  # back to what can't be kept yet
            self.list.setCurrentItem(before or item)
            self.list.blockSignals(False)
            return
        movement = self._finder.library[item.data(Qt.ItemDataRole.UserRole)]
        try:
            self._show(movement.id, table_of(movement))
        except Problem as problem:
            self.said.setText(str(problem))
        self.forget_button.setEnabled(is_own(movement))

    def choose(self, movement: str) -> None:
        """Shows one movement."""
        self.search.clear()
        for number in range(self.list.count()):
            if self.list.item(number).data(Qt.ItemDataRole.UserRole) == movement:
                self.list.setCurrentRow(number)

    def new(self) -> None:
        """Starts a movement of the teacher's own."""
        if not self._left():
            return
        self.list.setCurrentRow(-1)
        self._show("", dict(NEW))
        self.forget_button.setEnabled(False)
        self.name.setFocus()
        self.name.selectAll()

    def _show(self, name: str, table: dict[str, Any]) -> None:
        self._id, self._table, self._showing = name, table, True
        self.name.setText(table.get("name", ""))
        self.traditional.setText(table.get("traditional", ""))
        for combo, key, usual in ((self.kind, "kind", "hold"), (self.sides, "sides", "both"),
                                  (self.start, "start", ""), (self.end, "end", "")):  # fmt: skip
            combo.setCurrentText(table.get(key, usual))
        for spin, value in zip(self.dose, table.get("dose", (1, 1, 1)), strict=True):
            spin.setValue(value)
        self.effort.setValue(table.get("effort", 0))
        self.cautions.set_chosen(table.get("cautions", ()))
        self.props.set_chosen(table.get("props", ()))
        self.lines.setPlainText(lines_text(table))
        self._showing = False
        self._shown = self._form_now()
        self._check()

    def _form_now(self) -> object:
        """What is in the form, to see whether it was changed."""
        try:
            return self.table()
        except Problem:
            return self.lines.toPlainText()

    def _left(self) -> bool:
        """Keeps what was changed, for one goes elsewhere; False when it can't be kept as it is."""
        if self._shown is None or self._form_now() == self._shown:
            return True
        try:
            write_own(self._name(), self.table(), self.terms)
        except (Problem, OSError) as problem:
            self.said.setText(f"This can't be kept yet. {problem}")
            return False
        self._shown = None
        self.session.reload_words()
        self._finder = Finder(self.session.words.library, self.session.words.positions)
        self.changed.emit()
        return True

    def done(self, result: int) -> None:
        """Closes, with what was changed kept; what can't be is said once, and let go of the second time."""
        if self._left() or self._warned:
            super().done(result)
        self._warned = True

    def table(self) -> dict[str, Any]:
        """The movement as the form has it, with what the form does not show. Raises Problem for its lines."""
        kept = {key: value for key, value in self._table.items() if key not in LINE_PURPOSES}
        table: dict[str, Any] = {
            **kept, "name": self.name.text().strip(), "traditional": self.traditional.text().strip(),
            "kind": self.kind.currentText(), "sides": self.sides.currentText(),
            "start": self.start.currentText(),
            "end": self.end.currentText(), "effort": self.effort.value(),
            "dose": [spin.value() for spin in self.dose],
            "cautions": [key for key, chip in self.cautions.chips.items() if chip.isChecked()],
            "props": [key for key, chip in self.props.chips.items() if chip.isChecked()],
        }  # fmt: skip
        return {
            **{key: value for key, value in table.items() if value not in ("", [])},
            **read_lines(self.lines.toPlainText()),
        }

    def _name(self) -> str:
        return self._id or id_for(self.name.text())

    def _check(self) -> None:
        """Shows what is said on both sides, or what is wrong."""
        if self._showing:
            return
        self._warned = False
        try:
            movement = checked(self._name(), self.table(), self.terms)
        except Problem as problem:
            self.said.setText(f"{problem.what} {problem.do}")
            self.keep_button.setEnabled(False)
            return
        self.said.setText("")
        self.keep_button.setEnabled(True)
        self._preview(movement)

    def _preview(self, movement: Movement) -> None:
        sides = ("right", "left") if movement.sides == "one" else ("both",)
        parts = []
        for side in sides:
            colour = {"right": self.theme.right, "left": self.theme.left}.get(side, self.theme.both)
            parts.append(f'<h3 style="color:{colour}">{side.capitalize()}</h3>')
            parts += [
                f'<p>{escape(text)}<br/><span style="color:{self.theme.soft}">{purpose}</span></p>'
                for purpose, text in spoken_on(movement, side, self._finder.library)
            ]
        self.preview.setHtml("".join(parts))

    def keep(self) -> None:
        """Writes it to the teacher's own movements."""
        name = self._name()
        if not self._id and name in self._finder.library:
            self.said.setText("There is a movement with this name already. Give yours another.")
            return
        try:
            write_own(name, self.table(), self.terms)
        except (Problem, OSError) as problem:
            self.said.setText(str(problem))
            return
        self._shown = None
        self._reload(name)
        self.said.setText(f"Kept: {self.name.text()}.")

    def forget(self) -> None:
        """Takes the teacher's own version out."""
        try:
            forget_own(self._id)
        except (Problem, OSError) as problem:
            self.said.setText(str(problem))
            return
        self._shown = None
        self._reload(self._id)

    def _reload(self, name: str) -> None:
        self.session.reload_words()
        self._finder = Finder(self.session.words.library, self.session.words.positions)
        self.changed.emit()
        self.fill()
        self.choose(name)
