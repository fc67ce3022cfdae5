"""A cut list goes out and comes back as it was, and other programs find the same pieces in it."""

import json

import opentimelineio
import pytest

from yewhour.core.film.cut_files import CUT_FORMATS, ffconcat, read_cuts
from yewhour.core.film.cut_list import Cut, CutList, Slower
from yewhour.core.problem import Problem

CUTS = CutList(
    400.0, (Cut(0.0, 12.4, "before"), Cut(50.0, 90.0, "marked"), Cut(380.0, 400.0, "after")), 330.0
)


def written(name: str) -> str:
    return CUT_FORMATS[name].write(CUTS, "camera 1.mp4", "Ebb's tide")


def test_what_is_written_is_read_again():
    assert read_cuts(written("json").encode(), 400.0, 330.0) == CUTS
    hers = json.dumps({"cuts": [{"start_s": 100, "end_s": 120}, {"start_s": 3, "end_s": 9, "why": "still"}]})
    found = read_cuts(hers.encode(), 400.0, 0.0)
    assert [(one.start_s, one.why) for one in found.cuts] == [(3.0, "still"), (100.0, "hers")]
    assert found.film_s == 374.0


@pytest.mark.parametrize(
    ("content", "told"),
    [
        ("no list", "no list of cuts"), ('{"cuts": 3}', "no list of cuts"), ("[" * 5000, "no list of cuts"),
        ('{"cuts": [{"start_s": 9, "end_s": 5}]}', "ends before it begins"),
        ('{"cuts": [{"start_s": -4, "end_s": 5}]}', "ends before it begins"),
        ('{"cuts": [{"start_s": 900, "end_s": 905}]}', "outside the recording, which is 6:40"),
        ('{"cuts": [{"start_s": 5, "end_s": 20}, {"start_s": 10, "end_s": 30}]}', "over the one before"),
        ('{"cuts": [{"start_s": 5, "end_s": 20, "why": "rain"}]}', "no list of cuts"),
    ],
)  # fmt: skip
def test_what_is_no_list_is_told(content, told):
    with pytest.raises(Problem, match=told):
        read_cuts(content.encode(), 400.0, 0.0)


def test_other_programs_find_the_same_pieces():
    pieces = [(12.4, 50.0), (90.0, 380.0)]
    assert CUTS.pieces == pieces
    timeline = opentimelineio.adapters.read_from_string(written("otio"), "otio_json")
    spans = [clip.trimmed_range() for clip in timeline.find_clips()]
    found = [(one.start_time.to_seconds(), one.end_time_exclusive().to_seconds()) for one in spans]
    assert [round(at, 6) for span in found for at in span] == [12.4, 50.0, 90.0, 380.0]
    rows = [row.split() for row in written("edl").splitlines() if row[:3].isdigit()]
    assert [row[1] for row in rows] == ["CAMERA1M", "CAMERA1M"]
    assert [row[4:] for row in rows] == [
        ["00:00:12:10", "00:00:50:00", "00:00:00:00", "00:00:37:15"],
        ["00:01:30:00", "00:06:20:00", "00:00:37:15", "00:05:27:15"],
    ]
    assert "file 'camera 1.mp4'\ninpoint 12.400\noutpoint 50.000\n" in written("ffconcat")
    assert "50.000000\t90.000000\tcut: you cut it out" in written("labels")
    assert "you cut it out" in written("text")
    assert "\\''" in CUT_FORMATS["ffconcat"].write(CUTS, "it's.mp4", "")


def test_the_list_is_told_as_it_is():
    rows = written("text").splitlines()
    assert rows[0] == "6:40.0 recorded, 5:27.6 in the film."
    assert rows[1].split("  cut: ") == ["   0:00.0 to    0:12.4", "before the class begins"]
    assert rows[2].endswith("0:50.0 to    1:30.0  cut: you cut it out")
    assert len(rows) == 4
    value = json.loads(written("json"))
    assert (value["length_s"], value["film_s"], value["promised_s"]) == (400.0, 327.6, 330.0)
    assert value["pieces"] == [[12.4, 50.0], [90.0, 380.0]]
    assert value["cuts"][1] == {"start_s": 50.0, "end_s": 90.0, "why": "marked"}
    assert written("json").endswith("}\n")


