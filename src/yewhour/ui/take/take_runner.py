"""The conductor: a take under way, from a clock and what the teacher does; it shows nothing itself.

The numbers of the rest are fitted at once; its lines are written on a thread of its own, so that no frame
waits for them. Every mark is on its way to the disk before anything else is done with it.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from datetime import datetime
from typing import Literal

from PySide6.QtCore import QObject, Signal

from yewhour.core.lengths import show_length
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.take.apply_marks import apply_mark_numbers
from yewhour.core.take.cutting import places_to_go_back, recorded
from yewhour.core.take.marks import Mark, MarkKind
from yewhour.core.take.moment import Moment, moment
from yewhour.core.take.rehearsal import Stretch, carried_along
from yewhour.core.take.replay import replay
from yewhour.core.take.rewriting import with_new_lines
from yewhour.core.take.take import Take, begin
from yewhour.core.take.take_remedies import TakeRemedy, take_remedies
from yewhour.core.timed_class import TimedClass
from yewhour.state.takes.interrupted_takes import InterruptedTake
from yewhour.state.takes.replayed_take import key_of
from yewhour.state.takes.stumbles import mastered, stumble
from yewhour.state.takes.take_folder import TakeFolder
from yewhour.ui.kit.jobs import Jobs
from yewhour.ui.take.interruption import GoingOn, Interruption, asleep, awake_and_asleep
from yewhour.ui.take.leading import Leading

COUNT_IN_S = 5.0
SLEPT_S = 2.0  # that the machine slept between two ticks: then the class stands still
LINES_LOST = "The take goes on, with the lines as they were before the last change."
HELD_S, JUST_CHANGED_S = 0.25, 0.7  # so soon again a key is held down, or means what has just happened
JUST_BACK = 25  # ticks after a place one went back to: then one means the place before
GOES_ON: tuple[MarkKind, ...] = ("resume", "next", "skip")  # what sets a class going that stands still
FORGIVEN = 5  # ticks late at the end, of which nothing is said
State = Literal["ready", "counting", "on", "over"]


class TakeRunner(QObject):
    """Carries one class at a time through its take.

    changed: it goes otherwise from here, or is at another stage. message: something to be read in the foot.
    done: something was asked for, and happens; to be read from three metres. slept: the machine did.
    """

    changed = Signal()
    message = Signal(str)
    done = Signal(str)
    slept = Signal()
    begun = Signal(object)  # the folder a take is kept in, at the moment it starts or goes on
    over = Signal()

    def __init__(self, jobs: Jobs, clock: Callable[[], float] = awake_and_asleep) -> None:
        super().__init__()
        self.jobs, self.clock, self.asleep, self.wall = jobs, clock, asleep, time.time
        self._asleep_s = 0.0
        self._told = lambda problem: self.message.emit(str(problem))
        self.call = ""  # the words behind which she asks for something aloud; "" where she does not
        self.interruption: Interruption | None = None  # while it stands still
        self.state: State = "ready"
        self.take: Take | None = None
        self.leading = Leading()
        self.rehearsing = False
        self.speed = 1.0  # of a rehearsal
        self.stretches: list[Stretch] = []  # that a rehearsal goes through
        self._stumbles: set[str] = set()
        self.marks: list[Mark] = []
        self.choices: tuple[TakeRemedy, ...] = ()  # what could be left out, when the end can't be kept
        self._made: TimedClass | None = None
        self._zero = 0.0  # the clock when the take was at nought
        self._ticked = 0.0
        self._pressed: dict[str, float] = {}
        self._beaten = -1
        self._file: TakeFolder | None = None

    # --- the stages -----------------------------------------------------------------------------------------

    def prepare(self, solved: SolvedPlan, timed: TimedClass) -> None:
        """Gets ready to take a class, unless one is being taken."""
        if self.state in ("counting", "on"):
            return
        self._made, self.take, self.state, self.marks = timed, begin(solved, timed), "ready", []
        self.stretches, self._stumbles, self.choices = [], set(), ()
        self.leading.forget()
        self.changed.emit()

    def count_in(self) -> None:
        """Begins to count in; raises Problem when another take is on or it can't be kept."""
        if self.take is None or self._made is None or self.state != "ready":
            return
        if self.rehearsing:
            if not self.stretches:
                self.stretches = [(self.take.start, self.take.end)]
            self._zero = self.clock() + COUNT_IN_S - self.stretches[0][0] / 10 / self.speed
        else:
            file = TakeFolder(self._told)
            file.begin(self.take.solved.plan, datetime.now())
            self._file = file
            self._zero = self.clock() + COUNT_IN_S
        self.state, self._ticked, self._asleep_s = "counting", self.clock(), self.asleep()
        self.changed.emit()

    def go_on(self, broken: InterruptedTake, solved: SolvedPlan) -> None:
        """Takes up a take that was broken off, standing still where it broke off: the camera ran on since."""
        start = broken.read.marks[0]
        timed = solved.make(start.length_s or None)
        file = TakeFolder(self._told)
        file.go_on(broken.folder)
        self._file, self._made, self.rehearsing = file, timed, False
        self.marks = list(broken.read.marks)
        self.take = replay(solved, timed, self.marks)
        self._zero = self.clock() - broken.until_s
        self.state, self._ticked, self._asleep_s = "on", self.clock(), self.asleep()
        if self.take.paused is None:
            self.act("pause")
        self._zero -= broken.ago_s(self.wall())
        self.interruption = Interruption(self.take)
        self.begun.emit(broken.folder)
        self.changed.emit()

    @property
    def now_s(self) -> float:
        """Seconds since the start; less than none while it is counted in."""
        return self._s_at(self.clock())

    def _s_at(self, clock: float) -> float:
        return (clock - self._zero) * (self.speed if self.rehearsing else 1.0)

    @property
    def counting_s(self) -> float:
        """Seconds until it begins."""
        begins_s = self.stretches[0][0] / 10 if self.rehearsing and self.stretches else 0.0
        return (begins_s - self.now_s) / (self.speed if self.rehearsing else 1.0)

    @property
    def standing(self) -> bool:
        """Whether the class stands still."""
        return self.take is not None and self.take.paused is not None

    @property
    def over_s(self) -> float:
        """Seconds the film runs over the end of the class; less than none before it."""
        return self.now_s - (self.take.end + self.take.out) / 10 if self.take is not None else -1.0

    @property
    def overtime(self) -> bool:
        """Whether the class is over, and she has not said so."""
        return self.state == "on" and not self.standing and self.over_s >= 0

    def here(self) -> Moment | None:
        """Where the take is now."""
        if self.take is None:
            return None
        return moment(self.take, max(0.0, self.now_s * 10 - self.take.out) if self.state == "on" else 0.0)

    # --- the clock ------------------------------------------------------------------------------------------

    def tick(self) -> None:
        """Goes on with the clock. To be called many times a second."""
        now = self.clock()
        before, self._ticked = self._ticked, now
        if self.state == "counting" and self.counting_s <= 0:
            self._start()
            return
        if self.state != "on" or self.take is None:
            return
        slept_s, self._asleep_s = self.asleep() - self._asleep_s, self.asleep()
        if slept_s > SLEPT_S:  # a stall is none: the class goes on by its clock, as the camera does
            if not self.standing:
                self._mark("pause", self._s_at(before))
            self.message.emit(f"The computer was asleep for {show_length(slept_s)}.")
            self.slept.emit()
        if self.overtime and self.over_s < self.clock() - before:
            self.changed.emit()  # it has just come to its end
        if not self.standing:
            waited_s = self.leading.waited_for(self.take, self._s_at(before), self.now_s)
            if waited_s is not None:
                self._mark("again", waited_s)
            if self.rehearsing:
                self._go_through()
            if self.rehearsing and self.over_s >= 0:
                self.act("end")
        if int(self.now_s) != self._beaten and self._file is not None:
            self._beaten = int(self.now_s)
            self._file.beat(round(self.now_s, 1))

    def _go_through(self) -> None:
        """From the end of one stretch of a rehearsal to the start of the next; ends with the last."""
        at = self.now_s * 10
        if self.stretches and at >= self.stretches[0][1]:
            title = self.take.solved.plan.brief.title if self.take is not None else ""
            for one in self.take.segments if self.take is not None else ():
                if one.end <= at and one.start >= self.stretches[0][0] and one.id not in self._stumbles:
                    mastered(title, one.id)
            del self.stretches[0]
            if not self.stretches:
                self.act("end")
            else:
                self._zero -= (self.stretches[0][0] - at) / 10 / self.speed

    def _start(self) -> None:
        assert self.take is not None
        assert self._made is not None
        self.state = "on"
        title, key = self.take.solved.plan.brief.title, key_of(self.take.solved.plan)
        self._put(Mark(0.0, "start", title=title, key=key, length_s=self._made.length_s))
        if self._file is not None:
            self.begun.emit(self._file.folder)

    def hear(self, number: int, words: Sequence[tuple[str, float, float]]) -> None:
        """What was heard of a stretch of speech, with seconds of the take (see `Leading`)."""
        if self.state != "on" or self.take is None:
            return
        asked = self.leading.asked_for(words, self.call) if self.call else ""
        if asked:
            self.asked(asked)
        elif not self.standing and self.leading.leads == "voice":
            went_s = self.leading.hear(self.take, self.now_s, number, words)
            if went_s is not None:
                self._mark("next", went_s)

    def asked(self, act: str) -> None:
        """Does what she has asked for aloud."""
        if act == "cut":
            self.go_on_now("cut") if self.standing else self.act("back")
        elif act in ("pause", "resume"):
            if self.standing == (act == "resume"):
                self.stand_or_go()
        else:
            self.act(act, "noted" if act == "note" else "")  # type: ignore[arg-type]

    # --- what the teacher does ------------------------------------------------------------------------------

    def act(self, do: MarkKind, text: str = "", segment: str = "") -> None:
        """Marks something now. What is pressed twice at once, or as the class goes on by itself, is one."""
        if self.state != "on" or self.take is None:
            return
        now = self.clock()
        if now - self._pressed.get(do, -9.0) < HELD_S:
            self._pressed[do] = now
            return
        self._pressed[do] = now
        if do == "back":
            self._stumble()
            if not self.rehearsing:
                return self._slip()
        if self.standing and do in GOES_ON:
            self.go_on_now("usual")
            if do == "resume":
                return
        here = self.here()
        if do == "next" and here is not None and here.segment is not None and not self.standing:
            gone_s = (here.at - here.segment.start) / 10
            if gone_s < JUST_CHANGED_S and here.segment.start > self.take.now:
                self.message.emit("It has just gone on by itself.")
                return
        self._mark(do, self.now_s, text, segment)

    def _stumble(self) -> None:
        """Remembers where she stood still or went back in a rehearsal."""
        here = self.here()
        if self.rehearsing and here is not None and here.segment is not None and self.take is not None:
            place = here.segment.use.setup_for or here.segment.use.key
            self._stumbles.add(place)
            stumble(self.take.solved.plan.brief.title, place)

    def _slip(self) -> None:
        """Once more from the start of the line, and again from further back; what is between is cut out."""
        take, here = self.take, self.here()
        if take is None or here is None:
            return
        at = round(here.at)
        places = [one for one in places_to_go_back(take, at) if at - one.at > JUST_BACK]
        if not places and here.segment is not None:
            places = places_to_go_back(take, max(take.start, here.segment.start - 1))[-1:]
        if places:
            self._cut("back", recorded(take, places[0].at))
            side = f", {places[0].side}" if places[0].side in ("left", "right") else ""
            self.done.emit(f"Once more: {places[0].name}{side}")

    def go_on_now(self, how: GoingOn) -> None:
        """Goes on after standing still: with it cut out, or in the film, or in neither clock."""
        stop, take = self.interruption, self.take
        if stop is None or take is None or take.paused is None:
            return
        long = show_length(int(stop.lasts_s(self.now_s)))
        if how == "camera":
            self._put(Mark(self._next_s(self.now_s), "resume", camera="stopped"))
            self.done.emit("Goes on, where the camera stood still")
        elif stop.cuts(self.now_s, how) and not self.rehearsing:
            self._cut("resume", stop.from_s)
            self.done.emit(f"{long} cut out")
        else:
            self._put(Mark(self._next_s(self.now_s), "resume"))
            self.done.emit(f"Goes on; {long} stay in the film" if not self.rehearsing else "Goes on")

    def from_elsewhere(self, by: int) -> None:
        """What stands still goes on from further back, or nearer."""
        if self.interruption is not None:
            self.interruption.elsewhere(by)

    def _cut(self, do: MarkKind, from_s: float) -> None:
        at_s = self._next_s(self.now_s)
        self._put(Mark(at_s, do, cut=(min(round(from_s, 1), at_s), at_s)))

    def stand_or_go(self) -> None:
        """Stands still, or goes on; after the end, she is done."""
        if self.overtime:
            self._mark("end", self.now_s)
        elif self.standing:
            self.go_on_now("usual")
        else:
            self._stumble()
            self.act("pause")

    def _mark(self, do: MarkKind, at_s: float, text: str = "", segment: str = "") -> None:
        self._put(Mark(self._next_s(at_s), do, text, segment))

    def _next_s(self, at_s: float) -> float:
        """A second for the next mark: they are in the order of time."""
        return max(self.marks[-1].at_s if self.marks else 0.0, round(at_s, 1))

    def _put(self, mark: Mark) -> None:
        assert self.take is not None
        if self._file is not None:
            self._file.mark(mark)
        self.marks.append(mark)
        before = len(self.take.messages)
        earlier = self.take
        self.take = take = apply_mark_numbers(earlier, mark)
        if self.rehearsing:
            self.stretches = carried_along(self.stretches, earlier, take)
        self.choices = ()
        for message in take.messages[before:]:
            self.message.emit(message)
        if take.did:
            self.done.emit(take.did)
        if take.paused is None:
            self.interruption = None
        elif self.interruption is None:
            self.interruption = Interruption(take)
        if take.unsaid is not None:
            self.jobs.run(
                "take lines", lambda job: (take, with_new_lines(take)), self._take_lines, lane="take",
                doing="Writing the lines of the take", lost=LINES_LOST, failed=self._told, owner=self,
            )  # fmt: skip
        if take.state == "ended":
            self.state = "over"
            self._close()
        self.changed.emit()

    def _take_lines(self, spoken: tuple[Take, Take]) -> None:
        """Takes the lines, unless the class has changed again since they were asked for."""
        if self.take is spoken[0]:
            self.take = take = spoken[1]
            self.changed.emit()
            if take.end - take.target > FORGIVEN:
                self.jobs.run(
                    "take remedies", lambda job: (take, tuple(take_remedies(take))), self._take_choices,
                    lane="take", doing="Weighing what could be left out", failed=self._told, owner=self,
                    lost="The take goes on; nothing can be offered just now.",
                )  # fmt: skip

    def _take_choices(self, weighed: tuple[Take, tuple[TakeRemedy, ...]]) -> None:
        if self.take is weighed[0]:
            self.choices = tuple(one for one in weighed[1] if one.mark is not None)
            self.changed.emit()

    def choose(self, number: int) -> None:
        """Does what the choice with this number says."""
        if number < len(self.choices) and (mark := self.choices[number].mark) is not None:
            title = self.choices[number].title
            self._mark(mark.do, self.now_s, segment=mark.segment)
            self.done.emit(title)

    def _close(self) -> None:
        self.over.emit()
        if self._file is not None:
            self._file.close()
            self._file = None

    def leave_off(self) -> None:
        """Before the start: back to ready. On the way: what is kept stays, to be gone on with."""
        if self.state == "counting":
            if self._file is not None:
                self._file.discard()
                self._file = None
            self.state = "ready"
            self.changed.emit()

    def close(self) -> None:
        """When the window closes: everything is on the disk then."""
        self._close()
        self.jobs.cancel("take lines")
        self.jobs.cancel("take remedies")
