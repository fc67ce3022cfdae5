"""The workshop: classes are made here, off the interface thread. The newest wish wins.

One wish of each kind waits at most; a newer one takes its place, and work that has gone on for long is
stopped for it. The core is imported here too, so that the window can be on screen before NumPy is.
"""

from __future__ import annotations

import math
import threading
import time
from collections.abc import Callable
from typing import NamedTuple

from PySide6.QtCore import QObject, Signal

from yewhour.core.edits.cuts import with_given_pace
from yewhour.core.edits.remedies import remedies
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Edit
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass

PATIENCE_S = 0.25  # work that took longer is stopped for a newer wish
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
    """What came of a wish. `refusal` says why the length could not be; `problem`, why there is no class.

    unfinished: there is not enough in the class for its length yet; it is as long as it is by itself.
    """

    wish: MakeRequest
    solved: SolvedPlan | None = None
    timed: TimedClass | None = None
    refusal: str = ""
    problem: Problem | None = None
    offers: tuple[MakeOffer, ...] = ()
    unfinished: bool = False


class _Stopped(Exception):
    """Raised inside work that is no longer wanted."""


class ClassMaker(QObject):
    """Makes classes on a thread of its own and tells of each by `done`; `stage` says what it is doing."""

    done = Signal(object)
    _made = Signal(object)
    stage = Signal(str)

    def __init__(self, words: Callable[[], TeachingData]) -> None:
        super().__init__()
        self.words = words
        self._wishes: dict[str, MakeRequest] = {}
        self._ready = threading.Condition()
        self._thread: threading.Thread | None = None
        self._doing: MakeRequest | None = None
        self._since = 0.0
        self._closing = False
        self._stop = False
        self._on_its_way = 0  # outcomes told and not yet taken
        self._made.connect(self._arrived)
        self._known: dict[int, tuple[Plan, SolvedPlan]] = {}

    @property
    def busy(self) -> bool:
        """Whether anything is being made or waits to be."""
        with self._ready:
            return bool(self._wishes) or self._doing is not None or self._on_its_way > 0

    def _arrived(self, outcome: MadeOutcome) -> None:
        """Back on the interface thread."""
        with self._ready:
            self._on_its_way -= 1
        if not self._closing:
            self.done.emit(outcome)

    def ask(self, wish: MakeRequest) -> None:
        """Makes this as soon as may be, in place of an older wish of its kind."""
        with self._ready:
            self._wishes[wish.kind] = wish
            if self._thread is None:
                self._thread = threading.Thread(target=self._work, name="workshop", daemon=True)
                self._thread.start()
            self._ready.notify()

    def stop(self) -> None:
        """Stops what is being made and forgets what waits."""
        with self._ready:
            self._wishes.clear()
            self._stop = self._doing is not None

    def close(self) -> None:
        """Ends the thread, after the stage it is in."""
        with self._ready:
            self._wishes.clear()
            self._closing = True
            self._ready.notify()
        if self._thread is not None:
            self._thread.join(timeout=5)

    # --- on the thread -----------------------------------------------------------------------------------

    def _work(self) -> None:
        while True:
            with self._ready:
                while not self._wishes and not self._closing:
                    self._ready.wait()
                if self._closing:
                    return
                kind = next(kind for kind in ("class", "trial", "offers") if kind in self._wishes)
                self._doing, self._since, self._stop = self._wishes.pop(kind), time.monotonic(), False
                wish = self._doing
            try:
                outcome = self._offers(wish) if wish.kind == "offers" else self._make(wish)
            except _Stopped:
                outcome = None
            except Exception as error:  # a fault of ours must not end the thread
                what = f"The class could not be made: {error!r}."
                do = "Undo the last change; please send the class to the makers of this program."
                outcome = MadeOutcome(wish, problem=Problem(what, do=do))
            with self._ready:
                self._doing = None
                message = outcome is not None and not self._closing
                self._on_its_way += message
            if message:
                self._made.emit(outcome)

    def _heard(self, stage: str) -> None:
        with self._ready:
            took = time.monotonic() - self._since
            newer = self._doing is not None and self._doing.kind in self._wishes
            unwanted = self._closing or self._stop or (newer and took > PATIENCE_S)
        if unwanted:
            raise _Stopped
        if took > PATIENCE_S:
            self.stage.emit(stage)

    def _solved(self, plan: Plan) -> SolvedPlan:
        kept = self._known.get(id(plan))
        if kept is not None and kept[0] is plan:
            return kept[1]
        solved = solve(plan, self.words(), stage=self._heard)
        self._known[id(plan)] = plan, solved
        while len(self._known) > KEPT_SOLVED:
            del self._known[next(iter(self._known))]
        return solved

    def _make(self, wish: MakeRequest) -> MadeOutcome:
        try:
            solved = self._solved(wish.plan)
        except Problem as problem:
            return MadeOutcome(wish, problem=problem)
        length_s = solved.promised_s if wish.length_s is None else wish.length_s
        try:
            return MadeOutcome(wish, solved, with_given_pace(solved, length_s).make(length_s))
        except CannotFit as problem:
            if length_s > solved.longest_s:  # unfinished: as it is by itself, not stretched to its most
                timed = solved.make(solved.preferred_s)
                return MadeOutcome(wish, solved, timed, _unfinished(solved, length_s), unfinished=True)
            return MadeOutcome(wish, solved, solved.make(solved.nearest_s(length_s)), str(problem))
        except Problem as problem:
            return MadeOutcome(wish, solved, None, problem=problem)

    def _offers(self, wish: MakeRequest) -> MadeOutcome:
        """Remedies for a length that can't be, best first."""
        try:
            solved = self._solved(wish.plan)
            length_s = solved.promised_s if wish.length_s is None else wish.length_s
            found = remedies(solved, length_s)
        except Problem:
            return MadeOutcome(wish)
        offers = [MakeOffer(one.title, one.edits, one.gives_s) for one in found]
        promise = _promising(solved, length_s)
        offers.insert(0 if length_s < solved.shortest_s else len(offers), promise)
        return MadeOutcome(wish, offers=tuple(offers))


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
    return MakeOffer(title, (Edit("target", "", title, amount=target_s),), nearest_s)
