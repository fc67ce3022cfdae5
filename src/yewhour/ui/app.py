"""Starting the window."""

import sys
from pathlib import Path

from PySide6.QtWidgets import QApplication

from yewhour.store.paths import FIRST_DEMO
from yewhour.store.words import load_words
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


def first_window(path: Path | None = None, dark: bool | None = None) -> Window:
    """A window on a class, the first demo class when none is given; not yet shown."""
    words, problems = load_words()
    window = Window(Session(words), dark)
    opened = window.open_file(path or FIRST_DEMO)
    if not opened and path is not None:
        refused = window.message.text()
        window.open_file(FIRST_DEMO)
        window.message.setText(refused)
    elif problems:
        window.tell(problems[0])
    return window


def run(path: Path | None = None) -> int:
    """Opens the window and stays until it is closed; returns the exit code."""
    qt = application()
    window = first_window(path)
    window.setWindowIcon(look.icon("yewhour", ""))
    window.show()
    return qt.exec()
