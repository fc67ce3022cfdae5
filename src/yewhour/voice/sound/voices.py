"""Which voice speaks: the one that ships, or the neural one where it is installed."""

from pathlib import Path
from typing import NamedTuple, Protocol

from yewhour.voice.sound import neural_voice
from yewhour.voice.sound.shipped_voice import WORDS_PER_MIN, Samples, shipped_voice


class SpeakingVoice(Protocol):
    """A voice. rate: samples a second."""

    rate: int

    def say(self, text: str, words_per_min: float = WORDS_PER_MIN) -> Samples:
        """A line from its first sound to its last."""
        ...


class VoicePlaces(NamedTuple):
    """Where the neural voice is installed, and where what it said is kept."""

    installed: Path
    kept: Path


def voice_named(name: str, places: VoicePlaces) -> SpeakingVoice:
    """The voice with a name; "" for the best there is. Raises Problem for one there is not."""
    if name == neural_voice.NAME or (not name and neural_voice.installed(places.installed)):
        return neural_voice.NeuralVoice(*places)
    voice = shipped_voice()
    if name:
        voice.use(name)
    return voice
