"""The inspector: what is chosen on the sprig, in numbers that can be changed; or the whole class.

One method for each kind of thing that can be chosen (a section is in `part`); they share its layout and acts.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtWidgets import (
    QLineEdit,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.library.movement import Movement
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.plan.places import nodes_of, outermost
from yewhour.core.timed_class import LengthRange, TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.side_totals import side_totals
from yewhour.ui.desk.finding_cards import TrialButton, finding_card, refusal_card
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.commands import COMMANDS
from yewhour.ui.kit.controls.chips import Chips
from yewhour.ui.kit.controls.controls import (
    Stepper,
    Wrapping,
    button,
    emptied,
    label,
    page,
    wrapped,
)
from yewhour.ui.kit.controls.kept_focus import kept_focus
from yewhour.ui.kit.theme import Theme
from yewhour.ui.sprig.actions import SEEN_BEFORE, SprigActions
from yewhour.ui.sprig.section_lines import section_lines

MOST_CARDS = 12
FIGURE_HIGH = 96.0  # pixels
FIRST_STEPS = (
    "Add movements with the field above, or paste an outline here with Ctrl+V on the sprig. What has a left "
    "and a right is done on both. Lines that start with # begin a new part: # Warm, # Rest."
)


class Inspector(QWidget):
    """Shows what is chosen and changes it through the hand."""

    def __init__(self, session: Session, sprig_actions: SprigActions, theme: Callable[[], Theme]) -> None:
        super().__init__()
        self.theme = theme
        self.session = session
        self.sprig_actions = sprig_actions
        self._shown: tuple[Any, ...] = ()
        area, self.body = page()
        area.setAccessibleName("What is chosen")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(area)
        session.made_changed.connect(self.refresh)
        session.plan_changed.connect(self.refresh)
        session.selected_changed.connect(lambda _: self.refresh())

    def refresh(self) -> None:
        """Takes what is chosen now; a trial changes nothing here, so that what is pressed stays."""
        session = self.session
        state = (
            session.plan,
            session.timed,
            session.picked,
            session.section,
            session.refusal,
            session.offers,
        )
        if not self.isVisible() or (
            len(state) == len(self._shown) and all(a is b for a, b in zip(state, self._shown, strict=True))
        ):
            return
        self._shown = state
        with kept_focus(self):
            emptied(self.body)
            if session.plan is not None:
                self._fill()
            self.body.addStretch(1)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _fill(self) -> None:
        session = self.session
        assert session.plan is not None
        if session.section is not None:
            section_lines(session, session.section, self.body)
            self._acts("new_part", "earlier", "later", "leave_out")
            return
        chosen = outermost(session.plan, session.picked)
        if not chosen:
            self._overview()
            return
        if len(chosen) > 1:
            self._add(label(f"{len(chosen)} chosen", "heading"))
            self._acts("both_sides", "rounds", "flow", "lock", "again", "earlier", "later", "leave_out")
        else:
            node = nodes_of(session.plan)[chosen[0].id]
            if isinstance(node, Step):
                self._step(node)
            elif isinstance(node, Pair):
                self._pair(node)
            elif isinstance(node, Rounds):
                self._rounds(node)
            else:
                self._add(label(_first_up(self.sprig_actions.chosen.called(node.id)), "heading"))
                self._acts("ungroup", "earlier", "later", "leave_out")
        self._noticed([segment.id for segment in session.segments_of(session.picked)])

    def _add(self, *widgets: QWidget) -> None:
        for widget in widgets:
            self.body.addWidget(widget)

    # --- one step --------------------------------------------------------------------------------

    def _step(self, step: Step) -> None:
        movement = self.session.teaching_data.library.get(step.movement)
        segments = self.session.segments_of((step.id,))
        self._add(label(movement.name if movement else step.movement, "heading"))
        if movement is None:
            self._add(label("This movement is not in the library any more. Its place is kept.", "soft"))
            self._acts("draft_else", "show_library", "leave_out")
            return
        self._figures(movement, segments)
        if segments:
            first = segments[0]
            words = [
                movement.traditional,
                _how_long(segments),
                f"from {show_length(first.start / TICKS_PER_S)}",
            ]
            self._add(label(" · ".join(word for word in words if word), "soft"))
            unit = first.behaviour.unit
            if unit and first.use.unit:
                self._amount(step, segments[0].amount, unit)
        self._manner(step, movement)
        if segments and any(segment.use.second for segment in segments) and segments[0].use.unit:
            self._second(step)
        self._matters(movement)
        grouped = self.sprig_actions.chosen.grouped(step.id)
        sided = movement.sides == "one" and not any(s.use.pair for s in segments)
        self._acts(*(["both_sides"] if sided else []), "rounds", "again", "earlier", "later",
                   *(["ungroup"] if grouped else []), "leave_out")  # fmt: skip

    def _figures(self, movement: Movement, segments: list[Segment]) -> None:
        """How it looks, on the sides it is done on."""
        # Nothing is chosen when the window comes on screen.
        from yewhour.ui.kit.figure_view import FigureStrip

        sides = list(dict.fromkeys(one.side for one in segments if one.side in ("left", "right")))
        strip = FigureStrip(self.theme(), FIGURE_HIGH)
        strip.show_movement(movement, sides, segments[0].use.start if segments else "")
        if strip.shown:
            self._add(strip)

    def _amount(self, step: Step, amount: int, unit: str) -> None:
        stepper = Stepper("Amount")
        stepper.show_words(f"{amount} {unit if amount != 1 else unit.rstrip('s')}")
        stepper.more.connect(self.sprig_actions.dose.more)
        stepper.less.connect(self.sprig_actions.dose.fewer)
        lock = Chips("Number", [("lock", "Keep this number", "Fitting will not change it. Drawn as a knot.")])
        lock.set_chosen(("lock",) if step.locked else ())
        lock.changed.connect(lambda _: self.sprig_actions.dose.lock())
        self.body.addLayout(wrapped(stepper, lock))

    def _manner(self, step: Step, movement: Any) -> None:
        """How it is held, and which of its ways is taught."""
        ways = [("base", "As it is", "The movement itself.")]
        ways += [("gentler", "Gentler", " ".join(movement.gentler.line[:1]))] if movement.gentler else []
        ways += [("stronger", "Stronger", " ".join(movement.stronger.line[:1]))] if movement.stronger else []
        if len(ways) > 1:
            self._one_of("Way", ways, step.take, self.sprig_actions.dose.take)
        if movement.behaviour.is_hold:
            held = [("breath", "Held by breath", ""), ("clock", "By the clock", ""),
                    ("inhale", "On one inhale", ""), ("exhale", "On one exhale", "")]  # fmt: skip
            now = step.phase or ("clock" if step.clock else "breath")
            self._one_of("Held", held, now, self.sprig_actions.dose.hold)
        if step.edits or not step.carded:
            said = [("card", "With the usual lines", "Yours, and what else there is to say of it."),
                    ("own", "My words only", "Nothing but yours, the ways, and what is minded.")]  # fmt: skip
            self._one_of("Said", said, "card" if step.carded else "own", partial(self._say, step))

    def _say(self, step: Step, key: str) -> None:
        told = "with the usual lines" if key == "card" else "in my words only"
        self._put(step, told, carded=key == "card")

    def _put(self, node: Any, title: str, **fields: Any) -> None:
        self.sprig_actions.chosen.set((node.id,), title[:1].upper() + title[1:], **fields)

    def _one_of(self, title: str, options: list[tuple[str, str, str]], now: str, choose: Any) -> None:
        chips = Chips(title, options)
        chips.set_chosen((now,))

        def chosen(keys: tuple[str, ...]) -> None:
            new = [key for key in keys if key != now]
            if new:
                choose(new[0])
            else:
                chips.set_chosen((now,))

        chips.changed.connect(chosen)
        self._add(chips)

    def _second(self, step: Step) -> None:
        """The second side: alike, or different on purpose."""
        second = step.second
        more = second.more if second else 0
        out = bool(second and second.leave_out)
        words = "left out" if out else f"{more:+d}" if more else "alike"
        stepper = Stepper("Second side")
        stepper.show_words(words)
        stepper.more.connect(lambda: self.sprig_actions.dose.differ(more + 1))
        stepper.less.connect(lambda: self.sprig_actions.dose.differ(more - 1))
        leave = Chips("Second side", [("out", "Leave it out there", "Marked as meant; no check complains.")])
        leave.set_chosen(("out",) if out else ())
        leave.changed.connect(lambda keys: self.sprig_actions.dose.differ(None if keys else 0))
        prompt = label("Second side", "prompt")
        prompt.setWordWrap(False)
        self.body.addLayout(wrapped(prompt, stepper, leave))
        if second is not None:
            why = QLineEdit(second.why)
            why.setPlaceholderText("because… (for yourself; the difference is marked as meant)")
            why.setAccessibleName("Why the second side differs")
            why.editingFinished.connect(
                lambda: (
                    self.sprig_actions.dose.differ(None if out else more, why.text().strip())
                    if why.text().strip() != second.why
                    else None
                )
            )
            self._add(why)

    def _matters(self, movement: Any) -> None:
        plan = self.session.plan
        room = self.session.teaching_data.room(plan.brief).met(movement) if plan is not None else ()
        if room:
            self._add(label(f"Mind those with: {', '.join(room)}", "prompt"))
        elif movement.cautions:
            self._add(label(f"Matters for: {', '.join(movement.cautions)}", "soft"))
        if movement.props:
            self._add(label(f"Uses: {', '.join(movement.props)}", "soft"))

    # --- groups ----------------------------------------------------------------------------------

    def _pair(self, pair: Pair) -> None:
        self._add(
            label("Both sides", "heading"),
            label(_first_up(self.sprig_actions.chosen.called(pair.id)), "soft"),
        )
        sides = [("", "As the style has it", ""), ("right", "Right first", ""), ("left", "Left first", "")]
        self._one_of("Leading side", sides, pair.lead or "", lambda side: self._put(
            pair, f"{side or 'the usual'} side first", lead=side or None))  # fmt: skip
        self._acts("rounds", "again", "earlier", "later", "ungroup", "leave_out")

    def _rounds(self, group: Rounds) -> None:
        timed = self.session.timed
        times = timed.choice.rounds.get(group.id, group.times) if timed else group.times
        self._add(
            label("Rounds", "heading"), label(_first_up(self.sprig_actions.chosen.called(group.id)), "soft")
        )
        stepper = Stepper("Rounds")
        stepper.show_words(f"{times} rounds" if times != 1 else "once")
        stepper.more.connect(self.sprig_actions.dose.more)
        stepper.less.connect(self.sprig_actions.dose.fewer)
        lock = Chips("Number", [("lock", "Keep this number", "Fitting will not change it.")])
        lock.set_chosen(("lock",) if group.locked else ())
        lock.changed.connect(lambda _: self.sprig_actions.dose.lock())
        self.body.addLayout(wrapped(stepper, lock))
        ways = [("None", "Sides as the style has it", ""), ("True", "Change sides each round", ""),
                ("False", "Same side each round", "")]  # fmt: skip
        meanings = {"None": None, "True": True, "False": False}

        def alternate(way: str) -> None:
            even = group.times + group.times % 2
            more = {"times": even, "most": max(group.most or even, even)} if way == "True" else {}
            self._put(group, "change sides each round", alternate=meanings[way], **more)

        self._one_of("Sides", ways, str(group.alternate), alternate)
        teach = [("0", "Straight into it", ""), ("1", "Teach the first round", "A breath for each movement."),
                 ("2", "Teach it slowly", "Two breaths for each.")]  # fmt: skip
        self._one_of("Teaching", teach, str(min(2, group.teach)), lambda n: self._put(
            group, "teach the first round", teach=int(n)))  # fmt: skip
        self._acts("both_sides", "again", "earlier", "later", "ungroup", "leave_out")

    # --- the class --------------------------------------------------------------------

    def _overview(self) -> None:
        session = self.session
        timed = session.timed
        self._add(label("The class", "heading"))
        if session.trouble is not None:
            self._add(label(str(session.trouble)))
        if timed is None:
            if session.trouble is None:
                self._add(label(FIRST_STEPS, "soft"))
            self._acts("new_part")
            return
        if session.refusal:
            self._add(refusal_card(session))
        shares: dict[int, int] = {}
        for segment in timed.segments:
            shares[segment.use.section] = shares.get(segment.use.section, 0) + segment.length
        parts = QWidget()
        wrap = Wrapping()
        sections = timed.plan.sections
        own = len(session.plan.sections) if session.plan else 0
        for index, ticks in shares.items():
            words = f"{sections[index].title}  {show_length(ticks / TICKS_PER_S)}"
            if index < own:
                wrap.addWidget(button(words, partial(session.pick_section, index)))
            else:
                wrap.addWidget(label(words, "soft"))
        parts.setLayout(wrap)
        self._add(parts)
        self._noticed(None)

    def _noticed(self, segments: list[str] | None) -> None:
        """What was noticed at these segments, or everywhere."""
        session = self.session
        if session.timed is None:
            return
        found = [one for one in session.timed.findings if segments is None or one.segment in segments]
        if not found:
            if segments is None and not session.refusal:
                self._add(label(_all_well(session.timed, session.lengths), "soft"))
            return
        heading = label("Noticed", "prompt")
        self._add(heading)
        for finding in found[:MOST_CARDS]:
            self._add(finding_card(session, finding))

    def _acts(self, *names: str) -> None:
        """Buttons for commands of the sprig, by their names."""
        wanted, acts = {command.name: command for command in COMMANDS}, self.sprig_actions.by_command
        box = QWidget()
        wrap = Wrapping()
        for name in names:
            command = wanted[name]
            keys = f" ({command.keys[0]})" if command.keys else ""
            if name in SEEN_BEFORE:
                press = TrialButton(self.session, command.title, partial(self.sprig_actions.try_out, name))
                press.setToolTip(f"{command.about}{keys} The sprig shows what it would do.")
                press.clicked.connect(lambda _=False, act=acts[name]: act())
                wrap.addWidget(press)
            else:
                wrap.addWidget(button(command.title, acts[name], f"{command.about}{keys}"))
        box.setLayout(wrap)
        self._add(box)


def _first_up(words: str) -> str:
    return words[:1].upper() + words[1:]


def _how_long(segments: list[Segment]) -> str:
    """How long it is done, on each side where it has sides."""
    times: dict[str, list[str]] = {}
    for one in segments:
        times.setdefault(show_length(one.length / TICKS_PER_S), []).append(one.side)
    sides = list(dict.fromkeys(one.side for one in segments if one.side in ("left", "right")))
    if len(times) == 1:
        each = " each" if len(segments) > 1 else ""
        return " ".join(filter(None, (" and ".join(sides), next(iter(times)) + each)))
    return ", ".join(f"{' and '.join(dict.fromkeys(on))} {length}" for length, on in times.items())


def _all_well(timed: TimedClass, can: LengthRange | None) -> str:
    """That there is nothing to mend, and what of the promise is kept, as it is."""
    exact = can is not None and abs(timed.length_s - can.promised_s) < 0.05
    length = "The length is exact." if exact else ""
    return " ".join(filter(None, ("Nothing to mend.", side_totals(timed.segments).told(), length)))
