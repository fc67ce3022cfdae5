"""What a film takes time for, beside the interface: looking at the camera's file, a preview, the writing."""

from __future__ import annotations

from collections.abc import Collection
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from yewhour.background.jobs import Job
from yewhour.core.export.captions import captions
from yewhour.core.export.chapters import chapters
from yewhour.core.film.cut_list import CutList
from yewhour.core.film.on_screen import Part
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import Range
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.takes.camera_film import CameraFilm, CameraSource, look_at_camera
from yewhour.ui.kit.film.beside import Seen, write_beside
from yewhour.ui.kit.film.painter import FilmPainter
from yewhour.ui.kit.jobs import Jobs
from yewhour.voice.film.copied_film import film_of
from yewhour.voice.film.cut_film import WrittenFilm, camera_size
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.film.preview import preview, still

LOOKING, SHOWING, WRITING = "camera", "film picture", "film"


class FilmJobs(QObject):
    """Each kind runs once at a time; the last that was asked for counts.

    looked: a CameraFilm. shown: a SmallPicture, and its second of the recording. previewed: a Preview.
    written: a WrittenFilm and its place. progressed: the share that is done. troubled: a Problem.
    """

    looked = Signal(object)
    shown = Signal(object, float)
    previewed = Signal(object)
    written = Signal(object, object)
    progressed = Signal(float)
    troubled = Signal(object)

    def __init__(self, jobs: Jobs) -> None:
        super().__init__()
        self.jobs = jobs

    def look(self, source: CameraSource, timed: TimedClass, words: TeachingData) -> None:
        """Finds the class in a camera's file."""
        self.jobs.run(
            LOOKING, lambda job: look_at_camera(source, lambda: timed, words, job.progress), self.looked.emit,
            doing="Looking at the camera's file", lost="The camera's file is as it was.",
            failed=self.troubled.emit, faulted=lambda fault: self.troubled.emit(Problem(str(fault))),
            progress=self.progressed.emit, owner=self,
        )  # fmt: skip

    def show(self, camera: Path, at_s: float, wide: int) -> None:
        """The picture at a second of a camera's file."""
        self.jobs.run(
            SHOWING, lambda job: still(camera, at_s, wide), lambda one: self.shown.emit(one, at_s),
            doing="Showing a picture of the film", failed=self.troubled.emit, owner=self,
        )  # fmt: skip

    def preview(self, film: CameraFilm, pieces: list[Range], wide: int) -> None:
        """A few seconds over a cut."""
        camera, own = film.source.camera, film.own_sound
        self.jobs.run(
            SHOWING, lambda job: preview(camera, pieces, wide, own), self.previewed.emit,
            doing="Looking over a cut", failed=self.troubled.emit, owner=self,
        )  # fmt: skip

    def write(
        self, film: CameraFilm, cuts: CutList, parts: Collection[Part], out: Path, beside: Collection[str]
    ) -> None:
        """Writes the film and what goes with it."""
        there = film.in_film(cuts)

        def work(job: Job) -> WrittenFilm:
            over = FilmPainter(there, *camera_size(film.source.camera), parts) if parts else None
            text = FilmText(film.timed.plan.brief.title, chapters(there), captions(there))
            camera, own = film.source.camera, film.own_sound
            made = film_of(camera, out, cuts, text, over, job.progress, own)
            write_beside(there, out, beside, Seen(camera, cuts.in_recording))
            return made

        self.jobs.run(
            WRITING, work, lambda made: self.written.emit(made, out), newest=False,
            doing="Writing the film", lost="Nothing half written was left; the camera's file is as it was.",
            failed=self.troubled.emit, faulted=lambda fault: self.troubled.emit(Problem(str(fault))),
            progress=self.progressed.emit, owner=self,
        )  # fmt: skip

    @property
    def writing(self) -> bool:
        """Whether a film is being written."""
        return self.jobs.busy(WRITING)

    def stop(self) -> None:
        """Leaves off looking and writing."""
        for key in (LOOKING, SHOWING, WRITING):
            self.jobs.cancel(key)
