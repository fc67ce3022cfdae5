"""Make the film: the recording beside its film, the cuts and why, what lies over the picture, one press."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtCore import QElapsedTimer, Qt, QTimer, Signal
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QListWidget,
    QProgressBar,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.film.cut_changes import HEARD_S, cut_out, pulled, put_back, told_length, told_sides
from yewhour.core.film.cut_list import Cut, CutList, Slower
from yewhour.core.film.on_screen import PARTS, Part
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.review.actual_class import actual_class
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.takes.camera_film import CameraFilm, CameraSource
from yewhour.ui.kit.controls.chips import Chips
from yewhour.ui.kit.controls.controls import button, label, page, row, wrapped
from yewhour.ui.kit.film.beside import BESIDE, nothing_there
from yewhour.ui.kit.film.painter import FilmPainter
from yewhour.ui.kit.jobs import Jobs
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.review.film.film_jobs import FilmJobs
from yewhour.ui.review.film.film_picture import WIDE, FilmPicture
from yewhour.ui.review.film.film_sprigs import FilmSprigs, told_cut
from yewhour.voice.film.preview import Preview, SmallPicture

AT_FIRST: tuple[Part, ...] = ("title", "end", "name", "side", "left", "fade")
WORDS: dict[Part, str] = {
    "title": "Title", "end": "Thanks", "name": "Movement", "side": "Side", "left": "What is left",
    "next": "What is next", "breath": "Breath", "figure": "Figure", "captions": "Words", "fade": "Fade",
}  # fmt: skip
TICK_MS = 40
ROWS = 6  # of the list, that are in view
WIDEST = 1.25  # times as wide as usual, that the stems become with large letters
LEAST_HIGH = 90  # pixels, of the picture
FRAMED = 480  # pixels wide, of the pictures in a preview


class FilmWindow(QDialog):
    """One film. camera_wanted: its camera's file. place_wanted: where it is to be written, with a name
    proposed. message: for the foot."""

    camera_wanted = Signal()
    place_wanted = Signal(str)
    message = Signal(str)

    def __init__(self, jobs: Jobs, theme: Theme, timed: TimedClass, words: TeachingData) -> None:
        super().__init__()
        self.theme, self.timed, self.teaching_data = theme, timed, words
        self.film: CameraFilm | None = None
        self.cuts: CutList | None = None
        self.before: list[CutList] = []  # as they were before each change
        self.parts: tuple[Part, ...] = AT_FIRST
        self.at_s = 0.0  # the second of the recording that is shown
        self.ear: Any = None
        self._pictures: list[tuple[float, SmallPicture]] = []
        self._elapsed = QElapsedTimer()
        self.work = FilmJobs(jobs)
        self.setWindowTitle("Make the film")
        self.setObjectName("page")
        self.resize(1180, 740)
        self._build()
        self._wire()
        self.length.setText("What did the camera record?")
        self._busy(False)

    def _build(self) -> None:
        self.sprigs = FilmSprigs(self.theme)
        self.sprigs.setFixedWidth(round(320 * min(scale(), WIDEST)))
        self.length, self.sides = label("", "heading"), label("", "fault")
        self.picture = FilmPicture(self.theme)
        about = "Over the picture"
        self.over = Chips(about, [(part, WORDS[part], f"{PARTS[part].capitalize()}.") for part in PARTS])
        self.over.set_chosen(self.parts)
        self.beside = Chips(
            "Beside it", [(name, name.capitalize(), one.about) for name, one in BESIDE.items()]
        )
        self.beside.set_chosen(("captions",))
        self.list = QListWidget()
        self.list.setAccessibleName("What is cut out")
        self.listen_button = button(
            "Look over it", self.look_over, "Two seconds before it and after (Space)."
        )
        self.back_button = button("Put it back", self.put_back, "It is in the film again (Delete).")
        self.undo_button = button("Take that back", self.undo, "The cuts as they were before (Ctrl+Z).")
        self.list_row = QWidget()
        self.list_row.setLayout(wrapped(self.listen_button, self.back_button, self.undo_button))
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setRange(0, 1000)
        self.stop_button = button("Stop", self.stop)
        self.waiting = QWidget()
        self.waiting.setLayout(row(self.bar, self.stop_button, stretch=False))
        self.write_button = button("Write the film…", self._ask_place, "The camera's file stays.", "accent")
        self.camera_button = button("The camera's file…", self.camera_wanted.emit, "Another recording of it.")
        self.close_button = button("Close", self.close)
        self.picture.setMinimumHeight(round(LEAST_HIGH * scale()))
        area, inside = page()  # with large letters on a small screen it scrolls; what is pressed stays
        inside.setContentsMargins(18, 14, 18, 4)
        inside.addWidget(self.length)
        inside.addWidget(self.sides)
        inside.addWidget(self.picture, 1)
        inside.addWidget(label(about, "prompt"))
        for part in (self.over, self.list, self.list_row):
            inside.addWidget(part)
        inside.addLayout(row(label("Beside it", "prompt"), self.beside, stretch=False))
        presses = QVBoxLayout()
        presses.setContentsMargins(18, 0, 18, 12)
        presses.addWidget(self.waiting)
        presses.addLayout(row(self.write_button, self.camera_button, self.close_button))
        right = QVBoxLayout()
        right.setSpacing(8)
        right.addWidget(area, 1)
        right.addLayout(presses)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(self.sprigs)
        whole.addLayout(right, 1)

    def _wire(self) -> None:
        work, sprigs = self.work, self.sprigs
        work.looked.connect(self.show_film)
        work.shown.connect(self._show_picture)
        work.previewed.connect(self._play)
        work.written.connect(self._written)
        work.progressed.connect(lambda share: self.bar.setValue(round(share * 1000)))
        work.troubled.connect(self.tell)
        sprigs.chosen.connect(self.list.setCurrentRow)
        sprigs.pulled.connect(self.pull)
        sprigs.drawn.connect(self.cut)
        sprigs.pointed.connect(self.point)
        self.list.currentRowChanged.connect(self._choose)
        self.over.changed.connect(self._lay_over)
        self._playing = QTimer(self)
        self._playing.setInterval(TICK_MS)
        self._playing.timeout.connect(self._next_picture)
        keys: tuple[tuple[Qt.Key, Callable[[], object]], ...] = (
            (Qt.Key.Key_Space, self.look_over), (Qt.Key.Key_Delete, self.put_back),
        )  # fmt: skip
        for key, act in keys:
            QShortcut(QKeySequence(key), self.list, act, context=Qt.ShortcutContext.WidgetShortcut)
        QShortcut(QKeySequence(QKeySequence.StandardKey.Undo), self, self.undo)

    # --- looking --------------------------------------------------------------------------------------------

    def look_at(self, source: CameraSource) -> None:
        """A camera's file, from the beginning."""
        self.length.setText("Looking for the class in it…")
        self.picture.say(f"{source.camera.name}: its sound takes about a tenth of its length.")
        self._busy(True)
        self.work.look(source, self.timed, self.teaching_data)

    def show_film(self, film: CameraFilm) -> None:
        """A camera's file that was looked at."""
        self._busy(False)
        try:
            cuts = film.cuts()
        except Problem as problem:
            self.tell(problem)
            return
        self.film, self.before = film, []
        begun = f"The beginning of the take was found {film.told}." if film.told else ""
        if told := " ".join(one for one in (begun, film.tracks) if one):
            self.message.emit(told)
        self._show(cuts)
        self.list.setCurrentRow(0)
        self.list.setFocus()

    def tell(self, problem: Problem) -> None:
        """What went wrong, where the picture would be."""
        self._busy(False)
        if self.cuts is None:
            self.length.setText("There is no film of it yet.")
        self.picture.say(f"{problem.what} {problem.do}")

    def _busy(self, busy: bool) -> None:
        there = self.cuts is not None
        self.waiting.setVisible(busy)
        self.bar.setValue(0)
        for one in (self.over, self.beside, self.list, self.list_row, self.write_button):
            one.setEnabled(there and not busy)
        if busy:
            self.stop_button.setFocus()

    def _show(self, cuts: CutList) -> None:
        """Other cuts: the film that they make, and what is to be said of it."""
        assert self.film is not None
        self.cuts = cuts
        there = self.film.in_film(cuts)
        self.sprigs.show_film(cuts, there)
        self.length.setText(told_length(cuts))
        told = told_sides(actual_class(self.film.back, True), there)
        self.sides.setText(told)
        self.sides.setVisible(bool(told))
        chosen = self.list.currentRow()
        self.list.blockSignals(True)
        self.list.clear()
        self.list.addItems([told_cut(cuts, number) for number in range(len(cuts.changes))])
        self.list.setCurrentRow(min(chosen, self.list.count() - 1))
        self.list.blockSignals(False)
        rows = min(ROWS, max(1, self.list.count()))
        self.list.setFixedHeight(round(rows * self.list.sizeHintForRow(0) + 14 * scale()))
        self.sprigs.choose(self.list.currentRow())
        self.undo_button.setEnabled(bool(self.before))
        self._busy(False)
        self.point(self.at_s)

    def _choose(self, number: int) -> None:
        self.sprigs.choose(number)
        one = self._chosen(number)
        if isinstance(one, Slower):
            self.point(one.start_s)
        elif one is not None and self.cuts is not None:
            self.point(one.end_s if one.end_s < self.cuts.length_s else max(0.0, one.start_s - 0.2))

    def _chosen(self, number: int) -> Cut | Slower | None:
        """A cut, or what is slower, by its row."""
        changes = self.cuts.changes if self.cuts is not None else ()
        return changes[number] if 0 <= number < len(changes) else None

    def point(self, at_s: float) -> None:
        """Shows the picture at a second of the recording."""
        if self.film is None:
            return
        self._quiet()
        self.at_s = at_s
        self.sprigs.point_at(at_s)
        self.work.show(self.film.source.camera, at_s, 2 * WIDE)

    def _show_picture(self, one: SmallPicture, at_s: float) -> None:
        if self.film is None or self.cuts is None:
            return
        there_s = self.cuts.in_film(at_s)
        self.picture.show_picture(one, self._painter(one) if self.parts else None, there_s)

    def _painter(self, one: SmallPicture) -> FilmPainter:
        assert self.film is not None
        assert self.cuts is not None
        seen = [part for part in self.parts if part != "fade"]  # a picture by itself is to be seen
        return FilmPainter(self.film.in_film(self.cuts), one.wide, one.high, seen)

    def _lay_over(self, parts: tuple[Part, ...]) -> None:
        self.parts = parts
        self.point(self.at_s)

    # --- changing -------------------------------------------------------------------------------------------

    def _change(self, cuts: CutList) -> None:
        if self.cuts is not None and cuts != self.cuts and not self.work.writing:
            self.before.append(self.cuts)
            self._show(cuts)

    def pull(self, number: int, first: bool, at_s: float) -> None:
        """An edge of a cut is drawn to another second."""
        if self.cuts is not None and self.film is not None:
            self._change(pulled(self.cuts, number, first, at_s, self.film.hearing))

    def cut(self, start_s: float, end_s: float) -> None:
        """From one second of the recording to another it is not in the film."""
        if self.cuts is not None and self.film is not None:
            self._change(cut_out(self.cuts, start_s, end_s, self.film.hearing))

    def put_back(self) -> None:
        """The chosen cut is in the film again; what is slower is as quick as it was."""
        if self.cuts is not None and self._chosen(self.list.currentRow()) is not None:
            self._change(put_back(self.cuts, self.list.currentRow()))

    def undo(self) -> None:
        """The cuts as they were before the last change."""
        if self.before and not self.work.writing:
            self._show(self.before.pop())

    # --- over a cut -----------------------------------------------------------------------------------------

    def look_over(self) -> None:
        """Two seconds before the chosen cut and two after it, seen and heard; pressed again, quiet."""
        if self._playing.isActive():
            self._quiet()
            return
        one = self._chosen(self.list.currentRow())
        if self.cuts is None or self.film is None or one is None:
            return
        length_s = self.cuts.length_s
        goes_on_s = one.start_s if isinstance(one, Slower) else one.end_s
        around = [
            (max(0.0, one.start_s - HEARD_S), one.start_s),
            (goes_on_s, min(length_s, goes_on_s + HEARD_S)),
        ]
        self.work.preview(self.film, [piece for piece in around if piece[1] - piece[0] > 0.1], FRAMED)

    def _play(self, found: Preview) -> None:
        # Devices, which a film without looking over its cuts does not need.
        from yewhour.voice.devices.monitor import MonitorDevice, MonitorMix

        self._pictures = found.pictures
        if len(found.sound):
            ear = MonitorMix(48_000)
            ear.at_once(found.sound)
            self.ear = MonitorDevice(ear, lambda words: None)
        self._elapsed.start()
        self._playing.start()
        self.listen_button.setText("Quiet")

    def _next_picture(self) -> None:
        at_s = self._elapsed.elapsed() / 1000
        due = [one for second, one in self._pictures if second <= at_s]
        if due:
            self.picture.show_picture(due[-1], None, 0.0)
        if not self._pictures or at_s > self._pictures[-1][0] + 0.3:
            self.point(self.at_s)

    def _quiet(self) -> None:
        self._playing.stop()
        if self.ear is not None:
            self.ear.close()
            self.ear = None
        self.listen_button.setText("Look over it")

    # --- writing --------------------------------------------------------------------------------------------

    def _ask_place(self) -> None:
        self._quiet()
        if self.film is not None:
            self.place_wanted.emit(f"{self.film.source.camera.stem}-film.mp4")

    def write(self, out: Path) -> None:
        """Writes the film to a place."""
        if self.film is None or self.cuts is None:
            return
        beside = [name for name, chip in self.beside.chips.items() if chip.isChecked()]
        try:
            nothing_there(out, beside)
        except Problem as problem:
            self.tell(problem)
            return
        self.length.setText(f"Writing {out.name}…")
        self._busy(True)
        self.work.write(self.film, self.cuts, self.parts, out, beside)

    def _written(self, made: Any, out: Path) -> None:
        self._busy(False)
        self.length.setText(f"{out.name} is written: {show_length(made.length_s, True)}.")
        self.message.emit(f"{out} is written.")

    def stop(self) -> None:
        """Leaves off what takes time; nothing half written is left."""
        self.work.stop()
        self._busy(False)
        if self.cuts is not None:
            self.length.setText(told_length(self.cuts))
        else:
            self.close()

    @property
    def first(self) -> QPushButton:
        """What is wanted most."""
        return self.write_button

    def closeEvent(self, event: object) -> None:
        self._quiet()
        self.work.stop()
