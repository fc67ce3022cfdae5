"""The command line, in this process; the launcher itself is tried in test_launcher.py."""

import json
import shlex
import subprocess
import sys

import pytest

from yewhour.cli.main import main
from yewhour.content.paths import FIRST_DEMO

DEMO = str(FIRST_DEMO)


def run(capsysbinary, *arguments):
    try:
        code = main(list(arguments))
    except SystemExit as stop:
        code = stop.code
    out, err = capsysbinary.readouterr()
    return code, out.decode(), err.decode()


def test_a_script_of_twenty_one_minutes_is_exactly_that(capsysbinary):
    code, out, _ = run(capsysbinary, "script", DEMO, "--length", "21:00", "--format", "json")
    assert code == 0
    assert json.loads(out)["length_s"] == 1260.0


@pytest.mark.parametrize("form", ["text", "markdown", "srt", "vtt"])
def test_every_format_is_written_to_a_file(capsysbinary, tmp_path, form):
    path = tmp_path / "script.out"
    code, out, _ = run(capsysbinary, "script", DEMO, "--format", form, "--out", str(path))
    assert (code, out) == (0, "")
    assert "riverside" in path.read_text() or "Welcome" in path.read_text() or "welcome" in path.read_text()


def test_fit_says_what_each_movement_becomes(capsysbinary):
    code, out, _ = run(capsysbinary, "fit", DEMO, "--length", "20:00")
    assert code == 0
    assert "20:00.0" in out
    assert "breaths" in out
    assert "shortest" in out


@pytest.mark.parametrize(
    ("arguments", "code", "says"),
    [
        (["fit", DEMO, "--length", "4:00"], 1, "shortest"),
        (["fit", DEMO, "--length", "90:00"], 1, "longest"),
        (["fit", DEMO, "--length", "soon"], 2, "not a length"),
        (["fit", DEMO, "--length", "0"], 2, "can't last"),
        (["fit", DEMO, "--length=-5"], 2, "not a length"),
        (["fit", "/no/such.yewhour"], 2, "can't be read"),
        (["fit", "/tmp"], 2, "folder"),
        (["script", DEMO, "--out", "/no/such/folder/x.txt"], 2, "can't be written"),
        (["script", DEMO, "--format", "hologram"], 2, "invalid choice"),
        ([], 2, "COMMAND"),
    ],
)
def test_wrong_input_is_said_in_one_message_with_its_exit_code(capsysbinary, arguments, code, says):
    got, out, err = run(capsysbinary, *arguments)
    assert got == code
    assert says in err
    assert out == ""
    assert "Traceback" not in err


def test_an_unknown_movement_names_the_file_and_the_movement(capsysbinary, tmp_path):
    path = tmp_path / "odd.yewhour"
    step = '{"is":"step","movement":"moonwalk"}'
    path.write_text(f'{{"yewhour":1,"brief":{{"target_s":60}},"sections":[{{"title":"A","body":[{step}]}}]}}')
    code, out, err = run(capsysbinary, "script", str(path))
    assert code == 0
    assert "Moonwalk, " in out
    assert "The movement Moonwalk is not in the library" in err
    assert str(path) in err


def test_an_older_output_stays_when_the_class_cannot_be_that_long(capsysbinary, tmp_path):
    path = tmp_path / "script.txt"
    path.write_text("before")
    run(capsysbinary, "script", DEMO, "--length", "2:00", "--out", str(path))
    assert path.read_text() == "before"


OUTLINE = "title: A <b>\nlength: 8:00\nstyle: hatha\n# All\nchild 5b\nfinal rest 5:00\n"


def test_an_export_never_writes_over_the_class_or_over_what_was_not_named(capsysbinary, tmp_path):
    source = tmp_path / "my-class.txt"
    source.write_text(OUTLINE)
    code, _, err = run(capsysbinary, "export", str(source), "--to", str(tmp_path))
    assert code == 2
    assert "the class itself" in err
    assert source.read_text() == OUTLINE
    (tmp_path / "my-class.csv").write_text("hers")
    code, _, err = run(capsysbinary, "export", str(source), "--to", str(tmp_path), "--format", "csv")
    assert code == 2
    assert "--replace" in err
    assert (tmp_path / "my-class.csv").read_text() == "hers"
    again = ("export", str(source), "--to", str(tmp_path), "--format", "csv", "--replace")
    assert run(capsysbinary, *again)[0] == 0
    assert (tmp_path / "my-class.csv").read_text() != "hers"
    for command in ("script", "outline", "convert"):
        code, _, err = run(capsysbinary, command, str(source), "--out", str(source))
        assert (code, source.read_text()) == (2, OUTLINE)


