"""A class beside a recording of it: real times of segments, findings that are true, and none that are not."""

import re
from functools import cache
from random import Random

import pytest

from tests.conftest import demo_maker
from tools.teachers import captions, taught
from yewhour.core.export.cue_sheet import cue_sheet
from yewhour.core.lengths import seconds
from yewhour.core.review.actual_class import actual_class
from yewhour.core.review.findings import review_findings
from yewhour.core.review.review import look_back
from yewhour.core.review.review_values import review_values
from yewhour.core.take.marks import Mark
from yewhour.core.take.replay import replay
from yewhour.core.transcript.captions import read_captions
from yewhour.state.takes.recordings import load_looking

RULES = load_looking()
LONG = pytest.mark.long
DEMOS = (
    "sail-loft-mat",
    pytest.param("hips-after-the-helm", marks=LONG),
    pytest.param("bell-ringers", marks=LONG),
)


@cache
def taken(name, seed=1, **slips):
    timed = demo_maker(name).make()
    said = taught(timed, Random(seed), **slips)
    return said, look_back(timed, None, read_captions(captions(said)))


def codes(back):
    return [one.code for one in review_findings(back, RULES)]


@pytest.mark.parametrize("name", DEMOS)
def test_a_class_taught_as_planned_gives_no_finding(name):
    _, back = taken(name)
    assert codes(back) == []
    assert abs(back.length_s - back.target_s) < 3


