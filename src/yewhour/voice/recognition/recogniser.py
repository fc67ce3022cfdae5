"""Hearing the lines of a class: an offline recogniser that knows no other words than the class's own."""

from __future__ import annotations

import math
import tempfile
from collections import Counter
from collections.abc import Callable, Sequence
from functools import cache
from itertools import pairwise
from pathlib import Path
from typing import Any, NamedTuple

import av
import numpy as np
from pocketsphinx import Decoder, Endpointer, get_model_path

from yewhour.core.take.line_following import words_of
from yewhour.voice.sound.shipped_voice import Samples

RATE = 16000
WINDOW_S = 0.3  # of quiet that ends a stretch of speech
TOLD_S = 0.6  # of speech between two looks at what was heard
OFTEN = 40  # the call and its acts are said among some hundred lines, and have to be thought of
# What is said behind the call and is no act, for it not to be taken for one.
OTHERWISE = (
    "is on the table", "the next one is here", "you are in the way", "and then to the other side",
    "what is that", "breathe in and breathe out", "left and right", "hands and feet", "please",
    "it was not what i said",
)  # fmt: skip
QUICK = {"ds": 2, "fwdflat": False, "bestpath": False}  # every other frame, and one pass instead of three
DISCOUNT = 0.8  # of what was seen, the rest for pairs of words that were not


class RecognisedWord(NamedTuple):
    """A word that was heard, and the seconds it took from the first sample on."""

    text: str
    start_s: float
    end_s: float


class SpeechWindow(NamedTuple):
    """What was heard of a stretch of speech so far; they are counted, and told again as they grow."""

    number: int
    words: list[RecognisedWord]


class LineRecogniser:
    """Hears words in sound, as they are said.

    partly: tells of a stretch while it is still going on. expecting: the lines that may be heard in a stretch
    that begins at a second; asked at the start of each, and the same object for the same lines. quick: three
    times as quick, and less sure of single words. call: words behind which one of the acts may be said, which
    is then listened to once more, as one of them.
    """

    def __init__(
        self,
        lines: Sequence[str],
        partly: bool = True,
        expecting: Callable[[float], Sequence[str]] | None = None,
        quick: bool = False,
        call: str = "",
        acts: Sequence[str] = (),
    ) -> None:
        self._partly, self._expecting = partly, expecting
        self._known_lines: Sequence[str] = ()
        called = [f"{call} {act}" for act in acts] * OFTEN
        self._decoder = _decoder((*lines, *called), quick)
        self._call = words_of(call)
        self._acts = _decoder((*acts, *OTHERWISE)) if call else None
        self._said = b""  # of the stretch that is going on, where acts are listened for
        self._ends = Endpointer(sample_rate=RATE, window=WINDOW_S)
        self._size = self._ends.frame_bytes
        self._waiting = b""
        self._hearing = False
        self._since_s = 0.0
        self._number = self._told = 0

    def _know(self, at_s: float) -> None:
        """Knows, in the stretch that begins now, the lines that are expected there and no others."""
        lines = self._expecting(at_s) if self._expecting is not None else None
        if lines and lines is not self._known_lines:
            self._known_lines = lines
            room = self._decoder.get_cmn(False)  # how the room and the microphone sound
            self._decoder = _decoder(tuple(lines))
            self._decoder.set_cmn(room)

    def hear(self, sound: Samples) -> list[SpeechWindow]:
        """Takes sound at RATE; gives what has been heard of the stretches of speech that it is part of."""
        self._waiting += _as_bytes(sound)
        found: list[SpeechWindow] = []
        while len(self._waiting) >= self._size:
            frame, self._waiting = self._waiting[: self._size], self._waiting[self._size :]
            speech = self._ends.process(frame)
            if speech is None:
                continue
            if not self._hearing:
                self._know(self._ends.speech_start)
                self._decoder.start_utt()
                self._hearing, self._since_s = True, self._ends.speech_start
                self._number, self._told, self._said = self._number + 1, 0, b""
            self._decoder.process_raw(speech, False, False)
            if self._acts is not None:
                self._said += speech
            self._told += len(speech)
            if not self._ends.in_speech:
                self._decoder.end_utt()
                self._hearing = False
                if self._acts is not None:
                    self._told = 0
                    found.append(SpeechWindow(self._number, self._as_asked(self._words())))
                    continue
            elif not self._partly or self._told < TOLD_S * RATE * 2:
                continue
            self._told = 0
            found.append(SpeechWindow(self._number, self._words()))
        return found

    def _as_asked(self, words: list[RecognisedWord]) -> list[RecognisedWord]:
        """The words of a stretch, those behind the call heard once more, as an act."""
        size = len(self._call)
        for at in range(len(words) - size, -1, -1):
            if [one.text for one in words[at : at + size]] == self._call:
                since_s = words[at + size - 1].end_s
                first = max(0, round((since_s - self._since_s) * RATE)) * 2
                rest = np.frombuffer(self._said[first:], np.int16).astype(np.float32) / np.float32(32767)
                return [*words[: at + size], *heard_once(self._acts, rest, since_s)]
        return words

    def end(self) -> list[SpeechWindow]:
        """There is no more sound: gives the stretch that was going on."""
        if not self._hearing:
            return []
        rest = self._ends.end_stream(self._waiting) if self._waiting else None
        if rest:
            self._decoder.process_raw(rest, False, False)
        self._decoder.end_utt()
        self._hearing = False
        return [SpeechWindow(self._number, self._words())]

    def _words(self) -> list[RecognisedWord]:
        return _words_of(self._decoder, self._since_s)


