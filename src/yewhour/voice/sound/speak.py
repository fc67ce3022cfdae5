"""Speaking a class into a file, and what became of it in words."""

from collections.abc import Callable
from pathlib import Path

from yewhour.core.lengths import show_length
from yewhour.core.made import Made
from yewhour.voice.sound.cast import parts_of
from yewhour.voice.sound.file import write_sound
from yewhour.voice.sound.speaker import Speaker


def speak(
    made: Made,
    path: Path,
    voice: Speaker,
    parts: str,
    slower: dict[str, float],
    progress: Callable[[float], None],
) -> str:
    """Speaks a class into a file and says what became of it. progress: told the share that is done.

    slower: how much slower than instructing each way of speaking is.
    """
    chosen = parts_of(parts)
    done = write_sound(made, path, voice, chosen, slower, progress)
    hurried = f"; {done.hurried} lines spoken faster to fit" if done.hurried else ""
    return (
        f"{path}: {show_length(done.length_s, True)}, {done.loudness:g} LUFS, "
        f"highest peak {done.peak:g} dB{hurried}"
    )
