"""The window: the promise in the head, the sprig at the left, a station at the right, what is next below.

It is long because it is the one place that knows all parts: it makes them, connects them and passes each deed
on to the part that does it. What a part does is in the part's own file.
"""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtCore import QEvent, QPoint, Qt, QTimer
from PySide6.QtGui import (
    QAction,
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QKeySequence,
    QResizeEvent,
)  # fmt: skip
from PySide6.QtWidgets import (
    QApplication,
    QDialog,
    QMenu,
    QSplitter,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from yewhour.core.problem import Problem
from yewhour.state.paths import kept_shelf
from yewhour.ui.desk.class_files import ClassFiles
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.dialogs.file_commands import FileCommands
from yewhour.ui.frame.foot import HINTS, Foot
from yewhour.ui.frame.head import Head
from yewhour.ui.frame.pages import Pages
from yewhour.ui.frame.promised import promised
from yewhour.ui.frame.start.left_over import left_over
from yewhour.ui.frame.stations import STATIONS
from yewhour.ui.frame.view import View
from yewhour.ui.kit import theme as look
from yewhour.ui.kit.commands import AT_HAND, DEEDS, with_letter
from yewhour.ui.kit.plus_key import plus_command
from yewhour.ui.sprig.actions import SprigActions
from yewhour.ui.sprig.finder import FinderPane
from yewhour.ui.sprig.inspector import Inspector
from yewhour.ui.sprig.sprig import Sprig

SHELVE_MS = 1500
ROOMY = 900  # pixels of a window, at the usual text size, that has room for every word
ABOUT = {deed.name: f"{deed.about} ({deed.keys[0]})" for deed in DEEDS if deed.keys}


class Window(Pages):
    """Shows one session. Every action is named in `actions.DEEDS`.

    The pages that are not there at the start are made when they are first asked for.
    """

    def __init__(self, session: Session, dark: bool | None = None) -> None:
        super().__init__()
        self.session = session
        self.dark = look.system_is_dark() if dark is None else dark
        self.files = ClassFiles(session)
        self.hand = SprigActions(session)
        self.clerk = FileCommands(self, session, self.files)
        self.view = View(self, session)
        self._dialogs: list[QDialog] = []
        self._dressed: list[Any] = []  # what has colours of its own
        self._letters: dict[str, list[QAction]] = {"sprig": [], "script": []}
        self.setWindowTitle("Yew Hour")
        self.resize(1280, 800)
        self.setMinimumSize(900, 560)
        self.setAcceptDrops(True)
        self._shelving_soon = QTimer(self)  # once the class has been there for a moment
        self._shelving_soon.setSingleShot(True)
        self._shelving_soon.setInterval(SHELVE_MS)
        self._shelving_soon.timeout.connect(self.shelve)
        self._growing = QTimer(self)  # once the hand rests
        self._growing.setSingleShot(True)
        self._growing.setInterval(150)
        self._growing.timeout.connect(self._grow)
        self._build()
        self._make_actions()
        session.made_changed.connect(self.show_class)
        session.made_changed.connect(self._shelve_soon)
        session.plan_changed.connect(self._forget_note)
        session.refused.connect(self.tell)
        session.fill_wanted.connect(lambda: self._do("drafting", "draft_fill"))
        session.working.connect(lambda stage: self.foot.show_working(stage, self.theme))
        self.files.said.connect(self.say)
        self.files.troubled.connect(self.tell)
        self.files.opened.connect(self._show_bench)
        self.dress()

    @property
    def theme(self) -> look.Theme:
        """The colours of now."""
        return look.theme_for(self.dark)

    @property
    def roomy(self) -> bool:
        """Whether there is room for every word."""
        return self.width() > ROOMY * look.scale()

    # --- building ---------------------------------------------------------------------------------------

    def _build(self) -> None:
        self.sprig = Sprig(self.session, self.theme)
        self.sprig.section_chosen.connect(self.session.pick_section)
        self.finder = FinderPane(self.session, self.hand, self.theme)
        self.finder.field.left.connect(self.sprig.setFocus)
        self.sprig.brought.connect(self.finder.bring)
        self.inspector = Inspector(self.session, self.hand, lambda: self.theme)
        self._dressed += [self.sprig, self.finder]
        self.build_page = QSplitter(Qt.Orientation.Vertical)
        self.build_page.addWidget(self.finder)
        self.build_page.addWidget(self.inspector)
        self.build_page.setSizes([300, 340])
        self.build_page.setObjectName("page")
        self.stations = QStackedWidget()
        self.stations.addWidget(self.build_page)
        self.bench = QSplitter(Qt.Orientation.Horizontal)
        self.bench.addWidget(self.sprig)
        self.bench.addWidget(self.stations)
        self.bench.setChildrenCollapsible(False)
        self.bench.setSizes([610, 670])
        self.body = QStackedWidget()
        self.body.addWidget(self.bench)
        self.head = Head([(station.title, ABOUT[station.deed]) for station in STATIONS])
        self.head.wanted.connect(self._to)
        self.head.export.clicked.connect(lambda: self.clerk.export_script())
        self.foot = Foot(self.session)
        whole = QVBoxLayout()
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.head)
        whole.addWidget(self.body, 1)
        whole.addWidget(self.foot)
        middle = QWidget()
        middle.setLayout(whole)
        self.setCentralWidget(middle)

    def _make_actions(self) -> None:
        self.actions_by_name: dict[str, QAction] = {}
        menus = {}
        letters: set[str] = set()
        for deed in DEEDS:
            action = QAction(deed.title, self)
            action.setShortcuts([QKeySequence(keys) for keys in deed.keys])
            action.setStatusTip(deed.about)
            action.triggered.connect(partial(self._do, deed.who, deed.name))
            if deed.at != "window":
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
                self._letters[deed.at].append(action)
            if deed.menu not in menus:
                menus[deed.menu] = self.menuBar().addMenu(with_letter(deed.menu, letters))
            menus[deed.menu].addAction(action)
            self.actions_by_name[deed.name] = action
        for action in self._letters["sprig"]:
            self.sprig.addAction(action)
        self._offer_at(self.sprig, "sprig")

    def _offer_at(self, widget: QWidget, where: str) -> None:
        """A menu of what can be done, where the right button is pressed or by its key."""
        widget.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        widget.customContextMenuRequested.connect(lambda at: self._show_menu(widget, where, at))

    def _show_menu(self, widget: QWidget, where: str, at: QPoint) -> None:
        if widget is self.sprig:
            self.sprig.choose_at(at)
        menu = QMenu(widget)
        for name in AT_HAND[where]:
            if name:
                menu.addAction(self.actions_by_name[name])
            else:
                menu.addSeparator()
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        menu.popup(widget.mapToGlobal(at))

    def _do(self, who: str, name: str, _checked: bool = False) -> None:
        """Does a deed; told when it can't be done."""
        doer = self.words.pen if who == "pen" else self if who == "window" else getattr(self, who)
        try:
            getattr(doer, name)()
        except Problem as problem:
            self.tell(problem)

    def dress(self) -> None:
        """Puts on the colours and the text size."""
        theme = self.theme
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        look.apply(application, theme)
        self.head.dress(theme, self.roomy)
        for part in self._dressed:
            part.set_theme(theme)
        self.sprig.updateGeometry()
        self.show_class()

    # --- stations ---------------------------------------------------------------------------------------

    def _to(self, number: int) -> None:
        station = STATIONS[number]
        if self.session.plan is not None or station.always:
            page = getattr(self, station.page)
            wide = self.body.indexOf(page) >= 0
            self._fill_screen(station.alone)
            self.body.setCurrentWidget(page if wide else self.bench)
            if not wide:
                self.stations.setCurrentWidget(page)
            station.focus(self)
        self.show_class()

    def _fill_screen(self, alone: bool) -> None:
        """Leaves the whole screen to a station, or gives the window back what is around it."""
        for part in (self.head, self.foot, self.menuBar()):
            part.setVisible(not alone)
        if QApplication.platformName() != "offscreen" and alone != self.isFullScreen():
            self.setWindowState(self.windowState() ^ Qt.WindowState.WindowFullScreen)

    def _mark_station(self) -> None:
        on = self.body.currentWidget()
        on = self.stations.currentWidget() if on is self.bench else on
        pages = [self.__dict__.get(station.page) for station in STATIONS]  # those that were made
        here = next((n for n, page in enumerate(pages) if page is not None and page is on), -1)
        open_ = self.session.plan is not None
        self.head.mark(here, [open_ or station.always for station in STATIONS])

    def to_promise(self) -> None:
        """The promise."""
        self._to(0)

    def to_sprig(self) -> None:
        """The sprig and the movements."""
        self._to(1)

    def to_words(self) -> None:
        """The script."""
        self._to(2)

    def to_take(self) -> None:
        """The take."""
        self._to(3)

    def to_back(self) -> None:
        """What really happened."""
        self._to(4)

    def to_shelf(self) -> None:
        """What was made, and what goes out when."""
        self._to(5)

    def show_first_page(self) -> None:
        """The shelf, as soon as there is something on it; else every way to begin."""
        if self.has_shelf():
            self.to_shelf()
        else:
            self.show_beginnings()

    def show_beginnings(self) -> None:
        """Every way to begin a class."""
        self._fill_screen(False)
        self.body.setCurrentWidget(self.start)
        self.start.refresh()
        self.show_class()
        self.start.first.setFocus()

    def _show_bench(self) -> None:
        self._fill_screen(False)
        self.foot.note = None
        self.body.setCurrentWidget(self.bench)
        self.stations.setCurrentWidget(self.build_page)
        self._mark_station()
        self.sprig.show_all()
        self.sprig.setFocus()

    # --- showing ----------------------------------------------------------------------------------------

    def show_class(self) -> None:
        """The promise in the head, and what is next in the foot."""
        session, on = self.session, self.body.currentWidget()
        self._name_undo()
        self._mark_station()
        for name in ("export_script", "show_stand"):
            self.actions_by_name[name].setEnabled(session.timed is not None)
        self.head.export.setEnabled(session.timed is not None)
        plan = session.plan
        if plan is None:
            self.head.title.setText("Yew Hour")
            self.head.promise.setText("Classes that last exactly as long as they say.")
            words, trouble = self.foot.note or ("", False)
            self.foot.put(words, self.theme.trouble if trouble else self.theme.soft)
            return
        self.head.title.setText(plan.brief.title)
        self.setWindowTitle(f"{plan.brief.title}{' *' if session.changed else ''} – Yew Hour")
        self.head.promise.setText(promised(session, self.roomy))
        if on is not self.__dict__.get("start") or self.foot.note is not None:
            here = next((name for name in HINTS if on is not None and on is self.__dict__.get(name)), "")
            hint = "" if self._on_shelf and not self.shelf_page.on_weeks else HINTS[here]
            self.foot.show_next(self.theme, hint)
        else:
            self.foot.put(
                f"{plan.brief.title} is still open: choose Promise, Sprig or Words.", self.theme.soft
            )
            self.foot.mend_button.setVisible(False)

    @property
    def _on_shelf(self) -> bool:
        return "shelf_page" in self.__dict__ and self.body.currentWidget() is self.shelf_page

    def has_shelf(self) -> bool:
        """Whether there is anything on the shelf, found without opening it."""
        if self.made_up or "shelving" in self.__dict__:
            return not self.shelving.shelf.empty
        return any(kept_shelf().glob("*.sqlite")) and not self.shelving.shelf.empty

    def _shelve_soon(self) -> None:
        if self.session.path is not None and not self.files.is_demo(self.session.path):
            self._shelving_soon.start()

    def shelve(self) -> None:
        """Puts the class that is open onto the shelf, as it is in its file."""
        session = self.session
        if session.path is None or session.timed is None or session.changed or session.busy:
            return
        if not self.files.is_demo(session.path):
            self.shelf_page.making.shelve(session.path, session.timed)

    def _name_undo(self) -> None:
        past = self.shelving if self._on_shelf else self.session.past
        for name, titles, word in (
            ("undo", past.undo_titles, "Undo"),
            ("redo", past.redo_titles, "Do again"),
        ):
            self.actions_by_name[name].setText(f"{word}: {titles[0]}" if titles else word)
            self.actions_by_name[name].setEnabled(bool(titles))

    def say(self, words: str) -> None:
        """Says that something is done, until the class changes."""
        self.foot.note = (words, False)
        self.show_class()

    def say_kept(self) -> None:
        """Says what was left over from last time, and where to go on with it."""
        words = left_over()
        if words:
            self.say(words)

    def tell(self, problem: Problem) -> None:
        """Says what went wrong, and keeps everything as it is."""
        self.foot.note = (str(problem), True)
        self.show_class()
        self.foot.put(str(problem), self.theme.trouble)
        QApplication.alert(self)

    def _forget_note(self) -> None:
        """A change makes old what was told before it."""
        self.foot.note = None
        QTimer.singleShot(0, self.show_class)

    def keep_open(self, dialog: QDialog) -> None:
        """Opens a dialog over the window."""
        self._dialogs = [one for one in self._dialogs if one.isVisible()] + [dialog]
        dialog.setParent(self, Qt.WindowType.Dialog)
        dialog.setModal(True)
        dialog.resize(dialog.size().boundedTo(self.size()))
        dialog.show()

    # --- deeds ------------------------------------------------------------------------------------------

    def mend(self) -> None:
        """Does what is offered, and says so."""
        offer = self.foot.mend_button
        if offer.isVisible() and offer.edits:
            done = offer.text()
            offer.click()
            self.say(f"Done: {done}. Ctrl+Z takes it back.")
        else:
            self.say("Nothing is offered just now.")

    def undo(self) -> None:
        """Takes the last change back; on the shelf, what was done there."""
        (self.shelf_page if self._on_shelf else self.session).undo()

    def redo(self) -> None:
        """Does it again."""
        (self.shelf_page if self._on_shelf else self.session).redo()

    def find_movement(self) -> None:
        """To the finder, from anywhere."""
        if self.session.plan is not None:
            self._to(1)
            self.finder.field.setFocus()
            self.finder.field.selectAll()

    def new_part(self) -> None:
        """Starts a part."""
        self.hand.new_section()

    def pick_all(self) -> None:
        """Chooses every movement of the class."""
        if self.session.plan is not None:
            self.session.pick(*(node.id for section in self.session.plan.sections for node in section.body))

    def open_find(self) -> None:
        """The bar to find and replace words."""
        if self.session.plan is not None:
            self._to(2)
            self.words.open_find()

    # --- the window itself ------------------------------------------------------------------------------

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
        deed = plus_command(event)
        if deed:
            self.actions_by_name[deed].trigger()
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
        self.clerk.take_dropped([url.toLocalFile() for url in event.mimeData().urls() if url.isLocalFile()])

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes without asking: what is not saved is kept, and offered at the next start."""
        self.files.close()
        if "take_page" in self.__dict__:
            self.take_page.close_take()
        if "back_page" in self.__dict__:
            self.back_page.close_back()
        if "shelf_page" in self.__dict__:
            self.shelf_page.close_shelf()
        if "drafting" in self.__dict__:
            self.drafting.close()
        if "shelving" in self.__dict__:
            self.shelving.close()
        self.session.workshop.close()
        super().closeEvent(event)
