"""The passage: how a movement with a card is come into, one run of sentences from the way to the choice.

In the order of doing: how the shape is built, what those do who are minded before the weight comes, another
way with its reason. What should be known before anything is done (who leaves an inversion out) comes before
all."""

from collections.abc import Iterator, Mapping, Sequence

from yewhour.core.lengths import ticks
from yewhour.core.library.card import Card, Texts, conditioned
from yewhour.core.library.movement import Wordings
from yewhour.core.library.position import PositionChange, base_of
from yewhour.core.plan.vocabulary import GENTLE_LEVELS
from yewhour.core.sides import SIDE_TOKENS, tokens
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.cautions import caution_lines, to_whom
from yewhour.core.wording.phrasing import (
    Phrasing,
    filled_line,
    lines_of,
    pattern_words,
    pick_line,
)

FIRST_OF_ALL = frozenset({"inversion", "deep backbend", "peak", "rapid breath", "breath held"})
LONGEST_NUMBER = "twenty-four"  # what the line that tells the number has room for
NAMED_FROM = 2  # effort
SLOW_TEACHING = 1.3  # from there on a school's choices come before the quiet
TURNED = ("effort", "ease")
PassageLine = tuple[str, Wordings]


def is_again(phrasing: Phrasing, use: StepUse) -> bool:
    """Whether a use is shorter told: a second side, a return, another round."""
    if use.second and phrasing.school.second_side == "full" and use.round <= 1:
        return False
    return use.second or use.seen > 0 or use.round > 1


def changes_said(
    card: Card | None, changes: Sequence[PositionChange]
) -> list[tuple[PositionChange, str | None]]:
    """The changes of a way, each with the words the card has for it: None for the change's own, "" for
    none."""
    found: list[tuple[PositionChange, str | None]] = [(change, None) for change in changes]
    if card is not None and changes:
        found[-1] = changes[-1], card.way.get(base_of(changes[-1].start))
    return found


def passage(
    phrasing: Phrasing, use: StepUse, kept: Mapping[str, str], spoken_for: bool
) -> Iterator[PassageLine]:
    """(purpose, wordings) of what is said once the body is where the movement is done.

    kept: the facets that the body is in already. spoken_for: its caution was told before in the class.
    """
    card = use.movement.card
    assert card is not None
    guards = list(_protected(phrasing, card, use, spoken_for)) if not use.round > 1 else []
    places = _places(phrasing, card, use)[: _before_the_dose(phrasing, card, use)]
    first_of_all = bool(FIRST_OF_ALL & {*use.movement.marks})
    told = [said for said in (_told(text, use, kept) for text in places) if said]
    if told and not is_again(phrasing, use) and "call" not in use.step.lines:
        told[0] = _named(phrasing, use, told[0])
    for purpose in ("setup", "remind"):
        for line in (
            lines_of(use, purpose) if purpose in use.step.lines and not is_again(phrasing, use) else ()
        ):
            yield purpose, filled_line(line, use, use.told_side)
    if first_of_all or not told:
        yield from guards
    for number, text in enumerate(told):
        yield "place", (text,)
        if number == 0 and not first_of_all:
            yield from guards
    if use.behaviour.is_rapid and not is_again(phrasing, use):
        stroke_s = use.step.count_s or use.movement.count_s or 1.0
        n = phrasing.number_word(round(10 / stroke_s))
        yield "setup", filled_line(pick_line(phrasing.wording.tempo, use), use, n=n)
    if not is_again(phrasing, use) and not is_described_while(phrasing, use):
        if not _chosen_while(phrasing, use):
            yield from _chosen(phrasing, card, use, bool(guards))
        yield from _numbered(phrasing, use)
        if (first := first_line(phrasing, use)) and not begins_with(phrasing, use):
            yield "first", (_told(first, use, kept),)


