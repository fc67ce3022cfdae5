"""The take station: the class carried through the recording, to be read from three metres.

Nothing in it moves but the breath, the seconds and the moment on the sprig; each has a place of its own, so
that nothing jumps. The pointer does with one button what a clicker does with two.
"""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent

from yewhour.core.lengths import seconds, show_length
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.core.take.moment import Moment
from yewhour.core.take.take import Take
from yewhour.state.takes.interrupted_takes import InterruptedTake, interrupted_takes, leave
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme
from yewhour.ui.take import take_words
from yewhour.ui.take.board import TakeBoard, put
from yewhour.ui.take.rehearsing import Rehearsal
from yewhour.ui.take.sounds import TakeSounds
from yewhour.ui.take.take_keys import TITLES, TakeKeys, key_name
from yewhour.ui.take.take_runner import TakeRunner

FRAME_MS = 16
SIDE_COMES_S = 6.0  # before a side begins it is shown as the next


class TakePage(TakeBoard):
    """Carries the class of a session through a take.

    left: the teacher goes back to the class.
    """

    left = Signal()

    def __init__(self, session: Session, theme: Theme, runner: TakeRunner | None = None) -> None:
        super().__init__(theme)
        self.session = session
        self.runner = runner or TakeRunner(session.jobs)
        self.keys = TakeKeys()
        self.broken: InterruptedTake | None = None
        self.sounds = TakeSounds(self.runner)
        self.rehearsal = Rehearsal()
        self._teaching: str | None = None  # the key that waits for a deed; "" before it was pressed
        self._told = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Take")
        self.runner.changed.connect(self.show_take)
        self.runner.message.connect(self.tell)
        self.sounds.message.connect(self.tell)
        session.made_changed.connect(self.get_ready)
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
        self._told = ""
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

    # --- showing ------------------------------------------------------------------------------------------

    def tell(self, message: str) -> None:
        """Something to be read in the foot."""
        self._told = message
        self.show_take()

    def show_take(self) -> None:
        """What changes only when something happens."""
        runner = self.runner
        if runner.take is not None:
            self.going.show_take(runner.take)
            self.sounds.show_take(runner.take)
        on = runner.state in ("counting", "on")
        self.hints.setText(take_words.key_hints(self.runner, self._teaching))
        if not on:
            self._show_still()
        self._show_now()

    def _show_still(self) -> None:
        """Before the start, and after the end."""
        take, over = self.runner.take, self.runner.state == "over"
        if take is not None:
            self.going.show_at(take.end if over else take.start)
        for band in self.bands.values():
            band.show_side("")
        for one in (self.phase, self.count, self.left_s, self.coming, self.clock):
            one.setText("")
        if take is None:
            self.name.say("")
            self.line.say("There is no class to take yet.")
            self.following.say("Add movements first (Esc, then Ctrl+K).")
            self.late.setText(self._told)
            return
        title = take.solved.plan.brief.title
        leads = take_words.LEADS[self.runner.leads]
        if over:
            self.name.say(title)
            self.line.say(take_words.how_it_ended(take))
            self.following.say("A rehearsal is not kept." if self.runner.rehearsing else "The take is kept.")
        elif self.runner.rehearsing:
            self._show_rehearsal(take)
        elif self.broken is not None:
            self.name.say(self.broken.plan.brief.title)
            self.line.say(f"This take was broken off at {show_length(self.broken.until_s)}.")
            day = self.broken.when.strftime("%A %d %B, %H:%M")
            self.following.say(f"{day}. Enter goes on with it; Delete leaves it as it is, kept.")
        else:
            self.name.say(title)
            self.line.say(take.cues[0].text if take.cues else "")
            length = show_length(seconds(take.target - take.start))
            self.following.say(f"{length}. {leads[0].upper()}{leads[1:]}. Space counts you in.")
        self.late.setText(self._told)

    def _show_rehearsal(self, take: Take) -> None:
        """Where a rehearsal begins, and what it goes through."""
        first = self.rehearsal.begins(take)
        self.name.say(first.use.name)
        self.line.say(next((cue.text for cue in take.cues if cue.start >= first.start), ""))
        self.following.say(self.rehearsal.said(take))
        self.going.show_at(first.start)

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
            face.show_moment(here if runner.state in ("counting", "on") else None, self._mirrors)
        self.sounds.follow(here.at)
        if runner.state == "counting":
            self._show_counting()
        elif runner.state == "on":
            self._show_on(here)

    def _show_counting(self) -> None:
        take = self.runner.take
        assert take is not None
        left = self.runner.counting_s
        self.name.say(take.solved.plan.brief.title)
        put(self.left_s, str(max(1, int(left + 0.999))))
        put(self.coming, "until you begin")
        self.line.say(take.cues[0].text if take.cues else "")
        self.following.say("")
        put(self.late, self._told)

    def _show_on(self, here: Moment) -> None:
        take, segment = self.runner.take, here.segment
        assert take is not None
        if segment is None:
            return
        named = here.coming if segment.use.setup_for and here.coming is not None else segment
        self.name.say(named.use.name)
        self.line.say(here.line.text if here.line is not None else "")
        self.following.say(here.following.text if here.following is not None else "")
        self._show_sides(here)
        put(self.phase, "standing still" if self.runner.standing else take_words.phase_words(here))
        put(self.count, take_words.count_words(here))
        left_s = max(1, -(-int(here.left) // 10))
        put(self.left_s, str(left_s) if left_s < 100 else show_length(left_s))
        put(self.coming, take_words.coming_words(here))
        left = show_length(seconds(max(0, round(take.target - here.at))))
        put(self.clock, f"{left} to go")
        put(self.late, self._told or take_words.late_words(take, here))

    @property
    def _mirrors(self) -> bool:
        """Whether the teacher's own body does the other side than is said."""
        take = self.runner.take
        return take is not None and take.solved.prepared.school.mirror

    def _show_sides(self, here: Moment) -> None:
        """The side that is said, at the edge where the teacher's own body does it."""
        segment = here.segment
        assert segment is not None
        sides = [segment.side] if segment.side in ("left", "right") else []
        if segment.side == "alternating":
            sides = ["left", "right"]
        coming = False
        if not sides and here.coming is not None and here.left < SIDE_COMES_S * 10:
            sides, coming = [one for one in (here.coming.side,) if one in ("left", "right")], True
        coming = coming or bool(segment.use.setup_for)
        for at, band in self.bands.items():
            said = {"left": "right", "right": "left"}[at] if self._mirrors else at
            band.show_side(said if said in sides else "", coming)

    # --- the hands ----------------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = key_name(event)
        if not key or event.isAutoRepeat():
            return
        if self._teaching is not None:
            self._teach(key)
            return
        if self.broken is not None and self.runner.state == "ready" and key in ("Return", "Del"):
            self._broken_off(key == "Return")
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
        self._told = ""
        doing: dict[str, Callable[[], object]] = {
            "stand": self._stand, "waits": self._wait, "darker": self.next_light, "leave": self._leave,
            "voice": self.sounds.next_in_ear, "note": self._note,
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
        else:
            if runner.state == "over":
                self.get_ready()
            if runner.rehearsing and runner.take is not None:
                runner.stretches = self.rehearsal.stretches(runner.take)
                runner.speed = self.rehearsal.speed
            try:
                runner.count_in()
            except Problem as problem:
                self.tell(str(problem))

    def _wait(self) -> None:
        order = list(take_words.LEADS)
        self.runner.leads = order[(order.index(self.runner.leads) + 1) % len(order)]
        leads = take_words.LEADS[self.runner.leads]
        self.tell(f"{leads[0].upper()}{leads[1:]}.")
        if self.runner.state == "on":
            self.sounds.listen()

    def _leave(self) -> None:
        """Stands still first, then ends; before the start and after the end, back to the class."""
        runner = self.runner
        if runner.state == "counting":
            runner.leave_off()
        elif runner.state == "on" and not runner.standing:
            runner.stop()
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
        """A press anywhere goes on, the other button gives one more; before the start it starts."""
        if self.runner.state in ("ready", "over"):
            self.do("stand")
        else:
            self.do("next" if event.button() == Qt.MouseButton.LeftButton else "again")

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.runner.state == "on" and event.angleDelta().y():
            self.do("again" if event.angleDelta().y() > 0 else "fewer")
