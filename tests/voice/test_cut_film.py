"""A film is what is kept of a camera's file: its frames, its sound, its chapters; the file is not hurt."""

import hashlib
from fractions import Fraction

import av
import numpy as np
import pytest
import soundfile

from tools.camera import RATE, film, frame_of, lay_down, number_of, tones
from yewhour.core.export.captions import Caption
from yewhour.core.export.chapters import Chapter
from yewhour.core.film.cut_list import Piece, Slower
from yewhour.core.problem import Problem
from yewhour.voice.film.alignment import Alignment
from yewhour.voice.film.cut_film import camera_length_s, camera_size, cut_film
from yewhour.voice.film.cut_sound import cut_sound
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.sound.loudness import LOUDNESS, PEAK, measured

PIECES = [(3.0, 8.0), (10.5, 15.0)]


@pytest.fixture(scope="module")
def camera(tmp_path_factory):
    path = tmp_path_factory.mktemp("camera") / "camera.mp4"
    film(path, 16)
    return path


@pytest.fixture(scope="module")
def cut(camera):
    out = camera.with_name("class.mp4")
    before = hashlib.sha256(camera.read_bytes()).hexdigest()
    shares = []
    made = cut_film(
        camera, out, PIECES,
        FilmText(
            "Ebb", [Chapter("One", 0, 50), Chapter("Two", 50, 95)], [Caption(1000, 2500, "Ebb,\nand flow")]
        ),
        progress=shares.append,
    )  # fmt: skip
    assert hashlib.sha256(camera.read_bytes()).hexdigest() == before
    assert shares == sorted(shares)
    assert shares[-1] == 1.0
    return out, made


def test_each_frame_is_the_one_of_its_second(cut):
    out, made = cut
    with av.open(str(out)) as file:
        assert float(file.duration / av.time_base) == pytest.approx(9.5, abs=0.11)
        shown = [(frame.time, number_of(frame)) for frame in file.decode(video=0)]
        assert [one["metadata"]["title"] for one in file.chapters()] == ["One", "Two"]
        assert file.metadata["title"] == "Ebb"
    with av.open(str(out)) as file:
        (said,) = [packet for packet in file.demux(subtitles=0) if packet.size > 2]
        assert (float(said.pts * said.time_base), float(said.duration * said.time_base)) == (1.0, 1.5)
        assert "Ebb,\\Nand flow" in said.decode()[0].ass.decode()
    assert len(shown) == made.frames == 95
    for at_s, number in shown:
        real = 3.0 + at_s if at_s < 5.0 - 0.01 else 10.5 + at_s - 5.0
        assert number == pytest.approx(10 * real, abs=0.6)


def test_the_sound_goes_with_the_picture_and_is_faded_at_the_cut(cut):
    with av.open(str(cut[0])) as file:
        blocks = [frame.to_ndarray().reshape(-1) for frame in file.decode(audio=0)]
    sound = np.concatenate(blocks)
    loud = [
        float(np.abs(sound[round(at * RATE) : round((at + 0.05) * RATE)]).max()) for at in (2.02, 5.52, 6.52)
    ]
    soft = [
        float(np.abs(sound[round(at * RATE) : round((at + 0.05) * RATE)]).max()) for at in (2.5, 5.2, 6.2)
    ]
    assert min(loud) > 5 * max(soft)  # a tone at each second: 3 + 2, and 10.5 + 0.5
    assert float(np.abs(sound).max()) <= 10 ** (-1 / 20) + 0.02


def test_what_can_not_be_cut_is_told_and_nothing_is_left(camera, tmp_path):
    with pytest.raises(Problem, match=r"can't end in '\.avi'"):
        cut_film(camera, tmp_path / "class.avi", PIECES, FilmText(""))
    with pytest.raises(Problem, match="Nothing of this recording"):
        cut_film(camera, tmp_path / "class.mp4", [], FilmText(""))
    with pytest.raises(Problem, match="not written over"):
        cut_film(camera, camera, PIECES, FilmText(""))
    with pytest.raises(Problem, match="No picture lies"):
        cut_film(camera, tmp_path / "class.mp4", [(20.0, 30.0)], FilmText(""))
    broken = tmp_path / "broken.mp4"
    broken.write_bytes(camera.read_bytes()[:2000])
    with pytest.raises(Problem, match="can't be read"):
        camera_length_s(broken)
    text = tmp_path / "text.mp4"
    text.write_text("no film at all")
    with pytest.raises(Problem, match="can't be read"):
        camera_length_s(text)
    assert {one.name for one in tmp_path.iterdir()} == {"broken.mp4", "text.mp4"}


