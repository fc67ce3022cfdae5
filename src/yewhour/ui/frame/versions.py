"""Versions: every saved state of the class, any two side by side, and any of them brought back."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QComboBox, QDialog, QTextBrowser, QVBoxLayout

from yewhour.core.plan.compare import side_by_side
from yewhour.core.plan.movement import Library
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.store.versions import Version
from yewhour.ui.kit.controls import button, label, row
from yewhour.ui.kit.theme import Theme, scale


class Versions(QDialog):
    """The dialog. `brought` gives the plan to go on with, and when it was saved."""

    brought = Signal(object, str)

    def __init__(self, now: Plan, found: list[Version], library: Library, theme: Theme) -> None:
        super().__init__()
        self.now = now
        self.found = found
        self.library = library
        self.theme = theme
        self.setWindowTitle("Versions of this class")
        self.resize(round(1000 * min(1.3, scale())), round(660 * min(1.3, scale())))
        self.before, self.after = QComboBox(), QComboBox()
        self.before.setAccessibleName("The version at the left")
        self.after.setAccessibleName("The version at the right")
        for version in found:
            words = f"{version.when:%d %B %Y, %H:%M:%S}"
            self.before.addItem(words, version)
            self.after.addItem(words, version)
        self.after.insertItem(0, "As it is now", None)
        self.after.setCurrentIndex(0)
        self.text = QTextBrowser()
        self.text.setAccessibleName("The two side by side")
        self.text.setOpenLinks(False)
        self.back = button("Go on with the one at the left", self.bring, "Undo takes it back.", "accent")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 14, 18, 14)
        layout.setSpacing(10)
        if not found:
            layout.addWidget(label("No versions yet: each time you save, one is kept here."))
        beside = label("beside" if found else "", "soft")
        layout.addLayout(row(self.before, beside, self.after))
        layout.addWidget(self.text, 1)
        layout.addLayout(row(self.back, button("Close", self.reject)))
        for part in (self.before, self.after, self.text, self.back):
            part.setVisible(bool(found))
        self.before.currentIndexChanged.connect(lambda _: self.compare())
        self.after.currentIndexChanged.connect(lambda _: self.compare())
        self.compare()

    def _plan(self, box: QComboBox) -> Plan | None:
        version = box.currentData(Qt.ItemDataRole.UserRole)
        if version is None:
            return self.now if box is self.after else None
        plan: Plan = version.plan()
        return plan

    def compare(self) -> None:
        """Shows the two that are chosen."""
        try:
            before, after = self._plan(self.before), self._plan(self.after)
        except Problem as problem:
            self.text.setPlainText(str(problem))
            return
        if before is None or after is None:
            self.text.setPlainText("")
            return
        lines = side_by_side(before, after, self.library)
        changed = sum(1 for line in lines if not line.same)
        rows = "".join(
            f'<tr><td width="50%" style="color:{self._colour(line.same, True)}">{_shown(line.before)}</td>'
            f'<td width="50%" style="color:{self._colour(line.same, False)}">{_shown(line.after)}</td></tr>'
            for line in lines
        )
        differ = "1 line differs" if changed == 1 else f"{changed} lines differ"
        head = f"<p>{differ}.</p>" if changed else "<p>The same.</p>"
        self.text.setHtml(f'{head}<table width="100%" cellspacing="0" cellpadding="2">{rows}</table>')
        first = next((number for number, line in enumerate(lines) if not line.same), 0)
        bar = self.text.verticalScrollBar()
        bar.setValue(round(bar.maximum() * max(0, first - 4) / max(1, len(lines))))

    def _colour(self, same: bool, old: bool) -> str:
        return self.theme.soft if same else self.theme.trouble if old else self.theme.right

    def bring(self) -> None:
        """Goes on with the version at the left."""
        version = self.before.currentData(Qt.ItemDataRole.UserRole)
        try:
            plan = version.plan()
        except Problem as problem:
            self.text.setPlainText(str(problem))
            return
        self.brought.emit(plan, f"{version.when:%d %B, %H:%M}")
        self.accept()


def _shown(line: str) -> str:
    indent = len(line) - len(line.lstrip())
    return "&nbsp;" * indent * 2 + escape(line.strip()) if line else "&nbsp;"
