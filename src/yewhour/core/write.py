"""Write: the lines that could be said for every segment, with the windows they belong in.

`entry` is what is said while moving into a turn; its length makes the set-up, so it always fits.
Counts and times to go are made from the fitted numbers, so they are always true.
"""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence

from yewhour.core.cue import Candidate
from yewhour.core.handwork import Spoken
from yewhour.core.layout import Segment, Span
from yewhour.core.lengths import seconds, ticks
from yewhour.core.movement import Wordings, parse_wordings
from yewhour.core.place import GAP, Duration
from yewhour.core.plan import Brief, LineEdit
from yewhour.core.school import School
from yewhour.core.sides import Side, fill
from yewhour.core.unfold import Turn
from yewhour.core.wording import Wording

LEAD = ticks(1.0)  # a line for a phase may start this long before it
BREATHER = ticks(0.3)  # at the end of what is said while moving
NumberWord = Callable[[int], str]
_LAST_PAUSE = re.compile(r"\s*\[(\d+(?:\.\d+)?)s\]\s*$")


class Writer:
    """Writes the candidates of one class."""

    def __init__(
        self,
        brief: Brief,
        school: School,
        wording: Wording,
        cautions: Mapping[str, str],
        number_word: NumberWord,
        props: Sequence[str],
        duration: Duration,
        edits: Sequence[LineEdit] = (),
    ) -> None:
        self.brief = brief
        self.school = school
        self.wording = wording
        self.cautions = cautions
        self.number_word = number_word
        self.props = props
        self.first_talk = ""  # key of the talk that announces the props; the maker says which
        self.duration = duration
        self.spoken = Spoken(edits, duration)
        self._entries: dict[tuple[object, ...], list[tuple[str, Wordings]]] = {}

    # --- what is said on the way in ---

    def entry(self, turn: Turn) -> list[tuple[str, Wordings]]:
        """(purpose, wordings) of the lines said while moving into a turn, in order."""
        key = (turn.step.id, turn.side, turn.lead, turn.switch, turn.seen, turn.second, min(turn.round, 3))
        if key not in self._entries:
            self._entries[key] = list(self._entry(turn))
        return self._entries[key]

    def _entry(self, turn: Turn) -> Iterator[tuple[str, Wordings]]:
        movement, tier = turn.movement, self._tier(turn)
        new = tier == 0
        if turn.switch:
            yield "side", self._filled(self._pick(self.wording.side, turn), turn, turn.lead)
        if new:
            for prop in movement.props:
                own = movement.said("prop")
                lines = own if own and prop == movement.props[0] else self.wording.prop
                yield "prop", self._filled(lines[0], turn, prop=prop)
            for line in self._caution(turn):
                yield "caution", self._filled(line, turn)
        for line in self._lines(turn, "call"):
            yield "call", self._from(tier, self._filled(line, turn))
        if new:
            for line in self._lines(turn, "setup"):
                yield "setup", self._filled(line, turn)
            for line in self._lines(turn, "remind"):
                yield "remind", self._filled(line, turn)
        taken = {"gentler": movement.gentler, "stronger": movement.stronger}.get(turn.step.take)
        if taken is not None and not taken.movement:
            yield "remind", self._from(tier, self._filled(taken.line, turn))

    def _caution(self, turn: Turn) -> tuple[Wordings, ...]:
        """What is said before a movement that somebody who may be in the room is cautioned for.

        Its caution line, or else the line of its gentler way; nothing when nobody is.
        """
        movement = turn.movement
        met = [tag for tag in movement.cautions if tag in self.brief.cautions]
        lines = self._lines(turn, "caution") or ((movement.gentler.line,) if movement.gentler else ())
        if not met or not lines:
            return ()
        whom = self.cautions.get(met[0], met[0])
        return tuple(tuple(self._spoken_to(whom, text) for text in line) for line in lines)

    def _spoken_to(self, whom: str, text: str) -> str:
        """The line said to those it is for, unless it says so itself."""
        if " if " in f" {text.lower()}" or text.startswith("{"):
            return text
        return fill(self.wording.caution[0][0], "both", whom=whom, line=text[0].lower() + text[1:])

    def saying(self, turn: Turn) -> int:
        """Ticks that what is said on the way into a turn takes; all of it, for a talk."""
        added = sum(length + GAP for length in self.spoken.added(turn)) if turn.kind == "talk" else 0
        return sum(self._slots(turn)) + added + BREATHER

    def _slots(self, turn: Turn) -> list[int]:
        """Ticks from the start of each line of a talk or a way in to the start of the next."""
        if turn.kind == "talk":
            talk = list(self._talk(turn))
            lines, pauses = [("say", text) for text, _ in talk], [pause for _, pause in talk]
        else:
            lines = [(purpose, wordings[0]) for purpose, wordings in self.entry(turn)]
            pauses = [0] * len(lines)
        lengths = self.spoken.lengths(turn, lines)
        return [length + pause + GAP if length else 0 for length, pause in zip(lengths, pauses, strict=True)]

    def needs(self, turn: Turn) -> int:
        """Ticks that must be spoken inside a turn, at the barest."""
        if turn.kind != "hold" or not turn.flow:
            return 0
        lines = turn.movement.said("flow") or turn.movement.said("call")
        return max((self._barest(self._filled(line, turn), "flow") for line in lines), default=0)

    # --- what is said in a class ---

    def candidates(self, segments: Sequence[Segment]) -> list[Candidate]:
        """Every line that could be said, in the order of the segments."""
        found: list[Candidate] = []
        entered: set[str] = set()
        waiting = dict(self._ways())
        for index, segment in enumerate(segments):
            turn = segment.turn
            if segment.kind == "setup":
                if turn.step.phase is None:
                    entered.add(turn.setup_for)
                    found += self._into(index, segment)
                continue
            if segment.kind == "talk":
                found += self._talking(index, segment)
                continue
            called = segment.id in entered
            if turn.flow and (segment.kind == "phase" or not called):
                found += self._flowing(index, segment, segments, called)
            for way in [way for way in waiting if self._suits(way, segment)]:
                found.append(self._way_line(index, segment, waiting.pop(way)))
            found += self._body(index, segment)
            found += self._counts(index, segment)
        return found

    # --- the school's ways of breathing and lying, said once ---

    def _ways(self) -> Iterator[tuple[str, Wordings]]:
        breathing = {"nose": self.wording.breathe_nose, "nose and mouth": self.wording.breathe_nose_and_mouth}
        if self.school.breathe_by in breathing:
            yield "breathe", breathing[self.school.breathe_by][0]
        pelvis = {"neutral": self.wording.pelvis_neutral, "imprint": self.wording.pelvis_imprint}
        if self.school.pelvis in pelvis:
            yield "pelvis", pelvis[self.school.pelvis][0]
        if self.school.mirror:
            yield "mirror", self.wording.mirror[0]

    def _suits(self, way: str, segment: Segment) -> bool:
        """Whether a segment is the one to say a way in: the first that it matters for."""
        if segment.kind not in ("hold", "clock", "cycles", "reps"):
            return False
        if way == "pelvis":
            return segment.kind == "reps" and segment.turn.movement.start == "supine"
        return way != "mirror" or segment.side in ("left", "right")

    def _way_line(self, index: int, segment: Segment, line: Wordings) -> Candidate:
        low, high = segment.start + GAP, segment.end - GAP
        return Candidate("align", index, segment.side, line, low, high, high, low, True, 20)

    def _into(self, index: int, segment: Segment) -> Iterator[Candidate]:
        at = segment.start
        slots = self._slots(segment.turn)
        for (purpose, wordings), room in zip(self.entry(segment.turn), slots, strict=True):
            yield Candidate(purpose, index, segment.turn.side, wordings, at, segment.end, segment.end, at)
            at += room

    def _talk(self, turn: Turn) -> Iterator[tuple[str, int]]:
        """The lines of a talk in order, each with the silence after it in ticks."""
        for line in self._lines(turn, "say"):
            text = fill(line[0], turn.side, **self._brief_words())
            pause = _LAST_PAUSE.search(text)
            yield _LAST_PAUSE.sub("", text), ticks(float(pause.group(1))) if pause else 0
        if self.props and turn.key == self.first_talk:
            yield fill(self.wording.props_opening[0][0], turn.side, props=_listed(self.props)), 0

    def _talking(self, index: int, segment: Segment) -> Iterator[Candidate]:
        at = segment.start
        for (text, _), room in zip(self._talk(segment.turn), self._slots(segment.turn), strict=True):
            yield Candidate("say", index, segment.side, (text,), at, at, segment.end, at)
            at += room

    def _flowing(
        self, index: int, segment: Segment, segments: Sequence[Segment], called: bool
    ) -> Iterator[Candidate]:
        turn = segment.turn
        breath = str(turn.step.phase or turn.movement.enter or "")
        lines = turn.movement.said("flow") or turn.movement.said("call")
        tier = 0 if turn.taught else max(self._tier(turn), min(turn.round - 1, 2), int(called))
        # The next phase's line may start a lead before it; this one is over by then.
        end_by = segment.end - LEAD // 2 - GAP if segment.kind == "phase" else segment.end
        for line in lines[:1]:
            wordings = self._from(tier, self._filled(line, turn, breath=breath))
            aim = segment.start - LEAD // 2
            yield Candidate(
                "flow",
                index,
                segment.side,
                wordings,
                max(0, segment.start - LEAD),
                segment.start,
                end_by,
                max(0, aim),
            )
        before = segments[index - 1].turn if index else None
        if before is not None and turn.second != before.second and turn.flow == before.flow:
            # In a flow the sided movements name their side anyway, so this one is spare.
            side = self._filled(self._pick(self.wording.side, turn), turn, turn.lead)
            start, end = max(0, segment.start - ticks(4.0)), segment.start - LEAD // 2 - GAP
            aim = max(start, end - self.duration(side[-1], "side"))
            yield Candidate("side", index, turn.lead, side[::-1], start, end, end, aim, spare=True)

    # --- the body ---

    def _body(self, index: int, segment: Segment) -> Iterator[Candidate]:
        turn, movement = segment.turn, segment.turn.movement
        if segment.kind == "phase" and not turn.taught:
            return
        tier = self._tier(turn)
        low, high = segment.start + GAP, segment.end - GAP
        if segment.kind == "hold" and segment.amount >= 3:
            high = segment.end - turn.unit  # the last breath is for the last breath's own lines
        middle = (low + high) // 2
        purposes = ("rest",) if segment.kind == "stillness" else ("align", "stay")
        lines = [(purpose, line) for purpose in purposes for line in self._lines(turn, purpose)]
        if tier and len(lines) > 1:  # start elsewhere in the list than the first time
            lines = lines[1:] + lines[:1]
        if tier == 0 and turn.step.offer and turn.step.take == "base":
            gentler = None if self._caution(turn) else movement.gentler
            options = [option for option in (gentler, movement.stronger) if option is not None]
            lines[1:1] = [("option", option.line) for option in options]
        for number, (purpose, line) in enumerate(lines):
            wordings = self._from(tier, self._filled(line, turn))
            yield Candidate(purpose, index, segment.side, wordings, low, high, high, middle, True, -number)
        if movement.said("exit") and segment.kind in ("hold", "clock", "counted"):
            wordings = self._from(tier, self._filled(movement.said("exit")[0], turn))
            start = max(low, segment.end - ticks(5.0))
            yield Candidate(
                "exit", index, segment.side, wordings, start, segment.end, segment.end, segment.end
            )

    def _breath_words(self, index: int, segment: Segment) -> Iterator[Candidate]:
        """The words of each phase, for the first two repetitions."""
        turn = segment.turn
        spans = segment.spans
        if not spans:
            return
        per_one = max(1, len(spans) // max(1, segment.amount))
        shown = spans[: 2 * per_one]
        if turn.movement.stages:  # each stage is new
            lengths = [len(rhythm) for rhythm in turn.movement.stages]
            starts = [sum(lengths[:stage]) * segment.amount for stage in range(len(lengths))]
            shown = tuple(span for at, n in zip(starts, lengths, strict=True) for span in spans[at : at + n])
        for number, span in enumerate(shown):
            lines = turn.movement.said(f"on_{span.beat}") or turn.movement.said(f"on_{span.phase}")
            if not lines:
                continue
            line = self._filled(
                lines[(number // per_one) % len(lines)], turn, breath=span.phase, n=self._seconds_word(span)
            )
            wordings = self._from(self._tier(turn) if number < per_one else 1, line)
            yield Candidate(
                "breath",
                index,
                segment.side,
                wordings,
                max(segment.start, span.start - LEAD),
                span.start + GAP,
                span.end,
                max(segment.start, span.start - GAP),
            )

    def _seconds_word(self, span: Span) -> str:
        return self.number_word(round(seconds(span.end - span.start)))

    # --- counts and times ---

    def _counts(self, index: int, segment: Segment) -> Iterator[Candidate]:
        turn = segment.turn
        if segment.kind in ("hold", "reps", "cycles", "pulses"):
            yield from self._breath_words(index, segment)
        if turn.step.halves and segment.amount >= 2:
            middle = (segment.start + segment.end) // 2
            lines = turn.movement.said("half") or self.wording.change_half
            wordings = self._filled(lines[0], turn)
            yield Candidate(
                "half", index, segment.side, wordings, middle - LEAD, middle + LEAD, segment.end, middle - GAP
            )
        if segment.kind in ("clock", "rapid"):
            yield from self._times(index, segment)
        elif segment.amount and turn.unit and segment.kind != "stillness":
            yield from self._numbers(index, segment)

    def _times(self, index: int, segment: Segment) -> Iterator[Candidate]:
        length = segment.length
        for left_s, line in (
            (120, self.wording.minutes_left),
            (60, self.wording.one_minute_left),
            (30, self.wording.half_minute_left),
            (10, self.wording.ten_seconds_left),
        ):
            if length >= ticks(left_s) * 3 // 2 and not (left_s == 10 and length >= ticks(90)):
                at = segment.end - ticks(left_s)
                wordings = self._filled(line[0], segment.turn, n=self.number_word(left_s // 60))
                yield self._count("time", index, segment, wordings, at, ticks(1.5))

    def _numbers(self, index: int, segment: Segment) -> Iterator[Candidate]:
        amount, unit, kind = segment.amount, segment.turn.unit, segment.kind
        more, last = {
            "hold": (self.wording.more_breaths, self.wording.last_breath),
            "cycles": (self.wording.more_cycles, self.wording.last_cycle),
        }.get(kind, (self.wording.more_reps, self.wording.last_rep))
        countdown = segment.turn.step.countdown
        counting = self.school.counting if kind in ("reps", "pulses") else "last three"
        for left in range(amount, 0, -1):
            number = amount - left + 1
            at = segment.end - left * unit
            words: Wordings | None = None
            if left <= countdown or (kind == "counted" and left <= 10):
                words = (f"{self.number_word(left).capitalize()}.",)
            elif counting == "silent" and left > 1:
                continue
            elif left == 1 and amount >= 3:
                words = self._filled(last[0], segment.turn)
            elif unit < ticks(1.5):
                words = (f"{self.number_word(left).capitalize()}.",) if left % 10 == 0 else None
            elif left == 2 and amount >= (5 if kind == "hold" else 4):
                words = self._filled(self._pick(more, segment.turn), segment.turn, n=self.number_word(left))
            elif kind == "reps" and number > 2 and counting in ("up", "down"):
                words = (f"{self.number_word(number if counting == 'up' else left).capitalize()}.",)
            elif left == 3 and kind == "reps" and counting == "last three" and amount >= 6:
                words = self._filled(self._pick(more, segment.turn), segment.turn, n=self.number_word(left))
            if words is not None:
                yield self._count("count", index, segment, words, at, min(LEAD, unit // 4))

    def _count(
        self, purpose: str, index: int, segment: Segment, wordings: Wordings, at: int, slip: int
    ) -> Candidate:
        earliest = max(segment.start, at - slip)
        return Candidate(
            purpose, index, segment.side, wordings, earliest, at + slip, segment.end, max(earliest, at - GAP)
        )

    # --- wordings ---

    def _tier(self, turn: Turn) -> int:
        """0 for the full wording, 1 for the short one: second side, later rounds, seen before."""
        if turn.taught:
            return 0
        if turn.second and self.school.second_side == "full" and turn.round <= 2:
            return 0
        return 1 if turn.second or turn.seen or turn.round > 1 else 0

    def _from(self, tier: int, wordings: Wordings) -> Wordings:
        """The wordings from this tier down to the bare one, then the fuller ones."""
        tier = min(tier, len(wordings) - 1)
        return wordings[tier:] + wordings[:tier][::-1]

    def _lines(self, turn: Turn, purpose: str) -> tuple[Wordings, ...]:
        """A step's own lines for a purpose, or else its movement's."""
        own = turn.step.lines.get(purpose)
        return tuple(parse_wordings(text) for text in own) if own is not None else turn.movement.said(purpose)

    def _filled(self, line: Wordings, turn: Turn, side: Side | None = None, **words: str) -> Wordings:
        return tuple(fill(text, side or turn.side, name=turn.name, **words) for text in line)

    def _pick(self, lines: tuple[Wordings, ...], turn: Turn) -> Wordings:
        """One of several lines, always the same one for a place in the class."""
        return lines[turn.node % len(lines)]

    def _brief_words(self) -> dict[str, str]:
        return {"title": self.brief.title, "audience": self.brief.audience or "everyone"}

    def _barest(self, line: Wordings, purpose: str) -> int:
        return min(self.duration(text, purpose) for text in line)


def _listed(words: Sequence[str]) -> str:
    """`a, b and c`."""
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 1 else list(words))
