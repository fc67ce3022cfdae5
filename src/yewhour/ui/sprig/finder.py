"""Finding movements: one field, a list of what fits, Enter puts it in."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PySide6.QtCore import (
    QAbstractListModel,
    QMimeData,
    QModelIndex,
    QPersistentModelIndex,
    QRectF,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import QColor, QKeyEvent, QPainter
from PySide6.QtWidgets import (
    QLineEdit,
    QListView,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.library.kinds import BEHAVIOURS, DONE
from yewhour.core.outline.movement_search import MovementSearch, SearchHit
from yewhour.core.plan.nodes import (
    Block,
    Node,
    Pair,
    Step,
    walk,
)
from yewhour.core.plan.places import NodePlace
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import label
from yewhour.ui.kit.controls.field_keys import with_field_keys
from yewhour.ui.kit.theme import (
    Theme,
    font,
    metrics,
    scale,
)
from yewhour.ui.sprig.actions import SprigActions
from yewhour.ui.sprig.picture.drop_places import HIT_TYPE

Index = QModelIndex | QPersistentModelIndex
DRAWN_MS = 300  # after the list is on screen
TYPED = int(Qt.ItemDataRole.UserRole) + 1
EMPTY = "Part of a name, an area, a prop, a position… or a line: low lunge 5b pair"


class Hits(QAbstractListModel):
    """What was found."""

    def __init__(self) -> None:
        super().__init__()
        self.hits: list[SearchHit] = []
        self.typed: list[str] = []  # the dose of each as it was typed, "" for its own

    def put(self, hits: list[SearchHit], typed: list[str] | None = None) -> None:
        """Takes other hits."""
        self.beginResetModel()
        self.hits, self.typed = hits, typed or [""] * len(hits)
        self.endResetModel()

    def flags(self, index: Index) -> Qt.ItemFlag:
        return super().flags(index) | Qt.ItemFlag.ItemIsDragEnabled

    def mimeTypes(self) -> list[str]:
        return [HIT_TYPE]

    def mimeData(self, indexes: Sequence[QModelIndex]) -> QMimeData:
        """The hit that is carried to the sprig, by its row."""
        carried = QMimeData()
        carried.setData(HIT_TYPE, str(indexes[0].row()).encode())
        return carried

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.hits)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        hit = self.hits[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return hit.movement.name
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return f"{hit.movement.name}, {_about(hit, self.typed[index.row()])}"
        if role == Qt.ItemDataRole.UserRole:
            return hit
        if role == TYPED:
            return self.typed[index.row()]
        return None


def _dose(hit: SearchHit) -> str:
    if hit.block:
        return "several movements, put in as one"
    unit, one_sided = hit.movement.behaviour.unit, hit.movement.sides == "one"
    many = f"{hit.movement.dose[1]} {unit}" if unit else "as long as its words take"
    return f"{many}, both sides" if one_sided else many


def _as_typed(node: Node, hit: SearchHit) -> str:
    """The dose and the sides of a node, in words."""
    steps = [one for one in walk((node,)) if isinstance(one, Step)]
    step = steps[0]
    unit = "seconds" if step.clock else BEHAVIOURS[DONE.get(step.done or "", hit.movement.kind)].unit
    if step.amount is None or not unit:
        many = _dose(hit).partition(",")[0]
    else:
        many = f"{step.amount} {unit if step.amount != 1 else unit.rstrip('s')}"
    if step.phase:
        many = f"on one {step.phase}"
    sides = "both sides" if isinstance(node, Pair) else f"{step.side} side" if step.side else ""
    return f"{many}, {sides}" if sides else many


def _about(hit: SearchHit, typed: str = "") -> str:
    """What a teacher wants to know: the dose, who minds it, the way in, what it was found by."""
    words = [typed or _dose(hit)]
    if hit.matters:
        words.append(f"mind: {', '.join(hit.matters)}")
    if hit.setup_s:
        words.append(f"{hit.setup_s:.0f} s to get there")
    if hit.by not in ("", "name"):
        words.append(f"by its {hit.by}" if not hit.by.endswith("s") else hit.by)
    return " · ".join(words)


class HitPainter(QStyledItemDelegate):
    """A hit in two lines: name and traditional name, then dose and asides."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.figures: Any = None  # the module that draws them, once the window is on screen

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        return QSize(200, round(metrics(11.5).height() + metrics(9.8).height() + 12 * scale()))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        hit: SearchHit = index.data(Qt.ItemDataRole.UserRole)
        box = QRectF(option.rect).adjusted(2, 1, -6, -1)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if isinstance(option.widget, QListView) and index == option.widget.currentIndex():
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(self.theme.chosen))
            painter.drawRoundedRect(box, 6, 6)
        inner = box.adjusted(10, 4, -8, -4)
        figure = None if hit.block or not self.figures else self.figures.portrait_of(hit.movement, "right")
        room = round(1.35 * inner.height())
        if figure is not None:
            self.figures.paint_figure(
                painter, QRectF(inner.left() - 4, inner.top(), room, inner.height()), figure, self.theme
            )
        inner.setLeft(inner.left() + room + 6)
        painter.setFont(font(11.5))
        painter.setPen(QColor(self.theme.ink))
        painter.drawText(inner, Qt.AlignmentFlag.AlignTop, hit.movement.name)
        used = painter.fontMetrics().horizontalAdvance(hit.movement.name) + 12
        painter.setFont(font(10, italic=True))
        painter.setPen(QColor(self.theme.soft))
        painter.drawText(inner.adjusted(used, 1, 0, 0), Qt.AlignmentFlag.AlignTop, hit.movement.traditional)
        painter.setFont(font(9.8))
        painter.setPen(QColor(self.theme.trouble if hit.matters else self.theme.soft))
        words = painter.fontMetrics().elidedText(
            _about(hit, index.data(TYPED)), Qt.TextElideMode.ElideRight, round(inner.width())
        )
        painter.drawText(inner, Qt.AlignmentFlag.AlignBottom, words)
        painter.restore()


