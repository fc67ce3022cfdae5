"""A voice that speaks lines: espeak-ng, which ships in a wheel and needs nothing of the system."""

import ctypes
import threading
from collections.abc import Callable
from functools import cache
from pathlib import Path

import espeakng_loader
import numpy as np

from yewhour.core.problem import Problem
from yewhour.voice.line_timing import PAUSE

USUAL = "en"
WORDS_PER_MIN = 150  # what the seconds of lines were calibrated with (docs/speech.md)
SLOWEST, FASTEST = 80, 320  # what it still speaks clearly
QUIET = 60  # of 32768: below this a sample is silence
_RETRIEVE, _UTF8, _RATE = 2, 1, 1  # of espeak_Initialize, espeak_Synth and espeak_SetParameter

Samples = np.ndarray[tuple[int], np.dtype[np.float32]]
_Heard = ctypes.CFUNCTYPE(ctypes.c_int, ctypes.POINTER(ctypes.c_short), ctypes.c_int, ctypes.c_void_p)


class ShippedVoice:
    """One voice. The library is one for the process, so there is one of these (see `synth`)."""

    def __init__(self) -> None:
        self._library = ctypes.CDLL(espeakng_loader.get_library_path())
        data = espeakng_loader.get_data_path().encode()
        self.rate: int = self._library.espeak_Initialize(_RETRIEVE, 0, data, 0)
        if self.rate <= 0:
            raise Problem("The voice can't be started.", data.decode(), "Install Yew Hour again.")
        self._parts: list[np.ndarray[tuple[int], np.dtype[np.int16]]] = []
        self._heard = _Heard(self._hear)  # kept, so that it lives as long as the library calls it
        self._library.espeak_SetSynthCallback(self._heard)
        self._lock = threading.Lock()
        self._known: dict[tuple[str, str, int], Samples] = {}
        self.voice = ""
        self.use(USUAL)

    def use(self, voice: str) -> None:
        """Speaks in another voice of those there are. Raises Problem for one there is not."""
        if voice != self.voice and self._library.espeak_SetVoiceByName(voice.encode()) != 0:
            raise Problem(f"There is no voice {voice!r}.", do=f"Use one of: {', '.join(voice_names())}.")
        self.voice = voice

    def say(self, text: str, words_per_min: float = WORDS_PER_MIN) -> Samples:
        """A line from its first sound to its last, from -1 to 1 at `rate` samples a second; none for silence.

        Pauses that are written in it are silence. What was said once is remembered.
        """
        speed = round(min(FASTEST, max(SLOWEST, words_per_min)))
        key = (self.voice, text, speed)
        with self._lock:
            if key not in self._known:
                self._known[key] = with_pauses(text, self.rate, lambda words: self._spoken(words, speed))
            return self._known[key]

    def _spoken(self, text: str, speed: int) -> Samples:
        self._parts = []
        content = text.replace("\0", " ").encode() + b"\0"
        self._library.espeak_SetParameter(_RATE, speed, 0)
        self._library.espeak_Synth(content, len(content), 0, 0, 0, _UTF8, None, None)
        self._library.espeak_Synchronize()
        if not self._parts:
            return np.zeros(0, np.float32)
        said = np.concatenate(self._parts)
        loud = np.flatnonzero(np.abs(said.astype(np.int32)) > QUIET)
        if not len(loud):
            return np.zeros(0, np.float32)
        return said[loud[0] : loud[-1] + 1].astype(np.float32) / np.float32(32768)

    def _hear(self, samples: object, count: int, _events: object) -> int:
        if samples and count:
            self._parts.append(np.ctypeslib.as_array(samples, (count,)).copy())
        return 0


def with_pauses(text: str, rate: int, spoken: Callable[[str], Samples]) -> Samples:
    """A line with the pauses that are written in it as silence. spoken: what speaks words without pauses."""
    parts = PAUSE.split(text)  # text, seconds, text, ...
    found = [spoken(parts[0])]
    for pause, words in zip(parts[1::2], parts[2::2], strict=True):
        found += [np.zeros(round(float(pause) * rate), np.float32), spoken(words)]
    return np.concatenate(found)


def voice_names() -> list[str]:
    """The names of the English voices that ship."""
    folder = Path(espeakng_loader.get_data_path()) / "lang" / "gmw"
    return sorted(one.name.lower() for one in folder.iterdir() if one.name.lower().startswith("en"))


@cache
def shipped_voice() -> ShippedVoice:
    """The voice of this process."""
    return ShippedVoice()
