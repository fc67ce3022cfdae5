"""Movements that stand in a list, where a word of every day is the name of one: `mountain, tree, chair`."""

from collections.abc import Sequence

from yewhour.core.promise.grammar import EVERY_DAY
from yewhour.core.promise.vocabulary import Lexicon, tokens_of

LEAST = 2  # others in a list, for it to be one of movements


def listed_movements(lexicon: Lexicon, pieces: Sequence[str]) -> dict[int, str]:
    """The movements whose names are words of every day, by their places among the pieces between commas;
    none, unless others there are movements by their names."""
    named: dict[int, str] = {}
    for place, piece in enumerate(pieces):
        phrase = tuple(token.plain for token in tokens_of(piece))
        movement = lexicon.phrases.get(phrase, {}).get("movement", "")
        if movement:
            named[place] = movement
    words = {place: pieces[place].strip().lower() for place in named}
    of_every_day = {place for place, word in words.items() if word in EVERY_DAY}
    if len(named) - len(of_every_day) < LEAST:
        return {}
    return {place: named[place] for place in of_every_day}
