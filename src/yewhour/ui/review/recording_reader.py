"""The looker: reads a recording and compares it with its class, off the interface thread."""

from __future__ import annotations

import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.core.review.learning import observe
from yewhour.core.take.replay import replay
from yewhour.core.take.take import Take
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import read_plan
from yewhour.state.takes.learnt_seconds import keep_notes
from yewhour.state.takes.recording_kinds import CAPTIONS
from yewhour.state.takes.recordings import RecordingSource, heard_in, review_recording
from yewhour.state.takes.replayed_take import marks_in
from yewhour.state.takes.take_sounds import CLASS, MARKS, sounds_in


class Stopped(Exception):
    """The teacher does not want it any more."""


class RecordingReader(QObject):
    """Looks at one recording at a time; the last that was asked for counts.

    looked: a Looked, its Source, and what tells the recording from others. progressed: the share that is
    done. troubled: a Problem.
    """

    looked = Signal(object, object, str)
    progressed = Signal(float)
    troubled = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self._worker = ThreadPoolExecutor(1, "looking back")
        self._stopping = threading.Event()
        self._wish = 0
        self.busy = False

    def look_at_take(self, folder: Path, teaching_data: TeachingData) -> None:
        """A take as it is kept."""

        def source() -> tuple[TimedClass, Take, RecordingSource]:
            plan, marks = read_plan(folder / CLASS), marks_in(folder / MARKS).marks
            solved = solve(plan, teaching_data)
            timed = solved.make((marks[0].length_s if marks else 0.0) or None)
            return timed, replay(solved, timed, marks), RecordingSource(None, tuple(sounds_in(folder)))

        self._begin(source, str(folder))

    def look_at_file(self, path: Path, timed: TimedClass) -> None:
        """Captions, or a recording."""
        captions = path.suffix.lower() in CAPTIONS
        source = RecordingSource(path, ()) if captions else RecordingSource(None, ((0.0, path),))
        self._begin(lambda: (timed, None, source), str(path.resolve()))

    def _begin(self, source: Callable[[], tuple[TimedClass, Take | None, RecordingSource]], key: str) -> None:
        self.stop()
        self._wish += 1
        wish, self._stopping, self.busy = self._wish, threading.Event(), True
        self._worker.submit(self._look, source, key, wish, self._stopping)

    def _look(
        self,
        source: Callable[[], tuple[TimedClass, Take | None, RecordingSource]],
        key: str,
        wish: int,
        stopping: threading.Event,
    ) -> None:
        def progress(share: float) -> None:
            if stopping.is_set():
                raise Stopped
            self.progressed.emit(share)

        try:
            timed, take, what = source()
            hearing = heard_in(what, take.cues if take is not None else timed.cues, progress)
            looked = review_recording(timed, take, hearing)
            if wish == self._wish:
                self.busy = False
                self.looked.emit(looked, what, key)
                keep_notes(key, observe(looked.back))
        except Stopped:
            return
        except Problem as problem:
            self._trouble(problem, wish)
        except Exception as error:  # a fault in reading must not leave the page waiting for good
            self._trouble(Problem(f"The recording could not be looked at: {error!r}."), wish)

    def _trouble(self, problem: Problem, wish: int) -> None:
        if wish == self._wish:
            self.busy = False
            self.troubled.emit(problem)

    def stop(self) -> None:
        """Leaves off."""
        self._stopping.set()
        self.busy = False

    def close(self) -> None:
        """When the window closes."""
        self._wish += 1
        self.stop()
        self._worker.shutdown(wait=True, cancel_futures=True)
