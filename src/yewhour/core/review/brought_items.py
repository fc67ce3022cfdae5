"""What a recording brought in was of: what was taught, each side of it, where it began and ended."""

import re
from bisect import bisect_left
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.library.position import base_of
from yewhour.core.review.listening.free_listener import ENTERED, FreeListener, HeardMovement, sentence_ends
from yewhour.core.review.listening.sides import OTHER, SIDE_S, TURN
from yewhour.core.review.without_plan import SWITCH, sided
from yewhour.core.transcript.mentions import Mention
from yewhour.core.transcript.transcript import SpeechStretch, Transcript, plain_words

PASSED_S, THERE_S = 8.0, 28.0  # so soon a position was only gone through; and where the next is done there
STRIDES = ("split", "wide")  # bases with a foot in front
SAME_S = 150.0  # a movement that is named again so soon, with nothing between, is the same one
ENTERED_S = 20.0  # in which it is told on which side a movement is entered; later it is the way to the next
NEAR_WORDS = 12  # before a movement, in which its side may be told
CAT_COW, BOTH = ("cat", "cow"), "cat-cow"
OPPOSITE = "opposite"  # of the first side, which words told
NAMED_S, SURELY = 20.0, 0.9  # near a movement that was heard; a certainty that no mere name parts
_COUNT = re.compile(
    r"\b(one|two|three|four|five|six|seven|eight|nine|ten|twelve|fifteen|twenty|thirty) "
    r"(?:more |full |deep |slow )*"
    r"(breaths?|times?|reps?|repetitions|rounds?|circles|rolls|lifts|raises|squats|pulses|kicks|"
    r"of (?:them|those|each))\b"
)
_VALUES = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9,
    "ten": 10, "twelve": 12, "fifteen": 15, "twenty": 20, "thirty": 30,
}  # fmt: skip


class BroughtItem(msgspec.Struct):
    """A movement that was done: from a second to another, on a side ("" for not known), with a number (0)."""

    movement: str
    block: bool
    start_s: float
    end_s: float
    side: str
    count: int
    again: bool = False  # after a change of side was said


def taught(
    hearing: Transcript,
    heard: Sequence[HeardMovement],
    listener: FreeListener,
    said: Sequence[SpeechStretch],
) -> tuple[list[Mention], dict[int, str]]:
    """What was taught, named or not, each side of it where it begins; blocks that were named besides. And the
    sides that are known by how one lies, or OPPOSITE for a second side, by the words they begin at."""
    starts = [word.start_s for word in hearing.words]
    found, sides = list[Mention](), dict[int, str]()
    for one in heard:
        cat_cow = one.movement in CAT_COW
        movement = BOTH if cat_cow else one.movement
        for at_s in (one.start_s, *_second_side(one, listener, said)):
            at = min(bisect_left(starts, at_s), len(starts) - 1)
            lain = [side for from_s, side in one.lain if from_s <= max(at_s, one.lain[0][0])]
            if lain:
                sides[at] = lain[-1]
            elif at_s != one.start_s:
                sides[at] = OPPOSITE
            if not (found and found[-1].movement == movement and cat_cow):
                found.append(Mention(movement, cat_cow, at, 0, max(at_s, starts[at])))
    named = listener.names.mentions(hearing.words, sentence_ends(said))
    found += [one for one in named if one.block and one.movement != BOTH]
    found += [
        one
        for one in named
        if not one.block and not _stands_in(one, heard, listener.names.announced(hearing.words, one))
    ]
    return sorted(found, key=lambda one: one.at), sides


def _stands_in(named: Mention, heard: Sequence[HeardMovement], announced: bool) -> bool:
    """Whether a movement that was named is among those that were heard; or is only mentioned within one that
    is sure."""
    same = any(
        one.movement == named.movement and one.start_s - NAMED_S <= named.start_s <= one.end_s + NAMED_S
        for one in heard
    )
    within = any(one.sure >= SURELY and one.start_s <= named.start_s < one.end_s for one in heard)
    return same or (within and not announced)


def _second_side(
    one: HeardMovement, listener: FreeListener, said: Sequence[SpeechStretch]
) -> tuple[float, ...]:
    """The second at which a one-sided movement goes on to its other side, where that was said."""
    if listener.names.library[one.movement].sides != "one":
        return ()
    if one.lain:
        return tuple(at_s for at_s, _ in one.lain[1:2])
    first = ""
    for talk in said:
        if not one.start_s - 0.5 <= talk.start_s < one.end_s:
            continue
        words = plain_words(talk.text)
        side = listener.sides.side_of(one.movement, words)
        later = talk.start_s - one.start_s >= SIDE_S
        turns = TURN.search(" ".join(words)) is not None or (first and side and side != first)
        if later and turns and len(sided(words)) < 2 + bool(first):
            return (talk.start_s,)
        first = first or side
    return ()


