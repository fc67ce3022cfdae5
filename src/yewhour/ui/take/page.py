"""The take station: the class carried through the recording, to be read from three metres.

Nothing in it moves but the breath, the seconds and the moment on the sprig; each has a place of its own, so
that nothing jumps. The pointer does with one button what a clicker does with two.
"""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent

from yewhour.background.sleep import KeptAwake
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.state.takes.before_taking import before_taking
from yewhour.state.takes.interrupted_takes import InterruptedTake, interrupted_takes, leave
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme
from yewhour.ui.take import take_words
from yewhour.ui.take.board import TakeBoard
from yewhour.ui.take.notifications import KeptQuiet
from yewhour.ui.take.rehearsing import Rehearsal
from yewhour.ui.take.showing import TakeShowing
from yewhour.ui.take.sound.take_sounds import TakeSounds
from yewhour.ui.take.take_keys import TITLES, TakeKeys, key_name
from yewhour.ui.take.take_runner import TakeRunner

FRAME_MS = 16
LONG_MS = 700  # of a press that is no short one
# What keys do while the class stands still, besides going on as usual.
STANDING: dict[str, Callable[[TakeRunner], object]] = {
    "C": lambda runner: runner.go_on_now("cut"),
    "F": lambda runner: runner.go_on_now("film"),
    "S": lambda runner: runner.go_on_now("camera"),
    "Up": lambda runner: runner.from_elsewhere(1),
    "Down": lambda runner: runner.from_elsewhere(-1),
}


CLICKED = ("next", "again", "fewer", "back", "skip", "note")  # tried before the start, as with a clicker