SHIFT = Qt.KeyboardModifier.ShiftModifier


class FinderField(QLineEdit):
    """The field; the arrows go through the list while it is typed in."""

    moved = Signal(int)
    left = Signal()
    mine = Signal()  # Shift+Enter

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step and not event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier:
            self.moved.emit(step)
        elif event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and event.modifiers() & SHIFT:
            self.mine.emit()
        else:
            super().keyPressEvent(event)


class FinderPane(QWidget):
    """The field and what it finds; puts what is chosen after what is chosen on the sprig."""

    added = Signal()
    make_mine = Signal(str)  # a movement of this name is to be made, as there is none

    def __init__(self, session: Session, sprig_actions: SprigActions, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.sprig_actions = sprig_actions
        self._finder: MovementSearch | None = None
        self.field = FinderField()
        self.field.setObjectName("finder")
        self.field.setMaxLength(200)
        self.field.setPlaceholderText(EMPTY)
        self.field.setAccessibleName("Find a movement")
        self.field.setClearButtonEnabled(True)
        self.hits = Hits()
        self.painter_of_hits = HitPainter(theme)
        self.list = QListView()
        self.list.setModel(self.hits)
        self.list.setItemDelegate(self.painter_of_hits)
        self.list.setUniformItemSizes(True)
        self.list.setDragEnabled(True)
        self.list.setDragDropMode(QListView.DragDropMode.DragOnly)
        self.list.setMouseTracking(True)
        self.list.setAccessibleName("Movements found")
        self.where = label("", "soft")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 4)
        layout.setSpacing(4)
        layout.addWidget(self.field)
        layout.addWidget(self.where)
        layout.addWidget(self.list, 1)
        with_field_keys(self.field)
        self.field.textChanged.connect(self.search)
        self.field.returnPressed.connect(self.add)
        self.field.moved.connect(self._move)
        self.field.mine.connect(self.make)
        self.list.clicked.connect(lambda index: self.add())
        self.list.activated.connect(lambda index: None)
        self._soon = QTimer(self)  # the class is painted first
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._somewhere_else)
        session.made_changed.connect(self._soon.start)
        session.selected_changed.connect(lambda _: self._soon.start())

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.painter_of_hits.theme = theme
        if (
            self.isVisible()
        ):  # to ask for a viewport makes Qt's Python side know every kind of widget there is
            self.list.viewport().update()

    @property
    def finder(self) -> MovementSearch:
        """The search over the library, made anew when that is another."""
        words = self.session.teaching_data
        if self._finder is None or self._finder.library is not words.library:
            self._finder = MovementSearch(words.library, words.positions, words.blocks)
        return self._finder

    def here(self) -> str:
        """The position the class is in where the next movement would go."""
        mine = self.session.segments_of(self.session.picked)
        timed = self.session.shown
        if not mine and timed is not None:
            mine = [
                segment
                for segment in timed.segments
                if not (segment.behaviour.is_talk or segment.behaviour.is_rest)
            ]
        return mine[-1].use.end if mine else ""

    def search(self) -> None:
        """Shows what fits what is typed."""
        self._soon.stop()
        typed = self.field.text()
        if not self.session.has_words and not typed:
            return  # they come with the first class
        if typed.startswith("#"):
            self.hits.put([])
            self.where.setText("Enter starts a new part of the class with this title.")
            return
        brief = self.session.plan.brief if self.session.plan else None
        room = self.session.teaching_data.room(brief) if brief else None
        focus = brief.focus if brief else ()
        found, dose = self.finder.find(typed, self.here(), room, focus, self.session.timed is None)
        self.hits.put(found, [self._typed(hit, dose) for hit in found] if dose else None)
        if found:
            self.list.setCurrentIndex(self.hits.index(0))
        self._say_where(typed, bool(found))

    def _typed(self, hit: SearchHit, dose: str) -> str:
        """A hit's dose and sides as they were typed; "" for what it can't have."""
        try:
            return "" if hit.block else _as_typed(self.finder.step(hit.movement.id, dose), hit)
        except Problem:
            return ""

    def bring(self, row: int, place: NodePlace) -> None:
        """Puts a hit in at a place, where it was carried to."""
        if not 0 <= row < len(self.hits.hits):
            return
        hit = self.hits.hits[row]
        dose = self.finder.split(self.field.text())[1]
        try:
            node: Node = Block(name=hit.block) if hit.block else self.finder.step(hit.movement.id, dose)
        except Problem as problem:
            self.where.setText(str(problem))
            return
        self.sprig_actions.add((node,), f"Add {hit.movement.name}", place)

    def _say_where(self, typed: str, found: bool) -> None:
        if typed and not found:
            self.where.setText(
                f"Nothing fits “{typed}”. Try an area, a prop or a position; "
                "Enter makes it a movement of your own."
            )
            return
        place = "at the end"
        if self.session.section is not None and self.session.plan is not None:
            place = f"at the end of {self.session.plan.sections[self.session.section].title}"
        elif self.session.picked:
            place = f"after {self.sprig_actions.chosen.called(self.session.picked[-1])}"
        by = self.hits.hits[0].by if self.hits.hits else ""
        near = by.startswith("as ")
        hers = " Shift+Enter makes it a movement of your own." if near else ""
        self.where.setText(f"{f'Read {by}. ' if near else ''}Enter or a click puts it {place}.{hers}")

    def _somewhere_else(self) -> None:
        """Ranks anew: what can follow depends on what is chosen."""
        if self.isVisible() and self.session.trial is None:
            self.search()

    def showEvent(self, event: object) -> None:
        self.search()
        if self.painter_of_hits.figures is None:
            QTimer.singleShot(DRAWN_MS, self, self._draw_figures)

    def _draw_figures(self) -> None:
        # What draws them need not be there for the window to be on screen.
        from yewhour.ui.kit import figure_view

        self.painter_of_hits.figures = figure_view
        self.list.viewport().update()

    def _move(self, by: int) -> None:
        row = max(0, min(len(self.hits.hits) - 1, self.list.currentIndex().row() + by))
        if self.hits.hits:
            self.list.setCurrentIndex(self.hits.index(row))

    def make(self) -> None:
        """A movement of her own by the name that is typed."""
        name = self.finder.split(self.field.text())[0]
        self.field.selectAll()
        if name:
            self.make_mine.emit(name)

    def add(self) -> None:
        """Puts in the movement that is current, with the dose that was typed; or starts a part."""
        if self._soon.isActive():
            self.search()
        typed = self.field.text().strip()
        if typed.startswith("#"):
            self.sprig_actions.new_section(typed.lstrip("# ").strip() or "New part")
            self.field.clear()
            self.added.emit()
            return
        row = self.list.currentIndex().row()
        if not 0 <= row < len(self.hits.hits):
            self.make()
            return
        hit = self.hits.hits[row]
        movement = hit.movement
        name, dose = self.finder.split(typed)
        known = self.finder.names.find(name)
        if hit.block and known is None:
            self.sprig_actions.add((Block(name=hit.block),), f"Add {movement.name}")
            self.field.selectAll()
            self.added.emit()
            return
        try:
            node = self.finder.step(known or movement.id, dose, not self.sprig_actions.inside_pair())
        except Problem as problem:
            self.where.setText(str(problem))
            self.field.selectAll()
            return
        name = self.session.teaching_data.library[known or movement.id].name
        self.sprig_actions.add((node,), f"Add {name}")
        self.field.selectAll()
        self.added.emit()
