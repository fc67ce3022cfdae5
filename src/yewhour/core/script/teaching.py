"""Teaching: what a movement with a card says while it is done: in which order, how far apart, and how much
quiet.

A hold of three breaths has room for what it is for; a longer one for a check and a picture; from a minute on
talk comes in islands, with two thirds of it quiet. A set is talked through once, then works, and hears one
thing early and one late. A second side compares, or goes a step deeper. No thought comes twice in a class.
"""

from collections.abc import Callable, Iterator, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.library.card import LISTS, Card, conditioned
from yewhour.core.script.cue import LEAD, Candidate
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.passage import READING, begins_with, first_line, in_the_dose, is_described_while
from yewhour.core.wording.phrasing import Phrasing, about_as_long, filled_line
from yewhour.core.wording.speech import GAP

SHORT, MIDDLE, LONG = ticks(18), ticks(35), ticks(60)  # holds: one thought, two, three; from then on islands
SETTLE = ticks(3)  # before the first thought of a hold
APART = ticks(5.5)  # from the end of one thought to the next
HARD = 3  # effort, of a place in a flow that is told with another way
TAUGHT_AT = ticks(4.5)  # into a breath that is taught, when its own line is over
ISLAND = ticks(38)  # and of one island to the next
SILENT = ticks(70)  # so long a silence is told before it
REST_THOUGHTS = ticks(75)  # a rest so long has a second thought
SPOKEN = 0.66  # of a hold under a minute: the rest of it is quiet
WHILE_SPOKEN = 0.8  # where its placing is in it as well
TOLD_REPS = 2  # the one that is talked through, and one whose rhythm is told
LATE_FROM = 5  # repetitions; with fewer there is no late
Beat = tuple[str, str]  # what it is for, its text as it is written

# What is said first, and what then, where the first has been said: first side, second side, a return.
FIRST = ("aim", "check", ("image", "deepen"), ("deepen", "image"), "check", "aim")
SECOND = ("compare", ("deepen", "image", "check"), ("image", "check"), "aim")
RETURN = (("check", "aim", "deepen", "image"), ("deepen", "image", "check"))
REPS_FIRST = ("aim", "keep", "check", "keep", "check", "aim", "keep", "check")
REPS_AGAIN = ("compare", "keep", ("check", "aim"), "keep", "check", "aim")
Order = Sequence[str | tuple[str, ...]]
Room = Callable[[], int] | None


