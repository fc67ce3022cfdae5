"""A simulated teacher, who speaks the lines of a class with her own slowness and skipped lines, in a room
that is not quiet. For trying what follows a voice, where nobody speaks.
"""

from collections.abc import Mapping, Sequence
from random import Random

import numpy as np

from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.timed_class import TimedClass
from yewhour.voice.sound.mix import ClassMix
from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.sound_events import SoundEvent
from yewhour.voice.sound.voices import SpeakingVoice

NOISE = 0.004  # of full scale: a quiet room with a fan


def simulated_speech(
    timed: TimedClass,
    voice: SpeakingVoice,
    longer: Mapping[str, int],
    dice: Random,
    skipped: float = 0.0,
    drift: float = 0.0,
    remarks: Sequence[SoundEvent] = (),
    noise: float = NOISE,
) -> Samples:
    """Her sound, at the voice's rate, from the start of the class to its end.

    longer: ticks by which she stays longer in segments, by their id; what comes later is so much later.
    skipped: the share of lines she leaves out. drift: how much slower she is than planned, as a share.
    remarks: what she says besides. noise: of the room, of full scale.
    """
    heard: list[SoundEvent] = []
    moved, shifts = 0, {}
    for segment in timed.segments:
        shifts[segment.id] = moved
        moved += longer.get(segment.id, 0)
    for cue in timed.cues:
        if dice.random() >= skipped:
            at = round((cue.start + shifts[cue.segment]) * (1 + drift))
            heard.append(SoundEvent(at, cue.end - cue.start + TICKS_PER_S, "line", cue.text))
    heard = sorted([*heard, *remarks], key=lambda one: one.at)
    length = round((timed.length + moved) * (1 + drift))
    sound = np.concatenate(list(ClassMix(heard, length, voice, timed.plan.brief.voice_rate, {}).blocks()))
    room = np.random.default_rng(dice.randrange(10**6)).normal(0, noise, len(sound)).astype(np.float32)
    return np.asarray(sound + room, np.float32)
