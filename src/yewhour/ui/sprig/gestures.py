"""Gestures: what a hand does to the sprig. The tip is drawn for the length, a needle's end for more or fewer
breaths, a needle itself to be put elsewhere. What is done goes to the session; how it looks is the painter's.
"""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QObject, QPointF, Qt, Signal

from yewhour.core.edits.arrange import moved, with_node
from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.timing.doses import amount_range
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import scale
from yewhour.ui.sprig.picture.drop_places import DropPlace, drop_places, nearest
from yewhour.ui.sprig.picture.hit_map import HitMap
from yewhour.ui.sprig.picture.needles import Needle
from yewhour.ui.sprig.picture.scene import Scene

STEP_S = 5.0  # the handle moves in steps of this
FAR = 60.0  # pixels below where it was, at which the length handle goes twice as fast
MOST_PULLED = 2  # times what a movement has at most: further no hand means to pull
LIFTS = 8  # pixels that a pressed needle is moved before it is carried


class Gesture(NamedTuple):
    """Where the length handle was taken hold of: a height, the seconds there, and pixels a second."""

    y: float
    length_s: float
    px_per_s: float


class Gestures(QObject):
    """One hand's gesture after another. changed: something looks otherwise. section_chosen: by its title."""

    changed = Signal()
    shaped = Signal(Qt.CursorShape)
    section_chosen = Signal(int)

    def __init__(self, session: Session, scene: Scene, hits: HitMap) -> None:
        super().__init__()
        self.session, self.scene, self.hits = session, scene, hits
        self.held = ""  # "length", "pull", "move" or nothing
        self.hovering = ""  # "length" or "pull"
        self.under: Needle | None = None  # beneath the pointer
        self.slot: DropPlace | None = None  # where what is carried would go
        self.pointer = QPointF()
        self.pulled = 0
        self._slots: list[DropPlace] = []
        self._press: QPointF | None = None
        self._pressed: Needle | None = None
        self._grip = Gesture(0.0, 0.0, 1.0)

    @property
    def holds_scale(self) -> bool:
        """Whether the scale is to stay as it is under the hand."""
        return self.held in ("length", "pull")

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

    def press(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        """The button goes down."""
        timed = self.session.shown
        if timed is None:
            return
        title = self.hits.section_at(at)
        if self.hits.on_handle(at):
            self.held, self.scene.axis_s = "length", timed.length_s
            self._grip = Gesture(at.y(), timed.length_s, self.scene.viewport.px_per_s)
            self.shaped.emit(Qt.CursorShape.ClosedHandCursor)
        elif (pulled := self.hits.pull_at(at)) is not None and self.session.node_at(pulled.segment.id):
            self.session.select(pulled.segment.id)
            self.held, self._pressed, self.pulled = "pull", pulled, pulled.segment.amount
            self.scene.axis_s = timed.length_s
        elif title is not None:
            self.section_chosen.emit(title)
        else:
            needle = self.hits.needle_at(at.y())
            inside = needle is not None and self.session.node_at(needle.segment.id) in self.session.picked
            plain = not keys & (Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.ControlModifier)
            if not (inside and plain and len(self.session.picked) > 1):
                self.session.select(
                    needle.segment.id if needle else "",
                    extend=bool(keys & Qt.KeyboardModifier.ShiftModifier),
                    toggle=bool(keys & Qt.KeyboardModifier.ControlModifier),
                )
            self._press, self._pressed = at, needle

    def move(self, at: QPointF) -> None:
        """The pointer is here."""
        self.pointer = at
        if self.held == "length":
            self.session.try_length(self.asked_at(at.y()))
        elif self.held == "pull":
            self._pull(at.y())
        elif self.held == "move":
            self._carry(at)
        elif self._press is not None and self._pressed is not None and self.session.picked:
            if (at - self._press).manhattanLength() > LIFTS:
                self._lift()
        else:
            self._hover(at)

    def _hover(self, at: QPointF) -> None:
        over = "length" if self.hits.handle_rect().contains(at) else "pull" if self.hits.pull_at(at) else ""
        needle = self.hits.needle_at(at.y())
        shape = {"length": Qt.CursorShape.SizeVerCursor, "pull": Qt.CursorShape.SplitVCursor}
        carried = needle is not None and self.session.node_at(needle.segment.id)
        body = Qt.CursorShape.OpenHandCursor if carried else Qt.CursorShape.ArrowCursor
        self.shaped.emit(shape.get(over, body))
        if over != self.hovering or needle is not self.under:
            self.hovering, self.under = over, needle
            self.changed.emit()

    def leave(self) -> None:
        """The pointer is elsewhere."""
        self.under = None
        self.changed.emit()

    def _pull(self, y: float) -> None:
        """More or fewer breaths as the end of the needle goes down or up; whole ones."""
        assert self._pressed is not None
        segment = self._pressed.segment
        by = {"clock": 5, "stillness": 5, "rapid": 5}.get(segment.kind, 1)
        units = (self.scene.time_at(y) * TICKS_PER_S - segment.start) / segment.use.unit
        range_of = amount_range(segment.use.step, segment.use.movement, segment.use.kind)
        most = max(MOST_PULLED * range_of.most, segment.amount)
        amount = min(max(by, round(units / by) * by), max(by, most // by * by))
        if amount != self.pulled:
            self.pulled = amount
            self.session.try_plan("", self._pulled_plan())
        self.changed.emit()

    def _pulled_plan(self) -> Plan:
        assert self._pressed is not None
        assert self.session.plan is not None
        step = self._pressed.segment.use.step
        return with_node(self.session.plan, step.id, amount=self.pulled, least=None, most=None, locked=True)

    def _lift(self) -> None:
        if self.session.plan is not None and self.session.timed is not None:
            self.session.drop_trial()
            self.held = "move"
            self.find_places()
            self.shaped.emit(Qt.CursorShape.ClosedHandCursor)

    def find_places(self) -> None:
        """Finds every place where something could be put."""
        plan, timed = self.session.plan, self.session.timed
        library = self.session.teaching_data.library
        self._slots = drop_places(plan, timed, library) if plan is not None and timed is not None else []

    def carry_in(self, at: QPointF) -> None:
        """Something from elsewhere is carried over the sprig."""
        self.held, self.pointer = "move", at
        self._carry(at)

    def _carry(self, at: QPointF) -> None:
        edge = 24 * scale()  # near an edge, the class moves along
        if at.y() < self.scene.viewport.top + edge:
            self.scene.viewport.scroll(-12)
        elif at.y() > self.scene.viewport.top + self.scene.viewport.room - edge:
            self.scene.viewport.scroll(12)
        within = round(8 / self.scene.viewport.px_per_s * TICKS_PER_S)
        deep = abs(at.x() - self.scene.stem_x) < self.scene.needle_room * 0.6
        top, bottom = self.scene.span(self._pressed) if self._pressed is not None else (0.0, 0.0)
        home = top <= at.y() <= bottom  # over its own place nothing moves
        slot = nearest(self._slots, round(self.scene.time_at(at.y()) * TICKS_PER_S), within, deep)
        self.slot = None if home else slot
        self.changed.emit()

    def release(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        """The button comes up: what was held is done."""
        held, self.held = self.held, ""
        self._press = None
        self.shaped.emit(Qt.CursorShape.ArrowCursor)
        if held == "length":
            asked = self.asked_at(at.y())
            self.session.set_length(asked)
            self.session.drop_trial()
            self._tell_limit(asked)
        elif held == "pull":
            self._let_go_of_pull()
        elif held == "move":
            slot, self.slot = self.slot, None
            if slot is not None:
                self._drop(slot)
        elif self._pressed is not None and not keys and len(self.session.picked) > 1:
            self.session.select(self._pressed.segment.id)
        self._pressed = None
        self.scene.fit()
        self.changed.emit()

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

    def cancel(self) -> bool:
        """Lets go of what is held, without doing anything; whether it had something."""
        had, self.held, self.slot, self._press, self._pressed = bool(self.held), "", None, None, None
        self.session.drop_trial()
        self.changed.emit()
        return had
