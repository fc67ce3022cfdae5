"""The window: the promise in the head, the sprig at the left, a station at the right, what is next below.

It puts its parts together and is what Qt tells of keys, sizes and closing. What is shown where is with
`stations`, what can be done with `acting`, what comes late with `pages`.
"""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING, cast

from PySide6.QtCore import QEvent, Qt, QTimer, Signal
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QDialog, QMainWindow, QVBoxLayout, QWidget

from yewhour.core.problem import Problem
from yewhour.ui.desk.class_files import ClassFiles
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.acting import bindings
from yewhour.ui.frame.acting.registry import Act, Commands
from yewhour.ui.frame.acting.view import View
from yewhour.ui.frame.around.foot import HINT, Foot
from yewhour.ui.frame.around.head import Head
from yewhour.ui.frame.around.status import Status
from yewhour.ui.frame.dialogs.file_commands import FileCommands
from yewhour.ui.frame.pages import Pages
from yewhour.ui.frame.start.left_over import left_over
from yewhour.ui.frame.stations import StationPlace, Stations
from yewhour.ui.frame.wiring import wire
from yewhour.ui.kit import theme as look
from yewhour.ui.kit.commands import COMMANDS
from yewhour.ui.kit.lazy import Lazy
from yewhour.ui.kit.plus_key import plus_command
from yewhour.ui.kit.station import Station
from yewhour.ui.sprig.actions import SprigActions
from yewhour.ui.sprig.finder import FinderPane
from yewhour.ui.sprig.inspector import Inspector
from yewhour.ui.sprig.sprig import Sprig
from yewhour.ui.sprig.sprig_station import SprigStation

if TYPE_CHECKING:
    from yewhour.ui.frame.dialogs.drafting import Drafting

SHELVE_MS = 1500
SERIES = 2  # the view of the shelf that shows series
ROOMY = 900  # pixels of a window, at the usual text size, that has room for every word
ABOUT = {command.name: f"{command.about} ({command.keys[0]})" for command in COMMANDS if command.keys}
BACK = (
    "Draw an edge of what was to where you hear it; Space plays from the chosen line, where there is sound."
)
UNHEARD = (
    "A take that is recorded here is looked back at by itself; anything else by its captions or its sound."
)
SHELVED = "Drag a class to a day, or press Alt and an arrow. Enter opens it, Delete takes it off its day."


