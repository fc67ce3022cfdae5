"""How many double knocks are heard, and how many are invented: `python -m tools.knocks [MINUTES]`.

Knocks and claps are simulated (a jump that rings off in a few hundredths of a second, some low as a floor,
some bright as palms), in a room with a fan and in one with music, and minutes of classes spoken by the
shipped voice, with feet set down, claps in threes and knocks that come alone.
"""

import sys
from collections.abc import Sequence
from random import Random

import numpy as np

from yewhour.content.paths import demo_classes
from yewhour.core.pipeline import solve
from yewhour.state.classes.class_file import read_plan
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.recognition.knocks import KnockListener
from yewhour.voice.recognition.simulated_teacher import simulated_speech
from yewhour.voice.sound.shipped_voice import Samples, shipped_voice

RATE = 16000
NEAR_S = 0.1


def knock(dice: np.random.Generator, loud: float = 0.3, rate: int = RATE) -> Samples:
    """One knock or clap: noise and a tone, ringing off."""
    ring_s = dice.uniform(0.006, 0.022)
    t = np.arange(round(0.25 * rate)) / rate
    tone = np.sin(2 * np.pi * dice.uniform(90, 700) * t)
    sound = (dice.normal(0, 0.5, len(t)) + dice.uniform(0, 1) * tone) * np.exp(-t / ring_s)
    echo = np.zeros_like(sound)
    late = round(dice.uniform(0.01, 0.03) * rate)
    echo[late:] = 0.25 * sound[:-late]
    sound = sound + echo
    return np.asarray(loud * sound / np.abs(sound).max(), np.float32)


def thump(dice: np.random.Generator, rate: int = RATE) -> Samples:
    """A foot set down, or a knee: dull, and slower to come and go."""
    t = np.arange(round(0.4 * rate)) / rate
    rise = np.minimum(1.0, t / dice.uniform(0.01, 0.04))
    sound = rise * np.exp(-t / dice.uniform(0.03, 0.09)) * np.sin(2 * np.pi * dice.uniform(40, 90) * t)
    return np.asarray(dice.uniform(0.05, 0.25) * sound, np.float32)


def mixed(
    length_s: float, sounds: Sequence[tuple[float, Samples]], noise: Samples, rate: int = RATE
) -> Samples:
    """Sounds at their seconds, over the noise of a room."""
    out = np.resize(noise, round(length_s * rate)).astype(np.float32)
    for at_s, sound in sounds:
        at = round(at_s * rate)
        part = out[at : at + len(sound)]
        part += sound[: len(part)]
    return out


def room(dice: np.random.Generator, music: bool, rate: int = RATE) -> Samples:
    """Half a minute of a room: a fan, or soft music with a beat."""
    t = np.arange(30 * rate) / rate
    fan = dice.normal(0, 0.003, len(t))
    if not music:
        return np.asarray(fan, np.float32)
    chord = sum(np.sin(2 * np.pi * pitch * t) for pitch in (220.0, 277.2, 329.6))
    return np.asarray(fan + 0.006 * chord * (0.6 + 0.4 * np.sin(2 * np.pi * t / 2.0)), np.float32)


def heard_in(sound: Samples, rate: int = RATE) -> list[float]:
    """The seconds of double knocks that are heard in a sound, given as a microphone gives it."""
    listener, found = KnockListener(rate), []
    for at in range(0, len(sound), rate // 10):
        found += listener.hear(sound[at : at + rate // 10])
    return found


def pairs(number: int, music: bool, dice: np.random.Generator) -> tuple[int, int]:
    """How many of so many double knocks are heard, and how many others."""
    sounds, meant = [], []
    for index in range(number):
        first = 3.0 + 4.0 * index + dice.uniform(0, 1)
        second = first + dice.uniform(0.18, 0.45)
        loud = dice.uniform(0.08, 0.6)
        sounds += [(first, knock(dice, loud)), (second, knock(dice, loud * dice.uniform(0.6, 1.4)))]
        meant.append(second)
    found = heard_in(mixed(6.0 + 4.0 * number, sounds, room(dice, music)))
    right = sum(any(abs(one - at) < NEAR_S for one in found) for at in meant)
    return right, sum(all(abs(one - at) >= NEAR_S for at in meant) for one in found)


def others(length_s: float, dice: np.random.Generator) -> list[tuple[float, Samples]]:
    """What is no double knock: steps, single knocks, claps in threes, and knocks too far apart."""
    sounds, at = list[tuple[float, Samples]](), 4.0
    while at < length_s - 4:
        match int(dice.integers(5)):
            case 0:
                sounds += [(at, thump(dice)), (at + dice.uniform(0.15, 0.6), thump(dice))]
            case 1:
                sounds.append((at, knock(dice)))
            case 2:
                pace = dice.uniform(0.2, 0.35)
                sounds += [(at + n * pace, knock(dice)) for n in range(3)]
            case 3:
                sounds += [(at, knock(dice)), (at + dice.uniform(0.75, 1.5), knock(dice))]
            case _:
                sounds.append((at, thump(dice)))
        at += dice.uniform(4, 12)
    return sounds


def main(minutes: float) -> None:
    """Counts, and says so."""
    dice = np.random.default_rng(1)
    for music in (False, True):
        right, wrong = pairs(200, music, dice)
        print(f"{'music' if music else 'a fan'}: {right} of 200 heard, {wrong} invented")
    (words, _), voice, total, false = load_teaching_data(), shipped_voice(), 0.0, 0
    for path in demo_classes():
        sound = simulated_speech(solve(read_plan(path), words).make(), voice, {}, Random(2))
        sound = mixed(len(sound) / voice.rate, others(len(sound) / voice.rate, dice), sound, voice.rate)
        false += len(heard_in(sound, voice.rate))
        total += len(sound) / voice.rate / 60
        if total >= minutes:
            break
    print(f"{total:.0f} minutes of class, steps, claps in threes and single knocks: {false} invented")


if __name__ == "__main__":
    main(float(sys.argv[1]) if len(sys.argv) > 1 else 60.0)
