"""Every export is read back by something that did not write it."""

import csv
import io
import json
from html import unescape

import msgspec
import pypdfium2
import pysubs2
import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import demo_classes
from yewhour.core.export.chapters import LEAST, chapters
from yewhour.core.lengths import parse_length
from yewhour.render.formats import FORMATS
from yewhour.render.script_pdf import (
    QUIET_S,
    ScriptRow,
    pages,
    unprintable_message,
    unprintable_signs,
)

RINGERS = demo_maker("bell-ringers").make(1440)


def test_a_cue_sheet_has_a_row_a_line_and_no_formula():
    timed = msgspec.structs.replace(
        RINGERS, cues=(msgspec.structs.replace(RINGERS.cues[0], text='=SUM(A1), "quoted"'), *RINGERS.cues[1:])
    )
    rows = list(csv.DictReader(io.StringIO(FORMATS["csv"].write(timed).decode())))
    assert len(rows) == len(timed.cues)
    assert rows[0]["line"] == '\'=SUM(A1), "quoted"'
    assert all(row["line"][0] not in "=+-@" for row in rows)


@pytest.mark.parametrize("path", demo_classes(), ids=lambda path: path.stem)
def test_chapters_start_at_nought_and_are_long_enough(path):
    solved = demo_maker(path.stem)
    timed = solved.make(solved.plan.brief.target_s)
    found = chapters(timed)
    assert found[0].start == 0
    assert found[-1].end == timed.length
    assert len(found) >= 3
    assert all(chapter.end - chapter.start >= LEAST for chapter in found)


def test_chapters_for_a_description_are_lengths_and_titles():
    lines = FORMATS["chapters"].write(RINGERS).decode().splitlines()
    assert lines[0].startswith("0:00 ")
    starts = [0.0] + [parse_length(line.split()[0]) for line in lines[1:]]
    assert starts == sorted(starts)


def test_chapters_for_ffmpeg_and_podcasts_and_labels_agree():
    meta = FORMATS["ffmetadata"].write(RINGERS).decode()
    podcast = json.loads(FORMATS["podcast"].write(RINGERS))
    assert meta.startswith(";FFMETADATA1\n")
    assert meta.count("[CHAPTER]") == len(podcast["chapters"])
    assert podcast["chapters"][0]["startTime"] == 0
    for line in FORMATS["labels"].write(RINGERS).decode().splitlines():
        start, end, text = line.split("\t")
        assert float(start) < float(end)
        assert text


def test_a_timeline_has_a_marker_for_every_movement():
    import opentimelineio as otio

    timeline = otio.adapters.read_from_string(FORMATS["otio"].write(RINGERS).decode(), "otio_json")
    clip = next(iter(timeline.find_clips()))
    assert clip.duration().to_seconds() == pytest.approx(1440)
    assert len(clip.markers) == sum(1 for segment in RINGERS.segments if segment.kind != "setup")


def test_the_description_has_props_cautions_and_chapters():
    text = FORMATS["description"].write(RINGERS).decode()
    assert "nothing but a mat" in text
    assert "doctor" in text
    assert "0:00 Arrive" in text


def test_a_stand_script_is_a_pdf_with_all_its_pages():
    content = FORMATS["pdf"].write(RINGERS)
    assert content.startswith(b"%PDF-")
    assert content.rstrip().endswith(b"%%EOF")
    document = pypdfium2.PdfDocument(content)
    pages = [document[number].get_textpage().get_text_range() for number in range(len(document))]
    for section in RINGERS.plan.sections:
        assert sum(section.title in page.splitlines() for page in pages) == 1
    assert all("s of quiet" in page for page in pages[:-1])
    assert "s of quiet" not in pages[-1]


def test_signs_that_can_t_be_printed_are_named():
    assert unprintable_signs(RINGERS) == []
    timed = with_lines("Shalom \u05e9, \U0001f9d8 and caf\u00e9 na\u00efve \u2013 \u1e9f.")
    assert unprintable_signs(timed) == [
        "hebrew letter shin",
        "latin small letter delta",
        "person in lotus position",
    ]
    assert unprintable_message(timed).startswith("The PDF has no sign for: hebrew letter shin, ")
    assert FORMATS["pdf"].write(timed).startswith(b"%PDF")


