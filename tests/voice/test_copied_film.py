"""A picture that is copied is the camera's own, from key frame to key frame, with even sound beside it."""

import av
import numpy as np
import pytest

from tools.camera import film, number_of
from yewhour.core.film.cut_list import Cut, CutList, between
from yewhour.core.problem import Problem
from yewhour.voice.film.copied_film import copy_film, film_of, key_frames, on_key_frames
from yewhour.voice.film.film_file import FilmText


@pytest.fixture(scope="module")
def camera(tmp_path_factory):
    path = tmp_path_factory.mktemp("camera") / "camera.mp4"
    film(path, 60, fps=10, keys=20)
    return path


def test_key_frames_are_found_and_pieces_begin_and_end_on_them(camera):
    keys = key_frames(camera)
    assert keys == [2.0 * number for number in range(30)]
    found = on_key_frames([(3.1, 8.0), (20.5, 31.9)], keys, 60.0)
    assert found == [(2.0, 8.0), (20.0, 32.0)]
    assert on_key_frames([(3.1, 7.0), (7.5, 31.9)], keys, 60.0) == [(2.0, 32.0)]
    assert on_key_frames([(57.0, 59.5)], keys, 60.0) == [(56.0, 60.0)]
    assert on_key_frames([(1.0, 2.0)], [], 60.0) == [(0.0, 60.0)]


def test_each_picture_is_the_one_of_its_second_bit_by_bit(camera, tmp_path):
    out, pieces = tmp_path / "class.mp4", [(4.0, 12.0), (40.0, 50.0)]
    shares = []
    made = copy_film(camera, out, pieces, FilmText("Ebb"), shares.append)
    assert (made.length_s, made.frames) == (18.0, 180)
    assert shares == sorted(shares)
    with av.open(str(out)) as file:
        assert file.metadata["title"] == "Ebb"
        shown = [(frame.time, number_of(frame)) for frame in file.decode(video=0)]
        assert len(shown) == 180
    for at_s, number in shown:
        real = 4.0 + at_s if at_s < 7.95 else 40.0 + at_s - 8.0
        assert number == pytest.approx(10 * real, abs=0.6)
    with av.open(str(out)) as file:
        sound = np.concatenate([frame.to_ndarray().reshape(-1) for frame in file.decode(audio=0)])
    assert len(sound) / 48_000 == pytest.approx(18.0, abs=0.05)
    second = np.abs(sound[9 * 48_000 : 9 * 48_000 + 4800])  # a tone at each second
    assert second.max() > 0.1


def test_what_can_not_be_copied_is_told_and_nothing_is_left(camera, tmp_path):
    with pytest.raises(Problem, match=r"can't be copied into \.webm"):
        copy_film(camera, tmp_path / "class.webm", [(4.0, 12.0)], FilmText(""))
    with pytest.raises(Problem, match="stays as the camera's"):
        copy_film(camera, tmp_path / "class.av1.mp4", [(4.0, 12.0)], FilmText(""))
    (tmp_path / "words.mp4").write_text("no film")
    with pytest.raises(Problem, match="can't be read"):
        key_frames(tmp_path / "words.mp4")

    def stop(share):
        if share > 0.6:
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        copy_film(camera, tmp_path / "class.mp4", [(4.0, 40.0)], FilmText(""), stop)
    assert {one.name for one in tmp_path.iterdir()} == {"words.mp4"}


def test_a_cut_that_moved_keeps_its_reason():
    cuts = CutList(60.0, (Cut(0.0, 3.1, "before"), Cut(8.0, 20.5, "still"), Cut(58.0, 60.0, "after")), 0.0)
    moved = list(between([(2.0, 8.0), (20.0, 58.0)], cuts))
    assert [(one.start_s, one.end_s, one.why) for one in moved] == [
        (0.0, 2.0, "before"), (8.0, 20.0, "still"), (58.0, 60.0, "after"),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("cuts", "ending", "copied"),
    [
        ([(0.0, 4.0), (12.0, 40.0)], "mp4", True), ([(0.0, 4.0), (12.3, 40.0)], "mp4", False),
        ([(0.0, 4.0), (12.0, 40.0)], "webm", False),
        pytest.param([(0.0, 4.0), (12.0, 40.0)], "av1.mp4", False, marks=pytest.mark.long),
        ([], "mkv", True),
    ],
)  # fmt: skip
def test_it_is_copied_by_itself_where_that_is_the_same(camera, tmp_path, cuts, ending, copied):
    found = CutList(60.0, tuple(Cut(start_s, end_s, "hers") for start_s, end_s in cuts), 0.0)
    out = tmp_path / f"class.{ending}"
    film_of(camera, out, found, FilmText("Ebb"))
    with av.open(str(camera)) as one, av.open(str(out)) as other:
        first = next(packet for packet in one.demux(video=0) if packet.is_keyframe and packet.pts is not None
                     and float(packet.pts * packet.time_base) >= (4.0 if cuts else 0.0))  # fmt: skip
        same = bytes(first) == bytes(next(other.demux(video=0)))
    assert same == copied