class Teaching:
    """The thoughts of one class: which have been said, and which comes next."""

    def __init__(self, phrasing: Phrasing) -> None:
        self.phrasing = phrasing
        self._said: set[str] = set()

    def lines(self, index: int, segment: Segment) -> Iterator[Candidate]:
        """The lines of one segment that its card has for it."""
        card, how = segment.use.movement.card, segment.behaviour
        if card is not None and how.is_phase and segment.use.taught:
            yield from self._taught(card, index, segment)
        if card is None or how.is_phase or how.framing or segment.use.step.pattern is not None:
            return
        if segment.use.second and self.phrasing.school.second_side == "wordless":
            return
        if how.is_rest:
            yield from self._rest(card, index, segment)
        elif how.still or how.is_counted:
            yield from self._held(card, index, segment)
        else:
            yield from self._moved(card, index, segment)

    def _taught(self, card: Card, index: int, segment: Segment) -> Iterator[Candidate]:
        """One thing about each place of a flow, in the round in which it is taught; of hard ones another
        way."""
        use = segment.use
        able = [text for text in card.choice if self._fresh(text, use)] if use.movement.effort >= HARD else []
        beats = [("choice", able[0])] if able else []
        at = segment.start + TAUGHT_AT
        for purpose, text in beats or self._next(card, use, (("aim", "check", "image"),)):
            filled = self._filled(text, use)
            if at + self.phrasing.duration(filled, purpose) > segment.end - LEAD - GAP:
                return
            self._said.add(text)
            yield self._candidate(purpose, index, segment, filled, at, segment.end - LEAD)

    # --- held ---------------------------------------------------------------------------------------------

    def _held(self, card: Card, index: int, segment: Segment) -> Iterator[Candidate]:
        length, use = segment.length, segment.use
        thoughts = 1 if length < SHORT else 2 if length < MIDDLE else 3
        order: Order = SECOND if use.second else RETURN if use.seen or use.round > 1 else FIRST
        if length >= LONG:
            thoughts = 2 + (length - LONG) // ISLAND + 1
            order = (*order, *FIRST)
        elif use.second or use.seen:
            thoughts = max(1, thoughts - 1)
        if not use.movement.speaks:
            thoughts = 1
        spoken = WHILE_SPOKEN if is_described_while(self.phrasing, use) else SPOKEN
        until = segment.start + (int(length * spoken) if length < LONG else length - ticks(12))
        begun = segment.start
        for purpose, text in in_the_dose(self.phrasing, use):
            takes = self.phrasing.duration(text, purpose)
            roomy = length >= MIDDLE or not is_described_while(self.phrasing, use)
            if purpose != "place" and (begun + takes > until or not roomy):
                break  # where there is room for one thing only, it is what the shape is for
            yield self._candidate(purpose, index, segment, text, begun, segment.end)
            begun += takes + GAP + READING
        if begun > segment.start:
            thoughts = max(1, thoughts - 1)
        at, ended = begun + (SETTLE if length >= SHORT else ticks(1.5)), begun
        thoughts_that_fit = self._next(card, use, order, lambda: until - at)
        for number, (purpose, text) in enumerate(thoughts_that_fit, start=1):
            takes = self.phrasing.duration(text, purpose)
            if number > thoughts or at + takes > until:
                break
            yield self._candidate(purpose, index, segment, text, at, until)
            ended = at + takes
            island = length >= LONG and number >= 2
            at += takes + (max(ISLAND, (length - LONG) // max(1, thoughts)) if island else APART)

        yield from self._silence(index, segment, ended + GAP)

    def _silence(self, index: int, segment: Segment, at: int) -> Iterator[Candidate]:
        """How long it will be quiet, where a hold is longer than what there is to say of it."""
        times = self.phrasing.times_to_go(segment.use, segment.length) if segment.behaviour.time_told else ()
        quiet = segment.end - at - ticks(max(times, default=0))
        if quiet < SILENT:
            return
        words = self.phrasing.variants(self.phrasing.wording.silence, index)
        told = about_as_long(quiet, self.phrasing.number_word)
        text = filled_line(words, segment.use, quiet=told)[0]
        yield self._candidate("time", index, segment, text, at, at + APART)

    def _rest(self, card: Card, index: int, segment: Segment) -> Iterator[Candidate]:
        at = segment.start + SETTLE
        order: Order = ("aim", ("image", "deepen")) if segment.length >= REST_THOUGHTS else ("aim",)
        for purpose, text in self._next(card, segment.use, order):
            takes = self.phrasing.duration(text, purpose)
            if at + takes > segment.start + segment.length // 2:
                break
            yield self._candidate(purpose, index, segment, text, at, segment.end)
            at += takes + max(ticks(12), segment.length // 6)

    # --- moved --------------------------------------------------------------------------------------------

    def _moved(self, card: Card, index: int, segment: Segment) -> Iterator[Candidate]:
        use, unit = segment.use, max(1, segment.use.unit)
        at = begun = segment.start
        for purpose, text in in_the_dose(self.phrasing, use):
            if purpose == "place":
                yield self._candidate(purpose, index, segment, text, begun, segment.end)
                begun += self.phrasing.duration(text, purpose) + GAP + READING
        at = begun + LEAD
        talked = "" if use.second or use.seen or use.round > 1 else first_line(self.phrasing, use)
        if talked and begins_with(self.phrasing, use):
            text = self._filled(talked, use)
            takes = self.phrasing.duration(text, "first")
            start = max(0, begun - LEAD)
            yield Candidate(
                "first", index, segment.side, (text,), start, begun + unit, segment.end, begun, company=True
            )
            at = begun + takes
        reps = segment.amount if segment.behaviour.numbered else 0
        told = breath_words_end(segment)
        at = max(at + ticks(1), told)
        late = self._late(card, index, segment, reps)
        until = late.earliest - ticks(3) if late is not None else segment.end - unit // 2
        order: Order = REPS_AGAIN if use.second or use.seen or use.round > 1 else REPS_FIRST
        thoughts_that_fit = self._next(card, use, order, lambda: until - at)
        for purpose, text in thoughts_that_fit:
            takes = self.phrasing.duration(text, purpose)
            if at + takes > until:
                break
            yield self._candidate(purpose, index, segment, text, at, until)
            at += takes + max(APART, 2 * unit)
        if late is not None:
            yield late

    def _late(self, card: Card, index: int, segment: Segment, reps: int) -> Candidate | None:
        """What is said near the end of a set, at the repetition of which it is true."""
        if reps < LATE_FROM or segment.behaviour.is_rapid:
            return None
        late = self.phrasing.turned(card.late, segment.use.movement.id)
        found = next((one for one in late if self._fresh(one, segment.use)), None)
        if found is None:
            return None
        unit, use = segment.use.unit, segment.use
        for left in (2, 3, 4):
            text = self._filled(found, use, n=self.phrasing.number_word(left))
            takes = self.phrasing.duration(text, "late")
            if takes <= left * unit - GAP or left == 4:
                break
        if takes > left * unit - GAP:
            return None
        self._said.add(found)
        at = segment.end - left * unit
        return Candidate(
            "late", index, segment.side, (text,), at - GAP, at + GAP, segment.end, at - GAP, company=True
        )

    # --- thoughts -----------------------------------------------------------------------------------------

    def _next(self, card: Card, use: StepUse, order: Order, room: Room = None) -> Iterator[Beat]:
        """The thoughts in an order, each one that has not been said in this class; said when it is taken.

        room: ticks there are for the next one; what is longer gives way to what fits.
        """
        for kinds in order:
            found = [
                (kind, text, filled)
                for kind in ((kinds,) if isinstance(kinds, str) else kinds)
                for text in self.phrasing.turned(getattr(card, kind), use.movement.id)
                if self._fresh(text, use)
                for filled in (self._filled(text, use),)
            ]
            fitting = [
                one for one in found if room is None or self.phrasing.duration(one[2], one[0]) <= room()
            ]
            if chosen := (fitting or found)[:1]:
                kind, text, filled = chosen[0]
                yield kind, filled
                self._said.add(text)

    def _fresh(self, text: str, use: StepUse) -> bool:
        return text not in self._said and not self.phrasing.room.unwanted(text)

    def _filled(self, text: str, use: StepUse, **words: str) -> str:
        return filled_line((conditioned(text, {}),), use, use.told_side, **words)[0]

    def _candidate(
        self, purpose: str, index: int, segment: Segment, text: str, at: int, until: int
    ) -> Candidate:
        return Candidate(
            purpose,
            index,
            segment.side,
            (text,),
            at,
            max(at, until),
            segment.end,
            at,
            company=purpose != "place",
        )


def breath_words_end(segment: Segment) -> int:
    """When the repetitions are over in which breath words are told."""
    return segment.start + TOLD_REPS * segment.use.unit if segment.spans else segment.start


def alternatives(use: StepUse, purpose: str) -> list[str]:
    """What else the card of a movement has for a purpose, as it is said on the side of a use."""
    card = use.movement.card
    texts = getattr(card, purpose, ()) if card is not None and purpose in LISTS[1:] else ()
    return [filled_line((conditioned(text, {}),), use, use.told_side)[0] for text in texts]
