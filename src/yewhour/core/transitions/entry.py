"""Entry: what is said between two turns, and the whole of a talk; their length is what they get.

In this order: out of what was before, the other side, the props, the way across, then the movement itself:
named and called, its caution, how it is set up.
"""

from collections.abc import Iterator, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.library.movement import Wordings
from yewhour.core.library.names import listed
from yewhour.core.library.position import START, PositionChange, base_of
from yewhour.core.plan.plan import LineEdit
from yewhour.core.sides import fill, mirrored
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.ways import (
    FURNITURE,
    prop_noun,
    props_put_away,
    same_posture,
    takes_props_again,
)
from yewhour.core.wording.cautions import caution_lines, spoken_for
from yewhour.core.wording.own_words import OwnLineLengths
from yewhour.core.wording.phrasing import (
    PAUSE_MARK,
    Phrasing,
    filled_line,
    from_tier,
    lines_of,
    pattern_words,
    pick_line,
    with_name,
)
from yewhour.core.wording.speech import GAP

BREATHER = ticks(0.5)  # at the end of what is said while moving
PLACED = {"bolster", "cushion"}  # lies on the side it is used on
LONGEST_QUIET = "seventy-seven minutes"  # what the line that promises quiet has room for
EntryLine = tuple[str, Wordings]