def test_a_traceback_never_has_the_exit_code_of_a_class_that_cannot_fit(capsysbinary, monkeypatch):
    def broken(*_):
        raise IndexError("oh")

    monkeypatch.setattr("yewhour.cli.requested.solve", broken)
    code, _, err = run(capsysbinary, "fit", DEMO)
    assert code == 2
    assert "fault of the program" in err


@pytest.mark.parametrize("line", ["voice rate: inf", "tolerance: nan", "target counts: maybe"])
def test_nothing_is_converted_that_could_not_be_opened_again(capsysbinary, tmp_path, line):
    source, out = tmp_path / "a.txt", tmp_path / "a.yewhour"
    source.write_text(OUTLINE.replace("style", f"{line}\nstyle"))
    code, _, err = run(capsysbinary, "convert", str(source), "--out", str(out))
    assert (code, out.exists()) == (2, False)
    assert "a.txt" in err


def test_a_closed_or_full_standard_output_is_told():
    script = shlex.join([sys.executable, "-m", "yewhour", "script", str(DEMO)])  # there may be a space in it
    full = subprocess.run(f"exec {script} > /dev/full", shell=True, capture_output=True)
    assert full.returncode == 2
    assert b"can't be written" in full.stderr
    closed = subprocess.run(f"exec {script} >&-", shell=True, capture_output=True)
    assert closed.returncode == 2
    assert b"Traceback" not in full.stderr + closed.stderr


def test_what_is_in_a_file_cannot_steer_a_terminal(capsysbinary, tmp_path):
    source = tmp_path / "a.txt"
    source.write_text(OUTLINE.replace("A <b>", "A \x1b[2J\x07 title"))
    code, out, err = run(capsysbinary, "fit", str(source))
    assert code == 0
    assert "title" in out
    assert "\x1b" not in out + err


def test_a_misspelt_field_is_said_beside_the_answer(capsysbinary, tmp_path):
    path = tmp_path / "a.yewhour"
    content = FIRST_DEMO.read_bytes()
    path.write_bytes(content.replace(b'"props"', b'"prosp"', 1).replace(b'"level"', b'"levle"', 1))
    assert path.read_bytes() != content
    code, out, messages = run(capsysbinary, "check", str(path))
    assert code == 0
    assert "means nothing here; it is kept as it is. Did you mean" in messages
    assert "means nothing here" not in out


def test_a_take_is_replayed_from_its_marks(capsysbinary, tmp_path):
    marks = tmp_path / "marks.jsonl"
    marks.write_text('{"at_s": 0, "do": "start"}\n{"at_s": 645.0, "do": "again"}\n{"at_s": 700, "do": "ne')
    code, out, err = run(capsysbinary, "take", DEMO, "--marks", str(marks), "--format", "json")
    assert code == 0
    answer = json.loads(out)
    assert answer["target_s"] == answer["end_s"] == 1440.0
    assert answer["unmet"] == []
    (retimed,) = answer["retimed"]
    assert retimed["at_s"] == 645.0
    assert all(change["from"] != change["to"] for change in retimed["changes"])
    assert "line 3: this mark was cut off" in err
    code, out, _ = run(capsysbinary, "take", DEMO, "--marks", str(marks))
    assert "at 10:45.0," in out


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ('{"at_s": 0, "do": "start", "title": "Another", "key": "1"}', "another class: 'Another'"),
        ('{"at_s": 0, "do": "start", "version": 7}', "newer version"),
        ('{"at_s": 0, "do": "sing"}', "line 1: A mark can't 'sing'"),
    ],
)
def test_marks_that_do_not_belong_are_refused(capsysbinary, tmp_path, line, says):
    marks = tmp_path / "marks.jsonl"
    marks.write_text(line + "\n")
    code, _, err = run(capsysbinary, "take", DEMO, "--marks", str(marks))
    assert code == 2
    assert says in err


