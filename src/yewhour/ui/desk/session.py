"""The class that is open in a window: its plan, what was made of it, what is chosen, what can be undone.

A change is a new plan. It is there at once; the class made from it follows from the maker. What is
only looked at (a dragged length, a needle being pulled, a fix being considered) is a trial: it is shown
in place of the class and kept or dropped.

It is long because all that others listen to is here; what needs no signals is beside it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from pathlib import Path
from threading import Lock
from typing import TypeVar

import msgspec
from PySide6.QtCore import QObject, QTimer, Signal

from yewhour.core.edits.remedies import differences
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.plan.edit import Edit, apply_all, with_brief, words_gone
from yewhour.core.plan.places import nodes_of
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import LengthRange, TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.state.classes.any_class import OUTLINES, read_class
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.own_movements import own_movement
from yewhour.state.classes.preview_cache import ClassPreview, keep_preview, preview_of
from yewhour.state.teaching_data import load_teaching_data
from yewhour.ui.desk.class_history import ClassHistory, ClassState
from yewhour.ui.desk.class_maker import ClassMaker, MadeOutcome, MakeOffer, MakeRequest
from yewhour.ui.desk.selection import node_of, run_between, segments_from
from yewhour.ui.kit.jobs import Jobs

AFTER_A_GLIMPSE_MS = 40


T = TypeVar("T")


class Session(QObject):
    """Holds one class.

    made_changed: another class is shown. plan_changed: the plan is another. selected_changed: another
    segment is chosen. refused: something could not be done. working: what takes long, "" when done.
    fill_wanted: what is still to fill is to be drafted. told: something that a deed brought with it.
    """

    made_changed = Signal()
    plan_changed = Signal()
    selected_changed = Signal(str)
    refused = Signal(object)
    working = Signal(str)
    fill_wanted = Signal()
    told = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self._teaching_data: TeachingData | None = None
        self._loading = Lock()
        self.troubles: list[Problem] = []  # what was wrong with the teacher's own movements
        self._told_troubles = False
        self.path: Path | None = None
        self.plan: Plan | None = None
        self.solved: SolvedPlan | None = None
        self.timed: TimedClass | None = None
        self.lengths: LengthRange | None = None
        self.trial: MadeOutcome | None = None
        self.trial_title, self.trial_loses = "", 0  # and how many lines of hers it takes away
        self.unfinished = False  # there is not enough in it for its length yet
        self.refusal = ""  # why the class can't be as long as was asked
        self.trouble: Problem | None = None  # why there is no class at all
        self.offers: tuple[MakeOffer, ...] = ()
        self.selected = ""
        self.picked: tuple[str, ...] = ()
        self.section: int | None = None  # the section that is chosen as a whole
        self.saved: Plan | None = None  # as it is in the file
        self.past = ClassHistory()
        self._serial = self._made_serial = 0  # of the plan; of the one that `timed` was made from
        self._waiting = False  # for a glimpse to be painted
        self._trial_plan: Plan | None = None
        self._to_tell: tuple[str, TimedClass] | None = None  # a deed, and the class before it
        self.jobs = Jobs()
        self.maker = ClassMaker(lambda: self.teaching_data, self.jobs)
        self.maker.done.connect(self._arrived)
        self.maker.stage.connect(self.working)

    @property
    def teaching_data(self) -> TeachingData:
        """All the data a class is made with, loaded when first needed; the maker asks for them too."""
        with self._loading:
            if self._teaching_data is None:
                self._teaching_data, self.troubles = load_teaching_data()
            return self._teaching_data

    @property
    def has_words(self) -> bool:
        """Whether they are loaded."""
        return self._teaching_data is not None

    def reload_words(self) -> None:
        """Takes the teacher's own movements as they are now, and makes the class anew with them."""
        if self.plan is None:
            self._forget_words()
        else:
            self._go(self.plan, library=True)

    def _forget_words(self) -> None:
        self._teaching_data, self._told_troubles = None, False

    def change_library(self, title: str, name: str, change: Callable[[], T]) -> T:
        """Changes a movement of hers; undo takes that back too. Raises what the change raises."""
        before = own_movement(name)
        result = change()
        if self.plan is not None:
            self.past.add(title, ClassState(self.plan, before))
        self.reload_words()
        return result

    # --- what is shown ----------------------------------------------------------------------------------

    @property
    def shown(self) -> TimedClass | None:
        """The class as it is shown: the trial's while there is one."""
        if self.trial is not None and self.trial.timed is not None:
            return self.trial.timed
        return self.timed

    @property
    def changed(self) -> bool:
        """Whether there is anything to save."""
        return self.plan is not None and self.plan != self.saved

    @property
    def busy(self) -> bool:
        """Whether a class is being made."""
        return self.maker.busy or self._waiting

    # --- opening ----------------------------------------------------------------------------------------

    def open(self, path: Path) -> None:
        """Opens a class file or an outline. Raises Problem and keeps the class before if it can't."""
        outline = path.suffix.lower() in OUTLINES
        plan = read_class(path, self.teaching_data) if outline else read_plan(path)
        self.begin(plan, None if outline else path, saved=not outline)

    def begin(self, plan: Plan, path: Path | None = None, saved: bool = False) -> None:
        """Takes another class into the window."""
        self.path, self.saved = path, plan if saved else None
        self.past = ClassHistory()
        self.selected, self.picked, self.section = "", (), None
        found = preview_of(path) if saved and path is not None else None
        self.solved = self.timed = self.lengths = None
        if found is not None:  # as it was made last time, until it is made anew
            self.timed, self.lengths = found.timed, found.lengths
        self._make(plan)

    def _ask(self, request: MakeRequest) -> None:
        if request.serial == self._serial:  # an older request has no say in whether a newer one waits
            self._waiting = False
            self.maker.ask(request)

    def _make(self, plan: Plan) -> None:
        self.plan = plan
        self._forget_gone()
        self.drop_trial()
        self.refusal, self.offers, self.unfinished = "", (), False
        self._serial += 1
        self._waiting = False
        request = MakeRequest("class", self._serial, plan)
        if not any(section.body for section in plan.sections):
            self.solved = self.timed = self.lengths = self.trouble = None
            self.made_changed.emit()
        elif self.timed is not None and self.solved is None:  # a glimpse is painted first
            self._waiting = True
            self.made_changed.emit()
            QTimer.singleShot(AFTER_A_GLIMPSE_MS, lambda: self._ask(request))
        else:
            self.maker.ask(request)
        self.plan_changed.emit()

    def _arrived(self, outcome: MadeOutcome) -> None:
        """Takes what the maker has made, unless it is of an older request."""
        request = outcome.request
        if request.kind == "trial":
            if request.plan is self._trial_plan:
                self.trial = outcome
                self.made_changed.emit()
            return
        if request.serial != self._serial:
            return
        if request.kind == "offers":
            self.offers = outcome.offers
            self.made_changed.emit()
            return
        self.working.emit("")
        if self.troubles and not self._told_troubles:
            self._told_troubles = True
            QTimer.singleShot(0, lambda: self.refused.emit(self.troubles[0]))
        if outcome.timed is None:
            return self._failed(outcome.problem or Problem("The class could not be made."))
        assert outcome.solved is not None
        self.solved, self.timed = outcome.solved, outcome.timed
        self.refusal, self.trouble = outcome.refusal, None
        self.lengths, self._made_serial = outcome.solved.lengths, request.serial
        self.unfinished = outcome.unfinished
        self._keep_choice()
        self.made_changed.emit()
        if self._to_tell is not None:
            (title, before), self._to_tell = self._to_tell, None
            self.told.emit(f"{title}: {differences(before, self.timed)}. Ctrl+Z takes it back.")
        if self.refusal:
            self.maker.ask(MakeRequest("offers", request.serial, request.plan))
        elif self.path is not None and request.plan is self.saved:
            keep_preview(self.path, ClassPreview(self.timed, self.lengths))

    def _failed(self, problem: Problem) -> None:
        """A change that leaves no class is taken back; a class that opens like that stays, and is told."""
        before = self.past.take_out_last() if self.timed is not None else None
        if before is not None:
            self._make(before.before.plan)
        else:
            self.trouble, self.solved, self.timed, self.lengths = problem, None, None, None
            self.made_changed.emit()
        self.refused.emit(problem)

    # --- acts -------------------------------------------------------------------------------------------

    def do(
        self, title: str, plan: Plan, kind: str = "", pick: Iterable[str] | None = None, tell: bool = False
    ) -> None:
        """Changes the class. `title` names the act; acts of one kind in a row are undone together.

        tell: what became other by it is told once the class is made.
        """
        if self.plan is None or plan == self.plan:
            return self.drop_trial()
        gone = words_gone(self.plan, plan)
        self.past.add(title, ClassState(self.plan), kind)
        if pick is not None:
            self.picked, self.selected, self.section = tuple(pick), "", None
        self._to_tell = (title, self.timed) if tell and self.timed is not None else None
        self._make(plan)
        if gone:
            many = "a line" if len(gone) == 1 else f"{len(gone)} lines"
            self.told.emit(f"{title}, with {many} of your own. Ctrl+Z brings all of it back.")

    def apply(self, title: str, edits: Iterable[Edit], kind: str = "") -> None:
        """Does edits as one act. Raises Problem, and changes nothing, when one can't be done."""
        if self.plan is not None:
            self.do(title, self._edited(edits), kind)

    def _edited(self, edits: Iterable[Edit]) -> Plan:
        """The plan after edits; where they are about the school's own closing, that becomes the class's."""
        assert self.plan is not None
        edits = list(edits)
        try:
            return apply_all(self.plan, edits)
        except Problem:
            if self.solved is None:
                raise
            return apply_all(self.solved.plan, edits)

    def undo(self, times: int = 1) -> None:
        """Takes the last acts back. Raises Problem when her movements can't be written."""
        if self.plan is not None:
            self._go(*self.past.back_from(self.plan, times))

    def redo(self, times: int = 1) -> None:
        """Does them again; likewise."""
        if self.plan is not None:
            self._go(*self.past.forward_from(self.plan, times))

    def _go(self, plan: Plan, library: bool) -> None:
        if library:
            self._forget_words()
            self._make(msgspec.structs.replace(plan))
        elif plan is not self.plan:
            self._make(plan)

    # --- the length, and trials ----------------------------------------------------------------------------

    def set_length(self, length_s: float) -> None:
        """Promises another length of the whole recording, in seconds."""
        if self.plan is not None:  # its target may be without welcome and farewell
            target_s = max(1.0, round(length_s - (self.lengths.extra_s if self.lengths else 0.0), 1))
            plan = with_brief(self.plan, target_s=target_s)
            self.do(f"Make it {show_length(length_s)}", plan, kind="length")

    def try_length(self, length_s: float) -> None:
        """Shows the class at another length without promising it yet."""
        if self.plan is not None:
            self._try("", self.plan, length_s)

    def try_plan(self, title: str, plan: Plan) -> None:
        """Shows the class as it would be with another plan."""
        if any(section.body for section in plan.sections):
            self._try(title, plan, None)

    def try_edits(self, title: str, edits: Iterable[Edit]) -> None:
        """Shows the class as it would be after edits. Raises Problem when one can't be done."""
        if self.plan is not None:
            self.try_plan(title, self._edited(edits))

    def _try(self, title: str, plan: Plan, length_s: float | None) -> None:
        self.trial_title, self._trial_plan = title, plan
        self.trial_loses = len(words_gone(self.plan, plan)) if self.plan is not None else 0
        self.maker.ask(MakeRequest("trial", self._serial, plan, length_s))

    def drop_trial(self) -> None:
        """Shows the class as it is again."""
        had = self.trial is not None
        self.trial, self._trial_plan, self.trial_title = None, None, ""
        if had:
            self._keep_choice()
            self.made_changed.emit()

    def stop(self) -> None:
        """Stops what is being made; a change that was waiting for it is taken back."""
        self.maker.stop()
        self.working.emit("")
        self.drop_trial()
        if self._made_serial != self._serial and self.past.undo_titles:
            self.undo()

    # --- choosing ---------------------------------------------------------------------------------------

    def select(self, segment: str, extend: bool = False, toggle: bool = False) -> None:
        """Chooses a segment and with it the step it belongs to; extend or toggle add to what was chosen."""
        node = self.node_at(segment)
        if not node:
            picked: tuple[str, ...] = ()
        elif toggle:
            without = tuple(n for n in self.picked if n != node)
            picked = without if node in self.picked else (*self.picked, node)
        elif extend and self.picked:
            assert self.plan is not None
            picked = run_between(self.plan, self.shown, self.picked[0], node)
        else:
            picked = (node,)
        if (segment, picked, None) != (self.selected, self.picked, self.section):
            self.selected, self.picked, self.section = segment, picked, None
            self.selected_changed.emit(segment)

    def pick(self, *nodes: str) -> None:
        """Chooses nodes by their ids: a step, a pair, rounds."""
        self.picked, self.section = tuple(nodes), None
        self._keep_choice()
        self.selected_changed.emit(self.selected)

    def pick_section(self, index: int) -> None:
        """Chooses a whole section."""
        if self.plan is not None and 0 <= index < len(self.plan.sections):
            self.picked = tuple(node.id for node in self.plan.sections[index].body)
            self.section = index
            self._keep_choice()
            self.selected_changed.emit(self.selected)

    def node_at(self, segment: str) -> str:
        """The node of the plan that a segment comes from: its step, or the block around it; "" for none."""
        found = self.segment(segment)
        return node_of(found, nodes_of(self.plan)) if found is not None and self.plan is not None else ""

    def segment(self, name: str) -> Segment | None:
        """A segment of the class as shown."""
        timed = self.shown
        return next((s for s in timed.segments if s.id == name), None) if timed and name else None

    def segments_of(self, nodes: Iterable[str]) -> list[Segment]:
        """The segments that come from these nodes or what is inside them, set-ups apart."""
        if self.plan is None or self.shown is None:
            return []
        return segments_from(self.plan, self.shown, nodes)

    def _forget_gone(self) -> None:
        """What is not in the plan any more is not chosen."""
        known = nodes_of(self.plan) if self.plan else {}
        sections = self.plan.sections if self.plan else ()
        if self.section is not None and self.section < len(sections):
            picked = tuple(node.id for node in sections[self.section].body)
        else:
            self.section = None
            picked = tuple(node for node in self.picked if node in known)
        if picked != self.picked:  # else it is the same, for who compares what it shows
            self.picked = picked

    def _keep_choice(self) -> None:
        """After a change: what is still there stays chosen, and a segment of it with it."""
        self._forget_gone()
        here = self.segment(self.selected)
        mine = self.segments_of(self.picked)
        if self.picked and (here is None or here not in mine):
            self.selected = mine[0].id if mine else ""
        elif here is None:
            self.selected = ""
