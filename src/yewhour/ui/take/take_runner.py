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
from yewhour.core.problem import Problem
from yewhour.core.take.apply_marks import apply_mark_numbers
from yewhour.core.take.line_following import line_heard, moved_on, words_of
from yewhour.core.take.marks import VERSION, Mark, MarkKind
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

COUNT_IN_S = 5.0
ASLEEP_S = 4.0  # without a tick: the machine slept
LINES_LOST = "The take goes on, with the lines as they were before the last change."
JUST_CHANGED_S = 0.7  # after the class went on by itself, `next` means that
HELD_S = 0.25  # a key that is pressed again so soon is held down
FORGIVEN = 5  # ticks late at the end, of which nothing is said
Leads = Literal["clock", "me", "voice"]
FOLLOWED_S = 25.0  # after a line was heard, so long it is known that she is heard
LISTENED_S = 7.0  # the words that are taken together
MOST_MORE = 2  # given to what is on while her voice is waited for
State = Literal["ready", "counting", "on", "over"]


def awake_and_asleep() -> float:
    """Seconds on a clock that goes on while the machine sleeps, as a camera's does."""
    return time.clock_gettime(time.CLOCK_BOOTTIME)


class TakeRunner(QObject):
    """Carries one class at a time through its take.

    changed: it goes otherwise from here, or is at another stage. message: something to be read in the foot.
    leads: the clock; or she does, and at the end of each movement one more is given until `next`; or her
    voice does: the same, while her lines are heard, until what comes next is heard.
    """

    changed = Signal()
    message = Signal(str)
    begun = Signal(object)  # the folder a take is kept in, at the moment it starts or goes on
    over = Signal()

    def __init__(self, jobs: Jobs, clock: Callable[[], float] = awake_and_asleep) -> None:
        super().__init__()
        self.jobs, self.clock = jobs, clock
        self.state: State = "ready"
        self.take: Take | None = None
        self.leads: Leads = "clock"
        # Heard lately: the stretch of speech, the word, and its seconds of the take.
        self._words: list[tuple[int, str, float, float]] = []
        self._heard_until = -1.0  # what was heard before that has been followed
        self._followed = -1.0e9  # the second a line was heard at last
        self._given = ("", 0)  # a segment, and how many more of it were given while she was waited for
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
        self._words, self._heard_until, self._followed, self._given = [], -1.0, -1.0e9, ("", 0)
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
            file = TakeFolder(lambda problem: self.message.emit(str(problem)))
            file.begin(self.take.solved.plan, datetime.now())
            self._file = file
            self._zero = self.clock() + COUNT_IN_S
        self.state, self._ticked = "counting", self.clock()
        self.changed.emit()

    def go_on(self, broken: InterruptedTake, solved: SolvedPlan) -> None:
        """Takes up a take that was broken off, standing still where it broke off."""
        start = broken.read.marks[0]
        timed = solved.make(start.length_s or None)
        file = TakeFolder(lambda problem: self.message.emit(str(problem)))
        file.go_on(broken.folder)
        self._file, self._made, self.rehearsing = file, timed, False
        self.marks = list(broken.read.marks)
        self.take = replay(solved, timed, self.marks)
        self._zero = self.clock() - broken.until_s
        self.state, self._ticked = "on", self.clock()
        if self.take.paused is None:
            self.act("pause")
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

    def here(self) -> Moment | None:
        """Where the take is now."""
        if self.take is None:
            return None
        at = self.now_s * 10 - self.take.out if self.state == "on" else 0.0
        return moment(self.take, max(0.0, at))

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
        if now - before > ASLEEP_S and not self.standing:
            self._mark("pause", self._s_at(before))
            slept = show_length(now - before)
            self.message.emit(f"The computer was asleep for {slept}. The class stands still since then.")
        if not self.standing:
            heard = self.leads == "voice" and self.now_s - self._followed < FOLLOWED_S
            if self.leads == "me" or heard:
                self._wait(self._s_at(before))
            if self.rehearsing:
                self._go_through()
            if self.now_s * 10 - self.take.out >= self.take.end:
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
        plan = self.take.solved.plan
        start = Mark(
            0.0, "start", version=VERSION, title=plan.brief.title, key=key_of(plan),
            length_s=self._made.length_s,
        )  # fmt: skip
        self._put(start)
        if self._file is not None:
            self.begun.emit(self._file.folder)

    def _wait(self, before_s: float) -> None:
        """Gives one more of what was on at the last tick when its end has come; a flow goes by the breath."""
        take = self.take
        assert take is not None
        index = take.index_at(before_s * 10 - take.out)
        segment = take.segments[index] if index is not None else None
        if segment is None or segment.use.setup_for or not segment.amount:
            return
        end_s = (segment.end - 1 + take.out) / 10
        if (
            self.now_s < end_s
            or (segment.behaviour.is_phase or segment.behaviour.is_rest)
            or segment.end - 1 < take.now
        ):
            return
        name, given = self._given
        given = given + 1 if name == segment.id else 1
        self._given = (segment.id, given)
        if self.leads == "me" or given <= MOST_MORE:
            self._mark("again", end_s)

    def hear(self, number: int, words: Sequence[tuple[str, float, float]]) -> None:
        """What was heard of a stretch of speech, with seconds of the take; she is followed where it is sure.

        number: of the stretch; it is told again as it grows.
        """
        if self.state != "on" or self.take is None or self.standing or self.leads != "voice":
            return
        lately = self.now_s - LISTENED_S
        known = [one for one in self._words if one[0] != number] + [(number, *word) for word in words]
        self._words = [one for one in known if one[3] > max(lately, self._heard_until)]
        line = line_heard(self.take, [word for _, word, _, _ in self._words], self.now_s * 10 - self.take.out)
        if line is None:
            return
        self._followed = self.now_s
        if not moved_on(self.take, line, self.now_s * 10 - self.take.out):
            return
        said = set(words_of(line.text))
        begun_s = next((start for _, word, start, _ in self._words if word in said), self.now_s)
        self._heard_until = self.now_s
        here = self.take.index_at(self.now_s * 10 - self.take.out)
        if here is not None:
            self._mark("next", max(begun_s, (self.take.segments[here].start + 1 + self.take.out) / 10))

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

    def stand_or_go(self) -> None:
        """Stands still, or goes on."""
        if not self.standing:
            self._stumble()
        self.act("resume" if self.standing else "pause")

    def stop(self) -> None:
        """Stands still on the way out."""
        self.act("pause")

    def _mark(self, do: MarkKind, at_s: float, text: str = "", segment: str = "") -> None:
        last_s = self.marks[-1].at_s if self.marks else 0.0  # marks are in the order of time
        self._put(Mark(max(last_s, round(at_s, 1)), do, text, segment))

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
        if take.unsaid is not None:
            self.jobs.run(
                "take lines", lambda job: (take, with_new_lines(take)), self._take_lines, lane="take",
                doing="Writing the lines of the take", lost=LINES_LOST, failed=self._tell, owner=self,
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
                    lane="take", doing="Weighing what could be left out", failed=self._tell, owner=self,
                    lost="The take goes on; nothing can be offered just now.",
                )  # fmt: skip

    def _take_choices(self, weighed: tuple[Take, tuple[TakeRemedy, ...]]) -> None:
        if self.take is weighed[0]:
            self.choices = tuple(one for one in weighed[1] if one.mark is not None)
            self.changed.emit()

    def choose(self, number: int) -> None:
        """Does what the choice with this number says."""
        if number < len(self.choices) and (mark := self.choices[number].mark) is not None:
            self._mark(mark.do, self.now_s, segment=mark.segment)

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
        for key in ("take lines", "take remedies"):
            self.jobs.cancel(key)

    def _tell(self, problem: Problem) -> None:
        self.message.emit(str(problem))
