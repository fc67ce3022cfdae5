"""Versions: the saved states of a class, what is other between two of them, and any of them brought back."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.edits.arrange import with_part
from yewhour.core.edits.compare import ClassDifference, compare_classes, nearest_class
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem
from yewhour.core.shelf.thumbnail import Thumbnail, thumbnail_of
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.revisions import Revision, name_revision, revisions_of
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    button,
    emptied,
    label,
    page,
    row,
    wrapped,
)
from yewhour.ui.kit.controls.field_keys import with_field_keys
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.kit.thumbnail import paint_thumbnail

SAID = {
    "promise": "Promised otherwise", "new": "New", "gone": "Gone", "longer": "Longer", "shorter": "Shorter",
    "moved": "At another place", "other": "Otherwise", "said": "Said otherwise",
}  # fmt: skip
NONE_YET = "No versions yet: each time you save, one is kept here."


class RevisionPicture(QWidget):
    """A state as a sprig, with what it is called and how long it is."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.twig: Thumbnail | None = None
        self.longest_s = 1.0
        self.setMinimumSize(round(120 * scale()), round(200 * scale()))

    def put(self, twig: Thumbnail | None, longest_s: float) -> None:
        """Shows this class, or nothing; the longest of those beside it takes the whole height."""
        self.twig, self.longest_s = twig, longest_s
        message = f"{twig.title}, {show_length(twig.length_s)}" if twig else ""
        self.setAccessibleName(message)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.twig is not None:
            painter = QPainter(self)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            box = QRectF(self.rect()).adjusted(6, 4, -6, -4)
            box.setHeight(box.height() * self.twig.length_s / self.longest_s)
            paint_thumbnail(painter, box, self.twig, self.theme)


