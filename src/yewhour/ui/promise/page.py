"""The promise: the brief as a page. Every change is there at once, and so is what it does to the class.

Long because it is twelve small panels, one for each word of the sentence, and nothing else; the sentence
itself, its words and the pictures are files of their own.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from yewhour.content.terms import Terms, load_terms
from yewhour.core.lengths import parse_length, show_length
from yewhour.core.library.names import NameIndex
from yewhour.core.pace import Pace, check_pace
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.vocabulary import LEVELS
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.controls.chips import Chips, OneOf
from yewhour.ui.kit.controls.controls import (
    button,
    label,
    page,
    quiet,
    row,
)
from yewhour.ui.kit.controls.editable_sentence import EditableSentence
from yewhour.ui.kit.controls.field_keys import with_field_keys
from yewhour.ui.kit.controls.fields import prompted, spin_box
from yewhour.ui.kit.theme import Theme, scale
from yewhour.ui.promise.breath import BreathPicture, ReadAloud, TapAlong
from yewhour.ui.promise.length_picture import LengthPicture
from yewhour.ui.promise.promise_words import BEGINS, SENTENCE, said
from yewhour.ui.promise.style_ways import StyleWays

TIMES = ("morning", "midday", "evening", "night")
FACINGS = ("front", "side", "back")


WHEN = ("at the start", "in the middle", "at the end")  # a thread is taken up


class PromisePage(QWidget):
    """The page."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self._putting = False
        self.area, self.body = page()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.area)
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
            self.editor.sentence.set_theme(theme)
            self.length_picture.theme = self.picture.theme = theme
            self.length_picture.setFixedHeight(round(64 * scale()))
            self.picture.setFixedHeight(round(92 * scale()))

    # --- building ------------------------------------------------------------------------------------------

    def _build(self) -> None:
        self.terms = terms = load_terms(self.session.teaching_data.positions)
        self._built = True
        self.editor = EditableSentence("The promise", SENTENCE, self.theme, self.area)
        self.body.addWidget(self.editor)
        self._build_what()
        self._build_whom(terms)
        self._build_breath()
        self._build_camera()
        self.length_picture = LengthPicture(self.session, self.theme)
        self.body.addWidget(self.length_picture)
        self.still = label("", "reading")
        self.body.addWidget(self.still)
        self.fold = button("What the style sets", self._fold, "Each value, and where it comes from.")
        self.fold.setCheckable(True)
        self.body.addLayout(row(self.fold))
        self.ways = StyleWays(self.session)
        self.ways.hide()
        self.body.addWidget(self.ways)
        self.body.addStretch(1)

    def _build_what(self) -> None:
        self.title = self._line(
            "Title", lambda text: self._put("Call it " + text, "title", text.strip() or "New class")
        )
        self.editor.panel("title", self.title, prompted("Title", self.title))
        self.length = self._line("Length", self._length)
        self.length.setMaximumWidth(round(110 * scale()))
        self.tolerance = spin_box(0, 300, 5, 0, " s", "give or take")
        self.tolerance.valueChanged.connect(
            lambda value: self._put("Give or take", "tolerance_s", float(value))
        )
        steps = [button(f"{by:+d}", partial(self._longer, by), f"{by:+d} minutes") for by in (-5, -1, 1, 5)]
        self.counts = self._one("Length counts", "target_counts", [
            ("recording", "The whole recording", "Welcome and farewell are part of the length."),
            ("practice", "The practice alone", "Welcome and farewell come on top."),
        ])  # fmt: skip
        self.no_length = label("", "reading")
        self.no_length.hide()
        self._typed = QTimer(self)  # half of a length is none yet: it is said when the typing rests
        self._typed.setSingleShot(True)
        self._typed.setInterval(600)
        self._typed.timeout.connect(self.no_length.show)
        self.editor.panel(
            "length",
            self.length,
            prompted("Length", self.length, *steps, quiet("give or take"), self.tolerance),
            self.no_length,
            self.counts,
        )
        schools = self.session.teaching_data.schools.values()
        self.style_chips = self._one("Style", "style", [(one.id, one.name, one.about) for one in schools])
        self.about_style = label("", "soft")
        self.editor.panel("style", self.style_chips, self.style_chips, self.about_style)

    def _build_whom(self, terms: Terms) -> None:
        self.audience = self._line("For whom", lambda text: self._put("For whom", "audience", text.strip()))
        self.audience.setPlaceholderText("the people you see when you record: bell-ringers, new parents…")
        self.editor.panel("audience", self.audience, prompted("For whom", self.audience))
        self.reason = self._line("Why", lambda text: self._put("Why it is given", "reason", text.strip()))
        self.reason.setPlaceholderText("said after the welcome: For everyone who hauled nets this week…")
        self.shape = self._line("Its shape", lambda text: self._put("Its shape", "shape", text.strip()))
        self.shape.setPlaceholderText("said after that; left empty, one is made from the parts of the class")
        self.editor.panel(
            "reason", self.reason, prompted("Why", self.reason), prompted("Its shape", self.shape)
        )
        self.theme_lines = [self._line(f"The thread, {when}", lambda _: self._threaded()) for when in WHEN]
        rows = [prompted(when.capitalize(), line) for when, line in zip(WHEN, self.theme_lines, strict=True)]
        self.editor.panel("theme", self.theme_lines[0], *rows)
        self.time_of_day = self._one("Time of day", "time_of_day", [
            ("", "Any time", ""), *((one, one.capitalize(), "") for one in TIMES)])  # fmt: skip
        begun = [(one, words.capitalize(), "") for one, words in BEGINS.items()]
        self.begins = self._one("It begins", "begins", [("", "As its style does", ""), *begun])
        self.editor.panel("time", self.time_of_day, self.time_of_day, prompted("It begins", self.begins))
        self.level = self._one("Level", "level", [(one, one.capitalize(), "") for one in LEVELS])
        self.editor.panel("level", self.level, self.level)
        self.focus = self._many("About", "focus", [(k, w.capitalize(), "") for k, w in terms.areas.items()])
        self.peak = self._line("Its peak", self._peak)
        self.peak.setPlaceholderText("a movement, as you call it: crow, half moon, teaser…")
        self.no_peak = label("", "reading")
        self.no_peak.hide()
        self.editor.panel("focus", self.focus, self.focus, prompted("Its peak", self.peak), self.no_peak)
        self.cautions = self._many("Who may be there", "cautions", [
            (name, one.name, one.watch) for name, one in terms.cautions.items()])  # fmt: skip
        about = "Who may be in the room: what is not for them is left out of drafts, and spoken for."
        message = label(about, "soft")
        groups = self.session.teaching_data.conditions.groups
        self.names = {name: one.name for name, one in self.session.teaching_data.library.items()}
        self.names |= {name: one.name for name, one in groups.items()}
        self.without = self._many("Without", "without", [
            (name, one.name.capitalize(), "") for name, one in groups.items() if one.words])  # fmt: skip
        left = label("Left out of every draft. What you put in yourself stays, and is told.", "soft")
        self.editor.panel("cautions", self.cautions, self.cautions, message, self.without, left)
        self.props = self._many("Props", "props", [(k, w.capitalize(), "") for k, w in terms.props.items()])
        self.editor.panel("props", self.props, self.props)

    def _build_camera(self) -> None:
        self.facing = self._one("You face", "facing", [(one, f"The {one}", "") for one in FACINGS])
        self.mirror = OneOf("Sides are said", [
            ("", "As the style has it", ""),
            ("yes", "You are the mirror", "Your own left is said as the viewer's right."),
            ("no", "Your own left and right", ""),
        ])  # fmt: skip
        self.mirror.chosen.connect(self._mirror)
        self.editor.panel(
            "camera",
            self.facing,
            prompted("You face", self.facing, stretch=0),
            prompted("Sides", self.mirror, stretch=0),
        )

    def _build_breath(self) -> None:
        self.picture = BreathPicture(self.theme)
        self.usual = button("As the style has it", lambda: self._put("The style's own breath", "pace", None))
        self.rate = spin_box(1, 30, 0.5, 1, " a minute", "Breaths a minute")
        self.ratio = [
            spin_box(0, 12, 0.5, 1, "", name) for name in ("Inhale", "Full hold", "Exhale", "Empty hold")
        ]
        for spin in (self.rate, *self.ratio):
            spin.valueChanged.connect(lambda _: self._pace())
        shares: list[QWidget] = []
        for name, spin in zip(("in", "hold", "out", "hold"), self.ratio, strict=True):
            shares += [quiet(name), spin]
        self.tap = TapAlong()
        self.tap.taken.connect(self._tapped)
        self.gives = spin_box(0, 15, 1, 0, " %", "How much the pace may give")
        self.gives.setSpecialValueText("not at all")
        self.gives.valueChanged.connect(
            lambda value: self._put("How much the pace may give", "pace_gives", float(value))
        )
        self.editor.panel(
            "pace", self.rate, self.picture, prompted("Breaths", self.rate, self.usual),
            prompted("One breath", *shares),
            self.tap, prompted("It may give by", self.gives, quiet("when whole breaths alone cost more")),
        )  # fmt: skip
        self.voice = spin_box(0.5, 2.0, 0.05, 2, " ×", "Your rate")
        self.voice.valueChanged.connect(
            lambda value: self._put("The voice's rate", "voice_rate", round(value, 2))
        )
        self.read = ReadAloud(lambda text: self.session.teaching_data.seconds(text, "instruct", 1.0))
        self.read.taken.connect(lambda rate: self._put("The voice's rate", "voice_rate", rate))
        self.editor.panel(
            "voice", self.voice, prompted("Your rate", self.voice, quiet("times the usual voice")), self.read
        )

    def _fold(self) -> None:
        self.ways.setVisible(self.fold.isChecked())

    def leave(self) -> None:
        """Another station takes its place; every change is in the class already."""

    def shut(self) -> None:
        """The window closes; every change is in the class already."""

    def enter(self) -> None:
        """To the title of a class that is empty yet, or else to the first word."""
        if not self._built:
            return
        plan = self.session.plan
        if plan is not None and not any(section.body for section in plan.sections):
            self.editor.close_panel()
            self.editor.open("title")
        else:
            self.editor.to_word("title")

    def _line(self, name: str, put: Callable[[str], None]) -> QLineEdit:
        field = QLineEdit()
        field.setAccessibleName(name)
        field.setMaxLength(200)
        field.textEdited.connect(put)
        return with_field_keys(field)

    def _one(self, prompt: str, field: str, options: list[tuple[str, str, str]]) -> OneOf:
        """Chips of which one is in."""
        chips = OneOf(prompt, options)
        words = {key: words.lower() for key, words, _ in options}
        chips.chosen.connect(lambda key: self._put(f"{prompt}: {words[key]}", field, key))
        return chips

    def _many(self, prompt: str, field: str, options: list[tuple[str, str, str]]) -> Chips:
        """Chips of which any number may be in."""
        chips = Chips(prompt, options)
        chips.changed.connect(lambda keys: self._put(prompt, field, keys))
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
            (self.reason, brief.reason),
            (self.shape, brief.shape),
            *zip(self.theme_lines, (*brief.theme, "", "", ""), strict=False),
            (self.length, show_length(brief.target_s)),
            (self.peak, self.names.get(brief.peak, brief.peak)),
        ):
            if not line.hasFocus() and line.text() != text:
                line.setText(text)
                if line is self.length:
                    self._no_fault()
        school = self.session.teaching_data.schools.get(brief.style)
        self.about_style.setText(school.about if school else "")
        for chips, one in (
            (self.counts, brief.target_counts),
            (self.style_chips, brief.style),
            (self.level, brief.level),
            (self.time_of_day, brief.time_of_day),
            (self.begins, brief.begins),
            (self.facing, brief.facing),
        ):
            chips.put(one)
        for any_of, many in (
            (self.focus, brief.focus),
            (self.cautions, brief.cautions),
            (self.props, brief.props),
            (self.without, brief.without),
        ):
            any_of.set_chosen(many)
        mirror = brief.ways.get("mirror")
        self.mirror.put("" if mirror is None else "yes" if mirror else "no")
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
        self.editor.sentence.put(said(brief, school, pace, self.terms, self.names))
        self.still.setText(self._left_to_fill())
        self.length_picture.update()
        can = self.session.lengths
        if can is not None:
            self.length_picture.setAccessibleDescription(
                f"Shortest {show_length(can.shortest_s)}, by itself {show_length(can.preferred_s)}, "
                f"longest {show_length(can.longest_s)}"
            )

    def _left_to_fill(self) -> str:
        """What the class lacks to be as long as promised, or has too much."""
        can = self.session.lengths
        if can is None:
            return ""
        if can.promised_s > can.longest_s:
            return f"{show_length(can.promised_s - can.preferred_s)} still to fill."
        if can.promised_s < can.shortest_s:
            return f"{show_length(can.shortest_s - can.promised_s)} too much for it, at its shortest."
        return ""

    # --- putting -------------------------------------------------------------------------------------------

    def _threaded(self) -> None:
        said = [line.text().strip() for line in self.theme_lines]
        while said and not said[-1]:
            said.pop()
        self._put("The thread", "theme", tuple(said))

    def _put(self, title: str, field: str, value: Any) -> None:
        if not self._putting and self.session.plan is not None:
            self.session.do(title, with_brief(self.session.plan, **{field: value}), kind=f"brief {field}")

    def _length(self, text: str) -> None:
        try:
            length_s = float(text) * 60 if text.strip().isdigit() else parse_length(text)  # bare: minutes
        except Problem as problem:
            self.no_length.setText(f"{problem} Until then it is {show_length(self._brief().target_s)}.")
            self._typed.start()
        else:
            self._no_fault()
            self._put(f"Make it {show_length(length_s)}", "target_s", length_s)

    def _peak(self, text: str) -> None:
        """The peak by any of its names; what is none is told, and the one before stays."""
        found = NameIndex(self.session.teaching_data.library).find(text) if text.strip() else ""
        self.no_peak.setVisible(found is None)
        self.no_peak.setText(f"There is no movement “{text.strip()}” yet.")
        if found is not None:
            self._put("Its peak", "peak", found)

    def _no_fault(self) -> None:
        self._typed.stop()
        self.no_length.hide()

    def _longer(self, minutes: int) -> None:
        self._no_fault()
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

    def _mirror(self, key: str) -> None:
        ways = {name: value for name, value in self._brief().ways.items() if name != "mirror"}
        self._put("How sides are said", "ways", ways | ({"mirror": key == "yes"} if key else {}))
