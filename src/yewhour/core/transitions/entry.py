"""Entry: what is said between two uses, and the whole of a talk; their length is what they get.

In this order: out of what was before, the other side, the props, the way across, then the movement itself:
named and called, its caution, how it is set up.
"""

import re
import zlib
from collections.abc import Iterator, Mapping, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.library.card import Card
from yewhour.core.library.movement import Wordings
from yewhour.core.library.names import listed
from yewhour.core.library.position import START, PositionChange, base_of
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.props import changes_side, stays
from yewhour.core.sides import SIDE_TOKENS, fill, mirrored, tokens
from yewhour.core.timing.step_use import StepUse
from yewhour.core.transitions.frame import ClassFrame, returned, silent
from yewhour.core.transitions.passage import READING, changes_said, in_the_dose, passage, placing_of
from yewhour.core.transitions.titles import for_whom, in_a_sentence
from yewhour.core.transitions.ways import (
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

QUICK_RETURN = 0.45  # of the pauses of a return where a style moves at once: 30-45 s (measured figures)
AFTER_THOUGHT, AFTER_THEME = ticks(0.8), ticks(2.0)
# How a clause of a last line begins -> what a way has that says the same.
SAID_BY_WAYS = (
    ("hands to the floor", "hands"), ("hands down", "hands"), ("hands flat", "hands"),
    ("both hands down", "hands"), ("tuck the toes", "tuck"), ("tuck the toes", "lean onto"),
    ("lower both knees", "lower your knees"),
    ("look to the hands", "forward to your hands"), ("knees soft", "forward to your hands"),
    ("hands to the thighs", "roll up"), ("feet down", "feet"), ("let the hips come down", "lower your hips"),
    ("ribs first", "lower your hips"), ("hands to the hips", "hands to the floor"),
    ("rise with a long back", "hands to the floor"), ("chest up", "hands to the floor"),
    ("lower your arms", "hands to the floor"), ("hands by the front foot", "hands to the floor"),
    ("hands on the front thigh", "hands to the floor"), ("feel for the seat", "stand up"),
    ("sit well back", "stand up"),
)  # fmt: skip
HANDS_DOWN = "Hands to the floor, "  # said by one change of position, and not again by the next
LAID = "bolster"  # a prop that one lies on: it lies elsewhere for each of them
BREATHER = ticks(0.5)  # at the end of what is said while moving
LONGEST_QUIET = "seventy-seven minutes"  # what the line that promises quiet has room for
EntryLine = tuple[str, Wordings]


# Props that cards speak of where none is needed, as one is told to fetch them; from how many cards, and how
# long a class.
HANDY = {
    "block": "a block or a thick book", "strap": "a strap or a belt", "blanket": "a folded blanket",
    "cushion": "a cushion",
}  # fmt: skip
HANDY_OFTEN, HANDY_S = 2, 600.0


class EntryLines:
    """The lines of the ways in and of the talks of one class; what was worked out once is remembered."""

    def __init__(self, phrasing: Phrasing, uses: Sequence[StepUse], edits: Sequence[LineEdit]) -> None:
        self.phrasing = phrasing
        self.props = list(dict.fromkeys(prop for use in uses for prop in use.movement.props))
        self.handy = _handy(phrasing, uses)
        self.first_talk = next((use.key for use in uses if use.behaviour.is_talk), "")
        self._spoken = OwnLineLengths(edits, phrasing.duration)
        self._known: dict[tuple[object, ...], list[EntryLine]] = {}
        self.frame = ClassFrame(phrasing, uses)
        self._returned = returned(uses)
        self._silent = silent(uses)
        self._spoken_for = dict(reversed(list(spoken_for(phrasing.room, uses))))  # the first of each

    # --- how long they take -------------------------------------------------------------------------------

    def saying(self, before: StepUse | None, use: StepUse) -> int:
        """Ticks that what is said on the way from one use into another takes; 0 for nothing."""
        slots = self.slots(use, self.entry(before, use))
        return sum(slots) + BREATHER if slots else 0

    def speaking(self, use: StepUse) -> int:
        """Ticks that the lines of a talk, or of a set-up of the plan's own, take."""
        added = sum(length + GAP for length in self._spoken.added(use))
        slots = self.slots(use, self.own(use), [pause for _, pause in self.talk(use)])
        return sum(slots) + added + BREATHER

    def needs(self, use: StepUse) -> int:
        """Ticks that must be spoken inside a use, at the barest."""
        if not use.flow and (told := in_the_dose(self.phrasing, use)):
            musts = [text for purpose, text in told if purpose == "place"]
            return sum(self.phrasing.duration(text, "place") + READING + GAP for text in musts)
        if not use.behaviour.is_hold or not use.flow:
            return 0
        lines = lines_of(use, "flow") or lines_of(use, "call")
        texts = (filled_line(line, use) for line in lines)
        return max((min(self.phrasing.duration(text, "flow") for text in line) for line in texts), default=0)

    def slots(self, use: StepUse, lines: Sequence[EntryLine], pauses: Sequence[int] = ()) -> list[int]:
        """Ticks from the start of each line to the start of the next."""
        lengths = self._spoken.lengths(use, [(purpose, wordings[0]) for purpose, wordings in lines])
        between = READING if use.movement.card is not None else 0
        pauses = pauses or [between] * len(lines)
        return [length + pause + GAP if length else 0 for length, pause in zip(lengths, pauses, strict=True)]

    # --- the lines ----------------------------------------------------------------------------------------

    def own(self, use: StepUse) -> list[EntryLine]:
        """The lines of a talk, or of a set-up of the plan's own."""
        if use.behaviour.is_talk:
            return [("say", (text,)) for text, _ in self.talk(use)]
        return [*self._called(use), *self._cautions(use), *self._set_up(use)]

    def entry(self, before: StepUse | None, use: StepUse) -> list[EntryLine]:
        """(purpose, wordings) of the lines said between two uses, in order."""
        come_from = (
            (before.end, before.stayed, before.mat, before.movement.id, before.side) if before else (START,)
        )
        key = (*come_from, use.step.id, use.needed, use.side, use.lead, use.switch, use.seen,
               use.second, use.recalled, use.place, min(use.round, 3))  # fmt: skip
        if key not in self._known:
            self._known[key] = list(self._entry(before, use))
        return self._known[key]

    def _entry(self, before: StepUse | None, use: StepUse) -> Iterator[EntryLine]:
        if use.step.or_stay and before is not None:
            yield (
                "option",
                filled_line(pick_line(self.phrasing.wording.go_or_stay, use), use, place=before.name),
            )
        if before is not None and before.key in self._silent and not use.behaviour.framing:
            yield "say", pick_line(self.phrasing.wording.quiet_over, use)
        yield from self._leaving(before, use)
        for prop in props_put_away(before, use):
            yield "prop", filled_line(pick_line(self.phrasing.wording.prop_away, use), use, prop=prop)
        if before is not None and before.stayed:
            for change in self.phrasing.positions.way(before.end, before.stayed).changes:
                yield "way", self._said_of(change)
            yield "remind", pick_line(self.phrasing.wording.together, use)
        if opened := self.frame.turns.get(use.key):
            yield "say", (opened,)
        if use.switch:
            lines = self._side_lines(before, use)
            named = _names_side(use) or not use.step.carded  # she names it herself
            if lines is self.phrasing.wording.side_on_top_already or not named:
                yield "side", filled_line(pick_line(lines, use), use)
        tier = self.phrasing.tier(use)
        talk = use.movement.behaviour.framing
        if (tier == 0 or takes_props_again(before, use)) and not talk:
            yield from self._props(before, use)
        elif use.switch and (moved := {one for one in use.movement.props if changes_side(one)}):
            yield "prop", filled_line(pick_line(self.phrasing.wording.prop_moved, use), use, prop=min(moved))
        round_first = base_of(before.end if before else START) != "folded"  # or else when one stands again
        if round_first:
            yield from self._turned(before, use)
        frames, entry_tier = self.phrasing.voice.way, self.phrasing.entry_tier(use)
        card = use.movement.card
        on_the_floor = False
        for number, (change, own) in enumerate(changes_said(card, self._changes(before, use))):
            if own is not None:
                if own:
                    yield "way", (fill(own, use.told_side),)
                continue
            words = from_tier(entry_tier, self._said_of(change))
            if on_the_floor:
                words = tuple(_without(HANDS_DOWN, text) for text in words)
            on_the_floor = words[0].startswith(HANDS_DOWN)
            plain = number or entry_tier
            yield "way", words if plain else self.phrasing.voiced(frames, words, use.place, 2)
        if not round_first:
            yield from self._turned(before, use)
        if card is not None and not talk:
            kept = {facet: one for facet, one in _left(before).items() if use.shape.get(facet) == one}
            if use.key in self._returned:
                yield (
                    "place",
                    filled_line(pick_line(self.phrasing.wording.return_to, use), use, use.told_side),
                )
            else:
                yield from passage(self.phrasing, use, kept, self._spoken_for.get(use.step.id, False))
        elif not talk:
            yield from self._called(use)
            yield from self._cautions(use)
            yield from self._set_up(use)

    def _side_lines(self, before: StepUse | None, use: StepUse) -> tuple[Wordings, ...]:
        """How a change of side is said: `left side` would mislead who lies on the right."""
        lying = base_of(use.needed)
        if lying != f"on-{mirrored(use.side)}":
            return self.phrasing.wording.side
        there = before is not None and base_of(before.stayed or before.end) == lying
        return self.phrasing.wording.side_on_top_already if there else self.phrasing.wording.side_uppermost

    def _changes(self, before: StepUse | None, use: StepUse) -> Sequence[PositionChange]:
        """The changes of position from where all are into a use."""
        here = (before.stayed or before.end) if before else START
        return self.phrasing.positions.way(here, use.needed).changes

    def _turned(self, before: StepUse | None, use: StepUse) -> Iterator[EntryLine]:
        """Turning to the other end of the mat, where one stands and no words of the plan's own did it."""
        own = use.movement.behaviour.framing or (before is not None and before.behaviour.is_setup)
        if not own and _mat(use) != _mat(before) and base_of(use.start) not in self.phrasing.positions.floor:
            lines = self.phrasing.wording.mat_back if use.mat == "back" else self.phrasing.wording.mat_front
            yield "way", pick_line(lines, use)

    def _leaving(self, before: StepUse | None, use: StepUse) -> Iterator[EntryLine]:
        """How what was before is left: its own words, where what comes next is not entered from within it."""
        if before is not None and before.behaviour.is_rest and use.behaviour.framing:
            return  # the words that lead out of a rest say all of it
        if (
            before is None
            or (before.behaviour.framing or before.behaviour.is_phase)
            or same_posture(before, use)
        ):
            return
        if before.movement.id in use.movement.follows and before.side == use.side:
            return
        yield from self._undone(before, {} if use.behaviour.framing else use.shape, use)

    def closing(self, last: StepUse) -> Wordings:
        """How the body comes out of the last thing of a class that nothing follows; () where it need not."""
        if last.behaviour.framing or last.behaviour.is_phase or last.behaviour.is_rest:
            return ()
        card = last.movement.card
        if card is not None and card.leave:
            return filled_line((self._leave(card, last),), last, last.told_side)
        words = [*self.phrasing.facets.undone(last.shape, {})]
        return (_sentence(words),) if words else ()

    def _undone(self, before: StepUse, after: Mapping[str, str], use: StepUse) -> Iterator[EntryLine]:
        """How the body comes out of what it was held in: by the movement's own words, or facet by facet.
        Nothing of it where the next one begins as this one ends; what that one keeps is never let go."""
        card, facets = before.movement.card, self.phrasing.facets
        exits: tuple[Wordings, ...] = lines_of(before, "exit")[:1]
        if card is not None and "exit" not in before.step.lines:
            exits = ((self._leave(card, before),),) if card.leave else ()
        same = before.side == use.side or not {before.side, use.side} <= {"right", "left"}
        shared = before.shape.items() <= after.items() and self.phrasing.positions.meets(
            before.end, use.needed
        )
        kept = [] if use.switch else [*facets.kept(before.shape, after)]  # one hand lets go for the other
        for line in () if kept or (same and shared) else exits:
            if card is not None and not (line := tuple(self._left_to_say(line, before, use))):
                continue
            tier = 0 if card is not None else self.phrasing.tier(before)
            words = from_tier(tier, filled_line(line, before, before.told_side))
            yield "exit" if card is None else "leave", words
        undone = facets.undone(before.shape, after) if kept or not exits else ()
        if still := [words for words in undone if any(self._left_to_say((words,), before, use))]:
            yield "leave", (_sentence(still),)
        if kept and not _decides(use.movement.card, before.shape):
            yield "leave", (_sentence(kept),)

    def _said_of(self, change: PositionChange) -> Wordings:
        """The words of a change of position, as this class has them."""
        return self.phrasing.told_way((change.say, *change.otherwise), f"{change.start}>{change.end}")

    @staticmethod
    def _leave(card: Card, use: StepUse) -> str:
        """How the body comes out of a movement: plainly, where a class has heard it already."""
        heard = use.second or use.seen > 0 or use.round > 1
        return (card.leave_again if heard else "") or card.leave

    def _left_to_say(self, leave: Wordings, before: StepUse, use: StepUse) -> Iterator[str]:
        """A last line without what at its end the way on says itself: hands down, toes tucked."""
        changes = self.phrasing.positions.way(before.end, use.needed).changes if use.start else ()
        way = self._said_of(changes[0])[0].lower() if changes else ""
        for text in leave:
            parts = re.split(r"([,;] (?:and )?)", text.rstrip("."))
            while parts and any(parts[-1].lower().startswith(a) and b in way for a, b in SAID_BY_WAYS):
                del parts[-2:]
            if parts:
                yield f"{''.join(parts)}."

    def _props(self, before: StepUse | None, use: StepUse) -> Iterator[EntryLine]:
        """What is to be taken up now: not what is in use already."""
        own, card = lines_of(use, "prop"), use.movement.card
        carded = card is not None and "call" not in use.step.lines
        placed = " ".join(placing_of(self.phrasing, card, use)).lower() if card is not None and carded else ""
        in_use = before is not None and set(use.movement.props) <= set(before.movement.props)
        if in_use or (use.second and not takes_props_again(before, use)):
            moved = (
                before is not None and before.movement.id != use.movement.id and LAID in use.movement.props
            )
            own = own if (moved or use.step.lines.get("prop")) and not use.second else ()
            if not own:
                return
        first = use.movement.props[0] if use.movement.props else ""
        said = [filled_line(line, use, prop=first) for line in own]
        for line in said:
            yield "prop", line
        named_already = " ".join((placed, *(line[0].lower() for line in said)))
        for prop in use.movement.props:
            there = stays(prop)
            if not (prop_noun(prop) in named_already or (there and prop == base_of(use.needed))):
                lines = self.phrasing.wording.prop_there if there else self.phrasing.wording.prop
                yield "prop", filled_line(pick_line(lines, use), use, prop=prop)

    def _called(self, use: StepUse) -> Iterator[EntryLine]:
        tier, lines = self.phrasing.entry_tier(use), lines_of(use, "call")
        if use.step.pattern is not None and "call" not in use.step.lines:
            counts = pattern_words(self.phrasing, use)
            lines = ((f"Breathe {counts}", f"{counts[0].upper()}{counts[1:]}"),)
        for number, line in enumerate(lines):
            words = filled_line(line, use)
            yield "call", with_name(self.phrasing, use, from_tier(tier, words)) if number == 0 else words

    def _cautions(self, use: StepUse) -> Iterator[EntryLine]:
        if self.phrasing.tier(use) == 0:
            for line in caution_lines(self.phrasing, use, again=self._spoken_for.get(use.step.id, False)):
                yield "caution", filled_line(line, use)

    def _set_up(self, use: StepUse) -> Iterator[EntryLine]:
        tier, movement = self.phrasing.entry_tier(use), use.movement
        if tier == 0:
            for purpose in ("setup", "remind"):
                for line in lines_of(use, purpose):
                    yield purpose, filled_line(line, use)
        if use.behaviour.is_rapid and tier == 0:
            stroke_s = use.step.count_s or movement.count_s or 1.0
            n = self.phrasing.number_word(round(10 / stroke_s))
            yield "setup", filled_line(pick_line(self.phrasing.wording.tempo, use), use, n=n)
        if use.behaviour.is_counted and tier == 0:  # announced, so that the numbers come as no surprise
            yield "remind", pick_line(self.phrasing.wording.count_announced, use)
        taken = {"gentler": movement.gentler, "stronger": movement.stronger}.get(use.step.take)
        if taken is not None and not taken.movement:
            yield "remind", from_tier(tier, filled_line(taken.line, use))

    def _told(self, use: StepUse) -> tuple[Wordings, ...]:
        """The way in which a talk is told in this telling of the class; another one each time it comes."""
        ways, telling = use.movement.otherwise, self.phrasing.brief.telling
        if not ways or not (telling or use.seen) or "say" in use.step.lines:
            return lines_of(use, "say")
        begin = zlib.crc32(f"{telling}/{use.movement.id}".encode()) if telling else 0
        return (use.movement.said("say"), *ways)[(begin + use.seen) % (len(ways) + 1)]

    def _named(self) -> tuple[dict[str, str], dict[str, str]]:
        """What the words of a talk are filled with; and where whom it is for is said beside the title, the
        same without them in it: nobody is named twice."""
        brief, room = self.phrasing.brief, self.phrasing.room
        title = in_a_sentence(brief, self.phrasing.wording.area_words)
        words = {
            "title": title,
            "audience": brief.audience or room.theirs or "everyone",
            "quiet": LONGEST_QUIET,
        }
        hers = (brief.audience, f"the {brief.audience}") if brief.audience else ()
        bare, whom = for_whom(title, [*hers, *filter(None, (listed(room.whoms), *room.whoms))])
        return words, words | {"title": bare, "audience": whom} if whom else words

    def talk(self, use: StepUse) -> Iterator[tuple[str, int]]:
        """The lines of a talk in order, each with the silence after it in ticks."""
        if not use.behaviour.is_talk:
            return
        marks, (words, apart) = use.movement.marks, self._named()
        quick = QUICK_RETURN if self.phrasing.school.describes == "while" and "returning" in marks else 1.0
        lines = self._told(use)
        for number, line in enumerate(lines):
            if "farewell" in marks and number == len(lines) - 1:
                yield from ((text, AFTER_THEME) for text in self.frame.farewell())
            # The text, a pause in seconds, the text after it, and so on.
            filling = apart if "{audience}" in line[0] else words
            said, *more = PAUSE_MARK.split(fill(line[0], use.side, **filling))
            for pause, after in zip([*more[::2], "0"], [*more[1::2], ""], strict=True):
                if said.strip():
                    yield said.strip(), round(ticks(float(pause)) * quick)
                said = after
            if "welcome" in marks and use.key == self.first_talk and not number:
                yield from ((text, AFTER_THOUGHT) for text in self.frame.welcome())
        if self.props and use.key == self.first_talk:
            props = listed([self._fetched(prop) for prop in self.props])
            yield fill(self.phrasing.wording.props_opening[0][0], use.side, props=props), 0
        if self.handy and use.key == self.first_talk and "welcome" in marks:
            handy = listed(self.handy)
            yield fill(self.phrasing.wording.props_handy[0][0], use.side, props=handy), 0
        if use.key == self.first_talk and "welcome" in marks:
            yield from ((line, 0) for line in self.phrasing.room.said)

    def _fetched(self, prop: str) -> str:
        """A prop as one is told to fetch it: what it is made of at home, where the promise said so."""
        made_of = self.phrasing.brief.said.get(prop, "")
        if prop == LAID and made_of.endswith("s"):
            return f"a {prop} made of two firm {made_of.lower()}"
        return prop if prop.startswith("two ") else f"a {prop}"


def _handy(phrasing: Phrasing, uses: Sequence[StepUse]) -> list[str]:
    """What the cards of a class speak of more than once and nothing needs, as one is told to fetch it: nobody
    leaves the mat for a block in the middle of a posture."""
    if phrasing.brief.target_s < HANDY_S:
        return []
    needed = {prop_noun(prop) for use in uses for prop in use.movement.props}
    cards = {use.movement.id: use.movement.card for use in uses if use.movement.card is not None}
    texts = [" ".join((*card.choice, *card.check, *card.place)).lower() for card in cards.values()]
    named = {noun: sum(bool(re.search(rf"\b{noun}s?\b", text)) for text in texts) for noun in HANDY}
    needed |= {noun for noun in HANDY if phrasing.room.unwanted(noun)}
    return [HANDY[noun] for noun, often in named.items() if often >= HANDY_OFTEN and noun not in needed]


def _decides(card: Card | None, shape: Mapping[str, str]) -> bool:
    """Whether the placing of a card says itself that a facet is kept."""
    return card is not None and any(f"[{facet}?" in text for text in card.place for facet in shape)


def _names_side(use: StepUse) -> bool:
    """Whether the card's own words for the other side name it."""
    card = use.movement.card
    if card is None or "call" in use.step.lines:
        return False
    return bool(SIDE_TOKENS & tokens(card.again or " ".join(card.place[:1])))


def _left(before: StepUse | None) -> dict[str, str]:
    """The facets that what came before leaves a body in."""
    return {} if before is None or before.behaviour.framing else before.shape


def _without(clause: str, text: str) -> str:
    """A sentence without the clause it begins with, if it does."""
    rest = text.removeprefix(clause).removeprefix("and ")
    return f"{rest[0].upper()}{rest[1:]}"


def _sentence(words: Sequence[str]) -> str:
    text = ", ".join(words)
    return f"{text[0].upper()}{text[1:]}."


def _mat(use: StepUse | None) -> str:
    """The end of the mat that is faced: the front, unless something else is said."""
    return (use.mat if use is not None else "") or "front"
