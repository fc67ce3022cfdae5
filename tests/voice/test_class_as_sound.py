"""A class as sound: every line at its moment to the sample, as long as the class, as loud as it should be."""

from functools import cache
from itertools import pairwise

import numpy as np
import pytest
import soundfile

from tests.conftest import demo_maker, made_of, shipped
from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.plan.nodes import Step
from yewhour.core.problem import Problem
from yewhour.voice.sound import signs
from yewhour.voice.sound.loudness import LoudnessMeter
from yewhour.voice.sound.mix import ClassMix
from yewhour.voice.sound.shipped_voice import shipped_voice, voice_names
from yewhour.voice.sound.sound_events import (
    PARTS,
    SoundEvent,
    parse_parts,
    sound_events,
)
from yewhour.voice.sound.sound_file import KINDS, write_sound

SLOWER = {"instruct": 1.0}


def loudness(sound, rate):
    """By an outside meter; it takes seconds to import, and every worker collects this file."""
    import pyloudnorm

    return pyloudnorm.Meter(rate).integrated_loudness(sound)


@cache
def short():
    return demo_maker("four-at-the-slip").make()


@cache
def a_minute():
    return made_of(Step(movement="child", amount=2, locked=True), length_s=None, title="Ebb", target_s=40)


def mixed(heard, length):
    mix = ClassMix(heard, length, shipped_voice(), 1.0, SLOWER)
    return mix, np.concatenate(list(mix.blocks()))


def first_heard(sound, start, end):
    """The first sample between two that is no silence."""
    return start + int(np.flatnonzero(np.abs(sound[start:end]) > 0)[0])


def test_every_line_begins_at_its_tick_to_the_sample():
    timed = short()
    heard = sound_events(timed.segments, timed.cues, {"lines"})
    mix, sound = mixed(heard, timed.length)
    assert len(sound) == timed.length * mix.rate // TICKS_PER_S
    for one, cue in zip(heard, timed.cues, strict=True):
        at = cue.start * 2205
        assert first_heard(sound, at, at + mix.rate) == at
        assert one.text == cue.text


def test_lines_do_not_run_into_each_other():
    timed = short()
    mix, sound = mixed(sound_events(timed.segments, timed.cues, {"lines"}), timed.length)
    for cue in timed.cues[1:]:
        at = cue.start * 2205
        assert not np.any(sound[at - 100 : at]), cue.text
    assert len(mix.hurried) < len(timed.cues) / 5


def test_a_line_that_goes_over_a_block_is_whole():
    said = shipped_voice().say("Draw the two legs towards each other.")
    _, sound = mixed([SoundEvent(45, 100, "line", "Draw the two legs towards each other.")], 200)
    start = 45 * 2205
    assert np.array_equal(sound[start : start + len(said)], said)
    assert not sound[:start].any()
    assert not sound[start + len(said) :].any()


def test_what_is_said_twice_sounds_alike_and_slower_speech_is_longer():
    assert np.array_equal(shipped_voice().say("Inhale."), shipped_voice().say("Inhale."))
    assert len(shipped_voice().say("Inhale, arms up.", 110)) > len(
        shipped_voice().say("Inhale, arms up.", 190)
    )


@pytest.mark.parametrize("text", ["", " ", "...", "[2s]", "\0", "שלום", "🧘", "a" * 3000])
def test_any_words_at_all_can_be_said(text):
    assert np.isfinite(shipped_voice().say(text)).all()


def test_a_pause_that_is_written_is_silence():
    said = shipped_voice().say("Rest. [2s] Breathe.")
    quiet = np.flatnonzero(np.convolve(np.abs(said) > 0, np.ones(4000), "valid") == 0)
    assert len(quiet) > shipped_voice().rate * 1.5


@pytest.mark.parametrize("part", PARTS)
def test_each_part_is_heard_where_it_belongs(part):
    timed = demo_maker("bell-ringers").make()
    heard = sound_events(timed.segments, timed.cues, {part})
    assert heard
    assert all(one.at <= two.at for one, two in pairwise(heard))
    if part == "bells":
        assert len(heard) == len(timed.plan.sections)
    if part == "breath":
        assert {one.kind for one in heard} <= {"inhale", "full", "exhale", "empty"}
    if part == "sides":
        tones = [one for one in heard if one.kind in ("left", "right")]
        assert len(tones) == sum(s.side in ("left", "right") and not s.use.setup_for for s in timed.segments)


def test_the_signs_for_the_sides_can_be_told_apart_and_no_sign_clicks():
    rate = 22050
    assert len(signs.side("left", rate)) > 2 * len(signs.side("right", rate))
    for sound in (signs.bell(rate), signs.side("left", rate), signs.breath("inhale", 3.0, rate)):
        assert abs(sound[0]) < 0.001
        assert abs(sound[-1]) < 0.001
        assert np.abs(sound).max() < 0.5


def test_a_peak_between_two_samples_is_found():
    rate = 22050
    at = np.arange(rate)
    fades = np.minimum(1, np.minimum(at, at[::-1]) / 2000)
    wave = (0.5 * fades * np.sin(np.pi / 2 * at + np.pi / 4)).astype(np.float32)  # no sample is at its top
    assert np.abs(wave).max() < 0.36
    meter = LoudnessMeter(rate, peaks=True).listen(wave[n : n + 1000] for n in range(0, rate, 1000))
    assert meter.peak == pytest.approx(-6.02, abs=0.05)


