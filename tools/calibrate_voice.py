"""Fits the coefficients of data/voice/voice.toml to a real synthesiser, and says how far off they are.

Lines are those of the library and of the wording, filled for one side. Every second one (by a hash of its
text) is fitted; the errors printed are of the others, which are not fitted. docs/speech.md has the figures.
"""

import hashlib
import sys

import numpy as np

from yewhour.content.paths import DATA
from yewhour.content.terms import load_voice
from yewhour.core.sides import fill
from yewhour.core.wording.speech import SpeechRates, line_seconds
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.line_timing import line_parts
from yewhour.voice.sound.shipped_voice import USUAL, WORDS_PER_MIN, shipped_voice


class Synthesiser:
    """The voice that ships: how long a line is."""

    def seconds(self, text: str) -> float:
        """Seconds from the first sound of a line to its last."""
        voice = shipped_voice()
        voice.use(USUAL)
        return len(voice.say(text, WORDS_PER_MIN)) / voice.rate


def lines() -> list[str]:
    """Every line that ships, filled for the right side."""
    words, _ = load_teaching_data()
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
    said = line_parts(text)
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
    voice = SpeechRates(*(round(float(value), 4) for value in found), slower=old.slower)
    print(f"{len(fitted)} lines fitted: {voice}")
    for name, tried in (("fitted now", voice), ("in the file", old)):
        errors = [line_seconds(line_parts(text), tried) / seconds[text] - 1 for text in kept]
        total = (
            sum(line_seconds(line_parts(text), tried) for text in kept) / sum(seconds[text] for text in kept)
            - 1
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