class EntryLines:
    """The lines of the ways in and of the talks of one class; what was worked out once is remembered."""

    def __init__(self, manner: Phrasing, turns: Sequence[StepUse], edits: Sequence[LineEdit]) -> None:
        self.manner = manner
        self.props = list(dict.fromkeys(prop for turn in turns for prop in turn.movement.props))
        self.first_talk = next((turn.key for turn in turns if turn.kind == "talk"), "")
        self._spoken = OwnLineLengths(edits, manner.duration)
        self._known: dict[tuple[object, ...], list[EntryLine]] = {}
        self._spoken_for = dict(reversed(list(spoken_for(manner.brief.cautions, turns))))  # the first of each

    # --- how long they take -------------------------------------------------------------------------------

    def saying(self, before: StepUse | None, turn: StepUse) -> int:
        """Ticks that what is said on the way from one turn into another takes; 0 for nothing."""
        slots = self.slots(turn, self.entry(before, turn))
        return sum(slots) + BREATHER if slots else 0

    def speaking(self, turn: StepUse) -> int:
        """Ticks that the lines of a talk, or of a set-up of the plan's own, take."""
        added = sum(length + GAP for length in self._spoken.added(turn))
        slots = self.slots(turn, self.own(turn), [pause for _, pause in self.talk(turn)])
        return sum(slots) + added + BREATHER

    def needs(self, turn: StepUse) -> int:
        """Ticks that must be spoken inside a turn, at the barest."""
        if turn.kind != "hold" or not turn.flow:
            return 0
        lines = lines_of(turn, "flow") or lines_of(turn, "call")
        texts = (filled_line(line, turn) for line in lines)
        return max((min(self.manner.duration(text, "flow") for text in line) for line in texts), default=0)

    def slots(self, turn: StepUse, lines: Sequence[EntryLine], pauses: Sequence[int] = ()) -> list[int]:
        """Ticks from the start of each line to the start of the next."""
        lengths = self._spoken.lengths(turn, [(purpose, wordings[0]) for purpose, wordings in lines])
        pauses = pauses or [0] * len(lines)
        return [length + pause + GAP if length else 0 for length, pause in zip(lengths, pauses, strict=True)]

    # --- the lines ----------------------------------------------------------------------------------------

    def own(self, turn: StepUse) -> list[EntryLine]:
        """The lines of a talk, or of a set-up of the plan's own."""
        if turn.kind == "talk":
            return [("say", (text,)) for text, _ in self.talk(turn)]
        return [*self._called(turn), *self._cautions(turn), *self._set_up(turn)]

    def entry(self, before: StepUse | None, turn: StepUse) -> list[EntryLine]:
        """(purpose, wordings) of the lines said between two turns, in order."""
        come_from = (
            (before.end, before.stayed, before.mat, before.movement.id, before.side) if before else (START,)
        )
        key = (*come_from, turn.step.id, turn.needed, turn.side, turn.lead, turn.switch, turn.seen,
               turn.second, turn.recalled, turn.place, min(turn.round, 3))  # fmt: skip
        if key not in self._known:
            self._known[key] = list(self._entry(before, turn))
        return self._known[key]

    def _entry(self, before: StepUse | None, turn: StepUse) -> Iterator[EntryLine]:
        if turn.step.or_stay and before is not None:
            yield (
                "option",
                filled_line(pick_line(self.manner.wording.go_or_stay, turn), turn, place=before.name),
            )
        yield from self._leaving(before, turn)
        for prop in props_put_away(before, turn):
            yield "prop", filled_line(pick_line(self.manner.wording.prop_away, turn), turn, prop=prop)
        if before is not None and before.stayed:
            for change in self.manner.positions.way(before.end, before.stayed).changes:
                yield "way", change.say
            yield "remind", pick_line(self.manner.wording.together, turn)
        if turn.switch:
            yield "side", filled_line(pick_line(self._side_lines(before, turn), turn), turn)
        tier = self.manner.tier(turn)
        talk = turn.movement.kind in ("talk", "setup")
        if (tier == 0 or takes_props_again(before, turn)) and not talk:
            yield from self._props(before, turn)
        elif turn.switch and (moved := set(turn.movement.props) & PLACED):
            yield "prop", filled_line(pick_line(self.manner.wording.prop_moved, turn), turn, prop=min(moved))
        round_first = base_of(before.end if before else START) != "folded"  # or else when one stands again
        if round_first:
            yield from self._turned(before, turn)
        frames, told = self.manner.voice.way, self.manner.told(turn)
        for number, change in enumerate(self._changes(before, turn)):
            words = from_tier(told, change.say)
            yield "way", words if number or told else self.manner.voiced(frames, words, turn.place, 2)
        if not round_first:
            yield from self._turned(before, turn)
        if not talk:
            yield from self._called(turn)
            yield from self._cautions(turn)
            yield from self._set_up(turn)

    def _side_lines(self, before: StepUse | None, turn: StepUse) -> tuple[Wordings, ...]:
        """How a change of side is said: `left side` would mislead who lies on the right."""
        lying = base_of(turn.needed)
        if lying != f"on-{mirrored(turn.side)}":
            return self.manner.wording.side
        there = before is not None and base_of(before.stayed or before.end) == lying
        return self.manner.wording.side_on_top_already if there else self.manner.wording.side_uppermost

    def _changes(self, before: StepUse | None, turn: StepUse) -> Sequence[PositionChange]:
        """The changes of position from where all are into a turn."""
        here = (before.stayed or before.end) if before else START
        return self.manner.positions.way(here, turn.needed).changes

    def _turned(self, before: StepUse | None, turn: StepUse) -> Iterator[EntryLine]:
        """Turning to the other end of the mat, where one stands and no words of the plan's own did it."""
        own = turn.movement.kind in ("talk", "setup") or (before is not None and before.kind == "setup")
        if not own and _mat(turn) != _mat(before) and base_of(turn.start) not in self.manner.positions.floor:
            lines = self.manner.wording.mat_back if turn.mat == "back" else self.manner.wording.mat_front
            yield "way", pick_line(lines, turn)

    def _leaving(self, before: StepUse | None, turn: StepUse) -> Iterator[EntryLine]:
        """How what was before is left: its own words, where what comes next is not entered from within it."""
        if before is None or before.kind in ("talk", "phase", "setup") or same_posture(before, turn):
            return
        if before.movement.id in turn.movement.follows and before.side == turn.side:
            return
        exits = lines_of(before, "exit")[:1]
        for line in exits:
            yield "exit", from_tier(self.manner.tier(before), filled_line(line, before))
        if not exits and before.kind in ("reps", "pulses", "counted", "cycles", "rapid"):
            yield "exit", pick_line(self.manner.voice.ended, before)

    def _props(self, before: StepUse | None, turn: StepUse) -> Iterator[EntryLine]:
        """What is to be taken up now: not what is in use already."""
        own = lines_of(turn, "prop")
        in_use = before is not None and set(turn.movement.props) <= set(before.movement.props)
        if in_use or (turn.second and not takes_props_again(before, turn)):
            own = own if turn.step.lines.get("prop") and not turn.second else ()
            if not own:
                return
        first = turn.movement.props[0] if turn.movement.props else ""
        said = [filled_line(line, turn, prop=first) for line in own]
        for line in said:
            yield "prop", line
        named_already = " ".join(line[0].lower() for line in said)
        for prop in turn.movement.props:
            there = prop in FURNITURE
            if not (prop_noun(prop) in named_already or (there and prop == base_of(turn.needed))):
                lines = self.manner.wording.prop_there if there else self.manner.wording.prop
                yield "prop", filled_line(pick_line(lines, turn), turn, prop=prop)

    def _called(self, turn: StepUse) -> Iterator[EntryLine]:
        tier, lines = self.manner.told(turn), lines_of(turn, "call")
        if turn.step.pattern is not None and "call" not in turn.step.lines:
            counts = pattern_words(self.manner, turn)
            lines = ((f"Breathe {counts}", f"{counts[0].upper()}{counts[1:]}"),)
        for number, line in enumerate(lines):
            words = filled_line(line, turn)
            yield "call", with_name(self.manner, turn, from_tier(tier, words)) if number == 0 else words

    def _cautions(self, turn: StepUse) -> Iterator[EntryLine]:
        if self.manner.tier(turn) == 0:
            for line in caution_lines(self.manner, turn, again=self._spoken_for.get(turn.step.id, False)):
                yield "caution", filled_line(line, turn)

    def _set_up(self, turn: StepUse) -> Iterator[EntryLine]:
        tier, movement = self.manner.told(turn), turn.movement
        if tier == 0:
            for purpose in ("setup", "remind"):
                for line in lines_of(turn, purpose):
                    yield purpose, filled_line(line, turn)
        if turn.kind == "rapid" and tier == 0:
            stroke_s = turn.step.count_s or movement.count_s or 1.0
            n = self.manner.number_word(round(10 / stroke_s))
            yield "setup", filled_line(pick_line(self.manner.wording.tempo, turn), turn, n=n)
        if turn.kind == "counted" and tier == 0:  # announced, so that the numbers come as no surprise
            yield "remind", pick_line(self.manner.wording.count_announced, turn)
        taken = {"gentler": movement.gentler, "stronger": movement.stronger}.get(turn.step.take)
        if taken is not None and not taken.movement:
            yield "remind", from_tier(tier, filled_line(taken.line, turn))

    def talk(self, turn: StepUse) -> Iterator[tuple[str, int]]:
        """The lines of a talk in order, each with the silence after it in ticks."""
        if turn.kind != "talk":
            return
        brief = self.manner.brief
        words = {"title": brief.title, "audience": brief.audience or "everyone", "quiet": LONGEST_QUIET}
        for line in lines_of(turn, "say"):
            # The text, a pause in seconds, the text after it, and so on.
            said, *more = PAUSE_MARK.split(fill(line[0], turn.side, **words))
            for pause, after in zip([*more[::2], "0"], [*more[1::2], ""], strict=True):
                if said.strip():
                    yield said.strip(), ticks(float(pause))
                said = after
        if self.props and turn.key == self.first_talk:
            props = listed(self.props)
            yield fill(self.manner.wording.props_opening[0][0], turn.side, props=props), 0


def _mat(turn: StepUse | None) -> str:
    """The end of the mat that is faced: the front, unless something else is said."""
    return (turn.mat if turn is not None else "") or "front"
