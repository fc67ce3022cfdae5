"""Speaking a class into a file, and what became of it in words."""

from collections.abc import Callable
from pathlib import Path

from yewhour.core.lengths import show_length
from yewhour.core.timed_class import TimedClass
from yewhour.voice.sound.sound_events import parse_parts
from yewhour.voice.sound.sound_file import write_sound
from yewhour.voice.sound.voices import SpeakingVoice


def speak_class(
    timed: TimedClass,
    path: Path,
    voice: SpeakingVoice,
    parts: str,
    slower: dict[str, float],
    progress: Callable[[float], None],
) -> str:
    """Speaks a class into a file and says what became of it. progress: told the share that is done.

    slower: how much slower than instructing each way of speaking is.
    """
    chosen = parse_parts(parts)
    done = write_sound(timed, path, voice, chosen, slower, progress)
    rows = [
        f"{path}: {show_length(done.length_s, True)}, {done.loudness:g} LUFS, highest peak {done.peak:g} dB"
    ]
    if done.hurried:
        rows.append(f"{len(done.hurried)} lines spoken faster to fit:")
        rows += [f"  {show_length(at_s, True)}  {text}" for at_s, text in done.hurried]
    return "\n".join(rows)
