import re

import msgspec
import pysubs2
import pytest

from tests.conftest import made_of
from yewhour.core.export.captions import LINES, READ_PER_S, WIDTH
from yewhour.core.export.chapters import chapters
from yewhour.core.export.reading import text
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Step
from yewhour.render.formats import FORMATS


def test_the_json_script_has_the_fields_of_the_contract(ringers):
    script = msgspec.json.decode(FORMATS["json"].write(ringers.make(1260)))
    assert script["length_s"] == script["target_s"] == 1260.0
    assert set(script) == {
        "version", "title", "target_s", "length_s", "tolerance_s", "props", "segments", "cues", "dropped",
        "findings",
    }  # fmt: skip
    assert set(script["segments"][0]) == {
        "id", "name", "movement", "section", "kind", "side", "pair", "round", "from", "to", "start_s",
        "end_s", "teach_s", "breaths", "reps", "phases", "state",
    }  # fmt: skip
    assert set(script["cues"][0]) == {"start_s", "end_s", "text", "purpose", "side", "segment", "must"}


def test_the_text_has_every_line_with_its_time_and_its_side(ringers):
    timed = ringers.make(1260)
    shown = text(timed)
    for cue in timed.cues:
        assert cue.text in shown
    assert re.search(r"^\s+\d+:\d\d R .*right", shown, re.M)
    assert re.search(r"^\s+\d+:\d\d L .*left", shown, re.M)


@pytest.mark.parametrize(("form", "kind"), [("srt", "srt"), ("vtt", "vtt")])
def test_captions_are_read_back_whole_and_narrow(ringers, form, kind):
    timed = ringers.make(1440)
    captions = pysubs2.SSAFile.from_string(FORMATS[form].write(timed).decode(), kind)
    shown = " ".join(event.plaintext.replace("\n", " ") for event in captions)
    assert shown == " ".join(cue.text for cue in timed.cues)
    for event, after in zip(captions, [*captions[1:], None], strict=True):
        lines = event.plaintext.split("\n")
        assert len(lines) <= LINES
        assert max(map(len, lines)) <= WIDTH
        assert after is None or event.end <= after.start
        assert event.end > event.start


@pytest.mark.parametrize("voice_rate", [1.0, 1.25, 1.5])
def test_captions_can_be_read_however_quick_the_voice(ringers, voice_rate):
    brief = msgspec.structs.replace(ringers.plan.brief, voice_rate=voice_rate)
    solved = solve(msgspec.structs.replace(ringers.plan, brief=brief), ringers.teaching_data)
    timed = solved.make(solved.nearest_s(1440))
    captions = pysubs2.SSAFile.from_string(FORMATS["srt"].write(timed).decode(), "srt")
    for event, after in zip(captions, [*captions[1:], None], strict=True):
        assert len(event.plaintext) <= READ_PER_S * (event.end - event.start + 1) / 1000
        assert after is None or event.end <= after.start


def test_markdown_marks_in_a_title_are_harmless(ringers):
    timed = ringers.make(1440)
    brief = msgspec.structs.replace(timed.plan.brief, title="*Ropes* <b>[x](y)")
    renamed = msgspec.structs.replace(timed, plan=msgspec.structs.replace(timed.plan, brief=brief))
    assert "# \\*Ropes\\* \\<b\\>\\[x\\](y)" in FORMATS["markdown"].write(renamed).decode()


def test_a_class_of_ways_alone_can_be_written_in_every_way():
    timed = made_of(Step(movement="floor-down"))
    assert chapters(timed)
    assert timed.cues[0].text in text(timed)
