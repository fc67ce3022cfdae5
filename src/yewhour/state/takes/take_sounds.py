"""What lies in the folder of a take: class, marks, and sound, one file more each time it went on."""

import re
from pathlib import Path

CLASS, MARKS = "class.yewhour", "marks.jsonl"  # of a take, in its folder
_NAME = re.compile(r"sound(?:-(\d+(?:\.\d+)?))?\.flac")


def sound_from(folder: Path, at_s: float) -> Path:
    """The file for the sound from a second of the take on."""
    return folder / ("sound.flac" if at_s < 1 else f"sound-{at_s:.1f}.flac")


HEADER_BYTES = 20_000  # a file of sound that is no longer has none


def has_sound(folder: Path) -> bool:
    """Whether anything was recorded of a take."""
    return any(path.stat().st_size > HEADER_BYTES for _, path in sounds_in(folder))


def sounds_in(folder: Path) -> list[tuple[float, Path]]:
    """The sound files of a take, each with the second of the take it begins at, in order."""
    found = [(match, path) for path in folder.iterdir() if (match := _NAME.fullmatch(path.name))]
    return sorted((float(match.group(1) or 0), path) for match, path in found)
