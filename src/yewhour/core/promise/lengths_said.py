"""The lengths of a promise: of the whole, of its parts, of the rest at its end, and of what is held."""

import re
from collections.abc import Sequence
from typing import Literal, NamedTuple

from yewhour.core.lengths import show_length
from yewhour.core.promise.grammar import length_in
from yewhour.core.promise.wishes import State, Wish

# What a length is of that is not the whole's: "hold each for two minutes", "4-minute holds", "ten of rest".
_HELD_BEFORE = re.compile(
    r"\b(?:hold|holding|held|holds|stay|staying)\b"
    r"(?:\s+(?:each|every|all|the|poses?|postures?|shapes?|it|them|of|for|in|about))*\s*$",
    re.IGNORECASE,
)
_HELD_AFTER = re.compile(
    r"[\s-]*(?:long )?(?:holds?\b|(?:in )?(?:each|every|per)\b(?: (?:pose|shape|side|posture|one))?"
    r"|(?:a|on each|on either) (?:side|pose|shape)\b|apiece\b)",
    re.IGNORECASE,
)
_REST_AFTER = re.compile(
    r"[\s-]*(?:of |for |long |in )?(?:the |a )?"
    r"(?:sh?avasana|final rest|final relaxation|relaxation|rest)\b(?: at the end)?",
    re.IGNORECASE,
)
_PART_BEFORE = re.compile(
    r"\b(?:with|including|start(?:s|ing)?(?: with)?|begin(?:s|ning)?(?: with)?|end(?:s|ing)?(?: with| in)?"
    r"|finish(?:es|ing)?(?: with)?|plus)\s+(?:about |around |a |the )?$",
    re.IGNORECASE,
)
_FIRST, _ITS_WORDS = re.compile(r"\b(?:the )?(?:first|last)\s+$", re.IGNORECASE), re.compile(r"[^,;.]*")


class SaidLength(NamedTuple):
    """A length that was said: her words, its seconds, and of what it is."""

    said: str
    seconds: float
    of: Literal["whole", "part", "rest", "held"]


def lengths_of(text: str) -> tuple[list[SaidLength], str]:
    """The lengths in a text, and the text without them."""
    found: list[SaidLength] = []
    while (length := length_in(text)) is not None:
        start, end, seconds = length
        before, after = text[:start], text[end:]
        of: Literal["whole", "part", "rest", "held"] = "part" if _PART_BEFORE.search(before) else "whole"
        if first := _FIRST.search(before):  # and what is done in it is said behind it: "last 5 minutes lying"
            start, of, its_words = first.start(), "part", _ITS_WORDS.match(after)
            end += its_words.end() if its_words is not None else 0
        elif held := _HELD_BEFORE.search(before):
            start, of = held.start(), "held"
        elif held := _HELD_AFTER.match(after):
            end, of = end + held.end(), "held"
        elif rest := _REST_AFTER.match(after):
            end, of = end + rest.end(), "rest"
        found.append(SaidLength(text[start:end].strip(), seconds, of))
        text = f"{text[:start].rstrip()} {text[end:].lstrip()}"
    return found, text


def told_lengths(lengths: Sequence[SaidLength], bare_s: float, alone: bool) -> tuple[list[Wish], bool]:
    """The wishes that lengths make, and whether one of them is of the whole.

    Parts that stand beside each other are added up; a part by itself is all there is, where no other number
    stands there. bare_s: seconds of a number of minutes without its unit, which is the whole beside what is
    half as long at most: `45 hatha, 5 minutes meditation`. alone: a number stands there by itself.
    """
    whole = [one for one in lengths if one.of == "whole"]
    parts = [one for one in lengths if one.of == "part"]
    if len(whole) == 1 and 2 * whole[0].seconds <= bare_s:
        whole, parts = [], [*whole, *parts]
    if not (whole or bare_s or alone):
        whole, parts = parts[:1], parts[1:]
    wishes = list[Wish]()
    if whole:
        longest = max(whole, key=lambda one: one.seconds)
        others = [one for one in whole if one is not longest]
        others_s = sum(one.seconds for one in others)
        if longest.seconds <= others_s:
            said = ", ".join(one.said for one in whole)
            wishes.append(long_wish(said, longest.seconds + others_s, "guessed", "its parts, added up"))
        else:
            wishes.append(long_wish(longest.said, longest.seconds))
            parts += others
    wishes += [Wish(one.said, "", "unmet", "how long a part lasts follows from the whole") for one in parts]
    for one in lengths:
        if one.of == "rest":
            wishes.append(
                Wish(one.said, f"a rest of {show_length(one.seconds)}", kind="rest", key=str(one.seconds))
            )
        elif one.of == "held":
            why = "how long each is held follows from the length; any number can be set and locked"
            wishes.append(Wish(one.said, "", "unmet", why))
    return wishes, bool(whole)


def long_wish(said: str, seconds: float, state: State = "kept", reason: str = "") -> Wish:
    """A wish for a length of the whole."""
    return Wish(said, f"{show_length(seconds)} long", state, reason, "length", str(seconds))
