"""A part of the class in the inspector: its title, what it does, its breath, and whether it can go."""

from __future__ import annotations

from typing import Any

from PySide6.QtWidgets import QComboBox, QDoubleSpinBox, QLineEdit, QSpinBox, QVBoxLayout

from yewhour.core.edits.groups import with_section
from yewhour.core.pace import Pace
from yewhour.core.plan.plan import ROLES
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import (
    calm,
    label,
    quiet,
    wrapped,
)


def section_lines(session: Session, index: int, body: QVBoxLayout) -> None:
    """Puts the fields of a section into a layout."""
    plan = session.plan
    assert plan is not None
    section = plan.sections[index]

    def put(act: str, **fields: Any) -> None:
        if session.plan is not None:
            session.do(act, with_section(session.plan, index, **fields), pick=session.picked)
            session.section = index

    body.addWidget(label(section.title, "heading"))
    title = QLineEdit(section.title)
    title.setAccessibleName("Title of this part")
    title.editingFinished.connect(
        lambda: put(f"Call it {title.text()}", title=title.text().strip() or section.title)
    )
    role = QComboBox()
    calm(role)
    role.setAccessibleName("What this part does")
    role.addItems(["no usual part", *ROLES])
    role.setCurrentText(section.role or "no usual part")
    role.textActivated.connect(
        lambda text: put(f"{section.title}: {text}", role="" if text == "no usual part" else text)
    )
    body.addLayout(wrapped(quiet("Title"), title, role))
    breath = session.solved.prepared.school.pace if session.solved else Pace()
    pace = _rate(
        section.pace.breaths_per_min if section.pace else 0.0, "Breaths a minute here", "as the class"
    )
    glide = _rate(section.glide_to or 0.0, "Breaths a minute at its end", "the same")

    def breathe() -> None:
        own = breath if section.pace is None else section.pace
        fields = {
            "pace": Pace(pace.value(), own.ratio) if pace.value() else None,
            "glide_to": glide.value() or None,
        }
        put(f"The breath of {section.title}", **fields)

    pace.editingFinished.connect(breathe)
    glide.editingFinished.connect(breathe)
    body.addLayout(wrapped(quiet("Breath here"), pace, quiet("slowing to"), glide))
    priority = QSpinBox()
    calm(priority)
    priority.setRange(0, 9)
    priority.setSpecialValueText("stays in every cut")
    priority.setValue(section.priority)
    priority.setAccessibleName("Left out first in shorter cuts")
    priority.editingFinished.connect(lambda: put(f"Priority of {section.title}", priority=priority.value()))
    body.addLayout(wrapped(quiet("In shorter cuts"), priority))


def _rate(value: float, name: str, none: str) -> QDoubleSpinBox:
    box = QDoubleSpinBox()
    box.setRange(0.0, 60.0)
    box.setSingleStep(0.5)
    box.setDecimals(1)
    box.setSpecialValueText(none)
    box.setValue(value)
    box.setAccessibleName(name)
    calm(box)
    return box
