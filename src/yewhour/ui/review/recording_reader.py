"""Reads a recording and compares it with its class, beside the interface."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from yewhour.background.jobs import Job
from yewhour.core.pipeline import solve
from yewhour.core.problem import Problem
from yewhour.core.review.film_time import of_the_recording
from yewhour.core.review.learning import observe
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.take.replay import replay
from yewhour.core.take.take import Take
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import read_plan
from yewhour.state.takes.finished_takes import is_keeper
from yewhour.state.takes.learnt_seconds import keep_notes, leave_out
from yewhour.state.takes.recording_kinds import CAPTIONS
from yewhour.state.takes.recordings import (
    RecordingSource,
    ReviewedRecording,
    heard_in,
    review_recording,
    told_whose,
)
from yewhour.state.takes.replayed_take import marks_in
from yewhour.state.takes.take_sounds import CLASS, MARKS, sounds_in
from yewhour.ui.kit.jobs import Jobs

READING, KEEPING = "recording", "recording notes"


class RecordingReader(QObject):
    """Looks at one recording at a time; the last that was asked for counts.

    looked: a ReviewedRecording, its RecordingSource, and what tells the recording from others. progressed:
    the share that is done. troubled: a Problem.
    """

    looked = Signal(object, object, str)
    progressed = Signal(float)
    troubled = Signal(object)

    def __init__(
        self, jobs: Jobs, shelf: Callable[[], tuple[TeachingData, Sequence[ClassSheet]]] | None = None
    ) -> None:
        """shelf: what tells whose a recording is that is not of the class it is held against."""
        super().__init__()
        self.jobs, self.shelf = jobs, shelf

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
        shelf = self.shelf() if self.shelf is not None else None

        def work(job: Job) -> tuple[ReviewedRecording, RecordingSource]:
            timed, take, what = source()
            cues = of_the_recording(take.cues, take.cuts) if take is not None else timed.cues
            hearing = heard_in(what, cues, job.progress)
            looked = review_recording(timed, take, hearing)
            return told_whose(looked, shelf[0], lambda: shelf[1]) if shelf is not None else looked, what

        def then(found: tuple[ReviewedRecording, RecordingSource]) -> None:
            looked, what = found
            self.looked.emit(looked, what, key)
            self.jobs.run(
                KEEPING, lambda job: _keep(key, looked), newest=False,
                doing="Keeping what the recording taught", lost="The recording itself is as it was.",
                failed=self.troubled.emit, owner=self,
            )  # fmt: skip

        self.jobs.run(
            READING, work, then, doing="Looking at the recording", lost="The recording itself is as it was.",
            failed=self.troubled.emit, faulted=lambda fault: self.troubled.emit(Problem(str(fault))),
            progress=self.progressed.emit, owner=self,
        )  # fmt: skip

    @property
    def busy(self) -> bool:
        """Whether a recording is being looked at."""
        return self.jobs.busy(READING)

    def stop(self) -> None:
        """Leaves off."""
        self.jobs.cancel(READING)


def _keep(key: str, looked: ReviewedRecording) -> None:
    """Keeps what a recording taught; of a take that is no keeper it is kept, and not learnt from."""
    keep_notes(key, observe(looked.back))
    if (Path(key) / MARKS).is_file() and not is_keeper(Path(key)):
        leave_out(key)
