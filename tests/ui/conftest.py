"""The real window, driven: a fixture that opens it on a class, and hands to work it with."""

import gc
from time import sleep

import msgspec
import pytest
from PySide6.QtCore import QDeadlineTimer, QEvent, QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.conftest import shipped
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.paths import own_data
from yewhour.state.teaching_data import load_teaching_data
from yewhour.ui.desk import class_maker, session
from yewhour.ui.frame.app import application, first_window, open_first
from yewhour.ui.frame.garbage import collect_here
from yewhour.ui.kit import theme as look

CTRL, SHIFT, ALT = (
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.AltModifier,
)


def loaded_once():
    """All the data a class is made with, read once for a teacher who has nothing of her own."""
    hers = own_data()
    own = any((hers / name).exists() for name in ("movements", "blocks", "positions.toml"))
    return load_teaching_data() if own else (shipped(), [])


@pytest.fixture(autouse=True)
def looked_for_here():
    """Circles are looked for on this thread alone, as the program does."""
    gc.disable()
    yield
    collect_here()


@pytest.fixture(autouse=True)
def ready_data(monkeypatch):
    """Windows share what ships: their own is what a test is about, not the reading of it."""
    monkeypatch.setattr(session, "load_teaching_data", loaded_once)
    monkeypatch.setattr(class_maker, "solve", solved_once)


def solved_once(plan, teaching_data, stage):
    """What a plan is solved to, once for all windows that open it: they are about the window."""
    key = (plan_bytes(plan), id(teaching_data))
    if key not in SOLVED:
        SOLVED[key] = solve(plan, teaching_data), teaching_data
        while len(SOLVED) > 40:
            del SOLVED[next(iter(SOLVED))]
    return msgspec.structs.replace(SOLVED[key][0], stage=stage)


SOLVED = {}


class Desk:
    """One window and what a teacher does to it.

    Not painted, it is as quick again: for what is not about a picture. The stories, the random acts and
    what is looked at are painted (the marker `painted`).
    """

    def __init__(self, qtbot, path=FIRST_DEMO, painted=True):
        application()
        look.set_scale(1.0)
        self.qtbot = qtbot
        self.window = first_window(dark=False)
        self.window.resize(1280, 800)
        self.window.show()
        qtbot.waitExposed(self.window)
        self.window.setUpdatesEnabled(painted)
        self.window.activateWindow()
        open_first(self.window, path)
        self.settle()

    @property
    def session(self):
        return self.window.session

    @property
    def timed(self):
        return self.window.session.timed

    def leave(self):
        """Closes the window and lets Qt take it away at once."""
        self.window.close()
        self.window.deleteLater()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)

    def settle(self):
        """Waits until the workshop is done and its class has arrived."""
        QApplication.processEvents()
        self.wait_for_the_class()
        for _ in range(3):
            QApplication.processEvents()
        self.wait_for_the_class()
        QApplication.processEvents()

    def wait_for_the_class(self):
        """As qtbot.waitUntil does, which looks only every 10 ms: a class is made in less."""
        until = QDeadlineTimer(20_000)
        while self.session.busy:
            assert not until.hasExpired(), "the class never came"
            sleep(0.001)
            QApplication.processEvents()

    def key(self, key, modifiers=Qt.KeyboardModifier.NoModifier):
        """Presses a key where the focus is."""
        QTest.keyClick(QApplication.focusWidget() or self.window, key, modifiers)
        self.settle()

    def type(self, text):
        """Types into what has the focus."""
        QTest.keyClicks(QApplication.focusWidget(), text)
        self.settle()

    def click(self, widget, at=None, modifiers=Qt.KeyboardModifier.NoModifier):
        """Clicks in the middle of a widget, or at a point of it."""
        QTest.mouseClick(widget, Qt.MouseButton.LeftButton, modifiers, at or widget.rect().center())
        self.settle()

    def drag(self, widget, start, end):
        """Presses at a point, moves to another in steps, and lets go."""
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
        for step in range(1, 7):
            at = start + (end - start) * (step / 6)
            QTest.mouseMove(widget, at)
            QApplication.processEvents()
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, end)
        self.settle()

    def drag_tip(self, to_s):
        """Drags the length handle until it asks for a length."""
        sprig = self.window.sprig
        start = sprig.hits.handle_rect().center().toPoint()
        QTest.mousePress(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
        end = min(range(-1000, 1000), key=lambda y: abs(sprig.gestures.asked_at(start.y() + y) - to_s))
        for step in range(1, 7):
            QTest.mouseMove(sprig, start + QPoint(0, round(end * step / 6)))
            QApplication.processEvents()
        at = start + QPoint(0, end)
        QTest.mouseRelease(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at)
        self.settle()

    def segment(self, movement, side=""):
        """The first segment of a movement."""
        return next(
            s
            for s in self.timed.segments
            if s.use.movement.id == movement and not s.use.setup_for and side in ("", s.side)
        )

    def at(self, segment, share=0.5, x=60):
        """A point of the sprig, so far down a segment."""
        y = self.window.sprig.scene.y_at((segment.start + share * segment.length) / 10)
        return QPoint(x, round(y))

    def choose(self, movement, modifiers=Qt.KeyboardModifier.NoModifier):
        self.click(self.window.sprig, self.at(self.segment(movement)), modifiers)

    def press(self, name):
        """Triggers a deed by its name."""
        self.window.commands.actions[name].trigger()
        self.settle()


def is_painted(request):
    return request.node.get_closest_marker("painted") is not None


@pytest.fixture
def desk(qtbot, request):
    timed = Desk(qtbot, painted=is_painted(request))
    yield timed
    timed.leave()


@pytest.fixture
def cold_desk(desk, tmp_path):
    """A window on a class that begins with strong work, which is noticed and can be mended."""
    path = tmp_path / "cold.yewhour"
    lines = (
        "single leg stretch 20x",
        "double leg stretch 10x",
        "scissors 20x",
        "lower lift 10x",
        "criss cross 20x",
    )
    outline = "\n".join(("title: Cold", "length: 4:30", "style: mat-classical", "# Five", *lines))
    path.write_bytes(plan_bytes(read_outline(outline, shipped().library)))
    desk.window.file_commands.open_file(path)
    desk.settle()
    return desk


@pytest.fixture
def bare_desk(qtbot, request, tmp_path, monkeypatch):
    """A window on the first page, of a teacher who has opened nothing yet."""
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "nobody"))
    timed = Desk(qtbot, None, painted=is_painted(request))
    yield timed
    timed.leave()
