"""Fits the coefficients of data/voice/voice.toml to a real synthesiser, and says how far off they are.

Needs the package `espeakng-loader` (pip install espeakng-loader), which carries espeak-ng and needs no root.
Lines are those of the library and of the wording, filled for one side. Every second one (by a hash of its
text) is fitted; the errors printed are of the others, which are not fitted. docs/speech.md has the figures.
"""

import ctypes
import hashlib
import sys

import numpy as np

from yewhour.core.script.speech import Voice, line_seconds
from yewhour.core.sides import fill
from yewhour.store.paths import DATA
from yewhour.store.terms import load_voice
from yewhour.store.words import load_words
from yewhour.voice.speaking import spoken

RATE = 150  # words a minute asked of the synthesiser; a calm teaching rate
QUIET = 60  # of 32768: below this a sample is silence


class Synthesiser:
    """espeak-ng by way of ctypes: how long a line is."""

    def __init__(self) -> None:
        import espeakng_loader

        self.library = ctypes.CDLL(espeakng_loader.get_library_path())
        self.hertz = self.library.espeak_Initialize(2, 0, espeakng_loader.get_data_path().encode(), 0)
        self.parts: list[np.ndarray] = []
        kind = ctypes.CFUNCTYPE(ctypes.c_int, ctypes.POINTER(ctypes.c_short), ctypes.c_int, ctypes.c_void_p)
        self.callback = kind(self._take)
        self.library.espeak_SetSynthCallback(self.callback)
        self.library.espeak_SetVoiceByName(b"en-gb")
        self.library.espeak_SetParameter(1, RATE, 0)

    def _take(self, samples: object, count: int, _events: object) -> int:
        if samples and count:
            self.parts.append(np.ctypeslib.as_array(samples, (count,)).copy())  # type: ignore[call-overload]
        return 0

    def seconds(self, text: str) -> float:
        """Seconds from the first sound of a line to its last."""
        self.parts = []
        content = text.encode() + b"\0"
        self.library.espeak_Synth(content, len(content), 0, 0, 0, 1, None, None)
        self.library.espeak_Synchronize()
        loud = np.flatnonzero(np.abs(np.concatenate(self.parts)) > QUIET)
        return float(loud[-1] - loud[0]) / self.hertz


def lines() -> list[str]:
    """Every line that ships, filled for the right side."""
    words, _ = load_words()
    found = set()
    for movement in words.library.values():
        options = [option.line for option in (movement.gentler, movement.stronger) if option]
        for wordings in [line for lines in movement.lines.values() for line in lines] + options:
            for text in wordings:
                found.add(
                    fill(text, "right", name=movement.name.lower(), breath="exhale", n="four", prop="strap")
                )
    return sorted(text for text in found if "[" not in text and "{" not in text)


def features(text: str) -> list[float]:
    """One, syllables, words, commas, stops, letters: in the order of voice.toml."""
    said = spoken(text)
    return [1.0, said.syllables, said.words, said.commas, said.stops, said.letters]


def main() -> None:
    """Fits, prints the errors, and with --write writes the coefficients."""
    synthesiser = Synthesiser()
    texts = lines()
    seconds = {text: synthesiser.seconds(text) for text in texts}
    fitted = [text for text in texts if hashlib.sha256(text.encode()).digest()[0] % 2]
    kept = [text for text in texts if text not in set(fitted)]
    # Relative errors count a line, absolute ones in the total; the weight is between the two.
    lengths = np.array([seconds[text] for text in fitted])
    weights = lengths**-0.5
    table = np.array([features(text) for text in fitted]) * weights[:, None]
    found, *_ = np.linalg.lstsq(table, lengths * weights, rcond=None)
    old = load_voice()
    voice = Voice(*(round(float(value), 4) for value in found), slower=old.slower)
    print(f"{len(fitted)} lines fitted: {voice}")
    for name, tried in (("fitted now", voice), ("in the file", old)):
        errors = [line_seconds(spoken(text), tried) / seconds[text] - 1 for text in kept]
        total = (
            sum(line_seconds(spoken(text), tried) for text in kept) / sum(seconds[text] for text in kept) - 1
        )
        long = [abs(e) for e, text in zip(errors, kept, strict=True) if len(text.split()) >= 4]
        print(
            f"{name}: {len(kept)} other lines, mean absolute error {np.mean(np.abs(errors)):.1%} a line "
            f"({np.mean(long):.1%} for lines of four words and more), total {total:+.1%}"
        )
    if "--write" in sys.argv:
        path = DATA / "voice/voice.toml"
        text = path.read_text()
        for name in ("start_s", "syllable_s", "word_s", "comma_s", "stop_s", "letter_s"):
            old_line = next(line for line in text.splitlines() if line.startswith(f"{name} ="))
            text = text.replace(old_line, f"{name} = {getattr(voice, name)}")
        path.write_text(text)


if __name__ == "__main__":
    main()