def test_stopped_half_way_nothing_is_left(camera, tmp_path):
    def stop(share):
        if share > 0.5:
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        cut_film(camera, tmp_path / "class.mp4", PIECES, FilmText(""), progress=stop)
    assert list(tmp_path.iterdir()) == []


def test_a_file_without_sound_becomes_a_film_without(tmp_path):
    film(tmp_path / "camera.mp4", 4, sound=False)
    cut_film(tmp_path / "camera.mp4", tmp_path / "class.mp4", [(1.0, 3.0)], FilmText(""))
    with av.open(str(tmp_path / "class.mp4")) as file:
        assert not file.streams.audio
        assert len(list(file.decode(video=0))) == 20


def test_a_sound_recorded_apart_is_laid_under_its_clock_put_right(camera, tmp_path):
    """Its own tones are at each of the camera's seconds, though it began at 2.25 by a clock of its own."""
    rate, begins_s = 1.0004, 2.25
    at = begins_s + np.arange(14 * RATE) / RATE * rate  # the camera's second of each of its samples
    tone = np.where(at % 1.0 < 0.1, 0.3 * np.sin(2 * np.pi * 700 * at), 0.0)
    soundfile.write(tmp_path / "own.flac", tone, RATE)
    out = tmp_path / "class.mp4"
    lies = Alignment(begins_s, rate)
    cut_film(camera, out, PIECES, FilmText("Ebb"), own_sound=(tmp_path / "own.flac", lies))
    with av.open(str(out)) as file:
        sound = np.concatenate([frame.to_ndarray().reshape(-1) for frame in file.decode(audio=0)])
    loud = np.abs(sound) > 0.05
    for second, real in ((2.0, 5.0), (5.5, 11.0), (8.5, 14.0)):  # of the film, of the camera
        begun = (
            round(second * RATE)
            - RATE // 20
            + np.flatnonzero(loud[round(second * RATE) - RATE // 20 : round(second * RATE) + RATE // 20])[0]
        )
        assert begun / RATE == pytest.approx(second, abs=0.02), real


def test_a_camera_held_on_its_side_gives_a_film_that_stands_upright(tmp_path):
    """As telephones write it: the picture lies, and the file says how it is to be turned."""
    film(tmp_path / "camera.mp4", 3)
    lay_down(tmp_path / "camera.mp4")
    assert camera_size(tmp_path / "camera.mp4") == (108, 192)
    cut_film(tmp_path / "camera.mp4", tmp_path / "class.mp4", [(0.5, 2.5)], FilmText(""))
    with av.open(str(tmp_path / "class.mp4")) as file:
        frame = next(file.decode(video=0))
        assert (frame.width, frame.height, frame.rotation) == (108, 192, 0)
        pixels = frame.to_ndarray(format="gray")
    assert pixels[:, 30:78].std(axis=0).max() > 20  # the bars lie one below the other now


def test_frames_at_odd_moments_keep_theirs(tmp_path):
    """A telephone's frames come when they come; each stays where it was beside the sound."""
    times = np.cumsum(np.random.default_rng(4).uniform(0.02, 0.09, 120))
    with av.open(str(tmp_path / "camera.mp4"), "w") as out:
        stream = out.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = 192, 108, "yuv420p"
        stream.codec_context.time_base = Fraction(1, 90_000)
        for number, at in enumerate(times):
            frame = frame_of(number)
            frame.pts, frame.time_base = round(at * 90_000), Fraction(1, 90_000)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    cut_film(tmp_path / "camera.mp4", tmp_path / "class.mp4", [(1.0, 2.0), (3.0, 4.0)], FilmText(""))
    with av.open(str(tmp_path / "class.mp4")) as file:
        shown = [(frame.time, number_of(frame)) for frame in file.decode(video=0)]
    for at_s, number in shown:
        real = 1.0 + at_s if at_s < 1.0 - 1e-6 else 2.0 + at_s
        assert times[number] == pytest.approx(real, abs=0.002)


def test_what_is_slower_lasts_longer_and_all_after_it_is_in_time(camera, tmp_path):
    made = cut_film(
        camera, tmp_path / "class.mp4", PIECES, FilmText(""), slower=[Slower(4.0, 6.0, 2.0)]
    )  # fmt: skip
    assert made.length_s == 11.5
    with av.open(str(tmp_path / "class.mp4")) as file:
        shown = [(frame.time, number_of(frame)) for frame in file.decode(video=0)]
    for at_s, number in shown:
        real = 3.0 + at_s if at_s < 1.0 else 4.0 + (at_s - 1) / 2 if at_s < 5.0 else at_s + 1.0
        real = real if at_s < 7.0 - 1e-6 else 10.5 + at_s - 7.0
        assert number == pytest.approx(10 * real, abs=0.6)
    with av.open(str(tmp_path / "class.mp4")) as file:
        sound = np.concatenate([frame.to_ndarray().reshape(-1) for frame in file.decode(audio=0)])
    assert len(sound) / RATE == pytest.approx(11.5, abs=0.05)
    assert np.abs(sound[round(6.0 * RATE) : round(6.08 * RATE)]).max() > 0.05  # the camera's seventh second


def test_the_sound_of_what_is_slower_goes_on_backwards_without_a_jump(camera):
    straight = np.concatenate(list(cut_sound(camera, [Piece(5.0, 6.0, 1.0)], None, lambda share: None)))
    pieces = [Piece(4.0, 5.0, 1.0), Piece(5.0, 6.0, 1.5), Piece(6.0, 7.0, 1.0)]
    sound = np.concatenate(list(cut_sound(camera, pieces, None, lambda share: None)))
    assert len(sound) == round(3.5 * RATE)
    slow = sound[RATE : round(2.5 * RATE)]
    assert np.abs(slow[1000 : RATE - 1000] - straight[1000 : RATE - 1000]).max() < 1e-6
    back = slow[RATE : round(1.4 * RATE)]
    assert np.abs(back - straight[::-1][: len(back)])[1000:].max() < 1e-6
    assert slow[RATE - 1] == slow[RATE]
    whole = np.concatenate(list(cut_sound(camera, [Piece(4.0, 6.0, 2.0)], None, lambda share: None)))
    assert (
        np.abs(whole[1000 : 2 * RATE - 1000] - sound[1000 : 2 * RATE - 1000]).max() < 1e-6
    )  # no fade between


@pytest.mark.parametrize("ending", ["mp4", "mkv", "webm"])
def test_a_name_with_av1_in_it_is_a_film_of_that(camera, tmp_path, ending):
    out = tmp_path / f"class.av1.{ending}"
    cut_film(camera, out, [(3.0, 5.0), (10.5, 12.5)], FilmText("Ebb", (), [Caption(1000, 2500, "Ebb")]))
    with av.open(str(out)) as file:
        assert file.streams.video[0].codec_context.name in ("libdav1d", "av1")
        shown = [(frame.time, number_of(frame)) for frame in file.decode(video=0)]
        assert len(file.streams.audio) == 1
    assert len(shown) == 40
    for at_s, number in shown:
        real = 3.0 + at_s if at_s < 2.0 - 0.01 else 8.5 + at_s
        assert number == pytest.approx(10 * real, abs=0.6)


def test_where_peaks_are_held_down_it_is_as_loud_as_everything_all_the_same(tmp_path):
    """Soft words with a clap now and then: making them as loud as that takes the claps to the edge."""
    sound = 0.3 * tones(30.0).astype(np.float32)
    for at in range(RATE, len(sound) - 500, 3 * RATE):
        sound[at : at + 500] += 0.6 * np.hanning(500) * np.sin(np.arange(500) / 10)
    film(tmp_path / "camera.mp4", 30, fps=2, speech=sound)
    out = tmp_path / "class.mp4"
    made = cut_film(tmp_path / "camera.mp4", out, [(2.0, 28.0)], FilmText(""))
    heard = measured(str(out))
    assert made.by_db > 6.0
    assert heard.loud == pytest.approx(LOUDNESS, abs=0.3)
    assert heard.peak <= PEAK
