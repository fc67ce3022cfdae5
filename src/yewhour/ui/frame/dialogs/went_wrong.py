"""What went wrong: told in words, with all that is known of it, to be read and written into one file."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QCheckBox, QDialog, QPlainTextEdit, QVBoxLayout

from yewhour.background import log
from yewhour.background.jobs import Fault
from yewhour.core.outline.writer import write_outline
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.dialogs.choose_file import ChooseFile
from yewhour.ui.frame.dialogs.file_request import FileRequest
from yewhour.ui.kit.controls.controls import button, label, row
from yewhour.ui.kit.theme import fixed_font, scale

NAME = "what-went-wrong.txt"
ABOUT = (
    "Nothing is sent from here. Write it into a file, read it, and send it to whoever looks after Yew Hour "
    "for you; with it a fault can be found and mended."
)
SAFE = "What is open is kept, as always."


class WentWrong(QDialog):
    """The dialog. fault: what has just broken off, None when she only asks."""

    def __init__(self, session: Session, fault: Fault | None) -> None:
        super().__init__()
        self.session, self.fault = session, fault
        self.asking: ChooseFile | None = None
        self.setWindowTitle("What went wrong")
        self.resize(round(720 * min(1.5, scale())), round(560 * min(1.3, scale())))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(24, 20, 24, 18)
        layout.setSpacing(10)
        heading = fault.heading if fault is not None else "What went wrong"
        layout.addWidget(label(heading, "heading"))
        if fault is not None:
            layout.addWidget(label(fault.lost or SAFE, "reading"))
        layout.addWidget(label(ABOUT, "soft"))
        self.with_class = QCheckBox("With the class that is open")
        self.with_class.setEnabled(session.plan is not None)
        self.with_class.toggled.connect(self._show)
        self.text = QPlainTextEdit()
        self.text.setReadOnly(True)
        self.text.setFont(fixed_font())
        self.text.setAccessibleName("What would be written")
        self.text.setTabChangesFocus(True)
        layout.addWidget(self.text, 1)
        layout.addWidget(self.with_class)
        self.answer = label("", "soft")
        layout.addWidget(self.answer)
        self.write_button = button("Write it into a file…", self._ask, name="accent")
        layout.addLayout(row(self.write_button, button("Close", self.accept)))
        self._show()

    def _show(self) -> None:
        self.text.setPlainText(self.report())

    def report(self) -> str:
        """All of it, with the class only where that is ticked."""
        plan, told = self.session.plan, str(self.fault) if self.fault is not None else ""
        if plan is None or not self.with_class.isChecked():
            return log.report(told)
        return log.report(
            told, write_outline(plan, self.session.teaching_data.library, self.session.teaching_data.blocks)
        )

    def _ask(self) -> None:
        wanted = FileRequest("Where to", "Write it", (".txt",), save=True)
        self.asking = ChooseFile(wanted, Path.home(), NAME)
        self.asking.setParent(self, self.asking.windowFlags())
        self.asking.setModal(True)
        self.asking.chosen.connect(self.write)
        self.asking.show()

    def write(self, path: Path) -> None:
        """Writes it, whole or not at all."""
        try:
            write_whole(path, self.report().encode())
        except Problem as problem:
            self.answer.setText(str(problem))
        else:
            self.answer.setText(f"Written: {path}")
