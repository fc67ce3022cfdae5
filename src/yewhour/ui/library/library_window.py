"""The library: every movement on a plate of its own, changed there, and hers kept over those that ship."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from yewhour.content.paths import demo_classes
from yewhour.content.terms import load_terms
from yewhour.core.library.movement import Movement
from yewhour.core.library.names import listed
from yewhour.core.outline.movement_search import MovementSearch
from yewhour.core.problem import Problem
from yewhour.state.classes.movement_uses import MovementUses, movements_of, uses_in
from yewhour.state.classes.own_movements import (
    forget_own,
    id_for,
    is_own,
    ships,
    table_of,
    write_own,
)
from yewhour.state.settings import recent_classes
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import button, label, row
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.library.plate import Plate

AS_IT_SHIPS = "As it came"
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
        self.terms = load_terms(session.teaching_data.positions)
        self._finder = MovementSearch(session.teaching_data.library, session.teaching_data.positions)
        self._uses: MovementUses | None = None
        self._was: dict[str, Any] | None = None  # the table as it was shown
        self._warned = False
        self.setWindowTitle("The library of movements")
        self.resize(round(1120 * min(1.2, scale())), round(740 * min(1.2, scale())))
        self.search = QLineEdit()
        self.search.setPlaceholderText("Find a movement")
        self.search.setAccessibleName("Find a movement")
        self.search.textChanged.connect(self.fill)
        self.list = QListWidget()
        self.list.setAccessibleName("Movements")
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentItemChanged.connect(self._choose)
        left, left_side = QVBoxLayout(), QWidget()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.search)
        left.addWidget(self.list, 1)
        left.addWidget(button("A new movement", lambda: self.new()))
        left_side.setLayout(left)
        left_side.setFixedWidth(round(250 * min(1.3, scale())))
        self.plate = Plate(self.terms, lambda: self.theme)
        self.plate.changed.connect(self._check)
        self.plate.wanted.connect(self.choose)
        whole = QHBoxLayout()
        whole.addWidget(left_side)
        whole.addWidget(self.plate, 1)
        self.said = label("", "soft")
        self.keep_button = button("Keep it as mine", self.keep, "Written to your own movements.", "accent")
        self.forget_button = button(AS_IT_SHIPS, self.forget, "Takes your own version out.")
        self.back_button = button("Bring it back", self.bring_back, "As it was before you took it out.")
        self.back_button.hide()
        self._taken: tuple[str, dict[str, Any]] | None = None  # what was taken out last
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addLayout(whole, 1)
        layout.addWidget(self.said)
        close = button("Close", self.accept)
        layout.addLayout(row(self.keep_button, self.forget_button, self.back_button, close))
        self.fill()
        chosen = session.segment(session.selected)
        if chosen is not None:
            self.choose(chosen.use.movement.id)
        QTimer.singleShot(0, self, self._look_up_uses)

    # --- the list -----------------------------------------------------------------------------------------

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
        self.forget_button.setText(
            AS_IT_SHIPS if ships(movement.id) or not is_own(movement) else "Take it away"
        )

    def choose(self, movement: str) -> None:
        """Shows one movement."""
        if self.search.text():
            self.search.clear()
        for number in range(self.list.count()):
            if self.list.item(number).data(Qt.ItemDataRole.UserRole) == movement:
                self.list.setCurrentRow(number)
                self.list.scrollToItem(self.list.item(number), QListWidget.ScrollHint.PositionAtCenter)

    def new(self, name: str = "") -> None:
        """Starts a movement of the teacher's own, by this name if she gave one."""
        if not self._left():
            return
        self.list.setCurrentRow(-1)
        self._show("", {**NEW, "name": name[:1].upper() + name[1:]} if name else dict(NEW))
        self.forget_button.setEnabled(False)
        self.plate.name.setFocus()
        self.plate.name.selectAll()

    # --- the plate ----------------------------------------------------------------------------------------

    def _show(self, name: str, table: dict[str, Any]) -> None:
        self.plate.show_movement(name, table, self._show_beside)
        self._was = dict(table)
        self._check()

    def _show_beside(self, movement: Movement) -> None:
        self.plate.beside.show_for(movement, self._finder.library, {movement.id: self._used_in(movement)})

    def _used_in(self, movement: Movement) -> list[str]:
        """The classes that a movement is in, this one first."""
        plan, words = self.session.plan, self.session.teaching_data
        titles = list((self._uses or {}).get(movement.id, []))
        if plan is not None and movement.id in movements_of(plan, words.blocks):
            titles = ["This class", *(title for title in titles if title != plan.brief.title)]
        return titles

    def _look_up_uses(self) -> None:
        """Reads the classes there are, once the plate is on screen."""
        self._uses = uses_in([*recent_classes(), *demo_classes()], self.session.teaching_data.blocks)
        movement = self._finder.library.get(self.plate.id)
        if movement is not None:
            self._show_beside(movement)

    def _check(self) -> None:
        """Whether it can be kept as it is."""
        self._warned = False
        new = self.plate.table != self._was or not self.plate.id
        self.keep_button.setEnabled(self.plate.sound and new)
        self.said.setText("" if self.plate.sound else f"This can't be kept yet. {self.plate.trouble}")

    # --- keeping ------------------------------------------------------------------------------------------

    def _left(self) -> bool:
        """Keeps what was changed, for one goes elsewhere; False when it can't be kept as it is."""
        plate = self.plate
        if self._was is None or (plate.sound and plate.table == self._was):
            return True
        if not plate.sound:
            self._check()
            return False
        try:
            self._write()
        except (Problem, OSError) as problem:
            self.said.setText(f"This can't be kept yet. {problem}")
            return False
        self._was = None
        self._read_again()
        return True

    def _write(self) -> Movement:
        """Puts the plate's movement into her file. Raises Problem."""
        name, table = self._name(), self.plate.table
        title = f"Keep {table['name']} as yours"
        return self.session.change_library(title, name, lambda: write_own(name, table, self.terms))

    def _name(self) -> str:
        return self.plate.id or id_for(self.plate.table["name"])

    def done(self, result: int) -> None:
        """Closes, with what was changed kept; what can't be is said once, and let go of the second time."""
        warned = self._warned
        if self._left() or warned:
            super().done(result)
        self._warned = True

    def keep(self) -> None:
        """Writes it to the teacher's own movements."""
        name = self._name()
        if not self.plate.id and name in self._finder.library:
            self.said.setText("There is a movement with this name already. Give yours another.")
            return
        try:
            kept = self._write()
        except (Problem, OSError) as problem:
            self.said.setText(str(problem))
            return
        self._go_on(name)
        self.said.setText(f"Kept: {kept.name}.")

    def forget(self) -> None:
        """Takes the teacher's own version out, says where it is used, and offers it back."""
        name = self.plate.id
        movement = self._finder.library[name]
        try:
            table = table_of(movement)
            title = f"{movement.name} as it came" if ships(name) else f"Take away {movement.name}"
            self.session.change_library(title, name, lambda: forget_own(name))
        except (Problem, OSError) as problem:
            self.said.setText(str(problem))
            return
        self._taken = (name, dict(table))
        used = self._used_in(movement)
        self._go_on(name)
        if ships(name):
            self.said.setText(f"{movement.name} is as it came.")
        else:
            where = f" It is in {listed(used)}: its place there is kept." if used else ""
            self.said.setText(f"{movement.name} is taken away.{where}")
        self.back_button.show()

    def bring_back(self) -> None:
        """Puts what was taken out last back as it was."""
        if self._taken is None:
            return
        name, table = self._taken
        try:
            self.session.change_library(
                f"Bring {table['name']} back", name, lambda: write_own(name, table, self.terms)
            )
        except (Problem, OSError) as problem:
            self.said.setText(str(problem))
            return
        self._taken = None
        self.back_button.hide()
        self._go_on(name)
        self.said.setText(f"{self._finder.library[name].name} is back as it was.")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Undo) and self._taken is not None:
            self.bring_back()
        else:
            super().keyPressEvent(event)

    def _go_on(self, name: str) -> None:
        self._was = None
        self._read_again()
        self.fill()
        self.choose(name)

    def _read_again(self) -> None:
        self._finder = MovementSearch(
            self.session.teaching_data.library, self.session.teaching_data.positions
        )
        self.changed.emit()
