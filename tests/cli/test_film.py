"""The film of a class from the command line: listed, made, and refused in words."""

import json

import av
import numpy as np
import pysubs2
import pytest
import soundfile

from tests.cli.test_commands import DEMO, run
from tests.conftest import plan_of
from tests.films import BEFORE_S, SOUND_S, film_class
from tools import camera
from yewhour.core.plan.nodes import Step
from yewhour.state.classes.class_file import write_plan


@pytest.fixture(scope="module")
def filmed(tmp_path_factory):
    """A class, its captions, and the camera's file of it."""
    return film_class(tmp_path_factory.mktemp("filmed"))


def film(capsysbinary, folder, *more):
    arguments = ("--class", str(folder / "ebb.yewhour"), "--captions", str(folder / "ebb.vtt"), *more)
    return run(capsysbinary, "film", str(folder / "camera.mp4"), *arguments)


def test_what_would_be_cut_is_told_with_its_reason(capsysbinary, filmed):
    code, out, _ = film(capsysbinary, filmed, "--list", "--format", "json")
    assert code == 0
    found = json.loads(out)
    assert found["film_s"] == pytest.approx(240.0, abs=0.6)
    before, *still, after = found["cuts"]
    assert (before["why"], {one["why"] for one in still}, after["why"]) == ("before", {"still"}, "after")
    assert found["cuts"][0]["end_s"] == pytest.approx(BEFORE_S, abs=2.0)
    code, out, _ = film(capsysbinary, filmed, "--list")
    assert "cut: longer still than planned" in out


def test_the_film_has_the_promised_length_and_its_captions_beside_it(capsysbinary, filmed):
    out = filmed / "class.mp4"
    code, _, err = film(capsysbinary, filmed, "--out", str(out))
    assert code == 0, err
    with av.open(str(out)) as file:
        assert float(file.duration / av.time_base) == pytest.approx(240.0, abs=0.8)
    said = out.with_suffix(".vtt").read_text()
    assert said.startswith("WEBVTT")
    first = next(row for row in said.splitlines() if "-->" in row)
    assert first.startswith("00:00:01.") or first.startswith("00:00:00.")
    code, _, err = film(capsysbinary, filmed, "--out", str(out))
    assert code == 2
    assert "This is there already" in err


def test_what_can_not_be_made_is_told(capsysbinary, filmed, tmp_path):
    code, _, err = film(capsysbinary, filmed)
    assert (code, "Where the film goes is not said" in err) == (2, True)
    code, _, err = run(capsysbinary, "film", str(filmed / "camera.mp4"), "--out", str(tmp_path / "a.mp4"))
    assert (code, "Which class this is a film of is not said" in err) == (2, True)
    code, _, err = run(capsysbinary, "film", str(filmed / "ebb.vtt"), "--class", DEMO, "--list")
    assert code == 2
    assert "no picture in this file" in err
    code, _, err = run(
        capsysbinary, "film", str(filmed / "camera.mp4"), "--class", DEMO, "--captions",
        str(filmed / "ebb.vtt"), "--list",
    )  # fmt: skip
    assert code == 2
    assert "of another class" in err


def test_the_list_is_written_for_other_programs_and_read_again_changed(capsysbinary, filmed, tmp_path):
    for name, first in (
        ("otio", b"{"),
        ("edl", b"TITLE: Ebb"),
        ("ffconcat", b"ffconcat"),
        ("labels", b"0.0"),
    ):
        code, out, _ = film(capsysbinary, filmed, "--list", "--format", name)
        assert code == 0
        assert out.encode().startswith(first)
    mine = tmp_path / "cuts.json"
    mine.write_text('{"cuts": [{"start_s": 0, "end_s": 20}]}')
    code, out, _ = film(capsysbinary, filmed, "--list", "--cuts", str(mine))
    assert "0:20.0  cut: as you wish" in out
    mine.write_text('{"cuts": [{"start_s": 0, "end_s": 20}, {"start_s": 4, "end_s": 30}]}')
    code, _, err = film(capsysbinary, filmed, "--list", "--cuts", str(mine))
    assert code == 2
    assert "cuts.json, cut 2" in err
    assert "lies over the one before" in err


def test_what_lies_over_the_picture_is_seen_in_the_film(capsysbinary, filmed, tmp_path):
    mine, bare, over = tmp_path / "cuts.json", tmp_path / "bare.mp4", tmp_path / "over.mp4"
    mine.write_text('{"cuts": [{"start_s": 0, "end_s": 12}, {"start_s": 24, "end_s": 900}]}')
    film(capsysbinary, filmed, "--cuts", str(mine), "--out", str(bare))
    code, _, err = film(capsysbinary, filmed, "--cuts", str(mine), "--over", "title,name", "--out", str(over))
    assert code == 0, err
    middles = []
    for path in (bare, over):
        with av.open(str(path)) as file:
            middles.append(next(file.decode(video=0)).to_ndarray(format="gray")[60, 60:130].astype(int))
    assert abs(middles[0] - middles[1]).max() > 40  # the plate of the title