def test_a_class_changed_since_its_take_is_told(capsysbinary, tmp_path):
    marks = tmp_path / "marks.jsonl"
    marks.write_text('{"at_s": 0, "do": "start", "title": "Ropes and shoulders", "key": "older"}\n')
    code, _, err = run(capsysbinary, "take", DEMO, "--marks", str(marks))
    assert code == 0
    assert "was changed after this take began" in err


def test_a_class_is_spoken_into_a_file(capsysbinary, tmp_path):
    path = tmp_path / "class.flac"
    minute = tmp_path / "minute.txt"
    minute.write_text("title: A minute\nlength: 1:00\nstyle: slow\n# All\nchild 40s\n")
    code, out, _ = run(capsysbinary, "voice", str(minute), "--out", str(path), "--with", "lines,bells")
    assert code == 0
    assert "1:00.0" in out
    assert path.read_bytes().startswith(b"fLaC")


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["--with", "songs"], "'songs' can't be heard"),
        (["--with", ""], "Nothing would be heard"),
        (["--voice", "nobody"], "no voice 'nobody'"),
        (["--length", "1:00:00"], "longest"),
    ],
)
def test_what_can_not_be_spoken_is_told(capsysbinary, tmp_path, arguments, says):
    slip = str(FIRST_DEMO.with_name("four-at-the-slip.yewhour"))
    code, _, err = run(capsysbinary, "voice", slip, "--out", str(tmp_path / "class.flac"), *arguments)
    assert code in (1, 2)
    assert says in err
    assert list(tmp_path.iterdir()) == []


SAID = "[0:02] Lift the left leg, sorry, the right leg. [9:00] Thank you."


def test_a_recording_is_looked_back_at_with_and_without_its_class(capsysbinary, tmp_path):
    slip = str(FIRST_DEMO.with_name("four-at-the-slip.yewhour"))
    captions = tmp_path / "talk.vtt"
    code, _, _ = run(capsysbinary, "script", slip, "--format", "vtt", "--out", str(captions))
    assert code == 0
    code, out, _ = run(capsysbinary, "look-back", slip, "--captions", str(captions), "--format", "json")
    value = json.loads(out)
    assert code == 0
    assert value["target_s"] == 240.0
    assert all(line["said_s"] is not None for line in value["lines"])
    assert [one["id"] for one in value["segments"]]
    captions.write_text(SAID)
    code, out, _ = run(capsysbinary, "look-back", "--captions", str(captions), "--format", "json")
    value = json.loads(out)
    assert "segments" not in value
    assert [one["code"] for one in value["findings"]] == ["side-slip"]
    code, out, _ = run(capsysbinary, "look-back", "--captions", str(captions))
    assert "side-slip" in out


def test_it_is_written_as_it_was_and_never_over_what_is_there(capsysbinary, tmp_path):
    slip = str(FIRST_DEMO.with_name("four-at-the-slip.yewhour"))
    captions = tmp_path / "talk.srt"
    run(capsysbinary, "script", slip, "--format", "srt", "--out", str(captions))
    arguments = ("look-back", slip, "--captions", str(captions), "--to", str(tmp_path))
    code, _, err = run(capsysbinary, *arguments)
    assert code == 0
    assert "four-at-the-slip.as-it-was.srt" in err
    code, _, err = run(capsysbinary, *arguments)
    assert (code, "already; nothing was written" in err) == (2, True)
    assert run(capsysbinary, *arguments, "--replace")[0] == 0


@pytest.mark.parametrize(
    ("arguments", "name"),
    [
        (("script", "CLASS"), "there.txt"),
        (("script", "CLASS", "--format", "srt"), "there.srt"),
        (("outline", "CLASS"), "there.txt"),
        (("convert", "CLASS"), "there.yewhour"),
        (("draft", "10-minute gentle hatha", "--yes"), "there.yewhour"),
        (("draft", "10-minute gentle hatha", "--yes", "--format", "json"), "there.json"),
        (("voice", "CLASS"), "there.flac"),
        (("bring-in", "CAPTIONS"), "there.txt"),
        (("shelf", "--made-up"), "there.txt"),
        (("what-went-wrong",), "there.txt"),
    ],
)
def test_what_is_there_is_written_over_only_where_somebody_says_so(capsysbinary, tmp_path, arguments, name):
    captions = tmp_path / "heard.srt"
    captions.write_text("1\n00:00:01,000 --> 00:00:05,000\nNow into child's pose.\n")
    slip = str(FIRST_DEMO.with_name("four-at-the-slip.yewhour"))
    given = [{"CLASS": slip, "CAPTIONS": str(captions)}.get(one, one) for one in arguments]
    there = tmp_path / name
    there.write_text("hers")
    code, _, err = run(capsysbinary, *given, "--out", str(there))
    assert code == 2
    assert "already" in err
    assert "--replace" in err
    assert there.read_text() == "hers"
    if arguments[0] != "voice":  # it would take its time
        assert run(capsysbinary, *given, "--out", str(there), "--replace")[0] == 0
        assert there.read_bytes() != b"hers"


