"""Of several tracks of sound the one is heard that she speaks on."""

from fractions import Fraction

import av
import numpy as np
import pytest

from tools.camera import RATE, frame_of, speak, tones, voice_of
from yewhour.core.film.cut_list import Piece
from yewhour.voice.film.cut_sound import cut_sound
from yewhour.voice.recognition.recording_words import sound_of
from yewhour.voice.sound.spoken_track import spoken_track, told_track

LONG_S = 12.0


def camera_with(path, *tracks):
    """A camera's file with a picture, and each of these as a track of sound."""
    with av.open(str(path), "w") as out:
        picture = out.add_stream("libx264", rate=5)
        picture.width, picture.height, picture.pix_fmt = 192, 108, "yuv420p"
        picture.options = {"preset": "ultrafast"}
        voices = [voice_of(out) for _ in tracks]
        for number in range(round(LONG_S * 5)):
            frame = frame_of(number)
            frame.pts, frame.time_base = number, Fraction(1, 5)
            out.mux(picture.encode(frame))
        out.mux(picture.encode(None))
        for voice, samples in zip(voices, tracks, strict=True):
            speak(out, voice, samples)
    return path


@pytest.fixture(scope="module")
def sounds():
    count = round(LONG_S * RATE)
    noise = np.random.default_rng(2).normal(0, 0.05, count)
    return {"voice": tones(LONG_S), "silence": np.zeros(count), "far": 0.1 * tones(LONG_S) + noise}


@pytest.mark.parametrize(
    ("names", "number"),
    [
        (("voice",), 0), (("silence", "voice"), 1), (("far", "voice", "silence"), 1), (("voice", "far"), 0),
        (("voice", "voice"), 0), (("silence", "silence"), 0),
    ],
)  # fmt: skip
def test_it_is_the_one_where_something_comes_and_goes(tmp_path, sounds, names, number):
    camera = camera_with(tmp_path / "camera.mp4", *(sounds[name] for name in names))
    assert spoken_track(camera) == number
    told = told_track(camera)
    assert (told == "") == (len(names) == 1)
    if told:
        name = "second" if number else "first"
        assert told == f"It has {len(names)} tracks of sound; she is heard best on the {name}."


def test_whatever_is_made_of_the_sound_is_made_of_that_one(tmp_path, sounds):
    camera = camera_with(tmp_path / "camera.mp4", sounds["silence"], sounds["voice"])
    kept = np.concatenate(list(cut_sound(camera, [Piece(2.0, 6.0, 4.0)], None, lambda share: None)))
    heard = np.concatenate([block for block, _ in sound_of(camera)])
    assert np.abs(kept).max() > 0.1
    assert np.abs(heard).max() > 0.1
    assert told_track(tmp_path / "none.mp4") == ""
