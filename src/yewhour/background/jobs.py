"""Jobs: the one way to run work on another thread, and to hear what came of it.

A job has a key. Of one key the newest wins: one that waits is dropped for it, one that runs is told to stop,
and is heard no more (but see `patience_s`). Jobs of one lane follow each other on one thread; lanes
run beside each other. What comes of a job is delivered where its owner lives (see `Runner`): a result, a
`Problem` that its work raised, or a fault, which is also written into the log with what was lost by it.
"""

import itertools
import threading
import time
from collections.abc import Callable
from typing import Any, NamedTuple, TypeVar

from yewhour.background import log
from yewhour.core.problem import Problem

T = TypeVar("T")
Deliver = Callable[[Callable[[], None]], None]


class Cancelled(Exception):
    """Raised inside work that is no longer wanted."""


class Fault(NamedTuple):
    """Something of ours that failed: what was being done, what is lost by it, and the error itself."""

    doing: str
    lost: str
    error: BaseException

    @property
    def heading(self) -> str:
        """What broke off, as a sentence begins."""
        return f"{self.doing[:1].upper()}{self.doing[1:]} broke off"

    def __str__(self) -> str:
        return f"{self.heading}. {self.lost}".strip()


class Job:
    """One piece of work, as its own thread and the one who asked for it see it.

    patience_s: how long it may have run before a newer one of its key stops it. One that is done by then is
    still heard, so that something is seen of a row of them that are asked for faster than they are made.
    """

    def __init__(self, key: str, doing: str, lost: str, patience_s: float = 0.0) -> None:
        self.key, self.doing, self.lost, self.patience_s = key, doing, lost, patience_s
        self.since = 0.0  # on the monotonic clock; 0 while it waits
        self._cancelled = threading.Event()
        self._superseded = False
        self._report: Callable[[Any], None] = lambda value: None

    def cancel(self) -> None:
        """It is not wanted any more; its work learns of it at its next `check`."""
        self._cancelled.set()

    @property
    def took_s(self) -> float:
        """Seconds it has run."""
        return time.monotonic() - self.since if self.since else 0.0

    @property
    def unwanted(self) -> bool:
        """Whether nothing will be done with what comes of it."""
        return self._cancelled.is_set() or (self._superseded and not self.patience_s)

    def check(self) -> None:
        """To be called by the work now and then. Raises Cancelled when it is to stop."""
        if self._cancelled.is_set() or (self._superseded and self.took_s >= self.patience_s):
            raise Cancelled

    def progress(self, value: Any) -> None:
        """Tells how far the work is, where its owner lives. Raises Cancelled when it is to stop."""
        self.check()
        self._report(value)


class _Asked(NamedTuple):
    """A job that waits, its work, and who hears of it. rank: what comes first, then the order of asking."""

    rank: tuple[int, int]
    job: Job
    work: Callable[[Job], Any]
    then: Callable[[Any], None]
    failed: Callable[[Problem], None]
    faulted: Callable[[Fault], None]


class _Lane:
    """One thread, and what waits for it."""

    def __init__(self, name: str, runner: "Runner") -> None:
        self.name, self.runner = name, runner
        self.changed = threading.Condition()
        self.waiting: list[_Asked] = []
        self.running: Job | None = None
        self.closing = False
        self.thread = threading.Thread(target=self._work, name=f"yewhour {name}", daemon=True)
        self.thread.start()

    def put(self, asked: _Asked, newest: bool) -> None:
        with self.changed:
            if newest:
                for old in [one for one in self.waiting if one.job.key == asked.job.key]:
                    old.job.cancel()
                    self.waiting.remove(old)
                if self.running is not None and self.running.key == asked.job.key:
                    self.running._superseded = True
            self.waiting.append(asked)
            self.waiting.sort(key=lambda one: one.rank)
            self.changed.notify()

    def cancel(self, key: str | None) -> None:
        with self.changed:
            for old in [one for one in self.waiting if key is None or one.job.key == key]:
                old.job.cancel()
                self.waiting.remove(old)
            if self.running is not None and (key is None or self.running.key == key):
                self.running.cancel()

    def _work(self) -> None:
        while True:
            with self.changed:
                while not self.waiting and not self.closing:
                    self.changed.wait()
                if not self.waiting:
                    return
                asked = self.waiting.pop(0)
                self.running = asked.job
                asked.job.since = time.monotonic()
            outcome = self._done(asked)
            wanted = outcome is not None and not asked.job.unwanted
            with self.changed:  # it is on its way before it is done, so that it is never neither
                arrived = self.runner._on_way(asked.job, outcome) if wanted and outcome else None
                self.running = None
            if arrived is not None:
                self.runner.deliver(arrived)

    def _done(self, asked: _Asked) -> Callable[[], None] | None:
        """The work done, and what is to be delivered of it."""
        try:
            value = asked.work(asked.job)
        except Cancelled:
            return None
        except Problem as problem:
            told = problem
            return lambda: asked.failed(told)
        except Exception as error:
            fault = Fault(asked.job.doing, asked.job.lost, error)
            log.fault(fault.doing, error)

            def told_of_fault() -> None:
                asked.faulted(fault)
                self.runner.on_fault(fault)

            return told_of_fault
        return lambda: asked.then(value)


