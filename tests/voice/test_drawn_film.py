"""A class without a camera, and what lies over a film alone: as long, whole, and to be looked through."""

from itertools import pairwise

import av
import numpy as np
import pytest

from tests.conftest import made_of
from yewhour.core.export.captions import captions
from yewhour.core.export.chapters import chapters
from yewhour.core.plan.nodes import Step
from yewhour.core.problem import Problem
from yewhour.state.voices import voice_named
from yewhour.voice.film.drawn_film import FPS, drawn_film, drawn_pictures
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.film.laid_over import LaidPicture
from yewhour.voice.film.overlay_file import write_overlay

WIDE, HIGH = 160, 90


def square(number: int) -> LaidPicture:
    pixels = np.zeros((20, 20, 4), np.uint8)
    pixels[:] = (200, 40, 40, 255)
    return LaidPicture(2 * number % 120, 20, pixels)


SQUARES = [square(number) for number in range(200)]
PAPER = LaidPicture(0, 0, np.full((HIGH, WIDE, 4), 240, np.uint8))


def moving(at_s):
    """A square that goes on by two pixels a second."""
    return [SQUARES[int(at_s)]]


@pytest.fixture(scope="module")
def timed():
    return made_of(Step(movement="child", amount=1), title="Ebb")


@pytest.mark.parametrize(
    "ending", [".mp4", *(pytest.param(end, marks=pytest.mark.long) for end in (".mkv", ".webm"))]
)
def test_a_class_becomes_a_film_as_long_as_it_is(timed, tmp_path, ending):
    out, shares = tmp_path / f"ebb{ending}", []
    text = FilmText("Ebb", chapters(timed), captions(timed))
    made = drawn_film(timed, out, moving, PAPER, voice_named("en"), {}, text, shares.append)
    assert made.length_s == timed.length_s
    assert shares == sorted(shares)
    with av.open(str(out)) as file:
        assert float(file.duration / av.time_base) == pytest.approx(timed.length_s, abs=0.1)
        assert len(file.chapters()) == len(chapters(timed))
        frames = {round(frame.time, 2): frame.to_ndarray(format="rgb24") for frame in file.decode(video=0)}
    for at_s in (0.0, 3.0, 7.0):  # each second's square is where it was
        before = max(at for at in frames if at <= at_s + 0.01)
        assert frames[before][30, 2 * int(at_s) + 10, 0] > 150
        assert frames[before][30, 2 * int(at_s) + 10, 1] < 110
    with av.open(str(out)) as file:
        said = [one for one in file.demux(subtitles=0) if one.size > 2]
        assert len(said) == len(text.captions)
    with av.open(str(out)) as file:
        sound = np.concatenate([one.to_ndarray().reshape(-1) for one in file.decode(audio=0)])
        assert len(sound) / 48000 == pytest.approx(timed.length_s, abs=0.1)
        assert np.abs(sound).max() > 0.1
    assert [one.name for one in tmp_path.iterdir()] == [out.name]


def test_what_stands_still_is_not_made_again_and_shown_twice_a_second():
    frames = list(drawn_pictures(PAPER, lambda at_s: [SQUARES[0]], 4 * FPS))
    times = [at for at, _ in frames]
    assert times[0] == 0.0
    assert max(after - at for at, after in pairwise(times)) <= 0.5
    assert len(times) < 12


def test_an_ending_that_is_no_film_is_told(timed, tmp_path):
    with pytest.raises(Problem, match=r"can't end in '\.gif'"):
        drawn_film(timed, tmp_path / "a.gif", moving, PAPER, voice_named("en"), {}, FilmText(""))
    with pytest.raises(Problem, match="can't be written"):
        drawn_film(timed, tmp_path / "no" / "a.mp4", moving, PAPER, voice_named("en"), {}, FilmText(""))
    assert list(tmp_path.iterdir()) == []


@pytest.mark.parametrize("ending", [".webm", ".mov"])
def test_alone_it_can_be_looked_through(tmp_path, ending):
    out = tmp_path / f"over{ending}"
    assert write_overlay(out, moving, (WIDE, HIGH), 3.0, 5, lambda share: None) == 15
    decoder = av.CodecContext.create("libvpx-vp9", "r")
    with av.open(str(out)) as file:
        if ending == ".mov":
            found = list(file.decode(video=0))
        else:  # what FFmpeg decodes it with by itself leaves the transparency out
            found = [frame for packet in file.demux(video=0) for frame in decoder.decode(packet)]
    assert len(found) == 15
    pixels = found[12].to_ndarray(format="rgba").astype(int)
    assert pixels[30, 10, 3] > 240
    assert pixels[30, 10, 0] > 150
    assert pixels[70, 100, 3] < 10


def test_alone_as_a_folder_of_pictures_whole_or_not_at_all(tmp_path):
    out = tmp_path / "over"
    write_overlay(out, moving, (WIDE, HIGH), 2.0, 5, lambda share: None)
    names = sorted(one.name for one in out.iterdir())
    assert names == [f"{number:06}.png" for number in range(10)]
    with av.open(str(out / "000007.png")) as file:
        pixels = next(file.decode(video=0)).to_ndarray(format="rgba")
    assert tuple(pixels[30, 10]) == (200, 40, 40, 255)
    assert pixels[70, 100, 3] == 0
    with pytest.raises(Problem, match="empty folder"):
        write_overlay(out, moving, (WIDE, HIGH), 2.0, 5, lambda share: None)

    def stop(share):
        if share > 0.5:
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        write_overlay(tmp_path / "more", moving, (WIDE, HIGH), 2.0, 5, stop)
    with pytest.raises(Problem, match=r"can't end in '\.mp4'"):
        write_overlay(tmp_path / "over.mp4", moving, (WIDE, HIGH), 2.0, 5, stop)
    assert [one.name for one in tmp_path.iterdir()] == ["over"]