@pytest.mark.parametrize("name", DEMOS)
def test_real_lengths_of_segments_are_found(name):
    timed = demo_maker(name).make()
    held = [one.id for one in timed.segments if one.kind == "hold" and one.length > 200]
    longer = {held[0]: 11.0, held[len(held) // 2]: 7.0, held[-1]: 14.0}
    said = taught(timed, Random(2), longer=longer, drift=0.02, skipped=0.06)
    back = look_back(timed, None, read_captions(captions(said)))
    off = []
    for one in back.segments:
        if one.sure >= 0.8:
            start_s, end_s = said.segments[one.segment.id]
            off.append(abs((one.end_s - one.start_s) - (end_s - start_s)))
    assert len(off) > len(back.segments) / 3
    assert sum(one <= 1.5 for one in off) >= 0.95 * len(off)
    for before, after in zip(back.segments, back.segments[1:], strict=False):
        assert before.end_s == after.start_s


def first_side(name):
    timed = demo_maker(name).make()
    return next(one for one in timed.segments if one.use.pair and one.kind == "hold" and not one.use.second)


def test_a_longer_side_is_told_with_both_and_where_it_went():
    one = first_side("bell-ringers")
    timed = demo_maker("bell-ringers").make()
    said = taught(timed, Random(3), longer={one.id: 17.0})
    back = look_back(timed, None, read_captions(captions(said)))
    found = {finding.code: finding for finding in review_findings(back, RULES)}
    took, named = re.match(
        r"(.*): (\d+) s on the right, (\d+) s on the left", found["uneven"].message
    ).groups()[:2]
    assert took == one.use.name
    assert abs(int(named) - seconds(one.length) - 17) <= 1.5
    assert found.keys() == {"uneven"}  # and it is told once: not as so late, or as so many breaths, too
    assert back.causes[0].kind == "longer"
    assert back.causes[0].seconds == pytest.approx(17, abs=1.5)


def test_an_unsaid_change_of_side_is_told():
    timed = demo_maker("bell-ringers").make()
    side = next(
        number
        for number, cue in enumerate(timed.cues)
        if cue.side == "left" and cue.purpose in ("side", "place")
    )
    said = taught(timed, Random(1))
    kept = tuple(one for one in said.said if one.line != side)
    back = look_back(timed, None, read_captions(captions(type(said)(kept, said.segments, said.length_s))))
    (messages,) = [one for one in review_findings(back, RULES) if one.code == "unsaid-side"]
    assert timed.cues[side].text in messages.message
    assert abs(messages.at_s - seconds(timed.cues[side].start)) < 5


def test_another_class_is_told_and_nothing_else_is_claimed():
    said, _ = taken("bell-ringers")
    timed = demo_maker("hips-after-the-helm").make()
    back = look_back(timed, None, read_captions(captions(said)))
    assert codes(back) == ["stranger"]
    assert all(line.said_s is None for line in back.lines)


def test_a_recording_that_was_cut_off_is_told_and_what_came_after_is_not_missed():
    said, _ = taken("bell-ringers")
    timed = demo_maker("bell-ringers").make()
    cut_s = next(one.start_s for one in said.said if one.start_s > 600 and one.start_s - 600 < 60)
    kept = tuple(one for one in said.said if one.start_s < cut_s)
    back = look_back(timed, None, read_captions(captions(type(said)(kept, said.segments, cut_s))))
    assert codes(back) == ["cut-off"]
    assert back.length_s < 610


def test_the_marks_of_a_take_tell_what_was_done():
    solved = demo_maker("bell-ringers")
    timed = solved.make()
    hold = first_side("bell-ringers")
    at_s = seconds(hold.start) + 5
    marks = [Mark(0.0, "start"), Mark(at_s, "again"), Mark(at_s + 3, "back"), Mark(1440.0, "end")]
    back = look_back(timed, replay(solved, timed, marks), None)
    assert "tried" in codes(back)
    assert back.segments[-1].end_s == pytest.approx(1440, abs=1)
    value = review_values(back, review_findings(back, RULES))
    assert {one["id"] for one in value["segments"]} == {one.id for one in timed.segments}
    assert {one["sure"] for one in value["segments"]} == {1.0}
    assert value["lines"] == []
    assert len(value["tried"]) >= 1


def test_the_answer_has_what_others_need():
    _, back = taken("bell-ringers", skipped=0.05, remarks=0.1)
    value = review_values(back, review_findings(back, RULES))
    assert {"length_s", "target_s", "segments", "lines", "extra", "findings"} <= value.keys()
    for one in value["segments"]:
        assert {"id", "planned_start_s", "planned_end_s", "start_s", "end_s", "sure"} <= one.keys()
        assert 0 <= one["sure"] <= 1
    assert any(line["said_s"] is None for line in value["lines"])
    assert all(0 <= line["sure"] <= 1 for line in value["lines"])
    assert value["extra"]


def test_it_is_written_as_it_was(tmp_path):
    said, back = taken("bell-ringers", drift=0.02, remarks=0.05)
    real = actual_class(back, True)
    assert real.length_s == pytest.approx(back.length_s, abs=0.1)
    assert [one.start for one in real.segments] == [round(one.start_s * 10) for one in back.segments]
    assert all(one.start <= two.start for one, two in zip(real.cues, real.cues[1:], strict=False))
    assert len(real.cues) == len(said.said)
    for segment in real.segments:
        assert all(segment.start <= span.start <= span.end <= segment.end for span in segment.spans)


def test_what_was_put_otherwise_is_marked_where_it_is_not_sure():
    _, back = taken("bell-ringers", misheard=0.35)
    reworded = [line for line in back.lines if line.how == "reworded"]
    assert reworded
    spoken = {cue.text for cue in actual_class(back, False).cues}
    assert any(text.endswith(" (?)") for text in spoken)
    assert not any(cue.text.endswith(" (?)") for cue in actual_class(back, True).cues)


def test_a_line_that_was_heard_after_the_end_stays_in_what_is_written():
    timed = demo_maker("four-at-the-slip").make()
    said = f"[0:01] {timed.cues[0].text}\n[0:03] {timed.cues[-1].text}"
    back = look_back(timed, None, read_captions(said.encode()))
    real = actual_class(back, True)
    ids = {one.id for one in real.segments}
    assert {cue.segment for cue in real.cues} <= ids
    assert cue_sheet(real)


def test_what_was_cut_out_stands_in_the_answer_with_both_its_ends():
    timed = demo_maker("sail-loft-mat").make()
    marks = [
        Mark(0.0, "start"),
        Mark(90.0, "pause"),
        Mark(110.0, "resume", cut=(80.0, 110.0)),
        Mark(700.0, "end"),
    ]
    back = look_back(timed, replay(demo_maker("sail-loft-mat"), timed, marks), None)
    assert review_values(back, [])["cuts"] == [{"from_s": 80.0, "to_s": 110.0}]


def noticed(name, *marks):
    """What is noticed of a take by its marks alone."""
    solved = demo_maker(name)
    timed = solved.make()
    back = look_back(timed, replay(solved, timed, [Mark(0.0, "start"), *marks]), None)
    return [one.message for one in review_findings(back, RULES)]


def test_one_more_round_is_told():
    timed = demo_maker("bell-ringers").make()
    second = next(one for one in timed.segments if one.use.flow and one.use.round == 2)
    end_s = seconds(timed.length)
    told = noticed("bell-ringers", Mark(seconds(second.start) + 1, "again"), Mark(end_s + 40, "end"))
    assert any("rounds, " in one and "were planned" in one for one in told)
    assert not any("rounds" in one for one in noticed("bell-ringers", Mark(end_s, "end")))