def test_a_timeline_names_its_recording_and_its_pieces():
    timeline = opentimelineio.adapters.read_from_string(written("otio"), "otio_json")
    assert timeline.name == "Ebb's tide"
    assert [track.kind for track in timeline.tracks] == ["Video"]
    clips = list(timeline.find_clips())
    assert [clip.name for clip in clips] == ["Ebb's tide 1", "Ebb's tide 2"]
    assert {clip.media_reference.target_url for clip in clips} == {"camera 1.mp4"}
    assert clips[0].media_reference.available_range.duration.to_seconds() == 400.0


def test_an_edit_list_says_what_it_is_and_counts_frames():
    rows = written("edl").splitlines()
    assert rows[:2] == ["TITLE: Ebb's tide", "FCM: NON-DROP FRAME"]
    assert rows[3].startswith("001  CAMERA1M AA/V  C        00:00:12:10")
    assert rows[4] == "* FROM CLIP NAME: camera 1.mp4"
    odd = CutList(4000.0, (Cut(0.0, 3725.08, "before"),), 0.0)
    (row,) = [one for one in CUT_FORMATS["edl"].write(odd, "…", "a\nb").splitlines() if one[:3] == "001"]
    assert row.split()[1] == "CAMERA"  # where nothing of its name can stand there
    assert row.split()[4] == "01:02:05:02"
    assert CUT_FORMATS["edl"].write(odd, "x", "a\nb").startswith("TITLE: a b\n")


def test_where_a_cut_is_wrong_is_told_and_one_that_runs_over_the_end_ends_there():
    with pytest.raises(Problem) as told:
        read_cuts(b'{"cuts": [{"start_s": 5, "end_s": 20}, {"start_s": 65, "end_s": 60}]}', 400.0, 0.0)
    assert told.value.where == "cut 2, 1:05.0"
    found = read_cuts(b'{"cuts": [{"start_s": 390, "end_s": 9000}]}', 400.0, 7.0)
    assert (found.cuts[0].end_s, found.length_s, found.promised_s) == (400.0, 400.0, 7.0)
    touching = read_cuts(b'{"cuts": [{"start_s": 5, "end_s": 20}, {"start_s": 20, "end_s": 30}]}', 400.0, 0.0)
    assert touching.film_s == 375.0
    with pytest.raises(Problem, match="ends before it begins"):
        read_cuts(b'{"cuts": [{"start_s": 5, "end_s": 5}]}', 400.0, 0.0)


SLOWER = CutList(400.0, CUTS.cuts, 340.0, (Slower(200.0, 220.0, 10.0),))


def test_what_is_slower_is_in_every_list_and_read_again():
    texts = {name: one.write(SLOWER, "camera.mp4", "Ebb") for name, one in CUT_FORMATS.items()}
    assert read_cuts(texts["json"].encode(), 400.0, 340.0) == SLOWER
    assert "3:20.0 to    3:40.0  0:10.0 longer: the quiet of a rest" in texts["text"]
    timeline = opentimelineio.adapters.read_from_string(texts["otio"], "otio_json")
    speeds = [one.time_scalar for clip in timeline.find_clips() for one in clip.effects]
    assert speeds == [pytest.approx(2 / 3)]
    rows = texts["edl"].splitlines()
    number = next(n for n, row in enumerate(rows) if row.startswith("M2"))
    assert rows[number].split() == ["M2", "CAMERAMP", "016.7", "00:03:20:00"]
    assert rows[number - 2].split()[4:] == ["00:03:20:00", "00:03:40:00", "00:02:27:15", "00:02:57:15"]
    assert "# 200.000 to 220.000, 0:10.0 longer" in texts["ffconcat"]
    assert "200.000000\t220.000000\t0:10.0 longer" in texts["labels"]


@pytest.mark.parametrize(
    ("start_s", "end_s", "by_s", "told"),
    [
        (40, 60, 5, "lie in what is kept"), (390, 410, 5, "lie in what is kept"),
        (30, 20, 5, "lie in what is kept"),
        (200, 210, 0, "So much longer"), (200, 210, 101, "So much longer"),
    ],
)  # fmt: skip
def test_what_can_not_be_slower_is_told(start_s, end_s, by_s, told):
    value = json.loads(CUT_FORMATS["json"].write(CUTS, "", ""))
    value["slower"] = [{"start_s": start_s, "end_s": end_s, "by_s": by_s}]
    with pytest.raises(Problem, match=told):
        read_cuts(json.dumps(value).encode(), 400.0, 0.0)


def test_a_list_of_pieces_ends_with_its_last_piece():
    rows = ffconcat(CutList(10.0, (Cut(0.0, 2.0, "before"),), 8.0), "class.mp4", "Class").split("\n")
    assert rows[-2:] == ["outpoint 10.000", ""]