def test_the_folder_of_a_take_is_looked_back_at(capsysbinary, tmp_path):
    (tmp_path / "class.yewhour").write_bytes(FIRST_DEMO.read_bytes())
    (tmp_path / "marks.jsonl").write_text('{"at_s": 0, "do": "start"}\n{"at_s": 168, "do": "again"}\n')
    code, out, _ = run(capsysbinary, "look-back", str(tmp_path))
    assert code == 0
    assert "Wrist stretch, right: about 4 breaths, 3 were planned." in out


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        ([], "nothing to look back at"),
        ([DEMO], "nothing to look back at"),
        ([DEMO, "--captions", "/nowhere.srt"], "can't be read"),
        ([DEMO, "--sound", "/nowhere.wav"], "can't be read"),
        (["--captions", DEMO], "no time in these captions"),
        (["--captions", DEMO, "--to", "."], "Without its class"),
        (["--captions", "/"], "a folder, not captions"),
        (["/"], "no take in this folder"),
    ],
)
def test_what_can_not_be_looked_at_is_told(capsysbinary, arguments, says):
    code, _, err = run(capsysbinary, "look-back", *arguments)
    assert code == 2
    assert says in err


def test_a_recording_is_brought_in(capsysbinary, tmp_path):
    captions = tmp_path / "hips.txt"
    captions.write_text("[0:10] Into your first downward facing dog. [1:00] And then child's pose.")
    code, out, err = run(capsysbinary, "bring-in", str(captions))
    assert code == 0
    assert "downward dog" in out
    assert "2 movements found" in err
    timed = tmp_path / "hips.yewhour"
    assert run(capsysbinary, "bring-in", str(captions), "--out", str(timed))[0] == 0
    assert run(capsysbinary, "outline", str(timed))[0] == 0
    code, _, err = run(capsysbinary, "bring-in", str(captions), "--out", str(captions))
    assert code == 2
    assert captions.read_text().startswith("[0:10]")


def test_what_is_stopped_says_so_and_leaves_nothing(capsysbinary, tmp_path, monkeypatch):
    def stop(*arguments):
        raise KeyboardInterrupt

    monkeypatch.setattr("yewhour.voice.sound.speak_class.write_sound", stop)
    code, _, err = run(capsysbinary, "voice", DEMO, "--out", str(tmp_path / "class.flac"))
    assert code == 130
    assert err.strip() == "yewhour: stopped"
    assert list(tmp_path.iterdir()) == []


def test_the_command_line_brings_in_nothing_that_is_large():
    heavy = {"hashlib", "html.entities", "tomlkit", "numpy", "rapidfuzz", "PySide6", "av", "pocketsphinx"}
    code = f"import sys, yewhour.cli.main; print(*({heavy!r} & sys.modules.keys()))"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == ""


def test_the_shelf_is_told_searched_and_written_out(capsysbinary, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "nobody"))
    code, _, err = run(capsysbinary, "shelf")
    assert code == 2
    assert "nothing on the shelf" in err
    code, out, _ = run(capsysbinary, "shelf", "--made-up")
    assert code == 0
    assert "Hips: 3 weeks running." in out
    assert "This week:" in out
    _, out, _ = run(capsysbinary, "shelf", "--made-up", "--find", "lamps out")
    assert out.split()[1:3] == ["Lamps", "out"]
    code, _, err = run(capsysbinary, "shelf", "--made-up", "--find", "trapeze")
    assert (code, "'trapeze'" in err) == (2, True)
    _, out, _ = run(capsysbinary, "shelf", "--made-up", "--format", "csv")
    assert out.startswith("day,time,class")
    _, out, _ = run(capsysbinary, "shelf", "--made-up", "--format", "ics")
    assert out.startswith("BEGIN:VCALENDAR")
    assert (
        run(capsysbinary, "shelf", "--made-up", "--format", "pdf", "--out", str(tmp_path / "w.pdf"))[0] == 0
    )
    assert (tmp_path / "w.pdf").read_bytes().startswith(b"%PDF")


