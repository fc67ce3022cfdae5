"""Numbers as they are said: those below a thousand from data/voice/numbers.txt, others by `num2words`."""

from functools import cache, lru_cache
from pathlib import Path
from typing import TYPE_CHECKING

from yewhour.files.late import late

if TYPE_CHECKING:
    import num2words
else:
    num2words = late("num2words")  # numbers of a thousand and more hardly ever come up in a class


NUMBERS = Path(__file__).resolve().parent.parent / "data/voice/numbers.txt"


@cache
def _small() -> list[str]:
    return NUMBERS.read_text(encoding="ascii").splitlines()


@lru_cache(maxsize=1000)
def number_word(number: int) -> str:
    """`twenty-one` for 21."""
    if 0 <= number < len(_small()):
        return _small()[number]
    return str(num2words.num2words(number))
