"""The demo classes: every one exact, with equal sides, at its own length and around it."""

import re

import pytest

from tests.conftest import demo_maker, shipped
from yewhour.content.paths import demo_classes
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.problem import CannotFit

NAMES = [path.stem for path in demo_classes()]


def test_there_is_a_demo_for_every_kind_of_class():
    assert len(NAMES) == 24


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("share", [0.8, 1.0, 1.25])
def test_a_demo_is_exact_or_says_why_not(name, share):
    solved = demo_maker(name)
    length_s = round(solved.plan.brief.target_s * share, 1)
    try:
        timed = solved.make(length_s)
    except CannotFit as refused:
        assert share != 1.0
        assert not refused.shortest_s <= length_s <= refused.longest_s  # noqa: PT017
        return
    assert timed.segments[-1].end == round(length_s * 10)
    sides = {}
    for segment in timed.segments:
        if segment.use.pair and segment.side in ("left", "right") and not segment.use.step.second:
            sums = sides.setdefault((segment.use.pair, segment.use.step.id), {"left": 0, "right": 0})
            sums[segment.side] += segment.length
    assert sides or name in ("four-at-the-slip", "the-way-back")
    for sums in sides.values():
        assert sums["left"] == sums["right"]
    for before, after in zip(timed.cues, timed.cues[1:], strict=False):
        assert after.start - before.end >= 4
    assert not [line.text for line in timed.dropped if line.must]
    assert not [cue.text for cue in timed.cues if re.search(r"[{}]", cue.text)]


@pytest.mark.parametrize("name", NAMES)
def test_a_demo_prefers_about_the_length_it_promises(name):
    solved = demo_maker(name)
    assert solved.preferred_s == pytest.approx(
        solved.plan.brief.target_s, rel=0.25
    )  # hands and props need their time


@pytest.mark.parametrize("name", NAMES)
def test_a_demo_comes_back_from_its_outline(name):
    plan, library = demo_maker(name).plan, shipped().library
    text = write_outline(plan, library)
    again = read_outline(text, library)
    assert write_outline(again, library) == text
    assert again.brief == plan.brief


@pytest.mark.parametrize("name", NAMES)
def test_a_demo_says_for_whom_and_why_it_is(name):
    brief = demo_maker(name).plan.brief
    assert brief.audience
    assert len(brief.reason) > 40


def timed(name):
    solved = demo_maker(name)
    return solved.make(solved.plan.brief.target_s)


def moves(name, kind=None):
    return [s for s in timed(name).segments if s.kind != "setup" and (kind is None or s.kind == kind)]


def test_a_mirrored_series_has_six_or_more_exercises():
    sided = [s.use.movement.id for s in moves("sail-loft-mat") if s.side == "left" and s.use.pair]
    assert len([name for name in sided if name.startswith(("clam", "side-"))]) >= 6


def test_a_long_chain_has_five_postures_and_long_holds():
    chain = [s for s in moves("hips-after-the-helm") if s.section == "The long chain" and s.side == "left"]
    assert len(chain) >= 5
    assert any(s.kind == "clock" and s.length >= 450 for s in chain)


def test_the_chain_that_turns_leaves_one_movement_out_on_the_second_side_on_purpose():
    chain = [s for s in moves("round-the-compass", "hold") if s.section == "Front of the mat"]
    backs = [s.side for s in chain if s.use.movement.id == "warrior-two" and s.use.step.mat == "back"]
    assert backs == ["right"]


def test_breath_is_kept_only_where_it_is_asked_for():
    held = [s.name for s in moves("first-light-two-ways", "phase") if any(p.phase == "full" for p in s.spans)]
    assert held
    assert all(name.startswith(("Upward salute", "Step back", "Cobra")) for name in held)


def test_the_evening_class_glides_to_four_breaths_a_minute():
    units = [s.use.unit for s in moves("lamps-out", "hold")]
    assert max(units) == 150
    assert min(units) <= 80


def test_quick_breath_is_a_minute_a_side():
    quick = moves("tide-tables", "rapid")
    assert [s.side for s in quick] == ["right", "left"]
    assert quick[0].length == quick[1].length


def test_a_restorative_class_is_mostly_silent():
    low = timed("low-water")
    spoken = sum(cue.end - cue.start for cue in low.cues)
    assert spoken < 0.25 * low.length
