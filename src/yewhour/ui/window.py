"""The window: the promise in the head, the sprig at the left, a station at the right, what is next below."""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtCore import QSize, Qt, QTimer
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QDialog,
    QHBoxLayout,
    QInputDialog,
    QLabel,
    QMainWindow,
    QMessageBox,
    QPushButton,
    QSplitter,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from yewhour import __version__
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.ui import theme as look
from yewhour.ui.actions import DEEDS
from yewhour.ui.cards import FixButton
from yewhour.ui.clerk import Clerk
from yewhour.ui.controls import button
from yewhour.ui.files import Files
from yewhour.ui.finder import FinderPane
from yewhour.ui.hand import Hand
from yewhour.ui.inspector import Inspector
from yewhour.ui.promise import Promise
from yewhour.ui.session import Session
from yewhour.ui.sprig import MINUTE_S, STEP_S, Sprig
from yewhour.ui.start import Start
from yewhour.ui.words import Words

STATIONS = (("promise", "Promise"), ("sprig", "Sprig"), ("words", "Words"))
HINT = "Drag the tip of the stem, or press + and −, to change the length. Both sides stay equal."


class Window(QMainWindow):
    """Shows one session. Every action is named in `actions.DEEDS`."""

    def __init__(self, session: Session, dark: bool | None = None) -> None:
        super().__init__()
        self.session = session
        self.dark = look.system_is_dark() if dark is None else dark
        self.files = Files(session)
        self.hand = Hand(session)
        self.clerk = Clerk(self, session, self.files)
        self._dialogs: list[QDialog] = []
        self._note: tuple[str, bool] | None = None  # what was told last, and whether it is trouble
        self.setWindowTitle("Yew Hour")
        self.resize(1280, 800)
        self.setMinimumSize(900, 560)
        self.setAcceptDrops(True)
        self._build()
        self._make_actions()
        session.made_changed.connect(self.show_class)
        session.plan_changed.connect(self._forget_note)
        session.refused.connect(self.tell)
        session.working.connect(self._show_working)
        self.files.said.connect(self.say)
        self.files.troubled.connect(self.tell)
        self.files.opened.connect(self._show_bench)
        self.dress()

    @property
    def theme(self) -> look.Theme:
        """The colours of now."""
        return look.theme_for(self.dark)

    # --- building --------------------------------------------------------------------------------

    def _build(self) -> None:
        theme = self.theme
        self.sprig = Sprig(self.session, theme)
        self.sprig.section_chosen.connect(self.session.pick_section)
        self.promise_page = Promise(self.session, theme)
        self.finder = FinderPane(self.session, self.hand, theme)
        self.finder.field.left.connect(self.sprig.setFocus)
        self.inspector = Inspector(self.session, self.hand)
        self.words = Words(self.session, theme)
        self.words.told.connect(self.say)
        self.build_page = QSplitter(Qt.Orientation.Vertical)
        self.build_page.addWidget(self.finder)
        self.build_page.addWidget(self.inspector)
        self.build_page.setSizes([300, 340])
        self.build_page.setObjectName("page")
        self.stations = QStackedWidget()
        for widget in (self.promise_page, self.build_page, self.words):
            self.stations.addWidget(widget)
        self.bench = QSplitter(Qt.Orientation.Horizontal)
        self.bench.addWidget(self.sprig)
        self.bench.addWidget(self.stations)
        self.bench.setChildrenCollapsible(False)
        self.bench.setSizes([610, 670])
        self.start = Start()
        self.start.empty.connect(self.clerk.new_class)
        self.start.outline.connect(self.clerk.open_outline)
        self.start.other.connect(self.clerk.open_class)
        self.start.path.connect(self.clerk.open_file)
        self.start.kept.connect(self.clerk.bring_back)
        self.body = QStackedWidget()
        self.body.addWidget(self.start)
        self.body.addWidget(self.bench)
        whole = QVBoxLayout()
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(self._head())
        whole.addWidget(self.body, 1)
        whole.addLayout(self._foot())
        middle = QWidget()
        middle.setLayout(whole)
        self.setCentralWidget(middle)

    def _head(self) -> QHBoxLayout:
        self.title = QLabel()
        self.title.setObjectName("title")
        self.promise = QLabel()
        self.promise.setObjectName("promise")
        self.promise.setWordWrap(True)
        words = QVBoxLayout()
        words.setSpacing(2)
        words.addWidget(self.title)
        words.addWidget(self.promise)
        head = QHBoxLayout()
        head.setContentsMargins(18, 6, 18, 8)
        head.setSpacing(6)
        head.addLayout(words, 1)
        self.station_buttons: list[QPushButton] = []
        for number, (_, title) in enumerate(STATIONS):
            made = button(title, partial(self._to, number), name="station")
            made.setCheckable(True)
            self.station_buttons.append(made)
            head.addWidget(made, 0, Qt.AlignmentFlag.AlignVCenter)
        head.addSpacing(10)
        self.export_button = button("Export the script", self.clerk.export_script, name="accent")
        head.addWidget(self.export_button, 0, Qt.AlignmentFlag.AlignVCenter)
        return head

    def _foot(self) -> QHBoxLayout:
        self.message = QLabel()
        self.message.setObjectName("message")
        self.message.setWordWrap(True)
        self.message.setContentsMargins(18, 6, 18, 8)
        self.message.setTextFormat(Qt.TextFormat.PlainText)
        self.mend_button = FixButton(self.session, "", ())
        self.mend_button.setObjectName("mend")
        self.mend_button.setVisible(False)
        self.stop_button = button("Stop", self.stop, "Stops what takes long; the class stays as it was.")
        self.stop_button.setVisible(False)
        foot = QHBoxLayout()
        foot.setContentsMargins(0, 4, 18, 6)
        foot.addWidget(self.message, 1)
        foot.addWidget(self.mend_button, 0, Qt.AlignmentFlag.AlignVCenter)
        foot.addWidget(self.stop_button, 0, Qt.AlignmentFlag.AlignVCenter)
        return foot

    def _make_actions(self) -> None:
        self.actions_by_name: dict[str, QAction] = {}
        people: dict[str, Any] = {
            "window": self, "clerk": self.clerk, "hand": self.hand, "pen": self.words.pen,
            "words": self.words,
        }  # fmt: skip
        places = {"sprig": self.sprig, "script": self.words.script}
        menus = {}
        for deed in DEEDS:
            action = QAction(deed.title, self)
            action.setShortcuts([QKeySequence(keys) for keys in deed.keys])
            action.setStatusTip(deed.about)
            action.triggered.connect(self._doing(people[deed.who], deed.name))
            if deed.at != "window":
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
                places[deed.at].addAction(action)
            if deed.menu not in menus:
                menus[deed.menu] = self.menuBar().addMenu(deed.menu)
            menus[deed.menu].addAction(action)
            self.actions_by_name[deed.name] = action
        for number, (_, title) in enumerate(STATIONS):
            deed = next(one for one in DEEDS if one.title == title)
            self.station_buttons[number].setToolTip(f"{deed.about} ({deed.keys[0]})")

    def _doing(self, who: Any, name: str) -> Any:
        """What an action does: looked up when it is done, told when it can't be."""

        def do() -> None:
            try:
                getattr(who, name)()
            except Problem as problem:
                self.tell(problem)

        return do

    def dress(self) -> None:
        """Puts on the colours and the text size."""
        theme = self.theme
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        look.apply(application, theme)
        self.export_button.setIconSize(QSize(round(18 * look.scale()), round(18 * look.scale())))
        self.export_button.setIcon(look.icon("export", theme.on_accent))
        for part in (self.sprig, self.promise_page, self.finder, self.words):
            part.set_theme(theme)
        self.sprig.updateGeometry()
        self.show_class()

    # --- stations --------------------------------------------------------------------------------

    def _to(self, number: int) -> None:
        if self.session.plan is None:
            return
        self.body.setCurrentWidget(self.bench)
        self.stations.setCurrentIndex(number)
        self._mark_station()
        focus = (self.promise_page, self.sprig, self.words.script)[number]
        focus.setFocus()
        if number == 0:
            self.promise_page.title.setFocus()

    def _mark_station(self) -> None:
        on = self.body.currentWidget() is self.bench
        for number, made in enumerate(self.station_buttons):
            made.setChecked(on and number == self.stations.currentIndex())
            made.setEnabled(self.session.plan is not None)

    def to_promise(self) -> None:
        """The promise."""
        self._to(0)

    def to_sprig(self) -> None:
        """The sprig and the movements."""
        self._to(1)

    def to_words(self) -> None:
        """The script."""
        self._to(2)

    def show_first_page(self) -> None:
        """The first page."""
        self.body.setCurrentWidget(self.start)
        self.start.refresh()
        self.show_class()
        self.start.first.setFocus()

    def _show_bench(self) -> None:
        self._note = None
        self.body.setCurrentWidget(self.bench)
        if self.stations.currentIndex() == 0:
            self.stations.setCurrentIndex(1)
        self._mark_station()
        self.sprig.show_all()
        self.sprig.setFocus()

    # --- showing ---------------------------------------------------------------------------------

    def show_class(self) -> None:
        """The promise in the head, and what is next in the foot."""
        session = self.session
        self._name_undo()
        self._mark_station()
        for name in ("export_script", "show_stand"):
            self.actions_by_name[name].setEnabled(session.made is not None)
        self.export_button.setEnabled(session.made is not None)
        plan = session.plan
        if self.body.currentWidget() is self.start and plan is not None and self._note is None:
            self._put(f"{plan.brief.title} is still open: choose Promise, Sprig or Words.", self.theme.soft)
            self.mend_button.setVisible(False)
            return
        if plan is None:
            self.title.setText("Yew Hour")
            self.promise.setText("Classes that last exactly as long as they say.")
            self._put("", self.theme.soft)
            return
        self.title.setText(plan.brief.title)
        self.setWindowTitle(f"{plan.brief.title}{' *' if session.changed else ''} – Yew Hour")
        self.promise.setText(self._promised())
        self._show_next()

    def _promised(self) -> str:
        session = self.session
        made, maker, plan = session.shown, session.maker, session.plan
        assert plan is not None
        audience = f"For {plan.brief.audience}. " if plan.brief.audience else ""
        if made is None or maker is None:
            return f"{audience}{show_length(plan.brief.target_s)} promised; no movements yet."
        asked = (
            "exactly, as promised"
            if abs(made.length_s - maker.promised_s) < 0.05
            else f"now, promised {show_length(maker.promised_s)}"
        )
        return (
            f"{audience}{show_length(made.length_s)} {asked}. "
            f"It can be {show_length(maker.shortest_s)} to {show_length(maker.longest_s)}."
        )

    def _show_next(self) -> None:
        """What is wrong and what is next: a trial, a refusal, what was told, what was noticed, or a hint."""
        from yewhour.core.report import differences

        session, theme = self.session, self.theme
        trial = session.trial
        if trial is not None:
            if trial.refusal:
                self._put(trial.refusal, theme.trouble)
            elif session.trial_title and trial.made is not None and session.made is not None:
                words = differences(session.made, trial.made)
                self._put(f"As it would be – {session.trial_title}: {words}.", theme.ink)
            return
        found = (
            [finding for finding in session.made.findings if finding.severity != "note"]
            if session.made
            else []
        )
        fixes = [finding.edit for finding in (session.made.findings if session.made else ()) if finding.edit]
        if session.refusal and session.offers:
            self._offer(session.offers[0].title, session.offers[0].edits)
        elif fixes and not session.refusal:
            self._offer(fixes[0].title, (fixes[0],))
        else:
            self.mend_button.setVisible(False)
        if self._note is not None:
            self._put(self._note[0], theme.trouble if self._note[1] else theme.ink)
        elif session.refusal:
            self._put(session.refusal, theme.trouble)
        elif session.trouble is not None:
            self._put(str(session.trouble), theme.trouble)
        elif found:
            worst = found[0]
            serious = worst.severity == "wrong" and worst.code != "length"
            self._put(
                f"{worst.message} {worst.fix[:1].upper()}{worst.fix[1:]}.",
                theme.trouble if serious else theme.ink,
            )
        elif session.made is None:
            self._put("Add a first movement: press Ctrl+K and type part of its name.", theme.soft)
        else:
            self._put(HINT, theme.soft)

    def _offer(self, title: str, edits: tuple[Any, ...]) -> None:
        self.mend_button.set_fix(title, edits)
        self.mend_button.setVisible(True)

    def _name_undo(self) -> None:
        for name, titles, word in (
            ("undo", self.session.undo_titles, "Undo"),
            ("redo", self.session.redo_titles, "Do again"),
        ):
            self.actions_by_name[name].setText(f"{word}: {titles[0]}" if titles else word)
            self.actions_by_name[name].setEnabled(bool(titles))

    def _put(self, words: str, colour: str) -> None:
        self.message.setText(words)
        self.message.setStyleSheet(f"color: {colour}")

    def say(self, words: str) -> None:
        """Says that something is done, until the class changes."""
        self._note = (words, False)
        self.show_class()

    def say_kept(self) -> None:
        """Says that there is work which was not saved, and where to bring it back."""
        from yewhour.store.keeping import kept_work

        names = ", ".join(kept.about.title for kept in kept_work())
        if names:
            self.say(
                f"Kept from last time, not saved yet: {names}. Bring it back on the first page (Ctrl+Home)."
            )

    def tell(self, problem: Problem) -> None:
        """Says what went wrong, and keeps everything as it is."""
        self._note = (str(problem), True)
        self.show_class()
        self._put(str(problem), self.theme.trouble)
        QApplication.alert(self)

    def _forget_note(self) -> None:
        """A change makes what was told old, but for why it was taken back."""
        QTimer.singleShot(0, self.show_class)
        self._note = None

    def _show_working(self, stage: str) -> None:
        self.stop_button.setVisible(bool(stage))
        if stage:
            self._put(f"Working on it: {stage}…", self.theme.soft)

    def stop(self) -> None:
        """Stops what takes long, and goes back to the class as it was."""
        self.session.stop()

    def keep_open(self, dialog: QDialog) -> None:
        """Opens a dialog over the window."""
        self._dialogs = [one for one in self._dialogs if one.isVisible()] + [dialog]
        dialog.setParent(self, Qt.WindowType.Dialog)
        dialog.setModal(True)
        dialog.show()

    # --- deeds -----------------------------------------------------------------------------------

    def mend(self) -> None:
        """Does what is offered."""
        if self.mend_button.isVisible() and self.mend_button.edits:
            self.mend_button.click()

    def undo(self) -> None:
        """Takes the last change back."""
        self.session.undo()

    def redo(self) -> None:
        """Does it again."""
        self.session.redo()

    def show_acts(self) -> None:
        """Every change, the last first; choosing one goes back to before it."""
        titles = [f"{number}. {title}" for number, title in enumerate(self.session.undo_titles, 1)]
        if not titles:
            self.say("Nothing was changed yet.")
            return
        chosen, ok = QInputDialog.getItem(self, "What was done", "Go back to before:", titles, 0, False)
        if ok and chosen in titles:
            self.session.undo(titles.index(chosen) + 1)

    def find_movement(self) -> None:
        """To the finder, from anywhere."""
        if self.session.plan is not None:
            self._to(1)
            self.finder.field.setFocus()
            self.finder.field.selectAll()

    def new_part(self) -> None:
        """Starts a part, and goes to its title."""
        self.hand.new_section()

    def pick_all(self) -> None:
        """Chooses every movement of the class."""
        if self.session.plan is not None:
            self.session.pick(*(node.id for section in self.session.plan.sections for node in section.body))

    def show_library(self) -> None:
        """The library of movements."""
        from yewhour.ui.library import LibraryView

        self.keep_open(LibraryView(self.session, self.theme))

    def open_find(self) -> None:
        """The bar to find and replace words."""
        self._to(2)
        self.words.open_find()

    def show_stand(self) -> None:
        """The reading view."""
        from yewhour.ui.stand import Stand

        if self.session.made is not None:
            self.stand = Stand(self.session.made, self.theme)
            self.stand.setWindowFlag(Qt.WindowType.Window)
            self.stand.resize(self.size())
            self.stand.show()

    def _change(self, by_s: float) -> None:
        if self.session.maker is not None and self.session.plan is not None:
            extra_s = self.session.maker.promised_s - self.session.maker.plan.brief.target_s
            asked_s = self.session.plan.brief.target_s + extra_s
            self.session.set_length(max(STEP_S, asked_s + by_s))

    def longer_minute(self) -> None:
        """A minute more."""
        self._change(MINUTE_S)

    def shorter_minute(self) -> None:
        """A minute less."""
        self._change(-MINUTE_S)

    def longer_bit(self) -> None:
        """Five seconds more."""
        self._change(STEP_S)

    def shorter_bit(self) -> None:
        """Five seconds less."""
        self._change(-STEP_S)

    def by_itself(self) -> None:
        """The length with everything as preferred, to the next whole half minute."""
        if self.session.maker:
            self.session.set_length(max(30.0, round(self.session.maker.preferred_s / 30) * 30.0))

    def closer(self) -> None:
        """Closer to the class."""
        self.sprig.zoom(1.6)

    def further(self) -> None:
        """Further from it."""
        self.sprig.zoom(1 / 1.6)

    def whole_class(self) -> None:
        """All of it."""
        self.sprig.show_all()

    def other_light(self) -> None:
        """Light to dark and back."""
        from yewhour.store.habits import change_habits

        self.dark = not self.dark
        self.dress()
        change_habits(dark=self.dark)

    def larger_text(self) -> None:
        """Text a step larger."""
        self._scale(0.25)

    def smaller_text(self) -> None:
        """Text a step smaller."""
        self._scale(-0.25)

    def _scale(self, by: float) -> None:
        from yewhour.store.habits import change_habits

        look.set_scale(look.scale() + by)
        self.dress()
        change_habits(scale=look.scale())

    def show_keys(self) -> None:
        """Every action and its keys, and the way to any of them by name."""
        from yewhour.ui.keys import Keys

        self.keep_open(Keys(self.actions_by_name))

    def show_about(self) -> None:
        """What this program is, and what it is not."""
        box = QMessageBox(self)
        box.setWindowTitle("About Yew Hour")
        box.setTextFormat(Qt.TextFormat.RichText)
        box.setText(
            f"<p>Yew Hour {__version__} times and words a class. It does not clear anyone to take it.</p>"
            "<p>Work without pain, and stop if it hurts or you feel dizzy. "
            "Ask a doctor or a qualified teacher if you are unsure.</p>"
            "<p>Free software under the GNU General Public License, version 3 or later.</p>"
        )
        box.open()

    # --- the window itself -----------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and (self.sprig.cancel() or self.session.trial is not None):
            self.session.drop_trial()
        else:
            super().keyPressEvent(event)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        from pathlib import Path

        local = [url.toLocalFile() for url in event.mimeData().urls() if url.isLocalFile()]
        if local:
            self.clerk.open_file(Path(local[0]))
        else:
            self.tell(
                Problem("Only files of this computer can be dropped here.", do="Save it first, then drop it.")
            )

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes without asking: what was not saved is kept, and offered at the next start."""
        self.files.close()
        self.session.workshop.close()
        super().closeEvent(event)