def in_the_dose(phrasing: Phrasing, use: StepUse) -> list[tuple[str, str]]:
    """(purpose, text) of what is said of a shape while people are in it already, in order."""
    card = use.movement.card
    if card is None or use.flow:
        return []
    if not is_described_while(phrasing, use):
        if is_again(phrasing, use) or not _chosen_while(phrasing, use):
            return []
        guarded = any(True for _ in _protected(phrasing, card, use, True))
        return [(purpose, line[0]) for purpose, line in _chosen(phrasing, card, use, guarded)]
    said = _before_the_dose(phrasing, card, use)
    rest = [("place", _told(text, use, {})) for text in _places(phrasing, card, use)[said:]]
    if is_again(phrasing, use):
        return rest
    if not said and rest and "call" not in use.step.lines:
        rest[0] = ("place", _named(phrasing, use, rest[0][1]))
    guarded = any(tag in card.protect for tag in phrasing.room.met(use.movement))
    chosen = [(purpose, line[0]) for purpose, line in _chosen(phrasing, card, use, guarded)]
    return [*rest, *chosen]


def is_described_while(phrasing: Phrasing, use: StepUse) -> bool:
    """Whether people are in a movement at once, and it is described to them there; what is built is not."""
    quick = use.behaviour.held or use.behaviour.is_reps
    return phrasing.school.describes == "while" and quick and not use.movement.moving_s


def _before_the_dose(phrasing: Phrasing, card: Card, use: StepUse) -> int:
    """How many lines of the placing come before a movement begins: all, where it isn't described while it is
    done; else the one that leads there, or that must come before what protects or repeats."""
    if use.flow or not is_described_while(phrasing, use):
        return len(_places(phrasing, card, use))
    leads = use.behaviour.is_reps or "" in card.way.values() or bool(phrasing.room.met(use.movement))
    return 1 if leads else 0


def _places(phrasing: Phrasing, card: Card, use: StepUse) -> list[str]:
    """The placing of a use, as it is written: her own words, a shorter one for a return, or all of it."""
    if "call" in use.step.lines:
        return [text for line in lines_of(use, "call") for text in line[:1]]
    if is_again(phrasing, use) and card.again:
        returns = (card.again, *card.returns)
        return [
            phrasing.room.wanted(card.again) if use.second else returns[max(0, use.seen - 1) % len(returns)]
        ]
    place = placing_of(phrasing, card, use)
    placed = (phrasing.room.wanted(text) for text in (place[:1] if use.round > 1 else place))
    return [text for text in placed if text]


def placing_of(phrasing: Phrasing, card: Card, use: StepUse) -> Texts:
    """How a class is told to come into a movement whose placing can be told in several ways; one that speaks
    of nothing that isn't there, if there is such a one."""
    if not card.placings:
        return card.place
    room, ways = phrasing.room, (card.place, *card.placings)
    there = [way for way in ways if not any(room.unwanted(room.wanted(text)) for text in way)]
    return phrasing.told_way(there or ways, f"place/{use.movement.id}")


def _chosen_while(phrasing: Phrasing, use: StepUse) -> bool:
    """Whether another way is told as a hold begins: not where it is long and quiet, or its setting is all."""
    return use.behaviour.held and not use.movement.moving_s and phrasing.school.teaching < SLOW_TEACHING


def first_line(phrasing: Phrasing, use: StepUse) -> str:
    """The first repetition talked through, where the use has one; a pattern of her own in its counts.

    Where a school breathes in on the effort, the breath of a card would be the wrong one.
    """
    card = use.movement.card
    if card is None or use.behaviour.framing or any(purpose.startswith("on_") for purpose in use.step.lines):
        return ""
    if use.step.pattern is not None:
        return f"Breathe {pattern_words(phrasing, use)}"
    turned = phrasing.school.effort_breath == "inhale" and any(
        beat in TURNED for beat, _ in use.movement.rhythm
    )
    return "" if turned else card.first


