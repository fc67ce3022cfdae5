"""Names: a movement found by any usual form of its name.

With or without "pose" or "exercise", hyphens, apostrophes, plurals; `Warrior II`, `warrior 2` and `warrior
two` are one. A movement's own name counts before another's traditional one.
"""

import re
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache

from yewhour.core.library.movement import Library, Movement

_WORD = re.compile(r"[^\W_]+(?:/[^\W_]+)*")
_NO_NAME = re.compile(r"[^\w\s'\u2019(),/&.-]")  # what no name has in it
_LEFT_OUT = {"the", "a", "pose", "poses", "posture", "exercise", "exercises", "asana"}
_NUMERALS = {"i": "1", "ii": "2", "iii": "3", "one": "1", "two": "2", "three": "3", "four": "4", "five": "5"}


@lru_cache(8000)
def plain_name(name: str) -> str:
    """A name in the form that all its spellings share."""
    words = _WORD.findall(name.lower().replace("'", "").replace("\u2019", ""))
    kept = [_NUMERALS.get(word, word) for word in words if word not in _LEFT_OUT] or words
    return " ".join(map(_singular, kept))


def _singular(word: str) -> str:
    return word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith("ss") else word


def spellings(movement: Movement) -> Iterator[str]:
    """Every name a movement goes by, but for the traditional one, which others may share."""
    yield from (movement.id, movement.name, *movement.aliases)


class NameIndex:
    """Finds a movement by its id, its names or its aliases."""

    def __init__(self, library: Library) -> None:
        self.known: dict[str, str] = {}
        for movement in library.values():
            for name in spellings(movement):
                self.known.setdefault(plain_name(name), movement.id)
        for movement in library.values():
            if movement.traditional:
                self.known.setdefault(plain_name(movement.traditional), movement.id)
        self.library = library

    def find(self, name: str) -> str | None:
        """A movement's id."""
        return None if not name.strip() or _NO_NAME.search(name) else self.known.get(plain_name(name))

    def nearest(self, name: str, most: int = 3) -> list[str]:
        """Names much like one that is not there."""
        close = near_names(name, self.known, most * 2)
        return list(dict.fromkeys(self.known[one].replace("-", " ") for one in close))[:most]


def near_names(name: str, names: Iterable[str], most: int = 1, least: float = 0.6) -> list[str]:
    """The plain names most like one, the likest first; least: how like, 0 to 1."""
    # 20 ms; a name that is not there hardly ever comes up.
    from rapidfuzz import process
    from rapidfuzz.distance import Indel

    alike = process.extract(
        plain_name(name), list(names), scorer=Indel.normalized_similarity, limit=most, score_cutoff=least
    )
    return [found for found, _, _ in alike]


def shared_names(library: Library) -> Iterator[tuple[Movement, str, Movement]]:
    """(movement, name, the one that has it already) of each name that two movements go by."""
    owners: dict[str, Movement] = {}
    for movement in library.values():
        for name in spellings(movement):
            owner = owners.setdefault(plain_name(name), movement)
            if owner.id != movement.id:
                yield movement, name, owner


def listed(words: Sequence[str]) -> str:
    """`a, b and c`."""
    return " and ".join([", ".join(words[:-1]), words[-1]] if len(words) > 1 else words)
