"""Numbers as they are said: those below a thousand from data/voice/numbers.txt, others by `num2words`."""

from functools import cache, lru_cache
from pathlib import Path

NUMBERS = Path(__file__).resolve().parent.parent / "data/voice/numbers.txt"


@cache
def _small() -> list[str]:
    return NUMBERS.read_text(encoding="ascii").splitlines()


@lru_cache(maxsize=1000)
def number_word(number: int) -> str:
    """`twenty-one` for 21."""
    if 0 <= number < len(_small()):
        return _small()[number]
    # Numbers of a thousand and more hardly ever come up in a class.
    from num2words import num2words

    return str(num2words(number))
