"""Entry: what is said while moving into a turn, and the whole of a talk; their length is what they get."""

import re
from collections.abc import Iterator, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.plan.movement import Wordings
from yewhour.core.plan.plan import LineEdit
from yewhour.core.script.cue import GAP, Candidate
from yewhour.core.script.handwork import Spoken
from yewhour.core.script.manner import Manner, filled, from_tier, lines_of, pick
from yewhour.core.sides import fill
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.turn import Turn

BREATHER = ticks(0.3)  # at the end of what is said while moving
_LAST_PAUSE = re.compile(r"\s*\[(\d+(?:\.\d+)?)s\]\s*$")


class Entries:
    """The lines of the ways in and of the talks of one class; what was worked out once is remembered."""

    def __init__(self, manner: Manner, turns: Sequence[Turn], edits: Sequence[LineEdit]) -> None:
        self.manner = manner
        self.props = list(dict.fromkeys(prop for turn in turns for prop in turn.movement.props))
        self.first_talk = next((turn.key for turn in turns if turn.kind == "talk"), "")
        self._spoken = Spoken(edits, manner.duration)
        self._known: dict[tuple[object, ...], list[tuple[str, Wordings]]] = {}

    # --- how long they take -------------------------------------------------------------------------------

    def saying(self, turn: Turn) -> int:
        """Ticks that what is said on the way into a turn takes; all of it, for a talk."""
        added = sum(length + GAP for length in self._spoken.added(turn)) if turn.kind == "talk" else 0
        return sum(self._slots(turn)) + added + BREATHER

    def needs(self, turn: Turn) -> int:
        """Ticks that must be spoken inside a turn, at the barest."""
        if turn.kind != "hold" or not turn.flow:
            return 0
        lines = turn.movement.said("flow") or turn.movement.said("call")
        texts = (filled(line, turn) for line in lines)
        return max((min(self.manner.duration(text, "flow") for text in line) for line in texts), default=0)

    def _slots(self, turn: Turn) -> list[int]:
        """Ticks from the start of each line of a talk or a way in to the start of the next."""
        if turn.kind == "talk":
            talk = list(self._talk(turn))
            lines, pauses = [("say", text) for text, _ in talk], [pause for _, pause in talk]
        else:
            lines = [(purpose, wordings[0]) for purpose, wordings in self.entry(turn)]
            pauses = [0] * len(lines)
        lengths = self._spoken.lengths(turn, lines)
        return [length + pause + GAP if length else 0 for length, pause in zip(lengths, pauses, strict=True)]

    # --- the lines ----------------------------------------------------------------------------------------

    def into(self, index: int, segment: Segment) -> Iterator[Candidate]:
        """The lines of a way in, one after another."""
        at = segment.start
        for (purpose, wordings), room in zip(
            self.entry(segment.turn), self._slots(segment.turn), strict=True
        ):
            yield Candidate(purpose, index, segment.turn.side, wordings, at, segment.end, segment.end, at)
            at += room

    def talking(self, index: int, segment: Segment) -> Iterator[Candidate]:
        """The lines of a talk, one after another, with their pauses."""
        at = segment.start
        for (text, _), room in zip(self._talk(segment.turn), self._slots(segment.turn), strict=True):
            yield Candidate("say", index, segment.side, (text,), at, at, segment.end, at)
            at += room

    def entry(self, turn: Turn) -> list[tuple[str, Wordings]]:
        """(purpose, wordings) of the lines said while moving into a turn, in order."""
        key = (turn.step.id, turn.side, turn.lead, turn.switch, turn.seen, turn.second, min(turn.round, 3))
        if key not in self._known:
            self._known[key] = list(self._entry(turn))
        return self._known[key]

    def _entry(self, turn: Turn) -> Iterator[tuple[str, Wordings]]:
        movement, tier, wording = turn.movement, self.manner.tier(turn), self.manner.wording
        new = tier == 0
        if turn.switch:
            yield "side", filled(pick(wording.side, turn), turn, turn.lead)
        if new:
            for prop in movement.props:
                own = movement.said("prop")
                lines = own if own and prop == movement.props[0] else wording.prop
                yield "prop", filled(lines[0], turn, prop=prop)
            for line in caution_lines(self.manner, turn):
                yield "caution", filled(line, turn)
        for line in lines_of(turn, "call"):
            yield "call", from_tier(tier, filled(line, turn))
        if new:
            for purpose in ("setup", "remind"):
                for line in lines_of(turn, purpose):
                    yield purpose, filled(line, turn)
        taken = {"gentler": movement.gentler, "stronger": movement.stronger}.get(turn.step.take)
        if taken is not None and not taken.movement:
            yield "remind", from_tier(tier, filled(taken.line, turn))

    def _talk(self, turn: Turn) -> Iterator[tuple[str, int]]:
        """The lines of a talk in order, each with the silence after it in ticks."""
        brief = self.manner.brief
        words = {"title": brief.title, "audience": brief.audience or "everyone"}
        for line in lines_of(turn, "say"):
            text = fill(line[0], turn.side, **words)
            pause = _LAST_PAUSE.search(text)
            yield _LAST_PAUSE.sub("", text), ticks(float(pause.group(1))) if pause else 0
        if self.props and turn.key == self.first_talk:
            props = _listed(self.props)
            yield fill(self.manner.wording.props_opening[0][0], turn.side, props=props), 0


def caution_lines(manner: Manner, turn: Turn) -> tuple[Wordings, ...]:
    """What is said before a movement that somebody who may be in the room is cautioned for.

    Its caution line, or else the line of its gentler way; nothing when nobody is.
    """
    movement = turn.movement
    met = [tag for tag in movement.cautions if tag in manner.brief.cautions]
    lines = lines_of(turn, "caution") or ((movement.gentler.line,) if movement.gentler else ())
    if not met or not lines:
        return ()
    whom = manner.cautions.get(met[0], met[0])
    return tuple(tuple(_spoken_to(manner, whom, text) for text in line) for line in lines)


def _spoken_to(manner: Manner, whom: str, text: str) -> str:
    """The line said to those it is for, unless it says so itself."""
    if " if " in f" {text.lower()}" or text.startswith("{"):
        return text
    return fill(manner.wording.caution[0][0], "both", whom=whom, line=text[0].lower() + text[1:])


def _listed(words: Sequence[str]) -> str:
    """`a, b and c`."""
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 1 else list(words))