def items_of(
    hearing: Transcript,
    mentions: Sequence[Mention],
    sides: Mapping[int, str],
    said: Sequence[SpeechStretch],
    listener: FreeListener,
) -> list[BroughtItem]:
    switches = [talk.start_s for talk in said if SWITCH.search(" ".join(plain_words(talk.text)))]
    items: list[BroughtItem] = []
    for number, one in enumerate(mentions):
        until = mentions[number + 1].at if number + 1 < len(mentions) else len(hearing.words)
        before = mentions[number - 1].at + mentions[number - 1].size if number else 0
        lain = sides.get(one.at, "")
        side = lain if lain in OTHER else _side(hearing, one, before, until, listener)
        words = " ".join(word.text for word in hearing.words[one.at : until])
        match = _COUNT.search(words)
        count = _VALUES[match.group(1)] if match else 0
        last = items[-1] if items else None
        switched = last is not None and any(last.start_s < at_s <= one.start_s + 4 for at_s in switches)
        if last is not None:
            last.end_s = max(last.end_s, one.start_s)
        if last is not None and lain == OPPOSITE and last.movement == one.movement:
            side, switched = OTHER.get(last.side, side), True
            last.side = last.side or OTHER.get(side, "")
        elif last is not None and _same(last, one, side, switched):
            last.count = last.count or count
            last.side = last.side or side
            continue
        items.append(BroughtItem(one.movement, one.block, one.start_s, one.start_s, side, count, switched))
    if items:
        items[-1].end_s = max(items[-1].start_s, hearing.length_s)
    _along_a_chain(items, listener)
    return items


def _along_a_chain(items: Sequence[BroughtItem], listener: FreeListener) -> None:
    """Gives a movement without a word of its side that of what it comes out of: a foot that is in front stays
    there until somebody says so, and "the other side" is the other one of what it was done on."""
    foot, last = "", dict[str, str]()
    for one in items:
        movement = None if one.block else listener.names.library[one.movement]
        sided = movement is not None and movement.sides == "one"
        strides = sided and movement is not None and base_of(movement.start) in STRIDES
        if sided and one.again and not one.side:
            one.side = OTHER.get(last.get(one.movement, ""), "")
        if one.again or not strides:
            foot = ""
        if strides:
            one.side = one.side or foot
            foot = one.side
        last[one.movement] = one.side or last.get(one.movement, "")


def _goes_through(place: Mention, after: Mention, library: Library) -> bool:
    """Whether a position is only gone through on the way to what follows: soon, or where that is done."""
    taken_s = after.start_s - place.start_s
    if after.block and after.movement != BOTH:
        return False
    there = library[CAT_COW[0] if after.block else after.movement].start
    same = {*map(base_of, there.split(" or "))} == {
        *map(base_of, library[place.movement].start.split(" or "))
    }
    return taken_s < (THERE_S if same else PASSED_S)


def without_places(
    mentions: Sequence[Mention], sides: dict[int, str], listener: FreeListener
) -> list[Mention]:
    """What was taught, without the positions that are only gone through: what follows at once begins there.

    sides: known by the words they begin at; what begins earlier is known by those.
    """
    places, library, kept = listener.descriptions.places, listener.names.library, list[Mention]()
    for number in reversed(range(len(mentions))):
        one, before = mentions[number], mentions[number - 1] if number else None
        after = kept[-1] if kept and one.movement in places and kept[-1].movement not in places else None
        if after is not None and _goes_through(one, after, library):
            kept[-1] = after._replace(at=one.at, size=0, start_s=one.start_s)
            if after.at in sides:
                sides[one.at] = sides.pop(after.at)
        elif (
            before is None
            or one.movement not in places
            or before.movement in places
            or one.start_s - before.start_s >= PASSED_S
            or not _goes_through(one, before._replace(start_s=one.start_s), library)
        ):
            kept.append(one)
    return kept[::-1]


def _same(last: BroughtItem, one: Mention, side: str, switched: bool) -> bool:
    if last.movement != one.movement or switched or one.start_s - last.start_s > SAME_S:
        return False
    return not (side and last.side and side != last.side)


def _side(hearing: Transcript, one: Mention, before: int, until: int, listener: FreeListener) -> str:
    """The side a movement is done on: by what is said as it begins; else the last side just before it."""
    if one.block or listener.names.library[one.movement].sides != "one":
        return ""
    said = hearing.words[one.at : min(until, one.at + ENTERED)]
    told = [word.text for word in said if word.start_s <= one.start_s + ENTERED_S]
    ahead = [word.text for word in hearing.words[max(before, one.at - NEAR_WORDS) : one.at]]
    found = listener.sides.side_of(one.movement, told) or listener.sides.side_of(one.movement, ahead)
    return found or next((word for word in reversed(ahead) if sided([word])), "")


def title_of(title: str) -> str:
    """A title as an outline can have it."""
    words = " ".join(re.sub(r"[^\w\s'&,-]", " ", title.replace("_", " ")).split())[:80] or "Brought in"
    return words[:1].upper() + words[1:]


def note_of(text: str) -> str:
    """A note, in one line."""
    return " ".join(text.split())[:160]


def talk_lines(movement: str, talks: Sequence[SpeechStretch]) -> list[str]:
    """Her own words as lines of a talk."""
    lines = [f"{movement}"]
    lines += [f"  > say: {as_said(talk.text)}" for talk in talks]
    return lines


def as_said(text: str) -> str:
    """A sentence as it can stand in an outline, whole."""
    plain = " ".join(text.split()).replace("|", ",").replace("//", " ")
    return f"{plain[:1].upper()}{plain[1:]}"