def test_a_file_is_as_long_as_the_class_and_as_loud_as_it_should_be(tmp_path):
    timed = a_minute()
    path = tmp_path / "class.flac"
    shares = []
    done = write_sound(timed, path, shipped_voice(), {"lines", "bells"}, SLOWER, shares.append)
    sound, rate = soundfile.read(path)  # another program's eyes and ears
    assert len(sound) == done.samples == timed.length * rate // TICKS_PER_S
    assert loudness(sound, rate) == pytest.approx(-16, abs=0.5)
    assert done.loudness == pytest.approx(-16, abs=0.3)
    assert done.peak <= -1.0
    assert shares[-1] == pytest.approx(1.0)
    assert shares == sorted(shares)
    at = timed.cues[3].start * rate // TICKS_PER_S
    assert np.abs(sound[at : at + rate // 2]).max() > 0.05
    assert np.abs(sound[at - rate // 10 : at - 10]).max() < 0.02


@pytest.mark.parametrize(
    "suffix",
    [one if one in (".flac", ".ogg") else pytest.param(one, marks=pytest.mark.long) for one in sorted(KINDS)],
)
def test_every_kind_of_file_has_its_title_and_its_chapters(tmp_path, suffix):
    import av

    timed = a_minute()
    path = tmp_path / f"class{suffix}"
    done = write_sound(timed, path, shipped_voice(), {"lines"}, SLOWER)
    with av.open(str(path)) as file:  # what is told is measured on the file, as somebody else hears it
        stream = file.streams.audio[0]
        one = av.AudioResampler("flt", "mono", stream.rate)
        parts = [part.to_ndarray()[0] for frame in file.decode(stream) for part in one.resample(frame)]
        loud = loudness(np.concatenate(parts), stream.rate)
        assert loud == pytest.approx(-16, abs=0.15)
        assert done.loudness == pytest.approx(loud, abs=0.15)
        assert done.peak <= -1.0
    with av.open(str(path)) as file:
        tags = {**file.metadata, **file.streams.audio[0].metadata}
        assert {key.lower(): value for key, value in tags.items()}["title"] == "Ebb"
        if suffix != ".wav":
            assert len(file.chapters()) >= 1
        length = sum(frame.samples / frame.sample_rate for frame in file.decode(audio=0))
    assert length == pytest.approx(timed.length_s, abs=0.05)
    assert [one.name for one in tmp_path.iterdir()] == [path.name]


def test_silence_stays_silence(tmp_path):
    timed = made_of(Step(movement="final-rest", amount=30))
    done = write_sound(timed, tmp_path / "rest.wav", shipped_voice(), {"counts"}, SLOWER)
    sound, _ = soundfile.read(tmp_path / "rest.wav")
    assert len(sound) == done.samples
    assert not LoudnessMeter(22050).listen([np.zeros(22050, np.float32)]).loud > -60


def test_a_stop_in_between_leaves_nothing(tmp_path):
    class Stop(Exception):
        pass

    def stop(share):
        if share > 0.1:
            raise Stop

    with pytest.raises(Stop):
        write_sound(short(), tmp_path / "class.flac", shipped_voice(), {"lines"}, SLOWER, stop)
    assert list(tmp_path.iterdir()) == []


def test_what_can_not_be_is_told(tmp_path):
    with pytest.raises(Problem, match="can't end in"):
        write_sound(short(), tmp_path / "class.doc", shipped_voice(), {"lines"}, SLOWER)
    with pytest.raises(Problem, match="can't be written"):
        write_sound(short(), tmp_path / "nowhere" / "class.flac", shipped_voice(), {"lines"}, SLOWER)
    with pytest.raises(Problem, match="'songs' can't be heard"):
        parse_parts("lines, songs")
    with pytest.raises(Problem, match="no voice 'nobody'"):
        shipped_voice().use("nobody")
    assert "en" in voice_names()


def test_the_lines_fit_the_seconds_they_were_given():
    """The seconds of lines were calibrated on other lines; all of a class's are tried here."""
    timed = demo_maker("bell-ringers").make()
    slower = {str(name): value for name, value in shipped().seconds.voice.slower.items()}
    mix = ClassMix(
        sound_events(timed.segments, timed.cues, {"lines"}), timed.length, shipped_voice(), 1.0, slower
    )
    over = [one for one in mix.heard if len(mix.sound_of(one)) > mix.sample_of(one.room)]
    assert over == []


def test_sound_is_written_like_any_file_of_hers(tmp_path):
    """A file that must not be changed stays, a link is followed, modes are kept, and no part is left."""
    timed = made_of(Step(movement="child", amount=1, locked=True), length_s=None, target_s=30)

    def write(path):
        return write_sound(timed, path, shipped_voice(), {"lines"}, SLOWER)

    kept = tmp_path / "kept.wav"
    kept.write_bytes(b"mine")
    kept.chmod(0o444)
    with pytest.raises(Problem, match="not to be changed"):
        write(kept)
    assert kept.read_bytes() == b"mine"
    private, link = tmp_path / "private.wav", tmp_path / "link.wav"
    private.write_bytes(b"old")
    private.chmod(0o600)
    link.symlink_to(private)
    write(link)
    assert link.is_symlink()
    assert private.stat().st_mode & 0o777 == 0o600
    assert private.read_bytes()[:4] == b"RIFF"
    (tmp_path / "folder.wav").mkdir()
    with pytest.raises(Problem, match="a folder"):
        write(tmp_path / "folder.wav")
    assert sorted(one.name for one in tmp_path.iterdir()) == [
        "folder.wav",
        "kept.wav",
        "link.wav",
        "private.wav",
    ]
