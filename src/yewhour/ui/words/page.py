"""Words: the script to read and to edit, with what can be done to the current line under it."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from yewhour.content.terms import load_terms_file
from yewhour.core.edits.line_edits import lines_with, replaced
from yewhour.core.problem import Problem
from yewhour.core.script.body_state import state_of
from yewhour.ui.desk.finding_cards import FixButton
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    Wrapping,
    button,
    emptied,
    label,
    row,
)
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.words.line_actions import LineActions
from yewhour.ui.words.rows import ScriptRow
from yewhour.ui.words.script_list import ScriptList

ROOM_FOR_ACTS = 320  # pixels of the page's height, at the usual text size


class WordsPage(QWidget):
    """The page."""

    message = Signal(str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("page")
        self.script = ScriptList(session, theme)
        self.line_actions = LineActions(session, self.script)
        self.find_field = QLineEdit()
        self.find_field.setPlaceholderText("Find words in the script")
        self.find_field.setAccessibleName("Find words")
        self.by = QLineEdit()
        self.by.setPlaceholderText("Say instead")
        self.by.setAccessibleName("Say instead")
        self.count = label("", "soft")
        self.count.setWordWrap(False)
        self.bar = QWidget()
        self.bar.setLayout(
            row(
                self.find_field, self.by, self.count, button("Next", self.find_next),
                button("Replace all", self.replace_all), button("Close", self.close_find), stretch=False,
            )
        )  # fmt: skip
        self.bar.layout().setContentsMargins(16, 8, 16, 4)  # type: ignore[union-attr]
        self.bar.setVisible(False)
        self.find_field.textChanged.connect(self._count)
        self.find_field.returnPressed.connect(self.find_next)
        self.by.returnPressed.connect(self.replace_all)
        self.reason = label("", "soft")
        self.acts = Wrapping()
        foot = QWidget()
        under = QVBoxLayout(foot)
        under.setContentsMargins(16, 6, 16, 8)
        under.setSpacing(4)
        under.addWidget(self.reason)
        self.holder = QWidget()
        self.holder.setLayout(self.acts)
        under.addWidget(self.holder)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addWidget(self.bar)
        layout.addWidget(self.script, 1)
        layout.addWidget(foot)
        self._acts_of: object = ()
        self.script.current_changed.connect(self._show_acts)
        self.script.delegate.typing.connect(self._show_other_side)

    def enter(self) -> None:
        """The keys go to the script."""
        self.script.setFocus()

    def leave(self) -> None:
        """Another station takes its place; every line is in the class already."""

    def shut(self) -> None:
        """The window closes; every line is in the class already."""

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.script.set_theme(theme)

    # --- what can be done to the current line ----------------------------------------------------

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Where there is little room the lines have it; what can be done is in the menu, and on its keys."""
        super().resizeEvent(event)
        self.holder.setVisible(self.height() >= ROOM_FOR_ACTS * scale())

    def _show_acts(self) -> None:
        current, session = self.script.row, self.session
        if session.trial is not None and self._acts_of:
            return  # what is pressed stays while its effect is looked at
        if current is self._acts_of:
            return
        self._acts_of = current
        emptied(self.acts)
        self.reason.setText("")
        self._tell_acts(current)
        self.reason.setVisible(bool(self.reason.text()))

    def _tell_acts(self, current: ScriptRow | None) -> None:
        session, line_actions = self.session, self.line_actions
        if current is None:
            self.reason.setText("Choose a line to change it. Enter edits it in its place.")
            return
        if current.finding is not None:
            self.reason.setText(f"{current.finding.fix}.")
            if current.finding.edit is not None:
                edit = current.finding.edit
                self.acts.addWidget(FixButton(session, edit.title, (edit,)))
        elif current.left is not None:
            self.reason.setText(f"Left out: {current.left.reason}.")
            self._act("Say it after all (T)", line_actions.take_in)
            self._act("Make room (G)", line_actions.make_room)
            self._act("Reword (Enter)", line_actions.edit_line)
        elif current.muted is not None:
            self._act("Say it again (Delete)", line_actions.mute)
        else:
            state = state_of(current.segment)
            if state.base:
                told = state.words(load_terms_file().positions, session.teaching_data.facets)
                self.reason.setText(f"Where one is: {told}.")
            self._act("Reword (Enter)", line_actions.edit_line)
            self._act("Other wordings (W)", line_actions.choose_wording)
            self._act("Leave unsaid (Delete)", line_actions.mute)
            self._act("Keep at this moment (P)", line_actions.pin)
            if current.side in ("left", "right") and current.cue is not None and current.cue.own:
                linked = line_actions.linked()
                self._act("Each side by itself (M)" if linked else "Other side too (M)", line_actions.mirror)
            if current.cue is not None and current.cue.own:
                self._act("Say it so from now on (K)", line_actions.keep_on_card)
                self._act("Put back (R)", line_actions.restore)
            self._act("Add a line (A)", line_actions.add_line)

    def _show_other_side(self, row: ScriptRow, text: str) -> None:
        """What the other side says of what is being typed, where it says the same."""
        other = self.line_actions.other_side(row, text)
        if other:
            self.reason.setText(other)
            self.reason.show()

    def _act(self, words: str, do: object) -> None:
        if self.acts.count() >= 3 and self.height() < 520 * scale():
            return  # where there is no room they are in the menu, and on their keys
        self.acts.addWidget(button(words, do))  # type: ignore[arg-type]

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.bar.isVisible():
            self.close_find()
        else:
            super().keyPressEvent(event)

    # --- find and replace ------------------------------------------------------------------------

    def open_find(self) -> None:
        """Shows the bar and goes to it."""
        self.bar.setVisible(True)
        self.find_field.setFocus()
        self.find_field.selectAll()

    def close_find(self) -> None:
        """Hides it again."""
        self.bar.setVisible(False)
        self.script.setFocus()

    def _count(self) -> None:
        timed, text = self.session.timed, self.find_field.text()
        found = len(list(lines_with(timed, text))) if timed is not None and text else 0
        self.count.setText(f"{found} line{'s' if found != 1 else ''}" if text else "")

    def find_next(self) -> None:
        """Goes to the next line that has the words."""
        text, rows = self.find_field.text().lower(), self.script.lines.rows
        start = self.script.currentIndex().row() + 1
        for number in [*range(start, len(rows)), *range(start)]:
            if text and text in rows[number].text.lower():
                index = self.script.lines.index(number)
                self.script.setCurrentIndex(index)
                self.script.scrollTo(index, ScriptList.ScrollHint.PositionAtCenter)
                return

    def replace_all(self) -> None:
        """Says other words instead, in every line that has them; one act to undo."""
        timed = self.session.timed
        if timed is None or not self.find_field.text():
            return
        try:
            edit, lines = replaced(timed, self.find_field.text(), self.by.text())
            if lines:
                self.session.apply(edit.title, (edit,))
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.message.emit(
            f"Replaced in {lines} line{'s' if lines != 1 else ''}." if lines else "No line has these words."
        )
