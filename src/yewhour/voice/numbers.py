"""Numbers as they are said."""

from functools import lru_cache


@lru_cache(maxsize=1000)
def number_word(number: int) -> str:
    """`twenty-one` for 21."""
    from num2words import num2words

    return str(num2words(number))
