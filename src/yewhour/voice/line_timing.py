"""What a line consists of, and how long it takes to say."""

import re
from functools import lru_cache

from yewhour.core.purpose import Delivery
from yewhour.core.wording.speech import LineParts, SpeechRates, line_seconds
from yewhour.voice.numbers import number_word
from yewhour.voice.syllables import syllables

PAUSE = re.compile(r"\[(\d+(?:\.\d+)?)s\]")
_WORD = re.compile(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
_NUMBER = re.compile(r"\d{1,9}")
_COMMA = re.compile(r"[,;:—–…](?=\s)")
_STOP = re.compile(r"[.!?](?=\s+\S)")


@lru_cache(maxsize=50_000)
def line_parts(text: str) -> LineParts:
    """The syllables, words and pauses of a line; numbers count as the words they are said as."""
    pause_s = sum(float(found) for found in PAUSE.findall(text))
    said = PAUSE.sub(" ", text)
    said = _NUMBER.sub(lambda match: f" {number_word(int(match.group()))} ", said)
    words = _WORD.findall(said)
    return LineParts(
        syllables=sum(syllables(word) for word in words),
        words=len(words),
        commas=len(_COMMA.findall(said.strip())),
        stops=len(_STOP.findall(said.strip())),
        letters=sum(len(word) for word in words),
        pause_s=pause_s,
    )


class LineTimer:
    """Seconds for lines, in one voice; the rate is the teacher's against that voice."""

    def __init__(self, voice: SpeechRates) -> None:
        self.voice = voice

    def __call__(self, text: str, delivery: Delivery, rate: float = 1.0) -> float:
        """Seconds to say a line, the pauses written in it included."""
        return line_seconds(line_parts(text), self.voice, delivery, rate)