class Revisions(QDialog):
    """The dialog. `brought` gives the plan to go on with, and what going on with it is called."""

    brought = Signal(object, str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session, self.theme = session, theme
        self.path = session.path
        self.found = revisions_of(self.path) if self.path is not None else []
        self._made: dict[int, TimedClass | Problem] = {}
        self.setWindowTitle("Versions of this class")
        self.resize(round(1040 * min(1.3, scale())), round(660 * min(1.3, scale())))
        self.list = QListWidget()
        self.list.setAccessibleName("Saved states, the latest first")
        self.list.setSelectionMode(QListWidget.SelectionMode.ExtendedSelection)
        self.list.setFixedWidth(round(250 * min(1.3, scale())))
        for version in self.found:
            item = QListWidgetItem(_called(version))
            item.setData(Qt.ItemDataRole.UserRole, version)
            self.list.addItem(item)
        self.name = with_field_keys(QLineEdit())
        self.name.setPlaceholderText("Name this state")
        self.name.setAccessibleName("Name of this state")
        self.name.setMaxLength(60)
        self.name.textEdited.connect(self._name)
        self.drawn = RevisionPicture(theme), RevisionPicture(theme)
        self.heads = label("", "prompt"), label("", "prompt")
        self.message = label("", "reading")
        area, self.told_list = page()
        self.back = button("Go on with this one", self.bring, "Undo takes it back.", "accent")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 14, 18, 14)
        layout.setSpacing(10)
        hint = "Each state stands beside the class as it is now; two chosen with Ctrl, beside each other."
        layout.addWidget(label(hint if self.found else NONE_YET, "soft" if self.found else "reading"))
        self.middle = QWidget()
        middle = QHBoxLayout(self.middle)
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(14)
        left = QVBoxLayout()
        left.addWidget(self.list, 1)
        left.addWidget(self.name)
        middle.addLayout(left)
        for head, drawn in zip(self.heads, self.drawn, strict=True):
            column = QVBoxLayout()
            head.setFixedSize(round(134 * scale()), 4 * head.fontMetrics().lineSpacing() + 8)
            head.setAlignment(Qt.AlignmentFlag.AlignTop)
            column.addWidget(head)
            column.addWidget(drawn, 1)
            middle.addLayout(column)
        right = QVBoxLayout()
        right.addWidget(self.message)
        self.parts = QVBoxLayout()
        right.addLayout(self.parts)
        right.addWidget(area, 1)
        middle.addLayout(right, 1)
        layout.addWidget(self.middle, 1)
        layout.addLayout(row(self.back, button("Close", self.reject)))
        for part in (self.middle, self.back):
            part.setVisible(bool(self.found))
        self.list.itemSelectionChanged.connect(self.show_chosen)
        if self.found:
            self.list.setCurrentRow(0)

    def chosen(self) -> list[Revision]:
        """The states that are chosen, the earlier first; at most two count."""
        rows = sorted((self.list.row(item) for item in self.list.selectedItems()), reverse=True)
        return [self.found[number] for number in rows][-2:]

    def show_chosen(self) -> None:
        """The one that is chosen beside the class as it is now, or two beside each other."""
        chosen = self.chosen()
        self.back.setEnabled(len(chosen) == 1)
        self.name.setEnabled(len(chosen) == 1)
        if not chosen:
            return
        if not self.name.hasFocus():
            self.name.setText(chosen[0].name if len(chosen) == 1 else "")
        before = self._of(chosen[0])
        after = self._of(chosen[1]) if len(chosen) > 1 else self._now()
        heads = _called(chosen[0]), _called(chosen[1]) if len(chosen) > 1 else "As it is now"
        longest_s = max(
            (timed.length_s for timed in (before, after) if isinstance(timed, TimedClass)), default=1.0
        )
        for head, drawn, words, timed in zip(self.heads, self.drawn, heads, (before, after), strict=True):
            length = f"\n{show_length(timed.length_s)}" if isinstance(timed, TimedClass) else ""
            head.setText(words + length)
            drawn.put(thumbnail_of(timed, "") if isinstance(timed, TimedClass) else None, longest_s)
        self._tell(before, after)
        if len(chosen) == 1 and isinstance(before, TimedClass):
            self._offer_parts(chosen[0])

    def _offer_parts(self, version: Revision) -> None:
        """The parts of a state that are other in it, each to be taken by itself."""
        mine = self.session.plan.sections if self.session.plan is not None else ()
        others = [(part, at) for at, part in enumerate(version.plan().sections) if part not in mine]
        if others:
            about = "Only this part; undo gives yours back."
            takes = [button(f"Take “{one.title}”", partial(self.take, one, at), about) for one, at in others]
            self.parts.addLayout(wrapped(*takes))

    def _tell(self, before: TimedClass | Problem, after: TimedClass | Problem) -> None:
        emptied(self.told_list)
        emptied(self.parts)
        if isinstance(before, Problem) or isinstance(after, Problem):
            self.message.setText(str(before if isinstance(before, Problem) else after))
            return
        found = compare_classes(before, after)
        self.message.setText(_summed(found, after.length_s - before.length_s))
        for kind, words in SAID.items():
            mine = [one.words for one in found if one.kind == kind]
            if mine:
                self.told_list.addWidget(label(words, "prompt"))
                for one in mine:
                    self.told_list.addWidget(label(one))
        self.told_list.addStretch(1)

    # --- classes ------------------------------------------------------------------------------------------

    def _of(self, version: Revision) -> TimedClass | Problem:
        """The class of a state, made once."""
        found = self._made.get(version.number)
        if found is None:
            try:
                found = self._make(version.plan())
            except Problem as problem:
                found = problem
            self._made[version.number] = found
        return found

    def _now(self) -> TimedClass | Problem:
        if self.session.plan is None:
            return Problem("There is no class.")
        try:
            return self._make(self.session.plan)
        except Problem as problem:
            return problem

    def _make(self, plan: Plan) -> TimedClass:
        return nearest_class(solve(plan, self.session.teaching_data))

    # --- deeds --------------------------------------------------------------------------------------------

    def _name(self, text: str) -> None:
        """A state's name is kept as it is typed."""
        chosen = self.chosen()
        if len(chosen) != 1 or self.path is None:
            return
        try:
            name_revision(self.path, chosen[0], text)
        except Problem as problem:
            self.message.setText(str(problem))
            return
        self.found = revisions_of(self.path)
        number = self.list.row(self.list.selectedItems()[0])
        self.list.item(number).setText(_called(self.found[number]))
        self.heads[0].setText(self.list.item(number).text())

    def bring(self) -> None:
        """Goes on with the one that is chosen."""
        version = self.chosen()[0]
        try:
            plan = version.plan()
        except Problem as problem:
            self.message.setText(str(problem))
            return
        self.brought.emit(plan, f"Go on from {_short(version)}")
        self.accept()

    def take(self, part: Section, at: int) -> None:
        """Takes one part of the state that is chosen into the class as it is now."""
        if self.session.plan is not None:
            plan = with_part(self.session.plan, part, at)
            self.brought.emit(plan, f"{part.title} from {_short(self.chosen()[0])}")
            self.show_chosen()


def _short(version: Revision) -> str:
    return version.name or f"{version.when:%d %B, %H:%M}".lstrip("0")


def _called(version: Revision) -> str:
    when = f"{version.when:%d %B %Y, %H:%M:%S}".lstrip("0")
    return f"{version.name}\n{when}" if version.name else when


def _summed(found: list[ClassDifference], more_s: float) -> str:
    """The whole of it in a line."""
    if not found:
        return "The same in everything."
    things = "1 thing is" if len(found) == 1 else f"{len(found)} things are"
    if abs(more_s) < 1:
        return f"{things} other; as long as before."
    by = show_length(round(abs(more_s)))
    return f"{things} other; {by} {'longer' if more_s > 0 else 'shorter'} in all."
