"""What a draft shows beside the class: why it is as it is, and what else could be in a place."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QDialog, QVBoxLayout

from yewhour.core.draft.partial import Alternative
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    Press,
    button,
    label,
    page,
    row,
)
from yewhour.ui.kit.figure_view import figure_icon
from yewhour.ui.kit.theme import Theme, scale

CHOICE_HIGH = 44.0  # pixels of the figure of a choice


class WhyDialog(QDialog):
    """Why each movement is there, and below that what was turned down."""

    def __init__(self, wished: list[str], lines: list[str], down: list[str]) -> None:
        super().__init__()
        self.setWindowTitle("Why this class")
        self.resize(round(620 * min(1.5, scale())), round(560 * min(1.3, scale())))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(20, 16, 20, 14)
        layout.setSpacing(10)
        area, inside = page()
        layout.addWidget(area, 1)
        if wished:
            inside.addWidget(label("What you asked for", "heading"))
        for line in wished:
            inside.addWidget(label(line))
        inside.addWidget(label("Why this class", "heading"))
        for line in lines:
            inside.addWidget(label(line))
        if down:
            inside.addWidget(label("What was turned down", "heading"))
        for line in down:
            inside.addWidget(label(line, "soft"))
        inside.addStretch(1)
        layout.addLayout(row(button("Close", self.accept, name="accent")))


class AlternativesDialog(QDialog):
    """Something else here: each choice is shown on the sprig while it has the pointer or the keys."""

    def __init__(self, session: Session, found: list[Alternative], theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.setWindowTitle("Something else here")
        self.setFixedWidth(round(460 * min(1.5, scale())))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(24, 18, 24, 16)
        layout.setSpacing(10)
        layout.addWidget(label("Something else here", "heading"))
        layout.addWidget(
            label("The sprig shows the class with each. Enter takes one; undo gives it back.", "soft")
        )
        self.choices = [ShownAlternative(session, one, theme) for one in found]
        for one in self.choices:
            one.clicked.connect(self.accept)
            layout.addWidget(one)
        layout.addLayout(row(button("Leave it as it is", self.reject)))
        layout.addStretch(1)
        self.finished.connect(session.drop_trial)
        self.choices[0].setFocus()
        self.resize(self.width(), layout.totalHeightForWidth(self.width()))

    def beside(self, window: Any) -> None:
        """Stands over the right half of the window, so that the sprig is seen."""
        frame = window.geometry()
        self.move(
            frame.left() + frame.width() * 3 // 4 - self.width() // 2, frame.top() + frame.height() // 3
        )


class ShownAlternative(Press):
    """One choice: looked at while it has the pointer or the focus, done when it is pressed."""

    def __init__(self, session: Session, one: Alternative, theme: Theme) -> None:
        super().__init__(one.name.replace("&", "&&"))
        high = CHOICE_HIGH * scale()
        self.setIcon(figure_icon(session.teaching_data.library[one.movement], theme, high))
        self.setIconSize(QSize(round(1.5 * high), round(high)))
        self.session, self.one = session, one
        self.setObjectName("small")
        self.clicked.connect(lambda: session.do(f"{one.name} instead", one.plan))

    def focusInEvent(self, event: Any) -> None:
        super().focusInEvent(event)
        self.session.try_plan(self.one.name, self.one.plan)

    def enterEvent(self, event: Any) -> None:
        super().enterEvent(event)
        self.session.try_plan(self.one.name, self.one.plan)
