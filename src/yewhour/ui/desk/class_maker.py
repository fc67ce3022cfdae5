"""Classes are made here, beside the interface. Of each kind the newest request wins.

Work that has gone on for long is stopped for a newer one. The core is imported here too, so that the window
can be on screen before NumPy is.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import QObject, Signal

from yewhour.background.jobs import Job
from yewhour.core.edits.cuts import with_given_pace
from yewhour.core.edits.remedies import remedies
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Edit, SetTarget
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.ui.kit.jobs import Jobs

PATIENCE_S = 0.25  # work that took longer is stopped for a newer wish
KINDS = ("class", "trial", "offers")  # what is made first of several that wait
BROKEN = Problem("The class could not be made.", do="Undo the last change (Ctrl+Z).")
KEPT_SOLVED = 6  # solved plans kept, for undo and for previews


class MakeOffer(NamedTuple):
    """Something that would help: what it is called, its edits, and the length the class then has."""

    title: str
    edits: tuple[Edit, ...]
    length_s: float


class MakeRequest(NamedTuple):
    """A class to be made: a plan, a length in seconds (None for the promised), and what for.

    kind: "class" for the one that is open, "trial" for one that is only looked at, "offers" for what
    would help.
    """

    kind: str
    serial: int
    plan: Plan
    length_s: float | None = None


class MadeOutcome(NamedTuple):
    """What came of a request. `refusal` says why the length could not be; `problem`, why there is no class.

    unfinished: there is not enough in the class for its length yet; it is as long as it is by itself.
    """

    request: MakeRequest
    solved: SolvedPlan | None = None
    timed: TimedClass | None = None
    refusal: str = ""
    problem: Problem | None = None
    offers: tuple[MakeOffer, ...] = ()
    unfinished: bool = False


class ClassMaker(QObject):
    """Makes classes beside the interface and tells of each by `done`; `stage` says what it is doing."""

    done = Signal(object)
    stage = Signal(str)

    def __init__(self, teaching_data: Callable[[], TeachingData], jobs: Jobs) -> None:
        super().__init__()
        self.teaching_data, self.jobs = teaching_data, jobs
        self._job: Job | None = None  # the one that is being done
        self._known: dict[int, tuple[Plan, SolvedPlan]] = {}

    @property
    def busy(self) -> bool:
        """Whether anything is being made or waits to be."""
        return self.jobs.busy(*KINDS)

    def ask(self, request: MakeRequest) -> None:
        """Makes this as soon as may be, in place of an older request of its kind."""

        def failed(fault: object) -> None:
            self.done.emit(MadeOutcome(request, problem=BROKEN))

        self.jobs.run(
            request.kind, partial(self._made, request), self.done.emit, doing="Making the class",
            lost="It is as it was before the last change; Ctrl+Z takes that back.", lane="class maker",
            first=KINDS.index(request.kind), patience_s=PATIENCE_S, progress=self.stage.emit,
            faulted=failed, owner=self,
        )  # fmt: skip

    def stop(self) -> None:
        """Stops what is being made and forgets what waits."""
        for kind in KINDS:
            self.jobs.cancel(kind)

    # --- on the thread -----------------------------------------------------------------------------------

    def _made(self, request: MakeRequest, job: Job) -> MadeOutcome:
        self._job = job
        return self._offers(request) if request.kind == "offers" else self._make(request)

    def _heard(self, stage: str) -> None:
        """What is being done now. Raises Cancelled when it is to stop."""
        job = self._job
        if job is not None:
            job.check()
            if job.took_s > PATIENCE_S:
                job.progress(stage)

    def _solved(self, plan: Plan) -> SolvedPlan:
        kept = self._known.get(id(plan))
        if kept is not None and kept[0] is plan:
            return kept[1]
        solved = solve(plan, self.teaching_data(), stage=self._heard)
        self._known[id(plan)] = plan, solved
        while len(self._known) > KEPT_SOLVED:
            del self._known[next(iter(self._known))]
        return solved

    def _make(self, request: MakeRequest) -> MadeOutcome:
        try:
            solved = self._solved(request.plan)
        except Problem as problem:
            return MadeOutcome(request, problem=problem)
        length_s = solved.promised_s if request.length_s is None else request.length_s
        try:
            return MadeOutcome(request, solved, with_given_pace(solved, length_s).make(length_s))
        except CannotFit as problem:
            if length_s > solved.longest_s:  # unfinished: as it is by itself, not stretched to its most
                timed = solved.make(solved.preferred_s)
                return MadeOutcome(request, solved, timed, _unfinished(solved, length_s), unfinished=True)
            return MadeOutcome(request, solved, solved.make(solved.nearest_s(length_s)), str(problem))
        except Problem as problem:
            return MadeOutcome(request, solved, None, problem=problem)

    def _offers(self, request: MakeRequest) -> MadeOutcome:
        """Remedies for a length that can't be, best first."""
        try:
            solved = self._solved(request.plan)
            length_s = solved.promised_s if request.length_s is None else request.length_s
            found = remedies(solved, length_s)
        except Problem:
            return MadeOutcome(request)
        offers = [MakeOffer(one.title, one.edits, one.gives_s) for one in found]
        promise = _promising(solved, length_s)
        offers.insert(0 if length_s < solved.shortest_s else len(offers), promise)
        return MadeOutcome(request, offers=tuple(offers))


def _unfinished(solved: SolvedPlan, length_s: float) -> str:
    """What is still missing, in words."""
    by_itself, most = solved.preferred_s, solved.longest_s
    return (
        f"{show_length(length_s - by_itself)} still to fill: what is there lasts {show_length(by_itself)} by "
        f"itself, and {show_length(most)} at most."
    )


def _promising(solved: SolvedPlan, length_s: float) -> MakeOffer:
    """Promising the nearest length there is, in whole seconds."""
    short = length_s < solved.shortest_s
    nearest_s = math.ceil(solved.shortest_s) if short else math.floor(solved.longest_s)
    title = f"Promise the nearest, {show_length(nearest_s)}"
    target_s = round(nearest_s - solved.lengths.extra_s)
    return MakeOffer(title, (SetTarget(title=title, target_s=target_s),), nearest_s)
