"""Seconds a line takes to say: linear in its syllables, words, letters and pauses at the teacher's rate.

What a line consists of (LineParts) is counted in `yewhour.voice`; the formula and its coefficients are
here. The coefficients were fitted by tools/calibrate_voice.py; docs/speech.md says how.
"""

from collections.abc import Callable

import msgspec

from yewhour.core.lengths import ticks
from yewhour.core.problem import Problem
from yewhour.core.purpose import Delivery

GAP = ticks(0.4)  # the least silence between two lines
Duration = Callable[[str, str], int]  # (text, purpose) -> ticks
LineSeconds = Callable[[str, Delivery, float], float]  # (line, delivery, the teacher's rate)


class LineParts(msgspec.Struct, frozen=True):
    """What there is to say in a line: counts, and the seconds of pauses written in it."""

    syllables: int
    words: int
    commas: int
    stops: int
    letters: int
    pause_s: float = 0.0


class SpeechRates(msgspec.Struct, frozen=True):
    """Seconds for each part of a line, and how much slower than instructing each delivery is."""

    start_s: float
    syllable_s: float
    word_s: float
    comma_s: float
    stop_s: float
    letter_s: float
    slower: dict[Delivery, float]


def line_seconds(
    spoken: LineParts, voice: SpeechRates, delivery: Delivery = "instruct", rate: float = 1.0
) -> float:
    """Seconds to say a line. `stops` counts the full stops inside the line, not its last one.

    rate: the teacher's against the voice, 1.1 for a tenth quicker; written pauses are not changed.
    """
    if spoken.words == 0:
        return spoken.pause_s
    speaking = voice.start_s + voice.syllable_s * spoken.syllables + voice.word_s * spoken.words
    speaking += voice.letter_s * spoken.letters  # for the consonants that syllables do not count
    pausing = voice.comma_s * spoken.commas + voice.stop_s * spoken.stops
    return (speaking + pausing) * voice.slower[delivery] / rate + spoken.pause_s


SLOWEST_VOICE, FASTEST_VOICE = 0.5, 2.0


def read_rate(estimated_s: float, took_s: float) -> float:
    """The teacher's rate from reading aloud what the voice would say in `estimated_s` (seconds at rate 1).

    Raises Problem when it was read so fast or so slowly that it can't have been read.
    """
    rate = round(estimated_s / max(0.1, took_s), 2)
    if not SLOWEST_VOICE <= rate <= FASTEST_VOICE:
        raise Problem(
            f"{took_s:.0f} s can't be right for that paragraph.",
            "voice",
            "Press when you start, read it all as you would in class, and press when you are done.",
        )
    return rate
