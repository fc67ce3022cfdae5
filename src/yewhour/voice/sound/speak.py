"""Speaking a class into a file, with its progress on a terminal."""

from pathlib import Path
from typing import TextIO

from yewhour.core.lengths import show_length
from yewhour.core.made import Made
from yewhour.voice.sound.cast import parts_of
from yewhour.voice.sound.file import write_sound
from yewhour.voice.sound.speaker import Speaker


def speak(
    made: Made, path: Path, voice: Speaker, parts: str, slower: dict[str, float], terminal: TextIO | None
) -> str:
    """Speaks a class into a file and says what became of it. terminal: where the progress is shown.

    slower: how much slower than instructing each way of speaking is.
    """
    chosen = parts_of(parts)
    shown = -1

    def progress(share: float) -> None:
        nonlocal shown
        percent = int(share * 100)
        if terminal is not None and terminal.isatty() and percent != shown:
            shown = percent
            print(f"\\ryewhour: {percent} %", end="" if percent < 100 else "\\n", file=terminal, flush=True)

    done = write_sound(made, path, voice, chosen, slower, progress)
    hurried = f"; {done.hurried} lines spoken faster to fit" if done.hurried else ""
    return (
        f"{path}: {show_length(done.length_s, True)}, {done.loudness:g} LUFS, "
        f"highest peak {done.peak:g} dB{hurried}"
    )
