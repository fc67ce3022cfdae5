"""The station of the sprig: what is put in beside it, and what is chosen on it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QSplitter

from yewhour.ui.kit.theme import Theme
from yewhour.ui.sprig.finder import FinderPane
from yewhour.ui.sprig.inspector import Inspector
from yewhour.ui.sprig.sprig import Sprig


class SprigStation(QSplitter):
    """The finder above, the inspector below; the keys go to the sprig, which is always there."""

    def __init__(self, sprig: Sprig, finder: FinderPane, inspector: Inspector) -> None:
        super().__init__(Qt.Orientation.Vertical)
        self.sprig, self.finder = sprig, finder
        self.addWidget(finder)
        self.addWidget(inspector)
        self.setSizes([300, 340])
        self.setObjectName("page")

    def enter(self) -> None:
        """The keys go to the sprig."""
        self.sprig.setFocus()

    def leave(self) -> None:
        """Another station takes its place; the sprig stays."""

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another text size."""
        self.sprig.set_theme(theme)
        self.finder.set_theme(theme)

    def shut(self) -> None:
        """The window closes; every change is in the class already."""