def begins_with(phrasing: Phrasing, use: StepUse) -> bool:
    """Whether its first repetition is talked through while it is done: it is slow enough for that."""
    if not use.unit or not (use.behaviour.is_reps or use.behaviour.is_rapid):
        return False
    if phrasing.school.describes == "while":
        return True
    return phrasing.duration(_told(first_line(phrasing, use), use, {}), "first") <= 2 * use.unit


def _protected(phrasing: Phrasing, card: Card, use: StepUse, spoken_for: bool) -> Iterator[PassageLine]:
    """What those do who may be in the room, by the card, or else as any movement tells it."""
    if "caution" in use.step.lines:
        for line in lines_of(use, "caution"):
            yield "protect", filled_line(line, use, use.told_side)
        return
    met = phrasing.room.met(use.movement)
    lines = [(tag, card.protect[tag]) for tag in met if tag in card.protect]
    if not lines and not use.second:
        taken = use.movement.gentler if use.step.take == "gentler" else None
        for line in caution_lines(phrasing, use, again=spoken_for):
            if taken is not None and taken.line[0].lower().rstrip(".") in line[0].lower():
                continue  # everybody does it like that here, and is told so
            yield "protect", filled_line(line, use, use.told_side)
    for tag, text in lines[:2]:
        said = _told(text, use, {})
        theirs = len(phrasing.room.cautions) == 1 and phrasing.room.theirs  # nobody else is there
        if not theirs and not said.lower().startswith("if "):
            whom = to_whom(phrasing, use, tag, spoken_for)
            said = f"{whom} {said[0].lower()}{said[1:]}" if whom else said
        yield "protect", (said,)


def _chosen(phrasing: Phrasing, card: Card, use: StepUse, guarded: bool) -> Iterator[PassageLine]:
    """Another way, with its reason: where the movement asks something, or the class is for beginners."""
    taken = {"gentler": use.movement.gentler, "stronger": use.movement.stronger}.get(use.step.take)
    if taken is not None and not taken.movement:
        line = _told(taken.line[0], use, {})
        if use.step.take == "gentler":
            frame = phrasing.wording.gentler_taken[use.place % len(phrasing.wording.gentler_taken)][0]
            line = frame.format(line=f"{line[0].lower()}{line[1:]}")
        yield "remind", (line,)
        return
    wanted = use.movement.effort >= NAMED_FROM or phrasing.brief.level in GENTLE_LEVELS
    if guarded or not wanted or not use.step.offer or not card.choice:
        return
    able = [text for text in card.choice if not phrasing.room.unwanted(text)]
    if able:
        yield "choice", (_told(able[(use.place + phrasing.habit) % len(able)], use, {}),)


def _numbered(phrasing: Phrasing, use: StepUse) -> Iterator[PassageLine]:
    """How many there will be, before they begin."""
    if not use.behaviour.is_reps or "remind" in use.step.lines or not use.step.carded:
        return
    wording = phrasing.wording
    begun = bool(SIDE_TOKENS & tokens(first_line(phrasing, use)))  # the side that begins is told there
    alternating = use.side == "alternating" and not begun
    lines = wording.number_alternating if alternating else wording.number_first
    line = lines[use.place % len(lines)]
    yield "setup", filled_line(line, use, use.told_side, n=LONGEST_NUMBER)


def _named(phrasing: Phrasing, use: StepUse, text: str) -> str:
    """The first sentence with the name before it, where a name helps: of work, and once."""
    name = use.name.replace(" (", ", ").replace(")", "")
    says = phrasing.school.say_names
    small = use.movement.effort < NAMED_FROM and says != "always"
    if says == "never" or small or use.movement.behaviour.is_rest or name.lower() in text.lower():
        return text
    lowered = text if text.startswith(("I ", "I'")) else text[0].lower() + text[1:]
    return f"{name}: {lowered}"


def _told(text: str, use: StepUse, kept: Mapping[str, str]) -> str:
    line = conditioned(text, kept)
    return filled_line((line,), use, use.told_side, n=LONGEST_NUMBER)[0] if line else ""


READING = ticks(0.6)  # between two sentences of a passage, besides the gap between any two lines
