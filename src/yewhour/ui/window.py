"""The main window: the promise on top, the sprig, and the script beside it."""

from pathlib import Path

from PySide6.QtCore import QSize, Qt, QTimer
from PySide6.QtGui import QAction, QCloseEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QMessageBox,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from yewhour import __version__
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.store.paths import DEMO
from yewhour.ui import theme as look
from yewhour.ui.actions import DEEDS
from yewhour.ui.script import Script
from yewhour.ui.session import Offer, Session
from yewhour.ui.sprig import MINUTE_S, STEP_S, Sprig


class Window(QMainWindow):
    """Shows one session. Every action is a method named in `actions.DEEDS`."""

    def __init__(self, session: Session, dark: bool | None = None) -> None:
        super().__init__()
        self.session = session
        self.dark = look.system_is_dark() if dark is None else dark
        self.setWindowTitle("Yew Hour")
        self.resize(1280, 800)
        self.setMinimumSize(900, 560)
        self._build()
        self._make_actions()
        session.made_changed.connect(self._show_promise)
        self.dress()

    # --- building ----------------------------------------------------------------------------------------

    def _build(self) -> None:
        theme = look.theme_for(self.dark)
        self.title = QLabel()
        self.title.setObjectName("title")
        self.promise = QLabel()
        self.promise.setObjectName("promise")
        self.promise.setWordWrap(True)
        self.export_button = QPushButton("Export the script")
        self.export_button.setObjectName("accent")
        self.export_button.clicked.connect(self.export_script)
        self.open_button = QPushButton("Open a class")
        self.open_button.clicked.connect(self.open_class)

        words = QVBoxLayout()
        words.setSpacing(2)
        words.addWidget(self.title)
        words.addWidget(self.promise)
        head = QHBoxLayout()
        head.setContentsMargins(18, 8, 18, 10)
        head.setSpacing(10)
        head.addLayout(words, 1)
        head.addWidget(self.open_button, 0, Qt.AlignmentFlag.AlignVCenter)
        head.addWidget(self.export_button, 0, Qt.AlignmentFlag.AlignVCenter)

        self.sprig = Sprig(self.session, theme)
        self.sprig.length_asked.connect(self.session.set_length)
        self.sprig.chosen.connect(self.session.select)
        self.script = Script(self.session, theme)
        self.script.chosen.connect(self.session.select)
        body = QHBoxLayout()
        body.setSpacing(0)
        body.addWidget(self.sprig, 5)
        body.addWidget(self.script, 7)

        self.message = QLabel()
        self.message.setObjectName("message")
        self.message.setWordWrap(True)
        self.message.setContentsMargins(18, 6, 18, 8)

        self.mend_button = QPushButton()
        self.mend_button.setObjectName("mend")
        self.mend_button.setVisible(False)
        self.mend_button.clicked.connect(self.mend)
        self.offer: Offer | None = None
        self._offering = QTimer(self)  # looked for when hands are still: it may take a tenth of a second
        self._offering.setSingleShot(True)
        self._offering.setInterval(250)
        self._offering.timeout.connect(self.show_offer)
        foot = QHBoxLayout()
        foot.setContentsMargins(0, 4, 18, 6)
        foot.addWidget(self.message, 1)
        foot.addWidget(self.mend_button, 0, Qt.AlignmentFlag.AlignVCenter)

        whole = QVBoxLayout()
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(head)
        whole.addLayout(body, 1)
        whole.addLayout(foot)
        middle = QWidget()
        middle.setLayout(whole)
        self.setCentralWidget(middle)

    def _make_actions(self) -> None:
        self.actions_by_name: dict[str, QAction] = {}
        menus = {}
        for deed in DEEDS:
            action = QAction(deed.title, self)
            action.setShortcuts([QKeySequence(keys) for keys in deed.keys])
            action.setStatusTip(deed.about)
            action.triggered.connect(getattr(self, deed.name))
            if deed.menu not in menus:
                menus[deed.menu] = self.menuBar().addMenu(deed.menu)
            menus[deed.menu].addAction(action)
            self.actions_by_name[deed.name] = action

    def dress(self) -> None:
        """Puts on the colours and the text size."""
        theme = look.theme_for(self.dark)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        look.apply(application, theme)
        for button in (self.export_button, self.open_button):
            button.setIconSize(QSize(round(18 * look.scale()), round(18 * look.scale())))
        self.export_button.setIcon(look.icon("export", theme.on_accent))
        self.open_button.setIcon(look.icon("open", theme.ink))
        self.sprig.set_theme(theme)
        self.script.set_theme(theme)
        self.sprig.updateGeometry()
        self._show_promise()

    # --- showing -----------------------------------------------------------------------------------------

    def _show_promise(self) -> None:
        session, theme = self.session, look.theme_for(self.dark)
        made, maker = session.made, session.maker
        if made is None or maker is None:
            self.title.setText("Yew Hour")
            self.promise.setText("Open a class to begin: Ctrl+O.")
            self._say("", theme.soft)
            return
        brief = made.plan.brief
        self.title.setText(brief.title)
        self.setWindowTitle(f"{brief.title} – Yew Hour")
        asked = (
            "as promised"
            if made.length_s == maker.promised_s
            else f"promised {show_length(maker.promised_s)}"
        )
        audience = f"For {brief.audience}. " if brief.audience else ""
        self.promise.setText(
            f"{audience}{show_length(made.length_s)} exactly, {asked}. "
            f"It can be {show_length(maker.shortest_s)} to {show_length(maker.longest_s)}."
        )
        self.offer = None
        self.mend_button.setVisible(False)
        self._offering.start()
        self._name_undo()
        unsaid = [finding for finding in made.findings if finding.severity != "note"]
        if session.refusal:
            self._say(session.refusal, theme.trouble)
        elif unsaid:
            worst = unsaid[0]
            serious = worst.severity == "wrong" and worst.code != "length"
            self._say(
                f"{worst.message} {worst.fix[:1].upper()}{worst.fix[1:]}.",
                theme.trouble if serious else theme.ink,
            )
        else:
            self._say(
                "Drag the tip of the stem, or press + and −, to change the length. Both sides stay equal.",
                theme.soft,
            )

    def show_offer(self) -> None:
        """Offers what would help just now, if anything would."""
        self.offer = self.session.offer()
        self.mend_button.setVisible(self.offer is not None)
        if self.offer is not None:
            short = self.offer.title if len(self.offer.title) < 48 else f"{self.offer.title[:46]}…"
            self.mend_button.setText(short)
            length = show_length(self.offer.length_s)
            self.mend_button.setToolTip(
                f"{self.offer.title}. The class then lasts {length}. Ctrl+Z takes it back."
            )
            self.mend_button.setAccessibleName(f"Mend: {self.offer.title}")

    def _name_undo(self) -> None:
        for name, title, word in (
            ("undo", self.session.undo_title, "Undo"),
            ("redo", self.session.redo_title, "Do again"),
        ):
            self.actions_by_name[name].setText(f"{word}: {title}" if title else word)
            self.actions_by_name[name].setEnabled(bool(title))

    def _say(self, words: str, colour: str) -> None:
        self.message.setText(words)
        self.message.setStyleSheet(f"color: {colour}")

    def say_kept(self, paths: list[Path]) -> None:
        """Says which classes were kept when a window closed with changes."""
        names = ", ".join(path.stem for path in paths)
        self._say(
            f"Kept from last time, not saved yet: {names} (in {paths[0].parent}).",
            look.theme_for(self.dark).ink,
        )

    def tell(self, problem: Problem) -> None:
        """Says what went wrong, and keeps everything as it is."""
        self._say(str(problem), look.theme_for(self.dark).trouble)
        QApplication.alert(self)

    # --- deeds ---------------------------------------------------------------------------------------------

    def open_file(self, path: Path) -> bool:
        """Opens a class; says why when it can't, and keeps the one before."""
        try:
            self.session.open(path)
        except Problem as problem:
            self.tell(problem)
            return False
        return True

    def open_class(self) -> None:
        """Asks for a class file and opens it."""
        start = str(self.session.path.parent if self.session.path else DEMO)
        name, _ = QFileDialog.getOpenFileName(self, "Open a class", start, "Classes (*.yewhour)")
        if name:
            self.open_file(Path(name))

    def export_script(self) -> None:
        """Asks where, and writes the script in the format of the name's ending."""
        from yewhour.store.formats import FORMATS

        made = self.session.made
        if made is None:
            return
        kinds = ";;".join(
            f"{form.about[0].upper()}{form.about[1:]} (*{form.suffix})" for form in FORMATS.values()
        )
        name = (self.session.path.stem if self.session.path else "script") + ".txt"
        path, kind = QFileDialog.getSaveFileName(self, "Export the script", str(Path.home() / name), kinds)
        if path:
            suffix = kind.rsplit("*", 1)[-1].rstrip(")") if kind else ".txt"
            self.export_to(Path(path) if Path(path).suffix else Path(path + suffix))

    def export_to(self, path: Path) -> bool:
        """Writes the script to a path, whole or not at all."""
        from yewhour.store.atomic import write_whole
        from yewhour.store.formats import FORMATS, format_for

        form = format_for(path.name)
        try:
            if form is None:
                endings = ", ".join(sorted({form.suffix for form in FORMATS.values()}))
                raise Problem(
                    f"{path.suffix!r} is not a kind of script.", str(path), f"End the name with {endings}."
                )
            assert self.session.made is not None
            write_whole(path, form.write(self.session.made))
        except Problem as problem:
            self.tell(problem)
            return False
        self._say(f"Written: {path}", look.theme_for(self.dark).ink)
        return True

    def mend(self) -> None:
        """Does what is offered."""
        if self.offer is None:
            self.show_offer()
        if self.offer is not None:
            try:
                self.session.take(self.offer)
            except Problem as problem:
                self.tell(problem)

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes without asking: what was not saved is kept, and said at the next start."""
        try:
            self.session.keep_unsaved()
        except (Problem, OSError) as problem:
            self._say(f"Save the class first: {problem}", look.theme_for(self.dark).trouble)
            event.ignore()
            return
        super().closeEvent(event)

    def undo(self) -> None:
        """Takes the last change back."""
        self.session.undo()

    def redo(self) -> None:
        """Does it again."""
        self.session.redo()

    def save_class(self) -> None:
        """Saves where the class came from; a demo class is saved somewhere else."""
        path = self.session.path
        if path is None or path.resolve().parent == DEMO.resolve():
            self.save_class_as()
        else:
            self.save_to(path)

    def save_class_as(self) -> None:
        """Asks where, and saves."""
        name = self.session.path.name if self.session.path else "class.yewhour"
        path, _ = QFileDialog.getSaveFileName(
            self, "Save the class", str(Path.home() / name), "Classes (*.yewhour)"
        )
        if path:
            self.save_to(Path(path) if Path(path).suffix else Path(f"{path}.yewhour"))

    def save_to(self, path: Path) -> bool:
        """Saves to a path, whole or not at all."""
        try:
            self.session.save(path)
        except Problem as problem:
            self.tell(problem)
            return False
        self._say(f"Saved: {path}", look.theme_for(self.dark).ink)
        return True

    def _change(self, by_s: float) -> None:
        if self.session.made:
            self.session.set_length(max(STEP_S, self.session.made.length_s + by_s))

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

    def as_promised(self) -> None:
        """The length of the brief."""
        if self.session.maker:
            self.session.set_length(self.session.maker.promised_s)

    def other_light(self) -> None:
        """Light to dark and back."""
        self.dark = not self.dark
        self.dress()

    def larger_text(self) -> None:
        """Text a step larger."""
        look.set_scale(look.scale() + 0.25)
        self.dress()

    def smaller_text(self) -> None:
        """Text a step smaller."""
        look.set_scale(look.scale() - 0.25)
        self.dress()

    def show_keys(self) -> None:
        """Every action and its keys."""
        rows = "".join(
            f"<tr><td>{deed.title}&nbsp;&nbsp;</td><td>{' or '.join(deed.keys)}</td></tr>" for deed in DEEDS
        )
        self._box("Keys", f"<table>{rows}</table>")

    def show_about(self) -> None:
        """What this program is, and what it is not."""
        self._box(
            "About Yew Hour",
            f"<p>Yew Hour {__version__} times and words a class. It does not clear anyone to take it.</p>"
            "<p>Work without pain, and stop if it hurts or you feel dizzy. "
            "Ask a doctor or a qualified teacher if you are unsure.</p>"
            "<p>Free software under the GNU General Public License, version 3 or later.</p>",
        )

    def _box(self, title: str, words: str) -> None:
        box = QMessageBox(self)
        box.setWindowTitle(title)
        box.setTextFormat(Qt.TextFormat.RichText)
        box.setText(words)
        box.open()
