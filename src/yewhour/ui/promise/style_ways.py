"""What the style sets: each way with its value, where it comes from, and a change of it."""

from __future__ import annotations

from typing import Any, Literal, get_args, get_origin, get_type_hints

from PySide6.QtWidgets import QComboBox, QDoubleSpinBox, QPushButton, QVBoxLayout, QWidget

from yewhour.core.library.names import listed
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.own_shares import WHATS, OwnShares
from yewhour.core.plan.school import School
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.controls import calm, label, wrapped
from yewhour.ui.kit.theme import scale

NAMES = {
    "lead": "Leading side", "alternate_lead": "Rounds change sides", "effort_breath": "Breath on the effort",
    "breathe_by": "Breathe by", "pelvis": "Pelvis", "holds": "Holds go by", "counting": "Counting",
    "retention": "Breath is held", "names": "Names", "second_side": "Words on the second side",
    "voice": "Voice", "breath_words": "Breath words",
    "roll": "Rolls out of the rest", "closing": "Closing", "talk": "Share of talk in a hold",
    "count_s": "Seconds of a count", "least_rest": "Share of the class that is rest",
}  # fmt: skip


def _own_said(own: OwnShares) -> str:
    """Her own seconds, in a line."""
    if not own:
        return "none taken: look back at a recording"
    wholes = [f"{words} {own[what]:g}" for what, words in WHATS.items() if what in own]
    kinds = len(own) - len(wholes)
    more = [f"{kinds} of single kinds"] if kinds else []
    return f"{listed([*wholes, *more])} (1 is as usual)"


class StyleWays(QWidget):
    """A line for each way: its name, its value, and whose it is."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._fields: dict[str, QComboBox | QDoubleSpinBox] = {}
        self._whose: dict[str, QPushButton] = {}
        self._putting = False
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        hints = get_type_hints(School)
        for name, words in NAMES.items():
            field = self._field(name, hints[name])
            field.setAccessibleName(words)
            calm(field)
            whose = QPushButton()
            whose.setObjectName("small")
            whose.setFlat(True)
            whose.clicked.connect(lambda _=False, name=name: self._give_back(name))
            self._fields[name], self._whose[name] = field, whose
            prompt = label(words)
            prompt.setFixedWidth(round(210 * scale()))
            layout.addLayout(wrapped(prompt, field, whose))
        self.own = label("")
        self.usual = QPushButton("as usual again")
        self.usual.setObjectName("small")
        self.usual.clicked.connect(self._as_usual)
        prompt = label("Your own seconds")
        prompt.setFixedWidth(round(210 * scale()))
        layout.addLayout(wrapped(prompt, self.own, self.usual))

    def _field(self, name: str, hint: Any) -> QComboBox | QDoubleSpinBox:
        if hint is float:
            spin = QDoubleSpinBox()
            spin.setRange(0.0, 1.0 if name != "count_s" else 5.0)
            spin.setSingleStep(0.05)
            spin.setKeyboardTracking(False)
            spin.valueChanged.connect(lambda value: self._put(name, round(value, 2)))
            return spin
        combo = QComboBox()
        if get_origin(hint) is Literal:
            options: list[tuple[str, Any]] = [(str(one), one) for one in get_args(hint)]
        elif hint is bool:
            options = [("yes", True), ("no", False)]
        else:
            options = [
                ("none of its own", ""),
                *((one, one) for one in sorted(self.session.teaching_data.blocks)),
            ]
        for words, value in options:
            combo.addItem(words, value)
        combo.activated.connect(lambda _: self._put(name, combo.currentData()))
        return combo

    def refresh(self) -> None:
        """Takes the values as they are."""
        plan = self.session.plan
        school = self.session.teaching_data.schools.get(plan.brief.style) if plan is not None else None
        if plan is None or school is None:
            return
        self._putting = True
        for name, field in self._fields.items():
            own = name in plan.brief.ways
            value = plan.brief.ways[name] if own else getattr(school, name)
            if isinstance(field, QComboBox):
                field.setCurrentIndex(max(0, field.findData(value)))
            elif not field.hasFocus():
                field.setValue(float(value))
            whose = self._whose[name]
            whose.setText("yours: give back" if own else f"from {school.name}")
            whose.setEnabled(own)
            whose.setAccessibleName(f"{NAMES[name]}: {whose.text()}")
        self.own.setText(_own_said(plan.brief.own))
        self.usual.setVisible(bool(plan.brief.own))
        self._putting = False

    def _as_usual(self) -> None:
        plan = self.session.plan
        if plan is not None:
            self.session.do("Seconds as usual", with_brief(plan, own={}))

    def _put(self, name: str, value: Any) -> None:
        if self._putting or self.session.plan is None:
            return
        self._change({**self.session.plan.brief.ways, name: value}, f"{NAMES[name]}: {value}")

    def _give_back(self, name: str) -> None:
        if self.session.plan is not None:
            ways = {key: value for key, value in self.session.plan.brief.ways.items() if key != name}
            self._change(ways, f"{NAMES[name]} as the style has it")

    def _change(self, ways: dict[str, Any], title: str) -> None:
        assert self.session.plan is not None
        self.session.do(title, with_brief(self.session.plan, ways=ways))
