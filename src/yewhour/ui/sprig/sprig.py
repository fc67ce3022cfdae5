"""The sprig: the class as a yew sprig. Time runs down the stem, with a length handle at its tip.

Work on the left is a needle to the left, on the right a needle to the right, on both sides a pair;
stillness is bare stem; a red aril marks each change of side. It is put together from the scene (what is
where), a hit map (what is under the pointer), gestures (what a hand does) and a painter.
"""

from __future__ import annotations

from PySide6.QtCore import QEvent, QPoint, QSize, Qt, Signal
from PySide6.QtGui import (
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QHelpEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.plan.nodes import children
from yewhour.core.plan.places import SectionBody, end_of, group_of, nodes_of, place_of
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import plain_tip
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.sprig.gestures import Gestures
from yewhour.ui.sprig.picture.drop_places import HIT_TYPE
from yewhour.ui.sprig.picture.hit_map import HitMap, signs_of
from yewhour.ui.sprig.picture.painter import SprigPainter
from yewhour.ui.sprig.picture.scene import Scene

TIP_GAP = 14  # pixels: Qt puts a tip so much further down than it is asked to, less a little


class Sprig(QWidget):
    """Shows the session's class, to be handled.

    section_chosen: by its title or from within it. brought: a result's row, and where it was let go of.
    """

    section_chosen = Signal(int)
    brought = Signal(int, object)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.scene = Scene(session, theme)
        self.hits = HitMap(self.scene)
        self.gestures = Gestures(session, self.scene, self.hits)
        self._named: object = None  # the needle that the tip names
        self.setObjectName("sprig")
        self.setAccessibleName("Sprig: the class from top to bottom")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        session.made_changed.connect(self.refresh)
        session.selected_changed.connect(self._show_chosen)
        self.gestures.changed.connect(self._changed)
        self.gestures.shaped.connect(self.setCursor)
        self.gestures.section_chosen.connect(self.section_chosen)

    def sizeHint(self) -> QSize:
        return QSize(round(560 * min(scale(), 1.25)), 600)

    def minimumSizeHint(self) -> QSize:
        return QSize(300, 300)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.scene.theme = theme
        self.fit()
        self.update()

    def refresh(self) -> None:
        """Takes the class as it is shown now."""
        self.scene.refresh()
        self.fit()
        self.update()

    def fit(self) -> None:
        """Makes the scale fit the class; it holds still under a hand."""
        self.scene.width, self.scene.height = float(self.width()), float(self.height())
        self.scene.fit(self.scene.axis_s if self.gestures.holds_scale else 0.0)

    def _show_chosen(self, segment: str) -> None:
        self.scene.mark_chosen()
        found = self.session.segment(segment)
        if found is not None and not self.gestures.held:
            self.scene.viewport.show(found.start / TICKS_PER_S, found.end / TICKS_PER_S)
            side = f", {found.side}" if found.side in ("left", "right") else ""
            self.setAccessibleDescription(
                f"{found.name}{side}, {found.dose}, at {show_length(found.start / TICKS_PER_S)}"
            )
        self.update()

    # --- the hand -----------------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.gestures.press(event.position(), event.modifiers())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.gestures.move(event.position())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.gestures.release(event.position(), event.modifiers())

    def leaveEvent(self, event: QEvent) -> None:
        self.gestures.leave()

    def cancel(self) -> bool:
        """Lets go of what is held, without doing anything; whether something was."""
        return self.gestures.cancel()

    def choose_at(self, at: QPoint) -> None:
        """Chooses the needle at a place, unless it is among those that are chosen."""
        needle = self.hits.needle_at(at.y())
        if needle is not None and self.session.node_at(needle.segment.id) not in self.session.picked:
            self.session.select(needle.segment.id)

    def _changed(self) -> None:
        """The tip names what is under the pointer."""
        needle = self.gestures.under
        if needle is not self._named:
            self._named, words = needle, ""
            if needle is not None:
                segment = needle.segment
                side = f", {segment.side}" if segment.side in ("left", "right") else ""
                start = show_length(segment.start / TICKS_PER_S)
                signs = f". {meant}" if (meant := signs_of(needle)) else ""
                words = f"{segment.name}{side} · {segment.dose} · {start}{signs}"
            self.setToolTip(plain_tip(words))
        self.update()

    def event(self, event: QEvent) -> bool:
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            about = self.hits.strip_at(event.pos().toPointF())
            if about:
                QToolTip.showText(event.globalPos(), plain_tip(about), self)
                return True
        under = self.gestures.under if event.type() == QEvent.Type.ToolTip else None
        if under is None:
            return super().event(event)
        y = round(self.scene.y_at(under.segment.end / TICKS_PER_S)) - TIP_GAP
        foot = QPoint(round(self.scene.stem_x), y)
        QToolTip.showText(self.mapToGlobal(foot), self.toolTip(), self)  # below what it speaks of
        return True

    # --- what is dragged in from elsewhere ----------------------------------------------------------------

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasFormat(HIT_TYPE) and self.session.plan is not None:
            self.gestures.find_places()
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent) -> None:
        self.gestures.carry_in(event.position())
        event.acceptProposedAction()

    def dragLeaveEvent(self, event: QDragLeaveEvent) -> None:
        self.cancel()

    def dropEvent(self, event: QDropEvent) -> None:
        slot, plan = self.gestures.slot, self.session.plan
        self.cancel()
        if plan is not None:
            row = int(bytes(event.mimeData().data(HIT_TYPE).data()))
            self.brought.emit(row, slot.place if slot is not None else end_of(plan))
            event.acceptProposedAction()

    # --- nearer, further, along ---------------------------------------------------------------------------

    def wheelEvent(self, event: QWheelEvent) -> None:
        turned = event.angleDelta().y()
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.scene.viewport.zoom(1.25 ** (turned / 120), event.position().y())
        else:
            self.scene.viewport.scroll(-turned)
        self.update()
        event.accept()

    def zoom(self, factor: float) -> None:
        """Closer or further, about what is chosen, or the middle."""
        view = self.scene.viewport
        found = self.session.segment(self.session.selected)
        y = self.scene.y_at(found.start / TICKS_PER_S) if found else view.top + view.room / 2
        view.zoom(factor, y)
        if found:
            view.show(found.start / TICKS_PER_S, found.end / TICKS_PER_S)
        self.update()

    def show_all(self) -> None:
        """The whole class in view."""
        self.scene.viewport.all()
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.scene.viewport.zoom(2.5, event.position().y())
        self.update()

    # --- keys ---------------------------------------------------------------------------------------------

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
            self.scene.viewport.scroll(
                self.scene.viewport.room * (0.8 if key == Qt.Key.Key_PageDown else -0.8)
            )
            self.update()
        elif key == Qt.Key.Key_Left:
            self._outwards()
        elif key == Qt.Key.Key_Right:
            self._inwards()
        else:
            super().keyPressEvent(event)

    def _walk(self, by: int, extend: bool) -> None:
        shown = [needle.segment.id for needle in self.scene.needles if not needle.segment.behaviour.is_setup]
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
        elif isinstance(key := place_of(plan, picked[0]).body, SectionBody):
            self.section_chosen.emit(key.index)

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

    # --- painting -----------------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        SprigPainter(painter, self.scene, self.hits, self.gestures, self.hasFocus()).paint()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()
