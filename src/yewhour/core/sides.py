"""Sides, and the side words of a line.

A line never says left or right by itself: it carries tokens (`{side}`, `{other}`), and the side it
is spoken for fills them. Mirroring changes the side, so it can't touch "all right" or "upright".
"""

import re
from functools import lru_cache
from typing import Literal, get_args

Side = Literal["right", "left", "both", "alternating"]
SIDES: tuple[Side, ...] = get_args(Side)
_OPPOSITE: dict[str, Side] = {"right": "left", "left": "right"}
_TOKEN = re.compile(r"\{([A-Za-z_]+)\}")
SIDE_TOKENS = frozenset({"side", "other", "Side", "Other"})


def mirrored(side: Side) -> Side:
    """The other side; both and alternating are their own mirror."""
    return _OPPOSITE.get(side, side)


def tokens(text: str) -> set[str]:
    """The names of the tokens in a line."""
    return set(_TOKEN.findall(text))


def fill(text: str, side: Side, **words: str) -> str:
    """The line with its tokens filled: side words for `side`, others from `words`.

    A capital first letter of a token's name gives a capital first letter. A side token where there
    is no single side is left as it stands, so that a check can find it.
    """
    return _filled(text, side, tuple(words.items())) if "{" in text else text


def evened(text: str) -> str:
    """The line with its side words alike, so that it takes as long on one side as on the other."""
    return text.replace("left", "right").replace("Left", "Right") if "eft" in text else text


def unmarked(text: str) -> str:
    """The line with tokens that nothing filled as plain words: nobody speaks a brace."""
    return _TOKEN.sub(r"\1", text) if "{" in text else text


@lru_cache(4000)
def _filled(text: str, side: Side, words: tuple[tuple[str, str], ...]) -> str:
    known = dict(words)
    if side in _OPPOSITE:
        known |= {"side": side, "other": mirrored(side)}

    def word(match: re.Match[str]) -> str:
        name = match.group(1)
        value = known.get(name[0].lower() + name[1:])
        if value is None:
            return match.group(0)
        return value[0].upper() + value[1:] if name[0].isupper() and value else value

    return _TOKEN.sub(word, text)
