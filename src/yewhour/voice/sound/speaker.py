"""Which voice speaks: the one that ships, or the neural one where it is installed."""

from pathlib import Path
from typing import NamedTuple, Protocol

from yewhour.voice.sound import neural
from yewhour.voice.sound.synth import WORDS_PER_MIN, Samples, synth


class Speaker(Protocol):
    """A voice. rate: samples a second."""

    rate: int

    def say(self, text: str, words_per_min: float = WORDS_PER_MIN) -> Samples:
        """A line from its first sound to its last."""
        ...


class Places(NamedTuple):
    """Where the neural voice is installed, and where what it said is kept."""

    installed: Path
    kept: Path


def speaker(name: str, places: Places) -> Speaker:
    """The voice with a name; "" for the best there is. Raises Problem for one there is not."""
    if name == neural.NAME or (not name and neural.installed(places.installed)):
        return neural.Neural(*places)
    voice = synth()
    if name:
        voice.use(name)
    return voice
