"""What was heard of a recording: words, and the second each was said at."""

import re
from collections.abc import Iterable, Sequence
from typing import NamedTuple

import msgspec

_WORD = re.compile(r"[^\W_]+(?:['’][^\W_]+)*")
_NUMBERS = (
    "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen", "twenty",
)  # fmt: skip
_TENS = ("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
APART_S = 1.2  # of silence between two stretches of speech


class HeardWord(NamedTuple):
    """A word in the form that all its spellings share, and its seconds."""

    text: str
    start_s: float
    end_s: float


class SpeechStretch(msgspec.Struct, frozen=True):
    """A stretch of speech as it was written down, and its seconds."""

    start_s: float
    end_s: float
    text: str


class Transcript(msgspec.Struct, frozen=True):
    """All that was heard. length_s: of the recording, as far as it is known. messages: what was wrong."""

    talks: tuple[SpeechStretch, ...]
    words: tuple[HeardWord, ...]
    length_s: float
    messages: tuple[str, ...] = ()


def plain_words(text: str) -> list[str]:
    """The words of a line in the form that all their spellings share: small, numbers as words."""
    found: list[str] = []
    for word in _WORD.findall(text.lower()):
        bare = word.replace("'", "").replace("’", "")
        found += _number(int(bare)) if bare.isascii() and bare.isdigit() and len(bare) < 3 else [bare]
    return found


def _number(value: int) -> list[str]:
    if value <= 20:
        return [_NUMBERS[value]]
    return [_TENS[value // 10 - 2], *([_NUMBERS[value % 10]] if value % 10 else [])]


def timed_words(talk: SpeechStretch) -> list[HeardWord]:
    """The words of a stretch, its time shared out by their letters."""
    words = plain_words(talk.text)
    letters = [len(word) + 1 for word in words]
    each = (talk.end_s - talk.start_s) / max(1, sum(letters))
    found, at = [], talk.start_s
    for word, count in zip(words, letters, strict=True):
        found.append(HeardWord(word, at, at + count * each))
        at += count * each
    return found


def transcript_of(
    talks: Sequence[SpeechStretch], length_s: float = 0.0, messages: Iterable[str] = ()
) -> Transcript:
    """A hearing of stretches in the order of time."""
    words = tuple(word for talk in talks for word in timed_words(talk))
    return Transcript(tuple(talks), words, max([length_s, *(talk.end_s for talk in talks)]), tuple(messages))


def joined_words(words: Sequence[HeardWord], apart_s: float = APART_S) -> list[SpeechStretch]:
    """Words that follow each other without a silence, as stretches."""
    found: list[list[HeardWord]] = []
    for word in words:
        if found and word.start_s - found[-1][-1].end_s <= apart_s:
            found[-1].append(word)
        else:
            found.append([word])
    return [
        SpeechStretch(one[0].start_s, one[-1].end_s, " ".join(word.text for word in one)) for one in found
    ]
