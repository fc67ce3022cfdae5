"""The sprig: the class as a yew sprig. Time runs down the stem, with a length handle at its tip.

Work on the left is a needle to the left, on the right a needle to the right, on both sides a pair;
stillness is bare stem; a red aril marks each change of side. Everything can be taken hold of: the tip for
the length, a needle's end for more or fewer breaths, a needle itself to be put elsewhere.
"""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QEvent, QPoint, QPointF, Qt, Signal
from PySide6.QtGui import (
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QToolTip

from yewhour.core.edits.arrange import moved, with_node
from yewhour.core.edits.places import (
    end_of,
    group_of,
    nodes_of,
    place_of,
)
from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.plan.nodes import children
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import plain_tip
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.sprig.picture.drop_places import (
    HIT_TYPE,
    DropPlace,
    drop_places,
    nearest,
)
from yewhour.ui.sprig.picture.needles import Needle
from yewhour.ui.sprig.picture.painter import SprigPainter
from yewhour.ui.sprig.picture.scene import Scene

STEP_S = 5.0  # the handle moves in steps of this
MINUTE_S = 60.0
TIP_GAP = 14  # pixels: Qt puts a tip so much further down than it is asked to, less a little
GRIP = 5.0  # pixels about a needle's end where it can be pulled


FAR = 60.0  # pixels below where it was, at which the length handle goes twice as fast


class Gesture(NamedTuple):
    """Where the length handle was taken hold of: a height, the seconds there, and pixels a second."""

    y: float
    length_s: float
    px_per_s: float


class Sprig(Scene):
    """Shows the session's class, to be handled. `brought`: a result's row, and where it was let go of."""

    brought = Signal(int, object)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.setAcceptDrops(True)
        self._slots: list[DropPlace] = []
        self._press: QPointF | None = None
        self._pressed: Needle | None = None
        self._grip = Gesture(0.0, 0.0, 1.0)

    # --- hands ---------------------------------------------------------------------------------------------

    def asked_at(self, y: float) -> float:
        """Seconds of the class that a hand on the length handle asks for at a height.

        As on the scale it took hold of, and faster the further below, where there is no room; never beyond
        what the class can be.
        """
        pixels = y - self._grip.y
        pull = pixels * (1 + pixels / FAR) if pixels > 0 else pixels
        asked = max(STEP_S, round((self._grip.length_s + pull / self._grip.px_per_s) / STEP_S) * STEP_S)
        lengths = self.session.lengths
        return min(max(asked, lengths.shortest_s), lengths.longest_s) if lengths else asked

    def _pull_at(self, at: QPointF) -> Needle | None:
        """The needle whose end is under the hand."""
        if abs(at.x() - self.stem_x) > self.needle_room * 1.1:
            return None
        for needle in self.needles:
            top, bottom = self.span(needle)
            elastic = needle.segment.use.unit and not needle.segment.use.setup_for
            if elastic and abs(at.y() - bottom) <= min(GRIP, max(2.0, (bottom - top) / 4)):
                return needle
        return None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        timed = self.session.shown
        if event.button() != Qt.MouseButton.LeftButton or timed is None:
            return
        at = event.position()
        title = next((index for box, index in self.titles if box.contains(at)), None)
        if self.handle_rect().adjusted(-8, -12, 8, 8).contains(at):
            self.held, self.axis_s = "length", timed.length_s
            self._grip = Gesture(at.y(), timed.length_s, self.reach.px_per_s)
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        elif (pulled := self._pull_at(at)) is not None and self.session.node_at(pulled.segment.id):
            self.session.select(pulled.segment.id)
            self.held, self._pressed, self.pulled = "pull", pulled, pulled.segment.amount
            self.axis_s = timed.length_s
        elif title is not None:
            self.section_chosen.emit(title)
        else:
            keys = event.modifiers()
            needle = self.needle_at(at.y())
            inside = needle is not None and self.session.node_at(needle.segment.id) in self.session.picked
            plain = not keys & (Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.ControlModifier)
            if not (inside and plain and len(self.session.picked) > 1):
                self.session.select(
                    needle.segment.id if needle else "",
                    extend=bool(keys & Qt.KeyboardModifier.ShiftModifier),
                    toggle=bool(keys & Qt.KeyboardModifier.ControlModifier),
                )
            self._press, self._pressed = at, needle

    def choose_at(self, at: QPoint) -> None:
        """Chooses the needle at a place, unless it is among those that are chosen."""
        needle = self.needle_at(at.y())
        if needle is not None and self.session.node_at(needle.segment.id) not in self.session.picked:
            self.session.select(needle.segment.id)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = self.sprig_actions = event.position()
        if self.held == "length":
            self.session.try_length(self.asked_at(at.y()))
        elif self.held == "pull":
            self._pull(at.y())
        elif self.held == "move":
            self._carry(at)
        elif self._press is not None and self._pressed is not None and self.session.picked:
            if (at - self._press).manhattanLength() > 8:
                self._lift()
        else:
            self._hover(at)

    def _hover(self, at: QPointF) -> None:
        over = "length" if self.handle_rect().contains(at) else "pull" if self._pull_at(at) else ""
        self._name_under(at)
        shape = {"length": Qt.CursorShape.OpenHandCursor, "pull": Qt.CursorShape.SplitVCursor}
        self.setCursor(shape.get(over, Qt.CursorShape.ArrowCursor))
        if over != self.hovering:
            self.hovering = over
            self.update()

    def leaveEvent(self, event: QEvent) -> None:
        self.under = None
        self.update()

    def event(self, event: QEvent) -> bool:
        if event.type() != QEvent.Type.ToolTip or self.under is None:
            return super().event(event)
        foot = QPoint(round(self.stem_x), round(self.y_at(self.under.segment.end / TICKS_PER_S)) - TIP_GAP)
        QToolTip.showText(self.mapToGlobal(foot), self.toolTip(), self)  # below what it speaks of
        return True

    def _name_under(self, at: QPointF) -> None:
        """The tip names what is under the pointer."""
        needle = self.needle_at(at.y())
        if needle is not self.under:
            self.under = needle
            self.update()
            words = ""
            if needle is not None:
                segment = needle.segment
                side = f", {segment.side}" if segment.side in ("left", "right") else ""
                start = show_length(segment.start / TICKS_PER_S)
                words = f"{segment.name}{side} · {segment.dose} · {start}"
            self.setToolTip(plain_tip(words))

    def _pull(self, y: float) -> None:
        """More or fewer breaths as the end of the needle goes down or up; whole ones."""
        assert self._pressed is not None
        segment = self._pressed.segment
        by = {"clock": 5, "stillness": 5, "rapid": 5}.get(segment.kind, 1)
        units = (self.time_at(y) * TICKS_PER_S - segment.start) / segment.use.unit
        amount = max(by, round(units / by) * by)
        if amount != self.pulled:
            self.pulled = amount
            self.session.try_plan("", self._pulled_plan())
        self.update()

    def _pulled_plan(self) -> Plan:
        assert self._pressed is not None
        assert self.session.plan is not None
        step = self._pressed.segment.use.step
        return with_node(self.session.plan, step.id, amount=self.pulled, least=None, most=None, locked=True)

    def _lift(self) -> None:
        if self.session.plan is not None and self.session.timed is not None:
            self.session.drop_trial()
            self.held = "move"
            self._slots = drop_places(
                self.session.plan, self.session.timed, self.session.teaching_data.library
            )
            self.setCursor(Qt.CursorShape.ClosedHandCursor)

    def _carry(self, at: QPointF) -> None:
        edge = 24 * scale()  # near an edge, the class moves along
        if at.y() < self.reach.top + edge:
            self.reach.scroll(-12)
        elif at.y() > self.reach.top + self.reach.room - edge:
            self.reach.scroll(12)
        within = round(8 / self.reach.px_per_s * TICKS_PER_S)
        deep = abs(at.x() - self.stem_x) < self.needle_room * 0.6
        top, bottom = self.span(self._pressed) if self._pressed is not None else (0.0, 0.0)
        home = top <= at.y() <= bottom  # over its own place nothing moves
        slot = nearest(self._slots, round(self.time_at(at.y()) * TICKS_PER_S), within, deep)
        self.slot = None if home else slot
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, self.held = self.held, ""
        self._press = None
        self.setCursor(Qt.CursorShape.ArrowCursor)
        if held == "length":
            asked = self.asked_at(event.position().y())
            self.session.set_length(asked)
            self.session.drop_trial()
            self._tell_limit(asked)
        elif held == "pull":
            self._let_go_of_pull()
        elif held == "move":
            slot, self.slot = self.slot, None
            if slot is not None:
                self._drop(slot)
        elif self._pressed is not None and not event.modifiers() and len(self.session.picked) > 1:
            self.session.select(self._pressed.segment.id)
        self._pressed = None
        self.fit()
        self.update()

    def _tell_limit(self, asked: float) -> None:
        """Says so where the handle was stopped."""
        lengths = self.session.lengths
        which = {lengths.shortest_s: "shortest", lengths.longest_s: "longest"}.get(asked) if lengths else None
        if which:
            do = (
                "Leave something out, or unlock it."
                if which == "shortest"
                else "Add something, or unlock it."
            )
            self.session.refused.emit(
                Problem(f"{show_length(asked)} is the {which} this class can be.", do=do)
            )

    def _let_go_of_pull(self) -> None:
        assert self._pressed is not None
        segment = self._pressed.segment
        if self.pulled != segment.amount:
            unit = segment.dose.split(" ", 1)[-1] if " " in segment.dose else "seconds"
            self.session.do(f"{self.pulled} {unit} in {segment.use.name}", self._pulled_plan())
        self.session.drop_trial()

    def _drop(self, slot: DropPlace) -> None:
        assert self.session.plan is not None
        try:
            plan = moved(
                self.session.plan, self.session.picked, slot.place, self.session.teaching_data.library
            )
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        if plan != self.session.plan:
            self.session.do(f"Put it {slot.label}", plan)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasFormat(HIT_TYPE) and self.session.plan is not None:
            plan, timed = self.session.plan, self.session.timed
            self._slots = (
                drop_places(plan, timed, self.session.teaching_data.library) if timed is not None else []
            )
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent) -> None:
        self.held = "move"
        self._carry(event.position())
        event.acceptProposedAction()

    def dragLeaveEvent(self, event: QDragLeaveEvent) -> None:
        self.cancel()

    def dropEvent(self, event: QDropEvent) -> None:
        slot, plan = self.slot, self.session.plan
        self.cancel()
        if plan is not None:
            row = int(bytes(event.mimeData().data(HIT_TYPE).data()))
            self.brought.emit(row, slot.place if slot is not None else end_of(plan))
            event.acceptProposedAction()

    def cancel(self) -> bool:
        """Lets go of what the hand has, without doing anything; whether it had something."""
        had, self.held, self.slot, self._press, self._pressed = bool(self.held), "", None, None, None
        self.session.drop_trial()
        self.update()
        return had

    def wheelEvent(self, event: QWheelEvent) -> None:
        use = event.angleDelta().y()
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.reach.zoom(1.25 ** (use / 120), event.position().y())
        else:
            self.reach.scroll(-use)
        self.update()
        event.accept()

    def zoom(self, factor: float) -> None:
        """Closer or further, about what is chosen, or the middle."""
        found = self.session.segment(self.session.selected)
        middle = self.reach.top + self.reach.room / 2
        y = self.y_at(found.start / TICKS_PER_S) if found else middle
        self.reach.zoom(factor, y)
        if found:
            self.reach.show(found.start / TICKS_PER_S, found.end / TICKS_PER_S)
        self.update()

    def show_all(self) -> None:
        """The whole class in view."""
        self.reach.all()
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.reach.zoom(2.5, event.position().y())
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        extend = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        if event.modifiers() & ~(Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier):
            super().keyPressEvent(event)
        elif key in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self._walk(1 if key == Qt.Key.Key_Down else -1, extend)
        elif key in (Qt.Key.Key_Home, Qt.Key.Key_End):
            self._walk(-10_000 if key == Qt.Key.Key_Home else 10_000, extend)
        elif key in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            self.reach.scroll(self.reach.room * (0.8 if key == Qt.Key.Key_PageDown else -0.8))
            self.update()
        elif key == Qt.Key.Key_Left:
            self._outwards()
        elif key == Qt.Key.Key_Right:
            self._inwards()
        else:
            super().keyPressEvent(event)

    def _walk(self, by: int, extend: bool) -> None:
        shown = [needle.segment.id for needle in self.needles if needle.segment.kind != "setup"]
        if not shown:
            return
        here = shown.index(self.session.selected) if self.session.selected in shown else -1 if by > 0 else 0
        self.session.select(shown[max(0, min(len(shown) - 1, here + by))], extend=extend)

    def _outwards(self) -> None:
        """From a step to the pair or rounds around it, and on to its section."""
        plan, picked = self.session.plan, self.session.picked
        if plan is None or not picked:
            return
        group = group_of(plan, picked[0])
        if group:
            self.session.pick(group)
        elif (key := place_of(plan, picked[0]).body).startswith("section "):
            self.section_chosen.emit(int(key.split()[1]))

    def _inwards(self) -> None:
        """From a section to its first part, from a group to its first step."""
        plan = self.session.plan
        if plan is None:
            return
        if self.session.section is not None and (body := plan.sections[self.session.section].body):
            self.session.pick(body[0].id)
        elif self.session.picked:
            inner = children(nodes_of(plan)[self.session.picked[0]])
            if inner:
                self.session.pick(inner[0].id)

    # --- painting ------------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        SprigPainter(self, painter).paint()
