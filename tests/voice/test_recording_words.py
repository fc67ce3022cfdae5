"""A recording is heard: what was said of a class, by whom and in what noise; what has no sound is told."""

import subprocess
import sys
from itertools import pairwise
from random import Random

import av
import msgspec
import numpy as np
import pytest
import soundfile

from tests.conftest import demo_maker
from yewhour.core.problem import Problem
from yewhour.core.review.findings import review_findings
from yewhour.core.review.review import look_back
from yewhour.core.take.line_following import SAID_ACTS
from yewhour.core.transcript.line_matches import match_lines
from yewhour.state.takes.recordings import (
    RecordingSource,
    heard_in,
    joined_transcripts,
    load_looking,
)
from yewhour.ui.take.leading import Leading
from yewhour.voice.recognition.recogniser import RATE, LineRecogniser, resampled
from yewhour.voice.recognition.recording_words import recognise_apart, sound_of
from yewhour.voice.recognition.simulated_teacher import simulated_speech
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.sound_events import SoundEvent

TALK = (
    "there is a gull on the roof again", "one more of these and then we wait", "go on now, and cut the bread",
    "please leave it out for the cat", "hello everybody, wait for me", "the table is by the door",
    "note this down if you like",
)  # fmt: skip

SKIPPED, DRIFT = 0.06, 0.02


@pytest.fixture(scope="module")
def timed():
    """The first minute, or nearly of a class."""
    whole = demo_maker("four-at-the-slip").make()
    segments = tuple(one for one in whole.segments if one.end <= 400)
    ids = {one.id for one in segments}
    cues = tuple(cue for cue in whole.cues if cue.segment in ids)
    return msgspec.structs.replace(whole, cues=cues, segments=segments, length=segments[-1].end)


@pytest.fixture(scope="module")
def recording(timed, tmp_path_factory):
    """That class spoken, with some lines left out, and the seconds of the others."""
    shipped_voice().use("en-us")
    sound = simulated_speech(timed, shipped_voice(), {}, Random(7), skipped=SKIPPED, drift=DRIFT)
    shipped_voice().use("en")
    path = tmp_path_factory.mktemp("recording") / "class.flac"
    soundfile.write(path, sound, shipped_voice().rate)
    dice = Random(7)
    truth = {n: c.start / 10 * (1 + DRIFT) for n, c in enumerate(timed.cues) if dice.random() >= SKIPPED}
    return path, truth


@pytest.fixture(scope="module")
def hearing(timed, recording):
    shares = []
    found = recognise_apart(recording[0], timed.cues, shares.append)
    assert shares == sorted(shares)
    assert shares[-1] == pytest.approx(1.0, abs=0.02)
    return found


def test_what_was_said_is_found_at_its_moment(timed, recording, hearing):
    lines, _ = match_lines(timed.cues, hearing)
    truth = recording[1]
    near = sum(
        line.said_s is not None and abs(line.said_s - truth[number]) < 0.7
        for number, line in enumerate(lines)
        if number in truth
    )
    wrong = [
        line.cue.text
        for number, line in enumerate(lines)
        if line.said_s is not None and abs(line.said_s - truth.get(number, -99)) >= 0.7
    ]
    assert near >= 0.93 * len(truth)
    assert wrong == []


def test_the_length_is_that_of_the_sound(timed, recording, hearing):
    assert hearing.length_s == pytest.approx(timed.length_s * (1 + DRIFT), abs=0.1)
    back = look_back(timed, None, hearing)
    assert not back.stranger
    assert back.length_s == pytest.approx(hearing.length_s, abs=1.5)


@pytest.mark.long
def test_another_class_is_not_taken_for_it(recording):
    other = demo_maker("lamps-out").make()
    back = look_back(other, None, recognise_apart(recording[0], other.cues))
    assert [one.code for one in review_findings(back, load_looking())] == ["stranger"]


def written(path, sound, rate=22050):
    soundfile.write(path, np.asarray(sound, np.float32), rate)
    return path


def test_silence_and_music_are_told_or_keep_quiet(timed, tmp_path):
    silent = recognise_apart(written(tmp_path / "silent.wav", np.zeros(22050 * 5)), timed.cues)
    assert silent.words == ()
    assert "nothing" in silent.messages[0] or "no sound but silence" in silent.messages[0]
    at = np.arange(22050 * 6) / 22050
    music = sum(0.1 * np.sin(2 * np.pi * hz * at) * (np.sin(2 * np.pi * at * beat) > 0) for hz, beat in
                ((220, 0.5), (330, 0.7), (277, 1.1)))  # fmt: skip
    back = look_back(timed, None, recognise_apart(written(tmp_path / "music.wav", music), timed.cues))
    assert [one.code for one in review_findings(back, load_looking())] == ["stranger"]
    assert all(line.said_s is None for line in back.lines)


