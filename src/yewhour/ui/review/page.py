"""The station that looks back: what was planned beside what was, what to mend, what to learn."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QProgressBar, QPushButton, QVBoxLayout, QWidget

from yewhour.core.problem import Problem
from yewhour.core.review.findings import GRAVE, review_findings
from yewhour.core.review.review import Review, with_start
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.take.cutting import in_film, in_recording
from yewhour.state.takes.corrected_starts import corrected_starts, keep_corrected_starts
from yewhour.state.takes.finished_takes import FinishedTake, keep_take
from yewhour.state.takes.learnt_seconds import is_left_out, leave_out, take_back
from yewhour.state.takes.recordings import (
    RecordingSource,
    ReviewedRecording,
    load_looking,
    write_real,
)
from yewhour.state.takes.take_sounds import MARKS
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    button,
    label,
    row,
    wrapped,
)
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.review.beginning import ReviewBeginning
from yewhour.ui.review.learning_opened import learning_dialog
from yewhour.ui.review.recording_reader import RecordingReader
from yewhour.ui.review.rows import ReviewRows, review_rows
from yewhour.ui.review.summary import all_said, both_sides, on_time
from yewhour.ui.review.two_sprigs import TwoSprigs, told_of

LEARNT = {False: "Learn nothing from it", True: "Learn from it again"}  # by whether it is left out
BEFORE_S = 1.0  # what is played begins so long before the line


class BackPage(QWidget):
    """The page. wanted: a recording is to be chosen; folder_wanted: a folder; camera_wanted, place_wanted:
    the camera's file, and where its film goes, with what takes them. opens: a dialog."""

    wanted = Signal()
    camera_wanted = Signal(object)
    place_wanted = Signal(str, object)
    folder_wanted = Signal()
    opens = Signal(object)
    message = Signal(str)
    troubled = Signal(object)

    def __init__(
        self, session: Session, theme: Theme, shelf: Callable[[], Sequence[ClassSheet]] | None = None
    ) -> None:
        super().__init__()  # shelf: the classes that a recording may be of instead
        self.session, self.theme = session, theme
        self.looked: ReviewedRecording | None = None
        self.source = RecordingSource()
        self.recording = ""  # what tells it from others
        self.edges: dict[str, float] = {}  # that were moved
        self.before: list[tuple[ReviewedRecording, dict[str, float]]] = []  # as it was before they were
        known = (lambda: (session.teaching_data, shelf())) if shelf is not None else None
        self.reader = RecordingReader(session.jobs, known)
        self.player: object | None = None
        self._title = ""
        self._build()
        self.reader.looked.connect(self._take_in)
        self.reader.progressed.connect(self._progress)
        self.reader.troubled.connect(self._trouble)
        session.made_changed.connect(self._class_changed)
        self._playing = QTimer(self)
        self._playing.setInterval(100)
        self._playing.timeout.connect(self._follow)

    def _build(self) -> None:
        self.setObjectName("page")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.sprigs = TwoSprigs(self.theme)
        self.sprigs.chosen.connect(self._choose_segment)
        self.sprigs.moved.connect(self.move_edge)
        self.rows = ReviewRows(self.theme)
        self.rows.chosen.connect(self._choose_row)
        self.rows.played.connect(self.play_row)
        self.length, self.sides, self.words = label("", "heading"), label("", "prompt"), label("", "prompt")
        self.here = label("", "soft")
        self.bar = QProgressBar()
        self.bar.setTextVisible(False)
        self.bar.setRange(0, 1000)
        self.stop_button = button("Stop", self._stop)
        self.waiting = QWidget()
        self.waiting.setLayout(row(self.bar, self.stop_button, stretch=False))
        self.waiting.hide()
        self.begin = ReviewBeginning()
        self.begin.taken.connect(self.look_at_take)
        self.begin.wanted.connect(self.wanted)
        self.begin.troubled.connect(self.troubled)
        seconds = "What your recordings show of your pace."
        self.learn_button = button("Your own seconds…", self.learn, seconds, "accent")
        real = "Captions, chapters and more, with the real times."
        self.write_button = button("Write it as it was…", self.folder_wanted.emit, real)
        self.film_button = button("Make the film…", self.make_film, "The camera's file, cut to the class.")
        self.undo_button = button("Put the edge back", self.put_back, "Takes the last moved edge back.")
        self.other_button = button("Another recording…", self._ask_another)
        self.play_button = button("Play", lambda: self.play_row(self.rows.row), "From the line (Space).")
        self.leave_button = button("", self._leave_out, "What a recording shows can be learnt from, or not.")
        self.buttons = QWidget()
        self.buttons.setLayout(
            wrapped(
                self.play_button, self.film_button, self.learn_button, self.write_button, self.leave_button,
                self.undo_button, self.other_button,
            )
        )  # fmt: skip
        right = QVBoxLayout()
        right.setContentsMargins(20, 14, 18, 12)
        right.setSpacing(8)
        for part in (self.length, self.sides, self.words, self.waiting, self.begin):
            right.addWidget(part)
        right.addWidget(self.rows, 1)
        right.addWidget(self.here)
        right.addWidget(self.buttons)
        right.addStretch(0)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.sprigs)
        whole.addLayout(right, 1)
        self.sprigs.setFixedWidth(round(300 * scale()))
        self._show_begin()

    # --- coming and going -------------------------------------------------------------------------------

    def leave(self) -> None:
        """Another station takes its place."""
        self.be_quiet()

    def enter(self) -> None:
        """Comes to the station."""
        self._class_changed()
        if self.looked is not None:
            return self.rows.setFocus()
        self._show_begin()
        self.first.show()  # so that it can have the focus at once
        self.first.setFocus()

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another size of text."""
        self.theme = theme
        self.sprigs.setFixedWidth(round(300 * scale()))
        self.sprigs.set_theme(theme)
        self.rows.set_theme(theme)

    def hideEvent(self, event: object) -> None:
        self.be_quiet()

    def shut(self) -> None:
        """When the window closes."""
        self.be_quiet()
        self.reader.stop()

    def _class_changed(self) -> None:
        """Another class has other recordings; the same one, changed, keeps its own."""
        plan = self.session.plan
        title = plan.brief.title if plan is not None else ""
        if title != self._title:
            self._title, self.looked, self.before = title, None, []
            self.reader.stop()
            self.waiting.hide()
            self._show_begin()
        elif self.looked is None and self.isVisible():
            self._show_begin()

    def _show_begin(self) -> None:
        """What there is to look back at."""
        for one in (self.rows, self.buttons, self.here, self.sides, self.words):
            one.setVisible(False)
        self.begin.setVisible(True)
        self.sprigs.show_back(None)
        self.length.setText("What really happened")
        self.begin.show_takes(self._title)

    @property
    def first(self) -> QPushButton:
        """What is wanted most, before there is anything to look at."""
        return self.begin.first

    # --- looking ----------------------------------------------------------------------------------------

    def look_at_take(self, taken: FinishedTake) -> None:
        """A take as it is kept."""
        self._wait("the take, from its marks and its sound" if taken.sound else "the take, from its marks")
        self.reader.look_at_take(taken.folder, self.session.teaching_data)

    def look_at_latest(self) -> None:
        """The take that has just ended; what there is to choose from, where none is kept."""
        taken = max(self.begin.takes, key=lambda one: one.when, default=None)
        if taken is not None:
            self.look_at_take(taken)

    def look_at_file(self, path: Path) -> None:
        """Captions or a recording of the class that is open."""
        if self.session.timed is None:
            self.troubled.emit(Problem("There is no class to look back at.", do="Open its class."))
            return
        self._wait(path.name)
        self.reader.look_at_file(path, self.session.timed)

    def _wait(self, what: str) -> None:
        self.be_quiet()
        self.bar.setValue(0)
        self.waiting.setVisible(True)
        self.begin.setVisible(False)
        self.length.setText("Listening…")
        self.sides.setText(f"To {what}. Sound takes about a tenth of its own length.")
        self.sides.setVisible(True)
        for one in (self.rows, self.buttons, self.here, self.words):
            one.setVisible(False)
        self.stop_button.setFocus()

    def _progress(self, share: float) -> None:
        self.bar.setValue(round(share * 1000))

    def _stop(self) -> None:
        self.reader.stop()
        self.waiting.hide()
        if self.looked is None:
            self._show_begin()
        else:
            self._show(self.looked, self.source)

    def _trouble(self, problem: Problem) -> None:
        self._stop()
        self.troubled.emit(problem)

    def _ask_another(self) -> None:
        self.looked, self.before = None, []
        self._show_begin()

    def _take_in(self, looked: ReviewedRecording, source: RecordingSource, recording: str) -> None:
        """A recording that was looked at, with the edges that were moved before."""
        self.recording, self.edges, self.before = recording, corrected_starts(recording), []
        back = looked.back
        for segment, at_s in self.edges.items():
            back = with_start(back, segment, at_s)
        self._show(_seen_anew(back, looked) if self.edges else looked, source)

    def _show(self, looked: ReviewedRecording, source: RecordingSource) -> None:
        self.looked, self.source = looked, source
        self.waiting.hide()
        self.begin.setVisible(False)
        self.sprigs.show_back(looked.back)
        self.rows.show_rows(review_rows(looked.back, looked.found))
        for one in (self.rows, self.buttons, self.here, self.sides, self.words):
            one.setVisible(True)
        self.length.setText(on_time(looked))
        self.sides.setText(both_sides(looked))
        self.words.setText(all_said(looked))
        self.here.setText(" ".join(looked.back.messages))
        self.leave_button.setText(LEARNT[is_left_out(self.recording)])
        self.undo_button.setVisible(bool(self.before))
        self.play_button.setVisible(bool(source.sounds))
        self.rows.setFocus()

    def _leave_out(self) -> None:
        """The recording teaches nothing, or does again."""
        out = not is_left_out(self.recording)
        folder = Path(self.recording)
        try:
            if (folder / MARKS).is_file():
                keep_take(folder, not out)
            else:
                (leave_out if out else take_back)(self.recording)
        except Problem as problem:
            self.troubled.emit(problem)
            return
        self.leave_button.setText(LEARNT[out])
        self.message.emit("Nothing is learnt from it." if out else "It is learnt from again.")

    # --- choosing, moving, playing ----------------------------------------------------------------------

    def _choose_segment(self, segment: str) -> None:
        self.sprigs.choose(segment)
        self.rows.choose_segment(segment)
        self._tell_segment(segment)

    def _choose_row(self, number: int) -> None:
        chosen = self.rows.rows[number]
        self.sprigs.choose(chosen.segment)
        self._tell_segment(chosen.segment)
        if chosen.how in GRAVE:
            self.here.setText(f"{chosen.meant} {chosen.said}.")  # in full, where its row had no room

    def _tell_segment(self, segment: str) -> None:
        back = self.looked.back if self.looked is not None else None
        one = next((one for one in back.segments if one.segment.id == segment), None) if back else None
        self.here.setText(told_of(one) if one is not None else "")

    def move_edge(self, segment: str, at_s: float) -> None:
        """A segment began at another second than was heard."""
        if self.looked is None:
            return
        self.before.append((self.looked, dict(self.edges)))
        self.edges[segment] = at_s
        keep_corrected_starts(self.recording, self.edges)
        looked = self.looked
        self._show(_seen_anew(with_start(looked.back, segment, at_s), looked), self.source)
        self._choose_segment(segment)

    def put_back(self) -> None:
        """The last edge that was moved, where it was."""
        if self.before:
            looked, self.edges = self.before.pop()
            keep_corrected_starts(self.recording, self.edges)
            self._show(looked, self.source)

    def play_row(self, number: int) -> None:
        """Plays from a row on, or is quiet again."""
        if self._playing.isActive():
            self.be_quiet()
            return
        if not self.source.sounds or not 0 <= number < len(self.rows.rows):
            return
        film_s = self.rows.rows[number].at_s or 0.0
        at_s = max(0.0, in_recording(self._cuts, film_s) - BEFORE_S)
        from_s, path = next(one for one in reversed(self.source.sounds) if one[0] <= at_s or one[0] == 0)
        if self.player is None:
            # Codecs and devices, which looking alone does not need.
            from yewhour.voice.devices.player import Player

            self.player = Player(self.message.emit)
        self.player.play(path, at_s - from_s)  # type: ignore[attr-defined]
        if self.player.playing:  # type: ignore[attr-defined]
            self._playing_from = from_s
            self._playing.start()
            self.play_button.setText("Quiet")

    def _follow(self) -> None:
        at_s = self._playing_from + self.player.at_s  # type: ignore[union-attr]
        self.sprigs.play_at(in_film(self._cuts, at_s))

    @property
    def _cuts(self) -> tuple[tuple[float, float], ...]:
        return self.looked.back.cuts if self.looked is not None else ()

    def be_quiet(self) -> None:
        """Plays nothing."""
        if self._playing.isActive():
            self._playing.stop()
            self.player.stop()  # type: ignore[union-attr]
            self.sprigs.play_at(None)
            self.play_button.setText("Play")

    # --- writing and learning ---------------------------------------------------------------------------

    def write_into(self, folder: Path) -> None:
        """Writes captions, chapters and more, as it was."""
        if self.looked is None:
            return
        try:
            paths = write_real(self.looked, self.source, folder, self._stem())
        except Problem as problem:
            self.troubled.emit(problem)
            return
        self.message.emit(f"Written into {folder}: {', '.join(path.name for path in paths)}.")

    def _stem(self) -> str:
        path = self.session.path
        return path.stem if path is not None else "class"

    def learn(self) -> None:
        """Her own seconds beside the usual."""
        dialog = learning_dialog(self.session)
        if dialog is not None:
            self.opens.emit(dialog)

    def make_film(self) -> None:
        """The film of what was looked back at; its camera's file is asked for where it isn't known."""
        if self.looked is None:
            return
        # Codecs and a painter, which looking alone does not need.
        from yewhour.ui.review.film import opening

        self.be_quiet()
        try:
            seen = opening.seen_already(self.looked, self.source)
        except Problem as problem:
            self.troubled.emit(problem)
            return
        window = opening.film_window(self.session, self.theme, self.looked)
        window.message.connect(self.message)
        window.place_wanted.connect(lambda name: self.place_wanted.emit(name, window.write))
        self.opens.emit(window)
        look = opening.look_in(window, self.session, self.source, self.recording)
        window.camera_wanted.connect(lambda: self.camera_wanted.emit(look))
        if seen is not None:
            window.show_film(seen)
        else:
            window.camera_wanted.emit()


def _seen_anew(back: Review, before: ReviewedRecording) -> ReviewedRecording:
    return ReviewedRecording(back, tuple(review_findings(back, load_looking())), before.hearing)
