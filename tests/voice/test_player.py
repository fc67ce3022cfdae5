"""A recording is played from a second on; without a device, or a file, it is told."""

import time

import numpy as np
import pytest
import soundfile

from yewhour.voice.devices.player import RATE, Player, _decoded


@pytest.fixture
def steps(tmp_path):
    """Ten seconds, each louder than the one before."""
    path = tmp_path / "steps.flac"
    soundfile.write(path, np.repeat(np.arange(10, dtype=np.float32) / 20, 22050), 22050)
    return path


def test_it_begins_where_it_is_asked_to(steps):
    sound = np.concatenate(list(_decoded(steps, 4.0)))
    assert np.median(sound[: RATE // 2]) == pytest.approx(4 / 20, abs=0.03)
    assert len(sound) / RATE == pytest.approx(6.0, abs=0.3)


def test_it_plays_and_is_quiet_again(steps):
    message = []
    player = Player(message.append, "null")
    player.play(steps, 2.0)
    assert player.playing
    assert player.at_s >= 2.0
    while player.at_s < 2.2:
        time.sleep(0.01)
    player.stop()
    assert not player.playing
    assert message == []


def test_what_can_not_be_played_is_told(tmp_path, monkeypatch):
    message = []
    player = Player(message.append, "null")
    (tmp_path / "words.flac").write_text("no sound")
    player.play(tmp_path / "words.flac", 0)
    assert "words.flac can't be played" in message[0]
    player.play(tmp_path / "nowhere.flac", 0)
    assert "nowhere.flac can't be played" in message[1]
    assert not player.playing