def test_a_class_is_drafted_from_words_or_options_and_the_same_seed_is_the_same(capsysbinary, tmp_path):
    words = "20-minute gentle hatha for the crew, evening, about hips, mind knees, a block at hand"
    code, out, err = run(capsysbinary, "draft", words, "--why")
    assert code == 0
    assert "length: 20:00" in out
    assert "cautions: knees" in out
    assert "about hips" in err
    options = (
        "--style",
        "hatha",
        "--level",
        "gentle",
        "--for",
        "the crew",
        "--time",
        "evening",
        "--focus",
        "hips",
    )
    more = ("--cautions", "knees", "--props", "block", "--length", "20:00")
    why = next(line for line in out.splitlines(True) if line.startswith("reason: "))
    assert run(capsysbinary, "draft", *options, *more)[1] == out.replace(why, "")  # words say why, too
    path = tmp_path / "class.yewhour"
    assert run(capsysbinary, "draft", words, "--seed", "3", "--out", str(path))[0] == 0
    assert run(capsysbinary, "check", str(path))[0] == 0
    assert run(capsysbinary, "draft", words, "--seed", "3")[1] == run(capsysbinary, "outline", str(path))[1]


@pytest.mark.parametrize(
    ("arguments", "code", "messages"),
    [
        (("about wings",), 2, "is a promise"),
        (("--style", "jazz"), 2, "no style 'jazz'"),
        (("--cautions", "dragons"), 1, "What does \u201cdragons\u201d ask for?"),
        (("hatha, mind dragons", "--yes"), 1, "What does \u201cdragons\u201d ask for?"),
        (("yoga for lupus",), 1, "It could be: \u201cmind"),
        (("--without", "xyzzy"), 1, "What does \u201cxyzzy\u201d ask for?"),
        (("lying only, standing only",), 1, "leave too little to do together"),
        (("hatha, 2 minutes",), 1, "less than three minutes"),
    ],
)
def test_a_promise_that_asks_back_or_can_t_be_kept_is_told(capsysbinary, arguments, code, messages):
    got, out, err = run(capsysbinary, "draft", *arguments)
    assert (got, out) == (code, "")
    assert messages in err


def test_a_course_is_written_class_by_class_and_says_what_each_brings(capsysbinary, tmp_path):
    words = "three weeks of two 10-minute mat classes, experienced, towards the teaser"
    folder = tmp_path / "course"
    code, out, _ = run(capsysbinary, "draft", "--series", words, "--out", str(folder), "--format", "json")
    made = json.loads(out)
    assert code == 0
    assert [one["week"] for one in made["classes"]] == [1, 1, 2, 2, 3, 3]
    assert made["classes"][0]["again"] == []
    assert all(one["again"] for one in made["classes"][1:])
    assert any("Teaser" in one["new"] + one["again"] for one in made["classes"][-1:])
    for one in made["classes"]:
        assert run(capsysbinary, "check", one["file"])[0] == 0
    code, _, err = run(capsysbinary, "draft", "--series", "20-minute hatha")
    assert (code, "No course is promised" in err) == (2, True)


def test_what_became_of_each_wish_is_told_before_the_class_and_stands_in_json(capsysbinary):
    words = "20-minute hatha, purple moonlight, mind knees, with a ring"
    code, _, err = run(capsysbinary, "draft", words)
    assert code == 0
    assert "kept \u2013 \u201cknees\u201d: minded: tender knees (left out:" in err
    assert "can't be kept \u2013 \u201cring\u201d" in err
    assert "not understood \u2013 \u201cpurple moonlight\u201d" in err
    code, found, _ = run(capsysbinary, "draft", words, "--format", "json")
    made = json.loads(found)
    assert code == 0
    assert {one["state"] for one in made["wishes"]} == {"kept", "unmet", "unknown"}
    assert {*made["wishes"][0]} == {"text", "meaning", "state", "reason"}
    assert made["class"]["brief"]["cautions"] == ["knees"]
    code, found, _ = run(capsysbinary, "draft", "yoga for lupus", "--format", "json")
    assert code == 1
    assert json.loads(found)["class"] is None