def test_pages_are_turned_in_quiet_moments_where_there_are_any():
    rows = [
        ScriptRow(RINGERS.segments[0], RINGERS.cues[0], "", 4.0 if n % 7 == 0 else 0.5, ["x"])
        for n in range(200)
    ]
    turned = pages(rows)
    assert sum(len(page) for page in turned) == 200
    assert all(page[-1].quiet_s >= QUIET_S for page in turned[:-1])


def with_lines(*texts):
    """The class with other words in its first lines."""
    cues = [msgspec.structs.replace(cue, text=text) for cue, text in zip(RINGERS.cues, texts, strict=False)]
    return msgspec.structs.replace(RINGERS, cues=(*cues, *RINGERS.cues[len(cues) :]))


def test_signs_of_a_format_in_a_line_are_no_signs_of_it():
    said = "Arms <b>up</b> & --> over, <v Nobody> {and} on &amp; on."
    timed = with_lines(said)
    vtt = FORMATS["vtt"].write(timed).decode()
    body = vtt.split("\n\n", 2)[1]
    assert "<" not in body.split("\n", 2)[2]
    assert body.count("-->") == 1
    assert "Arms <b>up</b> & --> over, <v Nobody>" in " ".join(unescape(body).split())
    srt = FORMATS["srt"].write(timed).decode()
    first = srt.split("\n\n")[0].split("\n", 2)
    assert srt.count("-->") == srt.count(" --> ") == len(pysubs2.SSAFile.from_string(srt))
    assert "Arms ‹b›up‹/b› & --› over" in " ".join(first[2].split())


def test_captions_hold_whatever_a_line_holds():
    timed = with_lines("[5s]", "One\n\ntwo.", "A \\N sign | and {another}.", "   ", "Breathe [3s] in.")
    for form in ("srt", "vtt"):
        text = FORMATS[form].write(timed).decode()
        parsed = pysubs2.SSAFile.from_string(text, format_=form)
        assert all(event.plaintext.strip() for event in parsed)
        words = " ".join(event.plaintext.replace("\n", " ") for event in parsed)
        assert "One two." in words
        assert len(parsed) >= len(RINGERS.cues) - 2


@pytest.mark.parametrize("cell", ["=1+1", " =1+1", "\ufeff=1", "\u200b@a", "＝1", "+1", "\t-1"])
def test_no_cell_is_a_formula_however_it_hides(cell):
    timed = with_lines(cell)
    rows = list(csv.DictReader(io.StringIO(FORMATS["csv"].write(timed).decode())))
    assert rows[0]["line"].startswith("'")


@pytest.mark.parametrize("title", ["樹のポーズ " + "Oars " * 60, "Tide 🌊 & <b>salt</b> " + "x" * 400])
def test_every_format_holds_every_title(title):
    brief = msgspec.structs.replace(RINGERS.plan.brief, title=title)
    plan = msgspec.structs.replace(RINGERS.plan, brief=brief)
    timed = msgspec.structs.replace(RINGERS, plan=plan)
    for form in FORMATS.values():
        assert form.write(timed)


def test_every_line_may_be_muted():
    timed = msgspec.structs.replace(RINGERS, cues=())
    for form in FORMATS.values():
        form.write(timed)


@pytest.mark.parametrize(("before_ends", "starts_ms"), [(50, 9000), (95, 9500)])
def test_a_caption_too_quick_to_read_begins_a_second_early_or_when_the_one_before_is_gone(
    before_ends, starts_ms
):
    quick = (
        "Lift the hips and the chest and the heels and the head and look as far along the river as you can."
    )
    times = (
        (before_ends - 30, before_ends, "Breathe in and out again, slowly."),
        (100, 120, quick),
        (125, 160, "Rest."),
    )
    cues = tuple(
        msgspec.structs.replace(RINGERS.cues[0], start=start, end=end, text=text)
        for start, end, text in times
    )
    shown = pysubs2.SSAFile.from_string(
        FORMATS["srt"].write(msgspec.structs.replace(RINGERS, cues=cues)).decode()
    )
    first = next(event for event in shown if event.plaintext.startswith("Lift"))
    assert first.start == starts_ms
