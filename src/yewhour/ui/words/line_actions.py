"""The pen: what can be done to the line that is current in the script. Each act can be undone."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QMenu

from yewhour.content.terms import Terms, load_terms
from yewhour.core.checks.lines import roomier
from yewhour.core.edits import line_edits
from yewhour.core.plan.edit import Edit, with_brief
from yewhour.core.problem import Problem
from yewhour.core.script.candidates import candidate_lines
from yewhour.core.script.cue import Cue
from yewhour.core.script.own_lines import edit_behind, with_numbers
from yewhour.core.script.teaching import alternatives
from yewhour.core.sides import mirrored
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions
from yewhour.state.classes.own_movements import kept_on_card
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.small_dialogs import Asking
from yewhour.ui.words.rows import ScriptRow
from yewhour.ui.words.script_list import ScriptList


class LineActions:
    """Acts on the script's current row. What can't be done is told by `session.refused`."""

    def __init__(self, session: Session, script: ScriptList) -> None:
        self.session = session
        self.script = script
        self.asking: Asking | None = None
        script.delegate.reworded.connect(self.reword)
        script.delegate.refused.connect(session.refused)
        script.entered.connect(self.enter)

    def _do(self, make: Callable[[TimedClass], Edit]) -> None:
        timed = self.session.timed
        if timed is None:
            return
        try:
            edit = make(timed)
            self.session.apply(edit.title, (edit,))
        except Problem as problem:
            self.session.refused.emit(problem)

    def reword(self, row: ScriptRow, text: str) -> None:
        """Other words for a line."""
        line = row.line
        if line is not None:
            self._do(lambda timed: line_edits.rewritten(timed, line, text))

    def edit_line(self) -> None:
        """Starts editing the line."""
        if self.script.currentIndex().isValid():
            self.script.edit(self.script.currentIndex())

    def enter(self) -> None:
        """Enter on a line without words to change: an unsaid one is said again, a finding mended."""
        row = self.script.row
        if row is not None and row.finding is not None:
            self.mend_here()
        elif row is not None and row.muted is not None:
            self.mute()

    def mute(self) -> None:
        """Leaves the line unsaid; a line left unsaid is said again; a finding is mended."""
        row = self.script.row
        if row is None:
            return
        if row.muted is not None:
            muted = row.muted
            self._do(lambda timed: line_edits.unmuted(muted))
        elif row.line is not None:
            line = row.line
            self._do(lambda timed: line_edits.muted(timed, line))

    def pin(self) -> None:
        """Keeps the line at its moment, or lets it go again."""
        cue = self._cue()
        if cue is not None:
            self._do(
                lambda timed: (
                    line_edits.restored(timed, cue)
                    if line_edits.is_pinned(timed, cue)
                    else line_edits.pinned(timed, cue)
                )
            )

    def sooner(self) -> None:
        """Half a second earlier."""
        self._move(-0.5)

    def later_line(self) -> None:
        """Half a second later."""
        self._move(0.5)

    def _move(self, by_s: float) -> None:
        cue = self._cue()
        if cue is not None:
            self._do(lambda timed: line_edits.pinned(timed, cue, by_s))

    def linked(self) -> bool:
        """Whether the line is hers and the other side has it mirrored."""
        timed, cue = self.session.timed, self._cue()
        return timed is not None and cue is not None and line_edits.is_linked(timed, cue)

    def other_side(self, row: ScriptRow, text: str) -> str:
        """What the other side of a movement will say when a line of it has these words; "" for nothing."""
        timed, line = self.session.timed, row.line
        if timed is None or line is None or not text.strip():
            return ""
        try:
            edit = line_edits.rewritten(timed, line, text)
        except Problem:
            return ""
        return _mirrored_words(row.segment, text) if any(new.both for new in edit.say) else ""

    def mirror(self) -> None:
        """Says the teacher's own line on the other side too, or on this side only."""
        cue = self._cue()
        if cue is not None:
            self._do(lambda timed: line_edits.on_both_sides(timed, cue))

    def keep_on_card(self) -> None:
        """Her words for a line, on the card of the movement: every class says it so from now on."""
        timed, cue = self.session.timed, self._cue()
        if timed is None or cue is None:
            return
        segment = line_edits.segment_of(timed, cue)
        edit = edit_behind(timed.plan, segment, cue)
        try:
            if edit is None or not edit.text:
                raise Problem("This line is as the program has it.", do="Reword it first (Enter).")
            movement, terms = segment.use.movement, self._terms()
            kept = self.session.change_library(
                f"Say it so on the card of {movement.name}",
                movement.id,
                lambda: kept_on_card(movement, edit, segment.side, terms),
            )
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.told.emit(f"Every {kept.name} says it so from now on. Ctrl+Z takes it back.")

    def _terms(self) -> Terms:
        return load_terms(self.session.teaching_data.positions)

    def restore(self) -> None:
        """Puts the line back as the program has it."""
        row = self.script.row
        if row is not None and row.muted is not None:
            self.mute()
        elif row is not None and row.line is not None:
            line = row.line
            self._do(lambda timed: line_edits.restored(timed, line))

    def take_in(self) -> None:
        """Says a line that was left out."""
        row = self.script.row
        if row is not None and row.left is not None:
            left = row.left
            self._do(lambda timed: line_edits.taken_in(timed, left))

    def make_room(self) -> None:
        """Does what would make room for a line that was left out."""
        row, timed = self.script.row, self.session.timed
        if row is None or row.left is None or timed is None:
            return
        edit = roomier(line_edits.segment_of(timed, row.left), row.left.short)
        if edit is None:
            self.session.refused.emit(
                Problem("Nothing here can be made longer.", do="Shorten the lines around it.")
            )
        else:
            self._do(lambda _: edit)

    def mend_here(self) -> None:
        """Does what mends the finding that is current."""
        row = self.script.row
        if row is not None and row.finding is not None and row.finding.edit is not None:
            edit = row.finding.edit
            self._do(lambda _: edit)

    def add_line(self) -> None:
        """Asks for a line of the teacher's own, after the current one, with its seconds as it is typed."""
        row, solved = self.script.row, self.session.solved
        if row is None or solved is None:
            return
        at_s = max(0.0, (row.at - row.segment.start) / 10 + row.takes_s)

        def measured(text: str) -> str:
            takes_s = solved.duration(text, "align") / 10 if text.strip() else 0.0
            room = f"there are {row.quiet_s:.1f} s of quiet after this line" if row.cue else "as it fits"
            other = _mirrored_words(row.segment, text) if directions(text) else ""
            return f"Said in {row.segment.name}: {takes_s:.1f} s, {room}. {other}".strip()

        dialog = Asking(self.script, "A line of your own", measured, "Say it")
        dialog.accepted.connect(lambda: self._add(row, dialog.text(), at_s))
        self.asking = dialog
        dialog.open()

    def _add(self, row: ScriptRow, text: str, at_s: float) -> None:
        if text.strip():
            self._do(lambda timed: line_edits.added(row.segment, text, at_s))

    def wordings(self) -> list[str]:
        """What else can be said in place of the current line: the other thoughts of its movement's card, or
        its wordings from full to bare."""
        timed, solved, cue = self.session.timed, self.session.solved, self._cue()
        if timed is None or solved is None or cue is None:
            return []
        segment = next((one for one in timed.segments if one.id == cue.segment), None)
        if segment is None:  # it has just gone
            return []
        if others := alternatives(segment.use, cue.purpose):
            return others
        for line in with_numbers(candidate_lines(timed.segments, solved.entries), timed.segments):
            place = (timed.segments[line.segment].id, line.purpose, line.number)
            if place == (cue.segment, cue.purpose, cue.number):
                return list(line.wordings)
        return []

    def tell_otherwise(self) -> None:
        """The same class in other words: each thought gives way to another of its card."""
        plan = self.session.plan
        if plan is not None:
            self.session.do("Told otherwise", with_brief(plan, telling=plan.brief.telling + 1))

    def choose_wording(self) -> None:
        """A menu of the wordings, at the line."""
        row, found = self.script.row, self.wordings()
        if row is None or not found:
            return
        menu = QMenu(self.script)
        solved = self.session.solved
        for text in found:
            takes_s = solved.duration(text, row.purpose) / 10 if solved else 0.0
            action = menu.addAction(f"{text}   {takes_s:.1f} s".replace("&", "&&"))
            action.setCheckable(True)
            action.setChecked(text == row.text)
            action.triggered.connect(lambda _=False, text=text: self.reword(row, text))
        box = self.script.visualRect(self.script.currentIndex())
        menu.popup(self.script.viewport().mapToGlobal(QPoint(box.left() + 100, box.bottom())))

    def _cue(self) -> Cue | None:
        row = self.script.row
        return row.cue if row is not None else None


def _mirrored_words(segment: Segment, text: str) -> str:
    """What the other side says, as a sentence; "" where there is no other side."""
    other = line_edits.on_the_other_side(segment, " ".join(text.split()))
    return f"On the {mirrored(segment.side)}: {other}" if other else ""