def _words_of(decoder: Any, since_s: float) -> list[RecognisedWord]:
    return [
        RecognisedWord(one.word.split("(")[0], since_s + one.start_frame / 100, since_s + one.end_frame / 100)
        for one in decoder.seg() or ()
        if one.word[0] not in "<["
    ]


def anybody() -> Any:
    """A recogniser that knows every word of everyday English: a second to load, and slower."""
    model = Path(get_model_path()) / "en-us"
    return Decoder(
        hmm=str(model / "en-us"), dict=str(model / "cmudict-en-us.dict"), lm=str(model / "en-us.lm.bin"),
        samprate=RATE, loglevel="FATAL",
    )  # fmt: skip


def heard_once(decoder: Any, sound: Samples, at_s: float) -> list[RecognisedWord]:
    """The words of one piece of sound at RATE that begins at a second."""
    if len(sound) < RATE // 10:
        return []
    decoder.start_utt()
    decoder.process_raw(_as_bytes(sound), False, True)
    decoder.end_utt()
    return _words_of(decoder, at_s)


def _as_bytes(sound: Samples) -> bytes:
    return (np.clip(sound, -1, 1) * 32767).astype(np.int16).tobytes()


@cache
def _pronounced() -> dict[str, str]:
    """The rows of the recogniser's dictionary for each word."""
    found: dict[str, str] = {}
    with (Path(get_model_path()) / "en-us" / "cmudict-en-us.dict").open(encoding="utf-8") as file:
        for row in file:
            word = row.split(" ", 1)[0].split("(", 1)[0]
            found[word] = found.get(word, "") + row
    return found


def _decoder(lines: Sequence[str], quick: bool = False) -> Any:
    """A recogniser that knows the words of these lines and no others: 20 ms."""
    known = _pronounced()
    spoken = [[word for word in words_of(line) if word in known] for line in lines]
    words = sorted({word for line in spoken for word in line})
    with tempfile.TemporaryDirectory() as room:
        dictionary, model = Path(room) / "words.dict", Path(room) / "lines.lm"
        dictionary.write_text("".join(known[word] for word in words), encoding="utf-8")
        model.write_text(bigrams(spoken), encoding="utf-8")
        return Decoder(
            hmm=str(Path(get_model_path()) / "en-us" / "en-us"), dict=str(dictionary), lm=str(model),
            samprate=RATE, loglevel="FATAL", **(QUICK if quick else {}),
        )  # fmt: skip


def bigrams(lines: Sequence[Sequence[str]]) -> str:
    """A model of which word follows which, in the ARPA form; other pairs are possible but unlikely."""
    single: Counter[str] = Counter()
    double: Counter[tuple[str, str]] = Counter()
    for line in lines:
        marked = ["<s>", *line, "</s>"]
        single.update(marked)
        double.update(pairwise(marked))
    total = sum(single.values())
    follows = Counter(first for first, _ in double.elements())
    rows = ["\\data\\", f"ngram 1={len(single)}", f"ngram 2={len(double)}", "", "\\1-grams:"]
    left = math.log10(1 - DISCOUNT)
    rows += [f"{math.log10(count / total):.4f} {word} {left:.4f}" for word, count in sorted(single.items())]
    rows += ["", "\\2-grams:"]
    rows += [
        f"{math.log10(DISCOUNT * count / follows[first]):.4f} {first} {second}"
        for (first, second), count in sorted(double.items())
    ]
    return "\n".join([*rows, "", "\\end\\", ""])


def resampled(sound: Samples, rate: int) -> Samples:
    """Sound at the rate of the recogniser."""
    resampler = av.AudioResampler("flt", "mono", RATE)
    frame = av.AudioFrame.from_ndarray(sound.reshape(1, -1), format="flt", layout="mono")
    frame.sample_rate = rate
    parts = [*resampler.resample(frame), *resampler.resample(None)]
    return np.concatenate([np.asarray(part.to_ndarray(), np.float32).reshape(-1) for part in parts])
