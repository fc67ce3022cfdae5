"""Classes that were taught in other words than their scripts': found, each piece near where it was."""

from functools import cache
from pathlib import Path
from random import Random
from statistics import median

import pytest

from tests.conftest import demo_maker, shipped
from tools.teachers import captions, taught
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_brief
from yewhour.core.review.findings import review_findings
from yewhour.core.review.review import look_back
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.free_speech import aligned_freely, stem
from yewhour.core.transcript.transcript import Transcript
from yewhour.state.takes.recordings import load_looking

# Two classes as two teachers spoke them, and when each piece began: none of it from our wordings.
SPOKEN = Path(__file__).parent / "spoken"
NAMES = ("bell-ringers", "lamps-out")
OTHERS = ("hips-after-the-helm", "sail-loft-mat", "round-the-compass", "low-water")


@cache
def laid_over(name, heard):
    """A class over a recording, worked out once."""
    return aligned_freely(demo_maker(name).make().segments, recording(heard))


@cache
def recording(name):
    return read_captions((SPOKEN / f"{name}.txt").read_bytes())


def starts(name):
    rows = (SPOKEN / f"{name}.starts").read_text().splitlines()
    clocks = [row.split(" ", 1)[0].split(":") for row in rows]
    return [int(minutes) * 60 + int(secs) for minutes, secs in clocks]


@pytest.mark.parametrize("name", NAMES)
def test_each_piece_is_found_near_where_it_was(name):
    found = laid_over(name, name)
    real = starts(name)
    assert len(found.stretches) == len(real)
    off = [
        abs(one.start_s - at_s) if one.start_s is not None else 999
        for one, at_s in zip(found.stretches, real, strict=True)
    ]
    assert median(off) <= 5
    assert sum(one <= 12 for one in off) >= 0.75 * len(off)


@pytest.mark.parametrize("name", NAMES)
def test_a_class_in_other_words_is_this_class_and_no_other(name):
    assert laid_over(name, name).of_this(0.0)
    for other in {*OTHERS, *NAMES} - {name}:
        assert not laid_over(other, name).of_this(0.0), other


@pytest.mark.parametrize("name", NAMES)
def test_look_back_says_so_and_claims_no_line_that_was_not_said(name):
    back = look_back(demo_maker(name).make(), None, recording(name))
    assert back.own_words
    assert not back.stranger
    codes = {one.code for one in review_findings(back, load_looking())}
    assert "own-words" in codes
    assert codes <= {"own-words", "late", "early"}
    for before, after in zip(back.segments, back.segments[1:], strict=False):
        assert before.end_s <= after.start_s + 0.01
    assert [one.text for one in back.extra] == [one.text for one in recording(name).talks]  # nothing is lost


def test_the_same_class_told_otherwise_and_carelessly_is_found():
    solved = demo_maker("sail-loft-mat")
    other = solve(with_brief(solved.plan, telling=7), shipped()).make()
    said = taught(other, Random(2), drift=0.06, skipped=0.2, remarks=0.2)
    found = aligned_freely(solved.make().segments, read_captions(captions(said, "bare")))
    off = [
        abs(one.start_s - said.segments[one.segments[0]][0])
        for one in found.stretches
        if one.start_s is not None and one.segments[0] in said.segments
    ]
    assert found.of_this(0.1)
    assert median(off) <= 9


def test_where_hardly_anything_is_said_nothing_is_claimed():
    segments = demo_maker("bell-ringers").make().segments
    assert aligned_freely(segments, Transcript((), (), 1440.0)) is None
    assert aligned_freely(segments[:2], recording("bell-ringers")) is None


def test_a_word_is_known_by_its_stem():
    assert stem("lifting") == stem("lifts") == stem("lifted") == "lift"
    assert stem("is") == "is"
