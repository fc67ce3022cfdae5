"""Starting the window."""

import gc
import sys
from pathlib import Path

from PySide6.QtWidgets import QApplication

from yewhour.store.paths import FIRST_DEMO, kept_classes
from yewhour.ui import theme as look
from yewhour.ui.session import Session
from yewhour.ui.window import Window


def application() -> QApplication:
    """The one QApplication, with our fonts."""
    existing = QApplication.instance()
    made = existing if isinstance(existing, QApplication) else QApplication(sys.argv[:1])
    made.setApplicationName("Yew Hour")
    made.setDesktopFileName("yewhour")
    made.setStyle("Fusion")
    look.load_fonts()
    return made


def first_window(dark: bool | None = None) -> Window:
    """A window with no class in it yet; not yet shown."""
    window = Window(Session(), dark)
    window.setWindowIcon(look.icon("yewhour", ""))
    return window


def open_first(window: Window, path: Path | None = None) -> None:
    """Opens a class, or the first demo class; when it can't be opened, says why over the demo class."""
    if not window.open_file(path or FIRST_DEMO) and path is not None:
        refused = window.message.text()
        window.open_file(FIRST_DEMO)
        window.message.setText(refused)
    elif window.session.troubles:
        window.tell(window.session.troubles[0])
    elif path is None and (kept := sorted(kept_classes().glob("*.yewhour"))):
        window.say_kept(kept)


def run(path: Path | None = None) -> int:
    """Opens the window and stays until it is closed; returns the exit code."""
    qt = application()
    window = first_window()
    window.show()
    qt.processEvents()  # on screen first, then the class
    open_first(window, path)
    gc.freeze()  # what start-up made stays; it need not be looked through again
    gc.enable()
    return qt.exec()