def test_a_class_without_a_camera_and_its_overlay_alone(capsysbinary, tmp_path):
    short = tmp_path / "short.yewhour"
    write_plan(plan_of(Step(movement="child", amount=1), title="Ebb", target_s=33.0), short)
    out = tmp_path / "ebb.mp4"
    code, _, err = run(capsysbinary, "film", str(short), "--size", "320x180", "--out", str(out))
    assert code == 0, err
    with av.open(str(out)) as file:
        assert (file.streams.video[0].width, file.streams.video[0].height) == (320, 180)
        pixels = [frame.to_ndarray(format="rgb24") for frame in file.decode(video=0)][-40]
    assert pixels[100:140, 100:220].std() > 10  # somebody rests there
    assert out.with_suffix(".vtt").read_text().startswith("WEBVTT")
    alone = tmp_path / "over.mov"
    code, _, err = run(
        capsysbinary, "film", str(short), "--alone", "--size", "320x180", "--over", "name,left",
        "--out", str(alone),
    )  # fmt: skip
    assert code == 0, err
    assert "825 pictures, 25 a second" in err


@pytest.mark.parametrize(
    ("more", "told"),
    [
        (("--over", "clock", "--out", "x.mp4"), "'clock' can't lie over the picture"),
        (("--size", "12", "--out", "x.mp4"), "'12' is no size of a picture"),
        (("--size", "321x180", "--out", "x.mp4"), "even numbers"),
        ((), "Where the film goes is not said"),
        (("--out", "x.gif"), "can't end in '.gif'"),
        (("--alone", "--out", "x.mp4"), "can't end in '.mp4'"),
    ],
)
def test_what_can_not_be_drawn_is_told(capsysbinary, tmp_path, monkeypatch, more, told):
    monkeypatch.chdir(tmp_path)
    code, _, err = run(capsysbinary, "film", DEMO, *more)
    assert code == 2
    assert told in err
    assert list(tmp_path.iterdir()) == []


def test_marks_lie_where_the_take_began_in_the_camera(capsysbinary, filmed, tmp_path):
    """The camera ran twelve seconds before; what she cut out is cut where it is in its file."""
    marks = tmp_path / "marks.jsonl"
    marks.write_text(
        '{"at_s": 0, "do": "start", "length_s": 240}\n{"at_s": 60, "do": "pause"}\n'
        '{"at_s": 66, "do": "resume", "cut": [60, 66]}\n{"at_s": 246, "do": "end"}\n'
    )
    said = tmp_path / "paused.vtt"
    rows = pysubs2.load(str(filmed / "ebb.vtt"))
    for one in rows:
        if one.start > 1000 * (60 + BEFORE_S):
            one.shift(s=6)
    rows.save(str(said))
    code, out, err = film(
        capsysbinary, filmed, "--marks", str(marks), "--captions", str(said), "--list", "--format", "json"
    )
    assert code == 0, err
    (marked,) = [one for one in json.loads(out)["cuts"] if one["why"] == "marked"]
    assert marked["start_s"] == pytest.approx(60 + BEFORE_S, abs=1.0)
    assert marked["end_s"] - marked["start_s"] == pytest.approx(6.0)
    assert "the beginning of the take was found by what was said" in err


def test_a_sound_that_did_not_begin_with_the_take_does_not_move_its_marks(capsysbinary, filmed, tmp_path):
    """A recorder that was switched on in between: her lines say where the take began."""
    sound = camera.murmur(SOUND_S).astype(np.float32)
    camera.film(tmp_path / "camera.mp4", 280.0, fps=2, speech=sound)
    soundfile.write(tmp_path / "own.flac", sound[round(3.5 * camera.RATE) :], camera.RATE)
    marks = tmp_path / "marks.jsonl"
    marks.write_text(
        '{"at_s": 0, "do": "start", "length_s": 240}\n'
        '{"at_s": 66, "do": "back", "cut": [60, 66]}\n{"at_s": 246, "do": "end"}\n'
    )
    rows = pysubs2.load(str(filmed / "ebb.vtt"))
    for one in rows:
        if one.start > 1000 * (60 + BEFORE_S):
            one.shift(s=6)
    rows.save(str(tmp_path / "said.vtt"))
    given = ("--class", str(filmed / "ebb.yewhour"), "--marks", str(marks), "--list", "--format", "json")
    heard = ("--captions", str(tmp_path / "said.vtt"), "--sound", str(tmp_path / "own.flac"))
    code, out, err = run(capsysbinary, "film", str(tmp_path / "camera.mp4"), *given, *heard)
    assert code == 0, err
    (marked,) = [one for one in json.loads(out)["cuts"] if one["why"] == "marked"]
    assert marked["start_s"] == pytest.approx(60 + BEFORE_S, abs=1.0)
    assert "the beginning of the take was found by what was said" in err


def test_a_folder_that_is_no_take_is_told(capsysbinary, filmed, tmp_path):
    code, _, err = film(capsysbinary, filmed, "--take", str(tmp_path), "--list")
    assert code == 2
    assert "There is no take in this folder" in err
    code, _, err = film(capsysbinary, filmed, "--sound", str(filmed / "ebb.vtt"), "--list")
    assert code == 2
    assert "can't be aligned" in err or "no sound" in err