class Window(QMainWindow):
    """Shows one session. another_wanted: one more window, dark or light."""

    another_wanted = Signal(bool)

    def __init__(self, session: Session, dark: bool | None = None) -> None:
        super().__init__()
        self.session = session
        self.dark = look.system_is_dark() if dark is None else dark
        self._dialogs: list[QDialog] = []
        self.setWindowTitle("Yew Hour")
        self.resize(1280, 800)
        self.setMinimumSize(900, 560)
        self.setAcceptDrops(True)
        self._shelving_soon = self._timer(SHELVE_MS)  # once the class has been there for a moment
        self._shelving_soon.timeout.connect(self.shelve)
        self._growing = self._timer(150)  # once the hand rests
        self._growing.timeout.connect(self._grow)
        self.pages = Pages(session, self)
        self.files = ClassFiles(session)
        self.file_commands = FileCommands(self, session, self.files, self.pages)
        self.pages.drafting.when_made(self._take_drafts)
        self.sprig_actions = SprigActions(session)
        self._build()
        self.view = View(self, session, self.pages)
        self.commands = Commands(self, self._acts(), self.tell, self.view.unseen, self.view.try_out)
        self.commands.at(self.sprig, "sprig", self.sprig.choose_at)
        self.pages.words.when_made(lambda page: self.commands.at(page.script, "script"))
        wire(self.pages, self.file_commands, self, self.show_class)
        self._listen()
        self.dress()

    def _timer(self, interval_ms: int) -> QTimer:
        timer = QTimer(self)
        timer.setSingleShot(True)
        timer.setInterval(interval_ms)
        return timer

    # --- building ---------------------------------------------------------------------------------------

    def _build(self) -> None:
        self.sprig = Sprig(self.session, self.theme)
        self.finder = FinderPane(self.session, self.sprig_actions, self.theme)
        self.inspector = Inspector(self.session, self.sprig_actions, lambda: self.theme)
        self.build_page = SprigStation(self.sprig, self.finder, self.inspector)
        places = self._places()
        self.head = Head([(place.title, ABOUT[place.command]) for place in places])
        self.foot = Foot(self.session)
        self.status = Status(self.session, self.head, self.foot)
        self.stations = Stations(
            self, self.sprig, places, (self.head, self.foot, self.menuBar()),
            lambda: self.session.plan is not None,
        )  # fmt: skip
        self.stations.places[1].page()  # the sprig's own is there from the start
        whole = QVBoxLayout()
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.head)
        whole.addWidget(self.stations.body, 1)
        whole.addWidget(self.foot)
        middle = QWidget()
        middle.setLayout(whole)
        self.setCentralWidget(middle)

    def _places(self) -> tuple[StationPlace, ...]:
        """The stations, in the order of the work."""

        def page(lazy: object) -> Lazy[Station]:
            return cast(Lazy[Station], lazy)

        pages, sprig = self.pages, Lazy(lambda: self.build_page)
        return (
            StationPlace("to_promise", "Promise", page(pages.promise), folds=True),
            StationPlace("to_sprig", "Sprig", page(sprig)),
            StationPlace("to_words", "Words", page(pages.words), folds=True),
            StationPlace("to_take", "Take", page(pages.take), alone=True, wide=True),
            StationPlace("to_back", "Look back", page(pages.review), wide=True, hint=BACK),
            StationPlace("to_shelf", "Shelf", page(pages.shelf), always=True, wide=True, hint=SHELVED),
        )

    def _listen(self) -> None:
        session, sprig = self.session, self.sprig
        sprig.section_chosen.connect(session.pick_section)
        sprig.brought.connect(self.finder.bring)
        self.finder.field.left.connect(sprig.setFocus)
        self.finder.make_mine.connect(self.view.make_movement)
        self.head.wanted.connect(lambda number: self.go_to(self.stations.places[number].command))
        self.head.export.clicked.connect(lambda: self.file_commands.export_script())
        self.pages.start.when_made(self.stations.body.addWidget)
        self.stations.changed.connect(self.show_class)
        self.stations.left.connect(self.status.forget)  # what was told belongs where it was told
        session.made_changed.connect(self.show_class)
        session.made_changed.connect(self._shelve_soon)
        session.plan_changed.connect(self._forget_note)
        session.refused.connect(self.tell)
        session.told.connect(self.say)
        session.fill_wanted.connect(lambda: self.commands.do("draft_fill"))
        session.working.connect(lambda stage: self.foot.show_working(stage, self.theme))
        session.jobs.faulted.connect(self.view.show_fault)
        self.files.said.connect(self.say)
        self.files.troubled.connect(self.tell)
        self.files.opened.connect(self._show_bench)

    def _take_drafts(self, drafting: Drafting) -> None:
        drafting.begun = partial(self.files.begin, tried=True)
        drafting.shown_series = lambda: self.pages.shelf().show_view(SERIES)

    def _acts(self) -> dict[str, Act]:
        """Every command's function."""
        return {
            **bindings.file_acts(self.file_commands),
            **self.sprig_actions.by_command,
            **bindings.view_acts(self.view),
            **bindings.draft_acts(self.pages),
            **bindings.line_acts(self.pages),
            **{place.command: partial(self.go_to, place.command) for place in self.stations.places},
            "close": self.close,
            "undo": lambda: self.view.undo(self._on_shelf),
            "redo": lambda: self.view.redo(self._on_shelf),
            "mend": self.mend,
            "find_movement": self.find_movement,
            "pick_all": self.pick_all,
            "open_find": self.open_find,
        }

    # --- its parts ----------------------------------------------------------------------------------------

    @property
    def theme(self) -> look.Theme:
        """The colours of now."""
        return look.theme_for(self.dark)

    @property
    def roomy(self) -> bool:
        """Whether there is room for every word."""
        return self.width() > ROOMY * look.scale()

    # --- stations ---------------------------------------------------------------------------------------

    def go_to(self, station: str) -> None:
        """To a station, by the command that goes there."""
        self.stations.go(station)

    def show_first_page(self) -> None:
        """The shelf, as soon as there is something on it; else every way to begin."""
        if self.pages.has_shelf():
            self.go_to("to_shelf")
            self.pages.shelf().promise.field.setFocus()
        else:
            self.show_beginnings()

    def show_beginnings(self) -> None:
        """Every way to begin a class."""
        self.stations.show_other(self.pages.start())
        self.pages.start().refresh()
        self.show_class()
        self.pages.start().first.setFocus()

    def _show_bench(self) -> None:
        self.foot.note = None
        self.go_to("to_sprig")
        self.sprig.show_all()

    # --- showing ----------------------------------------------------------------------------------------

    def dress(self) -> None:
        """Puts on the colours and the text size."""
        theme = self.theme
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        look.apply(application, theme)
        self.head.dress(theme, self.roomy)
        if self.pages.start.made is not None:
            self.pages.start.made.set_theme(theme)
        for place in self.stations.places:
            if place.page.made is not None:
                place.page.made.set_theme(theme)
        self.sprig.updateGeometry()
        self.show_class()

    def show_class(self) -> None:
        """The promise in the head, and what is next in the foot."""
        self._name_undo()
        session = self.session
        for name in ("export_script", "show_stand"):
            self.commands.actions[name].setEnabled(session.timed is not None)
        if session.plan is not None:
            self.setWindowTitle(f"{session.plan.brief.title}{' *' if session.changed else ''} – Yew Hour")
        start = self.pages.start.made
        at_start = start is not None and self.stations.body.currentWidget() is start
        hint = (self.stations.here.hint if self.stations.here is not None else "") or HINT
        if self._on_shelf and not self.pages.shelf().on_weeks:
            hint = ""
        if hint == BACK and self.pages.review().looked is None:
            hint = UNHEARD
        self.status.show(self.stations, self.theme, self.roomy, at_start, hint)

    @property
    def _on_shelf(self) -> bool:
        return self.stations.here is not None and self.stations.here.command == "to_shelf"

    def _name_undo(self) -> None:
        past = self.pages.shelving() if self._on_shelf else self.session.past
        for name, titles, word in (
            ("undo", past.undo_titles, "Undo"),
            ("redo", past.redo_titles, "Do again"),
        ):
            self.commands.actions[name].setText(f"{word}: {titles[0]}" if titles else word)
            self.commands.actions[name].setEnabled(bool(titles))

    def say(self, words: str) -> None:
        """Says that something is done, until the class changes."""
        self.status.say(words)
        self.show_class()

    def say_kept(self) -> None:
        """Says what was left over from last time, and where to go on with it."""
        words = left_over()
        if words:
            self.say(words)

    def tell(self, problem: Problem) -> None:
        """Says what went wrong, and keeps everything as it is."""
        self.status.tell(str(problem))
        self.show_class()
        self.foot.put(str(problem), self.theme.trouble)
        QApplication.alert(self)

    def _forget_note(self) -> None:
        """A change makes old what was told before it."""
        self.foot.note = None
        QTimer.singleShot(0, self, self.show_class)

    def keep_open(self, dialog: QDialog) -> None:
        """Opens a dialog over the window."""
        self._dialogs = [one for one in self._dialogs if one.isVisible()] + [dialog]
        dialog.setParent(self, Qt.WindowType.Dialog)
        dialog.setModal(True)
        dialog.resize(dialog.size().boundedTo(self.size()))
        dialog.show()

    def open_another(self) -> None:
        """One more window."""
        self.another_wanted.emit(self.dark)

    # --- the shelf ----------------------------------------------------------------------------------------

    def _shelve_soon(self) -> None:
        if self.session.path is not None and not self.files.is_demo(self.session.path):
            self._shelving_soon.start()

    def shelve(self) -> None:
        """Puts the class that is open onto the shelf, as it is in its file."""
        session = self.session
        if session.path is None or session.timed is None or session.changed or session.busy:
            return
        if not self.files.is_demo(session.path):
            self.pages.shelf().making.shelve(session.path, session.timed)

    # --- commands of its own ------------------------------------------------------------------------------

    def mend(self) -> None:
        """Does what is offered, and says so."""
        offer = self.foot.mend_button
        if offer.isVisible() and offer.edits:
            done = offer.text()
            offer.click()
            self.say(f"Done: {done}. Ctrl+Z takes it back.")
        else:
            self.say("Nothing is offered just now.")

    def find_movement(self) -> None:
        """To the finder, from anywhere."""
        if self.session.plan is not None:
            self.go_to("to_sprig")
            self.finder.field.setFocus()
            self.finder.field.selectAll()

    def pick_all(self) -> None:
        """Chooses every movement of the class."""
        if self.session.plan is not None:
            self.session.pick(*(node.id for section in self.session.plan.sections for node in section.body))

    def open_find(self) -> None:
        """The bar to find and replace words."""
        if self.session.plan is not None:
            self.go_to("to_words")
            self.pages.words().open_find()

    # --- what Qt tells it -----------------------------------------------------------------------------------

    def event(self, event: QEvent) -> bool:
        if (
            event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and plus_command(event)
        ):
            event.accept()  # the stroke comes to keyPressEvent, not to two shortcuts at once
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        command = plus_command(event)
        if command:
            self.commands.actions[command].trigger()
        elif event.key() != Qt.Key.Key_Escape:
            super().keyPressEvent(event)
        elif self.sprig.cancel() or self.session.trial is not None:
            self.session.drop_trial()
        elif not self.sprig.hasFocus():  # out of a field or a page, back to the class
            self.sprig.setFocus()
        elif self.session.picked:  # and then to the whole of it
            self.session.select("")

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.head.dress(self.theme, self.roomy)
        self.stations.fold()
        self.show_class()
        if self.isVisible():
            self._growing.start()
        else:
            self._grow()

    def _grow(self) -> None:
        """Text as large as the window has room for."""
        if look.grow_with(self.size()):
            self.dress()

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        names = [url.toLocalFile() for url in event.mimeData().urls() if url.isLocalFile()]
        self.file_commands.take_dropped(names)

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes without asking: what is not saved is kept, and offered at the next start."""
        self.files.close()
        self.session.jobs.close()
        self.pages.shut()
        super().closeEvent(event)