class Runner:
    """Runs jobs for one owner.

    deliver: calls a function where the owner lives, by default on the thread of the job. on_fault: hears of
    every fault, where the owner lives.
    """

    def __init__(
        self,
        deliver: Deliver = lambda call: call(),
        on_fault: Callable[[Fault], None] = lambda fault: None,
    ) -> None:
        self.deliver, self.on_fault = deliver, on_fault
        self._lanes: dict[str, _Lane] = {}
        self._numbers = itertools.count()
        self._closed = False
        self._on_its_way: dict[str, int] = {}  # outcomes handed over and not yet taken, by key
        self._counting = threading.Lock()

    def run(
        self,
        key: str,
        work: Callable[[Job], T],
        then: Callable[[T], None] = lambda value: None,
        *,
        doing: str,
        lost: str = "",
        failed: Callable[[Problem], None] = lambda problem: None,
        faulted: Callable[[Fault], None] = lambda fault: None,
        progress: Callable[[Any], None] | None = None,
        lane: str = "",
        first: int = 0,
        newest: bool = True,
        patience_s: float = 0.0,
    ) -> Job:
        """Does this work on its lane (by default one of its key alone), and gives its job.

        doing, lost: in a teacher's words, for a fault. failed: hears of a Problem, faulted of a fault, before
        everybody else does. progress: of what the
        work gives to `Job.progress`. first: jobs of a lower number come first in a lane. newest: whether it
        takes the place of older ones of its key.
        """
        job = Job(key, doing, lost, patience_s)
        if progress is not None:
            heard = progress
            job._report = lambda value: self._report(job, lambda: heard(value))
        if self._closed:
            job.cancel()
            return job
        name = lane or key
        found = self._lanes.get(name)
        if found is None:
            found = self._lanes[name] = _Lane(name, self)
        rank = first, next(self._numbers)
        found.put(_Asked(rank, job, work, then, failed, faulted), newest)
        return job

    def _report(self, job: Job, call: Callable[[], None]) -> None:
        """On a job's thread: how far it is goes to its owner, who may have given it up by then."""
        self.deliver(lambda: None if self._closed or job.unwanted else call())

    def _on_way(self, job: Job, call: Callable[[], None]) -> Callable[[], None] | None:
        """What is to be delivered of a job that is done; counted until it has arrived."""
        if self._closed:
            return None
        with self._counting:
            self._on_its_way[job.key] = self._on_its_way.get(job.key, 0) + 1

        def arrived() -> None:
            with self._counting:
                self._on_its_way[job.key] -= 1
            if not self._closed and not job.unwanted:
                call()

        return arrived

    def busy(self, *keys: str) -> bool:
        """Whether a wanted job of these keys (of any, for none) waits, runs, or is on its way back."""
        with self._counting:
            if any(count for key, count in self._on_its_way.items() if not keys or key in keys):
                return True
        for lane in self._lanes.values():
            with lane.changed:
                jobs = [one.job for one in lane.waiting] + ([lane.running] if lane.running else [])
            if any((not keys or job.key in keys) and not job.unwanted for job in jobs):
                return True
        return False

    def cancel(self, key: str) -> None:
        """Nothing of this key is wanted any more."""
        for lane in self._lanes.values():
            lane.cancel(key)

    def finish(self, timeout_s: float = 5.0) -> None:
        """Lets all that waits be done, and ends the threads; what comes of it is still delivered."""
        self._end(timeout_s)
        self._closed = True

    def close(self, timeout_s: float = 5.0) -> None:
        """Gives up what waits, stops what runs, and ends the threads; nothing is delivered any more."""
        self._closed = True
        for lane in self._lanes.values():
            lane.cancel(None)
        self._end(timeout_s)

    def _end(self, timeout_s: float) -> None:
        until = time.monotonic() + timeout_s
        for lane in self._lanes.values():
            with lane.changed:
                lane.closing = True
                lane.changed.notify()
        for lane in self._lanes.values():
            if lane.thread is not threading.current_thread():
                lane.thread.join(max(0.0, until - time.monotonic()))
