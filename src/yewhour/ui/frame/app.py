"""Starting the window, and having several."""

import atexit
import gc
import sys
import time
from pathlib import Path

from PySide6.QtCore import QPoint, QRect, QTimer
from PySide6.QtWidgets import QApplication

from yewhour.background import log
from yewhour.background.jobs import Fault
from yewhour.content.paths import FIRST_DEMO
from yewhour.state.classes.prewarm import Prewarm
from yewhour.state.classes.unsaved_work import sweep
from yewhour.state.settings import read_settings
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.garbage import GarbageTimer
from yewhour.ui.frame.window import Window
from yewhour.ui.kit import theme as look

DRESSED = "yewhour dressed"  # of an application that has our style
FRAMED_MS = 120  # after which a window that was shown has its frame
_WINDOWS: list[Window] = []


def application() -> QApplication:
    """The one QApplication, with our fonts."""
    qt = QApplication.instance()
    if not isinstance(qt, QApplication):
        qt = QApplication([*sys.argv[:1], "-style", "Fusion"])  # quicker than setStyle, which returns one
    elif not qt.property(DRESSED):
        qt.setStyle("Fusion")
    qt.setProperty(DRESSED, True)
    atexit.register(_leave_clipboard)
    qt.setApplicationName("Yew Hour")
    qt.setDesktopFileName("yewhour")
    look.load_fonts()
    return qt


def _leave_clipboard() -> None:
    """Leaves only text on the clipboard: what Python put there can't be let go of when Python is gone."""
    if QApplication.instance() is not None:
        QApplication.clipboard().setText(QApplication.clipboard().text())


def first_window(dark: bool | None = None) -> Window:
    """A window with no class in it yet; not yet shown."""
    window = Window(Session(), dark)
    window.setWindowIcon(look.icon("yewhour", ""))
    window.another_wanted.connect(another_window)
    return window


def _fault(error: BaseException) -> None:
    """A fault on the interface's own thread, told in the window that is in front; once the call is over."""
    windows = [window for window in _WINDOWS if window.isVisible()]
    front = next((window for window in windows if window.isActiveWindow()), next(iter(windows), None))
    if front is not None:
        fault = Fault("Something in the window", "", error)
        QTimer.singleShot(0, front, lambda: front.view.show_fault(fault))


def fitted(window: QRect, frame: QRect, room: QRect) -> QRect:
    """Where a window has to be for it and its frame to be within the room of a screen; all in pixels."""
    around = frame.size() - window.size()
    size = window.size().boundedTo(room.size() - around)
    corner = window.topLeft() - frame.topLeft()  # the frame's own width at the left and the top
    x = min(max(frame.left(), room.left()), room.left() + room.width() - size.width() - around.width())
    y = min(max(frame.top(), room.top()), room.top() + room.height() - size.height() - around.height())
    return QRect(QPoint(x, y) + corner, size)


def fit_screen(window: Window) -> None:
    """Brings a window that is on screen into the room there is for it, frame and all."""
    screen = window.screen()
    if screen is not None and not window.isFullScreen() and not window.isMaximized():
        wanted = fitted(window.geometry(), window.frameGeometry(), screen.availableGeometry())
        if wanted != window.geometry():
            window.setGeometry(wanted)


def another_window(dark: bool | None = None) -> Window:
    """One more window, on the first page."""
    _WINDOWS[:] = [window for window in _WINDOWS if window.isVisible()]
    window = first_window(dark)
    _WINDOWS.append(window)
    window.show()
    window.show_first_page()
    QTimer.singleShot(FRAMED_MS, window, lambda: fit_screen(window))
    return window


def open_first(window: Window, path: Path | None = FIRST_DEMO, ahead: Prewarm | None = None) -> None:
    """Opens a class, or the first page for None; when it can't be opened, says why on the first page."""
    if ahead is not None:
        ahead.wait()
    if path is None or not window.file_commands.open_file(path):
        window.show_first_page()
    else:
        window.say_kept()


def run(path: Path | None = None, ahead: Prewarm | None = None, made_up: bool = False) -> int:
    """Opens the window and stays until it is closed; returns the exit code. ahead: of the class at `path`.

    made_up: the shelf is the one of Saltmarsh Row, and kept nowhere.
    """
    log.watch(_fault)
    qt = application()
    settings = read_settings()
    look.set_scale(settings.scale)
    window = first_window(settings.dark)
    window.pages.made_up = made_up
    _WINDOWS.append(window)
    window.show()
    qt.processEvents()  # on screen first, then the class
    QTimer.singleShot(FRAMED_MS, window, lambda: fit_screen(window))  # its frame comes a moment after it
    open_first(window, path, ahead)
    sweep(time.time())
    gc.freeze()  # what start-up made stays; it need not be looked through again
    garbage = GarbageTimer(qt)
    code = qt.exec()
    garbage.stop()
    return code
