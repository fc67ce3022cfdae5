"""A sound recorded apart is found beside the camera's, clocks apart and noise or not; another is not."""

import numpy as np
import pytest
import soundfile

from yewhour.core.problem import Problem
from yewhour.voice.film.alignment import align, clap_in
from yewhour.voice.film.cut_sound import stretched

RATE = 16_000


def murmur(length_s: float, seed: int) -> np.ndarray:
    """Bursts of noise and tone, as long and as far apart as somebody's words."""
    rng = np.random.default_rng(seed)
    sound, at = np.zeros(round(length_s * RATE), np.float32), 0.0
    while at < length_s - 1:
        lasts = rng.uniform(0.08, 0.3)
        t = np.arange(round(lasts * RATE)) / RATE
        burst = np.sin(2 * np.pi * rng.uniform(120, 700) * t) + rng.normal(0, 0.4, len(t))
        begin = round(at * RATE)
        sound[begin : begin + len(t)] += (0.2 * burst * np.hanning(len(t)))[: len(sound) - begin]
        at += lasts + rng.choice([0.05, 0.1, 0.2, 1.5, 4.0], p=[0.3, 0.3, 0.2, 0.15, 0.05])
    return sound


def heard(own: np.ndarray, offset_s: float, rate: float, length_s: float, noise: float) -> np.ndarray:
    """The same in a camera's file that began so much earlier, by a clock of its own, in a room."""
    at = (np.arange(round(length_s * RATE)) / RATE - offset_s) / rate
    sound = np.interp(at * RATE, np.arange(len(own)), own, left=0, right=0)
    echo = np.concatenate([np.zeros(700), sound[:-700]])
    return sound + 0.4 * echo + np.random.default_rng(9).normal(0, noise, len(sound))


@pytest.mark.parametrize(
    ("length_s", "offset_s", "rate", "noise"),
    [(60.0, 12.345, 1.0, 0.01), (240.0, -4.2, 1.00008, 0.03), (90.0, 31.0, 1.0, 0.06)],
)
def test_it_is_found_to_the_millisecond(tmp_path, length_s, offset_s, rate, noise):
    own = murmur(length_s, 1)
    soundfile.write(tmp_path / "own.flac", own, RATE)
    camera = heard(own, offset_s, rate, length_s + 40, noise)
    soundfile.write(tmp_path / "camera.flac", np.clip(camera, -1, 1), RATE)
    found = align(tmp_path / "camera.flac", tmp_path / "own.flac")
    for at_s in (0.0, length_s):
        assert found.offset_s + at_s * found.rate == pytest.approx(offset_s + at_s * rate, abs=0.004)


def test_another_sound_and_too_little_of_one_are_told(tmp_path):
    soundfile.write(tmp_path / "camera.flac", murmur(90, 1), RATE)
    soundfile.write(tmp_path / "other.flac", murmur(60, 2), RATE)
    soundfile.write(tmp_path / "short.flac", murmur(2, 1), RATE)
    with pytest.raises(Problem, match="was not found in the camera's"):
        align(tmp_path / "camera.flac", tmp_path / "other.flac")
    with pytest.raises(Problem, match="too little sound"):
        align(tmp_path / "camera.flac", tmp_path / "short.flac")
    (tmp_path / "words.flac").write_text("no sound at all, only words, and more of them")
    with pytest.raises(Problem, match=r"can't be aligned|too little sound"):
        align(tmp_path / "camera.flac", tmp_path / "words.flac")


def test_a_clap_is_found_and_words_and_steps_are_none(tmp_path):
    sound = murmur(60, 3)
    soundfile.write(tmp_path / "words.flac", sound, RATE)
    assert clap_in(tmp_path / "words.flac") is None
    t = np.arange(RATE // 12) / RATE
    clap = np.random.default_rng(5).normal(0, 1, len(t)) * np.exp(-t * 90)
    sound[7 * RATE - 8000 : 7 * RATE + 8000] = 0
    sound[7 * RATE : 7 * RATE + len(t)] += 0.5 * clap.astype(np.float32)
    soundfile.write(tmp_path / "clap.flac", np.clip(sound, -1, 1), RATE)
    assert clap_in(tmp_path / "clap.flac") == pytest.approx(7.0, abs=0.02)


@pytest.mark.parametrize("rate", [1.0005, 0.9995])
def test_a_sound_is_drawn_out_or_in_block_by_block_as_in_one(rate):
    t = np.arange(3 * RATE) / RATE
    tone = np.sin(2 * np.pi * 440 * t).astype(np.float32)
    rng = np.random.default_rng(2)
    cuts = np.sort(rng.integers(0, len(tone), 40))
    found = np.concatenate(list(stretched(np.split(tone, cuts), rate)))
    assert len(found) == pytest.approx(len(tone) * rate, abs=6)
    there = np.arange(len(found)) / RATE
    right = np.sin(2 * np.pi * 440 * there / rate)
    assert np.abs(found - right)[10:].max() < 0.002
