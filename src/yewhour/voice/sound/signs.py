"""Signs without words: a low bell for a section, a tone for each side, a rise and a fall for the breath."""

import numpy as np

from yewhour.voice.sound.shipped_voice import Samples

BELL_HZ = 174.6
SIDE_HZ = {"right": 659.3, "left": 440.0}  # right is the higher one
CONFIRMED_HZ = (523.3, 784.0)
BREATH_HZ = (196.0, 261.6)  # from the empty breath to the full one
LOUD = {"bell": 0.30, "side": 0.22, "breath": 0.07}  # of full scale; speech peaks at about 0.7


def bell(rate: int) -> Samples:
    """A low bell, three seconds long: a root and partials that ring out sooner the higher they are."""
    at = np.arange(3 * rate) / rate
    sound = sum(
        loud * np.sin(2 * np.pi * BELL_HZ * times * at) * np.exp(-at * fade)
        for times, loud, fade in ((1, 1.0, 1.2), (2.0, 0.5, 1.8), (2.4, 0.35, 2.4), (3.0, 0.2, 3.2))
    )
    return _soft(LOUD["bell"] * np.asarray(sound) / 2, rate)


def side(which: str, rate: int) -> Samples:
    """One tone for the right, twice a lower one for the left."""
    length = 0.22
    at = np.arange(round(length * rate)) / rate
    tone = _soft(LOUD["side"] * np.sin(2 * np.pi * SIDE_HZ[which] * at), rate)
    if which == "right":
        return tone
    return np.concatenate([tone, np.zeros(round(0.1 * rate), np.float32), tone])


def confirmed(rate: int) -> Samples:
    """Two short tones, the second higher: it is done."""
    at = np.arange(round(0.09 * rate)) / rate
    tones = [_soft(LOUD["side"] * np.sin(2 * np.pi * hz * at), rate) for hz in CONFIRMED_HZ]
    return np.concatenate([tones[0], np.zeros(round(0.03 * rate), np.float32), tones[1]])


def breath(phase: str, seconds: float, rate: int) -> Samples:
    """A tone that rises as the breath comes in, falls as it goes out, and stays where it is held."""
    count = max(1, round(seconds * rate))
    low, high = BREATH_HZ
    first, last = {"inhale": (low, high), "full": (high, high), "exhale": (high, low)}.get(phase, (low, low))
    uses = np.cumsum(np.linspace(first, last, count)) / rate
    loud = LOUD["breath"] * (0.4 if phase in ("full", "empty") else 1.0)
    return _soft(loud * np.sin(2 * np.pi * uses), rate, min(0.4, seconds / 3))


def _soft(sound: object, rate: int, edge_s: float = 0.02) -> Samples:
    """A sound without clicks at its ends."""
    samples = np.asarray(sound, np.float32)
    edge = min(len(samples) // 2, round(edge_s * rate))
    if edge:
        ramp = np.linspace(0, 1, edge, dtype=np.float32)
        samples[:edge] *= ramp
        samples[-edge:] *= ramp[::-1]
    return samples
