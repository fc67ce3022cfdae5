"""The promise: the brief as a page. Every change is there at once, and so is what it does to the class."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtWidgets import QComboBox, QLineEdit, QVBoxLayout, QWidget

from yewhour.core.lengths import parse_length, show_length
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.known import LEVELS
from yewhour.core.plan.pace import Pace, check_pace
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.store.terms import load_terms
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls import Chips, button, calm, label, page, quiet
from yewhour.ui.kit.fields import prompted, spin_box
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.promise.breath import BreathPicture, ReadAloud, TapAlong
from yewhour.ui.promise.length_picture import LengthPicture
from yewhour.ui.promise.style import Ways

TIMES = ("morning", "midday", "evening", "night")
FACINGS = ("front", "side", "back")


class Promise(QWidget):
    """The page."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self._putting = False
        area, self.body = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)
        self._built = False
        self.theme = theme
        session.made_changed.connect(self.refresh)
        session.plan_changed.connect(self.refresh)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.theme = theme
        if self._built:
            self.length_picture.theme = self.picture.theme = theme
            self.length_picture.setFixedHeight(round(64 * scale()))
            self.picture.setFixedHeight(round(92 * scale()))

    # --- building ------------------------------------------------------------------------------------------

    def _build(self) -> None:
        terms = load_terms(self.session.words.positions)
        self._built = True
        self._head("What you promise")
        self.title = self._line(
            "Title", lambda text: self._put("Call it " + text, "title", text.strip() or "New class")
        )
        self.length = self._line("Length", self._length)
        self.length.setMaximumWidth(round(110 * scale()))
        self.tolerance = spin_box(0, 300, 5, 0, " s", "give or take")
        self.tolerance.valueChanged.connect(
            lambda value: self._put("Give or take", "tolerance_s", float(value))
        )
        steps = [button(f"{by:+d}", partial(self._longer, by), f"{by:+d} minutes") for by in (-5, -1, 1, 5)]
        self.body.addLayout(prompted("Title", self.title))
        self.body.addLayout(prompted("Length", self.length, *steps, quiet("give or take"), self.tolerance))
        self.length_picture = LengthPicture(self.session, self.theme)
        self.body.addWidget(self.length_picture)
        self.counts = self._one("Length counts", "target_counts", [
            ("recording", "The whole recording", "Welcome and farewell are part of the length."),
            ("practice", "The practice alone", "Welcome and farewell come on top."),
        ])  # fmt: skip
        self.style_box = QComboBox()
        calm(self.style_box)
        self.style_box.setAccessibleName("Style")
        for school in self.session.words.schools.values():
            self.style_box.addItem(school.name, school.id)
        self.style_box.activated.connect(lambda _: self._put(
            f"Style: {self.style_box.currentText()}", "style", self.style_box.currentData()))  # fmt: skip
        self.about_style = label("", "soft")
        self.body.addLayout(prompted("Style", self.style_box))
        self.body.addWidget(self.about_style)
        self.level = self._one("Level", "level", [(one, one.capitalize(), "") for one in LEVELS])
        self.time_of_day = self._one("Time of day", "time_of_day", [
            ("", "Any time", ""), *((one, one.capitalize(), "") for one in TIMES)])  # fmt: skip
        self.audience = self._line("For whom", lambda text: self._put("For whom", "audience", text.strip()))
        self.audience.setPlaceholderText("the people you see when you record: bell-ringers, new parents…")
        self.body.addLayout(prompted("For whom", self.audience))
        self.focus = self._many("About", "focus", [(k, w.capitalize(), "") for k, w in terms.areas.items()])
        self._head("Who may be in the room")
        self.body.addWidget(
            label("A match puts a line before the movement and offers the gentler way.", "soft")
        )
        self.cautions = self._many("Who may be there", "cautions", [
            (name, one.name, one.watch) for name, one in terms.cautions.items()])  # fmt: skip
        self._head("At hand")
        self.props = self._many("Props", "props", [(k, w.capitalize(), "") for k, w in terms.props.items()])
        self._build_breath()
        self._head("The camera")
        self.facing = self._one("You face", "facing", [(one, f"The {one}", "") for one in FACINGS])
        self.mirror = Chips("Sides are said", [
            ("", "As the style has it", ""),
            ("yes", "You are the mirror", "Your own left is said as the viewer's right."),
            ("no", "Your own left and right", ""),
        ])  # fmt: skip
        self.mirror.changed.connect(self._mirror)
        self.body.addWidget(self.mirror)
        self._head("What the style sets")
        self.ways = Ways(self.session)
        self.body.addWidget(self.ways)
        self.body.addStretch(1)

    def _build_breath(self) -> None:
        self._head("The breath")
        self.picture = BreathPicture(self.theme)
        self.body.addWidget(self.picture)
        self.usual = button("As the style has it", lambda: self._put("The style's own breath", "pace", None))
        self.rate = spin_box(1, 30, 0.5, 1, " a minute", "Breaths a minute")
        self.ratio = [
            spin_box(0, 12, 0.5, 1, "", name) for name in ("Inhale", "Full hold", "Exhale", "Empty hold")
        ]
        for spin in (self.rate, *self.ratio):
            spin.valueChanged.connect(lambda _: self._pace())
        self.body.addLayout(prompted("Breaths", self.rate, self.usual))
        shares: list[QWidget] = []
        for name, spin in zip(("in", "hold", "out", "hold"), self.ratio, strict=True):
            shares += [quiet(name), spin]
        self.body.addLayout(prompted("One breath", *shares))
        self.tap = TapAlong()
        self.tap.taken.connect(self._tapped)
        self.body.addWidget(self.tap)
        self.gives = spin_box(0, 15, 1, 0, " %", "How much the pace may give")
        self.gives.setSpecialValueText("not at all")
        self.gives.valueChanged.connect(
            lambda value: self._put("How much the pace may give", "pace_gives", float(value))
        )
        self.body.addLayout(
            prompted("It may give by", self.gives, quiet("when whole breaths alone cost more"))
        )
        self._head("The voice")
        self.voice = spin_box(0.5, 2.0, 0.05, 2, " ×", "Your rate")
        self.voice.valueChanged.connect(
            lambda value: self._put("The voice's rate", "voice_rate", round(value, 2))
        )
        self.body.addLayout(prompted("Your rate", self.voice, quiet("times the usual voice")))
        self.read = ReadAloud(lambda text: self.session.words.seconds(text, "instruct", 1.0))
        self.read.taken.connect(lambda rate: self._put("The voice's rate", "voice_rate", rate))
        self.body.addWidget(self.read)

    def _head(self, words: str) -> None:
        self.body.addSpacing(6)
        self.body.addWidget(label(words, "heading"))

    def _line(self, name: str, put: Callable[[str], None]) -> QLineEdit:
        made = QLineEdit()
        made.setAccessibleName(name)
        made.setMaxLength(200)
        made.textEdited.connect(put)
        return made

    def _one(self, prompt: str, field: str, options: list[tuple[str, str, str]]) -> Chips:
        """Chips of which one is in."""
        chips = Chips(prompt, options)

        def chosen(keys: tuple[str, ...]) -> None:
            now = getattr(self._brief(), field)
            new = [key for key in keys if key != now]
            if new:
                words = next(words for key, words, _ in options if key == new[0])
                self._put(f"{prompt}: {words.lower()}", field, new[0])
            else:
                chips.set_chosen((now,))

        chips.changed.connect(chosen)
        self.body.addLayout(prompted(prompt, chips, stretch=0))
        return chips

    def _many(self, prompt: str, field: str, options: list[tuple[str, str, str]]) -> Chips:
        """Chips of which any number may be in."""
        chips = Chips(prompt, options)
        chips.changed.connect(lambda keys: self._put(prompt, field, keys))
        if prompt == "About":
            self.body.addLayout(prompted(prompt, chips, stretch=0))
        else:
            self.body.addWidget(chips)
        return chips

    # --- showing -------------------------------------------------------------------------------------------

    def _brief(self) -> Brief:
        return self.session.plan.brief if self.session.plan is not None else Brief()

    def refresh(self) -> None:
        """Takes the brief as it is; what is being typed in is left alone."""
        if not self.isVisible() or self.session.plan is None:
            return
        if not self._built:
            self._build()
        brief = self._brief()
        self._putting = True
        for line, text in (
            (self.title, brief.title),
            (self.audience, brief.audience),
            (self.length, show_length(brief.target_s)),
        ):
            if not line.hasFocus() and line.text() != text:
                line.setText(text)
        self.style_box.setCurrentIndex(max(0, self.style_box.findData(brief.style)))
        school = self.session.words.schools.get(brief.style)
        self.about_style.setText(school.about if school else "")
        for chips, one in (
            (self.counts, brief.target_counts),
            (self.level, brief.level),
            (self.time_of_day, brief.time_of_day),
            (self.facing, brief.facing),
        ):
            chips.set_chosen((one,))
        for chips, many in (
            (self.focus, brief.focus),
            (self.cautions, brief.cautions),
            (self.props, brief.props),
        ):
            chips.set_chosen(many)
        mirror = brief.ways.get("mirror")
        self.mirror.set_chosen(("" if mirror is None else "yes" if mirror else "no",))
        pace = brief.pace or (school.pace if school else None)
        if pace is not None:
            for spin, value in zip(
                (self.rate, *self.ratio), (pace.breaths_per_min, *pace.ratio), strict=True
            ):
                if not spin.hasFocus():
                    spin.setValue(value)
            if min(pace.ratio[0], pace.ratio[2]) > 0:
                self.picture.set_pace(pace.breaths_per_min, pace.ratio)
        self.usual.setVisible(brief.pace is not None)
        for spin, value in (
            (self.voice, brief.voice_rate),
            (self.gives, brief.pace_gives),
            (self.tolerance, brief.tolerance_s),
        ):
            if not spin.hasFocus():
                spin.setValue(value)
        self.ways.refresh()
        self._putting = False
        self.length_picture.update()
        can = self.session.lengths
        if can is not None:
            self.length_picture.setAccessibleDescription(
                f"Shortest {show_length(can.shortest_s)}, by itself {show_length(can.preferred_s)}, "
                f"longest {show_length(can.longest_s)}"
            )

    # --- putting -------------------------------------------------------------------------------------------

    def _put(self, title: str, field: str, value: Any) -> None:
        if not self._putting and self.session.plan is not None:
            self.session.do(title, with_brief(self.session.plan, **{field: value}), kind=f"brief {field}")

    def _length(self, text: str) -> None:
        try:
            self._put(f"Make it {text}", "target_s", parse_length(text))
            self.length.setToolTip("")
        except Problem as problem:
            self.length.setToolTip(str(problem))

    def _longer(self, minutes: int) -> None:
        target_s = max(60.0, self._brief().target_s + minutes * 60)
        self._put(f"Make it {show_length(target_s)}", "target_s", target_s)

    def _pace(self) -> None:
        a, b, c, d = (spin.value() for spin in self.ratio)
        try:
            self._put("The breath", "pace", check_pace(Pace(self.rate.value(), (a, b, c, d)), "the breath"))
        except Problem as problem:
            if not self._putting:
                self.session.refused.emit(problem)

    def _tapped(self, rate_bpm: float) -> None:
        self.rate.setValue(rate_bpm)

    def _mirror(self, keys: tuple[str, ...]) -> None:
        ways = dict(self._brief().ways)
        before = ways.pop("mirror", None)
        now = "" if before is None else "yes" if before else "no"
        new = [key for key in keys if key != now]
        if not new:
            self.mirror.set_chosen((now,))
            return
        if new[0]:
            ways["mirror"] = new[0] == "yes"
        self._put("How sides are said", "ways", ways)
