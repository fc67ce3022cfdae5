"""The neural voice, with a stand-in for its packages: found, started, kept, and its troubles told."""

import json
import sys

import numpy as np
import pytest

from yewhour.core.problem import Problem
from yewhour.voice.sound import neural_voice
from yewhour.voice.sound.neural_voice import KEPT_BYTES, NeuralVoice, installed
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.voices import VoicePlaces, voice_named

RATE = 22050
PIPER = """
import numpy as np
said = []
class SynthesisConfig:
    def __init__(self, length_scale, noise_scale, noise_w_scale):
        self.scale = length_scale
class Sound:
    def __init__(self, seconds):
        self.audio_float_array = np.full(int(seconds * 22050), 0.5, np.float32)
class PiperVoice:
    @classmethod
    def load(cls, path):
        return cls()
    def synthesize(self, text, how):
        said.append(text)
        yield Sound(len(text) * 0.05 * how.scale)
"""


@pytest.fixture
def places(tmp_path, monkeypatch):
    folder = tmp_path / "voice"
    (folder / "piper").mkdir(parents=True)
    (folder / "piper" / "__init__.py").write_text(PIPER)
    (folder / neural_voice.PACKAGE / "data").mkdir(parents=True)
    (folder / neural_voice.PACKAGE / "__init__.py").write_text("def model_path(): return ''\n")
    (folder / neural_voice.PACKAGE / "data" / "a.json").write_text(
        json.dumps({"audio": {"sample_rate": RATE}})
    )
    monkeypatch.setattr(sys, "path", list(sys.path))
    for name in ("piper", neural_voice.PACKAGE):
        monkeypatch.delitem(sys.modules, name, raising=False)
    yield VoicePlaces(folder, tmp_path / "kept")
    for name in ("piper", neural_voice.PACKAGE):
        sys.modules.pop(name, None)


def test_the_best_voice_is_the_neural_one_where_it_is(places, tmp_path):
    assert isinstance(voice_named("", places), NeuralVoice)
    assert voice_named("", VoicePlaces(tmp_path / "nowhere", places.kept)) is shipped_voice()
    assert voice_named("en", places) is shipped_voice()


def test_a_line_is_spoken_once_and_then_kept(places):
    first = voice_named("joe", places).say("Inhale. [2s] Exhale.")
    said = list(sys.modules["piper"].said)
    again = voice_named("joe", places).say("Inhale. [2s] Exhale.")
    assert [text.strip() for text in said] == ["Inhale.", "Exhale."]
    assert sys.modules["piper"].said == said
    assert np.allclose(first, again, atol=1e-4)
    assert not first[len(first) // 2]
    assert len(first) > 2 * RATE


def test_slower_words_are_longer(places):
    voice = voice_named("joe", places)
    assert len(voice.say("Stay.", 100)) > len(voice.say("Stay.", 150)) > len(voice.say("Stay.", 200))


def test_a_kept_line_that_is_damaged_is_spoken_anew(places):
    voice_named("joe", places).say("Stay.")
    for path in places.kept.iterdir():
        path.write_bytes(b"no sound")
    assert len(voice_named("joe", places).say("Stay."))


def test_what_was_not_said_for_longest_is_forgotten(places, monkeypatch):
    voice_named("joe", places).say("Stay.")
    assert KEPT_BYTES > 10_000_000
    monkeypatch.setattr(neural_voice, "KEPT_BYTES", 100)
    voice_named("joe", places)
    assert not list(places.kept.iterdir())


def test_what_is_not_there_or_broken_is_told(places, tmp_path):
    with pytest.raises(Problem, match="not installed"):
        voice_named("joe", VoicePlaces(tmp_path / "nowhere", places.kept))
    (places.installed / "piper" / "__init__.py").write_text("raise ImportError('half of it')")
    voice = voice_named("joe", places)
    with pytest.raises(Problem, match="can't be started: half of it"):
        voice.say("Stay.")
    (places.installed / neural_voice.PACKAGE / "data" / "a.json").write_text("{")
    assert installed(places.installed)
    with pytest.raises(Problem, match="can't be started"):
        voice_named("joe", places)
