"""A film without a camera: what a painter lays on paper, second by second, and the class spoken beside it."""

import tempfile
from collections.abc import Iterable, Iterator
from fractions import Fraction
from itertools import chain
from pathlib import Path

import av
import numpy as np

from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import written_aside
from yewhour.voice.film.cut_film import WrittenFilm
from yewhour.voice.film.cut_sound import Progress
from yewhour.voice.film.film_file import RATE, FilmText, Picture, StoredSound, cannot, kind_of, write_film
from yewhour.voice.film.laid_over import LaidPicture, Over, lay_over
from yewhour.voice.sound.loudness import frames
from yewhour.voice.sound.mix import ClassMix, her_voice
from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.sound_events import sound_events
from yewhour.voice.sound.voices import SpeakingVoice

FPS = 25
SOUND_SHARE = 0.3  # of the work, that the speaking is


def drawn_film(
    timed: TimedClass,
    out: Path,
    over: Over,
    paper: LaidPicture,
    voice: SpeakingVoice,
    slower: dict[str, float],
    text: FilmText,
    progress: Progress = lambda share: None,
) -> WrittenFilm:
    """Writes a class as a film, whole or not at all. Raises Problem where that can't be.

    paper: the whole picture with nothing on it. over: what lies on it at a second of the class. slower: how
    much slower than instructing each way of speaking is.
    """
    kind, long_s = kind_of(out), timed.length_s
    events = sound_events(timed.segments, timed.cues, ["lines"])
    brief = timed.plan.brief
    mix = ClassMix(events, timed.length, voice, brief.voice_rate, her_voice(slower, brief.own))
    count = 0
    try:
        with tempfile.TemporaryFile() as spoken, written_aside(out) as part:
            heard = _told(at_rate(mix.blocks(), mix.rate), round(long_s * RATE), progress)
            sound = StoredSound(heard, spoken)
            pictures = drawn_pictures(paper, over, round(long_s * FPS))
            for at_s in write_film(part, kind, pictures, Fraction(FPS), sound, text, long_s):
                count += 1
                progress(SOUND_SHARE + (1 - SOUND_SHARE) * at_s / long_s)
            progress(1.0)
            return WrittenFilm(round(long_s, 3), count, round(sound.by_db, 2))
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, out, "written", "Choose another place.") from error


def drawn_pictures(paper: LaidPicture, over: Over, count: int) -> Iterator[Picture]:
    """Frames of what lies on paper, for so many moments; one that is as the one before is left out, for half
    a second at most."""
    bare = av.VideoFrame.from_ndarray(np.ascontiguousarray(paper.pixels[:, :, :3]), format="rgb24")
    ground = bare.reformat(format="yuv420p").to_ndarray()
    before: list[int] | None = None
    shown = 0
    for number in range(count):
        laid = list(over(number / FPS))
        now = [id(one) for one in laid]  # a painter gives the same picture for as long as it stands
        if now != before or number - shown >= FPS // 2 or number == count - 1:
            frame = av.VideoFrame.from_ndarray(ground, format="yuv420p")
            lay_over(frame, laid)
            before, shown = now, number
            yield number / FPS, frame


def at_rate(blocks: Iterable[Samples], rate: int) -> Iterator[Samples]:
    """Blocks of one rate at that of a film."""
    resampler = av.AudioResampler("flt", "mono", RATE)
    for frame in chain(frames(blocks, rate), [None]):
        for part in resampler.resample(frame):
            yield np.asarray(part.to_ndarray(), np.float32).reshape(-1)


def _told(blocks: Iterable[Samples], samples: int, progress: Progress) -> Iterator[Samples]:
    """Blocks, made exactly so many samples; how far they are is told."""
    done = 0
    for block in blocks:
        kept = block[: samples - done]
        done += len(kept)
        if len(kept):
            yield kept
        progress(SOUND_SHARE * done / max(1, samples))
    if done < samples:
        yield np.zeros(samples - done, np.float32)
