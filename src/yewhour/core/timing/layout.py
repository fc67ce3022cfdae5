"""Lay out: uses with their numbers become segments with their breath phases on the clock."""

from collections.abc import Iterator, Sequence

import msgspec

from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.kinds import BEHAVIOURS, Kind, StepKind
from yewhour.core.pace import Phase, breath_ticks, phase_ticks
from yewhour.core.plan.school import School, breath_of
from yewhour.core.sides import Side
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.numbers import PAUSE
from yewhour.core.timing.step_use import StepUse


class PhaseSpan(msgspec.Struct, frozen=True, gc=False):
    """One phase on the clock, in ticks. `beat` is the phase, or effort or ease as the rhythm has it."""

    phase: Phase
    start: int
    end: int
    beat: str = ""


class Segment(msgspec.Struct, frozen=True, gc=False):
    """A use with its place in time, in ticks. `amount` is in the unit of its kind, 0 for none.

    attempt: which of those that were tried and gone back from in a take, 0 for one that counts.
    """

    id: str
    use: StepUse
    name: str
    section: str
    kind: Kind
    side: Side
    start: int
    end: int
    amount: int = 0
    spans: tuple[PhaseSpan, ...] = ()
    attempt: int = 0

    @property
    def is_closing_pause(self) -> bool:
        """Whether it is what is left of a class that ends without a stillness."""
        return self.use.key == PAUSE

    @property
    def behaviour(self) -> StepKind:
        """How its kind behaves."""
        return BEHAVIOURS[self.kind]

    @property
    def length(self) -> int:
        """Ticks it lasts."""
        return self.end - self.start

    @property
    def breaths(self) -> int | None:
        """Whole breaths, for a step held by breath."""
        return self.amount if self.behaviour.is_hold else None

    @property
    def reps(self) -> int | None:
        """Whole repetitions, pulses, cycles or counts, for a step that has them."""
        return self.amount if self.behaviour.lasts in ("rhythm", "count") else None

    @property
    def dose(self) -> str:
        """What it has, as `5 breaths` or `0:45`."""
        unit = self.behaviour.unit
        if not unit or unit == "seconds" or not self.amount:
            return show_length(seconds(self.length))
        return f"{self.amount} {unit if self.amount != 1 else unit.rstrip('s')}"


def lay_out(
    uses: Sequence[StepUse],
    choice: FittedNumbers,
    slack_key: str,
    titles: Sequence[str],
    school: School,
    start: int = 0,
) -> tuple[Segment, ...]:
    """The segments of a class, without gap or overlap, from its start to its end in ticks."""
    segments: list[Segment] = []
    now = start
    for use in uses:
        amount = choice.amounts.get(use.number, 0) if use.unit else 0
        # The slack is chosen in ticks, everything else in its own unit.
        slack = use.number == slack_key
        length = use.fixed + (amount if slack else amount * use.unit)
        if use.span is None or use.setup_for:  # else the number is given, whatever is left over
            amount = length // use.unit if use.unit else 0
        if length <= 0:
            continue
        spans = phase_spans(use, now, length, amount, school)
        name = f"into {use.name}" if use.setup_for else use.name
        segments.append(
            Segment(
                use.key,
                use,
                name,
                titles[use.section],
                use.kind,
                use.side,
                now,
                now + length,
                amount,
                spans,
            )
        )
        now += length
    if segments and choice.amounts.get(PAUSE):
        last = segments[-1]
        segments.append(closing_pause(last, choice.amounts[PAUSE]))
    return tuple(segments)


def phase_spans(use: StepUse, start: int, length: int, amount: int, school: School) -> tuple[PhaseSpan, ...]:
    """The phases of a use that begins at a tick and lasts so many, with so many of its unit."""
    return tuple(_spans(use, start, length, amount, school))


def _spans(use: StepUse, start: int, length: int, amount: int, school: School) -> Iterator[PhaseSpan]:
    whole = use.behaviour.is_setup and use.step.phase and length == breath_ticks(use.pace)
    if whole or use.behaviour.is_hold or use.taught:
        breaths = 1 if whole else use.taught or amount
        for breath in range(breaths):
            at = start + breath * (length // breaths)
            for phase, span in _one_breath(use):
                if span:
                    yield PhaseSpan(phase, at, at + span)
                at += span
    elif use.behaviour.is_phase or (use.behaviour.is_setup and use.step.phase):
        yield from _holding(str(use.step.phase), use, start, length)
    elif use.behaviour.rhythmic and amount:
        yield from _rhythm(use, start, amount, school)


def _one_breath(use: StepUse) -> list[tuple[Phase, int]]:
    inhale, full, exhale, empty = phase_ticks(use.pace)
    breath: list[tuple[Phase, int]] = [
        ("inhale", inhale),
        ("full", full),
        ("exhale", exhale),
        ("empty", empty),
    ]
    first = use.step.phase if use.behaviour.is_setup else "inhale" if use.taught else use.movement.enter
    return breath[2:] + breath[:2] if first == "exhale" else breath


def _holding(phase: str, use: StepUse, start: int, length: int) -> Iterator[PhaseSpan]:
    """One phase and the hold after it."""
    inhale, _, exhale, _ = phase_ticks(use.pace)
    breath = min(length, inhale if phase == "inhale" else exhale)
    if phase == "inhale":
        yield PhaseSpan("inhale", start, start + breath)
        hold: Phase = "full"
    else:
        yield PhaseSpan("exhale", start, start + breath)
        hold = "empty"
    if length > breath:
        yield PhaseSpan(hold, start + breath, start + length)


def _rhythm(use: StepUse, start: int, amount: int, school: School) -> Iterator[PhaseSpan]:
    rhythms = use.movement.stages or (use.movement.rhythm,)
    whole = sum(counts for rhythm in rhythms for _, counts in rhythm)
    count = use.unit / whole
    at = 0.0
    for rhythm in rhythms:
        for _ in range(amount):
            for beat, counts in rhythm:
                end = at + counts * count
                yield PhaseSpan(breath_of(beat, school), start + round(at), start + round(end), beat)
                at = end


def closing_pause(last: Segment, length: int) -> Segment:
    """The closing pause: what is left of a class that ends without a stillness."""
    use = msgspec.structs.replace(
        last.use, key=PAUSE, kind="stillness", name="Pause", side="both", pair="", setup_for="", blocks=()
    )
    end = last.end + length
    return Segment(use.key, use, "Pause", last.section, "stillness", "both", last.end, end)
