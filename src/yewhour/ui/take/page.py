"""The take station: the class carried through the recording, to be read from three metres.

Nothing in it moves but the breath, the seconds and the moment on the sprig; each has a place of its own, so
that nothing jumps. The pointer does with one button what a clicker does with two.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtCore import QRectF, Qt, QTimer, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QWheelEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from yewhour.core.lengths import seconds, show_length
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.core.take.moment import Moment
from yewhour.core.take.rehearsal import ONLY, beginnings, stretches
from yewhour.core.take.take import Take
from yewhour.store.broken import Broken, broken_takes, leave
from yewhour.store.rehearsed import stumbled_in
from yewhour.store.terms import load_voice
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import DARK, DIM, LIGHT, Theme, font
from yewhour.ui.take import words
from yewhour.ui.take.conductor import COUNT_IN_S, Conductor, Leads
from yewhour.ui.take.faces import Face, GoingBy, Pacer, SideBand
from yewhour.ui.take.keys import TITLES, TakeKeys, key_name

FRAME_MS = 16
SIZES = (56.0, 50.0, 46.0, 42.0, 38.0, 34.0, 30.0, 26.0, 22.0, 18.0)
LEADS: dict[Leads, str] = {
    "clock": "the clock leads",
    "me": "you lead, it waits for you",
    "voice": "your voice leads, where it is heard",
}
SIDE_COMES_S = 6.0  # before a side begins it is shown as the next
KEYS_ON = "→ go on   ↑ one more   ↓ one fewer   ← back to its start   Space stand still   Esc stop"
KEYS_READY = (
    "Space starts   R rehearse   V voice   M record   L who leads   D dark   K teach a key   Esc back"
)
KEYS_REHEARSAL = (
    "Space begins   ↑ ↓ from where   O only some   S speed   V voice   R a take instead   Esc back"
)


class Line(Face):
    """Words as large as their room lets them be."""

    def __init__(self, theme: Theme, largest: float, soft: bool = False) -> None:
        super().__init__(theme)
        self.largest, self.soft, self.text = largest, soft, ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def say(self, text: str) -> None:
        """Other words."""
        if text != self.text:
            self.text = text
            self.setAccessibleName(text)
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag(Qt.TextFlag.TextWordWrap)
        flags |= Qt.AlignmentFlag.AlignTop
        box = QRectF(self.rect())
        for size in (one for one in SIZES if one <= self.largest):
            painter.setFont(font(size, bold=not self.soft))
            if painter.boundingRect(box, flags, self.text).height() <= box.height():
                break
        painter.setPen(QColor(self.theme.soft if self.soft else self.theme.ink))
        painter.drawText(box, flags, self.text)


class TakePage(QWidget):
    """Carries the class of a session through a take.

    left: the teacher goes back to the class.
    """

    left = Signal()
    _heard = Signal(str)  # told by the sound's own thread

    def __init__(self, session: Session, theme: Theme, conductor: Conductor | None = None) -> None:
        super().__init__()
        self.session, self.theme = session, theme
        self.conductor = conductor or Conductor()
        self.keys = TakeKeys()
        self.broken: Broken | None = None
        self.device = ""  # that is played on: the usual one
        self.prompter: Any = None  # made when something is to be heard
        self.records = False
        self.follower: Any = None  # while her voice leads
        self.microphone: Any = None  # while sound is recorded
        self._teaching: str | None = None  # the key that waits for a deed; "" before it was pressed
        self._first, self._which = 0, "all"  # of a rehearsal: with which movement, and what of it
        self._told = ""
        self._prompted: Take | None = None
        self._given, self._light = theme, 0
        self.setObjectName("page")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Take")
        self._build()
        self.conductor.changed.connect(self.show_take)
        self.conductor.told.connect(self.tell)
        self.conductor.begun.connect(self._record)
        self.conductor.over.connect(self._stop_recording)
        self._heard.connect(self.tell)
        session.made_changed.connect(self.get_ready)
        self.frames = QTimer(self)
        self.frames.setTimerType(Qt.TimerType.PreciseTimer)
        self.frames.setInterval(FRAME_MS)
        self.frames.timeout.connect(self.frame)

    # --- building -----------------------------------------------------------------------------------------

    def _build(self) -> None:
        self.going = GoingBy(self.theme)
        self.bands = {"left": SideBand(self.theme, "left"), "right": SideBand(self.theme, "right")}
        self.name, self.clock = Line(self.theme, 34.0), QLabel()
        self.line, self.following = Line(self.theme, 56.0), Line(self.theme, 24.0, soft=True)
        self.pacer = Pacer(self.theme)
        self.phase, self.count, self.left_s, self.coming, self.late, self.hints = (QLabel() for _ in range(6))
        for one in (self.phase, self.count, self.left_s, self.coming, self.late, self.hints, self.clock):
            one.setTextFormat(Qt.TextFormat.PlainText)
        self.clock.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.left_s.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.coming.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        self.coming.setWordWrap(True)
        self.count.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.hints.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        top = QHBoxLayout()
        top.addWidget(self.name, 1)
        top.addWidget(self.clock)
        breath = QGridLayout()
        breath.addWidget(self.phase, 0, 0)
        breath.addWidget(self.count, 0, 1)
        breath.addWidget(self.pacer, 1, 0, 1, 2)
        breath.setColumnStretch(0, 1)
        breath.setRowStretch(1, 1)
        breath.setVerticalSpacing(0)
        change = QVBoxLayout()
        change.addStretch(1)
        change.addWidget(self.left_s)
        change.addWidget(self.coming)
        below = QHBoxLayout()
        below.setSpacing(36)
        below.addLayout(breath, 5)
        below.addLayout(change, 3)
        middle = QVBoxLayout()
        middle.setSpacing(6)
        middle.addLayout(top, 3)
        middle.addWidget(self.line, 11)
        middle.addWidget(self.following, 4)
        middle.addLayout(below, 10)
        across = QHBoxLayout()
        across.setSpacing(18)
        across.addWidget(self.bands["left"])
        across.addLayout(middle, 1)
        across.addWidget(self.bands["right"])
        foot = QHBoxLayout()
        foot.addWidget(self.late, 1)
        foot.addWidget(self.hints)
        main = QVBoxLayout()
        main.setContentsMargins(0, 14, 14, 10)
        main.addLayout(across, 1)
        main.addLayout(foot)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(10)
        whole.addWidget(self.going)
        whole.addLayout(main, 1)
        self.set_theme(self.theme)

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self._given = theme
        shades = (LIGHT, DARK, DIM) if theme is LIGHT else (DARK, DIM, LIGHT)
        self.theme = theme = shades[self._light]
        self.setStyleSheet(f"#page {{ background: {theme.paper}; }}")
        for face in (self.going, self.name, self.line, self.following, self.pacer, *self.bands.values()):
            face.set_theme(theme)
        for one, size, colour in (
            (self.clock, 26.0, theme.ink), (self.phase, 38.0, theme.ink), (self.count, 38.0, theme.ink),
            (self.left_s, 84.0, theme.ink), (self.coming, 22.0, theme.soft), (self.late, 24.0, theme.ink),
            (self.hints, 12.0, theme.soft),
        ):  # fmt: skip
            one.setFont(font(size, bold=size > 25))
            one.setStyleSheet(f"color: {colour}; font-size: {font(size).pointSizeF():.1f}pt;")
        self.left_s.setFixedHeight(round(self.left_s.fontMetrics().height() * 0.95))
        self.coming.setFixedHeight(self.coming.fontMetrics().height() * 2)
        self.clock.setMinimumWidth(self.clock.fontMetrics().horizontalAdvance("0:00:00 to go"))

    # --- coming and going ---------------------------------------------------------------------------------

    def take_focus(self) -> None:
        """Comes to the station."""
        self.get_ready()
        self.setFocus()

    def get_ready(self) -> None:
        """Takes the class as it is now, unless one is being taken."""
        session, conductor = self.session, self.conductor
        if conductor.state in ("counting", "on") or not self.isVisible():
            return
        if session.solved is not None and session.made is not None and not session.refusal:
            conductor.prepare(session.solved, session.made)
        self.broken = next(iter(broken_takes()), None)
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
        return self.conductor.state in ("counting", "on")

    def close_take(self) -> None:
        """When the window closes."""
        self.frames.stop()
        self.conductor.close()
        if self.prompter is not None:
            self.prompter.close()

    # --- showing ------------------------------------------------------------------------------------------

    def tell(self, told: str) -> None:
        """Something to be read in the foot."""
        self._told = told
        self.show_take()

    def show_take(self) -> None:
        """What changes only when something happens."""
        conductor = self.conductor
        if conductor.take is not None:
            self.going.show_take(conductor.take)
            if self.prompter is not None and conductor.take is not self._prompted:
                here = conductor.here()
                self.prompter.show_take(conductor.take, int(here.at) if here is not None else 0)
            self._prompted = conductor.take
        on = conductor.state in ("counting", "on")
        self.hints.setText(self._hints())
        if not on:
            self._show_still()
        self.frame()

    def _hints(self) -> str:
        if self._teaching == "":
            return "Press the key, or the button of the clicker."
        if self._teaching:
            return f"{self._teaching}: now press what it should do: → ↑ ↓ ← or Space. Esc: nothing."
        if self.conductor.state == "on" and self.conductor.choices:
            return "   ".join(
                f"{number} {_without(one.title)}: {show_length(one.end_s)}"
                for number, one in enumerate(self.conductor.choices[:2], 1)
            )
        if self.conductor.state == "on" and not self.conductor.standing:
            return KEYS_ON
        if self.conductor.standing:
            return "Space goes on   ← back to its start   Esc ends the take"
        if self.conductor.state == "counting":
            return "Space or Esc: not yet"
        if self.conductor.state == "over":
            return "Space: once more   Esc back to the class"
        return KEYS_REHEARSAL if self.conductor.rehearsing else KEYS_READY

    def _show_still(self) -> None:
        """Before the start, and after the end."""
        take, over = self.conductor.take, self.conductor.state == "over"
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
        leads = LEADS[self.conductor.leads]
        if over:
            self.name.say(title)
            self.line.say(f"Done, in {show_length(seconds(take.end - take.start), True)}.")
            self.following.say("The take is kept.")
        elif self.conductor.rehearsing:
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
        first = beginnings(take)[self._first]
        self.name.say(first.turn.name)
        self.line.say(next((cue.text for cue in take.cues if cue.start >= first.start), ""))
        speed = {1.0: "", 0.5: ", at half speed", 2.0: ", at double speed"}[self.conductor.speed]
        whole = f"from {show_length(seconds(first.start))} on" if self._which == "all" else ONLY[self._which]
        self.following.say(f"A rehearsal, {whole}{speed}. It is not kept. Space counts you in.")
        self.going.show_at(first.start)

    def _rehearse(self) -> None:
        if not self.busy:
            self.conductor.rehearsing = not self.conductor.rehearsing
            self._first, self._which = 0, "all"
            self.get_ready()

    def _speed(self) -> None:
        if not self.busy and self.conductor.rehearsing:
            self.conductor.speed = {1.0: 0.5, 0.5: 2.0, 2.0: 1.0}[self.conductor.speed]
            self.show_take()

    def _only(self) -> None:
        """The next of what there is to rehearse in this class."""
        take = self.conductor.take
        if self.busy or not self.conductor.rehearsing or take is None:
            return
        kinds = [one for one in ONLY if one == "all" or stretches(take, one, self._stumbled(take))]
        self._which = kinds[(kinds.index(self._which) + 1) % len(kinds)]
        self.show_take()

    def _stumbled(self, take: Take) -> list[str]:
        return list(stumbled_in(take.solved.plan.brief.title))

    def _from(self, by: int) -> None:
        """A rehearsal begins so many movements later, or earlier."""
        take = self.conductor.take
        if take is not None:
            self._first = min(len(beginnings(take)) - 1, max(0, self._first + by))
            self.show_take()

    def frame(self) -> None:
        """What changes with the clock."""
        conductor = self.conductor
        conductor.tick()
        here = conductor.here()
        if here is None or conductor.take is None:
            return
        if self.busy:
            self.going.show_at(here.at)
        self.pacer.show_moment(here)
        if self.prompter is not None:
            self.prompter.follow(here.at, conductor.standing or conductor.state != "on")
        if conductor.state == "counting":
            self._show_counting()
        elif conductor.state == "on":
            self._show_on(here)

    def _show_counting(self) -> None:
        take = self.conductor.take
        assert take is not None
        left = self.conductor.counting_s
        self.name.say(take.solved.plan.brief.title)
        _put(self.left_s, f"{min(COUNT_IN_S, left) + 0.999:.0f}" if left > 0 else "")
        self.left_s.setText(str(max(1, int(left + 0.999))))
        _put(self.coming, "until you begin")
        self.line.say(take.cues[0].text if take.cues else "")
        self.following.say("")
        _put(self.late, self._told)

    def _show_on(self, here: Moment) -> None:
        take, segment = self.conductor.take, here.segment
        assert take is not None
        if segment is None:
            return
        named = here.coming if segment.turn.setup_for and here.coming is not None else segment
        self.name.say(named.turn.name)
        self.line.say(here.line.text if here.line is not None else "")
        self.following.say(here.following.text if here.following is not None else "")
        self._show_sides(here)
        _put(self.phase, "standing still" if self.conductor.standing else words.phase_words(here))
        _put(self.count, words.count_words(here))
        left_s = max(1, -(-int(here.left) // 10))
        _put(self.left_s, str(left_s) if left_s < 100 else show_length(left_s))
        _put(self.coming, words.coming_words(here))
        left = show_length(seconds(max(0, round(take.target - here.at))))
        _put(self.clock, f"{left} to go")
        _put(self.late, self._told or words.late_words(take, here))

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
        coming = coming or bool(segment.turn.setup_for)
        take = self.conductor.take
        mirror = take is not None and take.solved.setting.school.mirror
        for at, band in self.bands.items():
            said = {"left": "right", "right": "left"}[at] if mirror else at
            band.show_side(said if said in sides else "", coming)

    # --- the hands ----------------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = key_name(event)
        if not key or event.isAutoRepeat():
            return
        if self._teaching is not None:
            self._teach(key)
            return
        if self.broken is not None and self.conductor.state == "ready" and key in ("Return", "Del"):
            self._broken_off(key == "Return")
            return
        deed = self.keys.deed(key)
        from_by = {"again": -1, "fewer": 1}.get(deed, 0)
        if from_by and not self.busy and self.conductor.rehearsing:
            self._from(from_by)
        elif not deed and key.isdigit() and self.conductor.choices:
            self.conductor.choose(int(key) - 1)
        elif deed:
            self.do(deed)
        elif key.startswith("F") and key[1:].isdigit():
            event.ignore()
        elif not self.busy:
            self._teaching = key
            self.show_take()

    def do(self, deed: str) -> None:
        """Does one of the deeds of a take."""
        self._told = ""
        doing: dict[str, Callable[[], object]] = {
            "stand": self._stand, "waits": self._wait, "darker": self._darker, "leave": self._leave,
            "teach": self._begin_teaching, "voice": self._voice, "rehearse": self._rehearse,
            "speed": self._speed, "only": self._only, "microphone": self._microphone,
        }  # fmt: skip
        if deed in doing:
            doing[deed]()
        elif deed == "note":
            self.conductor.act("note", "noted")
            self.tell("Noted.")
        else:
            self.conductor.act(deed)  # type: ignore[arg-type]

    def _stand(self) -> None:
        """Starts, stands still, or goes on."""
        conductor = self.conductor
        if conductor.state == "counting":
            conductor.leave_off()
        elif conductor.state == "on":
            conductor.stand_or_go()
        else:
            if conductor.state == "over":
                self.get_ready()
            if conductor.rehearsing and conductor.take is not None:
                take = conductor.take
                found = stretches(take, self._which, self._stumbled(take))
                begin = beginnings(take)[self._first].start
                conductor.stretches = [(begin, take.end)] if self._which == "all" else found
            try:
                conductor.count_in()
            except Problem as problem:
                self.tell(str(problem))

    def _wait(self) -> None:
        order = list(LEADS)
        self.conductor.leads = order[(order.index(self.conductor.leads) + 1) % len(order)]
        leads = LEADS[self.conductor.leads]
        self.tell(f"{leads[0].upper()}{leads[1:]}.")
        if self.conductor.state == "on":
            self._follow()

    def _voice(self) -> None:
        """Something else in the ear."""
        if self.prompter is None:
            # The voice and its device, 100 ms to import, which a take without them does not need.
            from yewhour.ui.take.prompter import Prompter

            voice = {str(name): value for name, value in load_voice().slower.items()}
            self.prompter = Prompter(voice, self.device)
            self.prompter.told.connect(self.tell)
        here = self.conductor.here()
        self.prompter.next_choice(self.conductor.take, int(here.at) if here is not None else 0)

    def _microphone(self) -> None:
        if not self.busy:
            self.records = not self.records
            self.tell("The sound is recorded beside the take." if self.records else "No sound is recorded.")

    def _record(self, folder: Path) -> None:
        """Begins to record and to listen, at the moment the take begins."""
        self._follow()
        if self.records:
            # Codecs and devices, which a take without sound does not need.
            from yewhour.voice.sound.recorder import NAME, Microphone, SoundFile

            told = self._heard.emit
            self.microphone = Microphone(SoundFile(folder / NAME, told), told, self.device)

    def _follow(self) -> None:
        """Listens to her while her voice leads."""
        take = self.conductor.take
        if self.conductor.leads == "voice" and self.follower is None and take is not None:
            # The recogniser, half a second to load, which a take led otherwise does not need.
            from yewhour.ui.take.follower import Follower

            begun_s = self.conductor.now_s
            self.follower = Follower(take, self.device)
            self.follower.told.connect(self.tell)
            self.follower.heard.connect(
                lambda number, words: self.conductor.hear(
                    number, [(word, start + begun_s, end + begun_s) for word, start, end in words]
                )
            )

    def _stop_recording(self) -> None:
        if self.follower is not None:
            self.follower.stop()
            self.follower = None
        if self.microphone is not None:
            self.microphone.close()
            self.microphone = None

    def _darker(self) -> None:
        """From light to dark to what a dark room can bear, and round again."""
        self._light = (self._light + 1) % 3
        self.set_theme(self._given)

    def _leave(self) -> None:
        """Stands still first, then ends; before the start and after the end, back to the class."""
        conductor = self.conductor
        if conductor.state == "counting":
            conductor.leave_off()
        elif conductor.state == "on" and not conductor.standing:
            conductor.stop()
        elif conductor.state == "on":
            conductor.act("end")
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
            self.conductor.go_on(broken, solve(broken.plan, self.session.words))
        except Problem as problem:
            self.tell(str(problem))

    def _begin_teaching(self) -> None:
        if not self.busy:
            self._teaching = ""
            self.show_take()

    def _teach(self, key: str) -> None:
        """A key is pressed to be taught, then the key whose deed it gets."""
        if self._teaching == "":
            self._teaching = key
        else:
            deed = self.keys.deed(key)
            taught, self._teaching = self._teaching, None
            if deed and deed != "leave" and taught:
                self.keys.teach(taught, deed)
                self.tell(f"{taught} now does this: {TITLES[deed]}.")
        self.show_take()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """A press anywhere goes on, the other button gives one more; before the start it starts."""
        if self.conductor.state in ("ready", "over"):
            self.do("stand")
        else:
            self.do("next" if event.button() == Qt.MouseButton.LeftButton else "again")

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.conductor.state == "on" and event.angleDelta().y():
            self.do("again" if event.angleDelta().y() > 0 else "fewer")


def _without(title: str) -> str:
    """A choice in few words."""
    return title.removesuffix(", both sides").replace("Leave out ", "without ", 1)


def _put(label: QLabel, text: str) -> None:
    """Sets a label's words where they are others."""
    if label.text() != text:
        label.setText(text)