@pytest.mark.parametrize("suffix", [".wav", ".flac", ".ogg", ".mp3", ".m4a", ".mp4"])
def test_every_kind_of_recording_is_decoded(tmp_path, suffix):
    path = tmp_path / f"tone{suffix}"
    codec = {".wav": "pcm_s16le", ".flac": "flac", ".ogg": "libopus", ".mp3": "libmp3lame"}.get(suffix, "aac")
    with av.open(str(path), "w") as file:
        stream = file.add_stream(codec, rate=48000, layout="stereo")
        if suffix == ".mp4":
            picture = file.add_stream("mpeg4", rate=10)
            picture.width = picture.height = 64
            picture.pix_fmt = "yuv420p"
            frame = av.VideoFrame.from_ndarray(np.zeros((64, 64, 3), np.uint8))
            file.mux(picture.encode(frame))
            file.mux(picture.encode(None))
        tone = 0.3 * np.sin(2 * np.pi * 440 * np.arange(96000) / 48000)
        resampler = av.AudioResampler(stream.format, "stereo", 48000, frame_size=stream.frame_size or 1024)
        frame = av.AudioFrame.from_ndarray(np.stack([tone, tone]).astype(np.float32), "fltp", "stereo")
        frame.sample_rate = 48000
        for part in (*resampler.resample(frame), *resampler.resample(None)):
            file.mux(stream.encode(part))
        file.mux(stream.encode(None))
    sound = np.concatenate([block for block, _ in sound_of(path)])
    assert len(sound) == pytest.approx(2 * RATE, rel=0.05)
    assert np.abs(sound).max() > 0.2


def test_what_has_no_sound_or_is_none_is_told(timed, tmp_path):
    video = tmp_path / "silent.mp4"
    with av.open(str(video), "w") as file:
        picture = file.add_stream("mpeg4", rate=10)
        picture.width = picture.height = 64
        picture.pix_fmt = "yuv420p"
        file.mux(picture.encode(av.VideoFrame.from_ndarray(np.zeros((64, 64, 3), np.uint8))))
        file.mux(picture.encode(None))
    with pytest.raises(Problem, match="no sound in this file"):
        recognise_apart(video, timed.cues)
    text = tmp_path / "text.wav"
    text.write_text("not sound")
    with pytest.raises(Problem, match="can't be read"):
        recognise_apart(text, timed.cues)
    with pytest.raises(Problem, match="can't be read"):
        recognise_apart(tmp_path / "nowhere.wav", timed.cues)


def test_a_file_that_ends_in_the_middle_is_heard_as_far_as_it_goes(recording, tmp_path):
    content = recording[0].read_bytes()
    half = tmp_path / "half.flac"
    half.write_bytes(content[: len(content) // 2])
    sound = np.concatenate([block for block, _ in sound_of(half)])
    assert 8 * RATE < len(sound) < 40 * RATE


class Enough(Exception):
    pass


def test_it_is_stopped_at_once_and_leaves_nothing_running(timed, recording):
    def stop(share):
        raise Enough

    with pytest.raises(Enough):
        recognise_apart(recording[0], timed.cues, stop)
    running = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True, check=True).stdout
    assert f"{sys.executable} -m yewhour.voice.sound.recording_words {recording[0]}" not in running


def test_parts_of_a_take_are_put_together_at_their_seconds(timed, hearing):
    both = joined_transcripts([(0.0, hearing), (300.0, hearing)])
    assert len(both.words) == 2 * len(hearing.words)
    assert both.words[len(hearing.words)].start_s == pytest.approx(hearing.words[0].start_s + 300)
    assert both.length_s == pytest.approx(300 + hearing.length_s)
    assert heard_in(RecordingSource(), timed.cues) is None


@pytest.mark.long
@pytest.mark.parametrize(("name", "seed"), [("bell-ringers", 1), ("tide-tables", 2)])
def test_what_is_asked_for_aloud_is_heard_in_a_class_and_nothing_else_is(name, seed):
    """Some twenty acts among the lines of a class and everyday talk, in a room with noise: 95 % of them."""
    timed, voice, dice = demo_maker(name).make(), shipped_voice(), Random(seed)
    asked, remarks = [], []
    for one, two in pairwise(timed.cues):
        if two.start - one.end > 60:
            phrase = dice.choice([*SAID_ACTS, *TALK])
            words = f"tide table, {phrase}." if phrase in SAID_ACTS else phrase
            remarks.append(SoundEvent(one.end + 12, 45, "line", words))
            if phrase in SAID_ACTS:
                asked.append(((one.end + 12) / 10, SAID_ACTS[phrase]))
    sound = resampled(simulated_speech(timed, voice, {}, dice, remarks=remarks), voice.rate)
    listener = LineRecogniser([cue.text for cue in timed.cues], call="tide table", acts=tuple(SAID_ACTS))
    leading, heard = Leading(), []
    for at in range(0, len(sound), RATE // 10):
        for stretch in listener.hear(sound[at : at + RATE // 10]):
            if act := leading.asked_for(stretch.words, "tide table"):
                heard.append((at / RATE, act))
    right = [one for one in asked if any(act == one[1] and 0 < at - one[0] < 8 for at, act in heard)]
    assert len(asked) > 10
    assert len(right) >= 0.95 * len(asked)
    assert len(heard) == len(right)