class TakePage(TakeBoard):
    """Carries the class of a session through a take.

    left: the teacher goes back to the class. looked_back: she goes to look back at the take.
    """

    left = Signal()
    looked_back = Signal()

    def __init__(self, session: Session, theme: Theme, runner: TakeRunner | None = None) -> None:
        super().__init__(theme)
        self.session = session
        self.runner = runner or TakeRunner(session.jobs)
        self.keys = TakeKeys()
        self.broken: InterruptedTake | None = None
        self.sounds = TakeSounds(self.runner)
        self.rehearsal = Rehearsal()
        self._teaching: str | None = None  # the key that waits for a deed; "" before it was pressed
        self.showing = TakeShowing(self, self.runner, lambda: self.runner.clock())
        self.showing.wanting, self.showing.turned_on = self._wanting, self.sounds.turned_on
        self.awake, self.quiet = KeptAwake(), KeptQuiet()
        for one in (self.awake, self.quiet):
            self.runner.begun.connect(lambda _, one=one: one.begin())
            self.runner.over.connect(one.end)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Take")
        self.runner.changed.connect(self.show_take)
        self.runner.message.connect(self.tell)
        self.runner.done.connect(self.showing.done)
        self.runner.done.connect(lambda _: self.sounds.sign())
        self.runner.slept.connect(self.sounds.sign)
        self.sounds.message.connect(self.tell)
        session.made_changed.connect(self.get_ready)
        self._long = QTimer(self)
        self._long.setSingleShot(True)
        self._long.setInterval(LONG_MS)
        self._long.timeout.connect(self._lasted)
        self.frames = QTimer(self)
        self.frames.setTimerType(Qt.TimerType.PreciseTimer)
        self.frames.setInterval(FRAME_MS)
        self.frames.timeout.connect(self.frame)

    # --- coming and going ---------------------------------------------------------------------------------

    def leave(self) -> None:
        """Another station takes its place; a take that is on stays on."""

    def enter(self) -> None:
        """Comes to the station."""
        self.get_ready()
        self.setFocus()

    def get_ready(self) -> None:
        """Takes the class as it is now, unless one is being taken."""
        session, runner = self.session, self.runner
        if runner.state in ("counting", "on") or not self.isVisible():
            return
        if session.solved is not None and session.timed is not None and not session.refusal:
            runner.prepare(session.solved, session.timed)
        self.broken = next(iter(interrupted_takes()), None)
        self.showing.told = ""
        self.show_take()

    def showEvent(self, event: object) -> None:
        self.get_ready()
        self.frames.start()

    def hideEvent(self, event: object) -> None:
        self.frames.stop()

    @property
    def busy(self) -> bool:
        """Whether a take is on."""
        return self.runner.state in ("counting", "on")

    def shut(self) -> None:
        """When the window closes."""
        self.frames.stop()
        self.runner.close()
        self.sounds.close()
        self.awake.end()
        self.quiet.end()

    def _wanting(self, length_s: float) -> list[str]:
        """What a take of so long lacks, before the camera."""
        said = before_taking().wanting(length_s, self.sounds.records)
        held = {"sleep": self.awake.able, "notifications": self.quiet.able}
        if loose := [one for one, able in held.items() if not able]:
            what = " and ".join(loose)
            said.append(f"{what[0].upper()}{what[1:]} can't be held off here; that is yours to do.")
        return said

    # --- showing ------------------------------------------------------------------------------------------

    def tell(self, message: str) -> None:
        """Something to be read in the foot."""
        self.showing.told = message
        self.show_take()

    def show_take(self) -> None:
        """What changes only when something happens."""
        runner = self.runner
        if runner.take is not None:
            self.going.show_take(runner.take)
            self.sounds.show_take(runner.take)
        on = runner.state in ("counting", "on")
        hints = take_words.key_hints(self.runner, self._teaching, self.broken is not None)
        self.hints.setText(take_words.unbroken(hints))
        if not on:
            self.stand_out(False)
            self.showing.show_still(self.broken, self.rehearsal)
        self._show_now()

    def frame(self) -> None:
        """Goes on with the clock."""
        self.runner.tick()
        self._show_now()

    def _show_now(self) -> None:
        """What changes with the clock."""
        runner = self.runner
        here = runner.here()
        if here is None or runner.take is None:
            return
        if self.busy:
            self.going.show_at(here.at)
        self.pacer.show_moment(here)
        for face in (self.figure, self.next_figure):
            face.show_moment(here if runner.state in ("counting", "on") else None, self.showing.mirrors)
        self.sounds.follow(here.at)
        self.showing.show_now(here)

    # --- the hands ----------------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = key_name(event)
        if not key or event.isAutoRepeat():
            return
        if self._teaching is not None:
            self._teach(key)
            return
        if self.broken is not None and self.runner.state == "ready" and key in ("Return", "Space", "Del"):
            self._broken_off(key != "Del")
            return
        if self.runner.state == "over" and not self.runner.rehearsing and key in ("Return", "F11"):
            self.looked_back.emit()
            return
        if self.runner.standing and key in STANDING:
            STANDING[key](self.runner)
            self._show_now()
            return
        command = self.keys.command(key)
        from_by = {"again": -1, "fewer": 1}.get(command, 0)
        if from_by and not self.busy and self.runner.rehearsing:
            self._rehearse_otherwise("from", from_by)
        elif not command and key.isdigit() and self.runner.choices:
            self.runner.choose(int(key) - 1)
        elif command:
            self.do(command)
        elif key.startswith("F") and key[1:].isdigit():
            event.ignore()
        elif not self.busy:
            self._teaching = key
            self.show_take()

    def do(self, command: str) -> None:
        """Does one of the deeds of a take."""
        self.showing.told = ""
        if command in CLICKED and self.runner.state == "ready" and not self.runner.rehearsing:
            self.tell(f"That works: in the take it is “{TITLES[command]}”.")
            return
        doing: dict[str, Callable[[], object]] = {
            "stand": self._stand, "waits": self._wait, "darker": self.next_light, "leave": self._leave,
            "voice": self.sounds.next_in_ear, "note": self._note, "call": self.sounds.next_call,
        }  # fmt: skip
        before: dict[str, Callable[[], object]] = {
            "teach": self._begin_teaching, "rehearse": self._rehearse,
            "microphone": self.sounds.record_or_not,
        }  # fmt: skip
        if command in before:
            if not self.busy:
                before[command]()
        elif command in ("speed", "only"):
            self._rehearse_otherwise(command)
        elif command in doing:
            doing[command]()
        else:
            self.runner.act(command)  # type: ignore[arg-type]

    def _note(self) -> None:
        self.runner.act("note", "noted")
        self.tell("Noted.")

    def _rehearse(self) -> None:
        """Rehearses, or takes."""
        self.runner.rehearsing = not self.runner.rehearsing
        self.rehearsal = Rehearsal()
        self.get_ready()

    def _rehearse_otherwise(self, what: str, by: int = 0) -> None:
        """At another speed, only some of it, or from another movement on."""
        take = self.runner.take
        if self.busy or not self.runner.rehearsing or take is None:
            return
        if what == "speed":
            self.rehearsal.next_speed()
        elif what == "only":
            self.rehearsal.next_which(take)
        else:
            self.rehearsal.first += by
        self.show_take()

    def _stand(self) -> None:
        """Starts, stands still, or goes on."""
        runner = self.runner
        if runner.state == "counting":
            runner.leave_off()
        elif runner.state == "on":
            runner.stand_or_go()
        elif runner.state == "over":
            self.get_ready()  # and only the next press begins another
        else:
            if runner.rehearsing and runner.take is not None:
                runner.stretches = self.rehearsal.stretches(runner.take)
                runner.speed = self.rehearsal.speed
            try:
                runner.count_in()
            except Problem as problem:
                self.tell(str(problem))

    def _wait(self) -> None:
        order = list(take_words.LEADS)
        self.runner.leading.leads = order[(order.index(self.runner.leading.leads) + 1) % len(order)]
        leads = take_words.LEADS[self.runner.leading.leads]
        self.tell(f"{leads[0].upper()}{leads[1:]}.")
        if self.runner.state == "on":
            self.sounds.listen()

    def _leave(self) -> None:
        """Stands still first, then ends; before the start and after the end, back to the class."""
        runner = self.runner
        if runner.state == "counting":
            runner.leave_off()
        elif runner.overtime:
            runner.stand_or_go()
        elif runner.state == "on" and not runner.standing:
            runner.act("pause")
        elif runner.state == "on":
            runner.act("end")
        else:
            self.left.emit()

    def _broken_off(self, go_on: bool) -> None:
        broken, self.broken = self.broken, None
        assert broken is not None
        if not go_on:
            leave(broken)
            self.get_ready()
            return
        try:
            self.runner.go_on(broken, solve(broken.plan, self.session.teaching_data))
        except Problem as problem:
            self.tell(str(problem))

    def _begin_teaching(self) -> None:
        self._teaching = ""
        self.show_take()

    def _teach(self, key: str) -> None:
        """A key is pressed to be taught, then the key whose deed it gets."""
        if self._teaching == "":
            self._teaching = key
        else:
            command = self.keys.command(key)
            taught, self._teaching = self._teaching, None
            if command and command != "leave" and taught:
                self.keys.teach(taught, command)
                self.tell(f"{taught} now does this: {TITLES[command]}.")
        self.show_take()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A press is done when it ends, or when it has lasted."""
        self._long.start()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """A press anywhere goes on, the other button gives one more; before the start it starts, after the
        end it does nothing."""
        if not self._long.isActive():
            return  # it has lasted, and was something else
        self._long.stop()
        if self.runner.state == "ready" and self.broken is None:
            self.do("stand")
        elif self.runner.state == "on":
            self.do("next" if event.button() == Qt.MouseButton.LeftButton else "again")

    def _lasted(self) -> None:
        """A long press anywhere stands still, or goes on."""
        if self.runner.state == "on":
            self.do("stand")

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.runner.state == "on" and event.angleDelta().y():
            self.do("again" if event.angleDelta().y() > 0 else "fewer")
