"""The figures of a movement on its plate: seen, and pulled into another shape by their joints."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from yewhour.content.figure_files import figures_of
from yewhour.core.figure.body import (
    Figure,
    Point,
    anchor,
    stance,
)
from yewhour.core.figure.figure_line import write_figure
from yewhour.core.figure.validate import figure_faults
from yewhour.core.library.movement import Movement
from yewhour.files.late import late
from yewhour.ui.kit.controls.controls import button, label, wrapped
from yewhour.ui.kit.figure_view import (
    MOST_GROWN,
    FigurePicture,
    figure_picture,
    paint_figure,
    place_of,
)
from yewhour.ui.kit.theme import Theme, scale

if TYPE_CHECKING:
    from yewhour.core.figure import settle as settling
else:
    settling = late("yewhour.core.figure.settle")  # 0.15 s with NumPy, when the first joint is pulled


JOINTS = ("head", "neck", "back", "elbow", "farelbow", "wrist", "farwrist", "knee", "farknee", "ankle",
          "farankle", "toe", "fartoe")  # fmt: skip
NAMES = {"head": "head", "neck": "shoulders", "back": "back", "elbow": "elbow", "wrist": "hand",
         "knee": "knee", "ankle": "heel", "toe": "toes"}  # fmt: skip
NEAR_PX, HANDLE_PX, HIGH = 16.0, 4.5, 176.0
NUDGE = 0.02  # of the body's height: a joint moves so far with a key
HINT = "Drag a joint to change how it looks. What rests on the floor stays there."
CANT = "It can't be so: {fault}."


class FigureBoard(QWidget):
    """One to three figures beside each other, to be pulled. changed: their lines are others; message: what
    can't be, or nothing."""

    changed = Signal(list)
    message = Signal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.figures: tuple[Figure, ...] = ()
        self.trouble = ""
        self._drawn: tuple[FigurePicture, ...] = ()
        self._held: tuple[int, str] | None = None
        self._chosen = 0, "wrist"
        self._before: list[tuple[Figure, ...]] = []
        self.setFixedHeight(round(HIGH * min(MOST_GROWN, scale())))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName("How it looks")

    def show_figures(self, figures: tuple[Figure, ...]) -> None:
        """Other figures; what was pulled before can't be taken back any more."""
        self._before.clear()
        self._take(figures)

    def _take(self, figures: tuple[Figure, ...]) -> None:
        self.figures = figures
        self._drawn = tuple(figure_picture(one) for one in figures)
        self._chosen = min(self._chosen[0], max(0, len(figures) - 1)), self._chosen[1]
        self.update()

    # --- where everything is ------------------------------------------------------------------------------

    def _box(self, index: int) -> QRectF:
        wide = min(self.width() / max(1, len(self._drawn)), self.height() * 1.6)
        return QRectF(index * wide + 4, 6, wide - 12, self.height() - 14)

    def at(self, index: int, joint: str) -> QPointF:
        """Where a joint is, in pixels."""
        x, y = stance(self.figures[index])[joint]
        size, origin = place_of(self._drawn[index], self._box(index))
        return QPointF(origin.x() + x * size, origin.y() - y * size)

    def _joint_at(self, at: QPointF) -> tuple[int, str] | None:
        near = [
            (round((at - self.at(index, joint)).manhattanLength()), joint.startswith("far"), index, joint)
            for index in range(len(self.figures))
            for joint in JOINTS
        ]
        away, _, index, joint = min(near, default=(NEAR_PX, False, 0, ""))
        return (index, joint) if away < NEAR_PX else None

    # --- hands --------------------------------------------------------------------------------------------

    def pull(self, index: int, joint: str, to: Point) -> None:
        """Moves a joint towards a place; what rests stays where it rests."""
        before = self.figures[index]
        first = anchor(before, stance(before))
        pulled = settling.settle(before, {joint: (to[0] - first, to[1])})
        fault = next(figure_faults(pulled), "")
        self.trouble = CANT.format(fault=fault) if fault else ""
        self.message.emit(self.trouble)
        if not fault:
            moved = anchor(pulled, stance(pulled)) - first
            boxes = [one.box.translated(moved * (at == index), 0) for at, one in enumerate(self._drawn)]
            self._take((*self.figures[:index], pulled, *self.figures[index + 1 :]))
            # It stays where it is under the hand, however far the limb reaches.
            self._drawn = tuple(one._replace(box=box) for one, box in zip(self._drawn, boxes, strict=True))

    def undo(self) -> None:
        """Takes the last pull back."""
        if self._before:
            self._take(self._before.pop())
            self._tell()

    @property
    def can_undo(self) -> bool:
        """Whether something was pulled."""
        return bool(self._before)

    def _tell(self) -> None:
        self.changed.emit([write_figure(one) for one in self.figures])

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._held = self._joint_at(event.position())
        if self._held is not None:
            self._chosen = self._held
            self._before.append(self.figures)
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._held is None:
            over = self._joint_at(event.position())
            self.setCursor(Qt.CursorShape.OpenHandCursor if over else Qt.CursorShape.ArrowCursor)
            return
        index, joint = self._held
        size, origin = place_of(self._drawn[index], self._box(index))
        to = (event.position().x() - origin.x()) / size, (origin.y() - event.position().y()) / size
        self.pull(index, joint, to)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._held is not None:
            self._held = None
            self._ended()

    def _ended(self) -> None:
        if self._before and self._before[-1] == self.figures:
            self._before.pop()  # nothing was moved
        else:
            self._tell()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The arrows go from joint to joint; with Shift they pull it. Ctrl+Z takes a pull back."""
        way = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1),
               Qt.Key.Key_Down: (0, -1)}.get(Qt.Key(event.key()))  # fmt: skip
        keys = event.modifiers()
        if event.key() == Qt.Key.Key_Z and keys & Qt.KeyboardModifier.ControlModifier:
            self.undo()
        elif way is None or not self.figures:
            super().keyPressEvent(event)
        elif keys & Qt.KeyboardModifier.ShiftModifier:
            index, joint = self._chosen
            x, y = stance(self.figures[index])[joint]
            self._before.append(self.figures)
            self.pull(index, joint, (x + way[0] * NUDGE, y + way[1] * NUDGE))
            self._ended()
        else:
            order = [(index, joint) for index in range(len(self.figures)) for joint in JOINTS]
            there = order.index(self._chosen) if self._chosen in order else 0
            self._chosen = order[(there + way[0] - way[1]) % len(order)]
            self.setAccessibleDescription(called(self._chosen[1]))
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        for index, one in enumerate(self._drawn):
            paint_figure(painter, self._box(index), one, self.theme)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.hasFocus() or self.underMouse():
            painter.setPen(QPen(QColor(self.theme.ink), 1))
            for index in range(len(self.figures)):
                for joint in JOINTS:
                    chosen = (index, joint) == self._chosen and self.hasFocus()
                    painter.setBrush(QColor(self.theme.focus if chosen else self.theme.paper))
                    size = (HANDLE_PX + 2.5 * chosen) * scale()
                    painter.drawEllipse(self.at(index, joint), size, size)


def called(joint: str) -> str:
    """What a joint is called."""
    return ("the other " if joint.startswith("far") else "the ") + NAMES[joint.removeprefix("far")]


class FigurePanel(QWidget):
    """The board with what is said of it, and its two deeds. changed: the lines of the figures, none for those
    of the position."""

    changed = Signal(list)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.board = FigureBoard(theme)
        self.hint = label(HINT, "soft")
        self.undo_button = button("Take the pull back", self.board.undo, "Ctrl+Z on the figure.", "small")
        self.usual_button = button("Its usual figure", lambda: self.changed.emit([]), "", "small")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2)
        layout.addWidget(self.board)
        layout.addWidget(self.hint)
        layout.addLayout(wrapped(self.undo_button, self.usual_button))
        self.board.changed.connect(self._changed)
        self.board.message.connect(lambda trouble: self.hint.setText(trouble or HINT))
        self.undo_button.hide()
        self._first: list[str] = []  # its own lines, as it was shown

    def _changed(self, lines: list[str]) -> None:
        """What was pulled; what is taken back whole is as it was, and not written anew."""
        self.changed.emit(lines if self.board.can_undo else self._first)

    def show_movement(self, movement: Movement, anew: bool) -> None:
        """The figures of a movement. anew: it is another one, and what was pulled can't be taken back."""
        if anew:
            self._first = list(movement.figure)
            self.board.show_figures(figures_of(movement))
        self.board.setVisible(bool(self.board.figures))
        self.hint.setText(self.board.trouble or (HINT if self.board.figures else ""))
        self.undo_button.setVisible(self.board.can_undo)
        self.usual_button.setVisible(bool(movement.figure))
